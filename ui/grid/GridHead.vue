<script setup lang="ts" generic="C extends GridColumn">
import { t } from '@/words'
import { type GridColumn, reordered, resized } from './columns'

/** The heads of a grid's columns: their widths by dragging an edge, their order by dragging a head. */
const props = defineProps<{ columns: C[]; stuck: Record<string, number> }>()
const emit = defineEmits<{ columns: [columns: C[]] }>()
const KIND = 'application/x-cartella-column'

function resize(one: C, event: PointerEvent): void {
  const from = event.clientX
  const was = one.width
  const grip = event.currentTarget as HTMLElement
  grip.setPointerCapture(event.pointerId)
  const drag = (now: PointerEvent) => emit('columns', resized(props.columns, one.key, was + now.clientX - from))
  grip.addEventListener('pointermove', drag)
  grip.addEventListener('pointerup', () => grip.removeEventListener('pointermove', drag), { once: true })
}
function drop(event: DragEvent, target: C): void {
  const next = reordered(props.columns, event.dataTransfer?.getData(KIND) ?? '', target.key)
  if (next !== props.columns) emit('columns', next)
}
</script>

<template>
  <div class="row heads" role="row">
    <span
      v-for="one in columns.filter((column) => column.shown)"
      :key="one.key"
      role="columnheader"
      class="head"
      :class="{ stuck: one.frozen }"
      :style="one.frozen ? { left: `${stuck[one.key]}px` } : {}"
      :draggable="!one.frozen"
      @dragstart="$event.dataTransfer?.setData(KIND, one.key)"
      @dragover.prevent
      @drop.prevent="drop($event, one)"
      ><slot :column="one">{{ one.title }}</slot
      ><i
        class="grip"
        :title="t('grid.GridHead.dragForTheWidthOf', [one.title])"
        @pointerdown.stop.prevent="resize(one, $event)"
        @dragstart.stop.prevent
    /></span>
  </div>
</template>

<style scoped>
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
.stuck {
  position: sticky;
  z-index: 4;
  background: inherit;
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
</style>
