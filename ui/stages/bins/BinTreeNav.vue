<script setup lang="ts">
import { ref } from 'vue'
import type { BinEntry, BinTree } from '@/api/types'
import { DRAGGED } from './useBinActions'

/** The tree of bins; rows that are dragged onto one of the production's own go into it. */
defineProps<{ tree: BinTree; chosen: string | null; mayOrganise: boolean }>()
const emit = defineEmits<{ open: [bin: BinEntry]; make: []; drop: [bin: BinEntry, refs: string[]] }>()
const over = ref<string | null>(null)
function drop(event: DragEvent, target: BinEntry): void {
  over.value = null
  const text = event.dataTransfer?.getData(DRAGGED)
  if (text) emit('drop', target, JSON.parse(text) as string[])
}
</script>

<template>
  <nav class="tree" aria-label="Bins">
    <h3 v-if="tree.scenes.length > 0">Scenes</h3>
    <button
      v-for="one in tree.scenes"
      :key="one.key"
      class="bin"
      :class="{ on: one.key === chosen }"
      @click="emit('open', one)"
    >
      <b>{{ one.name }}</b><small>{{ one.note }}</small
      ><span class="mono">{{ one.items }}</span>
    </button>
    <h3 v-if="tree.imports.length > 0">Sound and imports</h3>
    <button
      v-for="one in tree.imports"
      :key="one.key"
      class="bin"
      :class="{ on: one.key === chosen }"
      @click="emit('open', one)"
    >
      <b>{{ one.name }}</b><span class="mono">{{ one.items }}</span>
    </button>
    <h3>
      Own bins
      <button v-if="mayOrganise" class="plus" title="New bin (N)" aria-label="New bin" @click="emit('make')">+</button>
    </h3>
    <button
      v-for="one in tree.own"
      :key="one.key"
      class="bin"
      :class="{ on: one.key === chosen, over: over === one.key }"
      @click="emit('open', one)"
      @dragover.prevent="over = one.key"
      @dragleave="over = null"
      @drop.prevent="drop($event, one)"
    >
      <b>{{ one.name }}</b><span class="mono">{{ one.items }}</span>
    </button>
    <p v-if="tree.own.length === 0" class="soft hint">
      {{ mayOrganise ? 'N makes a bin of your own; drag clips onto it, or press P.' : 'Nobody made one yet.' }}
    </p>
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
.plus {
  margin-left: auto;
  border: 1px solid var(--rule-strong);
  background: var(--sheet);
  border-radius: 4px;
  width: 22px;
  height: 20px;
  line-height: 1;
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
.hint {
  margin: 4px 8px;
  font-size: 12px;
}
</style>
