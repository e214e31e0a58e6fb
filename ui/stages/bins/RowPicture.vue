<script setup lang="ts">
import { computed, ref } from 'vue'
import { mediaUrl } from '@/api/client'
import type { BinRow, Rate } from '@/api/types'
import FramePicture from '@/player/FramePicture.vue'
import { toFrames } from '@/player/time'

/**
 * A row's picture; moving over it looks through the clip. Of sound, of cuts and of what has no picture yet it shows a
 * plain sign.
 */
const props = defineProps<{ production: string; row: BinRow; large?: boolean; rate?: Rate }>()
const isPicture = computed(
  () => props.row.ready && props.row.clip !== null && (props.row.kind === 'picture' || props.row.kind === 'still'),
)
/** The three pictures of a clip: its first frame, the slate, the middle. */
const at = ref<1 | 2 | 3>(3)
/** Where in the clip one looks, 0 to 1; null while the pointer is elsewhere. */
const part = ref<number | null>(null)
const frames = computed(() =>
  props.rate === undefined ? 0 : Math.floor(toFrames(props.row.duration_ticks ?? 0, props.rate)),
)
const first = computed(() => (props.rate === undefined ? 0 : Math.floor(toFrames(props.row.in_ticks ?? 0, props.rate))))
const url = computed(() =>
  mediaUrl(props.production, props.row.clip ?? '', props.row.kind === 'still' ? 'thumb-1' : `thumb-${at.value}`),
)
function look(event: PointerEvent): void {
  const box = (event.currentTarget as HTMLElement).getBoundingClientRect()
  const along = Math.min(1, Math.max(0, (event.clientX - box.left) / Math.max(1, box.width)))
  at.value = along < 0.34 ? 1 : along < 0.67 ? 2 : 3
  part.value = along
}
function leave(): void {
  at.value = 3
  part.value = null
}
const sign = computed(() => (props.row.what === 'sequence' ? '▤' : props.row.kind === 'sound' ? '∿' : '…'))
</script>

<template>
  <span class="thumb" :class="{ large }" @pointermove="look" @pointerleave="leave"
    ><FramePicture
      v-if="large && part !== null && isPicture && row.kind === 'picture' && rate && frames > 1"
      class="through"
      :production="production"
      :clip="row.clip!"
      :rate="rate"
      :frames="first + frames"
      :frame="first + Math.floor(part * (frames - 1))"
      rendition="small"
    /><img v-if="isPicture" :src="url" alt="" loading="lazy" /><i v-else class="mono">{{ sign }}</i></span
  >
</template>

<style scoped>
.thumb {
  width: 66px;
  height: 38px;
  border-radius: 3px;
  background: #e9e1cf;
  display: grid;
  place-items: center;
  color: var(--dev-S);
  overflow: hidden;
}
.thumb.large {
  width: 100%;
  height: auto;
  aspect-ratio: 16 / 9;
  border-radius: 4px;
}
.thumb img {
  width: 100%;
  height: 100%;
  object-fit: cover;
  display: block;
}
.thumb i {
  font-style: normal;
  font-size: 18px;
}
.thumb.large {
  position: relative;
}
.through {
  position: absolute;
  inset: 0;
}
.large i {
  font-size: 30px;
}
</style>
