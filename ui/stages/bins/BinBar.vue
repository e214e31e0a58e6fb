<script setup lang="ts">
import { t } from '@/words'
import { Popover } from 'ant-design-vue'
import { computed, useTemplateRef } from 'vue'
import { words as wordsApi } from '@/api/endpoints/words'
import type { BinArrangement, Production } from '@/api/types'
import { useMenu } from '@/shell/menu'
import { type BinColumn, ORDERS } from './view'

/** How a bin is looked at: rows or pictures, the order, days and devices, and which columns rows have. */
const props = defineProps<{
  view: BinArrangement
  columns: BinColumn[]
  production: Production
  takesAsked: boolean
  bin: string
}>()
const emit = defineEmits<{
  view: [view: BinArrangement]
  columns: [columns: BinColumn[] | null]
}>()
const SHOWS = {
  rows: t('bins.BinBar.rows'),
  pictures: t('bins.BinBar.pictures'),
  scenes: t('bins.BinBar.byScene'),
} as const
const orders = computed(() => ({
  ...ORDERS,
  ...Object.fromEntries(
    props.production.fields
      .filter((field) => !(field.key in ORDERS) && !['setup', 'take', 'part', 'absent_devices'].includes(field.key))
      .map((field) => [field.key, field.label.toLowerCase()]),
  ),
}))
const filters = useMenu(useTemplateRef<HTMLElement>('filterMenu'))
const shownColumns = useMenu(useTemplateRef<HTMLElement>('columnMenu'))
const change = (part: Partial<BinArrangement>) => emit('view', { ...props.view, ...part })
const toggled = (list: string[], one: string) =>
  list.includes(one) ? list.filter((other) => other !== one) : [...list, one]
const filtered = computed(() => props.view.days.length + props.view.devices.length)
const filterText = computed(() =>
  filtered.value === 0
    ? t('bins.BinBar.allDays')
    : [
        ...props.production.days.filter((day) => props.view.days.includes(day.ulid)).map((day) => `day ${day.number}`),
        ...props.view.devices.map((letter) => t('bins.BinBar.device2', [letter])),
      ].join(', '),
)
function show(column: BinColumn): void {
  emit(
    'columns',
    props.columns.map((one) => (one.key === column.key ? { ...one, shown: !one.shown } : one)),
  )
}
defineExpose({ filter: () => (filters.open.value = true), columns: () => (shownColumns.open.value = true) })
</script>

<template>
  <div class="look">
    <span class="shows" role="radiogroup" :aria-label="t('bins.BinBar.howItIsShown')"
      ><button
        v-for="(name, key) in SHOWS"
        :key="key"
        role="radio"
        :aria-checked="view.show === key"
        :class="{ on: view.show === key }"
        @click="change({ show: key })"
      >
        {{ name }}
      </button></span
    >
    <select
      v-if="view.show !== 'scenes'"
      class="field"
      :value="view.order"
      :aria-label="t('bins.BinBar.order')"
      :title="t('bins.BinBar.order')"
      @change="change({ order: ($event.target as HTMLSelectElement).value })"
    >
      <option v-for="(name, key) in orders" :key="key" :value="key">{{ name }}</option>
    </select>
    <button
      v-if="view.show !== 'scenes'"
      class="plain"
      :title="view.down ? t('bins.BinBar.theLastOneStandsFirst') : t('bins.BinBar.theFirstOneStandsFirst')"
      :aria-label="view.down ? t('bins.BinBar.turnTheOrderFirstTo') : t('bins.BinBar.turnTheOrderLastTo')"
      @click="change({ down: !view.down })"
    >
      {{ view.down ? '▾' : '▴' }}
    </button>
    <label v-if="takesAsked" class="takes" :title="t('bins.BinBar.eachTakeOnceWithIts')"
      ><input type="checkbox" :checked="view.takes" @change="change({ takes: !view.takes })" />{{
        t('bins.BinBar.asTakes')
      }}</label
    >
    <Popover v-model:open="filters.open.value" trigger="click" placement="bottomLeft">
      <button class="plain filter" :class="{ set: filtered > 0 }" :title="t('bins.BinBar.daysAndDevicesAltD')">
        {{ filterText }}
      </button>
      <template #content>
        <div ref="filterMenu" class="menu" @keydown="filters.onKey">
          <label v-for="day in production.days" :key="day.ulid"
            ><input
              type="checkbox"
              :checked="view.days.includes(day.ulid)"
              @change="change({ days: toggled(view.days, day.ulid) })"
            />{{ t('bins.BinBar.day', [day.number]) }}</label
          >
          <hr />
          <label v-for="device in production.devices" :key="device.letter"
            ><input
              type="checkbox"
              :checked="view.devices.includes(device.letter)"
              @change="change({ devices: toggled(view.devices, device.letter) })"
            />{{ t('bins.BinBar.device', [device.letter]) }} <span class="soft">{{ device.note }}</span></label
          >
          <button class="plain" :disabled="filtered === 0" @click="change({ days: [], devices: [] })">
            {{ t('bins.BinBar.allOfThem') }}
          </button>
        </div>
      </template>
    </Popover>
    <Popover v-if="view.show === 'rows'" v-model:open="shownColumns.open.value" trigger="click" placement="bottomRight">
      <button class="plain push" :title="t('bins.BinBar.whichColumnsAltK')">{{ t('bins.BinBar.columns') }}</button>
      <template #content>
        <div ref="columnMenu" class="menu" @keydown="shownColumns.onKey">
          <label v-for="column in columns" :key="column.key"
            ><input type="checkbox" :checked="column.shown" :disabled="column.frozen" @change="show(column)" />{{
              column.title
            }}</label
          >
          <button class="plain" @click="emit('columns', null)">{{ t('bins.BinBar.asItWasAtFirst') }}</button>
        </div>
      </template>
    </Popover>
    <a
      v-if="bin !== ''"
      class="plain"
      :href="wordsApi.file(production.ulid, `bins/${encodeURIComponent(bin)}`, 'txt')"
      download
      :title="t('bins.BinBar.whatIsSaidInAll')"
      >{{ t('bins.BinBar.wordsAsText') }}</a
    >
  </div>
</template>

<style scoped>
.look {
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 6px 14px;
  border-bottom: 1px solid var(--rule);
  font-size: 12px;
  white-space: nowrap;
  flex-wrap: wrap;
}
.shows {
  display: inline-flex;
  border: 1px solid var(--rule-strong);
  border-radius: 4px;
  overflow: hidden;
  flex: none;
}
.shows button {
  border: 0;
  background: var(--sheet);
  padding: 3px 9px;
  cursor: pointer;
}
.shows button + button {
  border-left: 1px solid var(--rule-strong);
}
.shows .on {
  background: var(--ink);
  color: var(--sheet);
}
select.field {
  width: auto;
  max-width: 108px;
  padding: 2px 4px;
}
.filter {
  overflow: hidden;
  text-overflow: ellipsis;
  min-width: 66px;
  text-align: left;
}
.filter.set {
  border-color: var(--act);
  color: var(--act);
}
.takes {
  display: inline-flex;
  gap: 4px;
  align-items: center;
}
.menu {
  display: grid;
  gap: 3px;
  max-height: 60vh;
  overflow: auto;
  min-width: 170px;
}
.menu label {
  display: flex;
  gap: 7px;
  align-items: center;
}
hr {
  width: 100%;
  border: 0;
  border-top: 1px solid var(--rule);
  margin: 3px 0;
}
</style>
