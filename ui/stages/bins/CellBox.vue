<script setup lang="ts">
import { ref } from 'vue'
import type { TakeField } from '@/api/types'

/** A cell that is being written: Enter keeps it, Tab goes on to the next of the row, Escape leaves it as it was. */
const props = defineProps<{ text: string; field: TakeField | null; label: string }>()
const emit = defineEmits<{ keep: [text: string, step: 0 | 1 | -1]; cancel: [] }>()
const draft = ref(props.text)
const choices =
  props.field?.type === 'yes_no' ? ['', 'yes'] : props.field?.type === 'choice' ? ['', ...props.field.choices] : null
let isDone = false
function keep(step: 0 | 1 | -1): void {
  if (isDone) return
  isDone = true
  emit('keep', draft.value, step)
}
function key(event: KeyboardEvent): void {
  // Nothing typed here is the page's.
  event.stopPropagation()
  if (event.isComposing) return
  if (event.key === 'Enter') keep(0)
  else if (event.key === 'Tab') keep(event.shiftKey ? -1 : 1)
  else if (event.key === 'Escape') {
    isDone = true
    emit('cancel')
  } else return
  event.preventDefault()
}
const enter = ({ el }: { el: HTMLInputElement | HTMLSelectElement }) => {
  el.focus()
  if (el instanceof HTMLInputElement) el.select()
}
</script>

<template>
  <select
    v-if="choices"
    v-model="draft"
    class="box"
    :aria-label="label"
    @vue:mounted="enter"
    @keydown="key"
    @blur="keep(0)"
    @click.stop
  >
    <option v-for="one in choices" :key="one" :value="one">{{ one }}</option>
  </select>
  <input
    v-else
    v-model="draft"
    class="box"
    :aria-label="label"
    :maxlength="field?.limit || 160"
    @vue:mounted="enter"
    @keydown="key"
    @blur="keep(0)"
    @click.stop
    @dblclick.stop
  />
</template>

<style scoped>
.box {
  width: 100%;
  min-width: 0;
  height: 28px;
  border: 1px solid var(--act);
  border-radius: 3px;
  background: #fff;
  padding: 0 5px;
  font: inherit;
}
</style>
