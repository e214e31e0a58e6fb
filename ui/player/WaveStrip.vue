<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { ref, shallowRef, watch, watchEffect } from 'vue'
import { columns, loadPeaks, type Peaks } from './peaks'

/** The sound of a clip from its start to its end, drawn from its peaks. */
const props = withDefaults(defineProps<{ address: string; seconds: number; colour?: string; gain?: number }>(), { colour: '#3f5e8c', gain: 1 })

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
  const element = canvas.value
  if (element === null || width.value < 2 || height.value < 2) return
  const scale = window.devicePixelRatio || 1
  element.width = Math.round(width.value * scale)
  element.height = Math.round(height.value * scale)
  const pen = element.getContext('2d')
  if (pen === null) return
  pen.clearRect(0, 0, element.width, element.height)
  pen.fillStyle = props.colour
  const middle = element.height / 2
  if (peaks.value === null) {
    pen.globalAlpha = 0.4
    pen.fillRect(0, middle, element.width, 1)
    return
  }
  const bars = Math.max(1, Math.floor(element.width / (2 * scale)))
  const values = columns(peaks.value, 0, props.seconds, bars)
  for (let bar = 0; bar < bars; bar++) {
    const tall = Math.max(1, Math.min(1, values[bar]! * props.gain) * (element.height - 2))
    pen.fillRect(bar * 2 * scale, middle - tall / 2, 1.3 * scale, tall)
  }
})
</script>

<template>
  <canvas ref="canvas" aria-hidden="true" />
</template>

<style scoped>
canvas { display: block; width: 100%; height: 100%; }
</style>
