<script setup lang="ts">
import { decimal, t } from '@/words'
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { words as wordsApi } from '@/api/endpoints/words'
import { useAnswer } from '@/api/queries'
import type { Read } from '@/api/types'
import { TICKS } from '@/player/time'
import AnswerState from '@/shell/AnswerState.vue'
import { useDesk } from '@/shell/desk'
import { useShortcuts } from '@/shell/keys'
import HeardPlace from './HeardPlace.vue'

/** A scene's script beside its takes: each line with all its reads, which are played one after the other. */
const { production, day } = useDesk()
const route = useRoute()
const router = useRouter()
const scene = computed(() => String(route.query.scene ?? ''))
/** A take leads to its scene. */
const take = computed(() => (typeof route.query.take === 'string' ? route.query.take : null))
const { data, isPending, error, refetch } = useAnswer(() =>
  wordsApi.script(production.value.ulid, scene.value, take.value),
)
const goScene = (name: string) => void router.replace({ query: { scene: name } })

/** Only reads of circled takes, or of all. */
const circled = ref(false)
const reads = (all: Read[]) => (circled.value ? all.filter((one) => one.status === 'circled') : all)
const at = ref(0)
watch(scene, () => ((at.value = 0), stop()))
const unsaid = computed(() => data.value?.lines.filter((line) => line.reads.length === 0).length ?? 0)

// Reads that wait for their turn; the first is heard.
const queue = ref<Read[]>([])
const heard = ref<Read | null>(null)
const turn = ref(0)
const player = useTemplateRef('player')
function play(all: Read[]): void {
  if (all.length === 0) return
  heard.value = all[0]!
  queue.value = all.slice(1)
  turn.value++
}
function stop(): void {
  queue.value = []
  player.value?.stop()
}
const list = useTemplateRef<HTMLElement>('list')
function step(by: number): void {
  const lines = data.value?.lines ?? []
  at.value = Math.max(0, Math.min(lines.length - 1, at.value + by))
  void nextTick(() => list.value?.querySelector('.line.on')?.scrollIntoView({ block: 'nearest' }))
}
const playLine = () => play(reads(data.value?.lines[at.value]?.reads ?? []))
function open(read: Read): void {
  void router.push({
    name: 'clip',
    params: { production: production.value.ulid, day: read.day, clip: read.clip },
    query: { at: String(read.start_ticks), tab: 'words' },
  })
}
const titleOf = (read: Read) =>
  read.share !== null && read.share < 1
    ? t('words.ScriptPage.ofTheLine', [read.text, Math.round(100 * read.share)])
    : read.text
const length = (read: Read) => `${decimal((read.end_ticks - read.start_ticks) / TICKS, 1)} s`
function stepScene(by: number): void {
  const all = data.value?.scenes ?? []
  const next = all[all.indexOf(data.value?.scene ?? '') + by]
  if (next !== undefined) goScene(next)
}
useShortcuts('Script', [
  {
    keys: ['ArrowUp', 'ArrowDown'],
    what: t('words.ScriptPage.theLineBeforeTheNext'),
    run: (event) => step(event.key === 'ArrowUp' ? -1 : 1),
  },
  { keys: ['Enter', 'y'], what: t('words.ScriptPage.playAllReadsOfThe'), run: playLine },
  { keys: ['x'], what: t('words.ScriptPage.onlyCircledTakesOrAll'), run: () => (circled.value = !circled.value) },
  {
    keys: ['Alt+ArrowLeft', 'Alt+ArrowRight'],
    what: t('words.ScriptPage.theSceneBeforeTheNext'),
    run: (event) => stepScene(event.key === 'ArrowLeft' ? -1 : 1),
  },
  { keys: ['Escape'], what: t('words.ScriptPage.stop'), run: stop },
])
</script>

<template>
  <div class="page">
    <section class="left">
      <div class="bar">
        <h2>{{ t('words.ScriptPage.scriptAndReads') }}</h2>
        <select
          v-if="data && data.scenes.length > 0"
          class="field"
          :aria-label="t('words.ScriptPage.scene')"
          :value="data.scene"
          @change="goScene(($event.target as HTMLSelectElement).value)"
        >
          <option v-for="one in data.scenes" :key="one" :value="one">{{ t('words.ScriptPage.scene2', [one]) }}</option>
        </select>
        <span v-if="data" class="soft">{{ data.heading }}</span>
        <label class="push"
          ><input v-model="circled" type="checkbox" /> {{ t('words.ScriptPage.onlyCircled') }} <kbd>X</kbd></label
        >
      </div>
      <AnswerState :pending="isPending" :error="error" @retry="refetch()">
        <p v-if="data && data.scenes.length === 0" class="nothing soft">
          {{ t('words.ScriptPage.thisProductionHasNoScript') }}
          <router-link class="plain" :to="{ name: 'log', params: { production: production.ulid, day: day.ulid } }">{{
            t('words.ScriptPage.bringOneInTheLog')
          }}</router-link>
        </p>
        <div v-else-if="data" ref="list" class="list">
          <p class="soft">
            {{
              t('words.ScriptPage.ofLinesWereHeardIn', [
                data.lines.length - unsaid,
                data.lines.length,
                data.takes - data.unheard.length,
                data.takes,
              ])
            }}
            <template v-if="data.unheard.length > 0">{{
              t('words.ScriptPage.nobodyHasListenedTo', [
                data.unheard.slice(0, 8).join(', '),
                data.unheard.length > 8 ? t('words.ScriptPage.andMore', [data.unheard.length - 8]) : '',
              ])
            }}</template>
          </p>
          <p v-if="data.lines.length === 0" class="soft">{{ t('words.ScriptPage.theScriptHasNoLines') }}</p>
          <div
            v-for="(line, n) in data.lines"
            :key="line.number"
            class="line"
            :class="{ on: at === n, unsaid: line.reads.length === 0 }"
            @click="at = n"
          >
            <b class="who">{{ line.character }}</b>
            <p>{{ line.text }}</p>
            <div class="reads">
              <span v-if="line.reads.length === 0" class="warn">{{ t('words.ScriptPage.notHeard') }}</span>
              <template v-else>
                <button
                  v-if="reads(line.reads).length > 1"
                  class="plain"
                  :title="t('words.ScriptPage.oneAfterTheOtherEnter')"
                  @click.stop="((at = n), play(reads(line.reads)))"
                >
                  {{ t('words.ScriptPage.reads', [reads(line.reads).length]) }}
                </button>
                <button
                  v-for="read in reads(line.reads)"
                  :key="`${read.take} ${read.start_ticks}`"
                  class="read mono"
                  :class="{ heard: heard === read, circled: read.status === 'circled', ng: read.status === 'ng' }"
                  :title="titleOf(read)"
                  @click.stop="((at = n), play([read]))"
                  @dblclick.stop="open(read)"
                >
                  {{ read.label }} <small>{{ length(read) }}</small><small
                    v-if="read.share !== null && read.share < 0.95"
                    class="warn"
                  >
                    {{ t('words.ScriptPage.inPart') }}</small
                  >
                </button>
              </template>
            </div>
          </div>
          <template v-if="data.unwritten.length > 0">
            <h3>{{ t('words.ScriptPage.heardAndNotFoundIn') }}</h3>
            <div class="unwritten">
              <button
                v-for="read in data.unwritten.slice(0, 300)"
                :key="`${read.take} ${read.start_ticks}`"
                class="read"
                @click="play([read])"
              >
                <span class="mono">{{ read.label }}</span> “{{ read.text }}”
              </button>
            </div>
          </template>
        </div>
      </AnswerState>
    </section>
    <aside v-if="heard" class="right">
      <h2>
        <span class="mono">{{ heard.label }}</span>
        <span v-if="queue.length > 0" class="soft">{{ t('words.ScriptPage.moreBehindIt', [queue.length]) }}</span>
        <button class="plain" @click="open(heard)">{{ t('words.ScriptPage.itsSheet') }}</button>
        <span class="soft"
          >{{ t('words.ScriptPage.as') }}
          <a
            v-for="cues in ['txt', 'srt', 'vtt']"
            :key="cues"
            class="file"
            :href="wordsApi.file(production.ulid, `takes/${heard.take}`, cues)"
            download
            >{{ cues.toUpperCase() }}</a
          ></span
        >
      </h2>
      <p class="said">“{{ heard.text }}”</p>
      <HeardPlace
        ref="player"
        :clip="heard.clip"
        :from="heard.start_ticks"
        :to="heard.end_ticks"
        :take="heard.take"
        :turn="turn"
        @end="play(queue)"
      />
    </aside>
  </div>
</template>

<style scoped>
.page {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  height: 100%;
  min-height: 0;
}
.left {
  display: flex;
  flex-direction: column;
  min-height: 0;
}
.list {
  overflow: auto;
  padding: 8px 18px 24px;
}
.nothing {
  padding: 12px 18px;
}
.line {
  display: grid;
  grid-template-columns: 90px minmax(0, 1fr);
  gap: 2px 10px;
  padding: 7px 8px;
  border-left: 3px solid transparent;
  cursor: default;
}
.line.on {
  border-left-color: var(--act);
  background: var(--sheet);
}
.line p {
  margin: 0;
  font-size: 14px;
}
.line.unsaid p {
  color: var(--ink-faint);
}
.who {
  color: var(--info);
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.reads {
  grid-column: 2;
  display: flex;
  flex-wrap: wrap;
  gap: 5px;
  align-items: center;
}
.read {
  border: 1px solid var(--rule-strong);
  border-radius: 4px;
  background: var(--sheet);
  padding: 2px 7px;
  cursor: pointer;
  font-size: 12px;
}
.read.circled {
  border-radius: 12px;
  border-color: var(--ink);
}
.read.ng {
  text-decoration: line-through;
}
.read.heard {
  background: var(--act-soft);
  border-color: var(--act);
}
.read small {
  color: var(--ink-soft);
}
h3 {
  font-size: 13px;
  margin: 18px 0 6px;
}
.unwritten {
  display: flex;
  flex-wrap: wrap;
  gap: 5px;
}
.right {
  width: min(42vw, 520px);
  border-left: 1px solid var(--rule);
  background: var(--sheet-2);
  padding: 12px 16px;
  overflow: auto;
}
.right h2 {
  display: flex;
  gap: 10px;
  align-items: center;
}
.file {
  color: var(--info);
  margin-left: 6px;
  font-size: 12px;
  font-weight: 400;
}
.said {
  font-size: 14px;
}
</style>
