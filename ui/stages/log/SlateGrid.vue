<script setup lang="ts">
import { t } from '@/words'
import { useEventListener } from '@vueuse/core'
import { computed, ref, toRef, watch } from 'vue'
import { words as wordsApi } from '@/api/endpoints/words'
import { useAnswer } from '@/api/queries'
import type { LogClip, Production, Take, TakeStatus } from '@/api/types'
import { isElsewhere, useClipboard } from '@/grid/clipboard'
import { stuckAt } from '@/grid/columns'
import GridHead from '@/grid/GridHead.vue'
import { useRange } from '@/grid/range'
import { useRows } from '@/grid/rows'
import { length } from '@/player/time'
import { useDesk } from '@/shell/desk'
import DeviceBadge from '@/shell/DeviceBadge.vue'
import { useShortcuts } from '@/shell/keys'
import TakeNumber from '@/shell/TakeNumber.vue'
import type { Order, Row } from './rows'
import type { Edit, SheetColumn, SlatedClip } from './sheet'
import TakeCells from './TakeCells.vue'
import { useCellEdit } from './useCellEdit'
import type { Colleague } from './usePresence'
import { useSheetMarks } from './useSheetMarks'

/**
 * The slate sheet as a grid: one cell has the cursor, a range can be chosen, words are typed straight into their cells.
 */
const props = defineProps<{
  rows: Row[]
  production: Production
  order: Order
  columns: SheetColumn[]
  mayLog: boolean
  colleagues: Map<string, Colleague[]>
  /** Slates that were typed and could not be sent yet, by clip. */
  waiting: Map<string, string>
}>()
const cursor = defineModel<string | null>('cursor', { required: true })
const emit = defineEmits<{
  edit: [edits: Edit[]]
  circle: [take: Take, now: TakeStatus]
  slates: [clips: SlatedClip[], slates: string | (string | null)[]]
  mark: [clips: LogClip[], as: { wild: boolean } | { false_start: boolean }]
  columns: [columns: SheetColumn[]]
}>()

const { day } = useDesk()
/** How much of each scene's script was said. */
const { data: sums } = useAnswer(() => wordsApi.sums(props.production.ulid, day.value.ulid))
const saidOf = (scene: string) => sums.value?.scenes[scene]

const ROW = 31
const EDGE = 10
const GAP = 6
const rows = toRef(props, 'rows')
const shown = computed(() => props.columns.filter((column) => column.shown))
const box = ref<HTMLElement | null>(null)
const template = computed(() =>
  shown.value
    .map((column) => (column.key === 'description' ? `minmax(${column.width}px, 1fr)` : `${column.width}px`))
    .join(' '),
)
const least = computed(() => shown.value.reduce((sum, column) => sum + column.width + GAP, 2 * EDGE))
const stuck = computed(() => stuckAt(shown.value, EDGE, GAP))

const isHead = (at: number) => rows.value[at]?.kind !== 'take' && rows.value[at]?.kind !== 'clip'
const range = useRange({
  rows,
  columns: computed(() => shown.value.map((one) => one.key)),
  home: 'take',
  cursor,
  passes: isHead,
})
const { column, columnAt, index: rowIndex, has } = range
const row = computed<Row | undefined>(() => rows.value[range.at.value])
const takesIn = (top: number, bottom: number): Take[] =>
  rows.value.slice(top, bottom + 1).flatMap((one) => (one.kind === 'take' ? [one.take] : []))
const chosenClips = computed(() =>
  rows.value
    .slice(range.range.value.top, range.range.value.bottom + 1)
    .flatMap((one) => (one.kind === 'clip' ? [{ clip: one.clip, take: one.take }] : [])),
)
const chosenTakes = computed(() => takesIn(range.range.value.top, range.range.value.bottom))
const chosenKeys = computed(() =>
  shown.value.slice(range.range.value.left, range.range.value.right + 1).map((one) => one.key),
)
watch(
  () => props.columns,
  () => {
    if (!shown.value.some((one) => one.key === column.value)) column.value = 'take'
  },
)

const {
  list,
  containerProps,
  wrapperProps,
  reveal: revealRow,
} = useRows(rows, ROW, {
  overscan: 6,
  heads: 1,
  key: (one) => one.key,
})
function reveal(): void {
  revealRow(range.at.value, (scroll) => {
    const one = shown.value[columnAt.value]
    const cell = box.value?.querySelector<HTMLElement>('.cur')
    if (one === undefined || one.frozen || scroll.scrollWidth <= scroll.clientWidth || cell == null) return
    const widths = new Map(shown.value.map((other) => [other.key, other.width]))
    const edge = Math.max(...Object.entries(stuck.value).map(([key, left]) => left + (widths.get(key) ?? 0))) + 12
    if (cell.offsetLeft < scroll.scrollLeft + edge) scroll.scrollLeft = cell.offsetLeft - edge
    else if (cell.offsetLeft + cell.offsetWidth > scroll.scrollLeft + scroll.clientWidth)
      scroll.scrollLeft = cell.offsetLeft + cell.offsetWidth - scroll.clientWidth + 12
  })
}
function select(key: string, extend = false): void {
  range.select(key, extend)
  reveal()
}
function move(step: number, extend = false): boolean {
  const moved = range.move(step, extend)
  if (moved) reveal()
  return moved
}
function sideways(step: number, extend = false): void {
  range.sideways(step, extend)
  reveal()
}
/** As many rows as are seen, less one that stays in sight. */
function pageOn(step: number, extend: boolean): void {
  const page = Math.max(1, Math.floor((containerProps.ref.value?.clientHeight ?? 16 * ROW) / ROW) - 2)
  for (let n = 0; n < page && range.move(step, extend); n++);
  reveal()
}
function toEnd(step: number, extend: boolean): void {
  const last = step > 0 ? rows.value.findLast((_, at) => !isHead(at)) : rows.value.find((_, at) => !isHead(at))
  if (last !== undefined) select(last.key, extend)
}
function click(one: Row, key: string | null, event: MouseEvent): void {
  if (one.kind !== 'take' && one.kind !== 'clip') return
  // What is held is the column from which the range began.
  if (event.shiftKey) range.anchor.value ??= { key: cursor.value ?? one.key, column: column.value }
  if (key !== null) column.value = key
  select(one.key, event.shiftKey)
}

const typing = useCellEdit({
  box,
  row: () => row.value,
  rowOf: (key) => rows.value.find((one) => one.key === key),
  shown: () => shown.value,
  column,
  columnAt: () => columnAt.value,
  mayLog: () => props.mayLog,
  production: () => props.production,
  begin: () => (range.anchor.value = null),
  moveDown: () => void move(1),
  edit: (edits) => emit('edit', edits),
  chosen: () => (chosenClips.value.length > 1 && chosenTakes.value.length === 0 ? chosenClips.value : []),
  slates: (clips, text) => emit('slates', clips, text),
})
const { editing, draft } = typing
const marks = useSheetMarks({
  takes: () => chosenTakes.value,
  above: () => takesIn(0, range.range.value.top - 1),
  onwards: () => takesIn(range.range.value.top, rows.value.length - 1),
  keys: () => chosenKeys.value,
  left: () => range.range.value.left,
  shown: () => shown.value,
  clips: () => (chosenTakes.value.length === 0 ? chosenClips.value : []),
  clipsOnwards: () =>
    rows.value
      .slice(range.range.value.top)
      .flatMap((one) => (one.kind === 'clip' ? [{ clip: one.clip, take: one.take }] : [])),
  clipAbove: () => {
    const above = rows.value[range.range.value.top - 1]
    return above?.kind === 'clip' ? { clip: above.clip, take: above.take } : undefined
  },
  isTake: () => row.value?.kind === 'take',
  mayLog: () => props.mayLog,
  production: () => props.production,
  edit: (edits) => emit('edit', edits),
  circle: (take, now) => emit('circle', take, now),
  slates: (clips, slates) => emit('slates', clips, slates),
  markClips: (clips, as) => emit('mark', clips, as),
})
useClipboard(marks.copied, marks.paste)
// On a column of words letters type; this comes before they are marks.
useEventListener(
  window,
  'keydown',
  (event: KeyboardEvent) => {
    const one = shown.value[columnAt.value]
    const isLetter = event.key.length === 1 && event.key !== ' ' && event.key !== '?'
    if (!isLetter || event.ctrlKey || event.metaKey || event.altKey || isElsewhere(event)) return
    const target = event.target as HTMLElement
    const isOurs = target === document.body || box.value?.contains(target) === true
    if (!props.mayLog || one?.words !== true || row.value?.kind !== 'take' || !isOurs) return
    event.preventDefault()
    event.stopImmediatePropagation()
    typing.open(one.key, event.key)
  },
  { capture: true },
)
/** A clip in the chosen range; of takes the cells show it. */
const isAmong = (one: Row) =>
  one.kind === 'clip' && range.anchor.value !== null && has(rowIndex.value.get(one.key) ?? -1, columnAt.value)
const who = (key: string) => props.colleagues.get(key) ?? []

useShortcuts('Slate sheet', [
  {
    keys: ['ArrowDown', 'ArrowUp'],
    what: t('log.SlateGrid.nextRowTheOneBefore'),
    run: (event) => void move(event.key === 'ArrowDown' ? 1 : -1),
  },
  {
    keys: ['ArrowRight', 'ArrowLeft'],
    what: t('log.SlateGrid.nextColumnTheOneBefore'),
    run: (event) => sideways(event.key === 'ArrowRight' ? 1 : -1),
  },
  {
    keys: ['Shift+ArrowDown', 'Shift+ArrowUp', 'Shift+ArrowRight', 'Shift+ArrowLeft'],
    what: t('log.SlateGrid.chooseARange'),
    run: (event) =>
      event.key === 'ArrowDown' || event.key === 'ArrowUp'
        ? void move(event.key === 'ArrowDown' ? 1 : -1, true)
        : sideways(event.key === 'ArrowRight' ? 1 : -1, true),
  },
  {
    keys: ['PageDown', 'PageUp', 'Shift+PageDown', 'Shift+PageUp'],
    what: t('log.SlateGrid.aPageOnAPage'),
    run: (event) => pageOn(event.key === 'PageDown' ? 1 : -1, event.shiftKey),
  },
  {
    keys: ['Ctrl+End', 'Ctrl+Home', 'Ctrl+Shift+End', 'Ctrl+Shift+Home'],
    what: t('log.SlateGrid.theLastRowTheFirst'),
    run: (event) => toEnd(event.key === 'End' ? 1 : -1, event.shiftKey),
  },
  {
    keys: ['Enter', 'F2'],
    what: t('log.SlateGrid.typeInTheCellElse'),
    run: () => typing.open(),
  },
  { keys: ['r'], what: t('log.SlateGrid.changeSetupAndTake'), run: () => typing.open('slate') },
  { keys: ['c'], what: t('log.SlateGrid.circledOrNot'), run: () => marks.mark('circled') },
  { keys: ['h'], what: t('log.SlateGrid.holdOrNot'), run: () => marks.mark('hold') },
  { keys: ['x'], what: t('log.SlateGrid.ngOrNot'), run: () => marks.mark('ng') },
  { keys: ['m'], what: t('log.SlateGrid.mosOrNot'), run: () => marks.flag('is_mos') },
  { keys: ['t'], what: t('log.SlateGrid.tailSlateOrNot'), run: () => marks.flag('is_tail_slate') },
  { keys: ['f'], what: t('log.SlateGrid.falseStartOrNot'), run: () => marks.flag('is_false_start') },
  { keys: ['w'], what: t('log.SlateGrid.wildOrNot'), run: () => marks.flag('is_wild') },
  { keys: ['p'], what: t('log.SlateGrid.pickUpOrNot'), run: () => marks.flag('is_pickup') },
  { keys: ['d'], what: t('log.SlateGrid.sameAsAbove'), run: marks.sameAsAbove },
  { keys: ['Ctrl+d'], what: t('log.SlateGrid.fillTheRangeDownFrom'), run: marks.fillDown },
  { keys: ['Delete', 'Backspace'], what: t('log.SlateGrid.emptyTheChosenCells'), run: marks.clear },
  {
    keys: ['Ctrl+c', 'Ctrl+v'],
    what: t('log.SlateGrid.copyCellsPasteThemTo'),
    run: () => undefined,
    leaveToBrowser: true,
  },
])
defineExpose({ select, move, focus: () => box.value?.focus(), chosen: chosenTakes })
</script>

<template>
  <div
    ref="box"
    class="sheet"
    tabindex="-1"
    role="grid"
    :aria-label="t('log.SlateGrid.slateSheet')"
    :aria-rowcount="rows.length"
  >
    <div
      v-bind="containerProps"
      class="scroll"
      :style="{ '--cols': template, '--least': order === 'device' ? '0' : `${least}px` }"
    >
      <div v-if="order === 'device'" class="row heads bydevice" role="row">
        <span role="columnheader">{{ t('log.SlateGrid.slate') }}</span><span role="columnheader">{{
          t('log.SlateGrid.clip')
        }}</span
        ><span role="columnheader">{{ t('log.SlateGrid.length') }}</span
        ><span role="columnheader">{{ t('log.SlateGrid.size') }}</span
        ><span role="columnheader">{{ t('log.SlateGrid.whatHappens') }}</span>
      </div>
      <GridHead v-else :columns="columns" :stuck="stuck" @columns="emit('columns', $event)">
        <template #default="{ column: one }"
          ><DeviceBadge v-if="one.key.startsWith('device:')" :letter="one.key.slice(7)" /> {{ one.title }}</template
        >
      </GridHead>
      <div v-bind="wrapperProps">
        <div
          v-for="{ data: one } in list"
          :key="one.key"
          class="row"
          role="row"
          :class="[one.kind, { on: one.key === cursor, met: who(one.key).length > 0, among: isAmong(one) }]"
          :aria-selected="one.key === cursor"
          :data-row="one.key"
          @click="click(one, null, $event)"
          @dblclick="typing.open()"
        >
          <template v-if="one.kind === 'scene'">
            <span role="gridcell" class="mono">{{ one.scene }}</span><b role="gridcell">{{ one.facts?.heading }}</b>
            <small role="gridcell"
              >{{ one.setups }} {{ one.setups === 1 ? t('log.SlateGrid.setup') : t('log.SlateGrid.setups') }} ·
              {{ one.takes }} {{ one.takes === 1 ? t('log.SlateGrid.take') : t('log.SlateGrid.takes')
              }}<template v-if="one.facts">
                {{ ' '
                }}{{ t('log.SlateGrid.circled', [one.facts.circled, length(one.facts.running_ticks)]) }}</template
              ><template v-if="one.facts && one.facts.days > 1">
                {{ ' ' }}{{ t('log.SlateGrid.onDays', [one.facts.days]) }}</template
              ></small
            >
            <span v-if="(saidOf(one.scene)?.reads ?? 0) > 0" role="gridcell"
              ><router-link
                class="soft"
                :to="{
                  name: 'script',
                  params: { production: production.ulid, day: day.ulid },
                  query: { scene: one.scene },
                }"
                :title="t('log.SlateGrid.readsOfItsLines', [saidOf(one.scene)?.reads])"
                @click.stop
                ><small>{{
                  t('log.SlateGrid.ofLinesHeard', [saidOf(one.scene)?.said, saidOf(one.scene)?.lines])
                }}</small></router-link
              ></span
            >
            <small v-if="one.facts?.pages" role="gridcell" class="script" :title="one.facts.characters.join(', ')"
              >{{ t('log.SlateGrid.scriptP', [one.facts.pages])
              }}<template v-if="one.facts.characters.length">
                · {{ one.facts.characters.slice(0, 3).join(', ')
                }}{{ one.facts.characters.length > 3 ? ' …' : '' }}</template
              ></small
            >
          </template>
          <template v-else-if="one.kind === 'rest'"
            ><DeviceBadge v-if="one.device" role="gridcell" :letter="one.device" /><b role="gridcell">{{ one.title }}</b
            ><small role="gridcell">{{ one.note }}</small></template
          >
          <TakeCells
            v-else-if="one.kind === 'take'"
            v-model:draft="draft"
            :take="one.take"
            :repeats="one.repeats"
            :shown="shown"
            :stuck="stuck"
            :is-on="one.key === cursor"
            :column="column"
            :editing="editing?.key === one.key ? editing.column : null"
            :is-chosen="(at) => has(rowIndex.get(one.key) ?? -1, at)"
            :who="who(one.key)"
            :production="production"
            @choose="(key, event) => click(one, key, event)"
            @commit="typing.commit"
            @leave="typing.leave"
          />
          <template v-else>
            <input
              v-if="editing?.key === one.key"
              v-model="draft"
              class="field edit mono"
              placeholder="3B/1"
              :title="chosenClips.length > 1 ? t('log.SlateGrid.n3b1IsTheSlate') : undefined"
              :aria-label="t('log.SlateGrid.slate')"
              maxlength="41"
              @keydown.enter.stop.prevent="typing.commit('down')"
              @keydown.esc.stop="typing.leave"
              @blur="editing && typing.commit('stay')"
            />
            <span
              v-else-if="waiting.has(one.clip.ulid)"
              role="gridcell"
              class="mono soft"
              :title="t('log.SlateGrid.notSentYet')"
              >{{ waiting.get(one.clip.ulid) }}</span
            >
            <span v-else-if="one.take" role="gridcell" class="slate"
              ><b class="mono">{{ one.take.setup }}</b
              ><TakeNumber :take="one.take.take" :part="one.take.part" :status="one.take.status"
            /></span>
            <span v-else role="gridcell" class="faint">{{
              one.clip.is_wild
                ? t('log.SlateGrid.wild')
                : one.clip.is_false_start
                  ? t('log.SlateGrid.falseStart')
                  : t('log.SlateGrid.noSlate')
            }}</span>
            <span role="gridcell" class="clipcell"
              ><DeviceBadge :letter="one.clip.device" /><span class="mono clip" :title="one.clip.file">{{
                one.clip.name
              }}</span
              ><i
                v-for="other in who(one.key)"
                :key="other.who"
                class="here"
                :title="t('log.SlateGrid.isOnThisRow', [other.name])"
                >{{ other.initials }}</i
              ></span
            >
            <span role="gridcell" class="mono soft">{{ length(one.clip.duration_ticks) }}</span>
            <span role="gridcell" class="text soft">{{ one.take?.size }}</span>
            <span role="gridcell" class="clipcell"
              ><span v-if="one.take" class="text">{{ one.take.description }}</span
              ><em v-if="one.clip.problems.length" class="fault">{{ one.clip.problems[0] }}</em></span
            >
          </template>
        </div>
      </div>
    </div>
  </div>
</template>

<style scoped>
.row.clip.among {
  background: var(--act-soft);
}
.sheet {
  min-width: 0;
  min-height: 0;
  overflow: hidden;
  outline: none;
}
.scroll {
  height: 100%;
  overflow: auto !important;
  scrollbar-gutter: stable;
  container-type: inline-size;
}
.row {
  display: grid;
  grid-template-columns: var(--cols);
  gap: 0 6px;
  align-items: center;
  height: 31px;
  padding: 0 10px;
  border-bottom: 1px solid var(--rule);
  white-space: nowrap;
  cursor: default;
  min-width: var(--least);
  background: var(--sheet);
}
.heads {
  font-size: 11px;
  color: var(--ink-soft);
  background: var(--sheet-2);
  border-bottom-color: var(--rule-strong);
  position: sticky;
  top: 0;
  z-index: 3;
}
.scene,
.rest {
  background: #f6efdf;
  border-bottom-color: var(--rule-strong);
  display: flex;
  gap: 10px;
  position: sticky;
  left: 0;
  width: 100cqw;
  min-width: 0;
}
.scene b,
.rest b {
  font-weight: 600;
}
.scene > .mono {
  font-weight: 600;
}
.row small {
  color: var(--ink-soft);
  font-size: 12px;
}
.scene .script {
  margin-left: auto;
}
.row.on {
  background: var(--act-soft);
  box-shadow: inset 3px 0 0 var(--act);
}
.here {
  font: 600 9px/15px 'IBM Plex Sans';
  background: var(--info);
  color: #fff;
  border-radius: 8px;
  padding: 0 5px;
  flex: none;
}
.met {
  box-shadow: inset -3px 0 0 var(--info);
}
.row.on.met {
  box-shadow:
    inset 3px 0 0 var(--act),
    inset -3px 0 0 var(--info);
}
.clipcell em {
  font-style: normal;
  font-size: 11px;
  color: var(--ink-soft);
}
.clip {
  font-size: 12px;
  overflow: hidden;
  text-overflow: ellipsis;
}
.faint {
  color: var(--ink-faint);
  font-size: 12px;
}
.text {
  font-size: 12px;
  overflow: hidden;
  text-overflow: ellipsis;
}
.row.clip,
.row.bydevice {
  grid-template-columns: 96px minmax(150px, 220px) 52px 76px minmax(0, 1fr);
}
.row.clip {
  font-size: 13px;
}
.slate {
  display: flex;
  align-items: center;
  gap: 4px;
}
.slate b {
  font-weight: 600;
  min-width: 40px;
}
.clipcell {
  display: flex;
  align-items: center;
  gap: 8px;
  min-width: 0;
  overflow: hidden;
}
.edit {
  height: 25px;
}
</style>
