<script setup lang="ts">
import { t } from '@/words'
import { deskSays } from '@/words/desk'
import { useLocalStorage } from '@vueuse/core'
import { computed, ref, useTemplateRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { bins as binsApi } from '@/api/endpoints/bins'
import { mediaUrl } from '@/api/client'
import { makeStale, useAnswer } from '@/api/queries'
import type { Subclip } from '@/api/types'
import ClipPlayer from '@/player/ClipPlayer.vue'
import { toSamples } from '@/player/engine/playlist'
import { soundAround } from '@/player/quiet'
import { length, ofFrames, TICKS, toFrames } from '@/player/time'
import AnswerState from '@/shell/AnswerState.vue'
import { useDesk } from '@/shell/desk'
import DeviceBadge from '@/shell/DeviceBadge.vue'
import { useShortcuts } from '@/shell/keys'
import { attempt, refuse, say } from '@/shell/say'
import { STILL_SHOWN, useLastCut } from '@/shell/useLastCut'
import TakeNumber from '@/shell/TakeNumber.vue'
import ClipFacts from './ClipFacts.vue'
import ClipPieces from './ClipPieces.vue'
import ClipWords from './ClipWords.vue'
import SheetWaves, { type SheetChannel } from './SheetWaves.vue'
import { useMarks } from './useMarks'

/**
 * One clip with the whole page: its picture, every channel of its sound, its subclips and markers, and all that is
 * known of it.
 */
const { production } = useDesk()
const route = useRoute()
const router = useRouter()
const id = () => production.value.ulid
const clip = computed(() => String(route.params.clip))
const { data, isPending, error, refetch } = useAnswer(() => binsApi.clip(id(), clip.value))
const tabs = {
  pieces: t('bins.ClipPage.subclipsAndMarkers'),
  words: t('bins.ClipPage.words'),
  known: t('bins.ClipPage.whatIsKnown'),
  places: t('bins.ClipPage.whereItIs'),
} as const
const tab = ref<keyof typeof tabs>('pieces')
watch(
  () => route.query.tab,
  (asked) => typeof asked === 'string' && asked in tabs && (tab.value = asked as keyof typeof tabs),
  { immediate: true },
)
const pieces = useTemplateRef('pieces')
/** Keys of subclips and markers, where no words are chosen. */
function pass(what: 'subclip' | 'marker'): void {
  tab.value = 'pieces'
  if (what === 'subclip') pieces.value?.startSubclip()
  else pieces.value?.startMarker()
}
const { data: tree } = useAnswer(() => binsApi.tree(id()))
const ownBins = computed(() => tree.value?.own.filter((bin) => !bin.is_rule) ?? [])
const sheet = computed(() => (data.value?.ulid === clip.value ? data.value : undefined))
const player = useTemplateRef('player')
const waves = useTemplateRef('waves')
const guide = ref(false)
const from = computed(() => {
  const at = Number(route.query.at)
  return typeof route.query.at === 'string' && Number.isFinite(at) ? at : null
})
const ticks = computed(() => player.value?.ticks ?? 0)

// Every channel with its switches. Until one is touched the player hears what it hears elsewhere, such as the recorder
// under a picture, and the switches say so.
const chosen = ref<SheetChannel[] | null>(null)
watch(clip, () => (chosen.value = null))
const channels = computed<SheetChannel[]>(() => {
  if (chosen.value !== null) return chosen.value
  const heardNow = new Set(
    (player.value?.sounds ?? [])
      .filter((sound) => sound.clip === clip.value)
      .flatMap((sound) => sound.channels.map((one) => one.index)),
  )
  return (sheet.value?.channels ?? []).map(({ index, name }) => ({
    index,
    name: name || t('bins.ClipPage.channel', [index]),
    on: heardNow.has(index),
    solo: false,
    gainDb: 0,
  }))
})
const heard = computed(() => {
  if (chosen.value === null) return null
  const isAlone = chosen.value.some((one) => one.solo)
  return chosen.value.filter((one) => (isAlone ? one.solo : one.on)).map(({ index, gainDb }) => ({ index, gainDb }))
})
function change(next: SheetChannel): void {
  chosen.value = channels.value.map((one) => (one.index === next.index ? next : one))
}
/** A key hears one channel alone, and all again. */
function alone(number: number): void {
  const one = channels.value[number - 1]
  if (one === undefined) return
  const next = !one.solo
  chosen.value = channels.value.map((other) => ({ ...other, solo: other === one && next }))
}
/** Channels that a piece names are heard by themselves. */
function hearOnly(numbers: number[] | null): void {
  chosen.value =
    numbers === null ? null : channels.value.map((one) => ({ ...one, on: numbers.includes(one.index), solo: false }))
}
/** The player's own choice, recorder or guide, takes the place of the switches. */
function hear(isGuide: boolean): void {
  chosen.value = null
  guide.value = isGuide
}

const { marks, set: setMarks } = useMarks(id, () => sheet.value)
/** The sheet with the marks as they were set last. */
const shown = computed(() => (sheet.value === undefined ? undefined : { ...sheet.value, marks: marks.value }))
/** Seconds around the playhead in which the edges of the sound are looked for. */
const AROUND = 20
/** Marks what is heard around the playhead, from quiet to quiet. */
async function toQuiet(): Promise<void> {
  const [now, at] = [sheet.value, player.value]
  if (now === undefined || at === null || at.ownSounds.length === 0 || now.duration_ticks === null)
    return say(t('bins.ClipPage.thereIsNoSoundTo'))
  const begin = Math.max(0, ticks.value - AROUND * TICKS)
  const end = Math.min(now.duration_ticks, ticks.value + AROUND * TICKS)
  const rate = toSamples(TICKS)
  const samples = await at.player.samples(
    at.ownSounds.map((sound) => (heard.value === null ? sound : { ...sound, channels: heard.value })),
    begin,
    Math.max(2, toSamples(end - begin)),
  )
  const found = soundAround(samples, rate, toSamples(ticks.value - begin))
  if (found === null) return say(t('bins.ClipPage.nothingIsHeardAroundHere'))
  let [inTicks, outTicks] = [found.from, found.to].map((n) => begin + Math.round((n * TICKS) / rate)) as [
    number,
    number,
  ]
  if (now.kind === 'picture') {
    // A picture is cut at its frames.
    inTicks = ofFrames(Math.floor(toFrames(inTicks, now.rate)), now.rate)
    outTicks = ofFrames(Math.ceil(toFrames(outTicks, now.rate)), now.rate)
  }
  await setMarks({ in_ticks: inTicks, out_ticks: Math.min(outTicks, now.duration_ticks) })
}
async function setEdge(subclip: Subclip, inTicks: number, outTicks: number): Promise<void> {
  const now = sheet.value
  if (now === undefined) return
  const body = { name: subclip.name, in_ticks: inTicks, out_ticks: outTicks }
  if ((await attempt(() => binsApi.changeSubclip(id(), now.ulid, subclip.ulid, body))) !== undefined)
    say(t('bins.ClipPage.isLongNowCtrlZ', [subclip.name, length(outTicks - inTicks)]))
  makeStale('bins')
}
/** The subclip that is stood in: the player stays within it and its handles until that is lifted. */
const within = ref<string | null>(null)
watch([() => route.query.sub, clip], ([sub]) => (within.value = typeof sub === 'string' ? sub : null), {
  immediate: true,
})
const standing = computed(() => sheet.value?.subclips.find((one) => one.ulid === within.value && one.in_ticks !== null))
// A piece that is channels of the clip is heard as such.
watch(
  () => sheet.value?.subclips.find((one) => one.ulid === route.query.sub)?.channels ?? null,
  (numbers) => numbers !== null && hearOnly(numbers),
  { immediate: true },
)
const limits = computed(() => {
  const one = standing.value
  if (one === undefined) return null
  return { from: one.in_ticks! - one.handle_ticks, to: one.out_ticks! + one.handle_ticks }
})
function lift(): void {
  if (within.value !== null) within.value = null
  else {
    const here = sheet.value?.subclips.find(
      (one) => one.in_ticks !== null && ticks.value >= one.in_ticks && ticks.value < one.out_ticks!,
    )
    if (here === undefined) return say(t('bins.ClipPage.standInASubclipFirst'))
    within.value = here.ulid
  }
}
const { add: addPieces } = useLastCut(id, () => production.value.may.organise)
async function addToCut(): Promise<void> {
  const one = sheet.value
  if (one === undefined || !production.value.may.organise) return
  const lasts = one.kind === 'still' ? STILL_SHOWN : one.duration_ticks
  if (lasts === null) return refuse(t('bins.ClipPage.thisClipDoesNotRun'))
  const from = marks.value.in_ticks ?? 0
  const to = marks.value.out_ticks ?? lasts
  await addPieces([{ clip: one.ulid, in_ticks: from, out_ticks: to }], one.name)
}
/** The subclip's stretch becomes the marks, to be played or changed. */
function choose(one: Subclip): void {
  if (one.in_ticks === null || one.out_ticks === null) return
  within.value = one.ulid
  void setMarks({ in_ticks: one.in_ticks, out_ticks: one.out_ticks })
  player.value?.goToTicks(one.in_ticks)
}
/** The edges of the subclip under the playhead become the marks. */
async function keepEdges(): Promise<void> {
  const { in_ticks: start, out_ticks: end } = marks.value
  const under = sheet.value?.subclips.find(
    (one) => one.in_ticks !== null && ticks.value >= one.in_ticks && ticks.value < (one.out_ticks ?? 0),
  )
  if (!production.value.may.organise) return
  if (under === undefined || start === null || end === null) return say(t('bins.ClipPage.standInASubclipAnd'))
  await setEdge(under, start, end)
}
async function splitChannels(): Promise<void> {
  const now = sheet.value
  if (now === undefined || !production.value.may.organise) return
  const done = await attempt(() => binsApi.splitChannels(id(), [now.ulid]))
  if (done !== undefined)
    say(
      done.made === 0
        ? t('bins.ClipPage.itsChannelsHaveTheirNames')
        : t('bins.ClipPage.channelsHaveNamesOfTheir', [done.made]),
    )
  makeStale('bins')
}
/** The production's own clip for one of a library, on the same files. */
async function use(): Promise<void> {
  const made = await attempt(() => binsApi.fromLibrary(id(), clip.value))
  if (made === undefined) return
  say(t('bins.ClipPage.itIsAClipOf'))
  makeStale('clips')
  await router.replace({ name: 'clip', params: { ...route.params, clip: made.ulid } })
}
function stepSubclip(step: number): void {
  const all = (sheet.value?.subclips ?? []).filter((one) => one.in_ticks !== null)
  const at =
    step > 0
      ? all.find((one) => one.in_ticks! > ticks.value + 1)
      : all.findLast((one) => one.in_ticks! < ticks.value - 1)
  if (at !== undefined) player.value?.goToTicks(at.in_ticks!)
}

/** What has the room: the picture, the sound, or each its share. */
const LARGE = {
  both: t('bins.ClipPage.both'),
  picture: t('bins.ClipPage.picture'),
  sound: t('bins.ClipPage.sound'),
} as const
const large = useLocalStorage<keyof typeof LARGE>('cartella.clip.large', 'both')
function turnLarge(): void {
  const all = Object.keys(LARGE) as (keyof typeof LARGE)[]
  large.value = all[(all.indexOf(large.value) + 1) % all.length]!
}

/** Back to where one was; where that was nowhere, to the clip's place among the bins. */
function leave(): void {
  if (window.history.state?.back) router.back()
  else
    void router.push({ name: 'bins', params: { production: id(), day: route.params.day }, query: { clip: clip.value } })
}
useShortcuts('Clip sheet', [
  { keys: ['Escape'], what: t('bins.ClipPage.backToWhereYouWere2'), run: leave },
  { keys: ['q'], what: t('bins.ClipPage.markWhatIsHeardHere'), run: () => void toQuiet() },
  { keys: ['h'], what: t('bins.ClipPage.stayWithinTheSubclipAnd'), run: lift },
  { keys: ['e'], what: t('bins.ClipPage.giveTheSubclipHereThe'), run: () => void keepEdges() },
  { keys: ['Alt+c'], what: t('bins.ClipPage.splitTheChannelsUnderTheir'), run: () => void splitChannels() },
  {
    keys: [']', '['],
    what: t('bins.ClipPage.nextSubclipTheOneBefore'),
    run: (event) => stepSubclip(event.key === ']' ? 1 : -1),
  },
  {
    keys: ['Alt+1', 'Alt+2', 'Alt+3', 'Alt+4', 'Alt+5', 'Alt+6', 'Alt+7', 'Alt+8', 'Alt+9'],
    what: t('bins.ClipPage.aChannelAloneAllAgain'),
    run: (event) => alone(Number(event.code.slice(-1))),
  },
  { keys: ['+'], what: t('bins.ClipPage.addWhatIsMarkedOr'), run: () => void addToCut() },
  { keys: ['Alt+v'], what: t('bins.ClipPage.pictureLargeSoundLargeBoth'), run: turnLarge },
  {
    keys: ['Alt+t'],
    what: t('bins.ClipPage.subclipsWordsWhatIsKnown'),
    run: () => {
      const all = Object.keys(tabs) as (keyof typeof tabs)[]
      tab.value = all[(all.indexOf(tab.value) + 1) % all.length]!
    },
  },
])
</script>

<template>
  <AnswerState :pending="isPending || (sheet === undefined && !error)" :error="error" @retry="refetch()">
    <div
      v-if="sheet"
      class="clip-page"
      :class="[
        { heard: sheet.kind === 'sound', reading: tab === 'words' },
        sheet.kind === 'picture' ? `of-${large}` : '',
      ]"
    >
      <section class="left">
        <h1>
          <DeviceBadge v-if="sheet.device" :letter="sheet.device" />
          <span class="mono" :title="sheet.file">{{ sheet.name }}</span>
          <template v-if="sheet.take"
            ><b class="mono">{{ sheet.take.setup }}</b
            ><TakeNumber :take="sheet.take.take" :part="sheet.take.part" :status="sheet.take.status" /><span
              class="what"
              >{{ sheet.take.description }}</span
            ></template
          >
          <span
            v-if="sheet.kind === 'picture'"
            class="shows push"
            role="radiogroup"
            :aria-label="t('bins.ClipPage.whatIsLarge')"
            ><button
              v-for="(name, key) in LARGE"
              :key="key"
              role="radio"
              :aria-checked="large === key"
              :class="{ on: large === key }"
              :title="t('bins.ClipPage.altV')"
              @click="large = key"
            >
              {{ name }}
            </button></span
          >
          <button
            class="plain"
            :class="{ push: sheet.kind !== 'picture' }"
            :title="t('bins.ClipPage.backToWhereYouWere')"
            @click="leave"
          >
            {{ t('bins.ClipPage.back') }}
          </button>
        </h1>
        <ClipPlayer
          v-if="sheet.kind === 'picture' || sheet.kind === 'sound'"
          ref="player"
          :production="production.ulid"
          :clip="sheet"
          :marks="marks"
          :can-mark="sheet.library === null"
          bare
          :guide="guide"
          :from="from"
          :channels="heard"
          :limits="limits"
          :take="sheet.take?.ulid"
          :can-work="production.may.work"
          @mark="setMarks"
          @guide="hear"
          @look="waves?.look($event)"
        />
        <img
          v-else-if="sheet.kind === 'still'"
          class="still"
          :src="mediaUrl(production.ulid, sheet.ulid, 'still')"
          :alt="sheet.name"
        />
        <p v-if="standing" class="stays soft">
          {{ t('bins.ClipPage.within') }} <b>{{ standing.name }}</b><template v-if="standing.handle_ticks > 0">{{
            t('bins.ClipPage.framesBeyondBothEnds', [toFrames(standing.handle_ticks, sheet.rate)])
          }}</template
          >. <button class="plain" title="H" @click="lift">{{ t('bins.ClipPage.allOfTheClip') }}</button>
        </p>
        <p v-if="sheet.library" class="note">
          {{ t('bins.ClipPage.itIsOfTheLibrary', [sheet.library]) }}
          <button
            v-if="production.may.organise"
            class="go"
            :title="t('bins.ClipPage.aClipOfThisProduction')"
            @click="use"
          >
            {{ t('bins.ClipPage.useItHere') }}
          </button>
        </p>
        <p v-if="sheet.away_at" class="note warn">
          {{ t('bins.ClipPage.itsMediaWereTakenAway') }}
        </p>
        <p v-for="problem in sheet.problems" :key="problem" class="note warn">{{ deskSays(problem) }}</p>
      </section>
      <section class="right">
        <div class="tabs" role="tablist">
          <button
            v-for="(name, key) in tabs"
            :key="key"
            role="tab"
            :aria-selected="tab === key"
            :class="{ on: tab === key }"
            @click="tab = key"
          >
            {{ name }}
          </button>
        </div>
        <div v-show="tab === 'pieces'" class="body">
          <ClipPieces
            ref="pieces"
            v-if="sheet.library === null"
            :clip="shown!"
            :own-bins="ownBins"
            :ticks="() => ticks"
            @go="player?.go($event)"
            @hear="hearOnly"
            @within="(one) => (within = one.in_ticks === null ? null : one.ulid)"
          />
          <p class="soft keys">
            <kbd>I</kbd> <kbd>O</kbd> {{ t('bins.ClipPage.or') }} <kbd>Q</kbd> {{ t('bins.ClipPage.markAStretch') }}
            <kbd>U</kbd> {{ t('bins.ClipPage.namesIt') }} <kbd>]</kbd> {{ t('bins.ClipPage.goesToTheNextOne') }}
            <kbd>E</kbd> {{ t('bins.ClipPage.movesTheEdgesOfThe') }}
          </p>
          <button
            v-if="sheet.channels.length > 1 && production.may.organise && sheet.library === null"
            class="plain"
            :title="t('bins.ClipPage.eachChannelAsAPiece')"
            @click="splitChannels"
          >
            {{ t('bins.ClipPage.splitTheChannels', [sheet.channels.length]) }}
          </button>
        </div>
        <ClipWords
          v-if="tab === 'words'"
          :clip="sheet"
          :ticks="ticks"
          :playing="player?.playing === true"
          @go="player?.goToTicks($event)"
          @play="(from: number, to: number) => player?.playStretch(from, to)"
          @pass="pass"
        />
        <ClipFacts v-if="tab === 'known' || tab === 'places'" :sheet="sheet" :of="tab" class="body" />
      </section>
      <SheetWaves
        v-if="sheet.kind === 'picture' || sheet.kind === 'sound'"
        ref="waves"
        class="bottom"
        :production="production.ulid"
        :clip="shown!"
        :player="player?.player ?? null"
        :position="sheet.kind === 'picture' ? ticks : (player?.position ?? 0)"
        :sounds="player?.ownSounds ?? []"
        :channels="channels"
        :may-change="production.may.organise"
        :roomy="sheet.kind === 'sound'"
        @go="player?.goToTicks($event)"
        @mark="setMarks"
        @change="change"
        @edge="setEdge"
        @choose="choose"
      />
    </div>
  </AnswerState>
</template>

<style scoped>
.clip-page {
  display: grid;
  grid-template: minmax(0, 1fr) minmax(180px, auto) / minmax(0, 1fr) minmax(320px, 44%);
  height: 100%;
  min-height: 0;
}
.clip-page.heard {
  grid-template-rows: minmax(190px, 32%) minmax(0, 1fr);
}
.clip-page.heard.reading {
  grid-template-rows: minmax(300px, 60%) minmax(0, 1fr);
}
.clip-page.reading {
  grid-template-columns: minmax(0, 1fr) minmax(400px, 50%);
}
.heard .bottom,
.of-sound .bottom {
  max-height: none;
}
.clip-page.of-sound {
  grid-template-rows: minmax(190px, 34%) minmax(0, 1fr);
}
.clip-page.of-picture {
  grid-template: minmax(0, 1fr) 118px / minmax(0, 1fr) minmax(250px, 24%);
}
.of-picture .bottom {
  max-height: 118px;
}
.of-picture .left :deep(.picture),
.of-picture .left :deep(.picture canvas) {
  max-height: 57vh;
}
.of-sound .left :deep(.picture),
.of-sound .left :deep(.picture canvas) {
  max-height: 18vh;
}
.shows {
  display: inline-flex;
  border: 1px solid var(--rule-strong);
  border-radius: 4px;
  overflow: hidden;
  flex: none;
  font-size: 12px;
}
.shows button {
  border: 0;
  background: var(--sheet);
  padding: 3px 8px;
  cursor: pointer;
}
.shows .on {
  background: var(--ink);
  color: var(--sheet);
}
.left,
.right {
  min-height: 0;
  overflow: auto;
  padding: 12px 16px;
}
.right {
  background: var(--sheet-2);
  border-left: 1px solid var(--rule);
}
.bottom {
  grid-column: 1 / -1;
  border-top: 1px solid var(--rule-strong);
  max-height: 46vh;
}
h1 {
  display: flex;
  align-items: center;
  gap: 8px;
  font-size: 16px;
  margin: 0 0 10px;
  min-width: 0;
  white-space: nowrap;
}
h1 > span {
  overflow: hidden;
  text-overflow: ellipsis;
}
h1 .push {
  margin-left: auto;
}
.stays {
  margin: 6px 0 0;
  font-size: 12px;
}
.what {
  font-size: 13px;
  font-weight: 400;
  color: var(--ink-soft);
}
.left :deep(.picture) {
  max-height: 45vh;
}
.left :deep(.picture canvas) {
  max-height: 45vh;
  object-fit: contain;
}
.still {
  max-width: 100%;
  max-height: 60vh;
}
.tabs {
  display: flex;
  gap: 4px;
  margin-bottom: 12px;
}
.tabs button {
  border: 0;
  border-bottom: 2px solid transparent;
  background: none;
  padding: 3px 8px 5px;
  cursor: pointer;
  color: var(--ink-soft);
}
.tabs .on {
  color: var(--ink);
  font-weight: 600;
  border-color: var(--act);
}
.body :deep(.pieces) {
  margin-top: 10px;
}
.keys {
  line-height: 2;
  margin: 14px 0 8px;
}
</style>
