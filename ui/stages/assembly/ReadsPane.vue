<script setup lang="ts">
import { t } from '@/words'
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue'
import { log as logApi } from '@/api/endpoints/log'
import { words as wordsApi } from '@/api/endpoints/words'
import { useAnswer } from '@/api/queries'
import type { Read } from '@/api/types'
import { length } from '@/player/time'
import AnswerState from '@/shell/AnswerState.vue'
import { useDesk } from '@/shell/desk'
import { useShortcuts } from '@/shell/keys'
import { listen } from '@/shell/listen'
import { say } from '@/shell/say'
import type { CutItem, CutValue } from './value'

/**
 * What a cut is made of: the script's lines with all their reads, and which of them the cut shows; without a script the
 * takes of the day.
 */
export interface Stuff {
  clip: string
  /** On which it was shot. */
  day: string
  in_ticks: number
  out_ticks: number
  take: string | null
  character: string | null
  label: string
}
const props = defineProps<{
  value: CutValue
  scene: string
  canWork: boolean
  /** Something is tried in place: Enter keeps it. */
  trying: boolean
  /** A digit is awaited for something else. */
  turning: boolean
}>()
const emit = defineEmits<{
  keep: []
  turn: [digit: number]
  put: [stuff: Stuff, how: 'append' | 'insert' | 'lay_over']
  scene: [name: string]
  line: [scene: string, line: number]
  hear: [stuff: Stuff]
}>()
const { production, day } = useDesk()
const { data, isPending, error, refetch } = useAnswer(() => wordsApi.script(production.value.ulid, props.scene, null))
const hasScript = computed(() => (data.value?.scenes.length ?? 0) > 0)
const { data: sheet } = useAnswer(() =>
  data.value !== undefined && !hasScript.value ? logApi.sheet(production.value.ulid, day.value.ulid) : null,
)
const takes = computed(() => (sheet.value?.takes ?? []).filter((take) => take.clips.length > 0))

/** Which stretches of each take the cut shows, by the take. */
const shown = computed(() => {
  const found = new Map<string, CutItem[]>()
  for (const track of props.value.tracks)
    for (const item of track.items) {
      const take = item.metadata.take
      if (typeof take === 'string') found.set(take, [...(found.get(take) ?? []), item])
    }
  return found
})
/** A read is in the cut where an item of its take shows most of it, of the recording that it was heard in. */
const isCut = (read: Read): boolean =>
  (shown.value.get(read.take) ?? []).some(
    (item) =>
      item.source.id === read.clip &&
      Math.min(item.source_start_ticks + item.duration_ticks, read.end_ticks) -
        Math.max(item.source_start_ticks, read.start_ticks) >
        (read.end_ticks - read.start_ticks) / 2,
  )
const lines = computed(() => (data.value?.lines ?? []).map((line) => ({ ...line, isCut: line.reads.some(isCut) })))
const missing = computed(() => lines.value.filter((line) => !line.isCut).length)

const at = ref(0)
/** Which read of the line is chosen. */
const read = ref(0)
watch(
  () => props.scene,
  () => ([at.value, read.value] = [0, 0]),
)
const list = useTemplateRef<HTMLElement>('list')
const count = computed(() => (hasScript.value ? lines.value.length : takes.value.length))
function step(by: number): void {
  at.value = Math.max(0, Math.min(count.value - 1, at.value + by))
  const reads = lines.value[at.value]?.reads ?? []
  // What is circled is most likely wanted.
  read.value = Math.max(
    0,
    reads.findIndex((one) => one.status === 'circled'),
  )
  void nextTick(() => list.value?.querySelector('.on')?.scrollIntoView({ block: 'nearest' }))
}
const stuffOf = (one: Read, character: string | null): Stuff => ({
  clip: one.clip,
  day: one.day,
  in_ticks: one.start_ticks,
  out_ticks: one.end_ticks,
  take: one.take,
  character,
  label: one.label,
})
const chosen = computed<Stuff | null>(() => {
  if (hasScript.value) {
    const line = lines.value[at.value]
    const one = line?.reads[read.value]
    return one === undefined || line === undefined ? null : stuffOf(one, line.character)
  }
  const take = takes.value[at.value]
  const clip = take?.clips.find((one) => one.kind === 'picture') ?? take?.clips[0]
  return take === undefined || clip === undefined || clip.duration_ticks === null
    ? null
    : {
        clip: clip.ulid,
        day: day.value.ulid,
        // Of one file over ten takes it is the take's own stretch.
        in_ticks: clip.in_ticks ?? 0,
        out_ticks: (clip.in_ticks ?? 0) + clip.duration_ticks,
        take: take.ulid,
        character: null,
        label: `${take.setup}/${take.take}`,
      }
})
function put(how: 'append' | 'insert' | 'lay_over'): void {
  if (chosen.value === null || !props.canWork) return
  emit('put', chosen.value, how)
  if (how !== 'append') return
  // On to the next line that somebody was heard saying.
  const next = lines.value.findIndex((line, index) => index > at.value && line.reads.length > 0)
  step(next < 0 ? (hasScript.value ? 0 : 1) : next - at.value)
}
function stepScene(by: number): void {
  const all = data.value?.scenes ?? []
  const next = all[all.indexOf(data.value?.scene ?? '') + by]
  if (next !== undefined) emit('scene', next)
}
useShortcuts('Reads', [
  {
    keys: ['PageUp', 'PageDown'],
    what: t('assembly.ReadsPane.theLineBeforeTheNext'),
    run: (event) => step(event.key === 'PageUp' ? -1 : 1),
  },
  {
    keys: ['1', '2', '3', '4', '5', '6', '7', '8', '9'],
    what: t('assembly.ReadsPane.whichReadOfTheLine'),
    run: (event) => {
      const index = Number(event.key) - 1
      if (props.turning) emit('turn', index + 1)
      else if (lines.value[at.value]?.reads[index] !== undefined) read.value = index
    },
  },
  { keys: ['y'], what: t('assembly.ReadsPane.hearIt'), run: () => chosen.value !== null && emit('hear', chosen.value) },
  {
    keys: ['Enter', '+'],
    what: t('assembly.ReadsPane.addItAtTheEnd'),
    run: () => (props.trying ? emit('keep') : put('append')),
  },
  { keys: ['n'], what: t('assembly.ReadsPane.putItInAtThe'), run: () => put('insert') },
  { keys: ['u'], what: t('assembly.ReadsPane.layItOverWhatIs'), run: () => put('lay_over') },
  {
    keys: ['Alt+a'],
    what: t('assembly.ReadsPane.allReadsOfTheLine'),
    run: () => lines.value[at.value] !== undefined && emit('line', data.value!.scene, lines.value[at.value]!.number),
  },
  {
    keys: ['Alt+ArrowLeft', 'Alt+ArrowRight'],
    what: t('assembly.ReadsPane.theSceneBeforeTheNext'),
    run: (event) => stepScene(event.key === 'ArrowLeft' ? -1 : 1),
  },
])
const listening = ref(false)
async function listenToDay(): Promise<void> {
  listening.value = true
  listening.value = await listen(production.value.ulid, day.value.ulid)
  if (listening.value) say(t('assembly.ReadsPane.itIsListenedToReads'))
}
watch(
  () => data.value?.unheard.length,
  () => (listening.value = false),
)
function title(one: Read): string {
  const share = one.share === null ? 1 : one.share
  return `“${one.text}”${share < 1 ? t('assembly.ReadsPane.ofTheLine', [Math.round(100 * share)]) : ''}`
}
</script>

<template>
  <section class="reads" :aria-label="t('assembly.ReadsPane.reads')">
    <div class="head">
      <select
        v-if="hasScript"
        class="field"
        :aria-label="t('assembly.ReadsPane.scene')"
        :value="data!.scene"
        @change="emit('scene', ($event.target as HTMLSelectElement).value)"
      >
        <option v-for="one in data!.scenes" :key="one" :value="one">{{ t('assembly.ReadsPane.scene2', [one]) }}</option>
      </select>
      <b v-if="hasScript" class="name" :title="data!.heading">{{ data!.heading }}</b>
      <b v-else>{{ t('assembly.ReadsPane.takesOfTheDay') }}</b>
      <span v-if="hasScript && lines.length > 0" class="soft" data-testid="covered">{{
        t('assembly.ReadsPane.ofLinesInTheCut', [lines.length - missing, lines.length])
      }}</span>
    </div>
    <AnswerState :pending="isPending" :error="error" @retry="refetch()">
      <div ref="list" class="list">
        <template v-if="hasScript">
          <p v-if="lines.length === 0" class="soft">{{ t('assembly.ReadsPane.theScriptHasNoLines') }}</p>
          <p v-if="data!.unheard.length > 0" class="unheard soft">
            {{ t('assembly.ReadsPane.nobodyHasListenedToOf', [data!.unheard.length, data!.takes]) }}
            <button v-if="production.may.organise" class="small" :disabled="listening" @click="listenToDay">
              {{ listening ? t('assembly.ReadsPane.listening') : t('assembly.ReadsPane.findWhatIsSaidIn') }}
            </button>
          </p>
          <div
            v-for="(line, n) in lines"
            :key="line.number"
            class="line"
            :class="{ on: at === n, missing: !line.isCut }"
            @click="((at = n), (read = 0))"
          >
            <p>
              <b>{{ line.character }}</b> {{ line.text }}
            </p>
            <div class="all">
              <span v-if="line.reads.length === 0" class="warn">{{ t('assembly.ReadsPane.notHeard') }}</span>
              <button
                v-for="(one, m) in line.reads"
                :key="`${one.take} ${one.start_ticks}`"
                data-row
                class="one mono"
                :class="{
                  cut: isCut(one),
                  circled: one.status === 'circled',
                  ng: one.status === 'ng',
                  chosen: at === n && read === m,
                }"
                :title="title(one)"
                :aria-pressed="at === n && read === m"
                @click.stop="((at = n), (read = m))"
                @dblclick.stop="canWork && put('append')"
              >
                {{ one.label }}
              </button>
              <span v-if="!line.isCut && line.reads.length > 0" class="soft">{{
                t('assembly.ReadsPane.notInTheCut')
              }}</span>
            </div>
          </div>
        </template>
        <template v-else>
          <p class="soft">
            {{ t('assembly.ReadsPane.thisProductionHasNoScript') }}
            <RouterLink class="plain" :to="{ name: 'log' }">{{ t('assembly.ReadsPane.bringOneInTheLog') }}</RouterLink>
            {{ t('assembly.ReadsPane.toCutByItsLines') }}
          </p>
          <p v-if="takes.length === 0" class="soft">{{ t('assembly.ReadsPane.dayHasNoTakesYet', [day.number]) }}</p>
          <button
            v-for="(take, n) in takes"
            :key="take.ulid"
            data-row
            class="take"
            :class="{ on: at === n, cut: shown.has(take.ulid) }"
            @click="at = n"
            @dblclick="canWork && put('append')"
          >
            <b class="mono">{{ take.setup }}/{{ take.take }}</b> {{ take.description }}
            <span class="soft">{{ length(take.clips[0]?.duration_ticks ?? null) }}</span>
          </button>
        </template>
      </div>
    </AnswerState>
    <p v-if="canWork && (chosen !== null || count > 0)" class="foot soft">
      <kbd>1</kbd>…<kbd>9</kbd> {{ t('assembly.ReadsPane.read') }} <kbd>↵</kbd> {{ t('assembly.ReadsPane.add') }}
      <kbd>N</kbd> {{ t('assembly.ReadsPane.putIn') }} <kbd>U</kbd> {{ t('assembly.ReadsPane.layOver') }} <kbd>Y</kbd>
      {{ t('assembly.ReadsPane.hear') }}
    </p>
  </section>
</template>

<style scoped>
.reads {
  display: flex;
  flex-direction: column;
  min-height: 0;
  min-width: 0;
  background: var(--sheet-2);
}
.head {
  display: flex;
  gap: 8px;
  align-items: baseline;
  padding: 10px 14px 6px;
}
.head .name {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  min-width: 0;
}
.head .soft {
  margin-left: auto;
  white-space: nowrap;
}
.list {
  overflow: auto;
  padding: 0 14px 10px;
  flex: 1;
  min-height: 0;
}
.line {
  padding: 6px 8px;
  border-left: 3px solid transparent;
  border-bottom: 1px solid var(--rule);
}
.line.on {
  border-left-color: var(--act);
  background: var(--sheet);
}
.line p {
  margin: 0 0 3px;
}
.line b {
  color: var(--info);
  font-weight: 600;
}
.line.missing p {
  color: var(--ink-soft);
}
.all {
  display: flex;
  flex-wrap: wrap;
  gap: 5px;
  align-items: center;
}
.one {
  border: 1px solid var(--rule-strong);
  border-radius: 3px;
  background: var(--sheet);
  padding: 1px 7px;
  font-size: 12px;
  cursor: pointer;
}
.one.circled {
  border-radius: 11px;
  border-color: var(--act);
  color: var(--act);
}
.one.ng {
  text-decoration: line-through;
}
.one.cut {
  background: var(--act);
  border-color: var(--act);
  color: #fff;
}
.one.chosen {
  outline: 2px solid var(--ink);
  outline-offset: 1px;
}
.take {
  display: flex;
  gap: 8px;
  width: 100%;
  text-align: left;
  border: 0;
  border-bottom: 1px solid var(--rule);
  border-left: 3px solid transparent;
  background: none;
  padding: 6px 8px;
  cursor: pointer;
}
.take.on {
  border-left-color: var(--act);
  background: var(--sheet);
}
.take.cut b {
  color: var(--act);
}
.take .soft {
  margin-left: auto;
}
.unheard {
  padding: 4px 8px;
  margin: 0;
}
.small {
  border: 0;
  background: none;
  color: var(--act);
  text-decoration: underline;
  padding: 0 4px;
  cursor: pointer;
}
.foot {
  margin: 0;
  padding: 5px 14px;
  border-top: 1px solid var(--rule);
  white-space: nowrap;
  overflow: hidden;
}
</style>
