<script setup lang="ts">
import { t } from '@/words'
import { toneOf } from './device'

defineProps<{ letter: string | null; size?: 'small' | 'large' }>()
</script>

<template>
  <span
    class="badge"
    :class="[letter === null ? '' : 'd' + toneOf(letter), size]"
    :title="letter === null ? t('shell.DeviceBadge.noDevice') : t('shell.DeviceBadge.device', [letter])"
    >{{ letter ?? '–' }}</span
  >
</template>

<style scoped>
.badge {
  display: inline-block;
  justify-self: start;
  min-width: 19px;
  height: 17px;
  line-height: 17px;
  border-radius: 3px 3px 3px 0;
  color: #fff;
  font-weight: 700;
  font-size: 11px;
  text-align: center;
  padding: 0 4px;
  background: #6e6757;
  flex: none;
  text-shadow: 0 0 2px #0006;
}
.badge.large {
  min-width: 27px;
  height: 25px;
  line-height: 25px;
  font-size: 15px;
}
/* Each letter has a pattern of its own, so that colour is never the only sign. */
.dA {
  background: #a8720a;
}
.dB {
  background: repeating-linear-gradient(135deg, var(--dev-B) 0 5px, #156a65 5px 10px);
}
.dC {
  background: var(--dev-C) radial-gradient(#ffffff55 1px, transparent 1.3px) 0 0/5px 5px;
}
.dD {
  background: conic-gradient(#57661f 25%, var(--dev-D) 0 50%, #57661f 0 75%, var(--dev-D) 0) 0 0/8px 8px;
}
.dS {
  background: repeating-linear-gradient(0deg, var(--dev-S) 0 4px, #35507a 4px 8px);
}
.dE {
  background: repeating-linear-gradient(90deg, var(--dev-E) 0 4px, #834026 4px 8px);
}
.dF {
  background: repeating-linear-gradient(45deg, var(--dev-F) 0 5px, #245e3c 5px 10px);
}
.dG {
  background: linear-gradient(var(--dev-G) 50%, #61413a 50%);
}
.dH {
  background: linear-gradient(90deg, var(--dev-H) 50%, #43478a 50%);
}
.dI {
  background: linear-gradient(135deg, var(--dev-I) 50%, #8a3f5b 50%);
}
.dJ {
  background: var(--dev-J) radial-gradient(#22596d 2.4px, transparent 2.7px) 0 0/8px 8px;
}
.dK {
  background: linear-gradient(45deg, var(--dev-K) 50%, #5d4d39 50%);
}
</style>
