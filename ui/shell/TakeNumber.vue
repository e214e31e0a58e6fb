<script setup lang="ts">
import { t } from '@/words'
import type { TakeStatus } from '@/api/types'

defineProps<{ take: number; part?: string; status: TakeStatus; dark?: boolean }>()
</script>

<template>
  <span class="take mono" :class="[status, { dark }]">
    <span>{{ take }}{{ part }}</span>
    <svg v-if="status === 'circled' || status === 'hold'" viewBox="0 0 36 28" aria-hidden="true">
      <path
        d="M7 15C5 7 13 3 20 3.5c8 .4 12.500 5 12 11C31.500 21 25 25 17 24.500 9 24 4 20 5.500 13 6.500 9 10 6 15 5"
      />
    </svg>
    <span v-if="status !== 'none'" class="hush">{{ status === 'ng' ? t('shell.TakeNumber.ng') : status }}</span>
  </span>
</template>

<style scoped>
.take {
  display: inline-flex;
  width: 34px;
  height: 24px;
  align-items: center;
  justify-content: center;
  position: relative;
  font-weight: 600;
}
svg {
  position: absolute;
  left: -1px;
  top: -2px;
  width: 36px;
  height: 28px;
  fill: none;
  stroke: var(--act);
  stroke-width: 1.7;
  stroke-linecap: round;
}
.hold svg {
  stroke-dasharray: 2.5 3.5;
}
.ng > span:first-child {
  text-decoration: line-through;
  text-decoration-color: var(--fault);
  text-decoration-thickness: 2px;
  color: var(--ink-soft);
}
.dark svg {
  stroke: #6dbfa6;
}
.dark.ng > span:first-child {
  color: var(--on-dark-soft);
}
</style>
