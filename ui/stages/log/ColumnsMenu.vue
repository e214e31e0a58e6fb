<script setup lang="ts">
import { t } from '@/words'
import { Popover } from 'ant-design-vue'
import { useTemplateRef } from 'vue'
import { useMenu } from '@/shell/menu'
import type { SheetColumn } from './sheet'

/** Which columns the sheet shows, in which order and how wide; kept for this person. */
const props = defineProps<{ columns: SheetColumn[] }>()
const emit = defineEmits<{ columns: [columns: SheetColumn[]]; reset: [] }>()
const { open, onKey } = useMenu(useTemplateRef<HTMLElement>('menu'))
defineExpose({ show: () => (open.value = true) })
const titleOf = (column: SheetColumn) =>
  column.key.startsWith('device:') ? t('log.ColumnsMenu.device', [column.key.slice(7), column.title]) : column.title

function change(key: string, values: Partial<SheetColumn>): void {
  emit(
    'columns',
    props.columns.map((one) => (one.key === key ? { ...one, ...values } : one)),
  )
}
function shift(column: SheetColumn, step: number): void {
  const from = props.columns.findIndex((one) => one.key === column.key)
  const to = from + step
  if (props.columns[to] === undefined || props.columns[to].frozen) return
  const next = [...props.columns]
  next.splice(from, 1)
  next.splice(to, 0, column)
  emit('columns', next)
}
</script>

<template>
  <Popover v-model:open="open" trigger="click" placement="bottomLeft">
    <button class="plain" :title="t('log.ColumnsMenu.chooseOrderAndWidenColumns')" :aria-expanded="open">
      {{ t('log.ColumnsMenu.columns') }}
    </button>
    <template #content>
      <div ref="menu" class="columns" role="group" :aria-label="t('log.ColumnsMenu.columns')" @keydown="onKey">
        <div v-for="column in columns" :key="column.key" class="one">
          <label
            ><input
              type="checkbox"
              :checked="column.shown"
              :disabled="column.frozen"
              @change="change(column.key, { shown: ($event.target as HTMLInputElement).checked })"
            />
            {{ titleOf(column) }}</label
          >
          <input
            class="field mono"
            type="number"
            min="30"
            max="900"
            step="10"
            :value="column.width"
            :aria-label="t('log.ColumnsMenu.widthOf', [titleOf(column)])"
            @change="
              change(column.key, {
                width: Math.min(900, Math.max(30, Number(($event.target as HTMLInputElement).value))),
              })
            "
          />
          <button
            class="plain"
            :disabled="column.frozen"
            :aria-label="t('log.ColumnsMenu.furtherLeft', [titleOf(column)])"
            :title="t('log.ColumnsMenu.furtherLeft2')"
            @click="shift(column, -1)"
          >
            ◂
          </button>
          <button
            class="plain"
            :disabled="column.frozen"
            :aria-label="t('log.ColumnsMenu.furtherRight', [titleOf(column)])"
            :title="t('log.ColumnsMenu.furtherRight2')"
            @click="shift(column, 1)"
          >
            ▸
          </button>
        </div>
        <button class="plain" @click="emit('reset')">{{ t('log.ColumnsMenu.asItWasAtFirst') }}</button>
      </div>
    </template>
  </Popover>
</template>

<style scoped>
.columns {
  display: grid;
  gap: 3px;
  max-height: 62vh;
  overflow: auto;
  padding: 2px;
}
.one {
  display: grid;
  grid-template-columns: 190px 66px auto auto;
  gap: 5px;
  align-items: center;
}
.one label {
  display: flex;
  gap: 7px;
  align-items: center;
}
.one .plain {
  padding: 1px 7px;
  min-height: 24px;
}
.field {
  height: 25px;
}
</style>
