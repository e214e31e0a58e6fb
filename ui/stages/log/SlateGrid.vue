<script setup lang="ts">
import { useEventListener, useVirtualList } from '@vueuse/core'
import { computed, nextTick, ref, shallowRef, watch } from 'vue'
import type { LogClip, Production, Take, TakeStatus } from '@/api/types'
import { length } from '@/player/time'
import DeviceBadge from '@/shell/DeviceBadge.vue'
import { isTyping, useShortcuts } from '@/shell/keys'
import { complain } from '@/shell/say'
import TakeNumber from '@/shell/TakeNumber.vue'
import { ApiError } from '@/api/client'
import { holeOf, syncOf, type Order, type Row } from './rows'
import {
  cellText,
  fromTsv,
  marksOf,
  pasted,
  runningOf,
  slateFrom,
  slateOf,
  toTsv,
  valuesFor,
  type Edit,
  type Flag,
  type SheetColumn,
} from './sheet'
import type { Colleague } from './usePresence'

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
  cursor: string | null
}>()
const emit = defineEmits<{
  'update:cursor': [key: string | null]
  edit: [edits: Edit[]]
  circle: [take: Take, now: TakeStatus]
  slate: [clip: LogClip, text: string]
  falseStart: [clip: LogClip]
  columns: [columns: SheetColumn[]]
}>()

const ROW = 31
const rows = computed(() => props.rows)
const shown = computed(() => props.columns.filter((column) => column.shown))
const { list, containerProps, wrapperProps } = useVirtualList(rows, { itemHeight: ROW, overscan: 6 })
const box = ref<HTMLElement | null>(null)
const template = computed(() =>
  shown.value
    .map((column) => (column.key === 'description' ? `minmax(${column.width}px, 1fr)` : `${column.width}px`))
    .join(' '),
)
const least = computed(() => shown.value.reduce((sum, column) => sum + column.width + 6, 20))
const stuck = computed(() => {
  let left = 10
  return Object.fromEntries(
    shown.value
      .filter((column) => column.frozen)
      .map((column) => [column.key, (left += column.width + 6) - column.width - 6]),
  )
})

const at = computed(() => rows.value.findIndex((row) => row.key === props.cursor))
const row = computed<Row | undefined>(() => rows.value[at.value])
const column = ref('take')
const columnAt = computed(() =>
  Math.max(
    0,
    shown.value.findIndex((one) => one.key === column.value),
  ),
)
/** The other end of a chosen range; null while only the cursor's own cell is. */
const anchor = shallowRef<{ key: string; column: number } | null>(null)
const range = computed(() => {
  const other = anchor.value === null ? -1 : rows.value.findIndex((one) => one.key === anchor.value?.key)
  const from = other < 0 ? at.value : other
  const side = anchor.value?.column ?? columnAt.value
  return {
    top: Math.min(from, at.value),
    bottom: Math.max(from, at.value),
    left: Math.min(side, columnAt.value),
    right: Math.max(side, columnAt.value),
  }
})
const takesIn = (top: number, bottom: number): Take[] =>
  rows.value.slice(top, bottom + 1).flatMap((one) => (one.kind === 'take' ? [one.take] : []))
const chosenTakes = computed(() => takesIn(range.value.top, range.value.bottom))
const chosenKeys = computed(() => shown.value.slice(range.value.left, range.value.right + 1).map((one) => one.key))
const isChosen = (rowAt: number, columnIndex: number): boolean =>
  anchor.value !== null &&
  rowAt >= range.value.top &&
  rowAt <= range.value.bottom &&
  columnIndex >= range.value.left &&
  columnIndex <= range.value.right
const rowIndex = computed(() => new Map(rows.value.map((one, index) => [one.key, index])))

watch(
  () => props.columns,
  () => {
    if (!shown.value.some((one) => one.key === column.value)) column.value = 'take'
  },
)

function reveal(): void {
  void nextTick(() => {
    const scroll = containerProps.ref.value
    if (scroll === null) return
    const top = at.value * ROW
    if (top < scroll.scrollTop + ROW) scroll.scrollTop = Math.max(0, top - 2 * ROW)
    else if (top > scroll.scrollTop + scroll.clientHeight - 2 * ROW)
      scroll.scrollTop = top - scroll.clientHeight + 3 * ROW
    const one = shown.value[columnAt.value]
    if (one === undefined || one.frozen || scroll.scrollWidth <= scroll.clientWidth) return
    const cell = box.value?.querySelector<HTMLElement>('.cur')
    if (cell === null || cell === undefined) return
    const stuckTo =
      Math.max(
        ...Object.entries(stuck.value).map(
          ([key, left]) => left + (shown.value.find((other) => other.key === key)?.width ?? 0),
        ),
      ) + 12
    if (cell.offsetLeft < scroll.scrollLeft + stuckTo) scroll.scrollLeft = cell.offsetLeft - stuckTo
    else if (cell.offsetLeft + cell.offsetWidth > scroll.scrollLeft + scroll.clientWidth)
      scroll.scrollLeft = cell.offsetLeft + cell.offsetWidth - scroll.clientWidth + 12
  })
}
function select(key: string, extend = false): void {
  if (extend) anchor.value ??= { key: props.cursor ?? key, column: columnAt.value }
  else anchor.value = null
  emit('update:cursor', key)
  reveal()
}
function move(step: number, extend = false): boolean {
  let next = at.value
  do next += step
  while (rows.value[next] !== undefined && rows.value[next]?.kind !== 'take' && rows.value[next]?.kind !== 'clip')
  const target = rows.value[next]
  if (target === undefined) return false
  select(target.key, extend)
  return true
}
function sideways(step: number, extend = false): void {
  if (extend) anchor.value ??= { key: props.cursor ?? '', column: columnAt.value }
  else anchor.value = null
  column.value = shown.value[Math.min(Math.max(columnAt.value + step, 0), shown.value.length - 1)]?.key ?? 'take'
  reveal()
}
function click(one: Row, key: string | null, event: MouseEvent): void {
  if (one.kind !== 'take' && one.kind !== 'clip') return
  if (event.shiftKey) anchor.value ??= { key: props.cursor ?? one.key, column: columnAt.value }
  if (key !== null) column.value = key
  select(one.key, event.shiftKey)
}

// Editing in place.
/** With the take as it was when typing began: what a colleague changes meanwhile is a conflict, and not overwritten. */
const editing = shallowRef<{ key: string; column: string; take: Take | null } | null>(null)
const draft = ref('')
function edit(wanted?: string, begin?: string): void {
  const current = row.value
  if (!props.mayLog || current === undefined || (current.kind !== 'take' && current.kind !== 'clip')) return
  anchor.value = null
  if (current.kind === 'clip') {
    draft.value = begin ?? (current.take === null ? '' : slateOf(current.take))
    editing.value = { key: current.key, column: 'slate', take: null }
  } else {
    const key =
      wanted ?? (shown.value[columnAt.value]?.words ? column.value : column.value === 'marks' ? 'marks' : 'description')
    if (key !== 'slate') column.value = key
    draft.value = begin ?? (key === 'slate' ? slateOf(current.take) : cellText(current.take, key))
    editing.value = { key: current.key, column: key, take: current.take }
  }
  void nextTick(() => {
    const input = box.value?.querySelector<HTMLInputElement>('input.edit')
    input?.focus()
    if (begin === undefined) input?.select()
  })
}
function leave(): void {
  editing.value = null
  box.value?.focus()
}
function refuse(text: string): void {
  complain(new ApiError(422, 'cell', text, 'Nothing was changed.', {}))
}
function commit(then: 'down' | 'next' | 'back' | 'stay'): void {
  const open = editing.value
  const current = rows.value.find((one) => one.key === open?.key)
  if (open === null || current === undefined) return
  leave()
  const text = draft.value
  if (current.kind === 'clip' && text.trim() !== '' && (current.take === null || text.trim() !== slateOf(current.take)))
    emit('slate', current.clip, text.trim())
  if (open.take !== null) {
    const values =
      open.column === 'slate'
        ? (slateFrom(text) ?? `“${text.trim()}” is not a slate; write setup and take, such as 3B/1.`)
        : valuesFor(open.column, text, props.production.marks, props.production.fields)
    if (typeof values === 'string') refuse(values)
    else if (values !== null) emit('edit', [{ take: open.take, values }])
  }
  if (then === 'down') move(1)
  else if (then !== 'stay' && current.kind === 'take') {
    const typed = shown.value.filter((one) => one.words)
    const next =
      typed[
        (typed.findIndex((one) => one.key === open.column) + (then === 'next' ? 1 : typed.length - 1)) % typed.length
      ]
    if (next !== undefined) edit(next.key)
  }
}

// Marks, ranges, the clipboard.
function mark(status: TakeStatus): void {
  const takes = chosenTakes.value
  if (takes.length === 0) return
  const now = takes.every((take) => take.status === status) ? 'none' : status
  if (props.mayLog)
    emit(
      'edit',
      takes.map((take) => ({ take, values: { status: now } })),
    )
  else if (status === 'circled' && takes.length === 1) emit('circle', takes[0]!, now)
}
function flag(field: Flag): void {
  const current = row.value
  if (current?.kind === 'clip') {
    if (field === 'is_false_start' && props.mayLog) emit('falseStart', current.clip)
    return
  }
  const takes = chosenTakes.value
  if (takes.length === 0 || !props.mayLog) return
  const now = !takes.every((take) => take[field])
  emit(
    'edit',
    takes.map((take) => ({ take, values: { [field]: now } })),
  )
}
/** The values of one take for others: of the chosen columns, or what happens and the size where none is typed in. */
function alike(from: Take, keys: string[]): Partial<Take> {
  const typed = keys.filter((key) => shown.value.find((one) => one.key === key)?.words || key === 'marks')
  const values = (typed.length > 0 ? typed : ['description', 'size']).map((key) =>
    valuesFor(key, cellText(from, key), props.production.marks, props.production.fields),
  )
  return Object.assign({}, ...values.filter((one) => one !== null && typeof one !== 'string')) as Partial<Take>
}
function fillDown(): void {
  const [first, ...rest] = chosenTakes.value
  if (!props.mayLog || first === undefined) return
  if (rest.length === 0) sameAsAbove()
  else
    emit(
      'edit',
      rest.map((take) => ({ take, values: alike(first, chosenKeys.value) })),
    )
}
function sameAsAbove(): void {
  const above = takesIn(0, range.value.top - 1).at(-1)
  if (!props.mayLog || above === undefined) return
  emit(
    'edit',
    chosenTakes.value.map((take) => ({ take, values: alike(above, chosenKeys.value) })),
  )
}
function clear(): void {
  if (!props.mayLog) return
  const keys = chosenKeys.value.filter((key) => !['scene', 'setup', 'take'].includes(key))
  const edits = chosenTakes.value.map((take) => ({
    take,
    values: Object.assign(
      {},
      ...keys
        .map((key) => valuesFor(key, '', props.production.marks, props.production.fields))
        .filter((one) => one !== null && typeof one !== 'string'),
    ) as Partial<Take>,
  }))
  emit(
    'edit',
    edits.filter((one) => Object.keys(one.values).length > 0),
  )
}
const elsewhere = (event: Event): boolean =>
  isTyping(event as KeyboardEvent) || document.querySelector('.ant-modal-wrap:not([style*="display: none"])') !== null
useEventListener(document, 'copy', (event: ClipboardEvent) => {
  if (elsewhere(event) || chosenTakes.value.length === 0 || (document.getSelection()?.toString() ?? '') !== '') return
  event.clipboardData?.setData(
    'text/plain',
    toTsv(chosenTakes.value.map((take) => chosenKeys.value.map((key) => cellText(take, key)))),
  )
  event.preventDefault()
})
useEventListener(document, 'paste', (event: ClipboardEvent) => {
  const text = event.clipboardData?.getData('text/plain') ?? ''
  if (elsewhere(event) || !props.mayLog || text === '' || row.value?.kind !== 'take') return
  event.preventDefault()
  const takes = takesIn(range.value.top, rows.value.length - 1)
  const { edits, problems } = pasted(
    fromTsv(text),
    takes,
    shown.value.map((one) => one.key),
    { row: 0, column: range.value.left },
    { rows: chosenTakes.value.length, columns: chosenKeys.value.length },
    props.production.marks,
    props.production.fields,
  )
  if (problems.length > 0)
    complain(
      new ApiError(
        422,
        'paste',
        problems.slice(0, 2).join(' ') + (problems.length > 2 ? ` And ${problems.length - 2} more.` : ''),
        edits.length > 0 ? 'The rest is pasted.' : 'Nothing was changed.',
        {},
      ),
    )
  if (edits.length > 0) emit('edit', edits)
})
// On a column of words letters type; this comes before they are marks.
useEventListener(
  window,
  'keydown',
  (event: KeyboardEvent) => {
    const one = shown.value[columnAt.value]
    if (
      event.key.length !== 1 ||
      event.key === ' ' ||
      event.key === '?' ||
      event.ctrlKey ||
      event.metaKey ||
      event.altKey ||
      elsewhere(event)
    )
      return
    const target = event.target as HTMLElement
    if (
      !props.mayLog ||
      one?.words !== true ||
      row.value?.kind !== 'take' ||
      (target !== document.body && !box.value?.contains(target))
    )
      return
    event.preventDefault()
    event.stopImmediatePropagation()
    edit(one.key, event.key)
  },
  { capture: true },
)

// Widths by dragging an edge, order by dragging a head.
function resize(one: SheetColumn, event: PointerEvent): void {
  const from = event.clientX
  const was = one.width
  const grip = event.currentTarget as HTMLElement
  grip.setPointerCapture(event.pointerId)
  const drag = (now: PointerEvent) =>
    emit(
      'columns',
      props.columns.map((other) =>
        other.key === one.key
          ? { ...other, width: Math.round(Math.min(900, Math.max(30, was + now.clientX - from))) }
          : other,
      ),
    )
  grip.addEventListener('pointermove', drag)
  grip.addEventListener('pointerup', () => grip.removeEventListener('pointermove', drag), { once: true })
}
function reorder(event: DragEvent, target: SheetColumn): void {
  const key = event.dataTransfer?.getData('application/x-cartella-column')
  const moved = props.columns.find((one) => one.key === key)
  if (moved === undefined || moved.key === target.key || moved.frozen || target.frozen) return
  const rest = props.columns.filter((one) => one.key !== key)
  rest.splice(
    rest.findIndex((one) => one.key === target.key),
    0,
    moved,
  )
  emit('columns', rest)
}

/** A row is drawn again with every step of the cursor; what each device has of a take is sorted once. */
const sorted = new WeakMap<Take, Map<string | null, LogClip[]>>()
const NONE: LogClip[] = []
function cellClips(take: Take, letter: string): LogClip[] {
  let own = sorted.get(take)
  if (own === undefined) sorted.set(take, (own = Map.groupBy(take.clips, (clip) => clip.device)))
  return own.get(letter) ?? NONE
}
const clipTitle = (clips: LogClip[]): string =>
  clips
    .map((clip) =>
      [clip.name, clip.file === clip.name ? '' : `(${clip.file})`, length(clip.duration_ticks), ...clip.problems]
        .filter(Boolean)
        .join(' '),
    )
    .join('\n')
const isRecorder = (letter: string) =>
  props.production.devices.find((device) => device.letter === letter)?.kind === 'recorder'
const hole = (take: Take, letter: string) => holeOf(take, letter, isRecorder(letter) ? 'recorder' : 'camera')
const otherSlate = (take: Take) => take.claims.map(slateOf).find((slate) => slate !== slateOf(take)) ?? ''
const who = (key: string) => props.colleagues.get(key) ?? []

useShortcuts('Slate sheet', [
  {
    keys: ['ArrowDown', 'ArrowUp'],
    what: 'Next row, the one before',
    run: (event) => void move(event.key === 'ArrowDown' ? 1 : -1),
  },
  {
    keys: ['ArrowRight', 'ArrowLeft'],
    what: 'Next column, the one before',
    run: (event) => sideways(event.key === 'ArrowRight' ? 1 : -1),
  },
  {
    keys: ['Shift+ArrowDown', 'Shift+ArrowUp', 'Shift+ArrowRight', 'Shift+ArrowLeft'],
    what: 'Choose a range',
    run: (event) =>
      event.key === 'ArrowDown' || event.key === 'ArrowUp'
        ? void move(event.key === 'ArrowDown' ? 1 : -1, true)
        : sideways(event.key === 'ArrowRight' ? 1 : -1, true),
  },
  {
    keys: ['PageDown', 'PageUp'],
    what: 'A page on, a page back',
    run: (event) => {
      for (let n = 0; n < 15 && move(event.key === 'PageDown' ? 1 : -1); n++);
    },
  },
  {
    keys: ['Enter', 'F2'],
    what: 'Type in the cell, else what happens; the slate of a clip that has none',
    run: () => edit(),
  },
  { keys: ['r'], what: 'Change setup and take', run: () => edit('slate') },
  { keys: ['c'], what: 'Circled, or not', run: () => mark('circled') },
  { keys: ['h'], what: 'Hold, or not', run: () => mark('hold') },
  { keys: ['x'], what: 'NG, or not', run: () => mark('ng') },
  { keys: ['m'], what: 'MOS, or not', run: () => flag('is_mos') },
  { keys: ['t'], what: 'Tail slate, or not', run: () => flag('is_tail_slate') },
  { keys: ['f'], what: 'False start, or not', run: () => flag('is_false_start') },
  { keys: ['w'], what: 'Wild, or not', run: () => flag('is_wild') },
  { keys: ['p'], what: 'Pick-up, or not', run: () => flag('is_pickup') },
  { keys: ['d'], what: 'Same as above', run: sameAsAbove },
  { keys: ['Ctrl+d'], what: 'Fill the range down from its first row', run: fillDown },
  { keys: ['Delete', 'Backspace'], what: 'Empty the chosen cells', run: clear },
  {
    keys: ['Ctrl+c', 'Ctrl+v'],
    what: 'Copy cells, paste them; to and from a spreadsheet too',
    run: () => undefined,
    leaveToBrowser: true,
  },
])
defineExpose({ select, move, focus: () => box.value?.focus(), chosen: chosenTakes })
</script>

<template>
  <div ref="box" class="sheet" tabindex="-1" role="grid" aria-label="Slate sheet" :aria-rowcount="rows.length">
    <div
      v-bind="containerProps"
      class="scroll"
      :style="{ '--cols': template, '--least': order === 'device' ? '0' : `${least}px` }"
    >
      <div v-if="order === 'device'" class="row heads bydevice" role="row">
        <span role="columnheader">Slate</span><span role="columnheader">Clip</span
        ><span role="columnheader">Length</span><span role="columnheader">Size</span
        ><span role="columnheader">What happens</span>
      </div>
      <div v-else class="row heads" role="row">
        <span
          v-for="one in shown"
          :key="one.key"
          role="columnheader"
          class="head"
          :class="{ stuck: one.frozen }"
          :style="one.frozen ? { left: `${stuck[one.key]}px` } : {}"
          :draggable="!one.frozen"
          @dragstart="$event.dataTransfer?.setData('application/x-cartella-column', one.key)"
          @dragover.prevent
          @drop.prevent="reorder($event, one)"
          ><DeviceBadge v-if="one.key.startsWith('device:')" :letter="one.key.slice(7)" /> {{ one.title
          }}<i
            class="grip"
            :title="`Drag for the width of ${one.title}`"
            @pointerdown.stop.prevent="resize(one, $event)"
            @dragstart.stop.prevent
        /></span>
      </div>
      <div v-bind="wrapperProps">
        <div
          v-for="{ data: one } in list"
          :key="one.key"
          class="row"
          role="row"
          :class="[one.kind, { on: one.key === cursor, met: who(one.key).length > 0 }]"
          :aria-selected="one.key === cursor"
          :data-row="one.key"
          @click="click(one, null, $event)"
          @dblclick="edit()"
        >
          <template v-if="one.kind === 'scene'">
            <span class="mono">{{ one.scene }}</span><b>{{ one.facts?.heading }}</b>
            <small
              >{{ one.setups }} {{ one.setups === 1 ? 'setup' : 'setups' }} · {{ one.takes }}
              {{ one.takes === 1 ? 'take' : 'takes'
              }}<template v-if="one.facts">
                · {{ one.facts.circled }} circled · {{ length(one.facts.running_ticks) }}</template
              ><template v-if="one.facts && one.facts.days > 1"> on {{ one.facts.days }} days</template></small
            >
            <small v-if="one.facts?.pages" class="script" :title="one.facts.characters.join(', ')"
              >script {{ one.facts.pages }} p.<template v-if="one.facts.characters.length">
                · {{ one.facts.characters.slice(0, 3).join(', ')
                }}{{ one.facts.characters.length > 3 ? ' …' : '' }}</template
              ></small
            >
          </template>
          <template v-else-if="one.kind === 'rest'"
            ><DeviceBadge v-if="one.device" :letter="one.device" /><b>{{ one.title }}</b
            ><small>{{ one.note }}</small></template
          >
          <template v-else-if="one.kind === 'take'">
            <span
              v-for="(cell, index) in shown"
              :key="cell.key"
              role="gridcell"
              class="cell"
              :data-column="cell.key"
              :style="cell.frozen ? { left: `${stuck[cell.key]}px` } : {}"
              :class="{
                stuck: cell.frozen,
                cur: one.key === cursor && cell.key === column,
                sel: isChosen(rowIndex.get(one.key) ?? -1, index),
                words: cell.words,
              }"
              @click.stop="click(one, cell.key, $event)"
            >
              <input
                v-if="
                  editing?.key === one.key &&
                  (editing.column === cell.key || (editing.column === 'slate' && cell.key === 'setup'))
                "
                v-model="draft"
                class="field edit"
                :class="{ mono: editing.column === 'slate', wide: editing.column === 'slate' }"
                :aria-label="editing.column === 'slate' ? 'Setup and take' : cell.title"
                :maxlength="cell.limit"
                @keydown.enter.stop.prevent="commit(editing.column === 'slate' ? 'stay' : 'down')"
                @keydown.tab.prevent="commit($event.shiftKey ? 'back' : 'next')"
                @keydown.esc.stop="leave"
                @blur="editing && commit('stay')"
              />
              <template v-else-if="cell.key === 'setup'"
                ><span class="mono su" :class="{ again: one.repeats }">{{ one.take.setup }}</span
                ><i
                  v-for="other in who(one.key)"
                  :key="other.who"
                  class="here"
                  :title="`${other.name} is on this row`"
                  >{{ other.initials }}</i
                ></template
              >
              <TakeNumber
                v-else-if="cell.key === 'take'"
                :take="one.take.take"
                :part="one.take.part"
                :status="one.take.status"
              />
              <span
                v-else-if="cell.key === 'description'"
                class="what"
                :title="one.take.notes ? `${one.take.description}\n${one.take.notes}` : one.take.description"
                ><span>{{ one.take.description }}<i v-if="!one.take.description" class="soft">—</i></span
                ><em v-if="marksOf(one.take)">{{ marksOf(one.take) }}</em
                ><em v-if="one.take.notes" title="has a note">✎</em
                ><em v-if="one.take.claims.length" class="warn" title="Two sources disagree"
                  >or {{ otherSlate(one.take) }}?</em
                ><em
                  v-if="one.take.disputes.length"
                  class="warn"
                  :title="`Two sources differ on ${one.take.disputes.map((dispute) => dispute.field).join(', ')}`"
                  >≠</em
                ></span
              >
              <template v-else-if="cell.key.startsWith('device:')">
                <template v-if="cellClips(one.take, cell.key.slice(7)).length > 0">
                  <DeviceBadge :letter="cell.key.slice(7)" /><span
                    class="mono clip"
                    :class="{ bad: cellClips(one.take, cell.key.slice(7)).some((clip) => clip.problems.length > 0) }"
                    :title="clipTitle(cellClips(one.take, cell.key.slice(7)))"
                    >{{ cellClips(one.take, cell.key.slice(7))[0]?.name }}</span
                  >
                  <small
                    class="mono"
                    :class="{ fault: cellClips(one.take, cell.key.slice(7)).some((clip) => clip.problems.length > 0) }"
                    >{{
                      cellClips(one.take, cell.key.slice(7)).length > 1
                        ? `+${cellClips(one.take, cell.key.slice(7)).length - 1}`
                        : length(cellClips(one.take, cell.key.slice(7))[0]?.duration_ticks ?? null)
                    }}</small
                  >
                </template>
                <span v-else-if="hole(one.take, cell.key.slice(7)).hole" class="hole">{{
                  hole(one.take, cell.key.slice(7)).text
                }}</span>
                <span v-else class="faint">{{ hole(one.take, cell.key.slice(7)).text }}</span>
              </template>
              <span v-else-if="cell.key === 'sync'" :class="syncOf(one.take).look">{{ syncOf(one.take).text }}</span>
              <span v-else-if="cell.key === 'length'" class="mono soft">{{ length(runningOf(one.take) || null) }}</span>
              <span v-else class="text soft" :title="cellText(one.take, cell.key)">{{
                cellText(one.take, cell.key)
              }}</span>
            </span>
          </template>
          <template v-else>
            <input
              v-if="editing?.key === one.key"
              v-model="draft"
              class="field edit mono"
              placeholder="3B/1"
              aria-label="Slate"
              maxlength="40"
              @keydown.enter.stop.prevent="commit('down')"
              @keydown.esc.stop="leave"
              @blur="editing && commit('stay')"
            />
            <span v-else-if="one.take" class="slate"
              ><b class="mono">{{ one.take.setup }}</b
              ><TakeNumber :take="one.take.take" :part="one.take.part" :status="one.take.status"
            /></span>
            <span v-else class="faint">{{
              one.clip.is_wild ? 'wild' : one.clip.is_false_start ? 'false start' : 'no slate'
            }}</span>
            <span class="clipcell"
              ><DeviceBadge :letter="one.clip.device" /><span class="mono clip" :title="one.clip.file">{{
                one.clip.name
              }}</span
              ><i v-for="other in who(one.key)" :key="other.who" class="here" :title="`${other.name} is on this row`">{{
                other.initials
              }}</i></span
            >
            <span class="mono soft">{{ length(one.clip.duration_ticks) }}</span>
            <span class="text soft">{{ one.take?.size }}</span>
            <span class="clipcell"
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
.cell {
  overflow: hidden;
  text-overflow: ellipsis;
  height: 30px;
  display: flex;
  align-items: center;
  gap: 6px;
  min-width: 0;
  border-radius: 3px;
  padding: 0 3px;
  margin: 0 -3px;
  font-size: 13px;
}
.cell > span {
  overflow: hidden;
  text-overflow: ellipsis;
}
.stuck {
  position: sticky;
  z-index: 1;
  background: inherit;
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
.head {
  display: flex;
  gap: 5px;
  align-items: center;
  height: 30px;
  overflow: hidden;
  padding: 0 3px;
  margin: 0 -3px;
}
.head:not(.stuck) {
  position: relative;
}
.heads .stuck {
  z-index: 4;
}
.grip {
  position: absolute;
  right: -2px;
  top: 4px;
  bottom: 4px;
  width: 7px;
  cursor: col-resize;
  border-right: 1px solid transparent;
}
.head:hover .grip {
  border-right-color: var(--rule-strong);
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
.cell small {
  margin-left: auto;
  padding-right: 5px;
  font-size: 10.5px;
  flex: none;
}
.cell small.fault {
  color: var(--fault);
}
.scene .script {
  margin-left: auto;
}
.row.on {
  background: var(--act-soft);
  box-shadow: inset 3px 0 0 var(--act);
}
.row.on .cur {
  box-shadow: inset 0 0 0 1.5px var(--act);
  background: var(--sheet);
}
.row.on .cur.words {
  cursor: text;
}
.sel {
  background: #cfe3da;
  border-radius: 0;
}
.su {
  font-weight: 600;
}
.su.again {
  color: var(--ink-faint);
  font-weight: 400;
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
.what {
  display: flex;
  gap: 6px;
  align-items: baseline;
  min-width: 0;
}
.what > span {
  overflow: hidden;
  text-overflow: ellipsis;
}
.what em {
  flex: none;
}
.what em,
.clipcell em {
  font-style: normal;
  font-size: 11px;
  color: var(--ink-soft);
}
.what em.warn {
  color: var(--warn);
  font-weight: 600;
}
.clip {
  font-size: 12px;
  overflow: hidden;
  text-overflow: ellipsis;
}
.clip.bad {
  text-decoration: underline wavy var(--fault) 1px;
  text-underline-offset: 3px;
}
.hole {
  flex: 1;
  height: 22px;
  border: 1px dashed var(--fault);
  border-radius: 4px;
  color: var(--fault);
  font-size: 11px;
  display: flex;
  align-items: center;
  padding: 0 7px;
  background: repeating-linear-gradient(135deg, #fff0 0 5px, #f6dcd480 5px 10px);
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
.edit.wide {
  width: 96px;
  flex: none;
  position: absolute;
  z-index: 5;
}
</style>
