<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { ref, shallowRef, watch, watchEffect } from 'vue'
import { penFor } from './canvas'
import { columns, loadPeaks, type Peaks } from './peaks'

/** The sound of a clip from its start to its end, drawn from its peaks. */
const props = withDefaults(defineProps<{ address: string; seconds: number; colour?: string; gain?: number }>(), {
  colour: '#3f5e8c',
  gain: 1,
})

const canvas = ref<HTMLCanvasElement | null>(null)
const peaks = shallowRef<Peaks | null>(null)
const { width, height } = useElementSize(canvas)

watch(
  () => props.address,
  async (address) => {
    peaks.value = null
    const answer = await loadPeaks(address)
    if (address === props.address) peaks.value = answer
  },
  { immediate: true },
)

watchEffect(() => {
  const pen = penFor(canvas.value, width.value, height.value)
  if (pen === null) return
  pen.fillStyle = props.colour
  const middle = height.value / 2
  if (peaks.value === null) {
    pen.globalAlpha = 0.4
    pen.fillRect(0, middle, width.value, 1)
    return
  }
  const bars = Math.max(1, Math.floor(width.value / 2))
  const values = columns(peaks.value, 0, props.seconds, bars)
  for (let bar = 0; bar < bars; bar++) {
    const tall = Math.max(1, Math.min(1, values[bar]! * props.gain) * (height.value - 2))
    pen.fillRect(bar * 2, middle - tall / 2, 1.3, tall)
  }
})
</script>

<template>
  <canvas ref="canvas" aria-hidden="true" />
</template>

<style scoped>
canvas {
  display: block;
  width: 100%;
  height: 100%;
}
</style>
