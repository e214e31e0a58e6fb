<script setup lang="ts">
import { t } from '@/words'
import { computed, ref, watch } from 'vue'
import { mediaUrl } from '@/api/client'
import type { Beneath, Instead, Rate } from '@/api/types'
import { length, ticksPerFrame } from '@/player/time'
import DeviceBadge from '@/shell/DeviceBadge.vue'
import { useDesk } from '@/shell/desk'
import type { CutItem } from './value'

/** What lies under the playhead, and what else could stand there. */
const props = defineProps<{
  found: Beneath | null
  item: CutItem | null
  kind: 'picture' | 'sound'
  rate: Rate
  /** That of the clip. */
  ownRate: Rate | null
  trying: number | null
  canWork: boolean
}>()
const emit = defineEmits<{
  try: [index: number]
  keep: []
  drop: []
  open: []
  level: [gain: number, fadeIn: number, fadeOut: number]
}>()
const { production } = useDesk()
const HOW = {
  words: t('assembly.BeneathPane.theSameLine'),
  action: t('assembly.BeneathPane.fromTheActionOn'),
  start: t('assembly.BeneathPane.asFarIntoIt'),
  whole: t('assembly.BeneathPane.theWholeTake'),
  clock: t('assembly.BeneathPane.sameInstantByLineUp'),
} as const
const frames = (ticks: unknown) => Math.round(Number(ticks ?? 0) / ticksPerFrame(props.rate))
/** By how much another take is longer or shorter, in frames of the cut. */
function other(one: Instead): string {
  const by = frames(one.out_ticks - one.in_ticks) - frames(props.item?.duration_ticks)
  if (one.kind === 'angle' || by === 0) return ''
  const amount =
    Math.abs(by) === 1 ? t('assembly.BeneathPane.n1Frame') : t('assembly.BeneathPane.frames2', [Math.abs(by)])
  return `, ${amount} ${by > 0 ? t('assembly.BeneathPane.longer') : t('assembly.BeneathPane.shorter')}`
}
const gain = ref(0)
const fadeIn = ref(0)
const fadeOut = ref(0)
watch(
  () => props.item,
  (item) => {
    gain.value = Number(item?.metadata.gain_millibels ?? 0) / 100
    fadeIn.value = frames(item?.metadata.fade_in_ticks)
    fadeOut.value = frames(item?.metadata.fade_out_ticks)
  },
  { immediate: true },
)
const isOther = computed(
  () =>
    props.item !== null &&
    (gain.value !== Number(props.item.metadata.gain_millibels ?? 0) / 100 ||
      fadeIn.value !== frames(props.item.metadata.fade_in_ticks) ||
      fadeOut.value !== frames(props.item.metadata.fade_out_ticks)),
)
function level(): void {
  if (isOther.value && Number.isFinite(gain.value)) emit('level', gain.value, fadeIn.value, fadeOut.value)
}
const picture = (one: Instead) => mediaUrl(production.value.ulid, one.clip, 'thumb-3', one.picture.media_version)
</script>

<template>
  <aside class="beneath" :aria-label="t('assembly.BeneathPane.underThePlayhead')">
    <h2>{{ t('assembly.BeneathPane.underThePlayhead') }}</h2>
    <p v-if="found === null || found.name === null" class="soft">
      {{ t('assembly.BeneathPane.nothingOfThisTrackPlays') }}
    </p>
    <template v-else>
      <dl>
        <template v-if="found.take">
          <dt>{{ t('assembly.BeneathPane.take') }}</dt>
          <dd>
            <RouterLink
              v-if="found.clip"
              class="mono plain"
              :to="{
                name: 'log',
                params: { production: production.ulid, day: found.clip.day },
                query: { take: found.take.ulid },
              }"
              :title="t('assembly.BeneathPane.itsRowInTheLog')"
              >{{ found.take.label }}</RouterLink
            >
            <b v-else class="mono">{{ found.take.label }}</b> {{ found.take.description }}
            <span v-if="found.take.status === 'circled'" class="good">{{ t('assembly.BeneathPane.circled') }}</span>
          </dd>
        </template>
        <dt>{{ t('assembly.BeneathPane.clip') }}</dt>
        <dd>
          <template v-if="found.clip">
            <DeviceBadge :letter="found.clip.device" /> <span class="mono name">{{ found.clip.name }}</span>
            <button class="small" :title="t('assembly.BeneathPane.itsPageWithItsBins')" @click="emit('open')">
              {{ t('assembly.BeneathPane.sheet') }}
            </button>
          </template>
          <span v-else class="fault">{{ t('assembly.BeneathPane.isGone') }}</span>
        </dd>
        <dt>{{ t('assembly.BeneathPane.from') }}</dt>
        <dd class="mono">{{ found.from }}</dd>
        <dt>{{ t('assembly.BeneathPane.length') }}</dt>
        <dd class="mono">
          {{ t('assembly.BeneathPane.frames', [length(item?.duration_ticks ?? null), frames(item?.duration_ticks)]) }}
        </dd>
        <template v-if="kind === 'picture' && ownRate && ownRate.num * rate.den !== rate.num * ownRate.den">
          <dt>{{ t('assembly.BeneathPane.rate') }}</dt>
          <dd>{{ t('assembly.BeneathPane.framesASecondPlayedBy', [ownRate.name, rate.name]) }}</dd>
        </template>
        <dt>{{ t('assembly.BeneathPane.room') }}</dt>
        <dd>{{ t('assembly.BeneathPane.beforeAfter', [length(found.before_ticks), length(found.after_ticks)]) }}</dd>
      </dl>
      <form v-if="kind === 'sound' && canWork" class="level" @submit.prevent="level">
        <label
          >{{ t('assembly.BeneathPane.gain') }}
          <input v-model.number="gain" type="number" step="0.5" class="field mono" @change="level" />
          {{ t('assembly.BeneathPane.db') }}</label
        >
        <label
          >{{ t('assembly.BeneathPane.fades') }}
          <input v-model.number="fadeIn" type="number" min="0" class="field mono" @change="level" />
          {{ t('assembly.BeneathPane.in') }}
          <input
            v-model.number="fadeOut"
            type="number"
            min="0"
            class="field mono"
            :aria-label="t('assembly.BeneathPane.fadeOut')"
            @change="level"
          />
          {{ t('assembly.BeneathPane.outFrames') }}</label
        >
      </form>
      <template v-if="found.instead.length > 0">
        <h2>
          {{ t('assembly.BeneathPane.tryInstead') }} <kbd>T</kbd>
          <span v-if="trying !== null" class="keep"
            ><button class="small" @click="emit('keep')">{{ t('assembly.BeneathPane.keepIt') }}</button
            ><button class="small" @click="emit('drop')">{{ t('assembly.BeneathPane.leaveIt') }}</button></span
          >
        </h2>
        <div class="list">
          <button
            v-for="(one, index) in found.instead"
            :key="`${one.clip} ${one.in_ticks}`"
            data-row
            class="one"
            :class="{ on: trying === index }"
            :aria-pressed="trying === index"
            @click="emit('try', index)"
          >
            <img :src="picture(one)" alt="" loading="lazy" />
            <span
              ><b class="mono">{{ one.label }}</b> <small class="soft">{{ HOW[one.how] }}{{ other(one) }}</small></span
            >
          </button>
        </div>
      </template>
    </template>
  </aside>
</template>

<style scoped>
.beneath {
  padding: 10px 14px;
  overflow: auto;
  min-height: 0;
  border-left: 1px solid var(--rule);
}
h2 {
  font-size: 13px;
  margin: 0 0 6px;
  display: flex;
  gap: 8px;
  align-items: center;
}
dl {
  display: grid;
  grid-template-columns: 52px minmax(0, 1fr);
  gap: 3px 8px;
  margin: 0 0 12px;
}
dt {
  color: var(--ink-soft);
}
dd {
  margin: 0;
  overflow-wrap: anywhere;
}
.level {
  display: grid;
  gap: 5px;
  margin-bottom: 12px;
}
.level input {
  width: 56px;
}
.list {
  display: grid;
  gap: 4px;
}
.one {
  display: flex;
  gap: 8px;
  align-items: center;
  border: 1px solid transparent;
  border-radius: 4px;
  background: none;
  padding: 3px;
  text-align: left;
  cursor: pointer;
}
.one.on {
  border-color: var(--warn-edge);
  background: var(--warn-soft);
}
.one img {
  width: 74px;
  height: 42px;
  object-fit: cover;
  border-radius: 2px;
  background: var(--tab);
}
.one small {
  display: block;
}
.keep {
  margin-left: auto;
  display: flex;
  gap: 8px;
  font-weight: 400;
}
.small {
  border: 0;
  background: none;
  color: var(--act);
  text-decoration: underline;
  padding: 0 4px;
  cursor: pointer;
}
</style>
