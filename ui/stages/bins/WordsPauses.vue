<script setup lang="ts">
import { decimal, t } from '@/words'
import { refDebounced, useLocalStorage } from '@vueuse/core'
import { computed, ref } from 'vue'
import { words as wordsApi } from '@/api/endpoints/words'
import { useAnswer } from '@/api/queries'
import type { ClipSheet } from '@/api/types'
import { label, TICKS, toFrames } from '@/player/time'
import { useDesk } from '@/shell/desk'

/** Where nobody speaks in a clip, by threshold and length. */
const props = defineProps<{ clip: ClipSheet; sound: string }>()
const emit = defineEmits<{ go: [ticks: number] }>()
const { production } = useDesk()
const open = ref(false)
/** Seconds, and dBFS; nothing lets the sound's own noise say it. */
const longer = useLocalStorage('cartella.pauses.longer', 1.5)
const padding = useLocalStorage('cartella.pauses.padding', 0.1)
const below = ref<number | ''>('')
const how = computed(() => {
  const asked = new URLSearchParams({
    sound: props.sound,
    longer: String(Math.min(60, Math.max(0.1, longer.value || 1.5))),
    padding: String(Math.min(2, Math.max(0, padding.value || 0))),
  })
  if (below.value !== '') asked.set('below', String(Math.min(0, Math.max(-90, below.value))))
  return asked.toString()
})
const settled = refDebounced(how, 250)
/** Of hours of sound they are only looked for where somebody wants to see them. */
const isLong = computed(() => (props.clip.duration_ticks ?? 0) > 3600 * TICKS)
const { data, error } = useAnswer(() =>
  isLong.value && !open.value ? null : wordsApi.pauses(production.value.ulid, props.clip.ulid, settled.value),
)
const timecode = (ticks: number) =>
  label(toFrames((props.clip.start_ticks ?? 0) + ticks, props.clip.rate), props.clip.rate)
const sum = computed(() => (data.value?.pauses ?? []).reduce((all, one) => all + one.out_ticks - one.in_ticks, 0))
const WIDE = computed(() => props.clip.duration_ticks ?? 1)
defineExpose({ how })
</script>

<template>
  <div class="pauses">
    <button class="chip" :aria-expanded="open" @click="open = !open">
      <template v-if="data"
        >{{ data.pauses.length }}
        {{ data.pauses.length === 1 ? t('bins.WordsPauses.pause') : t('bins.WordsPauses.pauses') }}</template
      >
      <template v-else>{{ t('bins.WordsPauses.pauses2') }}</template>
      {{ t('bins.WordsPauses.overS', [longer, open ? '‹' : '›']) }}
    </button>
    <div v-if="open" class="how soft">
      <label
        >{{ t('bins.WordsPauses.longerThan') }}
        <input v-model.number="longer" class="field" type="number" min="0.1" max="60" step="0.1" /> s</label
      >
      <label
        >{{ t('bins.WordsPauses.below') }}
        <input
          v-model.number="below"
          class="field"
          type="number"
          min="-90"
          max="0"
          step="1"
          :placeholder="t('bins.WordsPauses.auto')"
        />
        {{ t('bins.WordsPauses.dbfs') }}</label
      >
      <label
        >{{ t('bins.WordsPauses.leaves') }}
        <input v-model.number="padding" class="field" type="number" min="0" max="2" step="0.05" />
        {{ t('bins.WordsPauses.sOnEachSide') }}</label
      >
      <span v-if="data">{{
        t('bins.WordsPauses.noiseAtDbfsSOf', [decimal(data.floor_db, 0), decimal(sum / TICKS, 1)])
      }}</span>
    </div>
    <p v-if="open && error" class="soft">{{ error.message }}</p>
    <p v-else-if="open && !data" class="soft">{{ t('bins.WordsPauses.theyAreBeingLookedFor') }}</p>
    <svg v-if="open && data" class="drawn" viewBox="0 0 1000 14" preserveAspectRatio="none" aria-hidden="true">
      <rect x="0" y="0" width="1000" height="14" class="said" />
      <rect
        v-for="one in data.pauses"
        :key="one.in_ticks"
        :x="(1000 * one.in_ticks) / WIDE"
        :width="Math.max(1, (1000 * (one.out_ticks - one.in_ticks)) / WIDE)"
        y="0"
        height="14"
        class="quiet"
      />
    </svg>
    <ol v-if="open && data">
      <li v-for="one in data.pauses.slice(0, 200)" :key="one.in_ticks">
        <button class="row" @click="emit('go', one.in_ticks)">
          <span class="mono">{{ timecode(one.in_ticks) }}</span>
          {{ t('bins.WordsPauses.s', [decimal((one.out_ticks - one.in_ticks) / TICKS, 1)]) }}
        </button>
      </li>
      <li v-if="data.pauses.length > 200" class="soft">
        {{ t('bins.WordsPauses.andMore', [data.pauses.length - 200]) }}
      </li>
    </ol>
  </div>
</template>

<style scoped>
.pauses {
  margin-top: 8px;
}
.chip {
  border: 1px solid var(--rule-strong);
  border-radius: 10px;
  background: var(--sheet);
  padding: 1px 9px;
  cursor: pointer;
  font-size: 12px;
}
.how {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  align-items: center;
  margin: 6px 0;
  font-size: 12px;
}
.how .field {
  width: 64px;
}
.drawn {
  width: 100%;
  height: 14px;
  display: block;
}
.said {
  fill: var(--act-soft);
}
.quiet {
  fill: var(--rule-strong);
}
ol {
  list-style: none;
  margin: 4px 0 0;
  padding: 0;
  columns: 3 120px;
}
.row {
  border: 0;
  background: none;
  padding: 1px 0;
  cursor: pointer;
  font-size: 12px;
}
</style>
