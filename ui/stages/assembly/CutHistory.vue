<script setup lang="ts">
import { deskSays } from '@/words/desk'
import { t } from '@/words'
import { locale } from '@/words/language'
import { Modal } from 'ant-design-vue'
import { ref, watch } from 'vue'
import { assembly } from '@/api/endpoints/assembly'
import { useAnswer } from '@/api/queries'
import type { SequenceVersion } from '@/api/types'
import AnswerState from '@/shell/AnswerState.vue'
import { useDesk } from '@/shell/desk'
import { attempt, say } from '@/shell/say'
import VersionBeside from './VersionBeside.vue'

/** Named versions of a cut, what became of it since each, and who did what. */
const props = defineProps<{
  open: boolean
  cut: string
  name: string
  versions: SequenceVersion[]
  step: number
  canWork: boolean
}>()
const emit = defineEmits<{ close: []; again: []; go: [ticks: number] }>()
const { production } = useDesk()
const typed = ref('')
const seen = ref<string | null>(null)
const beside = ref(false)
watch(
  () => props.open,
  () => ([seen.value, beside.value] = [null, false]),
)
const {
  data: since,
  isPending,
  error,
  refetch,
} = useAnswer(() =>
  props.open && seen.value !== null ? assembly.since(production.value.ulid, props.cut, seen.value) : null,
)
const { data: history } = useAnswer(() => (props.open ? assembly.history(production.value.ulid, props.cut) : null))
async function keep(): Promise<void> {
  const text = typed.value.trim()
  if (text === '') return
  if ((await attempt(() => assembly.keep(production.value.ulid, props.cut, text))) === undefined) return
  typed.value = ''
  say(t('assembly.CutHistory.keptAs', [text]))
  emit('again')
}
async function goBack(version: SequenceVersion): Promise<void> {
  if ((await attempt(() => assembly.goBack(production.value.ulid, props.cut, version.ulid))) === undefined) return
  say(t('assembly.CutHistory.theCutIsAsIn', [version.name]))
  emit('again')
  emit('close')
}
const when = (at: string | null) =>
  at === null ? '' : new Date(at).toLocaleString(locale, { dateStyle: 'short', timeStyle: 'short' })
</script>

<template>
  <Modal
    :open="open"
    :title="t('assembly.CutHistory.versionsOf', [props.name])"
    :footer="null"
    width="860px"
    @cancel="emit('close')"
  >
    <div class="both">
      <section>
        <form v-if="canWork" class="keep" @submit.prevent="keep">
          <input
            v-model="typed"
            class="field"
            maxlength="120"
            :placeholder="t('assembly.CutHistory.aNameForItAs')"
            :aria-label="t('assembly.CutHistory.name')"
          />
          <button class="plain" :disabled="typed.trim() === ''">{{ t('assembly.CutHistory.keepThisVersion') }}</button>
        </form>
        <p v-if="versions.length === 0" class="soft">{{ t('assembly.CutHistory.noVersionWasKeptYet') }}</p>
        <ul>
          <li v-for="version in [...versions].reverse()" :key="version.ulid" :class="{ on: seen === version.ulid }">
            <b>{{ version.name }}</b>
            <span class="soft">{{ version.by }} · {{ when(version.made_at) }}</span>
            <span class="acts">
              <button class="plain" @click="seen = version.ulid">
                {{ t('assembly.CutHistory.whatChangedSince') }}
              </button>
              <button v-if="canWork" class="plain" @click="goBack(version)">
                {{ t('assembly.CutHistory.goBackToIt') }}
              </button>
            </span>
          </li>
        </ul>
        <template v-if="seen !== null">
          <AnswerState :pending="isPending" :error="error" :rows="3" @retry="refetch()">
            <p v-if="since" class="soft">
              {{ t('assembly.CutHistory.piecesAreAsTheyWere', [since.same])
              }}<template v-if="since.changes.length === 0">{{ t('assembly.CutHistory.andSoIsAllOf') }}</template
              >.
              <button class="plain" @click="beside = !beside">
                {{ beside ? t('assembly.CutHistory.asAList') : t('assembly.CutHistory.besideEachOther') }}
              </button>
            </p>
            <VersionBeside
              v-if="beside"
              :cut="cut"
              :version="seen"
              :name="versions.find((one) => one.ulid === seen)?.name ?? ''"
            />
            <div v-else-if="since" class="changes">
              <button
                v-for="(change, index) in since.changes"
                :key="index"
                class="change"
                @click="(emit('go', change.at_ticks), emit('close'))"
              >
                <span class="mono">{{ change.is_at ?? change.was_at }}</span> <b>{{ change.name }}</b>
                {{ deskSays(change.words) }}
              </button>
            </div>
          </AnswerState>
        </template>
      </section>
      <section>
        <h3>{{ t('assembly.CutHistory.steps') }}</h3>
        <p v-if="history && history.steps.length === 0" class="soft">
          {{ t('assembly.CutHistory.nothingWasDoneYet') }}
        </p>
        <ol>
          <li v-for="one in history?.steps ?? []" :key="one.number" :class="{ undone: one.undone }">
            {{ deskSays(one.label) }}
            <span class="soft">{{ one.by ?? t('assembly.CutHistory.theDesk') }} · {{ when(one.at) }}</span>
          </li>
        </ol>
      </section>
    </div>
  </Modal>
</template>

<style scoped>
.both {
  display: grid;
  grid-template-columns: minmax(0, 3fr) minmax(0, 2fr);
  gap: 20px;
  max-height: 60vh;
  overflow: auto;
}
.keep {
  display: flex;
  gap: 8px;
}
.keep input {
  flex: 1;
}
ul,
ol {
  list-style: none;
  padding: 0;
  margin: 8px 0;
}
li {
  padding: 4px 6px;
  border-bottom: 1px solid var(--rule);
}
li.on {
  background: var(--act-soft);
}
li.undone {
  text-decoration: line-through;
  color: var(--ink-faint);
}
.acts {
  display: flex;
  gap: 12px;
}
.changes {
  display: grid;
}
.change {
  border: 0;
  background: none;
  text-align: left;
  padding: 3px 6px;
  cursor: pointer;
}
.change:hover {
  background: var(--sheet-2);
}
h3 {
  font-size: 13px;
  margin: 4px 0;
}
</style>
