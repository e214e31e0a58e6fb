<script setup lang="ts">
import { t } from '@/words'
import { useElementSize } from '@vueuse/core'
import { computed, onBeforeUnmount, ref, shallowRef, watch } from 'vue'
import { player as playerApi } from '@/api/endpoints/player'
import { useAnswer } from '@/api/queries'
import type { CheckPair, CheckSide, Placed } from '@/api/types'
import { TICKS } from '@/player/time'
import { penFor } from '@/player/canvas'
import { fromAnswer, ofClip, pieceAt, type Picture, type Playlist, type Sound } from '@/player/engine/playlist'
import { isPlain, looksShown } from '@/player/look'
import LookFilter from '@/player/LookFilter.vue'
import { TROUBLE } from '@/player/trouble'
import { usePlayer } from '@/player/usePlayer'
import { usePlayerKeys } from '@/player/usePlayerKeys'
import DeviceBadge from '@/shell/DeviceBadge.vue'
import { useShortcuts } from '@/shell/keys'
import { waveColour } from '@/shell/device'
import { difference, loadPair, type Pair, SAMPLE_RATE, TICKS_PER_SAMPLE } from './samples'

/**
 * A place by eye and ear: both pictures at one instant, both waveforms around it, one in each ear or what they do not
 * share.
 */
const props = defineProps<{ production: string; chosen: Placed; check: CheckPair }>()
const emit = defineEmits<{ moment: [ticks: number] }>()

const SECONDS = 6
const SPANS = [4, 1, 0.25, 0.05, 0.01]

const canvas = ref<HTMLCanvasElement | null>(null)
const { width, height } = useElementSize(canvas)
const moment = ref(0)
const span = ref(2)
const pair = shallowRef<Pair | null>(null)
const failed = ref(false)
const comparing = ref(false)
let context: AudioContext | null = null
let source: AudioBufferSourceNode | null = null

const against = computed(() => props.check.against)
const at = computed(() => props.check.moments[moment.value]?.ticks ?? Math.floor(props.chosen.duration_ticks / 2))
/**
 * Where the clip lies in the other one at this moment: later than at its start by the drift, where that is taken out.
 */
const apart = computed(() => {
  if (against.value?.start_ticks == null) return 0
  const ppm = props.chosen.drift_applied ? (props.chosen.drift_ppm ?? 0) - (against.value.drift_ppm ?? 0) : 0
  return Math.round(props.chosen.start_ticks - against.value.start_ticks - at.value * ppm * 1e-6)
})
/** How far the place was moved since the samples were fetched; the other side is drawn that much earlier. */
const shift = computed(() =>
  pair.value === null ? 0 : Math.round((apart.value - pair.value.apartTicks) / TICKS_PER_SAMPLE),
)
const sides = computed<CheckSide[]>(() => {
  const own: CheckSide = { ...props.check.own }
  return [own, ...(props.check.beside === null ? [] : [props.check.beside])].filter((side) => side.kind === 'picture')
})

watch(
  [() => props.chosen.clip, at, () => against.value?.clip],
  async () => {
    const other = against.value
    pair.value = null
    failed.value = false
    stop()
    if (other === null) return
    const asked = [props.chosen.clip, at.value].join()
    const answer = await loadPair(
      props.production,
      props.chosen.clip,
      other.clip,
      at.value - (SECONDS / 2) * TICKS,
      apart.value,
      SECONDS,
    )
    if (asked !== [props.chosen.clip, at.value].join()) return
    pair.value = answer
    failed.value = answer === null
  },
  { immediate: true },
)
watch(
  () => props.chosen.clip,
  () => {
    moment.value = 0
  },
)
watch(at, () => emit('moment', props.chosen.start_ticks + at.value), { immediate: true })

/** Plays on the clip's own clock; the picture of the other device follows it. */
const canvases = [shallowRef<HTMLCanvasElement | null>(null), shallowRef<HTMLCanvasElement | null>(null)] as const
function keepCanvas(index: number, element: unknown): void {
  if (canvases[index] !== undefined) canvases[index].value = element as HTMLCanvasElement | null
}
const region = ref<HTMLElement | null>(null)
const active = usePlayer(() => props.production, canvases[0])
const { player, position, speed, trouble } = active
const second = player.addScreen([])
const shown = shallowRef<(number | null)[]>([null, null])
player.onChange(() => {
  const seen = player.screens.map((screen) => screen.seen?.frame ?? null)
  if (seen.some((frame, index) => frame !== shown.value[index])) shown.value = seen
})
watch(canvases[1], (canvas) => second.attach(canvas), { immediate: true, flush: 'post' })

/** A side's pictures on the clip's clock; it may begin before the clip does. */
function picturesOf(side: CheckSide | undefined): Picture[] {
  if (side === undefined || side.start_ticks === null) return []
  const { pictures } = ofClip({ ...side, ulid: side.clip, kind: 'picture', start_ticks: null, synced: false })
  return pictures.map((piece) => ({ ...piece, at: side.start_ticks! - props.chosen.start_ticks }))
}
const isOff = (side: CheckSide) => pieceAt(picturesOf(side), position.value) === null
const { data: ownHeard } = useAnswer(() => playerApi.clip(props.production, props.chosen.clip))
const { data: otherHeard } = useAnswer(() =>
  against.value === null ? null : playerApi.clip(props.production, against.value.clip),
)
/** What a clip heard itself, on one ear. */
function heardBy(answer: typeof ownHeard.value, ear: 'left' | 'right', shiftTicks: number, driftPpm: number): Sound[] {
  if (answer?.recordings === undefined) return []
  const list = fromAnswer(answer)
  return (list.own.length > 0 ? list.own : list.sounds).map((sound) => ({
    ...sound,
    at: sound.at + shiftTicks,
    driftPpm,
    ear,
  }))
}
const sounds = computed<Sound[]>(() => {
  const drift = props.chosen.drift_applied ? (props.chosen.drift_ppm ?? 0) - (against.value?.drift_ppm ?? 0) : 0
  const later = against.value?.start_ticks == null ? null : against.value.start_ticks - props.chosen.start_ticks
  return [
    ...heardBy(ownHeard.value, 'left', 0, 0),
    ...(later === null ? [] : heardBy(otherHeard.value, 'right', later, drift)),
  ]
})
const list = computed<Playlist>(() => {
  const length = props.chosen.duration_ticks
  const first = picturesOf(sides.value[0])
  return {
    ...ofClip({ ...props.check.own, ulid: props.chosen.clip, kind: 'sound', start_ticks: null, synced: false }),
    rate: sides.value[0]?.rate ?? props.check.own.rate,
    length,
    pictures: first,
  }
})
let loaded = ''
watch(
  [list, () => sides.value[1]],
  ([now, beside]) => {
    if (loaded === props.chosen.clip) player.replace(now)
    else player.load(now, at.value)
    loaded = props.chosen.clip
    second.load(picturesOf(beside))
    player.again()
  },
  { immediate: true },
)
watch(sounds, (now) => player.setSounds(now), { immediate: true })
watch(at, (ticks) => player.transport.goExactly(ticks))
const filterOf = (side: CheckSide, index: number) =>
  side.look === null || isPlain(side.look) ? null : `look-pair-${index}`

function draw(): void {
  const pen = penFor(canvas.value, width.value, height.value)
  if (pen === null) return
  const half = height.value / 2
  pen.fillStyle = '#e4dac6'
  pen.fillRect(0, half, width.value, 1)
  pen.setLineDash([3, 3])
  pen.strokeStyle = '#b0412e'
  pen.beginPath()
  pen.moveTo(width.value / 2, 0)
  pen.lineTo(width.value / 2, height.value)
  pen.stroke()
  pen.setLineDash([])
  const sound = pair.value
  const away = ((position.value - at.value) / TICKS / SPANS[span.value]!) * width.value
  if (Math.abs(away) > 1) {
    pen.setLineDash([])
    pen.fillStyle = '#b0412e'
    pen.fillRect(width.value / 2 + away - 1, 0, 2, height.value)
  }
  if (sound === null) return
  const wide = SPANS[span.value]! * SAMPLE_RATE
  const centre = (SECONDS / 2) * SAMPLE_RATE
  const lines: [Float32Array, number, number, string][] = [
    [sound.right, shift.value, half / 2, waveColour(against.value?.device ?? '')],
    [sound.left, 0, half * 1.5, waveColour(props.chosen.device)],
  ]
  for (const [values, moved, middle, colour] of lines) {
    const from = centre - wide / 2 + moved
    let most = 0.02
    for (let i = Math.max(0, Math.floor(from)); i < Math.min(values.length, from + wide); i++)
      most = Math.max(most, Math.abs(values[i]!))
    pen.fillStyle = colour
    pen.strokeStyle = colour
    const perPixel = wide / width.value
    if (perPixel > 2) {
      for (let x = 0; x < width.value; x++) {
        let low = 0
        let high = 0
        for (
          let i = Math.max(0, Math.floor(from + x * perPixel)),
            end = Math.min(values.length, Math.floor(from + (x + 1) * perPixel));
          i < end;
          i++
        ) {
          low = Math.min(low, values[i]!)
          high = Math.max(high, values[i]!)
        }
        const up = (high / most) * (half / 2 - 4)
        const down = (-low / most) * (half / 2 - 4)
        pen.fillRect(x, middle - up, 1, Math.max(0.7, up + down))
      }
    } else {
      pen.beginPath()
      for (let i = Math.max(0, Math.floor(from)); i < Math.min(values.length, from + wide + 1); i++) {
        const x = (i - from) / perPixel
        const y = middle - (values[i]! / most) * (half / 2 - 4)
        if (i === Math.max(0, Math.floor(from))) pen.moveTo(x, y)
        else pen.lineTo(x, y)
      }
      pen.stroke()
    }
  }
}
watch([pair, shift, span, width, height, position], () => requestAnimationFrame(draw), {
  immediate: true,
  flush: 'post',
})

function stop(): void {
  source?.stop()
  source = null
  comparing.value = false
}
/** Around the moment, the clip on the left ear and the other one on the right; the place as it is now counts. */
function listen(): void {
  stop()
  if (speed.value !== 0) {
    player.stop()
    return
  }
  const from = Math.max(0, Math.round(at.value - (SECONDS / 2) * TICKS))
  const to = Math.min(props.chosen.duration_ticks, Math.round(at.value + (SECONDS / 2) * TICKS))
  player.transport.goExactly(from)
  player.transport.run(1, { from, to })
}
/** What the two do not have in common; made of the samples around the moment. */
function compare(): void {
  player.stop()
  const isHeard = comparing.value
  stop()
  const sound = pair.value
  if (isHeard || sound === null) return
  context ??= new AudioContext()
  const right = new Float32Array(sound.right.length)
  for (let i = 0; i < right.length; i++) right[i] = sound.right[i + shift.value] ?? 0
  const buffer = context.createBuffer(1, right.length, SAMPLE_RATE)
  buffer.getChannelData(0).set(difference(sound.left, right))
  source = context.createBufferSource()
  source.buffer = buffer
  source.connect(context.destination)
  source.onended = () => {
    comparing.value = false
  }
  void context.resume()
  source.start()
  comparing.value = true
}
onBeforeUnmount(() => {
  stop()
  void context?.close()
})

const next = () => {
  moment.value = props.check.moments.length === 0 ? 0 : (moment.value + 1) % props.check.moments.length
}
// `<` and `>` move the place here, and the map's own keys stay its own.
const keys = usePlayerKeys(active, ['<', '>'])
useShortcuts('Check a place', [
  {
    keys: ['e'],
    what: t('lineup.PairView.aroundTheMomentClipOn'),
    run: listen,
  },
  { keys: ['d'], what: t('lineup.PairView.listenToTheDifference'), run: compare },
  { keys: ['w'], what: t('lineup.PairView.nextClapOrSharpSound2'), run: next },
  {
    keys: ['z'],
    what: t('lineup.PairView.lookCloserFromTheClosest'),
    run: () => {
      span.value = (span.value + 1) % SPANS.length
    },
  },
])
useShortcuts('Player', keys.shortcuts, region)
function regionKey(event: KeyboardEvent): void {
  if (keys.arrows(event)) event.preventDefault()
}
function goThere(event: MouseEvent): void {
  const edge = (event.currentTarget as HTMLElement).getBoundingClientRect()
  const part = (event.clientX - edge.left) / edge.width - 0.5
  player.goExactly(at.value + part * SPANS[span.value]! * TICKS)
}
defineExpose({ pair, shift })
</script>

<template>
  <div
    ref="region"
    class="check"
    tabindex="0"
    role="group"
    :aria-label="t('lineup.PairView.bothAtOneMoment')"
    :data-ready="pair !== null"
    :data-playing="speed !== 0"
    @keydown="regionKey"
  >
    <div v-if="sides.length > 0" class="pictures" :class="{ one: sides.length === 1 }">
      <figure v-for="(side, index) in sides.slice(0, 2)" :key="side.clip" @click="player.toggle()">
        <LookFilter v-if="filterOf(side, index)" :name="filterOf(side, index)!" :look="side.look!" />
        <canvas
          :ref="(element) => keepCanvas(index, element)"
          :data-clip="side.clip"
          :data-frame="shown[index] ?? ''"
          :style="filterOf(side, index) && looksShown ? { filter: `url(#${filterOf(side, index)})` } : undefined"
        />
        <small v-if="isOff(side)">{{ t('lineup.PairView.doesNotRunHere') }}</small>
        <figcaption><DeviceBadge :letter="side.device ?? ''" /></figcaption>
      </figure>
    </div>
    <p v-if="trouble" class="note warn" role="alert">
      {{ TROUBLE[trouble]
      }}<button v-if="trouble !== 'browser'" class="plain" @click="player.again()">
        {{ t('lineup.PairView.tryAgain') }}
      </button>
    </p>
    <template v-if="against !== null">
      <div
        class="waves"
        :title="
          t('lineup.PairView.sAround', [SPANS[span], check.moments[moment]?.what ?? t('lineup.PairView.theMiddle')])
        "
        @click="goThere"
      >
        <canvas ref="canvas" aria-hidden="true" />
        <span class="who up">{{ against.device }} {{ against.name }}</span>
        <span class="who down"
          >{{ chosen.device }} {{ chosen.kind === 'sound' ? chosen.name : t('lineup.PairView.guideSound') }}</span
        >
        <span v-if="pair === null && !failed" class="trouble">{{ t('lineup.PairView.fetchingTheSoundOfBoth') }}</span>
        <span v-if="failed" class="trouble">{{ t('lineup.PairView.itsSoundCannotBeRead') }}</span>
      </div>
      <div class="tools">
        <button
          class="plain"
          :class="{ on: speed !== 0 }"
          :title="t('lineup.PairView.clipOnTheLeftEar')"
          @click="listen"
        >
          {{ t('lineup.PairView.listen') }}
        </button>
        <button
          class="plain"
          :class="{ on: comparing }"
          :disabled="pair === null"
          :title="t('lineup.PairView.whatTheTwoDoNot')"
          @click="compare"
        >
          {{ t('lineup.PairView.difference') }}
        </button>
        <button class="plain" :title="t('lineup.PairView.lookCloserZ')" @click="span = (span + 1) % SPANS.length">
          {{
            SPANS[span]! >= 1 ? t('lineup.PairView.s', [SPANS[span]]) : t('lineup.PairView.ms', [SPANS[span]! * 1000])
          }}
        </button>
        <button
          class="plain"
          :disabled="check.moments.length < 2"
          :title="t('lineup.PairView.nextClapOrSharpSound')"
          @click="next"
        >
          {{ check.moments[moment]?.what === 'clap' ? t('lineup.PairView.clap') : t('lineup.PairView.sound') }}
          {{ moment + 1 }}/{{ Math.max(1, check.moments.length) }}
        </button>
      </div>
    </template>
  </div>
</template>

<style scoped>
.check {
  display: grid;
  gap: 8px;
}
.pictures {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px;
}
.pictures.one {
  grid-template-columns: 1fr;
}
figure {
  margin: 0;
  position: relative;
  background: var(--dark);
  border-radius: 5px;
  overflow: hidden;
  aspect-ratio: 16 / 9;
}
figure small {
  position: absolute;
  inset: auto 0 8px;
  text-align: center;
  color: var(--on-dark-soft);
}
figcaption {
  position: absolute;
  top: 4px;
  left: 4px;
}
.waves {
  position: relative;
  height: 96px;
  background: #fff;
  border: 1px solid var(--rule);
  border-radius: 4px;
}
canvas {
  width: 100%;
  height: 100%;
  display: block;
  object-fit: contain;
}
.check {
  border-radius: 6px;
}
.who {
  position: absolute;
  left: 6px;
  font-size: 10.5px;
  color: var(--ink-soft);
  background: #ffffffc0;
  padding: 0 2px;
  border-radius: 2px;
}
.who.up {
  top: 2px;
}
.who.down {
  bottom: 2px;
}
.trouble {
  position: absolute;
  inset: 0;
  display: grid;
  place-items: center;
  font-size: 12px;
  color: var(--ink-soft);
  padding: 0 20px;
  text-align: center;
}
.tools {
  display: grid;
  grid-template-columns: repeat(4, auto);
  gap: 6px;
}
.tools button {
  padding: 4px 4px;
  font-size: 12px;
}
.tools .on {
  background: var(--ink);
  border-color: var(--ink);
  color: #fff;
}
</style>
