<script setup lang="ts" generic="T extends OpenedEvent">
import { t } from '@/words'
import { useVirtualList } from '@vueuse/core'
import { computed } from 'vue'
import type { OpenedEvent } from '@/api/types'

/** Events of a list in rows, any number of them. */
const props = defineProps<{ events: T[]; cursor?: number }>()
defineEmits<{ pick: [index: number] }>()
const rows = computed(() => props.events.map((event, index) => ({ event, index })))
const { list, containerProps, wrapperProps, scrollTo } = useVirtualList(rows, { itemHeight: 34, overscan: 12 })
defineExpose({ scrollTo })
</script>

<template>
  <div v-bind="containerProps" class="events" role="grid" :aria-rowcount="events.length">
    <div class="head" role="row">
      <span role="columnheader">{{ t('handoff.EventRows.track') }}</span><span role="columnheader">{{
        t('handoff.EventRows.name')
      }}</span
      ><span role="columnheader">{{ t('handoff.EventRows.reel') }}</span
      ><span role="columnheader">{{ t('handoff.EventRows.source') }}</span
      ><span role="columnheader">{{ t('handoff.EventRows.inTheCut') }}</span
      ><span role="columnheader"><slot name="head" /></span>
    </div>
    <div v-bind="wrapperProps">
      <div
        v-for="{ data: { event, index } } in list"
        :key="index"
        class="row"
        role="row"
        :class="{ on: index === cursor }"
        @click="$emit('pick', index)"
      >
        <span role="gridcell" class="soft">{{ event.on }}</span>
        <span role="gridcell" class="cut" :title="event.name">{{ event.name }}</span>
        <span role="gridcell" class="cut soft" :title="event.reel ?? ''">{{
          event.reel ?? t('handoff.EventRows.none')
        }}</span>
        <span role="gridcell" class="mono"
          >{{ event.source_in }} <i>{{ t('handoff.EventRows.to') }}</i> {{ event.source_out }}</span
        >
        <span role="gridcell" class="mono">{{ event.record_in }}</span>
        <span role="gridcell" class="cut"><slot :event="event" /></span>
      </div>
    </div>
  </div>
</template>

<style scoped>
.events {
  height: 56vh;
  border: 1px solid var(--rule);
  background: #fff;
}
.head,
.row {
  display: grid;
  grid-template-columns: 54px minmax(110px, 1.2fr) minmax(70px, 0.7fr) 200px 104px minmax(120px, 2fr);
  gap: 10px;
  padding: 0 12px;
  height: 34px;
  align-items: center;
  border-bottom: 1px solid var(--rule);
  font-size: 12px;
}
.head {
  position: sticky;
  top: 0;
  background: var(--sheet-2);
  color: var(--ink-soft);
  font-size: 11px;
  z-index: 1;
}
.row.on {
  background: var(--act-soft);
}
.cut {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.mono {
  white-space: nowrap;
}
i {
  font-style: normal;
  color: var(--ink-soft);
}
</style>
