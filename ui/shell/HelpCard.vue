<script setup lang="ts">
import { Modal } from 'ant-design-vue'
import { computed } from 'vue'
import { groups } from './keys'

defineProps<{ open: boolean }>()
defineEmits<{ close: [] }>()
/** Parts of the page add to one group, such as what works everywhere. */
const merged = computed(() =>
  [...Map.groupBy(groups, (group) => group.title)].map(([title, parts]) => ({
    title,
    shortcuts: parts.flatMap((part) => part.shortcuts),
  })),
)
const shown = (key: string) =>
  ({ ' ': 'Space', ArrowUp: '↑', ArrowDown: '↓', ArrowLeft: '←', ArrowRight: '→', Escape: 'Esc' })[key] ??
  key
    .replace('Shift+', '⇧ ')
    .replace('Ctrl+', 'Ctrl ')
    .replace('ArrowLeft', '←')
    .replace('ArrowRight', '→')
    .replace('ArrowUp', '↑')
    .replace('ArrowDown', '↓')
    .replace(/^(Ctrl |⇧ )*[a-z]$/, (text) => text.slice(0, -1) + text.slice(-1).toUpperCase())
</script>

<template>
  <Modal :open="open" title="Keys of this page" :footer="null" width="720px" @cancel="$emit('close')">
    <div class="card">
      <section v-for="group in merged" :key="group.title">
        <h2>{{ group.title }}</h2>
        <dl>
          <template v-for="shortcut in group.shortcuts" :key="shortcut.what">
            <dt>
              <kbd v-for="key in shortcut.keys" :key="key">{{ shown(key) }}</kbd>
            </dt>
            <dd>{{ shortcut.what }}</dd>
          </template>
        </dl>
      </section>
    </div>
  </Modal>
</template>

<style scoped>
.card {
  columns: 2;
  column-gap: 28px;
  max-height: 66vh;
  overflow: auto;
}
section {
  break-inside: avoid;
  margin-bottom: 18px;
}
dl {
  display: grid;
  grid-template-columns: 104px 1fr;
  gap: 5px 10px;
  margin: 8px 0 0;
}
dt {
  display: flex;
  gap: 3px;
  justify-content: flex-end;
  flex-wrap: wrap;
}
dd {
  margin: 0;
}
</style>
