<script setup lang="ts">
import { computed } from 'vue'
import { label, toFrames } from '@/player/time'
import type { ActivePlayer } from '@/player/usePlayer'

/** The timecode of the picture that is seen. By itself, so that nothing around it is made anew with every picture. */
const props = defineProps<{ active: ActivePlayer }>()
const timecode = computed(() => {
  const piece = props.active.piece.value
  if (piece === null) return ''
  return label(toFrames(piece.start ?? 0, piece.rate) + (props.active.shown.value ?? 0), piece.rate)
})
</script>

<template>
  <span class="mono">{{ timecode }}</span>
</template>
