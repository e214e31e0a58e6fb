<script setup lang="ts">
import { counted, t, valueWord } from '@/words'
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
  if (next === undefined) say(t('lineup.LineupPage.aPersonHasLookedAt'))
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
const ofPicked = computed(() =>
  picked.value.size > 0 ? t('lineup.LineupPage.theseClips', [picked.value.size]) : t('lineup.LineupPage.allPictures'),
)
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
  const clips = (n: number) => (n === 1 ? t('lineup.LineupPage.oneClip') : t('lineup.LineupPage.clips', [n]))
  const rest = answer.none > 0 ? t('lineup.LineupPage.onNoSlateWasHeard', [answer.none]) : ''
  say(
    answer.changed === 0
      ? t('lineup.LineupPage.nothingChanged', [rest])
      : t('lineup.LineupPage.ctrlZTakesItBack', [
          clips(answer.changed),
          whole ? t('lineup.LineupPage.wholeAgain') : t('lineup.LineupPage.beginAtTheSlate'),
          rest,
        ]),
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
  if (chosen.value === undefined) say(t('lineup.LineupPage.chooseAClipOnThe'))
  else splitting.value = chosen.value
}

const how = (one: Placed) =>
  one.group > 0
    ? laidBy(one)
    : one.is_anchor
      ? valueWord('anchor')
      : one.locked
        ? t('lineup.LineupPage.byLocked', [valueWord(one.way ?? '')])
        : one.sure
          ? t('lineup.LineupPage.by', [valueWord(one.way ?? '')])
          : t('lineup.LineupPage.byLook', [valueWord(one.way ?? '')])
useShortcuts('Line-up', [
  {
    keys: ['ArrowRight', 'ArrowLeft'],
    what: t('lineup.LineupPage.nextClipTheOneBefore'),
    run: (event) => move(event.key === 'ArrowRight' ? 1 : -1),
  },
  {
    keys: ['ArrowDown', 'ArrowUp'],
    what: t('lineup.LineupPage.laneBelowLaneAbove'),
    run: (event) => lane(event.key === 'ArrowDown' ? 1 : -1),
  },
  { keys: ['Shift+Enter'], what: t('lineup.LineupPage.lineUp2'), run: () => void start() },
  {
    keys: ['v'],
    what: t('lineup.LineupPage.pickTheClipForThe'),
    run: () => {
      if (cursor.value !== null) pick(cursor.value)
    },
  },
  { keys: ['c'], what: t('lineup.LineupPage.nextOfTheLeastCertain'), run: nextDoubtful },
  {
    keys: ['q'],
    what: t('lineup.LineupPage.toTheNextStrayEnter'),
    run: () => (tray.value === null ? say(t('lineup.LineupPage.thereIsNoStray')) : tray.value.nextStray()),
  },
  {
    keys: ['+', '-'],
    what: t('lineup.LineupPage.closerFurther'),
    run: (event) => map.value?.zoom(event.key === '+' ? 1.6 : 1 / 1.6),
  },
  {
    keys: ['PageDown', 'PageUp'],
    what: t('lineup.LineupPage.alongTheDayBack'),
    run: (event) => map.value?.page(event.key === 'PageDown' ? 1 : -1),
  },
  {
    keys: ['Shift+ArrowRight', 'Shift+ArrowLeft'],
    what: t('lineup.LineupPage.thePlayheadByAFrame'),
    run: (event) => map.value?.nudgePlayhead(event.key === 'ArrowRight' ? 1 : -1, ticksPerFrame(production.value.rate)),
  },
  { keys: ['f'], what: t('lineup.LineupPage.theTakeOfThisClip2'), run: () => map.value?.fit() },
  { keys: ['F'], what: t('lineup.LineupPage.thisClip2'), run: () => map.value?.fitClip() },
  { keys: ['s'], what: t('lineup.LineupPage.singleSamplesAtThePlayhead'), run: () => map.value?.fitSamples() },
  {
    keys: ['u'],
    what: t('lineup.LineupPage.cutIntoTakes'),
    run: () => {
      cutOpen.value = production.value.may.work
    },
  },
  { keys: ['Alt+b'], what: t('lineup.LineupPage.beginAllPicturesOrThose'), run: () => void heads(false) },
  {
    keys: ['m'],
    what: t('lineup.LineupPage.splitTheClipIntoTakes'),
    run: split,
  },
  {
    keys: ['r'],
    what: t('lineup.LineupPage.runsCompareGoBack'),
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
            :title="t('lineup.LineupPage.lineUpShiftEnter')"
            @click="start"
          >
            {{
              t('lineup.LineupPage.lineUp', [
                wish.scope === 'day'
                  ? t('lineup.LineupPage.theDay')
                  : wish.scope === 'clips'
                    ? picked.size > 1
                      ? t('lineup.LineupPage.theseClips', [picked.size])
                      : t('lineup.LineupPage.thisClip')
                    : `${wish.scope} ${wish.key}`,
              ])
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
            :title="t('lineup.LineupPage.takesFalseStartsWildTracks')"
            @click="cutOpen = true"
          >
            {{ t('lineup.LineupPage.cutIntoTakes') }}
          </button>
          <Dropdown :trigger="['click']">
            <button class="plain" :aria-label="t('lineup.LineupPage.more')">{{ t('lineup.LineupPage.more2') }}</button>
            <template #overlay
              ><div class="drop">
                <button @click="runsOpen = true">{{ t('lineup.LineupPage.runs') }} <kbd>R</kbd></button
                ><button v-if="mayTrim" @click="heads(false)">
                  {{ t('lineup.LineupPage.beginAtTheirSlates', [ofPicked]) }} <kbd>Alt B</kbd></button
                ><button v-if="mayTrim" @click="heads(true)">
                  {{ t('lineup.LineupPage.wholeHeadsOfAgain', [ofPicked]) }}
                </button>
              </div></template
            >
          </Dropdown>
          <span v-if="data.placements.length > 0" class="pill" :class="{ warn: sureCount < data.placements.length }">{{
            t('lineup.LineupPage.placedSure', [placed.length - looseCount, sureCount])
          }}</span>
          <span class="push zoom">
            <span v-if="map?.playhead != null" class="mono now">{{ labelAt(map.playhead, production.rate) }}</span>
            <button class="plain" :title="t('lineup.LineupPage.theTakeOfThisClip')" @click="map?.fit()">
              {{ map?.isWhole === false ? t('lineup.LineupPage.day') : t('lineup.LineupPage.take') }}
            </button>
            <button
              class="plain"
              :aria-label="t('lineup.LineupPage.further')"
              :title="t('lineup.LineupPage.further2')"
              @click="map?.zoom(1 / 1.6)"
            >
              −</button
            ><button
              class="plain"
              :aria-label="t('lineup.LineupPage.closer')"
              :title="t('lineup.LineupPage.closer2')"
              @click="map?.zoom(1.6)"
            >
              +
            </button>
          </span>
        </div>
        <div v-if="data.task" class="busy"><TaskProgress :task="data.task" /></div>
        <div v-if="placed.length === 0" class="empty">
          <b>{{ t('lineup.LineupPage.nothingIsLinedUpYet') }}</b>{{
            data.strays.length === 0
              ? t('lineup.LineupPage.offloadTheCardsOfThis')
              : t('lineup.LineupPage.clipsWaitTheirSoundAnd', [counted(data.strays.length, 'clip')])
          }}<br /><button
            v-if="production.may.work && data.strays.length > 0 && data.task === null"
            class="go"
            @click="start"
          >
            {{ t('lineup.LineupPage.lineUpTheDay') }}
          </button>
          <RouterLink v-if="data.strays.length === 0" class="plain" :to="{ name: 'cards', params: route.params }">{{
            t('lineup.LineupPage.toTheBench')
          }}</RouterLink>
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
          {{
            t('lineup.LineupPage.onLighterGroundNothingTies', [
              looseCount === 1 ? t('lineup.LineupPage.oneClipLies') : t('lineup.LineupPage.clipsLie', [looseCount]),
              looseCount === 1 ? t('lineup.LineupPage.it') : t('lineup.LineupPage.them'),
            ])
          }}
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
        <div class="empty">
          <b>{{ t('lineup.LineupPage.noClipChosen') }}</b>{{ t('lineup.LineupPage.chooseOneOnTheMap') }}
        </div>
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
