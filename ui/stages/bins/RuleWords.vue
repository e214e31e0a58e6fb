<script setup lang="ts">
import { deskSays } from '@/words/desk'
import { t } from '@/words'
import { Popover } from 'ant-design-vue'
import { computed, nextTick, ref, useTemplateRef } from 'vue'
import type { RuleCondition as Condition, RuleGroup } from '@/api/endpoints/bins'
import type { RuleSubject } from '@/api/types'
import { useMenu } from '@/shell/menu'
import { added, begun, changed, grouped, isGroup, joined, type Path } from './rule'
import RuleCondition from './RuleCondition.vue'

/** A group of a rule as words: its conditions, what holds them together, and a place for one more. */
const props = defineProps<{
  rule: RuleGroup
  group: RuleGroup
  path: Path
  subjects: Map<string, RuleSubject>
  mayChange: boolean
}>()
const emit = defineEmits<{ change: [rule: RuleGroup] }>()
const JOINS = { all: t('bins.RuleWords.and'), any: t('bins.RuleWords.or'), none: t('bins.RuleWords.nor') } as const
const NEXT = { all: 'any', any: 'none', none: 'all' } as const
const { open, onKey } = useMenu(useTemplateRef<HTMLElement>('menu'))
const filter = ref('')
/** A field that people added has their name. */
const nameOf = (one: RuleSubject) => (one.key.startsWith('own:') ? one.label : deskSays(one.label))
const offered = computed(() =>
  [...props.subjects.values()].filter((one) => nameOf(one).toLowerCase().includes(filter.value.toLowerCase())),
)
const conditions = ref<InstanceType<typeof RuleCondition>[]>([])
const at = (index: number): Path => [...props.path, index]
const set = (index: number, condition: Condition) =>
  emit(
    'change',
    changed(props.rule, at(index), () => condition),
  )
const remove = (index: number) =>
  emit(
    'change',
    changed(props.rule, at(index), () => null),
  )
function add(subject: RuleSubject | undefined): void {
  if (subject === undefined) return
  open.value = false
  filter.value = ''
  emit('change', added(props.rule, props.path, begun(subject)))
  void nextTick(() => conditions.value.at(-1)?.show())
}
defineExpose({ ask: () => (open.value = true) })
</script>

<template>
  <span class="group">
    <template v-if="path.length > 0">(</template
    ><template v-if="group.join === 'none' && group.parts.length > 0"
      >{{ t('bins.RuleWords.noneOf') }}{{ ' ' }}
    </template>
    <template v-for="(part, index) in group.parts" :key="index"
      ><button
        v-if="index > 0"
        class="join"
        :disabled="!mayChange"
        :title="t('bins.RuleWords.allOfThemAnyOr')"
        @click="emit('change', joined(rule, path, NEXT[group.join]))"
      >
        {{ JOINS[group.join] }}
      </button>
      <RuleWords
        v-if="isGroup(part)"
        :rule="rule"
        :group="part"
        :path="at(index)"
        :subjects="subjects"
        :may-change="mayChange"
        @change="emit('change', $event)" />
      <RuleCondition
        v-else
        ref="conditions"
        :condition="part"
        :subjects="subjects"
        :may-change="mayChange"
        @change="set(index, $event)"
        @remove="remove(index)"
        @group="emit('change', grouped(rule, at(index)))" /></template
    ><button
      v-if="mayChange && group.parts.length === 1"
      class="join"
      :title="t('bins.RuleWords.allOfThemAnyOr')"
      @click="emit('change', joined(rule, path, NEXT[group.join]))"
    >
      {{ JOINS[group.join] }}
    </button>
    <Popover v-if="mayChange" v-model:open="open" trigger="click" placement="bottomLeft">
      <button class="more" :aria-expanded="open">
        {{ group.parts.length === 0 ? t('bins.RuleWords.that') : '…' }}
      </button>
      <template #content>
        <div ref="menu" class="menu" @keydown="onKey">
          <input
            v-model="filter"
            class="field"
            :placeholder="t('bins.RuleWords.whatToAskAbout')"
            :aria-label="t('bins.RuleWords.whatToAskAbout')"
            @keydown.enter.prevent="add(offered[0])"
          />
          <div class="offers">
            <button v-for="one in offered" :key="one.key" class="offer" @click="add(one)">
              {{ nameOf(one) }}
            </button>
          </div>
          <p v-if="offered.length === 0" class="soft">{{ t('bins.RuleWords.nothingIsCalledSo') }}</p>
        </div>
      </template> </Popover
    ><template v-if="path.length > 0">)</template>
  </span>
</template>

<style scoped>
.join,
.more {
  border: 0;
  background: none;
  font: inherit;
  padding: 0 3px;
  margin: 0 2px;
  color: var(--ink-soft);
  cursor: pointer;
  border-radius: 3px;
}
.join:hover:not(:disabled) {
  color: var(--act);
}
.join:disabled {
  cursor: default;
}
.more {
  border: 1px dashed var(--ink-soft);
  padding: 0 8px;
}
.menu {
  width: 240px;
  display: grid;
  gap: 6px;
}
.offers {
  max-height: 260px;
  overflow: auto;
  display: grid;
}
.offer {
  border: 0;
  background: none;
  text-align: left;
  padding: 4px 6px;
  border-radius: 4px;
  cursor: pointer;
}
.offer:hover,
.offer:focus {
  background: var(--act-soft);
}
p {
  margin: 0;
}
</style>
