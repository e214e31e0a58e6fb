<script setup lang="ts">
import { t } from '@/words'
import { log as logApi } from '@/api/endpoints/log'
import { useIntervalFn } from '@vueuse/core'
import { Modal } from 'ant-design-vue'
import { computed, ref, shallowRef, watch } from 'vue'
import { makeStale } from '@/api/queries'
import type { NoteFile } from '@/api/types'
import { useDesk } from '@/shell/desk'
import { attempt, say } from '@/shell/say'
import { fieldName } from './sheet'
import NotesReport from './NotesReport.vue'
import TaskProgress from '@/shell/TaskProgress.vue'

/** Script notes and reports of others: which column is what, then what they would change, then into the log. */
const props = defineProps<{ open: boolean }>()
const emit = defineEmits<{ close: []; go: [take: string] }>()
const { day, production } = useDesk()
const TITLES: Record<string, string> = {
  slate: t('log.NotesDialog.slate3a4'),
  scene: t('log.NotesDialog.scene'),
  setup: t('log.NotesDialog.setup'),
  take: t('log.NotesDialog.take'),
  day: t('log.NotesDialog.dayOrDate'),
  time: t('log.NotesDialog.time'),
  clip: t('log.NotesDialog.clipName'),
  description: t('log.NotesDialog.whatHappens'),
  size: t('log.NotesDialog.size'),
  status: t('log.NotesDialog.circledHoldNg'),
  notes: t('log.NotesDialog.notes'),
  keywords: t('log.NotesDialog.keywords'),
  marks: t('log.NotesDialog.marksMosTail'),
}
const file = shallowRef<NoteFile | null>(null)
const columns = ref<Record<string, string>>({})
const heading = ref(0)
const picker = ref<HTMLInputElement | null>(null)
const sending = ref(false)
const over = ref(false)
const mapping = ref(true)
const width = computed(() => Math.max(0, ...(file.value?.rows.map((row) => row.length) ?? [])))
const letter = (at: number) =>
  (at < 26 ? '' : String.fromCharCode(64 + Math.floor(at / 26))) + String.fromCharCode(65 + (at % 26))
const busy = computed(
  () =>
    file.value?.task !== null &&
    file.value?.task !== undefined &&
    ['waiting', 'running'].includes(file.value.task.state),
)
const failed = computed(() =>
  file.value?.task?.state === 'failed' ? `${file.value.task.message ?? ''} ${file.value.task.fix ?? ''}` : '',
)
const report = computed(() => (mapping.value || busy.value ? null : (file.value?.report ?? null)))
const step = computed(() => (file.value === null ? 'bring' : mapping.value ? 'map' : 'look'))
const applies = computed(() => (report.value === null ? 0 : report.value.counts.new + report.value.counts.different))
const called = (field: string) => fieldName(production.value.fields, field)

watch(
  () => props.open,
  (open) => {
    if (open) return
    file.value = null
    mapping.value = true
  },
)
async function bring(list: FileList | null | undefined): Promise<void> {
  const chosen = list?.[0]
  over.value = false
  if (chosen === undefined) return
  sending.value = true
  const answer = await attempt(() => logApi.bringNotes(production.value.ulid, day.value.ulid, chosen))
  sending.value = false
  if (picker.value !== null) picker.value.value = ''
  if (answer === undefined) return
  file.value = answer
  mapping.value = true
  if (busy.value) awaited = 'sheet'
  opened(answer)
}
/** A worker is unpacking a workbook; what it finds replaces what is shown. */
let awaited: 'sheet' | '' = ''
/** What the columns are taken for; of a workbook it comes when a worker has unpacked it. */
function opened(answer: NoteFile): void {
  columns.value = { ...answer.columns }
  heading.value = answer.heading
}
function leaveFor(take: string): void {
  emit('go', take)
  emit('close')
}
/** @param said the older file that a person says these correct; left out, the desk compares them by their words */
async function look(said: { corrects?: string | null } = {}): Promise<void> {
  if (file.value === null) return
  const chosen = Object.fromEntries(Object.entries(columns.value).filter(([, target]) => target !== ''))
  const answer = await attempt(() =>
    logApi.previewNotes(production.value.ulid, file.value?.ulid ?? '', {
      heading: heading.value,
      columns: chosen,
      ...said,
    }),
  )
  if (answer === undefined) return
  file.value = answer
  mapping.value = false
  arrived()
}
async function chooseSheet(sheet: number): Promise<void> {
  if (file.value === null) return
  const answer = await attempt(() => logApi.noteSheet(production.value.ulid, file.value?.ulid ?? '', sheet))
  if (answer === undefined) return
  awaited = 'sheet'
  file.value = answer
  arrived()
}
async function apply(): Promise<void> {
  if (file.value === null || report.value === null) return
  const answer = await attempt(() => logApi.applyNotes(production.value.ulid, file.value?.ulid ?? ''))
  if (answer === undefined) return
  file.value = answer
  arrived()
}
useIntervalFn(async () => {
  if (!props.open || !busy.value || file.value === null) return
  const answer = await logApi.noteFile(production.value.ulid, file.value.ulid).catch(() => null)
  if (answer === null) return
  file.value = answer
  arrived()
}, 300)
function arrived(): void {
  if (busy.value || file.value === null) return
  const wasSheet = awaited === 'sheet'
  awaited = ''
  if (wasSheet) {
    opened(file.value)
    return
  }
  if (file.value.task?.state === 'failed' || file.value.task?.state === 'cancelled') mapping.value = true
  else if (file.value.applied) {
    say(t('log.NotesDialog.isInTheLogCtrl', [file.value.name]))
    makeStale('takes')
    emit('close')
  }
}
const ok = () => (step.value === 'map' ? look() : step.value === 'look' ? apply() : picker.value?.click())
const okText = computed(() =>
  step.value === 'bring'
    ? t('log.NotesDialog.chooseAFile')
    : step.value === 'map'
      ? t('log.NotesDialog.seeWhatItChanges')
      : applies.value === 0
        ? t('log.NotesDialog.nothingToBringIn')
        : t('log.NotesDialog.bringIn', [
            applies.value,
            applies.value === 1 ? t('log.NotesDialog.row') : t('log.NotesDialog.rows'),
          ]),
)
</script>

<template>
  <Modal
    :open="open"
    :style="{ top: '36px' }"
    :title="t('log.NotesDialog.scriptNotesAndReports')"
    width="980px"
    :ok-text="okText"
    :cancel-text="t('log.NotesDialog.leaveIt')"
    :ok-button-props="{
      disabled: sending || busy || (step === 'map' && file?.rows.length === 0) || (step === 'look' && applies === 0),
    }"
    @ok="ok"
    @cancel="emit('close')"
  >
    <input
      ref="picker"
      type="file"
      class="hush"
      accept=".csv,.tsv,.txt,.xlsx"
      :aria-label="t('log.NotesDialog.aTableOfNotes')"
      @change="bring(($event.target as HTMLInputElement).files)"
    />
    <div
      v-if="file === null"
      class="bring"
      :class="{ over }"
      @dragover.prevent="over = true"
      @dragleave="over = false"
      @drop.prevent="bring($event.dataTransfer?.files)"
    >
      <b>{{ sending ? t('log.NotesDialog.readingIt') : t('log.NotesDialog.dropATableHere') }}</b>
      <p class="soft">
        {{ t('log.NotesDialog.csvTsvOrXlsxFrom') }}
      </p>
    </div>
    <template v-else>
      <p class="head">
        <b>{{ file.name }}</b><span v-if="file.is_known && mapping" class="pill">{{
          t('log.NotesDialog.readAsLastTime')
        }}</span
        ><span v-if="step === 'map'" class="soft">{{ t('log.NotesDialog.sayWhatEachColumnIs') }}</span
        ><label v-if="step === 'map' && file.sheets.length > 1" class="soft"
          >{{ t('log.NotesDialog.sheet') }}
          <select
            class="field"
            :value="file.sheet"
            :disabled="busy"
            @change="chooseSheet(Number(($event.target as HTMLSelectElement).value))"
          >
            <option v-for="(name, at) in file.sheets" :key="at" :value="at">{{ name }}</option>
          </select></label
        ><button v-if="step === 'look' && !busy" class="plain push" @click="mapping = true">
          {{ t('log.NotesDialog.columns') }}</button
        ><button v-if="step === 'map'" class="plain push" @click="picker?.click()">
          {{ t('log.NotesDialog.anotherFile') }}
        </button>
      </p>
      <p v-if="failed" class="note fault" role="alert">{{ failed }}</p>
      <p v-if="step === 'map' && !busy && file.rows.length === 0" class="soft empty">
        {{ t('log.NotesDialog.thisSheetIsEmpty') }}
      </p>
      <div v-else-if="step === 'map' && !(busy && file.rows.length === 0)" class="rolls" tabindex="0">
        <table class="list raw">
          <thead>
            <tr>
              <th />
              <th v-for="at in width" :key="at">
                <select
                  v-model="columns[String(at - 1)]"
                  class="field"
                  :class="{ set: columns[String(at - 1)] }"
                  :aria-label="t('log.NotesDialog.whatColumnIs', [letter(at - 1)])"
                >
                  <option :value="undefined">{{ t('log.NotesDialog.notUsed') }}</option>
                  <option value="">{{ t('log.NotesDialog.notUsed') }}</option>
                  <option v-for="target in file.targets" :key="target" :value="target">
                    {{ TITLES[target] ?? called(target) }}
                  </option>
                </select>
              </th>
            </tr>
            <tr>
              <th />
              <th v-for="at in width" :key="at" class="mono">{{ letter(at - 1) }}</th>
            </tr>
          </thead>
          <tbody>
            <tr
              v-for="(row, index) in file.rows"
              :key="index"
              :class="{ heading: index === heading, above: index < heading }"
              @click="heading = index"
            >
              <td class="mono soft">
                <label :title="t('log.NotesDialog.rowHoldsTheHeadings', [index + 1])"
                  ><input v-model="heading" type="radio" name="heading" :value="index" />{{ index + 1 }}</label
                >
              </td>
              <td v-for="at in width" :key="at" :class="{ unused: !columns[String(at - 1)] }">{{ row[at - 1] }}</td>
            </tr>
          </tbody>
        </table>
      </div>
      <div v-else-if="busy && file.task" class="wait"><TaskProgress :task="file.task" /></div>
      <template v-else-if="report">
        <NotesReport
          :file="file"
          :report="report"
          :titles="TITLES"
          @go="leaveFor"
          @corrects="(place) => look({ corrects: place })"
        />
        <p class="soft stays">
          {{ t('log.NotesDialog.aPersonsEntryStaysWhere') }}
        </p>
      </template>
    </template>
  </Modal>
</template>

<style scoped>
.bring {
  border: 1.5px dashed var(--rule-strong);
  border-radius: 8px;
  padding: 40px 60px;
  text-align: center;
}
.bring.over {
  border-color: var(--act);
  background: var(--act-soft);
}
.bring b {
  font-size: 15px;
}
.bring p {
  max-width: 60ch;
  margin: 6px auto 0;
}
.head {
  display: flex;
  gap: 10px;
  align-items: center;
  margin: 0 0 8px;
}
.push {
  margin-left: auto;
}
.rolls {
  max-height: 50vh;
}
.raw td {
  white-space: nowrap;
  max-width: 220px;
  overflow: hidden;
  text-overflow: ellipsis;
  cursor: pointer;
  font-size: 12px;
}
.raw td label {
  display: flex;
  gap: 5px;
  align-items: center;
}
.raw th {
  padding: 3px 4px;
}
.raw .heading td {
  background: var(--act-soft);
  font-weight: 600;
}
.raw .above td,
.raw .unused {
  color: var(--ink-faint);
}
select.field {
  height: 26px;
  width: 132px;
  font: inherit;
  font-size: 11.5px;
  border: 1px solid var(--rule-strong);
  border-radius: 4px;
  background: #fff;
  color: var(--ink-soft);
}
select.set {
  border-color: var(--act);
  color: var(--ink);
  font-weight: 600;
}
.wait {
  padding: 26px 4px;
}
.empty {
  padding: 14px;
  margin: 0;
}
.stays {
  margin: 10px 0 0;
}
</style>
