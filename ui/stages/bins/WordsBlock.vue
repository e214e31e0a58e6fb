<script setup lang="ts">
import { useElementSize, useIntersectionObserver } from '@vueuse/core'
import { computed, ref, useTemplateRef, watch } from 'vue'

/** Some paragraphs that are drawn only near where somebody looks; otherwise as high as they were, or will be. */
const props = defineProps<{ words: number; paragraphs: number; forced: boolean }>()
const box = useTemplateRef<HTMLElement>('box')
const isNear = ref(false)
useIntersectionObserver(box, ([entry]) => (isNear.value = entry?.isIntersecting === true), { rootMargin: '600px 0px' })
const isDrawn = computed(() => isNear.value || props.forced)
const { height } = useElementSize(box)
const known = ref<number | null>(null)
watch(height, (now) => isDrawn.value && now > 0 && (known.value = now))
/** Pixels of a paragraph by itself, and of a line of about nine words more. */
const guess = computed(() => 10 * props.paragraphs + 24 * Math.ceil(props.words / 9))
</script>

<template>
  <div ref="box" :style="isDrawn ? undefined : { height: `${known ?? guess}px` }"><slot v-if="isDrawn" /></div>
</template>
