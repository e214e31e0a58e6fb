<script setup lang="ts">
import { deskSays } from '@/words/desk'
import { counted, t } from '@/words'
import { handoff as handoffApi } from '@/api/endpoints/handoff'
import { computed, ref, watch } from 'vue'
import { useAnswer } from '@/api/queries'
import type { CutName } from '@/api/types'
import AnswerState from '@/shell/AnswerState.vue'
import { useDesk } from '@/shell/desk'

/** What became of a cut that was sent: chosen here, told as a list and along the cut. */
const props = defineProps<{ sequence: string; others: CutName[] }>()
const { production } = useDesk()
const other = ref(props.others[0]?.ulid ?? '')
watch(
  () => props.others,
  (list) => (other.value ||= list[0]?.ulid ?? ''),
)
const { data, isPending, error, refetch } = useAnswer(() =>
  other.value === '' ? null : handoffApi.compared(production.value.ulid, props.sequence, other.value),
)
const WORDS: Record<string, string> = {
  new: t('handoff.ChangeList.new'),
  gone: t('handoff.ChangeList.gone'),
  moved: t('handoff.ChangeList.moved'),
  longer: t('handoff.ChangeList.longer'),
  shorter: t('handoff.ChangeList.shorter'),
  slipped: t('handoff.ChangeList.slipped'),
  speed: t('handoff.ChangeList.speed'),
}
const last = computed(() => Math.max(1, ...(data.value?.changes ?? []).map((one) => one.at_ticks)))
</script>

<template>
  <section class="changes">
    <div v-if="others.length === 0" class="empty">
      <b>{{ t('handoff.ChangeList.thereIsNoOtherCut') }}</b>
    </div>
    <template v-else>
      <label
        >{{ t('handoff.ChangeList.since') }}
        <select v-model="other" class="field">
          <option v-for="one in others" :key="one.ulid" :value="one.ulid">{{ one.name }}</option>
        </select></label
      >
      <AnswerState :pending="isPending" :error="error" @retry="refetch()">
        <template v-if="data">
          <p role="status">
            {{
              t('handoff.ChangeList.asBeforeWhatOnlyCame', [
                counted(data.changes.length, 'change'),
                counted(data.same, 'item'),
              ])
            }}
          </p>
          <div v-if="data.changes.length > 0" class="along" aria-hidden="true">
            <i
              v-for="(one, index) in data.changes"
              :key="index"
              :class="one.kind"
              :style="{ left: `${(100 * one.at_ticks) / (last * 1.02)}%` }"
              :title="`${one.name} ${deskSays(one.words)}`"
            />
          </div>
          <table>
            <thead>
              <tr>
                <th></th>
                <th>{{ t('handoff.ChangeList.item') }}</th>
                <th>{{ t('handoff.ChangeList.what') }}</th>
                <th>{{ t('handoff.ChangeList.wasAt') }}</th>
                <th>{{ t('handoff.ChangeList.isAt') }}</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="(one, index) in data.changes" :key="index">
                <td>
                  <span class="kind" :class="one.kind">{{ WORDS[one.kind] }}</span>
                </td>
                <td>{{ one.name }}</td>
                <td>{{ deskSays(one.words) }}</td>
                <td class="mono">{{ one.was_at }}</td>
                <td class="mono">{{ one.is_at }}</td>
              </tr>
            </tbody>
          </table>
        </template>
      </AnswerState>
    </template>
  </section>
</template>

<style scoped>
.changes {
  grid-row: 4;
  overflow: auto;
  padding: 12px 18px;
  display: grid;
  gap: 12px;
  align-content: start;
}
label {
  display: flex;
  gap: 8px;
  align-items: center;
}
.along {
  position: relative;
  height: 26px;
  border: 1px solid var(--rule-strong);
  background: #fff;
}
.along i {
  position: absolute;
  top: 3px;
  bottom: 3px;
  width: 3px;
  background: var(--warn-edge);
}
.along .new {
  background: var(--act);
}
.along .gone {
  background: var(--fault);
}
table {
  width: 100%;
  border-collapse: collapse;
  background: #fff;
}
th {
  text-align: left;
  font-size: 11px;
  color: var(--ink-soft);
  font-weight: 500;
}
td,
th {
  padding: 5px 10px;
  border-bottom: 1px solid var(--rule);
}
.kind {
  font-weight: 600;
  color: var(--warn);
}
.kind.new {
  color: var(--act);
}
.kind.gone {
  color: var(--fault);
}
p {
  margin: 0;
}
</style>
