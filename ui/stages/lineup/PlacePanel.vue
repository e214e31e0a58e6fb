<script setup lang="ts">
import { decimal, t, valueWord } from '@/words'
import { lineup as lineupApi } from '@/api/endpoints/lineup'
import { useLocalStorage } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { ApiError } from '@/api/client'
import { makeStale } from '@/api/queries'
import type { CheckPair, ClipSheet, Lineup, Placed } from '@/api/types'
import ClipPlayer from '@/player/ClipPlayer.vue'
import { label, labelAt, TICKS, ticksPerFrame } from '@/player/time'
import { useDesk } from '@/shell/desk'
import DeviceBadge from '@/shell/DeviceBadge.vue'
import { useShortcuts } from '@/shell/keys'
import { attempt, complain, say } from '@/shell/say'
import { useSheet } from '@/shell/sheet'
import { laidBy, offsetText } from './geometry'
import PairView from './PairView.vue'

/** One clip's place: how it was found and what it is worth, by eye and ear; right, another, moved, or not in it. */
const props = defineProps<{
  lineup: Lineup
  chosen: Placed
  clip: ClipSheet | undefined
  check: CheckPair | undefined
}>()
const emit = defineEmits<{ hand: []; looks: []; split: []; next: []; moment: [ticks: number] }>()
const { production, day } = useDesk()
const route = useRoute()
const router = useRouter()
const guide = ref(false)
const watching = ref(false)
/** What one needs now and then is folded away, for this person on this computer. */
const more = useLocalStorage('lineup.more', false)
watch(
  () => props.chosen.clip,
  () => {
    watching.value = false
  },
)
const clockOf = (letter: string) => props.lineup.clocks.find((one) => one.device === letter)

/** A change of the chosen clip's place; somebody else may have moved it meanwhile. */
async function change(what: string, body: object, said?: string): Promise<void> {
  if (!production.value.may.work) return
  try {
    await lineupApi.change(production.value.ulid, props.chosen.clip, what, body)
    if (said !== undefined) say(said)
  } catch (trouble) {
    if (trouble instanceof ApiError && trouble.status === 409) say(t('lineup.PlacePanel.somebodyElseMovedItMeanwhile'))
    else complain(trouble)
  }
  makeStale('lineup')
}
const nudge = (unit: 'frame' | 'sample' | 'ticks', by: number) =>
  change('nudge', { unit, by, was_ticks: props.chosen.start_ticks })
// Where only a date lays a clip there is nothing that a person could call right: it is tied by hand.
const lock = () =>
  props.chosen.group > 0
    ? say(t('lineup.PlacePanel.onlyItsDateLaysIt'))
    : void change('lock', { locked: !props.chosen.locked })
const second = () =>
  props.chosen.second_ticks == null
    ? say(t('lineup.PlacePanel.itFitsNoOtherPlace'))
    : void change('second', { was_ticks: props.chosen.start_ticks })
const out = () => change('leave-out', { out: true }, t('lineup.PlacePanel.isOutOfTheLine', [props.chosen.name]))

/** A second before the slate closes, so that it can be read; from there back to the whole clip. */
async function head(): Promise<void> {
  const now = props.clip
  if (now === undefined || props.chosen.kind !== 'picture' || !production.value.may.work) return
  const answer = await attempt(() =>
    lineupApi.head(production.value.ulid, props.chosen.clip, {
      slate: now.head_frames == null,
      was: now.head_frames ?? null,
    }),
  )
  if (answer === undefined) return
  makeStale('clips')
  say(
    answer.frames === null
      ? t('lineup.PlacePanel.beginsAtItsFirstFrame', [props.chosen.name])
      : t('lineup.PlacePanel.beginsASecondBeforeIts', [props.chosen.name]),
  )
}

async function applyClock(letter: string, whole: boolean): Promise<void> {
  if (
    (await attempt(() =>
      lineupApi.applyClock(production.value.ulid, day.value.ulid, { device: letter, for: whole ? 'device' : 'day' }),
    )) === undefined
  )
    return
  makeStale('lineup')
  say(
    whole
      ? t('lineup.PlacePanel.cameraSClockIsCorrected', [letter])
      : t('lineup.PlacePanel.cameraSClockIsCorrected2', [letter]),
  )
}

const MS = TICKS / 1000
/** The frame that a place is nearest to, and how far it lies off that. */
const nearest = (one: Placed) => Math.round(one.start_ticks / ticksPerFrame(production.value.rate))
const inMs = (ticks: number) => {
  const ms = ticks / MS
  return t('lineup.PlacePanel.ms2', [ms > 0 ? '+' : '−', decimal(Math.abs(ms), 1)])
}
const beside = (one: Placed) => {
  const off = one.start_ticks - nearest(one) * ticksPerFrame(production.value.rate)
  return Math.abs(off) < MS / 20 ? '' : inMs(off)
}
function found(one: Placed): string {
  if (one.group > 0) return t('lineup.PlacePanel.itLiesNothingTiesIt', [laidBy(one)])
  if (one.is_anchor) return t('lineup.PlacePanel.theDayIsCountedFrom')
  if (one.weakest_link !== null) {
    const miss = Math.abs(one.miss_ticks ?? 0)
    const by = miss < TICKS ? t('lineup.PlacePanel.ms3', [decimal(miss / MS, 0)]) : `${decimal(miss / TICKS, 1)} s`
    return t('lineup.PlacePanel.foundByButLookDo', [
      valueWord(one.way ?? ''),
      one.weakest_link.join(t('lineup.PlacePanel.and')),
      by,
    ])
  }
  if (one.way === 'hand')
    return one.locked ? t('lineup.PlacePanel.aPersonPlacedItAnd') : t('lineup.PlacePanel.aPersonMovedItLater')
  if (one.sure) return t('lineup.PlacePanel.foundBySure', [valueWord(one.way ?? '')])
  if (one.way === 'sound' && one.second_ticks !== null && (one.runner_up ?? 0) > (one.height ?? 0) * 0.7)
    return t('lineup.PlacePanel.foundBySoundButLook')
  if (one.point?.endsWith(' clap') && one.way === 'mark')
    return t('lineup.PlacePanel.foundByTheClapOf', [one.point.slice(0, -5)])
  if (one.point !== null && one.way === 'mark') return t('lineup.PlacePanel.foundByTheMarkerLook', [one.point])
  return t('lineup.PlacePanel.foundByLookBeforeYou', [valueWord(one.way ?? '')])
}
/** What drift costs: over the clip, and after how long it is a frame. */
function drift(one: Placed): string {
  const ppm = one.drift_ppm ?? 0
  if (Math.abs(ppm) < 0.5) return t('lineup.PlacePanel.noneToSpeakOf')
  const perFrame = 1e6 / Math.abs(ppm) / (production.value.rate.num / production.value.rate.den)
  const over = (Math.abs(ppm) * 1e-6 * one.duration_ticks) / MS
  const after = perFrame >= 90 ? t('lineup.PlacePanel.min', [Math.round(perFrame / 60)]) : `${Math.round(perFrame)} s`
  return t('lineup.PlacePanel.ppmMsOverThisClip', [decimal(ppm, 1), decimal(over, 1), after])
}
const drifting = computed(() =>
  props.lineup.placements.filter(
    (one) => one.device === props.chosen.device && one.kind === 'picture' && one.drift_ppm !== null,
  ),
)
async function takeOut(applied: boolean, device: boolean): Promise<void> {
  if (
    (await attempt(() => lineupApi.drift(production.value.ulid, props.chosen.clip, { applied, device }))) === undefined
  )
    return
  makeStale('lineup')
  const what = device ? t('lineup.PlacePanel.camera', [props.chosen.device]) : props.chosen.name
  say(
    applied
      ? t('lineup.PlacePanel.theRecordersSoundKeepsStep', [what])
      : t('lineup.PlacePanel.theRecordersSoundRunsUnder', [what]),
  )
}
const secondPlace = (one: Placed) =>
  one.second_ticks === null ? null : labelAt(one.second_ticks, production.value.rate)

useSheet(
  () => props.chosen.clip,
  () => 0,
)
useShortcuts('A place', [
  {
    keys: ['y'],
    what: t('lineup.PlacePanel.itIsRightLockOr'),
    run: () => {
      if (!props.chosen.is_anchor) void lock()
    },
  },
  { keys: ['t'], what: t('lineup.PlacePanel.tryTheSecondBestPlace'), run: () => void second() },
  {
    keys: ['h'],
    what: t('lineup.PlacePanel.placeByHand'),
    run: () => {
      if (production.value.may.work && !props.chosen.is_anchor) emit('hand')
    },
  },
  {
    keys: ['x'],
    what: t('lineup.PlacePanel.notInThisLineUp'),
    run: () => {
      if (!props.chosen.is_anchor) void out()
    },
  },
  {
    keys: ['<', '>'],
    what: t('lineup.PlacePanel.nudgeOneFrameEarlierLater'),
    run: (event) => void nudge('frame', event.key === '>' ? 1 : -1),
  },
  {
    keys: ['(', ')'],
    what: t('lineup.PlacePanel.nudgeOneMillisecondEarlierLater'),
    run: (event) => void nudge('ticks', event.key === ')' ? MS : -MS),
  },
  {
    keys: ['{', '}'],
    what: t('lineup.PlacePanel.nudgeOneSampleEarlierLater'),
    run: (event) => void nudge('sample', event.key === '}' ? 1 : -1),
  },
  { keys: ['b'], what: t('lineup.PlacePanel.beginAtTheSlateOr'), run: () => void head() },
  {
    keys: ['a'],
    what: t('lineup.PlacePanel.lookOfTheAngle'),
    run: () => {
      if (props.chosen.kind === 'picture') emit('looks')
    },
  },
  {
    keys: ['Alt+d'],
    what: t('lineup.PlacePanel.howItWasFoundAnd2'),
    run: () => {
      more.value = !more.value
    },
  },
  {
    keys: ['p'],
    what: t('lineup.PlacePanel.watchTheClipOrCheck'),
    run: () => {
      watching.value = !watching.value
    },
  },
])
</script>

<template>
  <aside>
    <h2>
      <DeviceBadge :letter="chosen.device" /> {{ chosen.name }}
      <span class="soft">{{
        chosen.against !== null && !chosen.is_anchor
          ? t('lineup.PlacePanel.against', [chosen.against])
          : (chosen.take ?? t('lineup.PlacePanel.noTake'))
      }}</span>
    </h2>
    <p :class="chosen.sure && chosen.group === 0 ? 'good' : 'warn'" class="found">{{ found(chosen) }}</p>
    <ClipPlayer
      v-if="(watching || check?.against === null) && clip && clip.ulid === chosen.clip"
      :production="production.ulid"
      :clip="clip"
      :guide="guide"
      :take="chosen.take_ulid"
      :taken="['<', '>', 'i', 'o', '=']"
      :can-work="production.may.work"
      @guide="guide = $event"
    />
    <PairView
      v-else-if="check && check.own.clip === chosen.clip"
      :production="production.ulid"
      :chosen="chosen"
      :check="check"
      @moment="emit('moment', $event)"
    />
    <div
      v-if="production.may.work && !chosen.is_anchor"
      class="nudge"
      role="group"
      :aria-label="t('lineup.PlacePanel.nudge')"
    >
      <button
        class="plain"
        :disabled="chosen.locked"
        :title="t('lineup.PlacePanel.oneFrameEarlier')"
        @click="nudge('frame', -1)"
      >
        −1 f
      </button>
      <button
        class="plain"
        :disabled="chosen.locked"
        :title="t('lineup.PlacePanel.oneMillisecondEarlier')"
        @click="nudge('ticks', -MS)"
      >
        {{ t('lineup.PlacePanel.n1Ms') }}
      </button>
      <button
        class="plain"
        :disabled="chosen.locked"
        :title="t('lineup.PlacePanel.oneSampleEarlier')"
        @click="nudge('sample', -1)"
      >
        −1
      </button>
      <button
        class="plain"
        :disabled="chosen.locked"
        :title="t('lineup.PlacePanel.oneSampleLater')"
        @click="nudge('sample', 1)"
      >
        +1
      </button>
      <button
        class="plain"
        :disabled="chosen.locked"
        :title="t('lineup.PlacePanel.oneMillisecondLater')"
        @click="nudge('ticks', MS)"
      >
        {{ t('lineup.PlacePanel.n1Ms2') }}
      </button>
      <button
        class="plain"
        :disabled="chosen.locked"
        :title="t('lineup.PlacePanel.oneFrameLater')"
        @click="nudge('frame', 1)"
      >
        +1 f
      </button>
    </div>
    <div v-if="production.may.work && !chosen.is_anchor" class="verdict">
      <button
        v-if="chosen.group === 0"
        class="plain"
        :class="{ go: !chosen.locked }"
        :title="t('lineup.PlacePanel.itIsRightLockY')"
        @click="lock"
      >
        {{ chosen.locked ? t('lineup.PlacePanel.unlock') : t('lineup.PlacePanel.itIsRightLock') }} <kbd>Y</kbd>
      </button>
      <button
        v-if="chosen.second_ticks !== null && !chosen.locked"
        class="plain"
        :title="t('lineup.PlacePanel.whereItWouldFitNext')"
        @click="second"
      >
        {{ t('lineup.PlacePanel.tryTheSecond') }} <kbd>T</kbd>
      </button>
      <button class="plain" :title="t('lineup.PlacePanel.aFrameAndAPoint')" @click="emit('hand')">
        {{ t('lineup.PlacePanel.byHand') }} <kbd>H</kbd>
      </button>
      <button class="plain" :title="t('lineup.PlacePanel.takeItOutOfThe')" @click="out">
        {{ t('lineup.PlacePanel.notInIt') }} <kbd>X</kbd>
      </button>
    </div>
    <dl>
      <dt v-if="chosen.group === 0">{{ t('lineup.PlacePanel.sure') }}</dt>
      <dd v-if="chosen.group === 0">
        <span class="meter" role="img" :aria-label="`${Math.round(chosen.confidence * 100)} %`"
          ><i :class="{ low: !chosen.sure }" :style="{ width: `${chosen.confidence * 100}%` }"
        /></span>
      </dd>
      <dt>{{ t('lineup.PlacePanel.place') }}</dt>
      <dd class="mono">
        {{ label(nearest(chosen), production.rate) }} <span class="soft">{{ beside(chosen) }}</span>
      </dd>
    </dl>
    <div class="verdict">
      <button class="plain" :title="t('lineup.PlacePanel.watchItOrCheckIts')" @click="watching = !watching">
        {{ watching ? t('lineup.PlacePanel.checkItsPlace') : t('lineup.PlacePanel.watchIt') }} <kbd>P</kbd>
      </button>
      <button class="plain" :title="t('lineup.PlacePanel.theLeastCertainPlaceThat')" @click="emit('next')">
        {{ t('lineup.PlacePanel.nextUncertain') }} <kbd>C</kbd>
      </button>
    </div>
    <button class="fold" :aria-expanded="more" :title="t('lineup.PlacePanel.howItWasFoundIts')" @click="more = !more">
      {{ t('lineup.PlacePanel.howItWasFoundAnd', [more ? '▾' : '▸']) }} <kbd>Alt D</kbd>
    </button>
    <template v-if="more">
      <dl>
        <dt>{{ t('lineup.PlacePanel.itsOwnClock') }}</dt>
        <dd class="mono">
          {{ chosen.own_ticks === null ? t('lineup.PlacePanel.none') : labelAt(chosen.own_ticks, production.rate)
          }}<span v-if="chosen.clock_disagrees_ticks !== null" class="warn">
            {{ ' ' }}{{ t('lineup.PlacePanel.off', [inMs(chosen.clock_disagrees_ticks)]) }}</span
          >
        </dd>
        <template v-if="chosen.agreeing !== null && chosen.windows !== null"
          ><dt>{{ t('lineup.PlacePanel.agreement') }}</dt>
          <dd>{{ t('lineup.PlacePanel.ofStretchesOfItsSound', [chosen.agreeing, chosen.windows]) }}</dd></template
        >
        <template v-if="chosen.height !== null"
          ><dt>{{ t('lineup.PlacePanel.peak') }}</dt>
          <dd>
            {{ decimal(chosen.height, 0)
            }}<span class="soft">
              {{ ' '
              }}{{
                t('lineup.PlacePanel.n10IsSure', [
                  (chosen.runner_up ?? 0) > 0
                    ? t('lineup.PlacePanel.nextBest', [decimal(chosen.runner_up ?? 0, 0)])
                    : '',
                ])
              }}</span
            >
          </dd></template
        >
        <template v-if="secondPlace(chosen)"
          ><dt>{{ t('lineup.PlacePanel.secondBest') }}</dt>
          <dd>
            <span class="mono">{{ secondPlace(chosen) }}</span><span v-if="chosen.second_against" class="soft">
              {{ ' ' }}{{ t('lineup.PlacePanel.along', [chosen.second_against]) }}</span
            >
          </dd></template
        >
        <template v-if="chosen.drift_ppm !== null && !chosen.is_anchor"
          ><dt>{{ t('lineup.PlacePanel.drift') }}</dt>
          <dd>
            {{ drift(chosen)
            }}<span v-if="chosen.residual_ticks !== null" class="soft">{{
              t('lineup.PlacePanel.ms', [decimal(chosen.residual_ticks / MS, 2)])
            }}</span>
            <span
              v-if="chosen.kind === 'picture' && (chosen.drift_applied || Math.abs(chosen.drift_ppm) >= 0.5)"
              class="clocks"
            >
              <b v-if="chosen.drift_applied" class="good">{{ t('lineup.PlacePanel.takenOutOfItsSound') }}</b>
              <template v-if="production.may.work">
                <button
                  class="plain"
                  :title="
                    chosen.drift_applied
                      ? t('lineup.PlacePanel.theRecordersSoundAsIt')
                      : t('lineup.PlacePanel.stretchesTheRecordersSoundUnder')
                  "
                  @click="takeOut(!chosen.drift_applied, false)"
                >
                  {{ chosen.drift_applied ? t('lineup.PlacePanel.leaveItIn') : t('lineup.PlacePanel.takeItOut') }}
                </button>
                <button
                  v-if="drifting.some((one) => one.clip !== chosen.clip && one.drift_applied === chosen.drift_applied)"
                  class="plain"
                  :title="
                    t('lineup.PlacePanel.forTheCamerasWholeDay', [
                      chosen.drift_applied ? t('lineup.PlacePanel.leavesItIn') : t('lineup.PlacePanel.takesItOut'),
                    ])
                  "
                  @click="takeOut(!chosen.drift_applied, true)"
                >
                  {{ t('lineup.PlacePanel.allOfCamera', [chosen.device]) }}
                </button>
              </template>
            </span>
          </dd></template
        >
        <template v-if="(clockOf(chosen.device)?.learned_ticks ?? null) !== null && clockOf(chosen.device)?.votes">
          <dt>{{ t('lineup.PlacePanel.cameraClock') }}</dt>
          <dd>
            {{
              offsetText(clockOf(chosen.device)?.learned_ticks ?? null, production.rate) ||
              t('lineup.PlacePanel.inStep')
            }}
            <span class="soft">{{
              t('lineup.PlacePanel.by', [
                clockOf(chosen.device)?.votes,
                clockOf(chosen.device)?.votes === 1 ? t('lineup.PlacePanel.clip') : t('lineup.PlacePanel.clips'),
              ])
            }}</span>
            <span
              v-if="
                production.may.work && offsetText(clockOf(chosen.device)?.learned_ticks ?? null, production.rate) !== ''
              "
              class="clocks"
            >
              <button
                v-if="clockOf(chosen.device)?.applied_ticks == null"
                class="plain"
                @click="applyClock(chosen.device, false)"
              >
                {{ t('lineup.PlacePanel.applyToTheDay') }}
              </button>
              <button class="plain" @click="applyClock(chosen.device, true)">
                {{ t('lineup.PlacePanel.applyToTheDevice') }}
              </button>
            </span>
          </dd>
        </template>
      </dl>
      <div class="verdict">
        <button
          v-if="chosen.kind === 'picture' && production.may.work && clip"
          class="plain"
          :title="t('lineup.PlacePanel.playersAndReelsBeginA')"
          @click="head"
        >
          {{
            clip.head_frames == null ? t('lineup.PlacePanel.beginAtTheSlate') : t('lineup.PlacePanel.wholeHeadAgain')
          }}
          <kbd>B</kbd>
        </button>
        <button
          v-if="chosen.kind === 'picture'"
          class="plain"
          :title="t('lineup.PlacePanel.theLookOfThisAngle')"
          @click="emit('looks')"
        >
          {{ t('lineup.PlacePanel.look', [clip?.look ? `: ${clip.look.name}` : '']) }} <kbd>A</kbd>
        </button>
        <button
          v-if="production.may.work"
          class="plain"
          :title="t('lineup.PlacePanel.makesSeveralTakesOfOne')"
          @click="emit('split')"
        >
          {{ t('lineup.PlacePanel.splitIntoTakes') }} <kbd>M</kbd>
        </button>
        <button
          v-if="chosen.take_ulid"
          class="plain"
          @click="router.push({ name: 'log', params: route.params, query: { take: chosen.take_ulid } })"
        >
          {{
            t('lineup.PlacePanel.goToInTheLog', [
              chosen.take?.includes(' to ') ? t('lineup.PlacePanel.itsTakes') : chosen.take,
            ])
          }}
        </button>
      </div>
    </template>
  </aside>
</template>

<style scoped>
aside {
  border-left: 1px solid var(--rule-strong);
  background: var(--sheet-2);
  padding: 14px 16px;
  overflow: hidden auto;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 10px;
  align-content: start;
}
aside h2 .soft {
  font-weight: 400;
}
.found {
  margin: 0;
}
.fold {
  border: 0;
  border-top: 1px solid var(--rule);
  background: none;
  padding: 8px 0 0;
  text-align: left;
  cursor: pointer;
  font: inherit;
  font-size: 12.5px;
  color: var(--ink-soft);
}
.nudge {
  display: grid;
  grid-template-columns: repeat(6, 1fr);
  gap: 4px;
}
.verdict {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.clocks {
  display: flex;
  gap: 5px;
  margin-top: 3px;
  flex-wrap: wrap;
}
.clocks button {
  padding: 1px 7px;
  font-size: 11.5px;
}
.nudge button {
  padding: 4px 0;
  font-size: 12px;
}
dl {
  display: grid;
  grid-template-columns: 88px 1fr;
  row-gap: 7px;
  margin: 0;
  font-size: 12.5px;
  align-items: start;
}
dt {
  color: var(--ink-soft);
}
dd {
  margin: 0;
}
.meter {
  display: block;
  margin-top: 6px;
  height: 6px;
  border-radius: 3px;
  background: #e4dac6;
  overflow: hidden;
}
.meter i {
  display: block;
  height: 100%;
  background: var(--act);
}
.meter i.low {
  background: var(--warn-edge);
}
</style>
