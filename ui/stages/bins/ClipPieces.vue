<script setup lang="ts">
import { t, valueWord } from '@/words'
import { useLocalStorage } from '@vueuse/core'
import { computed, nextTick, ref } from 'vue'
import { bins as binsApi } from '@/api/endpoints/bins'
import { makeStale } from '@/api/queries'
import type { BinEntry, ClipSheet, Marker, Subclip } from '@/api/types'
import { label, length, ofFrames, toFrames } from '@/player/time'
import { useDesk } from '@/shell/desk'
import { useShortcuts } from '@/shell/keys'
import PickDialog from '@/shell/PickDialog.vue'
import { useLastCut } from '@/shell/useLastCut'
import { attempt, say } from '@/shell/say'

/** What people name on a clip: stretches of it that they keep, and places that they mark. */
const props = defineProps<{ clip: ClipSheet; ownBins: BinEntry[]; ticks: () => number }>()
const emit = defineEmits<{
  go: [frame: number]
  /** The channels that a piece has of the clip's; null is all. */
  hear: [channels: number[] | null]
  /** The piece that is stood in from now on. */
  within: [subclip: Subclip]
}>()
const { production } = useDesk()
const mayOrganise = computed(() => production.value.may.organise)
const marks = computed(() => props.clip.marks)
const rangeTicks = computed(() =>
  marks.value.in_ticks !== null && marks.value.out_ticks !== null ? marks.value.out_ticks - marks.value.in_ticks : null,
)
/** Frames beyond both ends of what is named next; kept by this person on this machine. */
const handles = useLocalStorage('cartella.handles', 0)
const handleTicks = computed(() => ofFrames(Math.max(0, Math.round(handles.value || 0)), props.clip.rate))
const asked = ref<{ what: 'subclip' | 'marker'; at: number; to: number | null } | null>(null)
const name = ref('')
const nameBox = ref<HTMLInputElement | null>(null)
const ask = (what: 'subclip' | 'marker', suggested: string, over: { at: number; to: number | null } | null = null) => {
  asked.value = { what, ...(over ?? { at: props.ticks(), to: null }) }
  name.value = suggested
  void nextTick(() => nameBox.value?.select())
}

function startSubclip(): void {
  if (rangeTicks.value === null) return say(t('bins.ClipPieces.setAnInPointWith'))
  if (!mayOrganise.value) return
  const take = props.clip.take
  const slate = take === null ? '' : `${take.setup}-${take.take}${take.part} `
  ask('subclip', `${slate}${props.clip.name} ${props.clip.subclips.length + 1}`)
}
function startMarker(): void {
  if (mayOrganise.value) ask('marker', '')
}
/** The marked stretch as a marker that has a length. */
function startStretch(): void {
  const { in_ticks: from, out_ticks: to } = marks.value
  if (!mayOrganise.value) return
  if (from === null || to === null) return say(t('bins.ClipPieces.setAnInPointWith'))
  ask('marker', '', { at: from, to })
}
async function keep(): Promise<void> {
  const now = asked.value
  const text = name.value.trim()
  if (now === null || (now.what === 'subclip' && text === '')) return
  const range = { ...marks.value }
  const { ulid } = props.clip
  // Closed at once: the next key is the player's, however long the server takes.
  asked.value = null
  const done = await attempt<unknown>(() =>
    now.what === 'subclip'
      ? binsApi.keepSubclip(production.value.ulid, ulid, { name: text, handle_ticks: handleTicks.value, ...range })
      : binsApi.addMarker(production.value.ulid, ulid, { name: text, in_ticks: now.at, out_ticks: now.to }),
  )
  if (done === undefined) {
    // What could not be kept is there to be tried again, unless something else is being named by now.
    if (asked.value === null && props.clip.ulid === ulid) {
      asked.value = now
      name.value = text
    }
    return
  }
  say(
    now.what === 'subclip'
      ? t('bins.ClipPieces.isKeptAsASubclip', [text])
      : t('bins.ClipPieces.thePlaceIsMarked', [text === '' ? '' : `: ${text}`]),
  )
  makeStale('bins', { clip: ulid })
}
function goTo(one: Subclip): void {
  emit('go', toFrames(one.in_ticks ?? 0, props.clip.rate))
  emit('hear', one.channels)
  emit('within', one)
}
async function remove(work: () => Promise<unknown>, what: string): Promise<void> {
  if ((await attempt(work)) === undefined) return
  say(t('bins.ClipPieces.isRemovedCtrlZBrings', [what]))
  makeStale('bins')
}
// The stretch of a subclip or marker, at the end of the cut that was worked on last.
const { add: addPieces } = useLastCut(
  () => production.value.ulid,
  () => production.value.may.organise,
)
function addToCut(inTicks: number | null, outTicks: number | null, called: string): void {
  const piece = { clip: props.clip.ulid, in_ticks: inTicks ?? 0, out_ticks: outTicks ?? props.clip.duration_ticks ?? 0 }
  void addPieces([piece], called)
}
const putting = ref<{ ref: string; name: string } | null>(null)
/** A marker's stretch lies in a bin as a stretch of its clip. */
const rangeOf = (one: Marker) => `clip:${props.clip.ulid}#${one.in_ticks}-${one.out_ticks}`
async function putInto(bin: BinEntry): Promise<void> {
  const one = putting.value
  putting.value = null
  if (one === null) return
  const done = await attempt(() => binsApi.put(production.value.ulid, bin.key, [one.ref], null))
  if (done !== undefined)
    say(done.moved === 0 ? t('bins.ClipPieces.alreadyIn', [bin.name]) : t('bins.ClipPieces.isIn', [one.name, bin.name]))
  makeStale('bins')
}
/** A marker whose name and note are being written. */
const noting = ref<{ ulid: string; name: string; note: string; about: string } | null>(null)
const ABOUT = ['picture', 'sound', 'acting', 'continuity', 'effects', 'music']
async function keepNote(): Promise<void> {
  const now = noting.value
  if (now === null) return
  const { ulid, name: called, note } = now
  const body = { name: called.trim(), note: note.trim(), about: now.about || null }
  if ((await attempt(() => binsApi.changeMarker(production.value.ulid, props.clip.ulid, ulid, body))) === undefined)
    return
  noting.value = null
  makeStale('bins', { clip: props.clip.ulid })
}
const timecode = (ticks: number) =>
  label(toFrames((props.clip.start_ticks ?? 0) + ticks, props.clip.rate), props.clip.rate)

defineExpose({ startSubclip, startMarker })
useShortcuts('Clip sheet', [
  { keys: ['u'], what: t('bins.ClipPieces.keepTheMarkedRangeAs'), run: startSubclip },
  { keys: ['m'], what: t('bins.ClipPieces.markThisPlaceWithA'), run: startMarker },
  { keys: ['M'], what: t('bins.ClipPieces.markTheStretchFromIn'), run: startStretch },
])
</script>

<template>
  <div class="marks">
    <span v-if="rangeTicks === null" class="soft hint"
      ><kbd>I</kbd> {{ t('bins.ClipPieces.in') }} <kbd>O</kbd> {{ t('bins.ClipPieces.out') }}</span
    >
    <span class="mono">{{
      rangeTicks === null ? '' : t('bins.ClipPieces.f', [length(rangeTicks), toFrames(rangeTicks, clip.rate)])
    }}</span>
    <template v-if="mayOrganise"
      ><button class="plain" :title="t('bins.ClipPieces.markThisPlaceM')" @click="startMarker">
        {{ t('bins.ClipPieces.mark') }} <kbd>M</kbd>
      </button>
      <button
        class="plain"
        :class="{ go: rangeTicks !== null }"
        :disabled="rangeTicks === null"
        :title="t('bins.ClipPieces.keepAsSubclipU')"
        @click="startSubclip"
      >
        {{ t('bins.ClipPieces.subclip') }} <kbd>U</kbd>
      </button></template
    >
  </div>
  <form v-if="asked" class="naming" @submit.prevent="keep">
    <input
      ref="nameBox"
      v-model="name"
      class="field"
      :placeholder="asked.what === 'marker' ? t('bins.ClipPieces.whatIsHereOrNothing') : ''"
      :aria-label="
        asked.what === 'marker' ? t('bins.ClipPieces.nameOfTheMarker') : t('bins.ClipPieces.nameOfTheSubclip')
      "
      maxlength="160"
      @keydown.esc.stop="asked = null"
    /><button class="go">{{ t('bins.ClipPieces.keep') }}</button>
  </form>
  <label v-if="mayOrganise && rangeTicks !== null" class="handles soft"
    >{{ t('bins.ClipPieces.handles') }}
    <input
      v-model.number="handles"
      class="field mono"
      type="number"
      min="0"
      max="9999"
      :aria-label="t('bins.ClipPieces.handlesFrames')"
    />
    {{ t('bins.ClipPieces.framesBeyondBothEnds') }}</label
  >
  <form v-if="noting" class="naming noted" @submit.prevent="keepNote">
    <input
      v-model="noting.name"
      class="field"
      maxlength="160"
      :aria-label="t('bins.ClipPieces.nameOfTheMarker')"
      :placeholder="t('bins.ClipPieces.itsName')"
    />
    <input
      v-model="noting.note"
      class="field"
      maxlength="1000"
      :aria-label="t('bins.ClipPieces.noteOfTheMarker')"
      :placeholder="t('bins.ClipPieces.aNote')"
      @vue:mounted="({ el }: { el: HTMLInputElement }) => el.focus()"
      @keydown.esc.stop="noting = null"
    /><select v-model="noting.about" class="field about" :aria-label="t('bins.ClipPieces.whatTheMarkerIsAbout')">
      <option value="">{{ t('bins.ClipPieces.about') }}</option>
      <option v-for="one in ABOUT" :key="one" :value="one">{{ valueWord(one) }}</option></select
    ><button class="go">{{ t('bins.ClipPieces.keep') }}</button>
  </form>
  <ul v-if="clip.subclips.length > 0" class="pieces" :aria-label="t('bins.ClipPieces.subclips')">
    <li v-for="one in clip.subclips" :key="one.ulid" class="sub">
      <button class="to" @click="goTo(one)">
        <b :title="one.name">{{ one.name }}</b><span v-if="one.channels" class="soft">{{
          t('bins.ClipPieces.ch', [one.channels.join(', ')])
        }}</span
        ><span class="mono soft"
          >{{ length(one.in_ticks === null ? clip.duration_ticks : (one.out_ticks ?? 0) - one.in_ticks)
          }}<template v-if="one.handle_ticks > 0">
            {{ ' ' }}{{ t('bins.ClipPieces.f2', [toFrames(one.handle_ticks, clip.rate)]) }}</template
          ></span
        >
      </button>
      <template v-if="mayOrganise"
        ><button
          class="act"
          :title="t('bins.ClipPieces.putIntoABin', [one.name])"
          @click="putting = { ref: `subclip:${one.ulid}`, name: one.name }"
        >
          {{ t('bins.ClipPieces.intoABin') }}</button
        ><button
          v-if="clip.duration_ticks !== null"
          class="act"
          :title="t('bins.ClipPieces.addToTheCut', [one.name])"
          @click="addToCut(one.in_ticks, one.out_ticks, one.name)"
        >
          {{ t('bins.ClipPieces.toTheCut') }}</button
        ><button
          class="act"
          :title="t('bins.ClipPieces.removeTheSubclip', [one.name])"
          :aria-label="t('bins.ClipPieces.removeTheSubclip', [one.name])"
          @click="remove(() => binsApi.removeSubclip(production.ulid, clip.ulid, one.ulid), one.name)"
        >
          ×
        </button></template
      >
    </li>
  </ul>
  <ul v-if="clip.markers.length > 0" class="pieces far" :aria-label="t('bins.ClipPieces.markers')">
    <li v-for="one in clip.markers" :key="one.ulid" class="flag">
      <button class="to" @click="emit('go', toFrames(one.in_ticks, clip.rate))">
        <b :title="one.note || one.name">{{ one.name || t('bins.ClipPieces.marked') }}</b><span class="soft">{{
          [one.about, one.kind === 'file' ? t('bins.ClipPieces.inTheFile') : one.by].filter(Boolean).join(', ')
        }}</span
        ><span v-if="one.out_ticks !== null" class="mono soft">{{ length(one.out_ticks - one.in_ticks) }}</span
        ><span class="mono soft">{{ timecode(one.in_ticks) }}</span>
      </button>
      <button
        v-if="mayOrganise && one.out_ticks !== null"
        class="act"
        :title="t('bins.ClipPieces.putTheStretchOfInto', [one.name || t('bins.ClipPieces.thisMarker')])"
        @click="putting = { ref: rangeOf(one), name: one.name || t('bins.ClipPieces.theStretch') }"
      >
        {{ t('bins.ClipPieces.intoABin') }}
      </button>
      <button
        v-if="mayOrganise && one.out_ticks !== null"
        class="act"
        :title="t('bins.ClipPieces.addToTheCut', [one.name || t('bins.ClipPieces.theStretch')])"
        @click="addToCut(one.in_ticks, one.out_ticks, one.name || t('bins.ClipPieces.theStretch'))"
      >
        {{ t('bins.ClipPieces.toTheCut') }}
      </button>
      <button
        v-if="mayOrganise && one.kind === 'person'"
        class="act"
        :title="t('bins.ClipPieces.nameAndNoteOf', [one.name || t('bins.ClipPieces.thisMarker')])"
        @click="noting = { ulid: one.ulid, name: one.name, note: one.note, about: one.about ?? '' }"
      >
        {{ t('bins.ClipPieces.note') }}
      </button>
      <button
        v-if="mayOrganise && one.kind === 'person'"
        class="act"
        :title="t('bins.ClipPieces.removeTheMarker', [one.name])"
        :aria-label="t('bins.ClipPieces.removeTheMarker', [one.name])"
        @click="
          remove(
            () => binsApi.removeMarker(production.ulid, clip.ulid, one.ulid),
            one.name || t('bins.ClipPieces.theMarker'),
          )
        "
      >
        ×
      </button>
    </li>
  </ul>
  <PickDialog
    :open="putting !== null"
    :title="t('bins.ClipPieces.putIntoABin2')"
    :label="t('bins.ClipPieces.ownBins')"
    :choices="ownBins"
    @pick="putInto"
    @close="putting = null"
  >
    <template #before
      ><p v-if="ownBins.length === 0" class="soft">
        {{ t('bins.ClipPieces.thereIsNoBinOf') }}
      </p></template
    >
    <template #default="{ one }"
      ><b>{{ one.name }}</b
      ><span class="mono soft">{{ one.items }}</span></template
    >
  </PickDialog>
</template>

<style scoped>
.marks {
  display: flex;
  align-items: center;
  gap: 8px;
  font-size: 12px;
  min-height: 30px;
}
.marks .mono {
  flex: 1;
  white-space: nowrap;
}
.hint {
  white-space: nowrap;
}
.naming {
  display: flex;
  gap: 6px;
}
.noted {
  flex-wrap: wrap;
}
.about {
  width: auto;
}
.handles {
  display: flex;
  gap: 6px;
  align-items: center;
  font-size: 12px;
}
.handles .field {
  width: 58px;
  height: 24px;
}
.pieces {
  list-style: none;
  margin: 0;
  padding: 0;
  border-top: 1px solid var(--rule);
}
.far {
  max-height: 190px;
  overflow: auto;
}
.pieces li {
  display: flex;
  align-items: center;
  gap: 2px;
  border-bottom: 1px solid var(--rule);
}
.to {
  display: flex;
  flex: 1;
  min-width: 0;
  gap: 8px;
  border: 0;
  background: none;
  padding: 5px 4px;
  cursor: pointer;
  text-align: left;
}
.to b {
  font-weight: 500;
  flex: 1;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.to span {
  flex: none;
  font-size: 12px;
}
.flag b::before {
  content: '';
  display: inline-block;
  width: 9px;
  height: 9px;
  margin-right: 6px;
  background: var(--warn);
  clip-path: polygon(0 0, 100% 0, 70% 50%, 100% 100%, 0 100%);
}
.act {
  border: 0;
  background: none;
  color: var(--act);
  cursor: pointer;
  font-size: 12px;
  padding: 2px 5px;
  border-radius: 4px;
}
.act:hover {
  background: var(--act-soft);
}
</style>
