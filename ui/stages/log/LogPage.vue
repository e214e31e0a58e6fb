<script setup lang="ts">
import { t } from '@/words'
import { log as logApi } from '@/api/endpoints/log'
import { screening } from '@/api/endpoints/screening'
import { useDebounceFn, useLocalStorage } from '@vueuse/core'
import { Dropdown, Modal, Popconfirm } from 'ant-design-vue'
import { computed, nextTick, ref, shallowRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { makeStale, setAnswer, useAnswer } from '@/api/queries'
import type { Column, LogClip, Take, TakeStatus } from '@/api/types'
import { length } from '@/player/time'
import AnswerState from '@/shell/AnswerState.vue'
import NamesDialog from '@/shell/NamesDialog.vue'
import PanelEdge from '@/shell/PanelEdge.vue'
import { useDesk } from '@/shell/desk'
import { useShortcuts } from '@/shell/keys'
import { listen } from '@/shell/listen'
import { attempt, say } from '@/shell/say'
import { useSession } from '@/shell/session'
import ClipPictures from './ClipPictures.vue'
import ColumnsMenu from './ColumnsMenu.vue'
import LogLine from './LogLine.vue'
import NotesDialog from './NotesDialog.vue'
import { ORDERS, rowsOf, type Order, type Row } from './rows'
import ScriptDialog from './ScriptDialog.vue'
import { columnsOf, fieldName, FLAGS, kept, runningOf, slateOf, type SheetColumn, type SlatedClip } from './sheet'
import SlateGrid from './SlateGrid.vue'
import SlatesDialog from './SlatesDialog.vue'
import TakePanel from './TakePanel.vue'
import { usePresence } from './usePresence'
import { useTakeEdits } from './useTakeEdits'

const { production, day } = useDesk()
const session = useSession()
const route = useRoute()
const router = useRouter()
const { data, isPending, error, refetch } = useAnswer(() => logApi.sheet(production.value.ulid, day.value.ulid), {
  large: true,
})
const { data: coverage } = useAnswer(() =>
  data.value === undefined ? null : logApi.scenes(production.value.ulid, day.value.ulid),
)
const edits = useTakeEdits(
  () => production.value.ulid,
  () => day.value.ulid,
  () => session.user?.ulid ?? '',
)
const mayLog = computed(() => production.value.may.work)

const order = useLocalStorage<Order>('log.order', 'slate')
const view = useLocalStorage<'rows' | 'pictures'>('log.view', 'rows')
const cursor = ref<string | null>(null)
const clip = ref<string | null>(null)
const { others, byRow } = usePresence(
  () => production.value.ulid,
  () => day.value.ulid,
  () => session.user?.ulid,
  () => cursor.value,
)
/** The day as the desk knows it, under what was typed and could not be sent yet. */
const sheet = computed(() => (data.value === undefined ? undefined : edits.over(data.value)))
const rows = computed(() =>
  sheet.value === undefined ? [] : rowsOf(sheet.value, order.value, production.value.devices, coverage.value?.scenes),
)
const row = computed(() => rows.value.find((one) => one.key === cursor.value))
const take = computed(() =>
  row.value?.kind === 'take' ? row.value.take : row.value?.kind === 'clip' ? row.value.take : null,
)
const lone = computed(() => (row.value?.kind === 'clip' ? row.value.clip : null))
const devices = computed(() => {
  const used = new Set([
    ...(data.value?.takes ?? []).flatMap((one) => one.clips.map((other) => other.device)),
    ...(data.value?.unslated ?? []).map((one) => one.device),
  ])
  return production.value.devices.filter((device) => used.has(device.letter))
})
const grid = ref<InstanceType<typeof SlateGrid> | null>(null)
const panel = ref<InstanceType<typeof TakePanel> | null>(null)
const line = ref<InstanceType<typeof LogLine> | null>(null)
const columnsMenu = ref<InstanceType<typeof ColumnsMenu> | null>(null)
const dialog = ref<'slates' | 'notes' | 'names' | 'script' | null>(null)

const summary = computed(() => {
  const takes = data.value?.takes ?? []
  const circled = takes.filter((one) => one.status === 'circled').length
  const ran = length(takes.reduce((sum, one) => sum + runningOf(one), 0))
  return t('log.LogPage.circled2', [
    takes.length,
    takes.length === 1 ? t('log.LogPage.take') : t('log.LogPage.takes'),
    circled,
    ran,
  ])
})
/** Each from its slate, on Screening. */
async function makeReel(): Promise<void> {
  const chosen = grid.value?.chosen ?? (take.value === null ? [] : [take.value])
  if (!production.value.may.organise || chosen.length === 0) return
  const made = await attempt(() =>
    screening.build(production.value.ulid, day.value.ulid, {
      from: 'takes',
      what: chosen.map((one) => one.ulid),
      circled_only: false,
    }),
  )
  if (made === undefined) return
  say(
    t('log.LogPage.aReelOfIsReady', [
      chosen.length,
      chosen.length === 1 ? t('log.LogPage.take') : t('log.LogPage.takes'),
    ]),
  )
  makeStale('sequences')
}
/** What is chosen goes to the editing team: its packing list is on Hand-off. */
function handOff(): void {
  const chosen = grid.value?.chosen ?? (take.value === null ? [] : [take.value])
  if (!production.value.may.work || chosen.length === 0) return
  void router.push({
    name: 'handoff',
    params: { production: production.value.ulid, day: day.value.ulid },
    query: { takes: chosen.map((one) => one.ulid).join(',') },
  })
}
/** All sound of the day that nobody has listened to. */
async function listenToDay(): Promise<void> {
  if (!production.value.may.organise) return
  if (await listen(production.value.ulid, day.value.ulid)) say(t('log.LogPage.whatIsSaidOnThis'))
}
const on = computed(() =>
  row.value?.kind === 'clip' ? row.value.clip.name : take.value === null ? t('log.LogPage.noRow') : slateOf(take.value),
)
const example = computed(() => {
  const one = take.value
  return one === null
    ? t('log.LogPage.n3a4WideMaraTurns')
    : [`${one.setup}/${one.take + 1} ${one.size.toLowerCase()}`.trim(), one.description].filter(Boolean).join(', ')
})

// Columns: kept on the server for this person, so that they are the same at every desk.
const { data: keptColumns } = useAnswer(() => logApi.columns(production.value.ulid))
const columns = computed(() =>
  columnsOf(devices.value, keptColumns.value?.columns ?? null, production.value.slate_style, production.value.fields),
)
const store = useDebounceFn(
  (now: Column[] | null) => void attempt(() => logApi.setColumns(production.value.ulid, { columns: now })),
  500,
)
function setColumns(now: SheetColumn[] | null): void {
  const value = now === null ? null : kept(now)
  setAnswer(logApi.columns(production.value.ulid), { columns: value })
  void store(value)
}

watch(
  [rows, () => route.query.take, () => route.query.clip],
  ([now, asked, askedClip], before) => {
    const wanted = now.find(
      (one) =>
        (asked !== undefined && one.key === asked) ||
        (askedClip !== undefined &&
          ((one.kind === 'clip' && one.key === askedClip) ||
            (one.kind === 'take' && one.take.clips.some((other) => other.ulid === askedClip)))),
    )
    const isNewAsk =
      before === undefined || before[1] !== asked || before[2] !== askedClip || (before[0]?.length ?? 0) === 0
    if (wanted !== undefined && isNewAsk) void nextTick(() => select(wanted.key))
    else if (!now.some((one) => one.key === cursor.value)) cursor.value = nearest(before?.[0] ?? [], now)
  },
  { immediate: true },
)
/**
 * Where the cursor goes when its row is gone, such as a clip that found its take: to what stood after it, else before.
 */
function nearest(old: Row[], now: Row[]): string | null {
  const left = new Set(now.filter((one) => one.kind === 'take' || one.kind === 'clip').map((one) => one.key))
  const was = old.findIndex((one) => one.key === cursor.value)
  const ordered = was < 0 ? now : [...old.slice(was), ...old.slice(0, was).reverse(), ...now]
  return ordered.find((one) => left.has(one.key))?.key ?? null
}
function select(key: string): void {
  if (grid.value !== null) grid.value.select(key)
  else cursor.value = key
}

/**
 * What this page shows of the take that a line is about, and of the clip's slate, so that nobody is overwritten unseen.
 */
function seen(slate: string | null): Record<string, unknown> {
  const one = data.value?.takes.find((other) => slateOf(other) === slate)
  const fields =
    one === undefined
      ? {}
      : {
          description: one.description,
          size: one.size,
          status: one.status,
          ...Object.fromEntries(FLAGS.map(({ field }) => [field, one[field]])),
        }
  return { ...fields, slate: row.value?.kind === 'clip' && row.value.take !== null ? slateOf(row.value.take) : null }
}
/** One slate for all (with a plus behind it, it counts on), or one each; each goes with the slate that was seen. */
async function setSlates(clips: SlatedClip[], slates: string | (string | null)[]): Promise<void> {
  const were = clips.map((one) => (one.take === null ? null : slateOf(one.take)))
  const isOne = typeof slates === 'string' && clips.length === 1
  const runs = typeof slates === 'string' && slates.endsWith('+')
  const sent = await edits.keep({
    clips: clips.map(({ clip }) => clip.ulid),
    ...(isOne || runs
      ? { slate: slates, ...(isOne ? { was: were[0] } : {}) }
      : { slates: typeof slates === 'string' ? clips.map(() => slates) : slates, were }),
  })
  if (sent?.take && order.value !== 'device' && lone.value === null) cursor.value = sent.take
}
async function circle(one: Take, now: TakeStatus): Promise<void> {
  await attempt(() => logApi.circle(production.value.ulid, one.ulid, { was: one.status, now }))
  makeStale('takes')
}
async function markClips(clips: LogClip[], as: { wild: boolean } | { false_start: boolean }): Promise<void> {
  await edits.keep({ clips: clips.map((one) => one.ulid), ...('wild' in as ? as : { slate: null, ...as }) })
}
/** After a line: the next clip without a slate where one was logged, else the take that the line made or changed. */
const awaited = shallowRef<string | null>(null)
function logged(ulid: string, of: string | null, isClip: boolean): void {
  // The live stream may have been faster: then the cursor stands on the next clip already.
  if (!isClip) awaited.value = ulid
  else if (cursor.value === of) grid.value?.move(1)
  makeStale('takes')
}
watch(rows, (now) => {
  if (awaited.value === null || !now.some((one) => one.key === awaited.value)) return
  const key = awaited.value
  awaited.value = null
  void nextTick(() => select(key))
})
watch(cursor, () => {
  if (view.value === 'rows') clip.value = null
})
function choosePicture(key: string, ulid: string): void {
  cursor.value = key
  clip.value = ulid
}
function openLine(begin = ''): void {
  if (mayLog.value) line.value?.open(begin)
}
const ask = (which: typeof dialog.value) => {
  if (mayLog.value) dialog.value = which
}

useShortcuts('Log', [
  { keys: ['b'], what: t('log.LogPage.theLogLine3a4'), run: () => openLine() },
  { keys: ['Ctrl+b'], what: t('log.LogPage.theLogLineFromA'), whileTyping: true, run: () => openLine() },
  { keys: ['n'], what: t('log.LogPage.nextTakeSetupSizeAnd'), run: () => openLine('+ ') },
  { keys: ['v'], what: t('log.LogPage.writeANote'), run: () => panel.value?.writeNote() },
  { keys: ['y'], what: t('log.LogPage.whoChangedWhatOfThis'), run: () => panel.value?.toggleHistory() },
  {
    keys: ['[', ']'],
    what: t('log.LogPage.angleBeforeAngleAfter'),
    run: (event) => panel.value?.turn(event.key === ']' ? 1 : -1),
  },
  {
    keys: ['q'],
    what: t('log.LogPage.rowsOrPictures'),
    run: () => (view.value = view.value === 'rows' ? 'pictures' : 'rows'),
  },
  {
    keys: ['z'],
    what: t('log.LogPage.slateOrderAsShotBy'),
    run: () => (order.value = ORDERS[(ORDERS.findIndex((one) => one.key === order.value) + 1) % ORDERS.length]!.key),
  },
  { keys: ['s'], what: t('log.LogPage.readSlates'), run: () => ask('slates') },
  { keys: ['u'], what: t('log.LogPage.scriptNotesAndReports'), run: () => ask('notes') },
  { keys: ['a'], what: t('log.LogPage.names2'), run: () => ask('names') },
  { keys: ['Alt+t'], what: t('log.LogPage.script2'), run: () => ask('script') },
  { keys: ['Alt+w'], what: t('log.LogPage.aReviewReelOfThe'), run: () => void makeReel() },
  { keys: ['Alt+p'], what: t('log.LogPage.handOffTheChosenTakes'), run: handOff },
  { keys: ['Alt+l'], what: t('log.LogPage.findWhatIsSaidOn'), run: () => void listenToDay() },
  { keys: ['Alt+k'], what: t('log.LogPage.columns'), run: () => view.value === 'rows' && columnsMenu.value?.show() },
])
</script>

<template>
  <AnswerState :pending="isPending" :error="data === undefined ? error : null" :rows="14" @retry="refetch()">
    <div v-if="data" class="split">
      <PanelEdge stage="log" :usual="372" />
      <section class="left">
        <div class="bar">
          <span class="two" role="radiogroup" :aria-label="t('log.LogPage.view')"
            ><button
              role="radio"
              :aria-checked="view === 'rows'"
              :class="{ on: view === 'rows' }"
              :title="t('log.LogPage.rowsQ')"
              @click="view = 'rows'"
            >
              {{ t('log.LogPage.slateSheet') }}</button
            ><button
              role="radio"
              :aria-checked="view === 'pictures'"
              :class="{ on: view === 'pictures' }"
              :title="t('log.LogPage.picturesQ')"
              @click="view = 'pictures'"
            >
              {{ t('log.LogPage.pictures') }}
            </button></span
          >
          <select v-model="order" class="order" :aria-label="t('log.LogPage.order')" :title="t('log.LogPage.orderZ')">
            <option v-for="one in ORDERS" :key="one.key" :value="one.key">{{ one.title }}</option>
          </select>
          <template v-if="mayLog">
            <button class="plain" :title="t('log.LogPage.fromTheRecordersFieldsAnd')" @click="ask('slates')">
              {{ t('log.LogPage.readSlates') }}
            </button>
            <button class="plain" :title="t('log.LogPage.scriptNotesAndReportsU')" @click="ask('notes')">
              {{ t('log.LogPage.scriptNotes') }}
            </button>
            <Dropdown :trigger="['click']">
              <button class="plain" :aria-label="t('log.LogPage.more')">{{ t('log.LogPage.more2') }}</button>
              <template #overlay
                ><div class="drop">
                  <button @click="ask('names')">{{ t('log.LogPage.names') }} <kbd>A</kbd></button
                  ><button @click="ask('script')">{{ t('log.LogPage.script') }} <kbd>Alt T</kbd></button
                  ><button @click="makeReel">{{ t('log.LogPage.reviewReelOfTheChosen') }} <kbd>Alt W</kbd></button>
                  <button v-if="production.may.work" @click="handOff">
                    {{ t('log.LogPage.handOffTheChosenTakes') }} <kbd>Alt P</kbd>
                  </button>
                  <button v-if="production.may.organise" @click="listenToDay">
                    {{ t('log.LogPage.findWhatIsSaidOn') }} <kbd>Alt L</kbd>
                  </button>
                  <router-link :to="{ name: 'script', params: route.params }">{{
                    t('log.LogPage.scriptAndReads')
                  }}</router-link>
                </div></template
              >
            </Dropdown>
          </template>
          <ColumnsMenu
            v-if="view === 'rows'"
            ref="columnsMenu"
            :columns="columns"
            @columns="setColumns"
            @reset="setColumns(null)"
          />
          <span class="push soft"
            ><span
              v-for="one in others.values()"
              :key="one.who"
              class="met"
              :title="t('log.LogPage.logsHereToo', [one.name])"
              >{{ one.initials }}</span
            >{{ summary }}</span
          >
        </div>
        <p v-if="edits.waiting.value > 0" class="note warn waiting" role="status">
          <span
            ><b>{{ edits.why.value || t('log.LogPage.notSentYet') }}</b>
            {{
              t('log.LogPage.keptOnThisMachineAnd', [
                edits.waiting.value,
                edits.waiting.value === 1 ? t('log.LogPage.entryIs') : t('log.LogPage.entriesAre'),
                edits.waiting.value === 1 ? t('log.LogPage.it') : t('log.LogPage.them'),
              ])
            }}</span
          >
          <button class="plain go" @click="edits.sendAgain()">{{ t('log.LogPage.sendNow') }}</button>
          <Popconfirm
            :title="t('log.LogPage.whatYouTypedIsLost')"
            placement="bottomRight"
            :ok-text="t('log.LogPage.doNotSend')"
            :cancel-text="t('log.LogPage.keep')"
            @confirm="edits.forget()"
            ><button class="plain">{{ t('log.LogPage.doNotSend2') }}</button></Popconfirm
          >
        </p>
        <div v-if="rows.length === 0" class="empty">
          <b>{{ t('log.LogPage.noClipOfThisDay') }}</b>{{ t('log.LogPage.offloadACardFirstIts') }}<br /><RouterLink
            :to="{ name: 'cards', params: route.params }"
            ><button class="go">{{ t('log.LogPage.toTheBench') }}</button></RouterLink
          >
        </div>
        <SlateGrid
          v-else-if="view === 'rows'"
          ref="grid"
          v-model:cursor="cursor"
          :rows="rows"
          :production="production"
          :order="order"
          :columns="columns"
          :may-log="mayLog"
          :colleagues="byRow"
          :waiting="edits.slates.value"
          @edit="(all) => edits.changeAll(all)"
          @circle="circle"
          @slates="setSlates"
          @mark="markClips"
          @columns="setColumns"
        />
        <ClipPictures
          v-else
          :rows="rows"
          :rate="production.rate"
          :production="production.ulid"
          :cursor="cursor"
          :clip="clip ?? take?.clips[0]?.ulid ?? lone?.ulid ?? null"
          @choose="choosePicture"
        />
        <LogLine
          v-if="mayLog"
          ref="line"
          :row="cursor"
          :seen="seen"
          :is-clip="lone !== null && take === null"
          :on="on"
          :example="example"
          @logged="logged"
          @leave="grid?.focus()"
          @move="(step) => grid?.move(step)"
          ><kbd>N</kbd> {{ t('log.LogPage.nextTake') }} <kbd>C</kbd> {{ t('log.LogPage.circled') }} <kbd>X</kbd>
          {{ t('log.LogPage.ng') }} <kbd>D</kbd> {{ t('log.LogPage.asAbove') }} <kbd>V</kbd>
          {{ t('log.LogPage.note') }}</LogLine
        >
        <div v-else class="foot soft">
          <kbd>C</kbd> {{ t('log.LogPage.circled') }} <kbd>Space</kbd> {{ t('log.LogPage.play') }} <kbd>[</kbd
          ><kbd>]</kbd> {{ t('log.LogPage.angle') }}
        </div>
      </section>
      <TakePanel
        ref="panel"
        :take="take"
        :clip="lone"
        :want="clip"
        :may-log="mayLog"
        @change="(one, values) => edits.change(one, values)"
      />
      <SlatesDialog :open="dialog === 'slates'" @close="dialog = null" />
      <NotesDialog :open="dialog === 'notes'" @close="dialog = null" @go="select" />
      <NamesDialog
        :open="dialog === 'names'"
        :takes="data.takes"
        :chosen="grid?.chosen ?? (take ? [take] : [])"
        @close="dialog = null"
      />
      <ScriptDialog :open="dialog === 'script'" @close="dialog = null" />
      <Modal
        :open="edits.conflict.value !== null"
        :title="t('log.LogPage.twoPeopleChangedTheSame')"
        :footer="null"
        @cancel="edits.settle(false)"
      >
        <template v-if="edits.conflict.value">
          <p class="soft">
            {{ t('log.LogPage.of', [fieldName(production.fields, edits.conflict.value.field)]) }}
            <b class="mono">{{ edits.conflict.value.label }}</b>{{ t('log.LogPage.nothingIsLostChooseWhich') }}
          </p>
          <dl class="both">
            <dt>{{ t('log.LogPage.yours') }}</dt>
            <dd>{{ edits.conflict.value.yours || '—' }}</dd>
            <dt>{{ t('log.LogPage.theirs') }}</dt>
            <dd>{{ edits.conflict.value.theirs || '—' }}</dd>
          </dl>
          <div class="answers">
            <button v-if="edits.left.value > 1" class="plain" @click="edits.settle(false, true)">
              {{ t('log.LogPage.theirsForAll', [edits.left.value]) }}</button><button
              v-if="edits.left.value > 1"
              class="plain"
              @click="edits.settle(true, true)"
            >
              {{ t('log.LogPage.mineForAll', [edits.left.value]) }}
            </button>
            <button class="plain" @click="edits.settle(false)">{{ t('log.LogPage.keepTheirs') }}</button><button
              class="go ant-btn-primary"
              @click="edits.settle(true)"
            >
              {{ t('log.LogPage.useMine') }}
            </button>
          </div>
        </template>
      </Modal>
    </div>
  </AnswerState>
</template>

<style scoped>
.split {
  position: relative;
  display: grid;
  grid-template-columns: minmax(0, 1fr) var(--panel, 372px);
  grid-template-rows: minmax(0, 1fr);
  height: 100%;
}
.waiting {
  display: flex;
  gap: 12px;
  align-items: center;
  margin: 6px 10px;
}
.waiting span {
  margin-right: auto;
}
.left {
  display: grid;
  grid-template-rows: auto auto minmax(0, 1fr) auto;
  min-width: 0;
  min-height: 0;
}
.left > :not(.bar, .waiting, :last-child) {
  grid-row: 3;
}
.left > :last-child {
  grid-row: 4;
}
.bar {
  padding: 8px 14px;
  gap: 7px;
}
.two {
  display: inline-flex;
  border: 1px solid var(--rule-strong);
  border-radius: 5px;
  overflow: hidden;
}
.two button {
  border: 0;
  background: var(--sheet);
  padding: 4px 11px;
  font-weight: 500;
  font-size: 12px;
  min-height: 26px;
  cursor: pointer;
}
.two .on {
  background: var(--ink);
  color: var(--sheet);
  font-weight: 600;
}
.order {
  font: inherit;
  font-size: 12px;
  height: 28px;
  border: 1px solid var(--rule-strong);
  border-radius: 5px;
  background: var(--sheet);
  color: var(--ink);
  padding: 0 4px;
}
.met {
  font: 600 10px/17px 'IBM Plex Sans';
  background: var(--info);
  color: #fff;
  border-radius: 9px;
  padding: 0 6px;
  margin-right: 6px;
}
.foot {
  border-top: 1px solid var(--rule-strong);
  background: var(--sheet-2);
  display: flex;
  align-items: center;
  gap: 6px;
  padding: 0 14px;
  font-size: 12px;
  height: 44px;
}
.both {
  display: grid;
  grid-template-columns: 70px 1fr;
  gap: 6px;
}
.both dd {
  margin: 0;
  font-weight: 600;
  overflow-wrap: anywhere;
}
.answers {
  display: flex;
  gap: 8px;
  justify-content: flex-end;
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
