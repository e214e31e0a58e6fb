<script setup lang="ts">
import { deskSays } from '@/words/desk'
import { t } from '@/words'
import { useLocalStorage } from '@vueuse/core'
import { computed, ref } from 'vue'
import type { BinEntry, BinTree } from '@/api/types'
import { DRAGGED } from './useBinActions'

/**
 * The tree of bins. Rows that are dragged onto one of the production's own go into it; a bin that is dragged onto
 * another lies in that one, dragged above one it stands before it.
 */
const props = defineProps<{
  tree: BinTree
  counts: Record<string, number> | undefined
  chosen: string | null
  mayOrganise: boolean
}>()
const emit = defineEmits<{
  open: [bin: BinEntry]
  make: []
  makeRule: []
  /** Null is what is chosen. */
  drop: [bin: BinEntry, refs: string[] | null]
  place: [bin: string, parent: string | null, before: string | null]
  groups: [groups: string[]]
}>()
const BIN = 'application/x-cartella-bin'
const closed = useLocalStorage<string[]>('bins.closed', [])
const isOpen = (key: string) => !closed.value.includes(key)
function fold(key: string): void {
  closed.value = isOpen(key) ? [...closed.value, key] : closed.value.filter((one) => one !== key)
}
/** Own bins whose every bin above is open. */
const own = computed(() => {
  const hidden = new Set<string>()
  return props.tree.own.filter((bin) => {
    if (bin.parent !== null && (hidden.has(bin.parent) || !isOpen(bin.parent))) {
      hidden.add(bin.key)
      return false
    }
    return true
  })
})
const parents = computed(() => new Set(props.tree.own.map((bin) => bin.parent)))
const shown = computed(() => props.tree.groups.map((group) => group.key))
const choosing = ref(false)
function toggle(key: string): void {
  emit('groups', shown.value.includes(key) ? shown.value.filter((one) => one !== key) : [...shown.value, key])
}

const over = ref<{ key: string; above: boolean } | null>(null)
function drag(event: DragEvent, bin: BinEntry): void {
  event.dataTransfer?.setData(BIN, bin.key)
}
function hover(event: DragEvent, bin: BinEntry): void {
  const isBin = event.dataTransfer?.types.includes(BIN) === true
  if (!isBin && bin.is_rule) return
  event.preventDefault()
  const box = (event.currentTarget as HTMLElement).getBoundingClientRect()
  over.value = { key: bin.key, above: isBin && (bin.is_rule || event.clientY - box.top < 9) }
}
function drop(event: DragEvent, target: BinEntry): void {
  const above = over.value?.above === true
  over.value = null
  const bin = event.dataTransfer?.getData(BIN)
  const text = event.dataTransfer?.getData(DRAGGED)
  if (bin && bin !== target.key) emit('place', bin, above ? target.parent : target.key, above ? target.key : null)
  else if (text) emit('drop', target, JSON.parse(text) as string[] | null)
}
const countOf = (bin: BinEntry) => bin.items ?? props.counts?.[bin.key] ?? '…'
</script>

<template>
  <nav class="tree" :aria-label="t('bins.BinTreeNav.bins')">
    <div v-for="group in tree.groups" :key="group.key">
      <h3>
        <button class="fold" :aria-expanded="isOpen(group.key)" @click="fold(group.key)">
          <i>{{ isOpen(group.key) ? '▾' : '▸' }}</i>{{ deskSays(group.name) }}
        </button>
      </h3>
      <template v-if="isOpen(group.key)">
        <button
          v-for="one in group.bins.filter((bin) => countOf(bin) !== 0)"
          :key="one.key"
          class="bin"
          :class="{ on: one.key === chosen }"
          @click="emit('open', one)"
        >
          <b>{{ deskSays(one.name) }}</b><small v-if="one.note">{{ one.note }}</small
          ><span class="mono">{{ countOf(one) }}</span>
        </button>
        <p v-if="group.bins.length === 0" class="soft hint">{{ t('bins.BinTreeNav.nothingYet') }}</p>
      </template>
    </div>
    <h3 @dragover.prevent @drop.prevent="emit('place', $event.dataTransfer?.getData(BIN) ?? '', null, null)">
      {{ t('bins.BinTreeNav.ownBins') }}
      <span v-if="mayOrganise" class="pluses"
        ><button
          class="plus"
          :title="t('bins.BinTreeNav.newBinN')"
          :aria-label="t('bins.BinTreeNav.newBin')"
          @click="emit('make')"
        >
          +</button
        ><button
          class="plus"
          :title="t('bins.BinTreeNav.newRuleBinShiftN')"
          :aria-label="t('bins.BinTreeNav.newRuleBin')"
          @click="emit('makeRule')"
        >
          ∴
        </button></span
      >
    </h3>
    <button
      v-for="one in own"
      :key="one.key"
      class="bin"
      :class="{
        on: one.key === chosen,
        over: over?.key === one.key && !over.above,
        above: over?.key === one.key && over.above,
      }"
      :style="{ paddingLeft: `${8 + 14 * one.depth}px` }"
      :draggable="mayOrganise"
      @click="emit('open', one)"
      @dragstart="drag($event, one)"
      @dragover="hover($event, one)"
      @dragleave="over = null"
      @drop.prevent="drop($event, one)"
    >
      <b
        ><i
          v-if="parents.has(one.key)"
          class="sign"
          :title="isOpen(one.key) ? t('bins.BinTreeNav.fold') : t('bins.BinTreeNav.unfold')"
          @click.stop="fold(one.key)"
          >{{ isOpen(one.key) ? '▾' : '▸' }}</i
        ><i v-if="one.is_rule" class="sign" :title="t('bins.BinTreeNav.fillsItselfByARule')">∴</i
        ><i v-if="one.colour" class="dot" :class="`bin-${one.colour}`" />{{ one.name }}</b
      ><span class="mono">{{ countOf(one) }}</span>
    </button>
    <p v-if="tree.own.length === 0" class="soft hint">
      {{ mayOrganise ? t('bins.BinTreeNav.nMakesABinOf') : t('bins.BinTreeNav.nobodyMadeOneYet') }}
    </p>
    <slot />
    <template v-if="mayOrganise">
      <button class="fold more" :aria-expanded="choosing" @click="choosing = !choosing">
        <i>{{ choosing ? '▾' : '▸' }}</i>{{ t('bins.BinTreeNav.whatThisTreeShows') }}
      </button>
      <label v-for="(name, key) in choosing ? tree.known_groups : {}" :key="key" class="group"
        ><input type="checkbox" :checked="shown.includes(key)" @change="toggle(key)" />{{ deskSays(name) }}</label
      >
    </template>
  </nav>
</template>

<style scoped>
.tree {
  border-right: 1px solid var(--rule-strong);
  background: var(--sheet-2);
  padding: 6px 10px 20px;
  overflow: auto;
}
h3 {
  font-size: 11px;
  font-weight: 500;
  color: var(--ink-soft);
  margin: 14px 6px 5px;
  display: flex;
  align-items: center;
}
.fold {
  border: 0;
  background: none;
  padding: 0;
  font: inherit;
  color: inherit;
  cursor: pointer;
}
.fold i {
  font-style: normal;
  display: inline-block;
  width: 13px;
}
.more {
  font-size: 11px;
  color: var(--ink-soft);
  margin: 16px 6px 4px;
}
.group {
  display: flex;
  gap: 6px;
  align-items: center;
  padding: 2px 8px 2px 20px;
  font-size: 12px;
}
.pluses {
  margin-left: auto;
  display: flex;
  gap: 4px;
}
.plus {
  border: 1px solid var(--rule-strong);
  background: var(--sheet);
  border-radius: 4px;
  width: 22px;
  height: 20px;
  line-height: 1;
  padding: 0;
  cursor: pointer;
}
.bin {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  align-items: center;
  width: 100%;
  text-align: left;
  border: 0;
  background: none;
  border-radius: 5px;
  padding: 4px 8px;
  min-height: 28px;
  cursor: pointer;
}
.bin b {
  font-weight: 500;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.bin small {
  grid-row: 2;
  color: var(--ink-soft);
  font-size: 11px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.bin .mono {
  color: var(--ink-soft);
  font-size: 12px;
}
.bin.on {
  background: var(--act-soft);
}
.bin.on b {
  font-weight: 600;
  color: var(--act);
}
.bin.over {
  box-shadow: 0 0 0 2px var(--act);
}
.bin.above {
  box-shadow: 0 -2px 0 var(--act);
}
.sign {
  font-style: normal;
  display: inline-block;
  width: 14px;
  color: var(--ink-soft);
}
.dot {
  display: inline-block;
  width: 9px;
  height: 9px;
  border-radius: 50%;
  margin-right: 6px;
}
.hint {
  margin: 4px 8px;
  font-size: 12px;
}
</style>
