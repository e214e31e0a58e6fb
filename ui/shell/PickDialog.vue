<script setup lang="ts" generic="T extends { key: string }">
import { Modal } from 'ant-design-vue'
import { ref, watch } from 'vue'

/** One of a short list, by arrows and Enter or by a click. */
const props = defineProps<{ open: boolean; title: string; label: string; choices: T[] }>()
const emit = defineEmits<{ pick: [one: T]; close: [] }>()
const at = ref(0)
watch(
  () => props.open,
  (open) => {
    if (open) at.value = 0
  },
)
function pick(one: T | undefined): void {
  if (one !== undefined) emit('pick', one)
}
</script>

<template>
  <Modal :open="open" :title="title" :footer="null" width="360px" @cancel="emit('close')">
    <slot name="before" />
    <div
      class="picks"
      tabindex="0"
      role="listbox"
      :aria-label="label"
      @vue:mounted="({ el }: { el: HTMLElement }) => el.focus()"
      @keydown.down.prevent="at = Math.min(at + 1, choices.length - 1)"
      @keydown.up.prevent="at = Math.max(0, at - 1)"
      @keydown.enter.prevent="pick(choices[at])"
    >
      <button
        v-for="(one, index) in choices"
        :key="one.key"
        role="option"
        :aria-selected="index === at"
        class="pick"
        :class="{ on: index === at }"
        @click="pick(one)"
      >
        <slot :one="one" />
      </button>
    </div>
  </Modal>
</template>

<style scoped>
.picks {
  max-height: 50vh;
  overflow: auto;
}
.pick {
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
.pick.on {
  background: var(--act-soft);
  color: var(--act);
}
</style>
