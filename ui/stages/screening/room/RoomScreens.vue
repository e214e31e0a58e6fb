<script setup lang="ts">
import { computed, ref, useId, watch } from 'vue'
import { pieceAt, type Picture } from '@/player/engine/playlist'
import { isPlain, looksShown } from '@/player/look'
import LookFilter from '@/player/LookFilter.vue'
import type { ActivePlayer } from '@/player/usePlayer'
import PlayerPlace from '@/player/PlayerPlace.vue'

/**
 * The pictures of a room in step: the player's own first, and others beside it as the view wants them. The page gives
 * the first canvas to its player.
 */
const props = defineProps<{
  active: ActivePlayer
  /** Pictures of each further place. */
  beside: Picture[][]
  looks?: boolean
}>()
const emit = defineEmits<{ canvas: [canvas: HTMLCanvasElement | null] }>()
const { position } = props.active
const name = useId()
const main = ref<HTMLCanvasElement | null>(null)
watch(main, (canvas) => emit('canvas', canvas), { flush: 'post' })

const pieces = computed(() => [
  props.active.piece.value,
  ...props.beside.map((pictures) => pieceAt(pictures, position.value)),
])
const lookOf = (place: number) => {
  const look = pieces.value[place]?.look ?? null
  return look === null || isPlain(look) || !(props.looks ?? looksShown.value) ? null : look
}
const across = computed(() => Math.ceil(Math.sqrt(props.beside.length + 1)))
</script>

<template>
  <div class="screens" :class="{ several: beside.length > 0 }" :style="{ '--across': across }">
    <div class="place">
      <LookFilter v-if="lookOf(0)" :name="`${name}-0`" :look="lookOf(0)!" />
      <canvas
        ref="main"
        :data-clip="active.piece.value?.clip"
        :style="lookOf(0) ? { filter: `url(#${name}-0)` } : undefined"
      />
      <slot name="place" :place="0" :piece="pieces[0]" />
    </div>
    <div v-for="(pictures, place) in beside" :key="place" class="place">
      <LookFilter v-if="lookOf(place + 1)" :name="`${name}-${place + 1}`" :look="lookOf(place + 1)!" />
      <PlayerPlace
        :active="active"
        :pictures="pictures"
        :rendition="beside.length > 2 ? 'small' : 'proxy'"
        :data-clip="pieces[place + 1]?.clip"
        :style="lookOf(place + 1) ? { filter: `url(#${name}-${place + 1})` } : undefined"
      />
      <slot name="place" :place="place + 1" :piece="pieces[place + 1]" />
    </div>
  </div>
</template>

<style scoped>
.screens {
  position: absolute;
  inset: 0;
  display: grid;
  grid-template-columns: repeat(var(--across), minmax(0, 1fr));
  grid-auto-rows: minmax(0, 1fr);
}
.several {
  gap: 4px;
}
.place {
  position: relative;
  min-width: 0;
  min-height: 0;
  overflow: hidden;
}
canvas {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  object-fit: contain;
  display: block;
}
</style>
