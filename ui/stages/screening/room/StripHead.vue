<script setup lang="ts">
import { computed } from 'vue'
import type { ReelItem } from '@/api/types'
import type { ActivePlayer } from '@/player/usePlayer'

/** How far the take that plays is. By itself, so that a strip of hundreds of takes is not drawn with every picture. */
const props = defineProps<{ active: ActivePlayer; item: ReelItem }>()
const share = computed(() => {
  const length = Math.max(1, props.item.out_ticks - props.item.in_ticks)
  return Math.max(0, Math.min(1, (props.active.position.value - props.item.at_ticks) / length))
})
</script>

<template>
  <i class="head" :style="{ left: `${100 * share}%` }" />
</template>

<style scoped>
.head {
  position: absolute;
  bottom: 0;
  top: 0;
  width: 2px;
  background: var(--act);
}
</style>
