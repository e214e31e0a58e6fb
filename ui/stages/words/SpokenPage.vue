<script setup lang="ts">
import { t } from '@/words'
import { refDebounced } from '@vueuse/core'
import { computed, nextTick, onMounted, ref, useTemplateRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { words as wordsApi } from '@/api/endpoints/words'
import { useAnswer } from '@/api/queries'
import type { SpokenHit } from '@/api/types'
import { clock } from '@/player/time'
import AnswerState from '@/shell/AnswerState.vue'
import { useDesk } from '@/shell/desk'
import DeviceBadge from '@/shell/DeviceBadge.vue'
import { useShortcuts } from '@/shell/keys'
import { listen } from '@/shell/listen'
import { say } from '@/shell/say'
import TakeNumber from '@/shell/TakeNumber.vue'
import HeardPlace from './HeardPlace.vue'

/** Finds what was said anywhere in the production; each place can be heard where it stands. */
const { production, day } = useDesk()
const route = useRoute()
const router = useRouter()
const text = ref(String(route.query.q ?? ''))
const speaker = ref(String(route.query.speaker ?? ''))
const scene = ref(String(route.query.scene ?? ''))
const of = ref(String(route.query.day ?? ''))
const circled = ref(route.query.circled === '1')
const asked = refDebounced(
  computed(() => {
    const query = new URLSearchParams({ q: text.value.trim() })
    if (speaker.value !== '') query.set('speaker', speaker.value)
    if (scene.value.trim() !== '') query.set('scene', scene.value.trim())
    if (of.value !== '') query.set('day', of.value)
    if (circled.value) query.set('circled', '1')
    return query.toString()
  }),
  150,
)
// The address says what is looked for, so that it can be sent to a colleague.
watch(asked, (now) => void router.replace({ query: Object.fromEntries(new URLSearchParams(now)) }))
// Asked before anything is typed, too: who speaks, and whether anything was listened to.
const { data, isPending, error, refetch } = useAnswer(() => wordsApi.found(production.value.ulid, asked.value))
const listening = ref(false)
// What was listened to has words by now, or has none.
watch(data, () => (listening.value = false))
async function listenToDay(): Promise<void> {
  listening.value = true
  listening.value = await listen(production.value.ulid, day.value.ulid)
  if (listening.value) say(t('words.SpokenPage.itIsListenedTo'))
}
const groups = computed(() => {
  const all = new Map<string, { first: SpokenHit; hits: SpokenHit[] }>()
  for (const hit of data.value?.hits ?? []) {
    const key = `${hit.clip} ${hit.take?.ulid ?? ''}`
    const group = all.get(key)
    if (group === undefined) all.set(key, { first: hit, hits: [hit] })
    else group.hits.push(hit)
  }
  return [...all.values()]
})
const hits = computed(() => groups.value.flatMap((one) => one.hits))
const at = ref(0)
watch(asked, () => (at.value = 0))
const box = useTemplateRef<HTMLInputElement>('box')
// Behind what the desk does with a page that comes.
onMounted(() => void nextTick(() => requestAnimationFrame(() => box.value?.focus())))

// What is heard: the passage of the hit that was chosen, where it stands.
const heard = ref<SpokenHit | null>(null)
const turn = ref(0)
function hear(hit: SpokenHit | undefined): void {
  if (hit === undefined) return
  heard.value = hit
  turn.value++
}
function open(hit: SpokenHit | undefined): void {
  if (hit === undefined) return
  void router.push({
    name: 'clip',
    params: { production: production.value.ulid, day: hit.day, clip: hit.clip },
    query: { at: String(hit.at_ticks), tab: 'words' },
  })
}
const list = useTemplateRef<HTMLElement>('list')
function step(by: number): void {
  at.value = Math.max(0, Math.min(hits.value.length - 1, at.value + by))
  void nextTick(() => list.value?.querySelector('.on')?.scrollIntoView({ block: 'nearest' }))
}
function clear(): void {
  speaker.value = scene.value = of.value = ''
  circled.value = false
}
useShortcuts('Words', [
  {
    keys: ['ArrowUp', 'ArrowDown'],
    what: t('words.SpokenPage.thePlaceBeforeTheNext'),
    whileTyping: true,
    run: (event) => step(event.key === 'ArrowUp' ? -1 : 1),
  },
  { keys: ['Enter'], what: t('words.SpokenPage.hearIt'), whileTyping: true, run: () => hear(hits.value[at.value]) },
  {
    keys: ['Shift+Enter'],
    what: t('words.SpokenPage.theWholePageForIt2'),
    whileTyping: true,
    run: () => open(hits.value[at.value]),
  },
  { keys: ['Escape'], what: t('words.SpokenPage.lookForSomethingElse'), run: () => box.value?.select() },
])
</script>

<template>
  <div class="page">
    <section class="left">
      <div class="bar">
        <input
          ref="box"
          v-model="text"
          class="field find"
          type="search"
          maxlength="200"
          :placeholder="t('words.SpokenPage.wordsOrAPhrase')"
          :aria-label="t('words.SpokenPage.whatWasSaid')"
        />
        <select v-model="speaker" class="field" :aria-label="t('words.SpokenPage.whoSaysIt')">
          <option value="">{{ t('words.SpokenPage.anybody') }}</option>
          <option v-if="speaker !== '' && !data?.speakers.includes(speaker)">{{ speaker }}</option>
          <option v-for="one in data?.speakers ?? []" :key="one">{{ one }}</option>
        </select>
        <input
          v-model="scene"
          class="field scene"
          maxlength="20"
          :placeholder="t('words.SpokenPage.anyScene')"
          :aria-label="t('words.SpokenPage.scene')"
        />
        <select v-model="of" class="field" :aria-label="t('words.SpokenPage.day')">
          <option value="">{{ t('words.SpokenPage.anyDay') }}</option>
          <option v-for="one in production.days" :key="one.ulid" :value="one.ulid">
            {{ t('words.SpokenPage.day2', [one.number]) }}
          </option>
        </select>
        <label><input v-model="circled" type="checkbox" /> {{ t('words.SpokenPage.circled') }}</label>
      </div>
      <div v-if="data?.is_any === false" class="empty">
        <b>{{ t('words.SpokenPage.nothingWasListenedTo') }}</b>{{ t('words.SpokenPage.whatWasSaidIsFound') }}<br />
        <button v-if="production.may.organise" class="go" :disabled="listening" @click="listenToDay">
          {{ listening ? t('words.SpokenPage.itIsListenedTo') : t('words.SpokenPage.listenToDay', [day.number]) }}
        </button>
      </div>
      <p v-else-if="text.trim() === ''" class="nothing soft">
        {{ t('words.SpokenPage.typeWhatWasSaidWords') }}
      </p>
      <AnswerState v-else :pending="isPending" :error="error" @retry="refetch()">
        <p v-if="data?.meant" class="note">
          {{ t('words.SpokenPage.wasNotHeardThisIs', [text.trim()]) }}<b>{{ data.meant }}</b
          >”.
        </p>
        <p v-if="data && hits.length === 0" class="nothing soft">
          {{
            t('words.SpokenPage.thatWasNotHeard', [
              speaker || scene || of || circled
                ? t('words.SpokenPage.there')
                : t('words.SpokenPage.inWhatHasBeenListened'),
            ])
          }}
          <button v-if="speaker || scene || of || circled" class="plain" @click="clear">
            {{ t('words.SpokenPage.lookEverywhere') }}
          </button>
        </p>
        <div ref="list" class="list" role="listbox" :aria-label="t('words.SpokenPage.whereItIsSaid')">
          <section v-for="group in groups" :key="`${group.first.clip} ${group.first.take?.ulid}`">
            <h3>
              <DeviceBadge v-if="group.first.device" :letter="group.first.device" />
              <template v-if="group.first.take"
                ><b class="mono">{{ group.first.take.setup }}</b
                ><TakeNumber
                  :take="group.first.take.take"
                  :part="group.first.take.part"
                  :status="group.first.take.status" /></template
              ><span class="mono name">{{ group.first.name }}</span>
              <span class="soft">{{ t('words.SpokenPage.day2', [group.first.day_number]) }}</span>
            </h3>
            <button
              v-for="hit in group.hits"
              :key="hit.passage"
              class="hit"
              role="option"
              data-row
              :aria-selected="hits[at] === hit"
              :class="{ on: hits[at] === hit, heard: heard?.passage === hit.passage }"
              @click="((at = hits.indexOf(hit)), hear(hit))"
              @dblclick="open(hit)"
            >
              <span class="mono soft">{{ clock(hit.at_ticks, true) }}</span>
              <b class="who">{{ hit.speaker ?? '' }}</b>
              <span :class="{ draft: hit.draft }"
                ><template v-for="(word, n) in hit.words" :key="n"
                  ><mark v-if="hit.found.includes(n)">{{ word }}</mark
                  ><template v-else>{{ word }}</template
                  >{{ ' ' }}</template
                ></span
              >
            </button>
          </section>
        </div>
        <p v-if="data?.more" class="nothing soft">{{ t('words.SpokenPage.thereIsMoreThanThis') }}</p>
      </AnswerState>
    </section>
    <aside v-if="heard" class="right">
      <h2>
        <span class="mono">{{ heard.name }}</span>
        <button class="plain" :title="t('words.SpokenPage.theWholePageForIt')" @click="open(heard)">
          {{ t('words.SpokenPage.itsSheet') }}
        </button>
      </h2>
      <HeardPlace :clip="heard.clip" :from="heard.at_ticks" :take="heard.take?.ulid" :turn="turn" />
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
.find {
  flex: 1 1 220px;
}
.scene {
  width: 92px;
}
.list {
  overflow: auto;
  padding: 4px 18px 18px;
  min-height: 0;
}
.nothing {
  padding: 12px 18px;
  margin: 0;
}
h3 {
  display: flex;
  gap: 8px;
  align-items: center;
  margin: 12px 0 4px;
  font-size: 13px;
}
.name {
  font-weight: 400;
  overflow: hidden;
  text-overflow: ellipsis;
}
.hit {
  display: grid;
  grid-template-columns: 66px 70px minmax(0, 1fr);
  gap: 8px;
  width: 100%;
  border: 1px solid transparent;
  border-radius: 4px;
  background: none;
  padding: 4px 6px;
  text-align: left;
  font-size: 14px;
  cursor: pointer;
  align-items: baseline;
}
.hit .mono {
  font-size: 12px;
}
.who {
  color: var(--info);
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  font-size: 13px;
}
.hit.on {
  border-color: var(--act);
  background: var(--sheet);
}
.hit.heard {
  background: var(--act-soft);
}
.draft {
  font-style: italic;
}
mark {
  background: var(--warn-soft);
  color: inherit;
  border-radius: 2px;
}
.right {
  width: min(44vw, 560px);
  border-left: 1px solid var(--rule);
  background: var(--sheet-2);
  padding: 12px 16px;
  overflow: auto;
}
.right h2 {
  display: flex;
  gap: 10px;
  align-items: center;
  margin-bottom: 8px;
}
.note {
  margin: 8px 18px;
}
</style>
