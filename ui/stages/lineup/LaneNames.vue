<script setup lang="ts">
import { t } from '@/words'
import { lineup as lineupApi } from '@/api/endpoints/lineup'
import { makeStale } from '@/api/queries'
import type { Device, Lineup } from '@/api/types'
import { useDesk } from '@/shell/desk'
import DeviceBadge from '@/shell/DeviceBadge.vue'
import { attempt } from '@/shell/say'
import { offsetText } from './geometry'

/** The lanes by their devices, with what is known of each clock; their order by dragging or by keys. */
const props = defineProps<{ lanes: Device[]; clocks: Lineup['clocks'] }>()
const { production } = useDesk()
const clockOf = (letter: string) => props.clocks.find((one) => one.device === letter)

let carried: string | null = null
function carry(letter: string, event: DragEvent): void {
  carried = letter
  // Some browsers drag nothing that carries no data.
  event.dataTransfer?.setData('text/plain', letter)
}
async function drop(onto: string): Promise<void> {
  const letter = carried
  carried = null
  if (letter === null || letter === onto) return
  await arrange(letter, (all) => all.indexOf(onto))
}
async function arrange(letter: string, to: (letters: string[]) => number): Promise<void> {
  const letters = production.value.devices.map((device) => device.letter)
  const place = to(letters)
  const rest = letters.filter((one) => one !== letter)
  rest.splice(Math.max(0, Math.min(rest.length, place)), 0, letter)
  if ((await attempt(() => lineupApi.lanes(production.value.ulid, { letters: rest }))) !== undefined) makeStale('lanes')
}
function laneKey(event: KeyboardEvent, letter: string): void {
  const by = { ArrowUp: -1, ArrowDown: 1 }[event.key]
  if (by === undefined || !event.altKey || !production.value.may.work) return
  event.preventDefault()
  const used = props.lanes.map((device) => device.letter)
  const neighbour = used[used.indexOf(letter) + by]
  if (neighbour !== undefined) void arrange(letter, (all) => all.indexOf(neighbour))
}
</script>

<template>
  <div class="names">
    <div class="corner" />
    <div
      v-for="device in lanes"
      :key="device.letter"
      class="name"
      tabindex="0"
      :draggable="production.may.work"
      :title="production.may.work ? t('lineup.LaneNames.dragToOrderTheLanes') : ''"
      @dragstart="carry(device.letter, $event)"
      @dragover.prevent
      @drop.prevent="drop(device.letter)"
      @keydown="laneKey($event, device.letter)"
    >
      <span
        ><DeviceBadge :letter="device.letter" />{{ ' ' }}
        <b>{{
          device.kind === 'recorder' ? t('lineup.LaneNames.recorder') : t('lineup.LaneNames.camera', [device.letter])
        }}</b></span
      >
      <small>{{ device.note }}</small>
      <small
        :class="{
          warn:
            clockOf(device.letter)?.applied_ticks == null &&
            offsetText(clockOf(device.letter)?.learned_ticks ?? null, production.rate) !== '',
        }"
        >{{
          device.kind === 'recorder'
            ? t('lineup.LaneNames.theClockOfTheDay')
            : offsetText(clockOf(device.letter)?.learned_ticks ?? null, production.rate) ||
              t('lineup.LaneNames.clockInStep')
        }}{{ clockOf(device.letter)?.applied_ticks != null ? t('lineup.LaneNames.applied') : '' }}</small
      >
    </div>
  </div>
</template>

<style scoped>
.names {
  border-right: 1px solid var(--rule-strong);
  background: var(--sheet-2);
}
.corner {
  height: 54px;
  border-bottom: 1px solid var(--rule);
}
.name {
  height: var(--lane);
  padding: 10px 10px;
  border-bottom: 1px solid var(--rule);
  display: grid;
  align-content: start;
  gap: 1px;
}
.name b {
  font-weight: 600;
}
.name small {
  color: var(--ink-soft);
  font-size: 11px;
}
.name small.warn {
  color: var(--warn);
}
.name[draggable='true'] {
  cursor: grab;
}
</style>
