<script setup lang="ts">
import { t } from '@/words'
import { computed, useTemplateRef, watch } from 'vue'
import type { ClipLook, Rate } from '@/api/types'
import { ofClip } from './engine/playlist'
import type { Rendition } from './engine/screen'
import { isPlain, looksShown } from './look'
import LookFilter from './LookFilter.vue'
import { ofFrames } from './time'
import { usePlayer } from './usePlayer'

/** One frame of a clip, that may be another one at any time: a picture to look through and to compare. */
const props = defineProps<{
  production: string
  clip: string
  rate: Rate
  frames: number | null
  version?: string
  look?: ClipLook | null
  frame: number
  rendition?: Rendition
}>()

const canvas = useTemplateRef<HTMLCanvasElement>('canvas')
const { player, shown, trouble } = usePlayer(() => props.production, canvas, props.rendition ?? 'proxy')
const count = computed(() => Math.max(1, props.frames ?? 1))

watch(
  [() => props.clip, () => props.version, count],
  () =>
    player.load(
      ofClip({
        ulid: props.clip,
        kind: 'picture',
        rate: props.rate,
        frames: count.value,
        start_ticks: null,
        duration_ticks: ofFrames(count.value, props.rate),
        synced: false,
        media_version: props.version ?? '',
        has_sound: false,
      }),
      ofFrames(props.frame, props.rate),
    ),
  { immediate: true },
)
watch(
  () => props.frame,
  (frame) => player.transport.goTo(ofFrames(Math.min(Math.max(0, frame), count.value - 1), props.rate)),
)
const hasLook = computed(() => props.look != null && !isPlain(props.look))
const filterName = computed(() => `look-frame-${props.clip}`)
</script>

<template>
  <div class="frame-picture">
    <LookFilter v-if="hasLook" :name="filterName" :look="look!" />
    <canvas
      ref="canvas"
      :data-clip="clip"
      :data-frame="shown ?? ''"
      :style="hasLook && looksShown ? { filter: `url(#${filterName})` } : undefined"
    />
    <p v-if="trouble" class="trouble" role="alert">
      {{
        trouble === 'browser'
          ? t('player.FramePicture.picturesAreShownOnHttps')
          : t('player.FramePicture.itsProxyIsNotThere')
      }}
    </p>
  </div>
</template>

<style scoped>
.frame-picture {
  position: relative;
  background: var(--dark);
  aspect-ratio: 16 / 9;
  overflow: hidden;
}
canvas {
  display: block;
  width: 100%;
  height: 100%;
  object-fit: contain;
}
.trouble {
  position: absolute;
  inset: auto 8px 8px;
  margin: 0;
  color: var(--on-dark);
  font-size: 12px;
}
</style>
