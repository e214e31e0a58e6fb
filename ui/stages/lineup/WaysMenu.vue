<script setup lang="ts">
import { t, valueWord } from '@/words'
import { Popover } from 'ant-design-vue'
import { computed, useTemplateRef } from 'vue'
import type { Lineup } from '@/api/types'
import { useShortcuts } from '@/shell/keys'
import { useMenu } from '@/shell/menu'
import { type LineupWish, WAYS } from './wish'

/** What the next run is about: what may move, the ways and their order, whose clock counts. */
const props = defineProps<{ lineup: Lineup; chosen: string | null; picked: number; wish: LineupWish }>()
const emit = defineEmits<{ wish: [wish: LineupWish] }>()
const { open, onKey } = useMenu(useTemplateRef<HTMLElement>('menu'))

const all = computed(() => [...props.lineup.placements, ...props.lineup.strays])
const rolls = computed(() => [...new Set(all.value.map((one) => one.roll).filter((roll) => roll !== null))].sort())
const scenes = computed(() => [...new Set(all.value.map((one) => one.scene).filter((scene) => scene !== null))].sort())
const recordings = computed(() => all.value.filter((one) => one.kind === 'sound' && !one.left_out))
const change = (part: Partial<LineupWish>) => emit('wish', { ...props.wish, ...part })
const off = computed(() => WAYS.filter((way) => !props.wish.ways.includes(way.key)))

function scope(value: string): void {
  const [kind, ...rest] = value.split(':')
  change({ scope: kind as LineupWish['scope'], key: rest.join(':') })
}
function shift(at: number, by: -1 | 1): void {
  const ways = [...props.wish.ways]
  const other = at + by
  if (other < 0 || other >= ways.length) return
  ;[ways[at], ways[other]] = [ways[other]!, ways[at]!]
  change({ ways })
}

useShortcuts('The next run', [
  {
    keys: ['n'],
    what: t('lineup.WaysMenu.whatItIsAboutClips'),
    run: () => {
      open.value = !open.value
    },
  },
])
</script>

<template>
  <Popover v-model:open="open" trigger="click" placement="bottomLeft">
    <template #content>
      <div ref="menu" class="wish" @keydown="onKey">
        <label
          >{{ t('lineup.WaysMenu.lineUp') }}
          <select :value="`${wish.scope}:${wish.key}`" @change="scope(($event.target as HTMLSelectElement).value)">
            <option value="day:">{{ t('lineup.WaysMenu.theWholeDay') }}</option>
            <option v-if="chosen" value="clips:">
              {{ picked > 1 ? t('lineup.WaysMenu.thePickedClips', [picked]) : t('lineup.WaysMenu.theChosenClipOnly') }}
            </option>
            <option v-for="roll in rolls" :key="roll" :value="`card:${roll}`">
              {{ t('lineup.WaysMenu.card', [roll]) }}
            </option>
            <option v-for="scene in scenes" :key="scene" :value="`scene:${scene}`">
              {{ t('lineup.WaysMenu.scene', [scene]) }}
            </option>
          </select>
        </label>
        <p class="soft">{{ t('lineup.WaysMenu.whatLiesOutsideStaysWhere') }}</p>
        <h3>{{ t('lineup.WaysMenu.waysInThisOrder') }}</h3>
        <ol>
          <li v-for="(way, n) in wish.ways" :key="way">
            <span
              ><b>{{ valueWord(way) }}</b> <small>{{ WAYS.find((one) => one.key === way)?.what }}</small></span
            >
            <button
              class="plain"
              :aria-label="t('lineup.WaysMenu.earlier', [valueWord(way)])"
              :disabled="n === 0"
              @click="shift(n, -1)"
            >
              ↑
            </button>
            <button
              class="plain"
              :aria-label="t('lineup.WaysMenu.later', [valueWord(way)])"
              :disabled="n === wish.ways.length - 1"
              @click="shift(n, 1)"
            >
              ↓
            </button>
            <button
              class="plain"
              :aria-label="t('lineup.WaysMenu.notBy', [valueWord(way)])"
              :disabled="wish.ways.length === 1"
              @click="change({ ways: wish.ways.filter((one) => one !== way) })"
            >
              ×
            </button>
          </li>
        </ol>
        <div v-if="off.length > 0" class="more">
          <button
            v-for="way in off"
            :key="way.key"
            class="plain"
            :title="way.what"
            @click="change({ ways: [...wish.ways, way.key] })"
          >
            + {{ valueWord(way.key) }}
          </button>
        </div>
        <label
          >{{ t('lineup.WaysMenu.theClockOf') }}
          <select
            :value="wish.anchor ?? ''"
            @change="change({ anchor: ($event.target as HTMLSelectElement).value || null })"
          >
            <option value="">{{ t('lineup.WaysMenu.theFirstRecording') }}</option>
            <option v-for="one in recordings" :key="one.clip" :value="one.clip">{{ one.name }}</option>
          </select>
        </label>
        <label class="check"
          ><input
            type="checkbox"
            :checked="wish.cut"
            @change="change({ cut: ($event.target as HTMLInputElement).checked })"
          />
          {{ t('lineup.WaysMenu.thenCutIntoTakes') }}</label
        >
      </div>
    </template>
    <button class="plain" :title="t('lineup.WaysMenu.whatTheNextRunIs')" :aria-expanded="open">
      {{ t('lineup.WaysMenu.ways', [wish.ways.map(valueWord).join(t('lineup.WaysMenu.then'))]) }}
    </button>
  </Popover>
</template>

<style scoped>
.wish {
  width: 330px;
  display: grid;
  gap: 8px;
  font-size: 13px;
}
.wish label {
  display: grid;
  grid-template-columns: 92px 1fr;
  align-items: center;
  gap: 8px;
}
.wish label.check {
  grid-template-columns: auto 1fr;
}
.wish p {
  margin: -4px 0 0 100px;
  font-size: 12px;
}
h3 {
  font-size: 13px;
  margin: 4px 0 0;
}
ol {
  margin: 0;
  padding-left: 18px;
  display: grid;
  gap: 4px;
}
li {
  display: list-item;
}
li span {
  display: inline-block;
  width: 190px;
  vertical-align: middle;
}
li small {
  display: block;
  color: var(--ink-soft);
  line-height: 1.25;
}
li button {
  padding: 0 7px;
  margin-left: 3px;
}
.more {
  display: flex;
  flex-wrap: wrap;
  gap: 5px;
}
.more button {
  padding: 1px 8px;
  font-size: 12px;
}
select {
  font: inherit;
  padding: 3px 5px;
  border: 1px solid var(--rule-strong);
  border-radius: 4px;
  background: var(--sheet);
  min-width: 0;
}
</style>
