<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, onBeforeUnmount, ref, shallowRef, watch } from 'vue'
import type { CheckPair, CheckSide, Placed } from '@/api/types'
import { TICKS, ticksPerFrame } from '@/player/time'
import { penFor } from '@/player/canvas'
import { looksShown } from '@/player/look'
import FramePicture from '@/player/FramePicture.vue'
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
const playing = ref<'ears' | 'difference' | null>(null)
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

/** The frame of a side at the moment that is looked at. */
function frameOf(side: CheckSide): number {
  if (side.start_ticks === null) return 0
  const inside = props.chosen.start_ticks + at.value - side.start_ticks
  return Math.max(0, Math.min((side.frames ?? 1) - 1, Math.floor(inside / ticksPerFrame(side.rate))))
}

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
watch([pair, shift, span, width, height], () => requestAnimationFrame(draw), { immediate: true, flush: 'post' })

function stop(): void {
  source?.stop()
  source = null
  playing.value = null
}
/** The recording on the right ear, the clip on the left; the place as it is now counts, not as it was when it came. */
function listen(how: 'ears' | 'difference'): void {
  if (playing.value !== null) {
    const same = playing.value === how
    stop()
    if (same) return
  }
  const sound = pair.value
  if (sound === null) return
  context ??= new AudioContext()
  const right = new Float32Array(sound.right.length)
  for (let i = 0; i < right.length; i++) right[i] = sound.right[i + shift.value] ?? 0
  const apartLeft = how === 'ears' ? sound.left : difference(sound.left, right)
  const buffer = context.createBuffer(2, right.length, SAMPLE_RATE)
  buffer.getChannelData(0).set(apartLeft)
  buffer.getChannelData(1).set(how === 'ears' ? right : apartLeft)
  source = context.createBufferSource()
  source.buffer = buffer
  source.connect(context.destination)
  source.onended = () => {
    playing.value = null
  }
  void context.resume()
  source.start()
  playing.value = how
}
onBeforeUnmount(() => {
  stop()
  void context?.close()
})

const next = () => {
  moment.value = props.check.moments.length === 0 ? 0 : (moment.value + 1) % props.check.moments.length
}
useShortcuts('Check a place', [
  {
    keys: ['e'],
    what: 'Listen: clip on the left ear, recording on the right; again to stop',
    run: () => listen('ears'),
  },
  { keys: ['d'], what: 'Listen to the difference', run: () => listen('difference') },
  { keys: ['w'], what: 'Next clap or sharp sound', run: next },
  {
    keys: ['\\'],
    what: 'Look off, on',
    run: () => {
      looksShown.value = !looksShown.value
    },
  },
  {
    keys: ['z'],
    what: 'Look closer; from the closest, all again',
    run: () => {
      span.value = (span.value + 1) % SPANS.length
    },
  },
])
defineExpose({ pair, shift })
</script>

<template>
  <div class="check" :data-ready="pair !== null">
    <div v-if="sides.length > 0" class="pictures" :class="{ one: sides.length === 1 }">
      <figure v-for="side in sides" :key="side.clip">
        <FramePicture
          :production="production"
          :clip="side.clip"
          :rate="side.rate"
          :frames="side.frames"
          :version="side.media_version"
          :look="side.look"
          :frame="frameOf(side)"
        />
        <figcaption><DeviceBadge :letter="side.device ?? ''" /></figcaption>
      </figure>
    </div>
    <template v-if="against !== null">
      <div class="waves" :title="`${SPANS[span]} s around ${check.moments[moment]?.what ?? 'the middle'}`">
        <canvas ref="canvas" aria-hidden="true" />
        <span class="who up">{{ against.device }} {{ against.name }}</span>
        <span class="who down">{{ chosen.device }} {{ chosen.kind === 'sound' ? chosen.name : 'guide sound' }}</span>
        <span v-if="pair === null && !failed" class="trouble">Fetching the sound of both…</span>
        <span v-if="failed" class="trouble">Its sound cannot be read now. Is a copy of the card connected?</span>
      </div>
      <div class="tools">
        <button
          class="plain"
          :class="{ on: playing === 'ears' }"
          :disabled="pair === null"
          title="Clip on the left ear, recording on the right (E)"
          @click="listen('ears')"
        >
          Listen
        </button>
        <button
          class="plain"
          :class="{ on: playing === 'difference' }"
          :disabled="pair === null"
          title="What the two do not have in common (D)"
          @click="listen('difference')"
        >
          Difference
        </button>
        <button class="plain" title="Look closer (Z)" @click="span = (span + 1) % SPANS.length">
          {{ SPANS[span]! >= 1 ? `${SPANS[span]} s` : `${SPANS[span]! * 1000} ms` }}
        </button>
        <button class="plain" :disabled="check.moments.length < 2" title="Next clap or sharp sound (W)" @click="next">
          {{ check.moments[moment]?.what === 'clap' ? 'clap' : 'sound' }} {{ moment + 1 }}/{{
            Math.max(1, check.moments.length)
          }}
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
video {
  width: 100%;
  height: 100%;
  object-fit: contain;
  display: block;
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
