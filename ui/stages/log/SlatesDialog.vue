<script setup lang="ts">
import { t } from '@/words'
import { log as logApi } from '@/api/endpoints/log'
import { watchDebounced } from '@vueuse/core'
import { Modal } from 'ant-design-vue'
import { computed, ref, shallowRef, watch } from 'vue'
import { ApiError } from '@/api/client'
import { makeStale } from '@/api/queries'
import type { ReadSlate } from '@/api/types'
import DeviceBadge from '@/shell/DeviceBadge.vue'
import { useDesk } from '@/shell/desk'
import { attempt, say } from '@/shell/say'

/**
 * What reading the slates would find, clip by clip and by which pattern; the patterns are tried while they are typed.
 */
const props = defineProps<{ open: boolean }>()
const emit = defineEmits<{ close: [] }>()
const { production, day } = useDesk()
const clips = shallowRef<ReadSlate[]>([])
const kept = ref<string[]>([])
const text = ref('')
const trouble = ref('')
const waiting = ref(true)
const onlySilent = ref(false)
const editing = ref(false)
const patterns = computed(() =>
  text.value
    .split('\n')
    .map((line) => line.trim())
    .filter((line) => line !== ''),
)
const changed = computed(() => JSON.stringify(patterns.value) !== JSON.stringify(kept.value))
const count = computed(() => ({
  news: clips.value.filter((one) => one.is_new).length,
  ixml: clips.value.filter((one) => one.is_new && one.from === 'ixml').length,
  silent: clips.value.filter((one) => one.slate === null && one.has === null).length,
  has: clips.value.filter((one) => one.has !== null).length,
}))
const shown = computed(() =>
  clips.value.filter((one) => !onlySilent.value || (one.slate === null && one.has === null)).slice(0, 400),
)

watch(
  () => props.open,
  async (open) => {
    if (!open) return
    waiting.value = true
    const answer = await attempt(() => logApi.previewSlates(production.value.ulid, day.value.ulid))
    waiting.value = false
    if (answer === undefined) return
    kept.value = answer.patterns ?? []
    text.value = kept.value.join('\n')
    clips.value = answer.clips
  },
)
watchDebounced(
  patterns,
  async (now) => {
    if (!props.open || waiting.value || now.length === 0) return
    try {
      clips.value = (await logApi.tryPatterns(production.value.ulid, day.value.ulid, { patterns: now })).clips
      trouble.value = ''
    } catch (error) {
      trouble.value =
        error instanceof ApiError ? `${error.message} ${error.fix}` : t('log.SlatesDialog.theyCannotBeTriedNow')
    }
  },
  { debounce: 150 },
)

async function keep(): Promise<boolean> {
  if (!changed.value) return true
  if (
    (await attempt(() => logApi.setSlatePatterns(production.value.ulid, { was: kept.value, now: patterns.value }))) ===
    undefined
  )
    return false
  kept.value = patterns.value
  return true
}
async function read(): Promise<void> {
  if (trouble.value !== '' || !(await keep())) return
  const answer = await attempt(() => logApi.readSlates(production.value.ulid, day.value.ulid))
  if (answer === undefined) return
  say(
    answer.read === 0
      ? t('log.SlatesDialog.nothingNewToReadClips', [answer.silent])
      : t('log.SlatesDialog.readSlatesFromTheRecorder', [
          answer.read,
          answer.from_recorder,
          answer.from_names,
          answer.silent,
        ]),
  )
  makeStale('takes')
  emit('close')
}
</script>

<template>
  <Modal
    :open="open"
    :style="{ top: '36px' }"
    :title="t('log.SlatesDialog.readSlates')"
    width="820px"
    :ok-text="
      count.news === 0
        ? changed
          ? t('log.SlatesDialog.keepThePatterns')
          : t('log.SlatesDialog.nothingNew')
        : t('log.SlatesDialog.read', [
            count.news,
            count.news === 1 ? t('log.SlatesDialog.slate') : t('log.SlatesDialog.slates'),
          ])
    "
    :cancel-text="t('log.SlatesDialog.leaveIt')"
    :ok-button-props="{ disabled: trouble !== '' || (count.news === 0 && !changed) }"
    @ok="read"
    @cancel="emit('close')"
  >
    <p class="soft">
      {{
        t('log.SlatesDialog.newFromTheRecordersFields', [count.news, count.ixml, count.news - count.ixml, count.has])
      }}
      <label
        ><input v-model="onlySilent" type="checkbox" /> {{ t('log.SlatesDialog.sayNothing', [count.silent]) }}</label
      >
    </p>
    <div class="rolls" :class="{ low: editing }" tabindex="0">
      <table class="list">
        <thead>
          <tr>
            <th>{{ t('log.SlatesDialog.clip') }}</th>
            <th>{{ t('log.SlatesDialog.slate2') }}</th>
            <th>{{ t('log.SlatesDialog.whereItIsFrom') }}</th>
            <th />
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in shown" :key="one.clip" :class="{ dim: !one.is_new }">
            <td>
              <DeviceBadge :letter="one.device" /> <span class="mono">{{ one.name }}</span>
            </td>
            <td class="mono">
              <b>{{ one.slate ?? '' }}</b><span v-if="!one.slate" class="soft">—</span>
            </td>
            <td>
              <template v-if="one.from === 'ixml'">{{ t('log.SlatesDialog.theRecordersFields') }}</template><span
                v-else-if="one.pattern"
                class="mono soft"
                >{{ one.pattern }}</span
              >
            </td>
            <td class="soft">
              {{
                one.has === null
                  ? ''
                  : one.slate === null || one.has === one.slate
                    ? t('log.SlatesDialog.is', [one.has])
                    : t('log.SlatesDialog.stays', [one.has])
              }}
            </td>
          </tr>
        </tbody>
      </table>
      <p v-if="!waiting && clips.length === 0" class="soft empty">{{ t('log.SlatesDialog.noClipOfThisDay') }}</p>
    </div>
    <button class="plain" :aria-expanded="editing" @click="editing = !editing">
      {{ t('log.SlatesDialog.patterns', [editing ? '▾' : '▸']) }}</button><span v-if="changed" class="soft">
      {{ ' ' }}{{ t('log.SlatesDialog.changedTheyAreKeptWith') }}</span
    >
    <div v-if="editing" class="patterns">
      <label
        >{{ t('log.SlatesDialog.oneSpellingALineThe')
        }}<textarea
          v-model="text"
          class="field mono"
          rows="8"
          spellcheck="false"
          :aria-label="t('log.SlatesDialog.slatePatterns')"
          @keydown.enter.stop
        />
      </label>
      <dl class="soft">
        <dt class="mono">{{ t('log.SlatesDialog.setupTake') }}</dt>
        <dd>
          {{ ' ' }}{{ t('log.SlatesDialog.whatTheSlateSays') }}
          <span class="mono">{{ t('log.SlatesDialog.setup') }}</span> {{ t('log.SlatesDialog.onlyWithLetters') }}
          <span class="mono">{{ t('log.SlatesDialog.take3') }}</span> {{ t('log.SlatesDialog.threeDigits') }}{{ ' ' }}
        </dd>
        <dt class="mono">{s} {t} {-}</dt>
        <dd>{{ t('log.SlatesDialog.theWordSceneTheWord') }}</dd>
        <dt class="mono">{{ t('log.SlatesDialog.deviceRollAny') }}</dt>
        <dd>{{ t('log.SlatesDialog.aLetterSuchAsA003') }}</dd>
        <dt class="mono">[ ] /</dt>
        <dd>{{ t('log.SlatesDialog.mayBeMissingTheEdge') }}</dd>
      </dl>
      <p v-if="trouble" class="note fault" role="alert">{{ trouble }}</p>
    </div>
  </Modal>
</template>

<style scoped>
.rolls {
  max-height: 38vh;
  margin: 6px 0 10px;
}
.low {
  max-height: 26vh;
}
.dim td {
  color: var(--ink-soft);
}
td {
  white-space: nowrap;
}
.patterns {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px 18px;
  margin-top: 8px;
}
.patterns label {
  display: grid;
  gap: 4px;
  align-content: start;
  font-weight: 500;
  font-size: 12px;
}
.patterns dl {
  margin: 18px 0 0;
  font-size: 12px;
}
.patterns dd {
  margin: 0 0 6px;
}
.patterns .note {
  grid-column: span 2;
  margin: 0;
}
.empty {
  padding: 18px;
}
p label {
  white-space: nowrap;
}
</style>
