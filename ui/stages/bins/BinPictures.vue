<script setup lang="ts">
import { t } from '@/words'
import { useElementSize } from '@vueuse/core'
import { computed, useTemplateRef, watch } from 'vue'
import type { BinRow, Production } from '@/api/types'
import { useRows } from '@/grid/rows'
import { length } from '@/player/time'
import DeviceBadge from '@/shell/DeviceBadge.vue'
import TakeNumber from '@/shell/TakeNumber.vue'
import RowPicture from './RowPicture.vue'
import type { ListRow } from './useBinList'
import { signOf } from './view'

/**
 * What lies in a bin as pictures, one after another or with a head for each scene; those further down come when looked
 * at.
 */
const props = defineProps<{
  rows: ListRow[]
  byScene: boolean
  headings: Record<string, string>
  cursor: string | null
  isChosen: (key: string, at: number) => boolean
  production: Production
}>()
const emit = defineEmits<{
  select: [key: string, event: MouseEvent]
  open: [row: BinRow]
  drag: [event: DragEvent, row: BinRow]
  menu: [key: string, event: MouseEvent]
  need: [from: number, to: number]
}>()
const NARROWEST = 190
const GAP = 14
const HEAD = 30
const box = useTemplateRef<HTMLElement>('box')
const { width } = useElementSize(box)
const across = computed(() => Math.max(1, Math.floor((width.value - 28 + GAP) / (NARROWEST + GAP))))
/** A picture and its two lines of words. */
const height = computed(() => Math.round((((width.value - 28 + GAP) / across.value - GAP) * 9) / 16) + 58)

interface Line {
  scene: string | null
  from: number
  cells: ListRow[]
}
const sceneOf = (one: ListRow | undefined) =>
  one?.row?.take?.scene ? t('bins.BinPictures.scene', [one.row.take.scene]) : t('bins.BinPictures.withoutAScene')
/** Rows of pictures; a scene begins a row of its own. */
const lines = computed(() => {
  const all: Line[] = []
  let scene: string | null = null
  props.rows.forEach((one, at) => {
    const own = !props.byScene ? null : one.row === null ? scene : sceneOf(one)
    const last = all.at(-1)
    if (last === undefined || last.cells.length >= across.value || own !== scene) {
      all.push({ scene: own !== scene || last === undefined ? own : null, from: at, cells: [one] })
      scene = own
    } else last.cells.push(one)
  })
  return all
})
const heightOf = (line: Line | undefined) => height.value + (line?.scene == null ? 0 : HEAD)
const { list, containerProps, wrapperProps, reveal } = useRows(lines, (at) => heightOf(lines.value[at]), {
  overscan: 3,
})
watch(
  [list, () => props.rows],
  ([shown]) => {
    const [first, last] = [shown[0]?.data, shown.at(-1)?.data]
    emit('need', first?.from ?? 0, (last?.from ?? 0) + across.value)
  },
  { immediate: true },
)
/** In which cuts it is; that a reel of everything shows it is no news. */
const cutsOf = (row: BinRow) => row.used.filter((use) => use.kind !== 'reel')
const lineOf = (at: number) => lines.value.findIndex((line) => at >= line.from && at < line.from + line.cells.length)
defineExpose({ reveal: (at: number) => reveal(lineOf(at)), across, page: () => across.value * 3 })
</script>

<template>
  <div ref="box" class="outer">
    <div
      v-bind="containerProps"
      class="pictures"
      role="listbox"
      :aria-label="t('bins.BinPictures.whatLiesInTheBin')"
      aria-multiselectable="true"
    >
      <div v-bind="wrapperProps">
        <div v-for="{ data: line } in list" :key="line.from" class="line" :style="{ height: `${heightOf(line)}px` }">
          <h4 v-if="line.scene">
            {{ line.scene }} <span class="soft">{{ headings[line.scene] ?? '' }}</span>
          </h4>
          <div class="cells" :style="{ gridTemplateColumns: `repeat(${across}, minmax(0, 1fr))` }">
            <div
              v-for="({ key, row }, at) in line.cells"
              :key="key"
              class="card"
              role="option"
              :aria-selected="key === cursor || isChosen(key, line.from + at)"
              :class="{ on: key === cursor, also: isChosen(key, line.from + at) }"
              :draggable="row !== null"
              :data-clip="row?.clip"
              :data-what="row?.what"
              @click="emit('select', key, $event)"
              @contextmenu.prevent="emit('menu', key, $event)"
              @dblclick="row && emit('open', row)"
              @dragstart="row && emit('drag', $event, row)"
            >
              <template v-if="row">
                <span class="frame"
                  ><RowPicture :production="production.ulid" :row="row" :rate="production.rate" large /><small
                    v-if="cutsOf(row).length > 0"
                    class="used"
                    :title="
                      cutsOf(row)
                        .map((use) => use.name)
                        .join(', ')
                    "
                    >{{
                      t('bins.BinPictures.in', [
                        cutsOf(row)[0]!.name,
                        cutsOf(row).length > 1 ? t('bins.BinPictures.andMore', [cutsOf(row).length - 1]) : '',
                      ])
                    }}</small
                  ></span
                >
                <span class="words"
                  ><DeviceBadge v-if="row.device && row.what !== 'take'" :letter="row.device" /><i
                    v-else-if="signOf(row).sign"
                    class="sign"
                    :title="signOf(row).says"
                    >{{ signOf(row).sign }}</i
                  ><i v-if="row.colour" class="dot" :class="`bin-${row.colour}`" :title="row.colour" /><template
                    v-if="row.take && row.what !== 'subclip'"
                    ><b class="mono">{{ row.take.setup }}</b
                    ><TakeNumber :take="row.take.take" :part="row.take.part" :status="row.take.status" /></template
                  ><b v-else class="name" :title="row.name">{{ row.name }}</b
                  ><span class="mono num">{{ length(row.duration_ticks) }}</span></span
                >
                <small class="soft" :title="row.name">{{ row.take?.description || row.name }}</small>
              </template>
              <span v-else class="frame waits" />
            </div>
          </div>
        </div>
      </div>
    </div>
  </div>
</template>

<style scoped>
.outer {
  height: 100%;
  min-height: 0;
}
.pictures {
  height: 100%;
  overflow-y: auto;
  padding: 14px 14px 0;
  box-sizing: border-box;
}
h4 {
  height: 30px;
  margin: 0;
  font-size: 13px;
  font-weight: 600;
  line-height: 28px;
  overflow: hidden;
}
h4 .soft {
  font-weight: 400;
  margin-left: 6px;
  font-size: 12px;
}
.cells {
  display: grid;
  gap: 0 14px;
}
.card {
  min-width: 0;
  border-radius: 6px;
  padding: 3px;
  margin: -3px;
  cursor: default;
}
.card.also {
  background: #eaf2ec;
}
.card.on {
  background: var(--act-soft);
  box-shadow: inset 0 -3px 0 var(--act);
}
.frame {
  position: relative;
  display: block;
}
.waits {
  aspect-ratio: 16 / 9;
  border-radius: 4px;
  background: var(--rule);
}
.used {
  position: absolute;
  left: 6px;
  bottom: 6px;
  max-width: calc(100% - 12px);
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  background: rgba(255, 252, 245, 0.92);
  border-radius: 3px;
  padding: 0 5px;
  font-size: 11px;
}
.words {
  display: flex;
  align-items: center;
  gap: 5px;
  height: 26px;
  white-space: nowrap;
}
.name {
  overflow: hidden;
  text-overflow: ellipsis;
  font-weight: 600;
  font-size: 12.5px;
}
.num {
  margin-left: auto;
  font-size: 12px;
}
.sign {
  font-style: normal;
  color: var(--act);
}
.card > small {
  display: block;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  font-size: 12px;
  height: 18px;
}
</style>
