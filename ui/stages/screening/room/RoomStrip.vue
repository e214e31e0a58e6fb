<script setup lang="ts">
import { t } from '@/words'
import { ref, watch } from 'vue'
import type { ReelItem } from '@/api/types'
import type { ActivePlayer } from '@/player/usePlayer'
import StripHead from './StripHead.vue'
import { slateOf } from './view'

/** The takes of the reel one after the other, as long as they run; the one that plays is light. */
const props = defineProps<{ items: ReelItem[]; at: number; active: ActivePlayer }>()
const emit = defineEmits<{ go: [index: number] }>()
const strip = ref<HTMLElement | null>(null)
watch(
  () => props.at,
  (now) => strip.value?.querySelector(`[data-item="${now}"]`)?.scrollIntoView({ block: 'nearest', inline: 'nearest' }),
  { flush: 'post' },
)
</script>

<template>
  <div ref="strip" class="strip" role="listbox" :aria-label="t('screening.room.RoomStrip.takesOfTheReel')">
    <button
      v-for="(one, index) in items"
      :key="one.position"
      role="option"
      tabindex="-1"
      :aria-selected="index === at"
      :class="{ on: index === at, first: index > 0 && items[index - 1]?.take.scene !== one.take.scene }"
      :data-item="index"
      :style="{ flexGrow: Math.max(1, Math.round((one.out_ticks - one.in_ticks) / 705_600_000)) }"
      @click="emit('go', index)"
    >
      <span class="mono">{{ slateOf(one) }}</span>
      <svg v-if="one.take.status === 'circled'" viewBox="0 0 36 28" :aria-label="t('screening.room.RoomStrip.circled')">
        <path d="M7 15C5 7 13 3 20 3.5c8 .4 12.5 5 12 11C31.5 21 25 25 17 24.5 9 24 4 20 5.5 13 6.5 9 10 6 15 5" />
      </svg>
      <small v-else-if="one.take.status !== 'none'">{{
        one.take.status === 'ng' ? t('screening.room.RoomStrip.ng') : t('screening.room.RoomStrip.hold')
      }}</small>
      <i v-if="one.notes.length > 0" class="said" :title="t('screening.room.RoomStrip.notes', [one.notes.length])" />
      <StripHead v-if="index === at" :active="active" :item="one" />
    </button>
  </div>
</template>

<style scoped>
.strip {
  display: flex;
  gap: 3px;
  overflow-x: auto;
  scrollbar-width: thin;
  scrollbar-color: #4a545b transparent;
}
.strip button {
  position: relative;
  flex: 1 0 58px;
  min-width: 58px;
  height: 46px;
  border: 0;
  border-radius: 4px;
  background: #22292e;
  color: var(--on-dark);
  text-align: left;
  padding: 4px 6px;
  font-size: 11px;
  cursor: pointer;
  display: grid;
  align-content: space-between;
  justify-items: start;
  overflow: hidden;
}
.strip button.first {
  margin-left: 14px;
}
.strip button.on {
  background: var(--on-dark);
  color: var(--ink);
}
svg {
  width: 22px;
  height: 17px;
  fill: none;
  stroke: #6dbfa6;
  stroke-width: 2.4;
  justify-self: center;
}
.on svg {
  stroke: var(--act);
}
small {
  justify-self: center;
  color: var(--on-dark-soft);
}
.on small {
  color: var(--ink-soft);
}
.said {
  position: absolute;
  top: 7px;
  right: 6px;
  width: 6px;
  height: 6px;
  border-radius: 50%;
  background: #d9a441;
}
</style>
