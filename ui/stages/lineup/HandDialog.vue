<script setup lang="ts">
import { t } from '@/words'
import { bins as binsApi } from '@/api/endpoints/bins'
import { lineup as lineupApi } from '@/api/endpoints/lineup'
import { Modal } from 'ant-design-vue'
import { computed, nextTick, reactive, ref, useTemplateRef, watch } from 'vue'
import { makeStale, useAnswer } from '@/api/queries'
import type { Placed, Stray } from '@/api/types'
import ClipPlayer from '@/player/ClipPlayer.vue'
import { label, length, ofFrames, TICKS } from '@/player/time'
import { useDesk } from '@/shell/desk'
import DeviceBadge from '@/shell/DeviceBadge.vue'
import { useShortcuts } from '@/shell/keys'
import { attempt, say } from '@/shell/say'
import { offered, type Offer } from './offers'

/**
 * Places a clip by one moment that both show: a frame of its picture, or a point of its sound, and a point of another
 * clip that has a place. Both are players as everywhere.
 */
const props = defineProps<{ clip: Placed | Stray | null; placements: Placed[] }>()
const emit = defineEmits<{ close: []; placed: [clip: string] }>()
const { production } = useDesk()

const open = computed(() => props.clip !== null)
const target = ref<string>('')
const { data: sheet } = useAnswer(() =>
  props.clip === null ? null : binsApi.clip(production.value.ulid, props.clip.clip),
)
const { data: otherSheet } = useAnswer(() =>
  target.value === '' ? null : binsApi.clip(production.value.ulid, target.value),
)
const { data: points, isPending } = useAnswer(() =>
  props.clip === null ? null : lineupApi.points(production.value.ulid, props.clip.clip),
)
const { data: others } = useAnswer(() =>
  target.value === '' ? null : lineupApi.points(production.value.ulid, target.value),
)

/** Clips of other devices on the clock, recordings first and those of the same take before the rest. */
const targets = computed(() =>
  props.placements
    .filter(
      (one) =>
        one.clip !== props.clip?.clip &&
        one.device !== props.clip?.device &&
        one.has_sound &&
        // What hangs together already is told nothing new.
        (one.group === 0 || one.group !== ownGroup.value),
    )
    .sort(
      (a, b) =>
        Number(b.take !== null && b.take === props.clip?.take) -
          Number(a.take !== null && a.take === props.clip?.take) ||
        Number(a.group > 0) - Number(b.group > 0) ||
        Number(b.kind === 'sound') - Number(a.kind === 'sound') ||
        nearness(a) - nearness(b),
    ),
)
const ownGroup = computed(() => (props.clip !== null && 'group' in props.clip ? props.clip.group : 0))
const nearness = (one: Placed) => (guess.value === null ? 0 : Math.abs(one.start_ticks - guess.value))
/** Where the clip may begin: where it lies, or what its own timecode says. */
const guess = computed<number | null>(() => {
  const clip = props.clip
  return clip === null ? null : 'start_ticks' in clip ? clip.start_ticks : (clip.own_ticks ?? null)
})
const against = computed(() => targets.value.find((one) => one.clip === target.value))
const isPicture = computed(() => props.clip?.kind === 'picture')
const rate = computed(() => sheet.value?.rate ?? production.value.rate)

type Active = InstanceType<typeof ClipPlayer>
const own = useTemplateRef<Active>('own')
const other = useTemplateRef<Active>('other')
/** What a clip heard itself is what is compared. */
const guides = reactive({ own: true, other: true })
const whole = useTemplateRef<HTMLElement>('whole')
const ownTicks = computed(() => own.value?.ticks ?? 0)
const otherTicks = computed(() => other.value?.ticks ?? 0)
/** Where the other clip should show the moment, as far as anybody knows. */
const expected = computed(() =>
  against.value === undefined || guess.value === null ? null : guess.value + ownTicks.value - against.value.start_ticks,
)

/** What both sides may begin at, the likeliest first. */
const ownOffers = computed<Offer[]>(() =>
  isPicture.value
    ? (points.value?.flashes ?? []).slice(0, 6).map((one) => ({
        ticks: ofFrames(one.frame, rate.value),
        said: String(one.frame),
        isNear: false,
      }))
    : offered(points.value?.claps ?? [], null, time),
)
const otherOffers = computed<Offer[]>(() => offered(others.value?.claps ?? [], expected.value, time))

// Each side begins once at the likeliest moment; where somebody went meanwhile, it stays.
let ownFor = ''
let otherFor = ''
watch(
  () => props.clip?.clip,
  () => {
    ownFor = otherFor = ''
    target.value = targets.value[0]?.clip ?? ''
  },
  { immediate: true },
)
watch(
  [own, points, () => sheet.value?.ulid],
  ([player, answer, ulid]) => {
    const clip = props.clip?.clip
    if (player === null || answer === undefined || answer.pending || clip === undefined || ulid !== clip) return
    if (ownFor === clip) return
    ownFor = clip
    if (player.ticks === 0 && ownOffers.value[0] !== undefined) player.put(ownOffers.value[0].ticks)
    void nextTick(() => player.region?.focus())
  },
  { flush: 'post' },
)
watch(
  [other, others, () => otherSheet.value?.ulid, own, points],
  ([player, answer, ulid]) => {
    const clip = target.value
    if (player === null || answer === undefined || answer.pending || ulid !== clip || otherFor === clip) return
    // The own side first: where it stands says where the other one should.
    if (ownFor === '') return
    otherFor = clip
    const first = otherOffers.value[0]?.ticks ?? expected.value
    const last = (against.value?.duration_ticks ?? 1) - 1
    if (player.ticks === 0 && first !== null) player.put(Math.min(Math.max(0, first), last))
  },
  { flush: 'post' },
)

const sideOf = (name: 'own' | 'other') => (name === 'own' ? own.value : other.value)
const focused = (): 'own' | 'other' =>
  other.value?.region?.contains(document.activeElement) === true ? 'other' : 'own'
function turn(by: number): void {
  const side = focused()
  const list = side === 'own' ? ownOffers.value : otherOffers.value
  const player = sideOf(side)
  if (player === null || list.length === 0) return
  const at = list.findIndex((one) => Math.abs(one.ticks - player.ticks) < TICKS / 1000)
  player.goToTicks(list[at < 0 ? 0 : (at + by + list.length) % list.length]!.ticks)
}
useShortcuts(
  'By hand',
  [
    {
      keys: ['c', 'C'],
      what: t('lineup.HandDialog.nextClapOrSlateThat'),
      run: (event) => turn(event.key === 'c' ? 1 : -1),
    },
    {
      keys: ['x'],
      what: t('lineup.HandDialog.theOtherSide'),
      run: () => sideOf(focused() === 'own' ? 'other' : 'own')?.region?.focus(),
    },
  ],
  whole,
)

const canLink = computed(() => sheet.value?.ulid === props.clip?.clip && otherSheet.value?.ulid === target.value)
async function link(): Promise<void> {
  const clip = props.clip
  if (clip === null || own.value === null || other.value === null || !canLink.value) return
  const done = await attempt(() =>
    lineupApi.byHand(production.value.ulid, clip.clip, {
      against: target.value,
      against_ticks: Math.round(otherTicks.value),
      ...(isPicture.value ? { frame: own.value!.frame } : { own_ticks: Math.round(ownTicks.value) }),
      was_ticks: 'start_ticks' in clip ? clip.start_ticks : null,
    }),
  )
  if (done === undefined) return
  makeStale('lineup')
  const comes = 'group' in clip && clip.group === 0 && (against.value?.group ?? 0) > 0 ? against.value : clip
  say(t('lineup.HandDialog.liesWhereYouSaidAnd', [comes?.name ?? clip.name]))
  emit('placed', clip.clip)
}
function time(ticks: number): string {
  const ms = Math.floor((ticks / TICKS) * 1000)
  return `${length(Math.floor(ms / 1000) * TICKS)}.${String(ms % 1000).padStart(3, '0')}`
}
const isAt = (ticks: number, offer: Offer) => Math.abs(ticks - offer.ticks) < TICKS / 2000
</script>

<template>
  <Modal
    :open="open"
    :width="900"
    :title="t('lineup.HandDialog.placeByHand', [clip?.name ?? ''])"
    :ok-text="t('lineup.HandDialog.linkTheTwo')"
    :ok-button-props="{ disabled: !canLink }"
    destroy-on-close
    @ok="link"
    @cancel="emit('close')"
  >
    <div v-if="clip" ref="whole" class="hand">
      <section data-side="own">
        <h3><DeviceBadge :letter="clip.device" /> {{ clip.name }}</h3>
        <ClipPlayer
          v-if="sheet && sheet.ulid === clip.clip"
          ref="own"
          :production="production.ulid"
          :clip="{ ...sheet, head_frames: 0 }"
          :guide="guides.own"
          @guide="guides.own = $event"
        />
        <p class="mono at" data-testid="hand-frame">
          <template v-if="isPicture"
            >{{ t('lineup.HandDialog.frame', [own?.frame ?? 0]) }}
            <span class="soft">{{ label(own?.frame ?? 0, { ...rate, drop: false }) }}</span></template
          ><template v-else>{{ time(ownTicks) }}</template>
        </p>
        <div class="offers">
          <span v-if="isPending" class="soft">{{ t('lineup.HandDialog.lookingForTheSlate') }}</span>
          <span v-else-if="points?.pending" class="soft">{{ t('lineup.HandDialog.theyAreBeingLookedFor') }}</span>
          <span v-else-if="ownOffers.length === 0" class="soft">{{
            isPicture ? t('lineup.HandDialog.nothingClosesOrFlashesIn') : t('lineup.HandDialog.noClapIsHeardOn')
          }}</span>
          <button
            v-for="one in ownOffers"
            :key="one.ticks"
            class="plain mono"
            :class="{ on: isAt(ownTicks, one) }"
            @click="own?.goToTicks(one.ticks)"
          >
            {{ one.said }}
          </button>
        </div>
      </section>
      <section data-side="point">
        <p v-if="targets.length === 0" class="note warn">
          {{ t('lineup.HandDialog.nothingOfAnotherDeviceHas') }}
        </p>
        <template v-else>
          <h3>
            {{ t('lineup.HandDialog.isTheSameMomentIn') }}
            <select v-model="target" :aria-label="t('lineup.HandDialog.inWhichClip')">
              <option v-for="one in targets" :key="one.clip" :value="one.clip">
                {{ one.device }} · {{ one.name }}{{ one.take ? ` · ${one.take}` : '' }}
              </option>
            </select>
          </h3>
          <ClipPlayer
            v-if="otherSheet && otherSheet.ulid === target"
            ref="other"
            :production="production.ulid"
            :clip="{ ...otherSheet, head_frames: 0 }"
            :guide="guides.other"
            @guide="guides.other = $event"
          />
          <p class="mono at" data-testid="hand-point">{{ time(otherTicks) }}</p>
          <div class="offers">
            <span v-if="others && others.claps.length === 0" class="soft">{{
              t('lineup.HandDialog.noClapIsHeardOn2')
            }}</span>
            <template v-for="(one, index) in otherOffers" :key="one.ticks">
              <small v-if="index === 0 && one.isNear" class="soft">{{
                t('lineup.HandDialog.nearWhereItShouldBe')
              }}</small>
              <small v-if="index > 0 && !one.isNear && otherOffers[index - 1]?.isNear" class="soft">{{
                t('lineup.HandDialog.elsewhere')
              }}</small>
              <button class="plain mono" :class="{ on: isAt(otherTicks, one) }" @click="other?.goToTicks(one.ticks)">
                {{ one.said }}
              </button>
            </template>
          </div>
        </template>
      </section>
      <p class="soft keys">
        <kbd>C</kbd> {{ t('lineup.HandDialog.nextClap') }} <kbd>X</kbd> {{ t('lineup.HandDialog.otherSide') }}
        <kbd>Alt Z</kbd> {{ t('lineup.HandDialog.closer') }} <kbd>Alt →</kbd> {{ t('lineup.HandDialog.aMillisecond') }}
        <kbd>Enter</kbd> {{ t('lineup.HandDialog.link') }}
      </p>
    </div>
  </Modal>
</template>

<style scoped>
.hand {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 8px 20px;
}
section {
  display: grid;
  gap: 6px;
  align-content: start;
}
h3 {
  font-size: 13.5px;
  margin: 0;
  display: flex;
  gap: 8px;
  align-items: center;
  min-height: 30px;
  white-space: nowrap;
}
.at {
  margin: 0;
  font-size: 14px;
}
.offers {
  display: flex;
  flex-wrap: wrap;
  gap: 5px;
  min-height: 26px;
  align-items: center;
}
.offers button {
  padding: 1px 8px;
  font-size: 12px;
}
.offers .on {
  background: var(--ink);
  border-color: var(--ink);
  color: #fff;
}
.keys {
  grid-column: 1 / -1;
  margin: 0;
  font-size: 12px;
}
select {
  font: inherit;
  padding: 4px 6px;
  border: 1px solid var(--rule-strong);
  border-radius: 4px;
  background: var(--sheet);
  min-width: 0;
  flex: 1;
}
</style>
