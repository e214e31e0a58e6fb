<script setup lang="ts">
import { t } from '@/words'
import { computed, onScopeDispose, ref, useTemplateRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { bins as binsApi } from '@/api/endpoints/bins'
import { useAnswer } from '@/api/queries'
import type { ClipSheet } from '@/api/types'
import ClipPlayer from '@/player/ClipPlayer.vue'
import { couple } from '@/player/engine/couple'
import { length } from '@/player/time'
import AnswerState from '@/shell/AnswerState.vue'
import { useDesk } from '@/shell/desk'
import DeviceBadge from '@/shell/DeviceBadge.vue'
import { useShortcuts } from '@/shell/keys'
import TakeNumber from '@/shell/TakeNumber.vue'

/** Two clips beside each other, each by itself or both in step; one of them is heard. */
const { production } = useDesk()
const route = useRoute()
const router = useRouter()
const SIDES = ['first', 'second'] as const
type Side = (typeof SIDES)[number]
const id = () => production.value.ulid
const { data: first, isPending, error, refetch } = useAnswer(() => binsApi.clip(id(), String(route.params.first)))
const { data: second, error: other } = useAnswer(() => binsApi.clip(id(), String(route.params.second)))
const clips = computed<Record<Side, ClipSheet | undefined>>(() => ({ first: first.value, second: second.value }))
const players = {
  first: useTemplateRef<InstanceType<typeof ClipPlayer>[]>('first'),
  second: useTemplateRef<InstanceType<typeof ClipPlayer>[]>('second'),
}
const playerOf = (side: Side) => players[side].value?.[0] ?? null
const heard = ref<Side>('first')
const inStep = ref(false)

let letGo: () => void = () => {}
onScopeDispose(() => letGo())
/** From now on both do what one does, as far from each other as they stand now. */
function setStep(on: boolean): void {
  letGo()
  letGo = () => {}
  const [a, b] = [playerOf('first')?.player.transport, playerOf('second')?.player.transport]
  inStep.value = on && a !== undefined && b !== undefined
  if (inStep.value) letGo = couple(a!, b!, b!.position() - a!.position())
}
watch([() => route.params.first, () => route.params.second], () => setStep(false))
const apart = ref(0)
watch(inStep, () => {
  const [a, b] = SIDES.map((side) => playerOf(side)?.ticks ?? 0)
  apart.value = (b ?? 0) - (a ?? 0)
})
function hear(side: Side): void {
  heard.value = side
  playerOf(side)?.region?.focus()
}
const swap = () => hear(heard.value === 'first' ? 'second' : 'first')
function leave(): void {
  if (window.history.state?.back) router.back()
  else void router.push({ name: 'bins', params: { production: id(), day: route.params.day } })
}
// The first one has the keys when both are there.
watch(
  () => playerOf('first') !== null && playerOf('second') !== null,
  (there) => there && hear(heard.value),
  { flush: 'post' },
)
const facts = (clip: ClipSheet) =>
  [
    [t('bins.ComparePage.starts'), clip.start_timecode ?? t('bins.ComparePage.noTimecode')],
    [t('bins.ComparePage.length'), length(clip.duration_ticks)],
    [
      t('bins.ComparePage.picture'),
      clip.width === null ? '' : t('bins.ComparePage.at', [clip.width, clip.height, clip.rate.name]),
    ],
    [
      t('bins.ComparePage.sound'),
      clip.channels.length === 0
        ? 'none'
        : clip.channels.map((one) => one.name || t('bins.ComparePage.channel', [one.index])).join(', '),
    ],
    [t('bins.ComparePage.whatHappens'), clip.take?.description ?? ''],
  ].filter(([, value]) => value !== '')

useShortcuts('Two clips', [
  { keys: ['Escape'], what: t('bins.ComparePage.backToWhereYouWere2'), run: leave },
  { keys: ['Tab'], what: t('bins.ComparePage.keysAndSoundToThe'), run: swap },
  { keys: ['s'], what: t('bins.ComparePage.bothInStepOrEach'), run: () => setStep(!inStep.value) },
])
</script>

<template>
  <AnswerState
    :pending="isPending || first === undefined || second === undefined"
    :error="error ?? other"
    @retry="refetch()"
  >
    <div class="two">
      <div class="bar">
        <b>{{ t('bins.ComparePage.twoClips') }}</b>
        <button class="plain" :aria-pressed="inStep" :class="{ set: inStep }" title="S" @click="setStep(!inStep)">
          {{ inStep ? t('bins.ComparePage.inStep') : t('bins.ComparePage.eachByItself') }}
        </button>
        <span class="soft">{{
          inStep
            ? apart === 0
              ? t('bins.ComparePage.bothAtTheSamePlace')
              : t('bins.ComparePage.theIsFurtherOn', [
                  apart > 0 ? t('bins.ComparePage.second') : t('bins.ComparePage.first'),
                  length(Math.abs(apart)),
                ])
            : t('bins.ComparePage.bringBothToTheSame')
        }}</span>
        <span class="soft push">{{ t('bins.ComparePage.tabKeysAndSoundTo') }}</span>
        <button class="plain" :title="t('bins.ComparePage.backToWhereYouWere')" @click="leave">
          {{ t('bins.ComparePage.back') }}
        </button>
      </div>
      <section v-for="side in SIDES" :key="side" :class="{ on: heard === side }" @focusin="heard = side">
        <template v-if="clips[side]">
          <h2>
            <DeviceBadge v-if="clips[side]!.device" :letter="clips[side]!.device!" />
            <span class="mono" :title="clips[side]!.file">{{ clips[side]!.name }}</span>
            <template v-if="clips[side]!.take"
              ><b class="mono">{{ clips[side]!.take!.setup }}</b
              ><TakeNumber
                :take="clips[side]!.take!.take"
                :part="clips[side]!.take!.part"
                :status="clips[side]!.take!.status"
            /></template>
            <small v-if="heard === side" class="push">{{ t('bins.ComparePage.heard') }}</small>
          </h2>
          <ClipPlayer
            v-if="clips[side]!.kind === 'picture' || clips[side]!.kind === 'sound'"
            :ref="side"
            :production="production.ulid"
            :clip="clips[side]!"
            :channels="heard === side ? null : []"
            :taken="['Tab']"
          />
          <p v-else class="soft">{{ t('bins.ComparePage.itHasNeitherPictureThat') }}</p>
          <dl>
            <template v-for="[name, value] in facts(clips[side]!)" :key="name"
              ><dt>{{ name }}</dt>
              <dd>{{ value }}</dd></template
            >
          </dl>
        </template>
      </section>
    </div>
  </AnswerState>
</template>

<style scoped>
.two {
  display: grid;
  grid-template: auto minmax(0, 1fr) / minmax(0, 1fr) minmax(0, 1fr);
  height: 100%;
}
.bar {
  grid-column: 1 / -1;
}
.bar .set {
  border-color: var(--act);
  background: var(--act-soft);
}
section {
  min-width: 0;
  overflow: auto;
  padding: 10px 14px 16px;
  border-top: 3px solid transparent;
}
section + section {
  border-left: 1px solid var(--rule);
}
section.on {
  border-top-color: var(--act);
}
h2 {
  display: flex;
  gap: 8px;
  align-items: center;
  font-size: 14px;
  margin: 0 0 8px;
  min-width: 0;
  white-space: nowrap;
}
h2 > span {
  overflow: hidden;
  text-overflow: ellipsis;
}
h2 small {
  color: var(--act);
  font-weight: 500;
}
dl {
  display: grid;
  grid-template-columns: 92px minmax(0, 1fr);
  gap: 3px 10px;
  margin: 10px 0 0;
  font-size: 12px;
}
dt {
  color: var(--ink-soft);
}
dd {
  margin: 0;
  overflow-wrap: anywhere;
}
</style>
