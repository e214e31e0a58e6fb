<script setup lang="ts">
import { t, valueWord } from '@/words'
import type { CutTrack } from './value'

/** The names of a cut's tracks beside the paper, and what can be done with each. */
const props = defineProps<{
  tracks: CutTrack[]
  rows: { index: number; track: CutTrack; top: number; high: number }[]
  scroll: number
  track: number
  solo: Set<number>
  /** How loud each is now, 0 to 1. */
  meters: Map<number, number>
  canWork: boolean
}>()
const emit = defineEmits<{
  choose: [track: number]
  set: [track: number, change: Record<string, unknown>, label: string]
  solo: [tracks: Set<number>]
  height: [name: string, high: number]
  add: []
  name: [track: number]
}>()
const HEIGHTS = [34, 46, 64, 96]
function taller(row: { track: CutTrack; high: number }): void {
  const next = HEIGHTS.find((one) => one > row.high) ?? HEIGHTS[0]!
  emit('height', `${row.track.kind} ${row.track.name}`, next)
}
function alone(index: number): void {
  const next = new Set(props.solo)
  if (!next.delete(index)) next.add(index)
  emit('solo', next)
}
const part = (value: number) => Math.max(0, Math.min(100, 100 + (20 * Math.log10(Math.max(value, 1e-5)) * 100) / 48))
</script>

<template>
  <div class="heads" data-follows="paper" role="group" :aria-label="t('assembly.TrackHeads.tracks')">
    <div class="add">
      <button v-if="canWork" @click="emit('add')">{{ t('assembly.TrackHeads.track') }}</button>
    </div>
    <div
      v-for="row in rows"
      :key="row.index"
      role="group"
      class="head"
      :aria-label="row.track.name"
      :aria-current="row.index === track"
      :class="{ on: row.index === track, off: !row.track.enabled, low: row.high < 40 }"
      :style="{ top: `${row.top - scroll}px`, height: `${row.high}px` }"
      @click="emit('choose', row.index)"
      @dblclick="canWork && emit('name', row.index)"
    >
      <b :title="t('assembly.TrackHeads.aDoubleClickNamesIt', [row.track.name])">{{ row.track.name }}</b>
      <small v-if="row.track.role && row.track.role.toLowerCase() !== row.track.name.toLowerCase()" class="soft">{{
        valueWord(row.track.role)
      }}</small>
      <span class="acts">
        <button
          v-if="row.track.kind === 'sound'"
          :class="{ lit: solo.has(row.index) }"
          :aria-pressed="solo.has(row.index)"
          :title="
            solo.has(row.index)
              ? t('assembly.TrackHeads.allTracksAreHeardAgain')
              : t('assembly.TrackHeads.hearThisTrackAlone')
          "
          @click.stop="alone(row.index)"
        >
          {{ t('assembly.TrackHeads.alone') }}
        </button>
        <button
          :class="{ lit: !row.track.enabled }"
          :aria-pressed="!row.track.enabled"
          :disabled="!canWork"
          :title="
            row.track.enabled
              ? t('assembly.TrackHeads.neitherSeenNorHeard')
              : t('assembly.TrackHeads.seenAndHeardAgain')
          "
          @click.stop="
            emit('set', row.index, { enabled: !row.track.enabled }, row.track.enabled ? 'Track off' : 'Track on')
          "
        >
          {{ t('assembly.TrackHeads.off') }}
        </button>
        <button
          :class="{ lit: row.track.locked }"
          :aria-pressed="row.track.locked"
          :disabled="!canWork"
          :title="
            row.track.locked
              ? t('assembly.TrackHeads.itMayBeChangedAgain')
              : t('assembly.TrackHeads.nobodyChangesItNothingMoves')
          "
          @click.stop="
            emit(
              'set',
              row.index,
              { locked: !row.track.locked },
              row.track.locked ? 'Unlock the track' : 'Lock the track',
            )
          "
        >
          {{ t('assembly.TrackHeads.lock') }}
        </button>
        <button
          :title="t('assembly.TrackHeads.tallerThenLowAgain')"
          :aria-label="t('assembly.TrackHeads.taller')"
          @click.stop="taller(row)"
        >
          ↕
        </button>
      </span>
      <i v-if="row.track.kind === 'sound'" class="meter"
        ><i :style="{ height: `${part(meters.get(row.index) ?? 0)}%` }"
      /></i>
    </div>
  </div>
</template>

<style scoped>
.heads {
  position: relative;
  overflow: hidden;
  background: var(--sheet-2);
  border-right: 1px solid var(--rule-strong);
  min-height: 0;
}
.add {
  position: absolute;
  z-index: 2;
  inset: 0 0 auto;
  height: 26px;
  background: var(--sheet);
  border-bottom: 1px solid var(--rule-strong);
}
.add button {
  border: 0;
  background: none;
  color: var(--act);
  padding: 2px 12px;
  cursor: pointer;
}
.head {
  position: absolute;
  left: 0;
  right: 0;
  padding: 4px 14px 0 12px;
  border-bottom: 1px solid var(--rule);
  overflow: hidden;
  cursor: default;
}
.head.on {
  background: var(--sheet);
  box-shadow: inset 3px 0 var(--act);
}
.head b,
.head small {
  display: block;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  line-height: 1.25;
}
.head.low small {
  display: none;
}
.head.off b {
  color: var(--ink-faint);
  text-decoration: line-through;
}
.acts {
  display: none;
  gap: 3px;
  position: absolute;
  right: 12px;
  bottom: 3px;
  background: inherit;
}
.head:hover .acts,
.head:focus-within .acts,
.head.on .acts {
  display: flex;
}
.acts button {
  border: 1px solid var(--rule-strong);
  border-radius: 3px;
  background: var(--sheet);
  font-size: 10px;
  line-height: 14px;
  padding: 0 3px;
  cursor: pointer;
  color: var(--ink-soft);
}
.acts .lit {
  background: var(--ink);
  color: #fff;
}
.meter {
  position: absolute;
  right: 3px;
  top: 3px;
  bottom: 3px;
  width: 4px;
  background: var(--tab);
}
.meter i {
  position: absolute;
  inset: auto 0 0;
  background: var(--act);
}
</style>
