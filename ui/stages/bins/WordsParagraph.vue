<script setup lang="ts">
import { t } from '@/words'
import { nextTick, ref } from 'vue'
import { UNSURE, type Paragraph } from './spoken'

/** A paragraph of what is said. */
const props = defineProps<{
  paragraph: Paragraph
  label: string
  /** The word that is heard now, and those that are chosen; by their number among all. */
  now: number
  chosen: [from: number, to: number] | null
  cursor: number
  /** The words that are being written anew. */
  editing: [from: number, to: number] | null
  mayEdit: boolean
}>()
const emit = defineEmits<{
  choose: [at: number, withShift: boolean]
  drag: [at: number]
  edit: [at: number]
  write: [text: string]
  leave: []
  speaker: []
}>()
const written = ref('')
const isEdited = (at: number) => props.editing !== null && at >= props.editing[0] && at <= props.editing[1]
const isFirst = (at: number) => props.editing?.[0] === at
function focus(element: unknown): void {
  if (!(element instanceof HTMLInputElement) || element.dataset.begun === 'yes') return
  element.dataset.begun = 'yes'
  const [from, to] = props.editing ?? [0, -1]
  written.value = props.paragraph.words
    .slice(from - props.paragraph.first, to - props.paragraph.first + 1)
    .map((word) => word.text)
    .join(' ')
  void nextTick(() => element.select())
}
const titleOf = (word: Paragraph['words'][number]): string | undefined =>
  word.heard !== null
    ? t('bins.WordsParagraph.heardAs', [
        word.heard,
        props.paragraph.by === null ? '' : t('bins.WordsParagraph.correctedBy', [props.paragraph.by]),
      ])
    : word.sure !== null && word.sure < UNSURE
      ? t('bins.WordsParagraph.sure', [Math.round(100 * word.sure)])
      : undefined
</script>

<template>
  <div class="paragraph" :class="{ draft: paragraph.draft }">
    <span class="mono at">{{ label }}</span>
    <button
      class="who"
      :class="{ none: paragraph.speaker === null }"
      :disabled="!mayEdit"
      :title="t('bins.WordsParagraph.whoSpeaksAltN')"
      @click="emit('speaker')"
    >
      {{ paragraph.speaker ?? '—' }}
    </button>
    <p>
      <template v-for="(word, n) in paragraph.words" :key="n">
        <input
          v-if="isFirst(paragraph.first + n)"
          :ref="focus"
          v-model="written"
          class="field"
          :size="Math.max(4, written.length + 1)"
          :aria-label="t('bins.WordsParagraph.whatIsSaid')"
          @keydown.enter.prevent="emit('write', written)"
          @keydown.esc.stop.prevent="emit('leave')"
          @blur="emit('leave')"
        />
        <span
          v-else-if="!isEdited(paragraph.first + n)"
          class="word"
          :class="{
            pale: word.sure !== null && word.sure < UNSURE,
            mended: word.heard !== null,
            now: now === paragraph.first + n,
            cursor: cursor === paragraph.first + n,
            chosen: chosen !== null && paragraph.first + n >= chosen[0] && paragraph.first + n <= chosen[1],
          }"
          :data-word="paragraph.first + n"
          :title="titleOf(word)"
          @pointerdown.prevent="emit('choose', paragraph.first + n, $event.shiftKey)"
          @pointerenter="$event.buttons === 1 && emit('drag', paragraph.first + n)"
          @dblclick="emit('edit', paragraph.first + n)"
          >{{ word.text + (n < paragraph.words.length - 1 ? ' ' : '') }}</span
        >
      </template>
    </p>
  </div>
</template>

<style scoped>
.paragraph {
  display: grid;
  grid-template-columns: 88px 70px minmax(0, 1fr);
  gap: 0 8px;
  align-items: baseline;
  padding: 4px 0;
}
.at {
  font-size: 12px;
  color: var(--ink-soft);
}
.who {
  border: 0;
  background: none;
  padding: 0;
  text-align: left;
  font-weight: 600;
  color: var(--info);
  cursor: pointer;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.who.none {
  color: var(--ink-faint);
  font-weight: 400;
}
.who:disabled {
  cursor: default;
}
p {
  margin: 0;
  font-size: 14px;
  line-height: 1.6;
  overflow-wrap: anywhere;
}
.draft p {
  font-style: italic;
}
.word {
  cursor: text;
  border-radius: 2px;
  white-space: pre-wrap;
}
.pale {
  color: var(--ink-faint);
}
.mended {
  text-decoration: underline dotted var(--info);
  text-underline-offset: 3px;
}
.chosen {
  background: var(--act-soft);
  box-shadow: 0 2px 0 var(--act);
}
.now {
  background: var(--warn-soft);
}
.chosen.now {
  background: var(--act-soft);
  box-shadow: 0 3px 0 var(--ink);
}
.cursor {
  outline: 1px solid var(--act);
}
.field {
  font: inherit;
  padding: 0 4px;
  width: auto;
  max-width: 100%;
}
</style>
