<script setup lang="ts">
import { deskSays } from '@/words/desk'
import { decimal, t } from '@/words'
import { locale } from '@/words/language'
import { useLocalStorage } from '@vueuse/core'
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue'
import { bins as binsApi } from '@/api/endpoints/bins'
import { words as wordsApi } from '@/api/endpoints/words'
import { makeStale, useAnswer } from '@/api/queries'
import type { ClipSheet } from '@/api/types'
import { label, labelAt, TICKS, ticksPerFrame, toFrames } from '@/player/time'
import AnswerState from '@/shell/AnswerState.vue'
import { useDesk } from '@/shell/desk'
import { useShortcuts } from '@/shell/keys'
import { useLastCut } from '@/shell/useLastCut'
import { attempt, say } from '@/shell/say'
import { holding, nameOf, paragraphsOf, UNSURE, wordAt, type Paragraph } from './spoken'
import WordsBlock from './WordsBlock.vue'
import WordsFind from './WordsFind.vue'
import WordsParagraph from './WordsParagraph.vue'
import WordsPauses from './WordsPauses.vue'

/** What is said in a clip: read along, corrected, and used to choose stretches of it. */
const props = defineProps<{ clip: ClipSheet; ticks: number; playing: boolean }>()
const emit = defineEmits<{
  go: [ticks: number]
  /** Plays a stretch and stops behind it. */
  play: [from: number, to: number]
  /** The marks of the clip. */
  /** Keys that belong to the page while no word is chosen. */
  pass: [key: 'subclip' | 'marker']
}>()
const { production, day } = useDesk()
const id = () => production.value.ulid
const mayEdit = computed(() => production.value.may.organise && props.clip.library === null)
const { data, isPending, error, refetch } = useAnswer(() => wordsApi.clip(id(), props.clip.ulid))
const paragraphs = computed(() => paragraphsOf(data.value))
const all = computed(() => paragraphs.value.flatMap((one) => one.words))
const source = computed(() => data.value?.sources[0])
const corrections = computed(() => all.value.filter((word) => word.heard !== null).length)

/** A word that begins within the picture that is shown is heard with it. */
const moment = computed(() => props.ticks + (props.clip.kind === 'picture' ? ticksPerFrame(props.clip.rate) - 1 : 0))
const now = computed(() => {
  const at = wordAt(all.value, moment.value)
  const word = all.value[at]
  return word !== undefined && props.ticks < word.end + TICKS / 5 ? at : -1
})
const list = useTemplateRef<HTMLElement>('list')
/** Paragraphs that are drawn together. */
const BLOCK = 20
const blocks = computed(() => {
  const all: { from: number; paragraphs: Paragraph[]; words: number }[] = []
  for (let from = 0; from < paragraphs.value.length; from += BLOCK) {
    const some = paragraphs.value.slice(from, from + BLOCK)
    all.push({ from, paragraphs: some, words: some.reduce((sum, one) => sum + one.words.length, 0) })
  }
  return all
})
/** The block that is drawn wherever one looks: the one that is led to. */
const forced = ref(0)
function show(at: number, where: ScrollLogicalPosition = 'nearest'): void {
  const paragraph = holding(paragraphs.value, at)
  if (paragraph === undefined) return
  forced.value = Math.floor(paragraphs.value.indexOf(paragraph) / BLOCK)
  void nextTick(() => list.value?.querySelector(`[data-passage="${paragraph.ulid}"]`)?.scrollIntoView({ block: where }))
}
/** While it plays, what is heard stays in sight. */
watch(now, (at) => props.playing && at >= 0 && show(at))
watch(
  () => all.value.length > 0,
  (some) => some && show(Math.max(0, wordAt(all.value, props.ticks)), 'center'),
  { immediate: true },
)

// Words that are chosen: from where the choice began to where it is led.
const anchor = ref<number | null>(null)
const cursor = ref(-1)
const chosen = computed<[number, number] | null>(() =>
  anchor.value === null || cursor.value < 0
    ? null
    : [Math.min(anchor.value, cursor.value), Math.max(anchor.value, cursor.value)],
)
watch(
  () => props.clip.ulid,
  () => ((anchor.value = null), (cursor.value = -1), (editing.value = null)),
)
function choose(at: number, withShift: boolean): void {
  list.value?.focus({ preventScroll: true })
  if (withShift) {
    anchor.value ??= Math.max(0, cursor.value)
    cursor.value = at
    return
  }
  anchor.value = null
  cursor.value = at
  const word = all.value[at]
  if (word !== undefined) emit('go', word.start)
}
function drag(at: number): void {
  anchor.value ??= cursor.value
  cursor.value = at
}
const here = () => (cursor.value >= 0 ? cursor.value : Math.max(0, wordAt(all.value, props.ticks)))
function lead(step: number, withShift: boolean): void {
  if (all.value.length === 0) return
  const from = here()
  const next = Math.max(0, Math.min(all.value.length - 1, cursor.value < 0 ? from : from + step))
  if (withShift) anchor.value ??= from
  else anchor.value = null
  cursor.value = next
  show(next)
  if (!withShift) emit('go', all.value[next]!.start)
}
/** To the paragraph before or behind. */
function line(step: number, withShift: boolean): void {
  const under = holding(paragraphs.value, here())
  const at = under === undefined ? -1 : paragraphs.value.indexOf(under)
  const next = paragraphs.value[Math.max(0, Math.min(paragraphs.value.length - 1, at + step))]
  if (next !== undefined) lead(next.first - here(), withShift)
}

/** The stretch of the chosen words, cut in the quiet around them, on the clip's frames. */
async function stretch(): Promise<{ in_ticks: number; out_ticks: number } | undefined> {
  const range = chosen.value
  if (range === null) return void say(t('bins.ClipWords.chooseWordsFirstDragOver'))
  const [first, last] = [all.value[range[0]]!, all.value[range[1]]!]
  const sound = holding(paragraphs.value, range[0])?.clip ?? props.clip.ulid
  const query = new URLSearchParams({ sound, start: String(first.start), end: String(last.end) })
  const [before, after] = [all.value[range[0] - 1], all.value[range[1] + 1]]
  if (before !== undefined) query.set('before', String(before.end))
  if (after !== undefined) query.set('after', String(after.start))
  return attempt(() => wordsApi.around(id(), props.clip.ulid, query.toString()))
}
const chosenWords = () => {
  const range = chosen.value
  return range === null ? [] : all.value.slice(range[0], range[1] + 1)
}
async function playThem(): Promise<void> {
  const range = await stretch()
  if (range !== undefined) emit('play', range.in_ticks, range.out_ticks)
}
async function keepSubclip(): Promise<void> {
  if (chosen.value === null) return emit('pass', 'subclip')
  if (!mayEdit.value) return
  const range = await stretch()
  if (range === undefined) return
  const name = nameOf(chosenWords())
  const body = { name, handle_ticks: 0, ...range }
  if ((await attempt(() => binsApi.keepSubclip(id(), props.clip.ulid, body))) === undefined) return
  say(t('bins.ClipWords.isKeptAsASubclip', [name]))
  makeStale('bins', { clip: props.clip.ulid })
}
async function keepMarker(): Promise<void> {
  if (chosen.value === null) return emit('pass', 'marker')
  if (!mayEdit.value) return
  const range = await stretch()
  if (range === undefined) return
  const name = nameOf(chosenWords())
  const body = { name, in_ticks: range.in_ticks, out_ticks: range.out_ticks }
  if ((await attempt(() => binsApi.addMarker(id(), props.clip.ulid, body))) === undefined) return
  say(t('bins.ClipWords.isMarkedCtrlZTakes', [name]))
  makeStale('bins', { clip: props.clip.ulid })
}
const timecode = (ticks: number) =>
  label(toFrames((props.clip.start_ticks ?? 0) + ticks, props.clip.rate), props.clip.rate)
async function copy(): Promise<void> {
  const some = chosenWords()
  if (some.length === 0) return say(t('bins.ClipWords.chooseWordsFirstDragOver'))
  const range = chosen.value!
  const speaker = holding(paragraphs.value, range[0])?.speaker
  const text = `${timecode(some[0]!.start)}  ${speaker ? `${speaker}: ` : ''}${some.map((word) => word.text).join(' ')}`
  await navigator.clipboard.writeText(text)
  say(t('bins.ClipWords.copiedWithItsTimecode'))
}

// Cuts that grow by what is chosen.
const { cuts, cut, choose: chooseCut, add, placeOf } = useLastCut(id)
const withoutPauses = useLocalStorage('cartella.cut.without-pauses', false)
async function addTo(atEnd: boolean): Promise<void> {
  if (!mayEdit.value) return
  const some = chosenWords()
  const range = await stretch()
  if (range === undefined) return
  const pieces = withoutPauses.value ? await spoken(range) : [range]
  await add(
    pieces.map((one) => ({ clip: props.clip.ulid, ...one })),
    `“${nameOf(some)}”`,
    atEnd,
  )
}
const pausing = useTemplateRef('pausing')
/** The stretch without its pauses, as the panel of pauses has them. */
async function spoken(range: { in_ticks: number; out_ticks: number }) {
  const found = await attempt(() => wordsApi.pausesNow(id(), props.clip.ulid, pausing.value?.how ?? ''))
  const pieces = (found?.speech ?? [])
    .map((one) => ({
      in_ticks: Math.max(range.in_ticks, one.in_ticks),
      out_ticks: Math.min(range.out_ticks, one.out_ticks),
    }))
    .filter((one) => one.out_ticks - one.in_ticks >= TICKS / 10)
  return pieces.length > 0 ? pieces : [range]
}

// Corrections.
const editing = ref<[number, number] | null>(null)
function edit(at = here()): void {
  if (!mayEdit.value || all.value.length === 0) return
  const range = chosen.value
  const paragraph = holding(paragraphs.value, at)
  if (paragraph === undefined) return
  const last = paragraph.first + paragraph.words.length - 1
  editing.value =
    range !== null && at >= range[0] && at <= range[1]
      ? [Math.max(range[0], paragraph.first), Math.min(range[1], last)]
      : [at, at]
  anchor.value = null
  cursor.value = editing.value[0]
}
async function write(text: string): Promise<void> {
  const range = editing.value
  const paragraph = range === null ? undefined : holding(paragraphs.value, range[0])
  editing.value = null
  void nextTick(() => list.value?.focus({ preventScroll: true }))
  if (range === null || paragraph === undefined) return
  const some = paragraph.words.slice(range[0] - paragraph.first, range[1] - paragraph.first + 1)
  const was = some.map((word) => word.text)
  if (text.trim() === was.join(' ')) return
  const done = await attempt(() =>
    wordsApi.correct(id(), paragraph.clip, paragraph.ulid, { from: some[0]!.index, was, text }),
  )
  if (done !== undefined)
    say(text.trim() === '' ? t('bins.ClipWords.takenOutCtrlZBrings') : t('bins.ClipWords.correctedCtrlZTakesIt'))
  makeStale('spoken', { clip: paragraph.clip })
}
function nextUnsure(): void {
  const from = cursor.value < 0 ? -1 : cursor.value
  const order = [...all.value.keys()]
  const next = [...order.slice(from + 1), ...order.slice(0, from + 1)].find((at) => {
    const word = all.value[at]!
    return word.sure !== null && word.sure < UNSURE
  })
  if (next === undefined) return say(t('bins.ClipWords.noWordHereIsUnsure'))
  lead(next - here(), false)
  cursor.value = next
  show(next, 'center')
}
async function split(): Promise<void> {
  const at = here()
  const paragraph = holding(paragraphs.value, at)
  const word = paragraph?.words[at - paragraph.first]
  if (!mayEdit.value || paragraph === undefined || word === undefined) return
  await attempt(() => wordsApi.split(id(), paragraph.clip, paragraph.ulid, { at: word.index, was: word.text }))
  makeStale('spoken', { clip: paragraph.clip })
}
async function merge(): Promise<void> {
  const paragraph = holding(paragraphs.value, here())
  if (!mayEdit.value || paragraph === undefined) return
  await attempt(() => wordsApi.merge(id(), paragraph.clip, paragraph.ulid))
  makeStale('spoken', { clip: paragraph.clip })
}
const naming = ref<{ paragraph: Paragraph; name: string; everywhere: boolean } | null>(null)
const nameBox = useTemplateRef<HTMLInputElement>('nameBox')
function nameSpeaker(paragraph = holding(paragraphs.value, here())): void {
  if (!mayEdit.value || paragraph === undefined) return
  naming.value = { paragraph, name: paragraph.speaker ?? '', everywhere: paragraph.speaker !== null }
  void nextTick(() => nameBox.value?.select())
}
async function keepName(): Promise<void> {
  const asked = naming.value
  naming.value = null
  if (asked === null) return
  const { paragraph, name, everywhere } = asked
  const done = await attempt(() =>
    wordsApi.speaker(id(), paragraph.clip, paragraph.ulid, {
      was: paragraph.speaker,
      speaker: name.trim(),
      everywhere,
    }),
  )
  if (done !== undefined && done.changed > 1) say(t('bins.ClipWords.passagesCtrlZTakesIt', [done.changed]))
  makeStale('spoken', { clip: paragraph.clip })
}
const speakers = computed(() => [...new Set(paragraphs.value.map((one) => one.speaker).filter((one) => one !== null))])

/** Who did what to these words; asked for when it is opened. */
const isHistory = ref(false)
const { data: history } = useAnswer(() =>
  isHistory.value ? wordsApi.history(id(), source.value?.clip ?? props.clip.ulid) : null,
)
const when = (iso: string | null) => (iso === null ? '' : new Date(iso).toLocaleString(locale))

/** What the floor calls out, where it was heard. */
const calls = computed(() => {
  const of = source.value
  if (of === undefined) return []
  const at = (ticks: number | null) => (ticks === null ? null : ticks + of.offset_ticks)
  return [
    { what: t('bins.ClipWords.slate', [of.calls.slate]), at: at(of.calls.slate_ticks) },
    { what: 'action', at: at(of.calls.action_ticks) },
    { what: 'cut', at: at(of.calls.cut_ticks) },
  ].filter((one): one is { what: string; at: number } => one.at !== null)
})
const HOW = {
  recognised: t('bins.ClipWords.heardOnThisMachine'),
  service: t('bins.ClipWords.fromAService'),
  cues: t('bins.ClipWords.broughtWithItsTimes'),
  text: t('bins.ClipWords.aTextThatWasAligned'),
}
const how = computed(() => {
  const of = source.value
  if (of === undefined) return ''
  const names = new Intl.DisplayNames('en', { type: 'language', fallback: 'code' })
  let language = of.language
  try {
    language = names.of(of.language) ?? language
  } catch {
    // A folder may have a name that is no language of the standard.
  }
  const where = of.clip === props.clip.ulid ? '' : t('bins.ClipWords.in', [of.name])
  return `${language}, ${HOW[of.source]}${of.model === 'general' ? t('bins.ClipWords.aDraft') : ''}${where}`
})
const finding = ref(false)
watch(
  () => data.value?.sources.length,
  () => (finding.value = false),
)
/** Pauses between paragraphs that are long enough to be told. */
const PAUSE = 1.5 * TICKS
const pauseBefore = (n: number): number | null => {
  const [before, after] = [paragraphs.value[n - 1]?.words.at(-1), paragraphs.value[n]?.words[0]]
  return before !== undefined && after !== undefined && after.start - before.end >= PAUSE
    ? after.start - before.end
    : null
}

useShortcuts(
  'Words',
  [
    {
      keys: ['ArrowLeft', 'ArrowRight', 'Shift+ArrowLeft', 'Shift+ArrowRight'],
      what: t('bins.ClipWords.aWordBackOnWith'),
      run: (event) => lead(event.key === 'ArrowLeft' ? -1 : 1, event.shiftKey),
    },
    {
      keys: ['ArrowUp', 'ArrowDown', 'Shift+ArrowUp', 'Shift+ArrowDown'],
      what: t('bins.ClipWords.aPassageBackOnWith'),
      run: (event) => line(event.key === 'ArrowUp' ? -1 : 1, event.shiftKey),
    },
    { keys: ['Enter'], what: t('bins.ClipWords.writeTheWordOrThe'), run: () => edit() },
    { keys: ['w'], what: t('bins.ClipWords.theNextWordThatIs'), run: nextUnsure },
    { keys: ['y'], what: t('bins.ClipWords.playTheChosenWords'), run: () => void playThem() },
    { keys: ['u'], what: t('bins.ClipWords.keepTheChosenWordsAs'), run: () => void keepSubclip() },
    { keys: ['m'], what: t('bins.ClipWords.markTheChosenWords'), run: () => void keepMarker() },
    { keys: ['Ctrl+c'], what: t('bins.ClipWords.copyTheChosenWordsWith'), run: () => void copy() },
    { keys: ['+'], what: t('bins.ClipWords.addTheChosenWordsAt'), run: () => void addTo(true) },
    { keys: ['n'], what: t('bins.ClipWords.putTheChosenWordsInto'), run: () => void addTo(false) },
    { keys: ['Alt+b'], what: t('bins.ClipWords.beginAPassageAtThis'), run: () => void split() },
    { keys: ['Alt+j'], what: t('bins.ClipWords.joinThePassageWithThe'), run: () => void merge() },
    { keys: ['Alt+n'], what: t('bins.ClipWords.sayWhoSpeaks'), run: () => nameSpeaker() },
  ],
  list,
)
</script>

<template>
  <AnswerState :pending="isPending" :error="error" @retry="refetch()">
    <div v-if="data" class="spoken">
      <p class="head soft">
        <template v-if="source"
          >{{ how
          }}<template v-if="corrections > 0">
            · {{ corrections }}
            {{ corrections === 1 ? t('bins.ClipWords.correction') : t('bins.ClipWords.corrections') }}</template
          >
          <button v-if="mayEdit" class="plain" @click="finding = !finding">{{ t('bins.ClipWords.findAnew') }}</button>
          <span class="files"
            >{{ t('bins.ClipWords.keepAs') }}
            <a
              v-for="cues in ['txt', 'srt', 'vtt']"
              :key="cues"
              :href="wordsApi.file(id(), `clips/${clip.ulid}`, cues)"
              download
              >{{ cues.toUpperCase() }}</a
            ></span
          ></template
        >
      </p>
      <WordsFind v-if="finding || data.sources.length === 0" :clip="clip" :words="data" :may-edit="mayEdit" />
      <div
        v-if="paragraphs.length > 0"
        ref="list"
        class="list"
        tabindex="0"
        :aria-label="t('bins.ClipWords.whatIsSaid')"
      >
        <WordsBlock
          v-for="(block, b) in blocks"
          :key="block.from"
          :words="block.words"
          :paragraphs="block.paragraphs.length"
          :forced="b === forced"
        >
          <template v-for="(paragraph, n) in block.paragraphs" :key="paragraph.ulid">
            <p v-if="pauseBefore(block.from + n) !== null" class="pause soft">
              {{ t('bins.ClipWords.pauseS', [decimal(pauseBefore(block.from + n)! / TICKS, 1)]) }}
            </p>
            <form v-if="naming?.paragraph.ulid === paragraph.ulid" class="naming" @submit.prevent="keepName">
              <input
                ref="nameBox"
                v-model="naming.name"
                class="field"
                maxlength="60"
                list="speakers"
                :aria-label="t('bins.ClipWords.whoSpeaks')"
                :placeholder="t('bins.ClipWords.whoSpeaks')"
                @keydown.esc.stop.prevent="naming = null"
              />
              <label v-if="paragraph.speaker !== null"
                ><input v-model="naming.everywhere" type="checkbox" />
                {{ t('bins.ClipWords.everywhereSpeaks', [paragraph.speaker]) }}</label
              >
              <button class="plain">{{ t('bins.ClipWords.keep') }}</button>
            </form>
            <WordsParagraph
              :data-passage="paragraph.ulid"
              :paragraph="paragraph"
              :label="timecode(paragraph.words[0]!.start)"
              :now="now >= paragraph.first && now < paragraph.first + paragraph.words.length ? now : -1"
              :cursor="cursor >= paragraph.first && cursor < paragraph.first + paragraph.words.length ? cursor : -1"
              :chosen="
                chosen !== null && chosen[1] >= paragraph.first && chosen[0] < paragraph.first + paragraph.words.length
                  ? chosen
                  : null
              "
              :editing="
                editing !== null &&
                editing[0] >= paragraph.first &&
                editing[0] < paragraph.first + paragraph.words.length
                  ? editing
                  : null
              "
              :may-edit="mayEdit"
              @choose="choose"
              @drag="drag"
              @edit="edit"
              @write="write"
              @leave="editing = null"
              @speaker="nameSpeaker(paragraph)"
            />
          </template>
        </WordsBlock>
      </div>
      <p v-else-if="data.sources.length > 0" class="soft">{{ t('bins.ClipWords.nothingIsSaidInThis') }}</p>
      <datalist id="speakers"><option v-for="one in speakers" :key="one" :value="one" /></datalist>
      <div v-if="paragraphs.length > 0" class="acts">
        <template v-if="mayEdit"
          ><button class="plain" :disabled="chosen === null" @click="keepSubclip">
            {{ t('bins.ClipWords.subclip') }} <kbd>U</kbd>
          </button>
          <button class="plain" :disabled="chosen === null" @click="keepMarker">
            {{ t('bins.ClipWords.marker') }} <kbd>M</kbd>
          </button></template
        >
        <button class="plain" :disabled="chosen === null" @click="playThem">
          {{ t('bins.ClipWords.playIt') }} <kbd>Y</kbd>
        </button>
        <template v-if="mayEdit"
          ><button class="plain" :disabled="chosen === null" @click="addTo(true)">
            {{ t('bins.ClipWords.addToTheCut') }} <kbd>+</kbd>
          </button>
          <button class="plain" :disabled="chosen === null" @click="addTo(false)">
            {{ t('bins.ClipWords.putIntoTheCut') }} <kbd>N</kbd>
          </button></template
        >
        <button class="plain" :disabled="chosen === null" @click="copy">
          {{ t('bins.ClipWords.copy') }} <kbd>Ctrl C</kbd>
        </button>
      </div>
      <div v-if="paragraphs.length > 0 && mayEdit" class="cut soft">
        <template v-if="cut"
          >{{ t('bins.ClipWords.into') }}
          <select
            class="field"
            :aria-label="t('bins.ClipWords.theCut')"
            :value="cut.ulid"
            @change="chooseCut(($event.target as HTMLSelectElement).value)"
          >
            <option v-for="one in cuts" :key="one.ulid" :value="one.ulid">{{ one.name }}</option>
          </select>
          {{ t('bins.ClipWords.at') }}
          <span class="mono">{{ labelAt(placeOf(cut), production.rate) }}</span></template
        ><template v-else>{{ t('bins.ClipWords.theFirstOneMakesA') }}</template>
        <label><input v-model="withoutPauses" type="checkbox" /> {{ t('bins.ClipWords.withoutItsPauses') }}</label>
      </div>
      <p v-if="calls.length > 0" class="calls soft">
        {{ t('bins.ClipWords.calledOut') }}
        <button v-for="one in calls" :key="one.what" class="chip" @click="emit('go', one.at)">
          {{ one.what }} <span class="mono">{{ timecode(one.at) }}</span>
        </button>
        <router-link
          v-if="clip.take"
          class="chip"
          :to="{ name: 'script', params: { production: id(), day: day.ulid }, query: { take: clip.take.ulid } }"
          >{{ t('bins.ClipWords.besideTheScript') }}</router-link
        >
      </p>
      <p v-else-if="clip.take && paragraphs.length > 0" class="calls">
        <router-link
          class="chip"
          :to="{ name: 'script', params: { production: id(), day: day.ulid }, query: { take: clip.take.ulid } }"
          >{{ t('bins.ClipWords.besideTheScript') }}</router-link
        >
      </p>
      <div v-if="source" class="calls">
        <button class="chip" :aria-expanded="isHistory" @click="isHistory = !isHistory">
          {{ t('bins.ClipWords.history', [isHistory ? '‹' : '›']) }}
        </button>
      </div>
      <ol v-if="isHistory && history" class="history soft">
        <li v-for="(step, n) in history.steps" :key="n" :class="{ undone: step.undone }">
          {{ deskSays(step.label) }}
          <small>{{ step.by }}, {{ when(step.at) }}{{ step.undone ? t('bins.ClipWords.takenBack') : '' }}</small>
        </li>
        <li v-if="history.steps.length === 0">{{ t('bins.ClipWords.nobodyHasChangedAnythingHere') }}</li>
      </ol>
      <WordsPauses
        v-if="clip.has_sound || data.sources.length > 0"
        ref="pausing"
        :clip="clip"
        :sound="source?.clip ?? clip.ulid"
        @go="emit('go', $event)"
      />
    </div>
  </AnswerState>
</template>

<style scoped>
.spoken {
  display: flex;
  flex-direction: column;
  min-height: 0;
}
.head {
  margin: 0 0 8px;
  display: flex;
  flex-wrap: wrap;
  gap: 4px 10px;
  align-items: center;
  font-size: 12px;
}
.files {
  margin-left: auto;
  display: inline-flex;
  gap: 8px;
}
.files a {
  color: var(--info);
}
.list {
  overflow: auto;
  min-height: 120px;
  max-height: 38vh;
  padding-right: 6px;
  user-select: none;
}
.list:focus-visible {
  outline: 1px solid var(--act);
}
.pause {
  margin: 2px 0 2px 174px;
  font-style: italic;
  font-size: 12px;
}
.naming,
.acts,
.cut {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
  margin: 8px 0 0;
}
.naming .field {
  max-width: 200px;
}
.cut .field {
  max-width: 220px;
}
.calls {
  margin: 8px 0 0;
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
  font-size: 12px;
}
.history {
  margin: 6px 0 0;
  padding: 0;
  list-style: none;
  font-size: 12px;
}
.undone {
  text-decoration: line-through;
}
.chip {
  border: 1px solid var(--rule-strong);
  border-radius: 10px;
  background: var(--sheet);
  padding: 1px 9px;
  cursor: pointer;
  font-size: 12px;
}
</style>
