<script setup lang="ts">
import { t } from '@/words'
import { computed, watch } from 'vue'
import type { BinRow, Production } from '@/api/types'
import { stuckAt } from '@/grid/columns'
import GridHead from '@/grid/GridHead.vue'
import { useRows } from '@/grid/rows'
import DeviceBadge from '@/shell/DeviceBadge.vue'
import TakeNumber from '@/shell/TakeNumber.vue'
import CellBox from './CellBox.vue'
import RowPicture from './RowPicture.vue'
import type { BinCells } from './useBinCells'
import type { ListRow } from './useBinList'
import { type BinColumn, cellText, signOf } from './view'

/** What lies in a bin, row by row under heads that sort; those further down come as they are scrolled to. */
const props = defineProps<{
  rows: ListRow[]
  columns: BinColumn[]
  order: string
  down: boolean
  cursor: string | null
  isChosen: (key: string, at: number) => boolean
  production: Production
  /** What is written in its cells: not by props of their own, so that the page around it stays as it is. */
  cells: BinCells
}>()
const emit = defineEmits<{
  select: [key: string, event: MouseEvent]
  open: [row: BinRow]
  angle: [clip: string]
  drag: [event: DragEvent, row: BinRow]
  menu: [key: string, event: MouseEvent]
  need: [from: number, to: number]
  sort: [order: string]
  columns: [columns: BinColumn[]]
}>()
const ROW = 46
const PICTURE = 68
const { list, containerProps, wrapperProps, reveal } = useRows(
  computed(() => props.rows),
  ROW,
  { overscan: 10, heads: 1, key: (one) => (one.row === null ? undefined : one.key) },
)
watch([list, () => props.rows], ([shown]) => emit('need', shown[0]?.index ?? 0, shown.at(-1)?.index ?? 0), {
  immediate: true,
})
const drawn = computed(() =>
  list.value.map(({ data: { key, row }, index }) => ({ key, row: props.cells.written.value.get(key) ?? row, index })),
)
const cell = computed(() => props.cells.open.value)
const shownColumns = computed(() => props.columns.filter((one) => one.shown))
const GAP = 8
/** What happens gets the room that is left. */
const tracks = computed(() => {
  const widths = shownColumns.value.map((one) =>
    one.key === 'description' ? `minmax(${one.width}px, 1fr)` : `${one.width}px`,
  )
  const isFilled = shownColumns.value.some((one) => one.key === 'description')
  return `${PICTURE}px ${widths.join(' ')}${isFilled ? '' : ' minmax(0, 1fr)'}`
})
const width = computed(() => PICTURE + shownColumns.value.reduce((sum, one) => sum + one.width + GAP, 0) + 22)
const stuck = computed(() => stuckAt(shownColumns.value, PICTURE + GAP + 8, GAP))
const text = (row: BinRow, key: string) => cellText(row, key, props.production.rate)
const MONO = new Set(['name', 'start', 'length', 'made', 'file'])
const RIGHT = new Set(['start', 'length', 'day', 'channels'])
/** A second click on a cell of the row under the cursor writes it. */
function click(key: string, row: BinRow | null, event: MouseEvent): void {
  const column = (event.target as HTMLElement).closest<HTMLElement>('[data-column]')?.dataset.column
  const isSame = key === props.cursor && !event.shiftKey && !event.ctrlKey && !event.metaKey && event.detail === 1
  if (isSame && row !== null && column !== undefined && props.cells.mayWrite(row, column) !== null)
    props.cells.start(key, column)
  else emit('select', key, event)
}
defineExpose({ reveal, page: () => Math.max(1, Math.floor((containerProps.ref.value?.clientHeight ?? 400) / ROW) - 1) })
</script>

<template>
  <div
    v-bind="containerProps"
    class="rows"
    role="grid"
    :aria-label="t('bins.BinRows.whatLiesInTheBin')"
    aria-multiselectable="true"
    :aria-rowcount="rows.length"
  >
    <div class="table" :style="{ '--tracks': tracks, minWidth: `${width}px` }">
      <div class="head-line">
        <span class="corner" />
        <GridHead class="heads" :columns="columns" :stuck="stuck" @columns="emit('columns', $event as BinColumn[])">
          <template #default="{ column }"
            ><button
              v-if="(column as BinColumn).order"
              class="sort"
              :class="{ on: (column as BinColumn).order === order }"
              :title="t('bins.BinRows.orderBy', [column.title.toLowerCase()])"
              @click="emit('sort', (column as BinColumn).order!)"
            >
              {{ column.title }}<i v-if="(column as BinColumn).order === order">{{ down ? '▾' : '▴' }}</i></button
            ><span v-else>{{ column.title }}</span></template
          >
        </GridHead>
      </div>
      <div v-bind="wrapperProps">
        <div
          v-for="{ key, row, index } in drawn"
          :key="key"
          class="row"
          role="row"
          :aria-selected="key === cursor || isChosen(key, index)"
          :class="{ on: key === cursor, also: isChosen(key, index), waits: row === null }"
          :draggable="row !== null"
          :data-clip="row?.clip"
          :data-what="row?.what"
          @click="click(key, row, $event)"
          @contextmenu.prevent="emit('menu', key, $event)"
          @dblclick="row && emit('open', row)"
          @dragstart="row && emit('drag', $event, row)"
        >
          <template v-if="row">
            <RowPicture role="gridcell" :production="production.ulid" :row="row" class="picture" />
            <template v-for="column in shownColumns" :key="column.key">
              <span
                v-if="column.key === 'slate'"
                role="gridcell"
                class="slate stuck"
                :style="{ left: `${stuck.slate}px` }"
                ><template v-if="row.take"
                  ><b class="mono">{{ row.take.setup }}</b
                  ><TakeNumber :take="row.take.take" :part="row.take.part" :status="row.take.status" /></template
              ></span>
              <span v-else-if="column.key === 'device'" role="gridcell" class="angles"
                ><template v-if="row.what === 'take'"
                  ><button
                    v-for="angle in row.angles.slice(0, row.angles.length > 3 ? 2 : 3)"
                    :key="angle.clip"
                    class="angle"
                    :title="t('bins.BinRows.itsSheet', [angle.name])"
                    @click.stop="emit('angle', angle.clip)"
                  >
                    <DeviceBadge v-if="angle.device" :letter="angle.device" /></button
                  ><small
                    v-if="row.angles.length > 3"
                    class="soft"
                    :title="row.angles.map((one) => one.name).join(', ')"
                    >+{{ row.angles.length - 2 }}</small
                  ></template
                ><DeviceBadge v-else-if="row.device" :letter="row.device"
              /></span>
              <CellBox
                v-else-if="cell !== null && cell.key === key && cell.column === column.key"
                :key="`${key} ${column.key}`"
                :text="cell.text"
                :field="production.fields.find((one) => one.key === column.key) ?? null"
                :label="column.title"
                @keep="cells.keep"
                @cancel="cells.cancel"
              />
              <span
                v-else-if="column.key === 'name'"
                role="gridcell"
                class="mono cell"
                :title="row.name"
                data-column="name"
                ><i v-if="row.colour" class="dot" :class="`bin-${row.colour}`" :title="row.colour" /><i
                  v-if="signOf(row).sign"
                  class="sign"
                  :title="signOf(row).says"
                  >{{ signOf(row).sign }}</i
                >{{ row.name
                }}<small v-if="row.is_away" class="away" :title="t('bins.BinRows.itsMediaWereTakenAway')">{{
                  t('bins.BinRows.away')
                }}</small></span
              >
              <span
                v-else
                role="gridcell"
                class="cell"
                :class="{ mono: MONO.has(column.key), num: RIGHT.has(column.key), soft: column.key !== 'length' }"
                :title="text(row, column.key)"
                :data-column="column.key"
                >{{ text(row, column.key) }}</span
              >
            </template>
          </template>
          <span v-else role="gridcell" class="bone" />
        </div>
      </div>
    </div>
  </div>
</template>

<style scoped>
.dot {
  display: inline-block;
  width: 9px;
  height: 9px;
  border-radius: 50%;
  margin-right: 6px;
}
.away {
  margin-left: 6px;
  color: var(--warn);
}
.rows {
  height: 100%;
  overflow: auto;
}
.head-line {
  position: sticky;
  top: 0;
  z-index: 5;
  background: var(--sheet-2);
  border-bottom: 1px solid var(--rule-strong);
  display: flex;
}
.corner {
  width: 76px;
  flex: none;
  margin-left: 8px;
}
.heads,
.row {
  display: grid;
  grid-template-columns: var(--tracks);
  gap: 0 8px;
  align-items: center;
}
.heads {
  height: 30px;
  border: 0;
  background: none;
  margin-left: -84px;
  padding-left: 8px;
  flex: 1;
  font-size: 11px;
  color: var(--ink-soft);
}
.heads :deep(.head:first-child) {
  grid-column: 2;
}
.sort {
  border: 0;
  background: none;
  padding: 0;
  font: inherit;
  color: inherit;
  cursor: pointer;
  white-space: nowrap;
}
.sort.on {
  color: var(--ink);
  font-weight: 600;
}
.sort i {
  font-style: normal;
  margin-left: 3px;
}
.row:not(.heads) {
  height: 46px;
  border-bottom: 1px solid var(--rule);
  padding: 0 14px 0 8px;
  white-space: nowrap;
  background: var(--sheet);
  /* What is written in a row moves nothing outside it. */
  contain: strict;
}
.row > * {
  overflow: hidden;
  text-overflow: ellipsis;
}
.row.also {
  background: #eaf2ec;
}
.row.on {
  background: var(--act-soft);
  box-shadow: inset 3px 0 0 var(--act);
}
.stuck {
  position: sticky;
  z-index: 2;
  background: inherit;
}
.bone {
  grid-column: 1 / -1;
  height: 12px;
  width: 46%;
  border-radius: 4px;
  background: var(--rule);
}
.slate {
  display: flex;
  align-items: center;
  gap: 2px;
}
.slate b {
  min-width: 34px;
}
.angles {
  display: flex;
  gap: 2px;
}
.angle {
  border: 0;
  background: none;
  padding: 0;
  cursor: pointer;
}
.cell {
  font-size: 12px;
}
.num {
  text-align: right;
}
.sign {
  font-style: normal;
  color: var(--act);
  margin-right: 6px;
}
</style>
