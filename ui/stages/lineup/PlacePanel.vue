<script setup lang="ts">
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
    if (trouble instanceof ApiError && trouble.status === 409)
      say('Somebody else moved it meanwhile; you see their place now.')
    else complain(trouble)
  }
  makeStale('lineup')
}
const nudge = (unit: 'frame' | 'sample' | 'ticks', by: number) =>
  change('nudge', { unit, by, was_ticks: props.chosen.start_ticks })
// Where only a date lays a clip there is nothing that a person could call right: it is tied by hand.
const lock = () =>
  props.chosen.group > 0
    ? say('Only its date lays it there. Place it by hand.')
    : void change('lock', { locked: !props.chosen.locked })
const second = () =>
  props.chosen.second_ticks == null
    ? say('It fits no other place.')
    : void change('second', { was_ticks: props.chosen.start_ticks })
const out = () =>
  change('leave-out', { out: true }, `${props.chosen.name} is out of the line-up. Ctrl Z brings it back.`)

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
      ? `${props.chosen.name} begins at its first frame.`
      : `${props.chosen.name} begins a second before its slate.`,
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
      ? `Camera ${letter}'s clock is corrected on every day.`
      : `Camera ${letter}'s clock is corrected on this day.`,
  )
}

const MS = TICKS / 1000
/** The frame that a place is nearest to, and how far it lies off that. */
const nearest = (one: Placed) => Math.round(one.start_ticks / ticksPerFrame(production.value.rate))
const inMs = (ticks: number) => {
  const ms = ticks / MS
  return `${ms > 0 ? '+' : '−'} ${Math.abs(ms).toFixed(1)} ms`
}
const beside = (one: Placed) => {
  const off = one.start_ticks - nearest(one) * ticksPerFrame(production.value.rate)
  return Math.abs(off) < MS / 20 ? '' : inMs(off)
}
function found(one: Placed): string {
  if (one.group > 0)
    return (
      `It lies ${laidBy(one)}: nothing ties it to the rest of the day. ` +
      'Placed by hand, it brings along what hangs together with it.'
    )
  if (one.is_anchor) return 'The day is counted from this recording.'
  if (one.weakest_link !== null) {
    const miss = Math.abs(one.miss_ticks ?? 0)
    const by = miss < TICKS ? `${(miss / MS).toFixed(0)} ms` : `${(miss / TICKS).toFixed(1)} s`
    return `Found by ${one.way}, but look: ${one.weakest_link.join(' and ')} do not agree with it, by ${by}.`
  }
  if (one.way === 'hand')
    return one.locked ? 'A person placed it, and it stays there.' : 'A person moved it; later runs leave it there.'
  if (one.sure) return `Found by ${one.way}, sure.`
  if (one.way === 'sound' && one.second_ticks !== null && (one.runner_up ?? 0) > (one.height ?? 0) * 0.7)
    return 'Found by sound, but look: two places fit nearly as well.'
  if (one.point?.endsWith(' clap') && one.way === 'mark')
    return `Found by the clap of ${one.point.slice(0, -5)}. Look before you trust it.`
  if (one.point !== null && one.way === 'mark') return `Found by the marker “${one.point}”. Look before you trust it.`
  return `Found by ${one.way}. Look before you trust it.`
}
/** What drift costs: over the clip, and after how long it is a frame. */
function drift(one: Placed): string {
  const ppm = one.drift_ppm ?? 0
  if (Math.abs(ppm) < 0.5) return 'none to speak of'
  const perFrame = 1e6 / Math.abs(ppm) / (production.value.rate.num / production.value.rate.den)
  const over = (Math.abs(ppm) * 1e-6 * one.duration_ticks) / MS
  const after = perFrame >= 90 ? `${Math.round(perFrame / 60)} min` : `${Math.round(perFrame)} s`
  return `${ppm.toFixed(1)} ppm: ${over.toFixed(1)} ms over this clip, 1 frame in ${after}`
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
  const what = device ? `camera ${props.chosen.device}` : props.chosen.name
  say(
    applied
      ? `The recorder's sound keeps step with ${what} now.`
      : `The recorder's sound runs under ${what} as it was recorded.`,
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
    what: 'It is right: lock, or unlock',
    run: () => {
      if (!props.chosen.is_anchor) void lock()
    },
  },
  { keys: ['t'], what: 'Try the second best place', run: () => void second() },
  {
    keys: ['h'],
    what: 'Place by hand',
    run: () => {
      if (production.value.may.work && !props.chosen.is_anchor) emit('hand')
    },
  },
  {
    keys: ['x'],
    what: 'Not in this line-up',
    run: () => {
      if (!props.chosen.is_anchor) void out()
    },
  },
  {
    keys: ['<', '>'],
    what: 'Nudge one frame earlier, later',
    run: (event) => void nudge('frame', event.key === '>' ? 1 : -1),
  },
  {
    keys: ['(', ')'],
    what: 'Nudge one millisecond earlier, later',
    run: (event) => void nudge('ticks', event.key === ')' ? MS : -MS),
  },
  {
    keys: ['{', '}'],
    what: 'Nudge one sample earlier, later',
    run: (event) => void nudge('sample', event.key === '}' ? 1 : -1),
  },
  { keys: ['b'], what: 'Begin at the slate, or whole again', run: () => void head() },
  {
    keys: ['a'],
    what: 'Look of the angle',
    run: () => {
      if (props.chosen.kind === 'picture') emit('looks')
    },
  },
  {
    keys: ['Alt+d'],
    what: 'How it was found, and more',
    run: () => {
      more.value = !more.value
    },
  },
  {
    keys: ['p'],
    what: 'Watch the clip, or check its place',
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
        chosen.against !== null && !chosen.is_anchor ? `against ${chosen.against}` : (chosen.take ?? 'no take')
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
    <div v-if="production.may.work && !chosen.is_anchor" class="nudge" role="group" aria-label="Nudge">
      <button class="plain" :disabled="chosen.locked" title="One frame earlier (<)" @click="nudge('frame', -1)">
        −1 f
      </button>
      <button class="plain" :disabled="chosen.locked" title="One millisecond earlier (()" @click="nudge('ticks', -MS)">
        −1 ms
      </button>
      <button class="plain" :disabled="chosen.locked" title="One sample earlier ({)" @click="nudge('sample', -1)">
        −1
      </button>
      <button class="plain" :disabled="chosen.locked" title="One sample later (})" @click="nudge('sample', 1)">
        +1
      </button>
      <button class="plain" :disabled="chosen.locked" title="One millisecond later ())" @click="nudge('ticks', MS)">
        +1 ms
      </button>
      <button class="plain" :disabled="chosen.locked" title="One frame later (>)" @click="nudge('frame', 1)">
        +1 f
      </button>
    </div>
    <div v-if="production.may.work && !chosen.is_anchor" class="verdict">
      <button
        v-if="chosen.group === 0"
        class="plain"
        :class="{ go: !chosen.locked }"
        title="It is right: lock (Y)"
        @click="lock"
      >
        {{ chosen.locked ? 'Unlock' : 'It is right, lock' }} <kbd>Y</kbd>
      </button>
      <button
        v-if="chosen.second_ticks !== null && !chosen.locked"
        class="plain"
        title="Where it would fit next best (T)"
        @click="second"
      >
        Try the second <kbd>T</kbd>
      </button>
      <button class="plain" title="A frame and a point of the sound (H)" @click="emit('hand')">
        By hand <kbd>H</kbd>
      </button>
      <button class="plain" title="Take it out of the line-up (X)" @click="out">Not in it <kbd>X</kbd></button>
    </div>
    <dl>
      <dt v-if="chosen.group === 0">Sure</dt>
      <dd v-if="chosen.group === 0">
        <span class="meter" role="img" :aria-label="`${Math.round(chosen.confidence * 100)} %`"
          ><i :class="{ low: !chosen.sure }" :style="{ width: `${chosen.confidence * 100}%` }"
        /></span>
      </dd>
      <dt>Place</dt>
      <dd class="mono">
        {{ label(nearest(chosen), production.rate) }} <span class="soft">{{ beside(chosen) }}</span>
      </dd>
    </dl>
    <div class="verdict">
      <button class="plain" title="Watch it, or check its place (P)" @click="watching = !watching">
        {{ watching ? 'Check its place' : 'Watch it' }} <kbd>P</kbd>
      </button>
      <button class="plain" title="The least certain place that nobody has looked at (C)" @click="emit('next')">
        Next uncertain <kbd>C</kbd>
      </button>
    </div>
    <button
      class="fold"
      :aria-expanded="more"
      title="How it was found, its clock, drift, look and take (Alt D)"
      @click="more = !more"
    >
      {{ more ? '▾' : '▸' }} How it was found, and more <kbd>Alt D</kbd>
    </button>
    <template v-if="more">
      <dl>
        <dt>Its own clock</dt>
        <dd class="mono">
          {{ chosen.own_ticks === null ? 'none' : labelAt(chosen.own_ticks, production.rate)
          }}<span v-if="chosen.clock_disagrees_ticks !== null" class="warn">
            off {{ inMs(chosen.clock_disagrees_ticks) }}</span
          >
        </dd>
        <template v-if="chosen.agreeing !== null && chosen.windows !== null"
          ><dt>Agreement</dt>
          <dd>{{ chosen.agreeing }} of {{ chosen.windows }} stretches of its sound</dd></template
        >
        <template v-if="chosen.height !== null"
          ><dt>Peak</dt>
          <dd>
            {{ chosen.height.toFixed(0)
            }}<span class="soft">
              — 10 is sure{{
                (chosen.runner_up ?? 0) > 0 ? `; next best ${(chosen.runner_up ?? 0).toFixed(0)}` : ''
              }}</span
            >
          </dd></template
        >
        <template v-if="secondPlace(chosen)"
          ><dt>Second best</dt>
          <dd>
            <span class="mono">{{ secondPlace(chosen) }}</span><span v-if="chosen.second_against" class="soft">
              along {{ chosen.second_against }}</span
            >
          </dd></template
        >
        <template v-if="chosen.drift_ppm !== null && !chosen.is_anchor"
          ><dt>Drift</dt>
          <dd>
            {{ drift(chosen)
            }}<span v-if="chosen.residual_ticks !== null" class="soft"
              >, ±{{ (chosen.residual_ticks / MS).toFixed(2) }} ms</span
            >
            <span
              v-if="chosen.kind === 'picture' && (chosen.drift_applied || Math.abs(chosen.drift_ppm) >= 0.5)"
              class="clocks"
            >
              <b v-if="chosen.drift_applied" class="good">taken out of its sound</b>
              <template v-if="production.may.work">
                <button
                  class="plain"
                  :title="
                    chosen.drift_applied
                      ? 'The recorder\'s sound as it was recorded'
                      : 'Stretches the recorder\'s sound under this picture so that it keeps step to the end'
                  "
                  @click="takeOut(!chosen.drift_applied, false)"
                >
                  {{ chosen.drift_applied ? 'Leave it in' : 'Take it out' }}
                </button>
                <button
                  v-if="drifting.some((one) => one.clip !== chosen.clip && one.drift_applied === chosen.drift_applied)"
                  class="plain"
                  :title="`${chosen.drift_applied ? 'Leaves it in' : 'Takes it out'} for the camera's whole day`"
                  @click="takeOut(!chosen.drift_applied, true)"
                >
                  All of camera {{ chosen.device }}
                </button>
              </template>
            </span>
          </dd></template
        >
        <template v-if="(clockOf(chosen.device)?.learned_ticks ?? null) !== null && clockOf(chosen.device)?.votes">
          <dt>Camera clock</dt>
          <dd>
            {{ offsetText(clockOf(chosen.device)?.learned_ticks ?? null, production.rate) || 'in step' }}
            <span class="soft"
              >by {{ clockOf(chosen.device)?.votes }} {{ clockOf(chosen.device)?.votes === 1 ? 'clip' : 'clips' }}</span
            >
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
                Apply to the day
              </button>
              <button class="plain" @click="applyClock(chosen.device, true)">Apply to the device</button>
            </span>
          </dd>
        </template>
      </dl>
      <div class="verdict">
        <button
          v-if="chosen.kind === 'picture' && production.may.work && clip"
          class="plain"
          title="Players and reels begin a second before the slate closes; the recording stays whole (B)"
          @click="head"
        >
          {{ clip.head_frames == null ? 'Begin at the slate' : 'Whole head again' }} <kbd>B</kbd>
        </button>
        <button
          v-if="chosen.kind === 'picture'"
          class="plain"
          title="The look of this angle (A)"
          @click="emit('looks')"
        >
          Look{{ clip?.look ? `: ${clip.look.name}` : '' }} <kbd>A</kbd>
        </button>
        <button
          v-if="production.may.work"
          class="plain"
          title="Makes several takes of one long recording (M)"
          @click="emit('split')"
        >
          Split into takes <kbd>M</kbd>
        </button>
        <button
          v-if="chosen.take_ulid"
          class="plain"
          @click="router.push({ name: 'log', params: route.params, query: { take: chosen.take_ulid } })"
        >
          Go to {{ chosen.take?.includes(' to ') ? 'its takes' : chosen.take }} in the log
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
