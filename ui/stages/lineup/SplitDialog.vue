<script setup lang="ts">
import { t } from '@/words'
import { lineup as lineupApi } from '@/api/endpoints/lineup'
import { Modal } from 'ant-design-vue'
import { computed, ref, watch } from 'vue'
import { makeStale, useAnswer } from '@/api/queries'
import type { Placed, Stray } from '@/api/types'
import { labelAt, length } from '@/player/time'
import AnswerState from '@/shell/AnswerState.vue'
import { useDesk } from '@/shell/desk'
import { attempt, say } from '@/shell/say'
import { countUp } from './split'

/** Splits one long recording into takes: where from and to is proposed, which take each is a person says. */
const props = defineProps<{ clip: Placed | Stray | null; angles: string[] }>()
const emit = defineEmits<{ close: [] }>()
const { production } = useDesk()

const by = ref('windows')
const first = ref('')
const slates = ref<string[]>([])
const left = ref(new Set<number>())
const working = ref(false)
const { data, isPending, error, refetch } = useAnswer(() => {
  if (props.clip === null) return null
  const [way, device] = by.value.split(':')
  const of = device === undefined ? '' : `&device=${encodeURIComponent(device)}`
  return lineupApi.splitPlan(production.value.ulid, props.clip.clip, `by=${way}${of}`)
})
const spans = computed(() => (error.value === null ? (data.value?.spans ?? []) : []))
const zero = computed(() => {
  const one = props.clip
  if (one === null) return 0
  return 'start_ticks' in one ? one.start_ticks : (one.own_ticks ?? 0)
})
watch(
  () => props.clip,
  (clip) => {
    by.value = clip !== null && !('start_ticks' in clip) ? 'marks' : 'windows'
    first.value = ''
  },
)
watch([spans, first], () => {
  slates.value = countUp(
    spans.value.map((one) => one.slate),
    first.value.trim(),
  )
})
watch(spans, () => {
  left.value = new Set()
})
const chosen = computed(() =>
  spans.value.flatMap((one, at) =>
    left.value.has(at) || (slates.value[at] ?? '').trim() === ''
      ? []
      : [{ from: one.from, to: one.to, slate: (slates.value[at] ?? '').trim() }],
  ),
)
function toggle(at: number): void {
  const next = new Set(left.value)
  if (!next.delete(at)) next.add(at)
  left.value = next
}
async function apply(): Promise<void> {
  const clip = props.clip
  if (clip === null || chosen.value.length === 0) return
  working.value = true
  const answer = await attempt(() =>
    lineupApi.split(production.value.ulid, clip.clip, { spans: chosen.value, was: clip.take }),
  )
  working.value = false
  if (answer === undefined) return
  makeStale('takes')
  makeStale('lineup')
  const takes = new Set(answer.takes).size
  say(
    t('lineup.SplitDialog.isNowCtrlZTakes', [
      clip.name,
      takes === 1 ? t('lineup.SplitDialog.oneTake') : t('lineup.SplitDialog.takes', [takes]),
    ]),
  )
  emit('close')
}
</script>

<template>
  <Modal
    :open="clip !== null"
    :width="720"
    :title="t('lineup.SplitDialog.splitIntoTakes', [clip?.name ?? ''])"
    :ok-text="
      chosen.length === 1
        ? t('lineup.SplitDialog.makeThisTake')
        : t('lineup.SplitDialog.makeTheseTakes', [chosen.length])
    "
    :ok-button-props="{ disabled: chosen.length === 0 || !production.may.work }"
    :confirm-loading="working"
    @ok="apply"
    @cancel="emit('close')"
  >
    <div class="ways">
      <label>
        {{ ' ' }}{{ t('lineup.SplitDialog.splitIt') }}
        <select v-model="by" class="field">
          <option value="windows">{{ t('lineup.SplitDialog.whereTheOthersBesideIt') }}</option>
          <option value="marks">{{ t('lineup.SplitDialog.atItsMarks') }}</option>
          <option v-for="letter in angles" :key="letter" :value="`angle:${letter}`">
            {{ t('lineup.SplitDialog.whereStartedAndStopped', [letter]) }}
          </option>
        </select>
      </label>
      <label>
        {{ ' ' }}{{ t('lineup.SplitDialog.firstSlate') }}
        <input v-model="first" class="field mono" placeholder="12A/1" maxlength="40" spellcheck="false" />
      </label>
    </div>
    <AnswerState :pending="isPending" :error="error" @retry="refetch()">
      <p class="soft">
        {{ t('lineup.SplitDialog.nothingIsCutOnDisk') }}
      </p>
      <ul>
        <li v-for="(one, at) in spans" :key="one.from">
          <input
            type="checkbox"
            :checked="!left.has(at)"
            :aria-label="t('lineup.SplitDialog.stretch', [at + 1])"
            @change="toggle(at)"
          />
          <span class="mono">{{ labelAt(zero + one.from, production.rate) }}</span>
          <span class="soft">{{ t('lineup.SplitDialog.for', [length(one.to - one.from)]) }}</span>
          <input
            v-model="slates[at]"
            class="field mono"
            :disabled="left.has(at)"
            :aria-label="t('lineup.SplitDialog.slateOfStretch', [at + 1])"
            :placeholder="t('lineup.SplitDialog.slate')"
            maxlength="40"
            spellcheck="false"
          />
        </li>
      </ul>
    </AnswerState>
  </Modal>
</template>

<style scoped>
.ways {
  display: flex;
  gap: 18px;
  align-items: end;
  margin-bottom: 10px;
}
.ways label {
  display: grid;
  gap: 3px;
  font-size: 12px;
}
.ways input {
  width: 96px;
}
ul {
  max-height: 46vh;
  overflow: auto;
  margin: 8px 0 0;
  padding: 0;
  list-style: none;
}
li {
  display: grid;
  grid-template-columns: 22px 110px 1fr 120px;
  gap: 10px;
  align-items: center;
  padding: 5px 2px;
  border-bottom: 1px solid var(--rule);
}
</style>
