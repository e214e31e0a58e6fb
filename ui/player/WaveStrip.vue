<script setup lang="ts">
import { useElementSize, useElementVisibility } from '@vueuse/core'
import { computed, ref, watchEffect } from 'vue'
import { penFor } from './canvas'
import { peaksAt } from './peaks'

/** The sound of a clip or a stretch of it, drawn from its peaks; from its samples where one sees them. */
const props = withDefaults(
  defineProps<{
    address: string
    /** Where the stretch begins, and how long it is. */
    from?: number
    seconds: number
    colour?: string
    gain?: number
    channel?: number | null
    /** Of the whole stretch; null draws peaks. */
    samples?: Float32Array | null
  }>(),
  {
    from: 0,
    colour: '#3f5e8c',
    gain: 1,
    samples: null,
  },
)

const canvas = ref<HTMLCanvasElement | null>(null)
const peaks = computed(() => peaksAt(props.address))
const { width, height } = useElementSize(canvas)
// Of 64 channels a screen shows a dozen; the others are drawn when they are scrolled to.
const isSeen = useElementVisibility(canvas)

watchEffect(() => {
  if (!isSeen.value) return
  const pen = penFor(canvas.value, width.value, height.value)
  if (pen === null) return
  pen.fillStyle = props.colour
  const middle = height.value / 2
  if (props.samples !== null) {
    drawSamples(pen, props.samples, middle)
    return
  }
  const bars = Math.max(1, Math.floor(width.value / 2))
  const values =
    peaks.value.version.value < 0
      ? null
      : peaks.value.columns(props.from, props.from + props.seconds, bars, props.channel ?? null)
  if (values === null) {
    pen.globalAlpha = 0.4
    pen.fillRect(0, middle, width.value, 1)
    return
  }
  for (let bar = 0; bar < bars; bar++) {
    const tall = Math.max(1, Math.min(1, values[bar]! * props.gain) * (height.value - 2))
    pen.fillRect(bar * 2, middle - tall / 2, 1.3, tall)
  }
})

function drawSamples(pen: CanvasRenderingContext2D, samples: Float32Array, middle: number): void {
  pen.strokeStyle = props.colour
  pen.beginPath()
  const perPixel = samples.length / Math.max(1, width.value)
  const y = (value: number): number => middle - Math.max(-1, Math.min(1, value * props.gain)) * (middle - 1)
  if (perPixel < 1) samples.forEach((value, n) => pen[n === 0 ? 'moveTo' : 'lineTo']((n + 0.5) / perPixel, y(value)))
  else
    for (let x = 0; x < width.value; x++) {
      let low = 0
      let high = 0
      for (let n = Math.floor(x * perPixel); n < Math.min(samples.length, (x + 1) * perPixel); n++) {
        low = Math.min(low, samples[n]!)
        high = Math.max(high, samples[n]!)
      }
      pen.moveTo(x + 0.5, y(high) - 0.5)
      pen.lineTo(x + 0.5, y(low) + 0.5)
    }
  pen.stroke()
}
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
