<script setup lang="ts">
import { t } from '@/words'
import { Popover } from 'ant-design-vue'
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue'
import type { RuleCondition } from '@/api/endpoints/bins'
import type { RuleSubject } from '@/api/types'
import { useMenu } from '@/shell/menu'
import { phrase } from './rule'

/** A condition as words of a sentence; what is underlined opens, and is chosen or written anew. */
const props = defineProps<{ condition: RuleCondition; subjects: Map<string, RuleSubject>; mayChange: boolean }>()
const emit = defineEmits<{ change: [condition: RuleCondition]; remove: []; group: [] }>()
const { open, onKey } = useMenu(useTemplateRef<HTMLElement>('menu'))
const subject = computed(() => props.subjects.get(props.condition.about))
const said = computed(() => phrase(props.condition, props.subjects))
const test = computed(() => subject.value?.tests.find((one) => one.test === props.condition.test))
const filter = ref('')
const choices = computed(() =>
  (subject.value?.choices ?? []).filter((one) => one.word.toLowerCase().includes(filter.value.toLowerCase())),
)
const isMany = computed(() => (subject.value?.choices.length ?? 0) > 9)
const isOpenText = computed(() => ['text', 'slate', 'number', 'length', 'date'].includes(subject.value?.type ?? ''))
const INPUTS: Record<string, string> = { number: 'number', length: 'number', date: 'date' }
const inputType = computed(() => INPUTS[subject.value?.type ?? ''] ?? 'text')
const written = ref('')
const button = useTemplateRef<HTMLButtonElement>('button')

function ask(next: string): void {
  const to = subject.value?.tests.find((one) => one.test === next)
  if (to === undefined) return
  const values = !to.values ? [] : to.several ? props.condition.values : props.condition.values.slice(0, 1)
  emit('change', { ...props.condition, test: next, values })
}
function choose(value: string): void {
  const has = props.condition.values.includes(value)
  const values = !test.value?.several
    ? [value]
    : has
      ? props.condition.values.filter((one) => one !== value)
      : [...props.condition.values, value]
  emit('change', { ...props.condition, values })
}
function write(): void {
  const value = written.value.toString().trim()
  written.value = ''
  if (value === '' || props.condition.values.includes(value)) return
  emit('change', { ...props.condition, values: test.value?.several ? [...props.condition.values, value] : [value] })
}
function close(): void {
  write()
  open.value = false
}
// However it is closed, the keys go on along the sentence.
watch(open, (now) => now || void nextTick(() => button.value?.focus()))
function key(event: KeyboardEvent): void {
  if (event.key === 'Delete' || event.key === 'Backspace') {
    event.preventDefault()
    event.stopPropagation()
    if (props.mayChange) emit('remove')
  }
}
defineExpose({ show: () => (open.value = true) })
</script>

<template>
  <Popover v-model:open="open" trigger="click" placement="bottomLeft" @open-change="(now: boolean) => !now && write()">
    <button
      ref="button"
      class="word"
      :disabled="!mayChange"
      :class="{ bare: said.words === '…' }"
      :aria-expanded="open"
      @keydown="key"
    >
      {{ said.before }}<b>{{ said.words }}</b
      >{{ said.after }}
    </button>
    <template #content>
      <div v-if="subject" ref="menu" class="menu" @keydown="onKey">
        <template v-if="test?.values">
          <input
            v-if="isMany"
            v-model="filter"
            class="field"
            :placeholder="t('bins.RuleCondition.findInThisList')"
            :aria-label="t('bins.RuleCondition.find')"
          />
          <div v-if="choices.length > 0" class="choices">
            <label v-for="one in choices" :key="one.value"
              ><input
                :type="test.several ? 'checkbox' : 'radio'"
                :checked="condition.values.includes(one.value)"
                @change="choose(one.value)"
              />{{ one.word }}</label
            >
          </div>
          <p v-else-if="!isOpenText" class="soft">{{ t('bins.RuleCondition.thereIsNothingToChoose') }}</p>
          <template v-if="isOpenText">
            <p
              v-for="value in condition.values.filter((one) => !subject!.choices.some((c) => c.value === one))"
              :key="value"
            >
              <b>{{ value }}</b>
              <button class="plain" :aria-label="t('bins.RuleCondition.not', [value])" @click="choose(value)">×</button>
            </p>
            <form class="write" @submit.prevent="write">
              <input
                v-model="written"
                class="field"
                :type="inputType"
                step="any"
                :aria-label="subject.label"
                :placeholder="
                  condition.values.length > 0 && test.several ? t('bins.RuleCondition.or') : subject.label.toLowerCase()
                "
              />
              <button class="plain">{{ t('bins.RuleCondition.set') }}</button>
            </form>
          </template>
        </template>
        <div
          v-if="subject.tests.length > 1"
          class="tests"
          role="radiogroup"
          :aria-label="t('bins.RuleCondition.whatIsAsked')"
        >
          <button
            v-for="one in subject.tests"
            :key="one.test"
            role="radio"
            class="plain"
            :aria-checked="one.test === condition.test"
            :class="{ on: one.test === condition.test }"
            @click="ask(one.test)"
          >
            {{ one.phrase.replace('{}', '…') }}
          </button>
        </div>
        <div class="foot">
          <button
            class="plain"
            :title="t('bins.RuleCondition.inBracketsWithOthersOf')"
            @click="((open = false), emit('group'))"
          >
            {{ t('bins.RuleCondition.inBrackets') }}
          </button>
          <button class="plain" :title="t('bins.RuleCondition.delete')" @click="emit('remove')">
            {{ t('bins.RuleCondition.takeOut') }}
          </button>
          <button class="plain push" @click="close">{{ t('bins.RuleCondition.done') }}</button>
        </div>
      </div>
    </template>
  </Popover>
</template>

<style scoped>
.word {
  border: 0;
  background: none;
  padding: 1px 1px;
  font: inherit;
  color: inherit;
  cursor: pointer;
  text-align: left;
  border-radius: 3px;
}
.word:disabled {
  cursor: default;
  color: inherit;
}
.word b {
  font-weight: 600;
  color: var(--act);
  border-bottom: 2px solid var(--act);
}
.word.bare b {
  color: var(--warn);
  border-color: var(--warn-edge);
}
.menu {
  width: 300px;
  display: grid;
  gap: 8px;
}
/* Above what is chosen, behind it for the keys: words are set more often than the question. */
.tests {
  order: -1;
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
}
.tests .on {
  background: var(--act-soft);
  border-color: var(--act);
}
.choices {
  max-height: 220px;
  overflow: auto;
  display: grid;
  gap: 1px;
}
.choices label {
  display: flex;
  gap: 7px;
  align-items: center;
  padding: 2px;
}
p {
  margin: 0;
}
.write {
  display: flex;
  gap: 6px;
}
.write input {
  flex: 1;
  min-width: 0;
}
.foot {
  display: flex;
  gap: 6px;
  border-top: 1px solid var(--rule);
  padding-top: 8px;
}
</style>
