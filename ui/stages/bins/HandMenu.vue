<script setup lang="ts">
import { t, valueWord } from '@/words'
import { Popover } from 'ant-design-vue'
import { useTemplateRef } from 'vue'
import { useMenu } from '@/shell/menu'

/** Something that can be done with what is in hand; the key does the same. */
export interface HandAct {
  what: string
  keys: string
  run: () => unknown
}

/** All that can be done with what is chosen, or with the row under the cursor, and the key of each. */
defineProps<{ title: string; acts: HandAct[]; colours: readonly string[] | null }>()
const emit = defineEmits<{ colour: [colour: string | null] }>()
const { open, onKey } = useMenu(useTemplateRef<HTMLElement>('menu'))
function take(act: HandAct): void {
  open.value = false
  act.run()
}
function colour(one: string | null): void {
  open.value = false
  emit('colour', one)
}
/** Up and down, as in any list. */
function step(by: number): void {
  const all = [...(document.activeElement?.closest('.acts-menu')?.querySelectorAll('button') ?? [])]
  const at = all.indexOf(document.activeElement as HTMLButtonElement)
  all[(at + by + all.length) % all.length]?.focus()
}
defineExpose({ open: () => (open.value = true) })
</script>

<template>
  <Popover v-model:open="open" trigger="click" placement="bottomRight">
    <button class="plain" :aria-expanded="open" :title="t('bins.HandMenu.whatCanBeDoneWith')">
      {{ t('bins.HandMenu.withIt') }}
    </button>
    <template #content>
      <div
        ref="menu"
        class="acts-menu"
        role="menu"
        :aria-label="title"
        @keydown="onKey"
        @keydown.down.prevent="step(1)"
        @keydown.up.prevent="step(-1)"
      >
        <p class="soft">{{ title }}</p>
        <button v-for="one in acts" :key="one.what" role="menuitem" @click="take(one)">
          {{ one.what }} <kbd>{{ one.keys }}</kbd>
        </button>
        <span v-if="colours" class="colours" role="group" :aria-label="t('bins.HandMenu.aColour')"
          ><button
            v-for="one in colours"
            :key="one"
            class="swatch"
            :class="`bin-${one}`"
            :aria-label="valueWord(one)"
            :title="valueWord(one)"
            @click="colour(one)"
          /><button class="none" @click="colour(null)">{{ t('bins.HandMenu.noColour') }}</button></span
        >
      </div>
    </template>
  </Popover>
</template>

<style scoped>
.acts-menu {
  display: grid;
  min-width: 240px;
  max-height: 70vh;
  overflow: auto;
}
.acts-menu > button,
.none {
  display: flex;
  justify-content: space-between;
  gap: 18px;
  border: 0;
  background: none;
  padding: 4px 6px;
  border-radius: 4px;
  text-align: left;
  cursor: pointer;
}
.acts-menu > button:hover,
.acts-menu > button:focus,
.none:hover,
.none:focus {
  background: var(--act-soft);
}
p {
  margin: 0 6px 4px;
  font-size: 12px;
}
.colours {
  display: flex;
  gap: 6px;
  align-items: center;
  padding: 6px 6px 2px;
}
.swatch {
  width: 18px;
  height: 18px;
  border-radius: 50%;
  border: 1px solid var(--rule-strong);
  cursor: pointer;
}
</style>
