<script setup lang="ts">
import { t } from '@/words'
import { useElementSize } from '@vueuse/core'
import { shallowRef, useTemplateRef, watch } from 'vue'
import type { Player } from './engine/player'
import { toSamples, type Sound } from './engine/playlist'
import { TICKS } from './time'
import { useStretch } from './useStretch'
import WaveStrip from './WaveStrip.vue'

/** The sound of a clip under the playhead: all of it, or a stretch around it down to its samples. */
const props = defineProps<{
  player: Player
  address: string
  /** Ticks, all of them. */
  duration: number
  position: number
  /** What of the clip itself is drawn when one looks so close that samples are seen. */
  sounds: Sound[]
  marks?: { in_ticks: number | null; out_ticks: number | null }
  /** Ticks before the slate. */
  before?: number
  colour?: string
  gain?: number
}>()

/** How much one sees, seconds; null is all of it. */
const SPANS = [null, 60, 10, 1, 0.1, 0.01]
/** Below so many seconds samples are drawn. */
const SAMPLES_BELOW = 2

const box = useTemplateRef<HTMLElement>('box')
const { width } = useElementSize(box)
const { first, span, share, isSeen, said, look, isWidest, isClosest } = useStretch({
  spans: SPANS,
  duration: () => props.duration,
  position: () => props.position,
  plays: () => props.player.transport.speed > 0,
})

const samples = shallowRef<Float32Array | null>(null)
watch(
  [first, span, () => props.sounds],
  async ([from, wide, sounds]) => {
    if (wide >= SAMPLES_BELOW * TICKS || sounds.length === 0) {
      samples.value = null
      return
    }
    const drawn = await props.player.samples(sounds, from, Math.max(2, toSamples(wide)))
    if (from === first.value && wide === span.value && sounds === props.sounds) samples.value = drawn
  },
  { immediate: true },
)

function goThere(event: MouseEvent): void {
  const edge = (event.currentTarget as HTMLElement).getBoundingClientRect()
  const at = first.value + ((event.clientX - edge.left) / edge.width) * span.value
  emit('go', at)
}
const emit = defineEmits<{ go: [ticks: number] }>()
function wheel(event: WheelEvent): void {
  if (!event.ctrlKey) return
  event.preventDefault()
  look(event.deltaY < 0 ? 1 : -1)
}
defineExpose({ look })
</script>

<template>
  <div
    ref="box"
    class="player-wave"
    :title="t('player.PlayerWave.clickToGoThere')"
    :data-span="said"
    @click="goThere"
    @wheel="wheel"
  >
    <WaveStrip
      :address="address"
      :from="first / TICKS"
      :seconds="span / TICKS"
      :samples="samples"
      :gain="gain"
      :colour="colour"
    />
    <i
      v-if="marks?.in_ticks != null || marks?.out_ticks != null"
      class="range"
      :style="{
        left: share(marks?.in_ticks ?? 0),
        right: `calc(100% - ${share(marks?.out_ticks ?? duration)})`,
      }"
    />
    <i
      v-if="(before ?? 0) > first"
      class="before"
      :style="{ width: share(before ?? 0) }"
      :title="t('player.PlayerWave.beforeTheSlate')"
    />
    <i v-if="isSeen(position)" class="head" :style="{ left: share(position) }" />
    <span v-if="width > 200" class="zoom" @click.stop>
      <button
        :title="t('player.PlayerWave.lookWiderAltShiftZ')"
        :aria-label="t('player.PlayerWave.lookWider')"
        :disabled="isWidest"
        @click="look(-1)"
      >
        −</button
      ><b class="mono">{{ said }}</b
      ><button
        :title="t('player.PlayerWave.lookCloserAltZ')"
        :aria-label="t('player.PlayerWave.lookCloser')"
        :disabled="isClosest"
        @click="look(1)"
      >
        +
      </button>
    </span>
  </div>
</template>

<style scoped>
.player-wave {
  position: relative;
  height: 100%;
  cursor: pointer;
  overflow: hidden;
}
.player-wave:hover .zoom,
.zoom:focus-within,
.player-wave:not([data-span='all of it']) .zoom {
  opacity: 1;
}
.zoom {
  opacity: 0;
  position: absolute;
  right: 3px;
  top: 3px;
  display: flex;
  align-items: center;
  gap: 4px;
  font-size: 10.5px;
  background: var(--sheet);
  border: 1px solid var(--rule);
  border-radius: 4px;
  cursor: default;
}
.zoom b {
  font-weight: 500;
}
.zoom button {
  border: 0;
  background: none;
  color: var(--ink);
  padding: 0 6px;
  line-height: 16px;
}
.zoom button:disabled {
  color: var(--rule-strong);
}
.head {
  position: absolute;
  top: 0;
  bottom: 0;
  width: 2px;
  margin-left: -1px;
  background: var(--fault);
}
.before {
  position: absolute;
  top: 0;
  bottom: 0;
  left: 0;
  background: repeating-linear-gradient(135deg, #5c667033 0 4px, transparent 4px 8px);
}
.range {
  position: absolute;
  top: 0;
  bottom: 0;
  background: #1f6f5c26;
  border: solid var(--act);
  border-width: 0 2px;
}
</style>
