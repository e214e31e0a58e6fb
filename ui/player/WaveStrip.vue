<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, ref, watchEffect } from 'vue'
import { penFor } from './canvas'
import { peaksAt } from './peaks'

/** The sound of a clip from its start to its end, drawn from its peaks. */
const props = withDefaults(
  defineProps<{ address: string; seconds: number; colour?: string; gain?: number; channel?: number | null }>(),
  {
    colour: '#3f5e8c',
    gain: 1,
  },
)

const canvas = ref<HTMLCanvasElement | null>(null)
const peaks = computed(() => peaksAt(props.address))
const { width, height } = useElementSize(canvas)

watchEffect(() => {
  const pen = penFor(canvas.value, width.value, height.value)
  if (pen === null) return
  pen.fillStyle = props.colour
  const middle = height.value / 2
  const bars = Math.max(1, Math.floor(width.value / 2))
  const values =
    peaks.value.version.value < 0 ? null : peaks.value.columns(0, props.seconds, bars, props.channel ?? null)
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
