<script setup lang="ts">
import { computed } from 'vue'
import type { LookValues } from '@/api/types'
import { saturationMatrix } from './look'

/** An SVG filter that shows a picture with a look: slope and offset, cut to the range, power, then saturation. */
const props = defineProps<{ name: string; look: LookValues }>()
const channels = computed(() =>
  (['R', 'G', 'B'] as const).map((letter, n) => ({
    letter,
    slope: props.look.slope[n]!,
    offset: props.look.offset[n]!,
    power: props.look.power[n]!,
  })),
)
</script>

<template>
  <svg class="filter" aria-hidden="true">
    <filter :id="name" color-interpolation-filters="sRGB" x="0" y="0" width="100%" height="100%">
      <feComponentTransfer>
        <component
          :is="`feFunc${one.letter}`"
          v-for="one in channels"
          :key="one.letter"
          type="linear"
          :slope="one.slope"
          :intercept="one.offset"
        />
      </feComponentTransfer>
      <feComponentTransfer>
        <component
          :is="`feFunc${one.letter}`"
          v-for="one in channels"
          :key="one.letter"
          type="gamma"
          amplitude="1"
          :exponent="one.power"
          offset="0"
        />
      </feComponentTransfer>
      <feColorMatrix type="matrix" :values="saturationMatrix(look.saturation)" />
    </filter>
  </svg>
</template>

<style scoped>
.filter {
  position: absolute;
  width: 0;
  height: 0;
  pointer-events: none;
}
</style>
