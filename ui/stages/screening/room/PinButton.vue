<script setup lang="ts">
import { t } from '@/words'
import { PARTS, TITLES, type Called, type Part } from './useCalled'

/** Keeps a part of the room on the screen, or lets it go by itself again. */
const props = defineProps<{ part: Part; called: Called }>()
const number = PARTS.indexOf(props.part) + 1
</script>

<template>
  <button
    class="pin"
    :class="{ on: called.isPinned(part) }"
    :aria-pressed="called.isPinned(part)"
    :title="
      t('screening.room.PinButton.alt', [
        called.isPinned(part) ? t('screening.room.PinButton.letGo') : t('screening.room.PinButton.keep'),
        number,
      ])
    "
    :aria-label="t('screening.room.PinButton.keepTheOnTheScreen', [TITLES[part]])"
    @click.stop="called.pin(part)"
  >
    <svg viewBox="0 0 12 16" aria-hidden="true">
      <circle cx="6" cy="5" r="3.6" />
      <path d="M6 8.6V15" />
    </svg>
  </button>
</template>

<style scoped>
.pin {
  border: 0;
  background: none;
  padding: 2px 4px;
  cursor: pointer;
  line-height: 0;
  opacity: 0.6;
}
.pin:hover,
.pin:focus-visible,
.pin.on {
  opacity: 1;
}
svg {
  width: 10px;
  height: 14px;
  stroke: var(--on-dark-soft);
  fill: none;
  stroke-width: 1.6;
}
.on svg {
  stroke: #8fd6c0;
}
.on circle {
  fill: #8fd6c0;
}
</style>
