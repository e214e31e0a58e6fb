<script setup lang="ts">
import { t } from '@/words'
import { computed, nextTick, ref } from 'vue'
import { mediaUrl } from '@/api/client'
import { screening } from '@/api/endpoints/screening'
import { makeStale } from '@/api/queries'
import type { Reel, ReelItem } from '@/api/types'
import { length } from '@/player/time'
import { useShortcuts } from '@/shell/keys'
import { attempt, say } from '@/shell/say'
import TakeNumber from '@/shell/TakeNumber.vue'

/** The takes of a reel in their order: put elsewhere and left out by keys and by dragging. */
const props = defineProps<{ production: string; reel: Reel; mayChange: boolean }>()
const emit = defineEmits<{ watch: [] }>()
/** A take whose angles follow each other is one line. */
const takes = computed(() => {
  const found = new Map<string, { first: ReelItem; angles: number; ticks: number }>()
  for (const one of props.reel.items) {
    const known = found.get(one.take.ulid)
    const ticks = one.out_ticks - one.in_ticks
    if (known === undefined) found.set(one.take.ulid, { first: one, angles: 1, ticks })
    else {
      known.angles++
      known.ticks += ticks
    }
  }
  return [...found.values()]
})
const order = computed(() => takes.value.map((one) => one.first.take.ulid))
const at = ref(0)
const list = ref<HTMLElement | null>(null)
const busy = ref(false)

async function arrange(now: string[], cursor: number): Promise<void> {
  if (busy.value || !props.mayChange || now.length === 0) return
  busy.value = true
  await attempt(() => screening.arrange(props.production, props.reel.ulid, order.value, now))
  makeStale('sequences', { sequence: props.reel.ulid })
  busy.value = false
  at.value = Math.max(0, Math.min(now.length - 1, cursor))
  await nextTick()
  list.value?.querySelector(`[data-at="${at.value}"]`)?.scrollIntoView({ block: 'nearest' })
}
function shift(by: 1 | -1): void {
  const [from, to] = [at.value, at.value + by]
  if (to < 0 || to >= order.value.length) return
  const now = [...order.value]
  now.splice(to, 0, ...now.splice(from, 1))
  void arrange(now, to)
}
function leaveOut(index: number): void {
  const gone = takes.value[index]
  if (gone === undefined) return
  if (order.value.length === 1) return void say(t('screening.ReelTakes.aReelShowsOneTake'))
  void arrange(
    order.value.filter((_, other) => other !== index),
    index,
  ).then(() => say(t('screening.ReelTakes.isLeftOutCtrlZ', [gone.first.take.setup, gone.first.take.take])))
}
function takeIn(ulid: string): void {
  void arrange([...order.value, ulid], order.value.length)
}

const dragged = ref<number | null>(null)
const over = ref<number | null>(null)
function drop(): void {
  const [from, to] = [dragged.value, over.value]
  dragged.value = over.value = null
  if (from === null || to === null || from === to || from + 1 === to) return
  const now = [...order.value]
  const [one] = now.splice(from, 1)
  now.splice(to > from ? to - 1 : to, 0, one!)
  void arrange(now, to > from ? to - 1 : to)
}

function move(by: number): void {
  at.value = Math.max(0, Math.min(takes.value.length - 1, at.value + by))
  list.value?.querySelector(`[data-at="${at.value}"]`)?.scrollIntoView({ block: 'nearest' })
}
useShortcuts('Takes of the reel', [
  {
    keys: ['j', 'k'],
    what: t('screening.ReelTakes.nextTakeTheOneBefore'),
    run: (event) => move(event.key === 'j' ? 1 : -1),
  },
  {
    keys: ['Alt+ArrowDown', 'Alt+ArrowUp'],
    what: t('screening.ReelTakes.putTheTakeLaterEarlier'),
    run: (event) => shift(event.key === 'ArrowDown' ? 1 : -1),
  },
  { keys: ['Delete'], what: t('screening.ReelTakes.leaveTheTakeOut'), run: () => leaveOut(at.value) },
])
</script>

<template>
  <div class="takes">
    <ol
      ref="list"
      :class="{ busy }"
      :aria-label="t('screening.ReelTakes.takesOfTheReel')"
      @dragover.prevent
      @drop.prevent="drop"
    >
      <li
        v-for="(one, index) in takes"
        :key="one.first.take.ulid"
        :data-at="index"
        :class="{ on: index === at, over: over === index && dragged !== null }"
        :draggable="mayChange"
        @click="at = index"
        @dblclick="emit('watch')"
        @dragstart="dragged = index"
        @dragend="dragged = over = null"
        @dragover.prevent="over = index"
      >
        <img
          :src="mediaUrl(production, one.first.clip, 'thumb-3', one.first.angles[0]?.media_version)"
          alt=""
          loading="lazy"
        />
        <span class="slate"
          ><b class="mono">{{ one.first.take.setup }}</b
          ><TakeNumber :take="one.first.take.take" :part="one.first.take.part" :status="one.first.take.status" dark
        /></span>
        <span class="what"
          >{{ one.first.take.description
          }}<small v-if="one.angles > 1" class="soft"> {{ t('screening.ReelTakes.anglesInTurn', [one.angles]) }}</small
          ><small v-if="one.first.notes.length > 0" class="soft">
            {{ one.first.notes.length }}
            {{ one.first.notes.length === 1 ? t('screening.ReelTakes.note') : t('screening.ReelTakes.notes') }}</small
          ></span
        >
        <span class="mono soft">{{ length(one.ticks) }}</span>
        <button
          v-if="mayChange"
          class="out"
          :title="t('screening.ReelTakes.leaveItOutDelete')"
          :aria-label="t('screening.ReelTakes.leaveItOut')"
          @click.stop="leaveOut(index)"
        >
          ×
        </button>
      </li>
      <li
        v-if="mayChange && dragged !== null"
        class="end"
        :class="{ over: over === takes.length }"
        @dragover.prevent="over = takes.length"
      >
        {{ t('screening.ReelTakes.toTheEnd') }}
      </li>
    </ol>
    <div v-if="reel.left_out.length > 0" class="left-out">
      <span class="soft">{{ t('screening.ReelTakes.leftOut') }}</span>
      <button
        v-for="one in reel.left_out"
        :key="one.ulid"
        class="chip mono"
        :disabled="!mayChange"
        :title="t('screening.ReelTakes.takeItInAgainAt', [one.description])"
        @click="takeIn(one.ulid)"
      >
        {{ one.label }} +
      </button>
    </div>
  </div>
</template>

<style scoped>
ol {
  list-style: none;
  margin: 0;
  padding: 0;
}
ol.busy {
  opacity: 0.7;
}
li {
  display: grid;
  grid-template-columns: 56px 78px minmax(0, 1fr) auto 22px;
  gap: 10px;
  align-items: center;
  padding: 3px 8px 3px 3px;
  border-radius: 5px;
  border-top: 2px solid transparent;
  cursor: default;
}
li.on {
  background: #2a3237;
}
li.over {
  border-top-color: #6dbfa6;
}
li.end {
  display: block;
  color: var(--on-dark-soft);
  padding: 4px 8px;
}
img {
  width: 56px;
  aspect-ratio: 16 / 9;
  object-fit: cover;
  border-radius: 3px;
  background: #000;
}
.slate {
  display: flex;
  gap: 6px;
  align-items: center;
}
.what {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.what small {
  margin-left: 8px;
}
.out {
  border: 0;
  background: none;
  color: var(--on-dark-soft);
  cursor: pointer;
  font-size: 15px;
  line-height: 1;
}
.left-out {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
  padding: 10px 3px;
}
.chip {
  border: 1px dashed #4a545b;
  background: none;
  color: var(--on-dark);
  border-radius: 12px;
  padding: 1px 10px;
  cursor: pointer;
  font-size: 12px;
}
</style>
