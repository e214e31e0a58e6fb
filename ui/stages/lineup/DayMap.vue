<script setup lang="ts">
import { t } from '@/words'
import { useElementSize } from '@vueuse/core'
import { computed, nextTick, ref, toRef } from 'vue'
import type { Device, Lineup, Placed } from '@/api/types'
import { clock, length, TICKS } from '@/player/time'
import { useDesk } from '@/shell/desk'
import { deviceColour, waveColour } from '@/shell/device'
import { ruler } from './geometry'
import LaneCanvas from './LaneCanvas.vue'
import LaneNames from './LaneNames.vue'
import { endOf as end, useMapView } from './useMapView'

/** The day on one clock: a lane for each device, the takes above them, and what is chosen. */
const props = defineProps<{
  lineup: Lineup
  placed: Placed[]
  lanes: Device[]
  chosen: Placed | undefined
  picked: Set<string>
  how: (one: Placed) => string
}>()
const emit = defineEmits<{ select: [clip: string]; choose: [clip: string, event: MouseEvent] }>()
const { production } = useDesk()

/** Pixels above the lanes (ruler and takes) and below them. */
const HEAD = 54
const STRIP = 13
const frame = ref<HTMLElement | null>(null)
const { width } = useElementSize(frame)
const mapBox = ref<HTMLElement | null>(null)
const { height: mapHeight } = useElementSize(mapBox)
/** Few lanes take the room that there is, so that their waveforms are read from further away; many are scrolled. */
const laneHeight = computed(() =>
  Math.round(Math.max(92, Math.min(148, (mapHeight.value - HEAD - STRIP) / Math.max(1, props.lanes.length)))),
)
const windows = computed(() => {
  const byTake = new Map<string, { take: string; what: string; from: number; to: number }>()
  for (const one of props.placed) {
    if (one.take === null || one.kind !== 'picture') continue
    // What hangs together with nothing else has a window of its own.
    const key = `${one.group} ${one.take}`
    const there = byTake.get(key)
    if (there === undefined) byTake.set(key, { take: one.take, what: one.what, from: one.start_ticks, to: end(one) })
    else Object.assign(there, { from: Math.min(there.from, one.start_ticks), to: Math.max(there.to, end(one)) })
  }
  return [...byTake.values()]
})
const windowOf = computed(() => windows.value.find((one) => one.take === props.chosen?.take))

const mapView = useMapView({
  placed: toRef(props, 'placed'),
  width,
  frame,
  chosen: toRef(props, 'chosen'),
  take: windowOf,
})
const { map, view, isWhole, playhead, x, box, wheel, grab, point } = mapView
/**
 * The clips of each lane that are in sight. Where a box has no room for words there are none: a day of 400 clips moves
 * smoothly so.
 */
const byLane = computed(() => {
  const all = new Map(
    props.lanes.map((device) => [
      device.letter,
      [] as { one: Placed; style: { left: string; width: string }; room: 'none' | 'name' | 'all' }[],
    ]),
  )
  for (const one of props.placed) {
    const left = x(one.start_ticks)
    const right = x(end(one))
    if (left >= view.value.width || right <= 0) continue
    all.get(one.device)?.push({
      one,
      style: box(one.start_ticks, end(one)),
      room: right - left < 22 ? 'none' : right - left < 62 ? 'name' : 'all',
    })
  }
  return all
})
/** Moments at which others rolled and a lane did not, as the day sheet has them. */
const holes = computed(() => Map.groupBy(props.lineup.holes, (one) => one.device))
const drawn = computed(
  () => new Map([...byLane.value].map(([letter, boxes]) => [letter, boxes.map((each) => each.one)])),
)
const marks = computed(() => ruler(map.value, view.value))
function reveal(ulid: string): void {
  void nextTick(() => {
    const one = props.placed.find((other) => other.clip === ulid)
    if (one !== undefined) mapView.show(one.start_ticks, end(one))
  })
}
defineExpose({ ...mapView, reveal })
</script>

<template>
  <div ref="mapBox" class="map" :style="{ '--lane': `${laneHeight}px` }" @wheel="wheel">
    <LaneNames :lanes="lanes" :clocks="lineup.clocks" />
    <div ref="frame" class="scroll">
      <div class="ruler mono" @click="point">
        <span v-for="mark in marks" :key="mark.ticks" :style="{ left: `${mark.x}px` }"
          >{{ clock(mark.ticks, true)
          }}{{ mark.digits > 0 ? ((mark.ticks / TICKS) % 1).toFixed(mark.digits).slice(1) : '' }}</span
        >
      </div>
      <div class="takes">
        <template v-for="one in windows" :key="`${one.take} ${one.from}`"
          ><button
            v-if="x(one.to) > 0 && x(one.from) < view.width"
            class="mono"
            tabindex="-1"
            :class="{ on: one.take === chosen?.take }"
            :style="box(one.from, one.to)"
            :title="`${one.take}${one.what === '' ? '' : ` · ${one.what}`}, ${length(one.to - one.from)}`"
            @click="emit('select', placed.find((p) => p.take === one.take)?.clip ?? '')"
          >
            {{ one.take }}<span v-if="one.what !== '' && x(one.to) - x(one.from) > 100"> · {{ one.what }}</span>
          </button></template
        >
      </div>
      <i
        v-if="windowOf && x(windowOf.to) > 0 && x(windowOf.from) < view.width"
        class="window"
        :style="box(windowOf.from, windowOf.to)"
      />
      <i
        v-if="playhead !== null && x(playhead) >= 0 && x(playhead) <= view.width"
        class="playhead"
        :style="{ left: `${x(playhead)}px` }"
      />
      <div
        v-for="device in lanes"
        :key="device.letter"
        class="lane"
        :style="{ color: deviceColour(device.letter) }"
        @click.self="point"
      >
        <template v-for="{ from_ticks: from, to_ticks: to } in holes.get(device.letter) ?? []" :key="from"
          ><i
            v-if="x(to) > 0 && x(from) < view.width"
            class="hole"
            :style="box(from, to)"
            :title="t('lineup.DayMap.didNotRollAt', [device.letter, clock(from, true)])"
            @click="point"
        /></template>
        <LaneCanvas
          :production="production.ulid"
          :clips="drawn.get(device.letter) ?? []"
          :map="map"
          :view="view"
          :colour="waveColour(device.letter)"
          :gain="device.kind === 'recorder' ? 1.5 : 2.5"
        />
        <button
          v-for="{ one, style, room } in byLane.get(device.letter)"
          :key="one.clip"
          data-row
          class="placed"
          :tabindex="one.clip === chosen?.clip ? 0 : -1"
          :class="{
            on: one.clip === chosen?.clip,
            picked: picked.has(one.clip),
            unsure: !one.sure,
            locked: one.locked,
            loose: one.group > 0,
          }"
          :data-clip="one.clip"
          :aria-label="`${one.name}, ${how(one)}`"
          :title="`${one.name} · ${one.take ?? t('lineup.DayMap.noTake')} · ${how(one)}`"
          :style="style"
          @click="(emit('choose', one.clip, $event), point($event))"
        >
          <template v-if="room !== 'none'">
            <b class="mono"
              ><bdi>{{ one.name }}</bdi></b
            >
            <small :class="one.sure && one.group === 0 ? 'good' : 'warn'"
              >{{ one.group > 0 ? '○' : one.sure ? '●' : '◔' }}{{ room === 'all' ? ` ${how(one)}` : '' }}</small
            >
          </template>
        </button>
      </div>
      <div
        v-if="!isWhole"
        class="strip"
        role="scrollbar"
        aria-orientation="horizontal"
        aria-controls="lanes"
        :aria-valuenow="Math.round((100 * view.left) / map.length)"
        :title="t('lineup.DayMap.dragToMoveAlongThe')"
        @pointerdown="grab"
      >
        <i
          :style="{
            left: `${(100 * view.left) / map.length}%`,
            width: `${Math.max(0.5, (100 * view.width * view.perPixel) / map.length)}%`,
          }"
        />
      </div>
    </div>
  </div>
</template>

<style scoped>
.map {
  display: grid;
  grid-template-columns: 124px minmax(0, 1fr);
  flex: 1;
  min-height: 0;
  overflow: hidden auto;
  align-items: start;
}
.scroll {
  overflow: hidden;
  position: relative;
}
.window {
  position: absolute;
  top: 54px;
  bottom: 0;
  background: #1f6f5c12;
  border: dashed #1f6f5c80;
  border-width: 0 1px;
  pointer-events: none;
}
.playhead {
  position: absolute;
  top: 0;
  bottom: 0;
  width: 1px;
  background: var(--fault);
  z-index: 3;
  pointer-events: none;
}
.strip {
  position: sticky;
  bottom: 0;
  height: 12px;
  background: var(--sheet-2);
  border-top: 1px solid var(--rule);
  cursor: grab;
  touch-action: none;
}
.strip i {
  position: absolute;
  top: 2px;
  height: 8px;
  border-radius: 4px;
  background: var(--rule-strong);
}
.ruler {
  cursor: crosshair;
  height: 24px;
  position: relative;
  border-bottom: 1px solid var(--rule);
  font-size: 11px;
  color: var(--ink-soft);
}
.ruler span {
  position: absolute;
  top: 4px;
  padding-left: 5px;
  border-left: 1px solid var(--rule-strong);
  white-space: nowrap;
}
.takes {
  height: 30px;
  position: relative;
  border-bottom: 1px solid var(--rule);
  background: var(--sheet-2);
}
.takes button.on {
  background: var(--act-soft);
  border-color: var(--act);
  color: var(--act);
}
.takes button {
  position: absolute;
  top: 5px;
  height: 26px;
  border: 1px solid var(--rule-strong);
  border-bottom: 0;
  border-radius: 6px 6px 0 0;
  background: var(--sheet);
  font-size: 11px;
  font-weight: 600;
  padding: 0 4px;
  overflow: hidden;
  white-space: nowrap;
  text-align: left;
  cursor: pointer;
}
.lane {
  height: var(--lane);
  position: relative;
  border-bottom: 1px solid var(--rule);
}
.takes button span {
  font-weight: 400;
  color: var(--ink-soft);
}
.hole {
  position: absolute;
  top: 17px;
  bottom: 17px;
  border: 1px dashed var(--rule-strong);
  border-radius: 4px;
  background: repeating-linear-gradient(-45deg, transparent 0 5px, #b0412e12 5px 7px);
}
.placed {
  contain: strict;
  position: absolute;
  top: 11px;
  bottom: 11px;
  background: none;
  border: 1px solid currentColor;
  color: inherit;
  border-radius: 4px;
  padding: 2px 5px;
  overflow: hidden;
  text-align: left;
  cursor: pointer;
  display: flex;
  flex-direction: column;
}
.placed b {
  /* Where there is no room for all of a name, its end tells clips of one roll apart. */
  direction: rtl;
  text-align: left;
  overflow: hidden;
  text-overflow: ellipsis;
  color: var(--ink);
  font-size: 10.5px;
  font-weight: 500;
  white-space: nowrap;
}
.placed small {
  font-size: 10.5px;
  white-space: nowrap;
}
.placed small {
  margin-top: auto;
}
.placed.on {
  box-shadow: 0 0 0 2px var(--ink);
  z-index: 1;
}
.placed.picked {
  outline: 2px dashed var(--act);
  outline-offset: 1px;
}
.placed.unsure {
  border-style: dashed;
}
.placed.loose {
  border-style: dotted;
  background: #fffdf3b3;
}
.placed.locked {
  background: repeating-linear-gradient(135deg, transparent 0 8px, #6b7d2a17 8px 16px);
}
</style>
