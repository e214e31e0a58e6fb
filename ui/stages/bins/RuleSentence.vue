<script setup lang="ts">
import { t } from '@/words'
import { computed, useTemplateRef } from 'vue'
import type { RuleGroup } from '@/api/endpoints/bins'
import type { RuleSubject } from '@/api/types'
import { length } from '@/player/time'
import { EMPTY, isWhole } from './rule'
import RuleWords from './RuleWords.vue'

/** A rule as one sentence, and how much it lets through; what was changed is kept or put back. */
const props = defineProps<{
  rule: RuleGroup
  /** As it is kept; null for a bin that is not made yet. */
  kept: RuleGroup | null
  subjects: RuleSubject[]
  total: number | null
  ticks: number
  trouble: string | null
  mayChange: boolean
}>()
const emit = defineEmits<{ change: [rule: RuleGroup]; keep: []; back: []; freeze: [] }>()
const byKey = computed(() => new Map(props.subjects.map((one) => [one.key, one])))
const isChanged = computed(() => props.kept === null || JSON.stringify(props.rule) !== JSON.stringify(props.kept))
const isReady = computed(() => isWhole(props.rule, byKey.value))
const words = useTemplateRef('words')
const box = useTemplateRef<HTMLElement>('box')
/** Along the words with the arrows. */
function walk(event: KeyboardEvent): void {
  const step = { ArrowRight: 1, ArrowLeft: -1 }[event.key]
  if (step === undefined || box.value === null) return
  const all = [...box.value.querySelectorAll<HTMLElement>('button:not(:disabled)')]
  const next = all[all.indexOf(document.activeElement as HTMLElement) + step]
  if (next === undefined) return
  event.preventDefault()
  event.stopPropagation()
  next.focus()
}
defineExpose({
  ask: () => words.value?.ask(),
  enter: () => box.value?.querySelector<HTMLElement>('button:not(:disabled)')?.focus(),
  isReady,
  isChanged,
})
</script>

<template>
  <div ref="box" class="sentence" @keydown="walk">
    <p>
      {{ t('bins.RuleSentence.everything') }}
      <RuleWords
        ref="words"
        :rule="rule"
        :group="rule"
        :path="[]"
        :subjects="byKey"
        :may-change="mayChange"
        @change="emit('change', $event)"
      />
      <span class="soft sum"
        ><template v-if="trouble">{{ trouble }}</template
        ><template v-else-if="!isReady">{{ t('bins.RuleSentence.aWordIsMissing') }}</template
        ><template v-else-if="total !== null"
          >{{ total }} · {{ length(ticks) }}{{ isChanged ? '' : t('bins.RuleSentence.fillsItself') }}</template
        ></span
      >
    </p>
    <div v-if="mayChange" class="acts">
      <template v-if="isChanged">
        <button
          class="go"
          :disabled="!isReady || trouble !== null"
          :title="t('bins.RuleSentence.ctrlEnter')"
          @click="emit('keep')"
        >
          {{ kept === null ? t('bins.RuleSentence.keepAsARuleBin') : t('bins.RuleSentence.keepTheRule') }}
        </button>
        <button class="plain" @click="emit('back')">
          {{ kept === null ? t('bins.RuleSentence.dropIt') : t('bins.RuleSentence.putBack') }}
        </button>
      </template>
      <template v-else>
        <button class="plain" :title="t('bins.RuleSentence.aPlainBinWithWhat')" @click="emit('freeze')">
          {{ t('bins.RuleSentence.freeze') }}
        </button>
        <button v-if="rule.parts.length > 0" class="plain" @click="emit('change', EMPTY)">
          {{ t('bins.RuleSentence.beginAnew') }}
        </button>
      </template>
    </div>
  </div>
</template>

<style scoped>
.sentence {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 14px;
  align-items: flex-start;
  padding: 12px 14px;
  border-bottom: 1px solid var(--rule);
}
p {
  margin: 0;
  flex: 1 1 260px;
  line-height: 1.75;
  font-size: 14.5px;
}
.sum {
  font-size: 12px;
  margin-left: 6px;
}
.acts {
  display: flex;
  gap: 6px;
  flex: none;
}
</style>
