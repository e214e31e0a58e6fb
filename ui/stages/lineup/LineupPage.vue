<script setup lang="ts">
import { bins as binsApi } from '@/api/endpoints/bins'
import { lineup as lineupApi } from '@/api/endpoints/lineup'
import { log as logApi } from '@/api/endpoints/log'
import { Dropdown } from 'ant-design-vue'
import { computed, ref, shallowRef, watch } from 'vue'
import { useRoute } from 'vue-router'
import { onLive } from '@/api/live'
import { makeStale, setAnswer, useAnswer } from '@/api/queries'
import type { Placed, Stray, StrayStep } from '@/api/types'
import { labelAt, ticksPerFrame } from '@/player/time'
import AnswerState from '@/shell/AnswerState.vue'
import PanelEdge from '@/shell/PanelEdge.vue'
import { useDesk } from '@/shell/desk'
import { useShortcuts } from '@/shell/keys'
import { attempt, say } from '@/shell/say'
import TaskProgress from '@/shell/TaskProgress.vue'
import DayMap from './DayMap.vue'
import StrayTray from './StrayTray.vue'
import CutDialog from './CutDialog.vue'
import HandDialog from './HandDialog.vue'
import LooksDialog from './LooksDialog.vue'
import { laidBy } from './geometry'
import PlacePanel from './PlacePanel.vue'
import RunsDialog from './RunsDialog.vue'
import SplitDialog from './SplitDialog.vue'
import WaysMenu from './WaysMenu.vue'
import { type Found, withFound } from './found'
import { type LineupWish, useKeptWays } from './wish'

const { production, day } = useDesk()
const route = useRoute()
const { data, isPending, error, refetch } = useAnswer(() => lineupApi.day(production.value.ulid, day.value.ulid))

/** A run says what it finds and how far it is; the whole line-up is asked for once, when it is over. */
const here = () => lineupApi.day(production.value.ulid, day.value.ulid)
onLive('lineup', (facts) => {
  if (facts.day === day.value.ulid && facts.found !== undefined)
    setAnswer(here(), (known) => (known === undefined ? known : withFound(known, facts.found as Found)))
})
onLive('tasks', (facts) => {
  if (facts.progress !== true || facts.task !== data.value?.task?.ulid) return
  setAnswer(here(), (known) =>
    known?.task == null
      ? known
      : { ...known, task: { ...known.task, ...facts, state: 'running' } as typeof known.task },
  )
})

const cursor = ref<string | null>(null)
/** Clips that were picked one by one, to be lined up together. */
const picked = ref(new Set<string>())
const runsOpen = ref(false)
const cutOpen = ref(false)
const splitting = shallowRef<Placed | Stray | null>(null)
const looksOpen = ref(false)
const byHand = shallowRef<Placed | Stray | null>(null)
const keptWays = useKeptWays(computed(() => production.value.ulid))
const about = ref<Pick<LineupWish, 'scope' | 'key' | 'anchor'>>({ scope: 'day', key: '', anchor: null })
const wish = computed<LineupWish>(() => ({ ...about.value, ...keptWays.value }))
function setWish(next: LineupWish): void {
  about.value = { scope: next.scope, key: next.key, anchor: next.anchor }
  keptWays.value = { ways: next.ways, cut: next.cut }
}
watch(
  () => day.value.ulid,
  () => {
    picked.value = new Set()
    about.value = { scope: 'day', key: '', anchor: null }
  },
)

const map = ref<InstanceType<typeof DayMap> | null>(null)
const tray = ref<InstanceType<typeof StrayTray> | null>(null)
const placed = computed(() => data.value?.placements ?? [])
const looseCount = computed(() => placed.value.filter((one) => one.group > 0).length)
const order = computed(() =>
  [...placed.value].sort((a, b) => a.start_ticks - b.start_ticks || a.device.localeCompare(b.device)),
)
const chosen = computed<Placed | undefined>(() => data.value?.placements.find((one) => one.clip === cursor.value))
const lanes = computed(() => {
  const used = new Set(placed.value.map((one) => one.device))
  return production.value.devices.filter((device) => used.has(device.letter))
})
const { data: clip } = useAnswer(() =>
  cursor.value === null ? null : binsApi.clip(production.value.ulid, cursor.value),
)
const { data: check } = useAnswer(() =>
  chosen.value === undefined ? null : lineupApi.check(production.value.ulid, chosen.value.clip),
)
const sureCount = computed(() => placed.value.filter((one) => one.sure && one.group === 0).length)

watch(
  [data, () => route.query.clip],
  ([answer, wanted], before) => {
    if (answer === undefined) return
    const known = [...answer.placements, ...answer.strays].some((one) => one.clip === wanted)
    if (known && (before === undefined || before[1] !== wanted || cursor.value === null)) select(String(wanted))
    else if (
      cursor.value === null ||
      ![...answer.placements, ...answer.strays].some((one) => one.clip === cursor.value)
    )
      cursor.value = order.value[0]?.clip ?? null
  },
  { immediate: true },
)

/** Adds a clip to those that the next run is about, or takes it away again. */
function pick(ulid: string): void {
  const next = new Set(picked.value)
  if (!next.delete(ulid)) next.add(ulid)
  picked.value = next
  about.value = next.size > 0 ? { ...about.value, scope: 'clips', key: '' } : { ...about.value, scope: 'day' }
}
function choose(ulid: string, event: MouseEvent): void {
  if (event.ctrlKey || event.metaKey || event.shiftKey) {
    if (picked.value.size === 0 && cursor.value !== null && cursor.value !== ulid) pick(cursor.value)
    pick(ulid)
  } else if (picked.value.size > 0) {
    picked.value = new Set()
    about.value = { ...about.value, scope: 'day' }
  }
  select(ulid)
}
function select(ulid: string): void {
  cursor.value = ulid
  map.value?.reveal(ulid)
}
function move(step: number): void {
  const at = order.value.findIndex((one) => one.clip === cursor.value)
  const next = order.value[Math.max(0, Math.min(order.value.length - 1, at + step))]
  if (next !== undefined) select(next.clip)
}
function lane(step: number): void {
  const now = chosen.value
  if (now === undefined) return
  const letters = lanes.value.map((device) => device.letter)
  const letter = letters[letters.indexOf(now.device) + step]
  const near = placed.value
    .filter((one) => one.device === letter)
    .sort((a, b) => Math.abs(a.start_ticks - now.start_ticks) - Math.abs(b.start_ticks - now.start_ticks))[0]
  if (near !== undefined) select(near.clip)
}
/** Those that a person has not looked at, the least certain first. */
const doubtful = computed(() =>
  placed.value
    .filter((one) => !one.locked && !one.is_anchor)
    .sort((a, b) => Number(a.sure) - Number(b.sure) || a.confidence - b.confidence),
)
function nextDoubtful(): void {
  const at = doubtful.value.findIndex((one) => one.clip === cursor.value)
  const next = doubtful.value[(at + 1) % Math.max(1, doubtful.value.length)]
  if (next === undefined) say('A person has looked at every place.')
  else select(next.clip)
}

async function start(): Promise<void> {
  if (!production.value.may.work || data.value?.task != null) return
  const { scope, key, ways, anchor, cut } = wish.value
  const clips = scope === 'clips' ? { clips: picked.value.size > 0 ? [...picked.value] : [cursor.value] } : {}
  await begin({ scope, key, ways, anchor, cut, ...clips })
}
async function begin(what: object): Promise<void> {
  if ((await attempt(() => lineupApi.start(production.value.ulid, day.value.ulid, what))) !== undefined)
    makeStale('lineup')
}

/** Players and reels begin a second before the slate closes; the recordings stay whole. */
const ofPicked = computed(() => (picked.value.size > 0 ? `these ${picked.value.size} clips` : 'all pictures'))
const mayTrim = computed(() => production.value.may.work && placed.value.length > 0)
async function heads(whole: boolean): Promise<void> {
  if (!mayTrim.value) return
  const answer = await attempt(() =>
    lineupApi.heads(production.value.ulid, day.value.ulid, {
      whole,
      ...(picked.value.size > 0 ? { clips: [...picked.value] } : {}),
    }),
  )
  if (answer === undefined) return
  makeStale('clips')
  const clips = (n: number) => (n === 1 ? 'One clip' : `${n} clips`)
  const rest = answer.none > 0 ? ` On ${answer.none} no slate was heard or seen; they stay whole.` : ''
  say(
    answer.changed === 0
      ? `Nothing changed.${rest}`
      : `${clips(answer.changed)} ${whole ? 'whole again' : 'begin at the slate'}.${rest} Ctrl Z takes it back.`,
  )
}

async function step(stray: Stray, which: StrayStep): Promise<void> {
  if (which === 'clap' || which === 'hand') {
    byHand.value = stray
    return
  }
  if (which === 'lineup')
    await begin({ scope: 'clips', clips: [stray.clip], ways: wish.value.ways, cut: wish.value.cut })
  else if (which === 'false_start')
    await attempt(() =>
      logApi.setSlate(production.value.ulid, day.value.ulid, {
        clips: [stray.clip],
        slate: null,
        false_start: true,
      }),
    )
  else if (which === 'wild') await attempt(() => lineupApi.wild(production.value.ulid, stray.clip, {}))
  else await attempt(() => lineupApi.leaveOut(production.value.ulid, stray.clip, { out: which === 'out' }))
  makeStale(which === 'false_start' || which === 'wild' ? 'takes' : 'lineup')
}

/** Letters of the devices whose clips can start and stop the takes of the chosen one. */
const angles = computed(() =>
  lanes.value.map((one) => one.letter).filter((letter) => letter !== splitting.value?.device),
)
function split(): void {
  if (!production.value.may.work) return
  if (chosen.value === undefined) say('Choose a clip on the map first.')
  else splitting.value = chosen.value
}

const how = (one: Placed) =>
  one.group > 0
    ? laidBy(one)
    : one.is_anchor
      ? 'anchor'
      : one.locked
        ? `by ${one.way}, locked`
        : one.sure
          ? `by ${one.way}`
          : `by ${one.way}, look`
useShortcuts('Line-up', [
  {
    keys: ['ArrowRight', 'ArrowLeft'],
    what: 'Next clip, the one before',
    run: (event) => move(event.key === 'ArrowRight' ? 1 : -1),
  },
  {
    keys: ['ArrowDown', 'ArrowUp'],
    what: 'Lane below, lane above',
    run: (event) => lane(event.key === 'ArrowDown' ? 1 : -1),
  },
  { keys: ['Shift+Enter'], what: 'Line up', run: () => void start() },
  {
    keys: ['v'],
    what: 'Pick the clip for the next run, or not',
    run: () => {
      if (cursor.value !== null) pick(cursor.value)
    },
  },
  { keys: ['c'], what: 'Next of the least certain', run: nextDoubtful },
  {
    keys: ['q'],
    what: 'To the next stray; Enter takes its step',
    run: () => (tray.value === null ? say('There is no stray.') : tray.value.nextStray()),
  },
  { keys: ['+', '-'], what: 'Closer, further', run: (event) => map.value?.zoom(event.key === '+' ? 1.6 : 1 / 1.6) },
  {
    keys: ['PageDown', 'PageUp'],
    what: 'Along the day, back',
    run: (event) => map.value?.page(event.key === 'PageDown' ? 1 : -1),
  },
  {
    keys: ['Shift+ArrowRight', 'Shift+ArrowLeft'],
    what: 'The playhead by a frame; by a sample where one sees them',
    run: (event) => map.value?.nudgePlayhead(event.key === 'ArrowRight' ? 1 : -1, ticksPerFrame(production.value.rate)),
  },
  { keys: ['f'], what: 'The take of this clip, then the whole day', run: () => map.value?.fit() },
  { keys: ['F'], what: 'This clip', run: () => map.value?.fitClip() },
  { keys: ['s'], what: 'Single samples at the playhead', run: () => map.value?.fitSamples() },
  {
    keys: ['u'],
    what: 'Cut into takes',
    run: () => {
      cutOpen.value = production.value.may.work
    },
  },
  { keys: ['Alt+b'], what: 'Begin all pictures, or those picked, at their slates', run: () => void heads(false) },
  {
    keys: ['m'],
    what: 'Split the clip into takes',
    run: split,
  },
  {
    keys: ['r'],
    what: 'Runs: compare, go back',
    run: () => {
      runsOpen.value = true
    },
  },
])
</script>

<template>
  <AnswerState :pending="isPending" :error="error" @retry="refetch()">
    <div v-if="data" class="split">
      <PanelEdge stage="lineup" :usual="316" />
      <section class="left">
        <div class="bar">
          <button
            v-if="production.may.work"
            class="go"
            :disabled="data.task !== null"
            title="Line up (Shift Enter)"
            @click="start"
          >
            Line up
            {{
              wish.scope === 'day'
                ? 'the day'
                : wish.scope === 'clips'
                  ? picked.size > 1
                    ? `these ${picked.size} clips`
                    : 'this clip'
                  : `${wish.scope} ${wish.key}`
            }}
          </button>
          <WaysMenu
            v-if="production.may.work"
            :lineup="data"
            :chosen="cursor"
            :picked="picked.size"
            :wish="wish"
            @wish="setWish"
          />
          <button
            v-if="production.may.work && placed.length > 0"
            class="plain"
            title="Takes, false starts, wild tracks and MOS from the line-up (U)"
            @click="cutOpen = true"
          >
            Cut into takes
          </button>
          <Dropdown :trigger="['click']">
            <button class="plain" aria-label="More">More ▾</button>
            <template #overlay
              ><div class="drop">
                <button @click="runsOpen = true">Runs… <kbd>R</kbd></button
                ><button v-if="mayTrim" @click="heads(false)">
                  Begin {{ ofPicked }} at their slates <kbd>Alt B</kbd></button
                ><button v-if="mayTrim" @click="heads(true)">Whole heads of {{ ofPicked }} again</button>
              </div></template
            >
          </Dropdown>
          <span v-if="data.placements.length > 0" class="pill" :class="{ warn: sureCount < data.placements.length }"
            >{{ placed.length - looseCount }} placed, {{ sureCount }} sure</span
          >
          <span class="push zoom">
            <span v-if="map?.playhead != null" class="mono now">{{ labelAt(map.playhead, production.rate) }}</span>
            <button class="plain" title="The take of this clip, then the whole day (F)" @click="map?.fit()">
              {{ map?.isWhole === false ? 'Day' : 'Take' }}
            </button>
            <button class="plain" aria-label="Further" title="Further (-)" @click="map?.zoom(1 / 1.6)">−</button
            ><button class="plain" aria-label="Closer" title="Closer (+)" @click="map?.zoom(1.6)">+</button>
          </span>
        </div>
        <div v-if="data.task" class="busy"><TaskProgress :task="data.task" /></div>
        <div v-if="placed.length === 0" class="empty">
          <b>Nothing is lined up yet.</b
          >{{
            data.strays.length === 0
              ? 'Offload the cards of this day first.'
              : `${data.strays.length} clips wait. Their sound and their timecode will place them.`
          }}<br /><button
            v-if="production.may.work && data.strays.length > 0 && data.task === null"
            class="go"
            @click="start"
          >
            Line up the day
          </button>
        </div>
        <DayMap
          v-else
          ref="map"
          :lineup="data"
          :placed="placed"
          :lanes="lanes"
          :chosen="chosen"
          :picked="picked"
          :how="how"
          @select="select"
          @choose="choose"
        />
        <StrayTray
          v-if="data.strays.length > 0 && placed.length > 0"
          ref="tray"
          :strays="data.strays"
          :may-work="production.may.work"
          @step="step"
        />
        <p v-if="looseCount > 0" class="note warn loose">
          {{ looseCount === 1 ? 'One clip lies' : `${looseCount} clips lie` }} on lighter ground: nothing ties
          {{ looseCount === 1 ? 'it' : 'them' }} to the rest of the day. Place one by hand (H), and all that hangs
          together with it comes along.
        </p>
      </section>
      <PlacePanel
        v-if="chosen"
        :lineup="data"
        :chosen="chosen"
        :clip="clip"
        :check="check"
        @hand="byHand = chosen ?? null"
        @split="split"
        @looks="looksOpen = true"
        @next="nextDoubtful"
        @moment="map && (map.playhead = $event)"
      />
      <aside v-else>
        <div class="empty"><b>No clip chosen.</b>Choose one on the map.</div>
      </aside>
      <RunsDialog
        :open="runsOpen"
        @close="runsOpen = false"
        @go="
          (ulid) => {
            runsOpen = false
            select(ulid)
          }
        "
      />
      <CutDialog
        :open="cutOpen"
        @close="cutOpen = false"
        @go="
          (ulid) => {
            cutOpen = false
            select(ulid)
          }
        "
      />
      <SplitDialog :clip="splitting" :angles="angles" @close="splitting = null" />
      <LooksDialog :open="looksOpen" :clip="clip" @close="looksOpen = false" />
      <HandDialog
        :clip="byHand"
        :placements="data.placements"
        @close="byHand = null"
        @placed="
          (ulid) => {
            byHand = null
            select(ulid)
          }
        "
      />
    </div>
  </AnswerState>
</template>

<style scoped>
.split {
  position: relative;
  display: grid;
  grid-template-columns: minmax(0, 1fr) var(--panel, 316px);
  grid-template-rows: minmax(0, 1fr);
  height: 100%;
}
.left {
  display: flex;
  flex-direction: column;
  min-width: 0;
  min-height: 0;
}
.busy {
  padding: 10px 18px;
  border-bottom: 1px solid var(--rule);
}
.zoom {
  display: flex;
  gap: 4px;
  align-items: center;
}
.now {
  margin-right: 8px;
}
.loose {
  margin: 10px 18px;
}
aside {
  border-left: 1px solid var(--rule-strong);
  background: var(--sheet-2);
}
/* At twice the size a page is half as wide: the panel goes below, and the page scrolls to it. */
@media (max-width: 860px) {
  .split {
    grid-template-columns: minmax(0, 1fr);
    grid-template-rows: minmax(340px, 100%) auto;
    overflow-y: auto;
  }
}
</style>
