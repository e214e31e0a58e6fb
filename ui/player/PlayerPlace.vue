<script setup lang="ts">
import { onMounted, onScopeDispose, ref, watch } from 'vue'
import type { Picture } from '@/player/engine/playlist'
import type { Rendition } from '@/player/engine/screen'
import type { ActivePlayer } from '@/player/usePlayer'

/** One further picture on the player's own clock. */
const props = defineProps<{ active: ActivePlayer; pictures: Picture[]; rendition: Rendition }>()
const canvas = ref<HTMLCanvasElement | null>(null)
const { player } = props.active
const screen = player.addScreen(props.pictures, props.rendition)
watch([() => props.pictures, () => props.rendition], ([pictures, rendition]) => screen.load(pictures, rendition))
onMounted(() => screen.attach(canvas.value))
onScopeDispose(() => player.removeScreen(screen))
</script>

<template>
  <canvas ref="canvas" />
</template>
