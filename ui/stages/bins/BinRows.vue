<script setup lang="ts">
import { computed, watch } from 'vue'
import { mediaUrl } from '@/api/client'
import type { BinRow, Production } from '@/api/types'
import { useRows } from '@/grid/rows'
import { labelAt, length } from '@/player/time'
import DeviceBadge from '@/shell/DeviceBadge.vue'
import TakeNumber from '@/shell/TakeNumber.vue'

/** What lies in a bin, row by row; those further down come as they are scrolled to. */
const props = defineProps<{ rows: BinRow[]; cursor: string | null; chosen: Set<string>; production: Production }>()
const emit = defineEmits<{
  select: [row: BinRow, event: MouseEvent]
  drag: [event: DragEvent, row: BinRow]
  more: []
}>()
const ROW = 46
/** Rows before the end at which the next ones are asked for. */
const AHEAD = 30
const SIGNS = { take: '◫', subclip: '⌐', sequence: '▤' } as const
const SAYS = { take: 'a take, all its angles', subclip: 'a subclip', sequence: 'a reel or cut' } as const
const { list, containerProps, wrapperProps, reveal } = useRows(
  computed(() => props.rows),
  ROW,
  { overscan: 10 },
)
watch(list, (shown) => {
  if ((shown.at(-1)?.index ?? 0) > props.rows.length - AHEAD) emit('more')
})
defineExpose({ reveal })
</script>

<template>
  <div
    v-bind="containerProps"
    class="rows"
    role="listbox"
    aria-label="What lies in the bin"
    aria-multiselectable="true"
  >
    <div v-bind="wrapperProps">
      <div
        v-for="{ data: one } in list"
        :key="one.ref"
        class="row"
        role="option"
        :aria-selected="one.ref === cursor || chosen.has(one.ref)"
        :class="{ on: one.ref === cursor, also: chosen.has(one.ref) }"
        draggable="true"
        :data-clip="one.clip"
        :data-what="one.what"
        @click="emit('select', one, $event)"
        @dragstart="emit('drag', $event, one)"
      >
        <span class="thumb"
          ><img
            v-if="one.ready && one.clip && (one.kind === 'picture' || one.kind === 'still')"
            :src="mediaUrl(production.ulid, one.clip, one.kind === 'still' ? 'thumb-1' : 'thumb-3')"
            alt=""
            loading="lazy"
          /><i v-else class="mono">{{ one.what === 'sequence' ? '▤' : one.kind === 'sound' ? '∿' : '…' }}</i></span
        >
        <span class="slate"
          ><template v-if="one.take"
            ><b class="mono">{{ one.take.setup }}</b
            ><TakeNumber :take="one.take.take" :part="one.take.part" :status="one.take.status" /></template
        ></span>
        <DeviceBadge v-if="one.device" :letter="one.device" /><span v-else />
        <span class="mono name" :title="one.name"
          ><i v-if="one.what !== 'clip'" class="sign" :title="SAYS[one.what]">{{ SIGNS[one.what] }}</i
          >{{ one.name }}</span
        >
        <span class="soft what">{{ one.take?.description }}</span>
        <span class="mono soft num">{{
          one.start_ticks === null ? '' : labelAt(one.start_ticks + (one.in_ticks ?? 0), production.rate)
        }}</span>
        <span class="mono num">{{ length(one.duration_ticks) }}</span>
      </div>
    </div>
  </div>
</template>

<style scoped>
.rows {
  height: 100%;
  overflow-y: auto;
}
.row {
  display: grid;
  grid-template-columns: 68px 82px 28px minmax(84px, 128px) minmax(0, 1fr) 88px 44px;
  gap: 0 8px;
  align-items: center;
  height: 46px;
  border-bottom: 1px solid var(--rule);
  padding: 0 14px 0 8px;
  white-space: nowrap;
}
.row > * {
  overflow: hidden;
  text-overflow: ellipsis;
}
.row.on {
  background: var(--act-soft);
  box-shadow: inset 3px 0 0 var(--act);
}
.row.also {
  background: #eaf2ec;
}
.thumb {
  width: 66px;
  height: 38px;
  border-radius: 3px;
  background: #e9e1cf;
  display: grid;
  place-items: center;
  color: var(--dev-S);
}
.thumb img {
  width: 100%;
  height: 100%;
  object-fit: cover;
  display: block;
}
.thumb i {
  font-style: normal;
  font-size: 18px;
}
.slate {
  display: flex;
  align-items: center;
  gap: 2px;
}
.slate b {
  min-width: 34px;
}
.name {
  font-size: 12px;
}
.num {
  font-size: 12px;
  text-align: right;
}
.what {
  font-size: 12px;
}
.sign {
  font-style: normal;
  color: var(--act);
  margin-right: 6px;
}
@media (max-width: 1120px) {
  .row {
    grid-template-columns: 68px 82px 28px minmax(84px, 1fr) 44px;
  }
  .what,
  .row > .num.soft {
    display: none;
  }
}
</style>
