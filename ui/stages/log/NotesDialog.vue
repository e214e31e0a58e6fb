<script setup lang="ts">
import { log as logApi } from '@/api/endpoints/log'
import { useIntervalFn } from '@vueuse/core'
import { Modal } from 'ant-design-vue'
import { computed, ref, shallowRef, watch } from 'vue'
import { makeStale } from '@/api/queries'
import type { NoteFile, NoteSample, Said, Verdict } from '@/api/types'
import { useDesk } from '@/shell/desk'
import { attempt, say } from '@/shell/say'
import { fieldName } from './sheet'
import TaskProgress from '@/shell/TaskProgress.vue'

/** Script notes and reports of others: which column is what, then what they would change, then into the log. */
const props = defineProps<{ open: boolean }>()
const emit = defineEmits<{ close: []; go: [take: string] }>()
const { day, production } = useDesk()
const TITLES: Record<string, string> = {
  slate: 'slate (3A/4)',
  scene: 'scene',
  setup: 'setup',
  take: 'take',
  day: 'day or date',
  time: 'time',
  clip: 'clip name',
  description: 'what happens',
  size: 'size',
  status: 'circled, hold, NG',
  notes: 'notes',
  keywords: 'keywords',
  marks: 'marks (MOS, tail…)',
}
const VERDICTS: { key: Verdict; title: string }[] = [
  { key: 'new', title: 'new' },
  { key: 'different', title: 'different' },
  { key: 'same', title: 'the same' },
  { key: 'unmatched', title: 'of no take' },
]
const file = shallowRef<NoteFile | null>(null)
const columns = ref<Record<string, string>>({})
const heading = ref(0)
const picker = ref<HTMLInputElement | null>(null)
const sending = ref(false)
const over = ref(false)
const tab = ref<Verdict | 'faults'>('new')
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
const samples = computed<NoteSample[]>(() =>
  report.value === null || tab.value === 'faults' ? [] : report.value.samples[tab.value],
)
const applies = computed(() => (report.value === null ? 0 : report.value.counts.new + report.value.counts.different))
const words = (value: Said) =>
  value === true ? 'yes' : value === false || value === '' || value === 'none' ? '—' : String(value)
/** Notes and keywords of several sources add up. */
const adds = (field: string) => field === 'notes' || field === 'keywords'
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
  opened(answer)
}
/** What the columns are taken for; of a workbook it comes when a worker has unpacked it. */
function opened(answer: NoteFile): void {
  columns.value = { ...answer.columns }
  heading.value = answer.heading
}
function leaveFor(take: string): void {
  emit('go', take)
  emit('close')
}
async function look(): Promise<void> {
  if (file.value === null) return
  const chosen = Object.fromEntries(Object.entries(columns.value).filter(([, target]) => target !== ''))
  const answer = await attempt(() =>
    logApi.previewNotes(production.value.ulid, file.value?.ulid ?? '', { heading: heading.value, columns: chosen }),
  )
  if (answer === undefined) return
  file.value = answer
  mapping.value = false
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
  const wasUnread = file.value.rows.length === 0
  file.value = answer
  if (wasUnread && answer.rows.length > 0) opened(answer)
  arrived()
}, 300)
function arrived(): void {
  if (busy.value || file.value === null) return
  if (file.value.task?.state === 'failed' || file.value.task?.state === 'cancelled') mapping.value = true
  else if (file.value.applied) {
    say(`${file.value.name} is in the log. Ctrl+Z takes it back.`)
    makeStale('takes')
    emit('close')
  } else if (file.value.report !== null)
    tab.value = VERDICTS.find((one) => (file.value?.report?.counts[one.key] ?? 0) > 0)?.key ?? 'new'
}
const ok = () => (step.value === 'map' ? look() : step.value === 'look' ? apply() : picker.value?.click())
const okText = computed(() =>
  step.value === 'bring'
    ? 'Choose a file'
    : step.value === 'map'
      ? 'See what it changes'
      : applies.value === 0
        ? 'Nothing to bring in'
        : `Bring in ${applies.value} ${applies.value === 1 ? 'row' : 'rows'}`,
)
</script>

<template>
  <Modal
    :open="open"
    :style="{ top: '36px' }"
    title="Script notes and reports"
    width="980px"
    :ok-text="okText"
    cancel-text="Leave it"
    :ok-button-props="{ disabled: sending || busy || (step === 'look' && applies === 0) }"
    @ok="ok"
    @cancel="emit('close')"
  >
    <input
      ref="picker"
      type="file"
      class="hush"
      accept=".csv,.tsv,.txt,.xlsx"
      aria-label="A table of notes"
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
      <b>{{ sending ? 'Reading it…' : 'Drop a table here' }}</b>
      <p class="soft">
        CSV, TSV or XLSX from a script supervisor, a slate that writes its own log, a camera or sound report. Rows find
        their takes by slate and day, else by time, else by clip name. Nothing changes before you have seen it.
      </p>
    </div>
    <template v-else>
      <p class="head">
        <b>{{ file.name }}</b><span v-if="file.is_known && mapping" class="pill">read as last time</span
        ><span v-if="step === 'map'" class="soft">Say what each column is. Click the row that holds the headings.</span
        ><button v-if="step === 'look' && !busy" class="plain push" @click="mapping = true">Columns…</button
        ><button v-if="step === 'map'" class="plain push" @click="picker?.click()">Another file…</button>
      </p>
      <p v-if="failed" class="note fault" role="alert">{{ failed }}</p>
      <div v-if="step === 'map' && !(busy && file.rows.length === 0)" class="table" tabindex="0">
        <table class="list raw">
          <thead>
            <tr>
              <th />
              <th v-for="at in width" :key="at">
                <select
                  v-model="columns[String(at - 1)]"
                  class="field"
                  :class="{ set: columns[String(at - 1)] }"
                  :aria-label="`What column ${letter(at - 1)} is`"
                >
                  <option :value="undefined">not used</option>
                  <option value="">not used</option>
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
              <td class="mono soft">{{ index + 1 }}</td>
              <td v-for="at in width" :key="at" :class="{ unused: !columns[String(at - 1)] }">{{ row[at - 1] }}</td>
            </tr>
          </tbody>
        </table>
      </div>
      <div v-else-if="busy && file.task" class="wait"><TaskProgress :task="file.task" /></div>
      <template v-else-if="report">
        <div class="tabs" role="tablist">
          <button
            v-for="one in VERDICTS"
            :key="one.key"
            role="tab"
            :aria-selected="tab === one.key"
            class="plain"
            :class="{ on: tab === one.key }"
            @click="tab = one.key"
          >
            <b class="mono">{{ report.counts[one.key] }}</b> {{ one.title }}
          </button>
          <button
            role="tab"
            :aria-selected="tab === 'faults'"
            class="plain"
            :class="{ on: tab === 'faults', bad: report.fault_count > 0 }"
            @click="tab = 'faults'"
          >
            <b class="mono">{{ report.fault_count }}</b> {{ report.fault_count === 1 ? 'cell' : 'cells' }} left out
          </button>
          <span class="soft push"
            >{{ report.rows }} rows<template v-if="report.made">
              · {{ report.made }} takes that are not in the log yet</template
            ><template v-if="report.joined"> · {{ report.joined }} clips get their slate</template></span
          >
        </div>
        <div class="table" tabindex="0">
          <table v-if="tab === 'faults'" class="list">
            <thead>
              <tr>
                <th>Cell</th>
                <th>What it should be</th>
                <th>Why it is left out</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="(one, index) in report.faults" :key="index">
                <td class="mono">{{ one.column }}{{ one.row }}</td>
                <td>{{ TITLES[one.what] ?? one.what }}</td>
                <td class="fault">{{ one.why }}</td>
              </tr>
            </tbody>
          </table>
          <table v-else class="list">
            <thead>
              <tr>
                <th>Row</th>
                <th>Slate</th>
                <th>What it says</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="(one, index) in samples" :key="index">
                <td class="mono soft">{{ one.row }}</td>
                <td class="mono">
                  <a v-if="one.take" @click="leaveFor(one.take)"
                    ><b>{{ one.slate }}</b></a
                  ><b v-else>{{ one.slate || '—' }}</b>
                </td>
                <td>
                  <span v-if="one.why" class="soft">{{ one.why }} </span><span
                    v-for="field in one.fields"
                    :key="field.field"
                    class="said"
                    ><small>{{ called(field.field) }}</small
                    ><template v-if="tab !== 'different'"
                      ><b>{{ words(field.said) }}</b></template
                    ><template v-else-if="!field.taken"
                      ><b>{{ words(field.was) }}</b
                      >&nbsp;stays; they say {{ words(field.said) }}</template
                    ><template v-else-if="adds(field.field)"
                      >{{ words(field.was) }} <b>+ {{ words(field.said) }}</b></template
                    ><template v-else
                      ><s>{{ words(field.was) }}</s
                      >&nbsp;→ <b>{{ words(field.said) }}</b></template
                    ></span
                  >
                </td>
              </tr>
            </tbody>
          </table>
          <p v-if="tab === 'faults' ? report.faults.length === 0 : samples.length === 0" class="soft empty">None.</p>
          <p v-else-if="tab !== 'faults' && samples.length < report.counts[tab]" class="soft empty">
            The first {{ samples.length }} of {{ report.counts[tab] }}.
          </p>
        </div>
        <p class="soft">A person's entry stays; where it differs, an open point asks. One step back with Ctrl Z.</p>
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
.table {
  max-height: 50vh;
  overflow: auto;
  border: 1px solid var(--rule);
  border-radius: 5px;
}
.table thead {
  position: sticky;
  top: 0;
  background: var(--sheet-2);
  z-index: 1;
}
.raw td {
  white-space: nowrap;
  max-width: 220px;
  overflow: hidden;
  text-overflow: ellipsis;
  cursor: pointer;
  font-size: 12px;
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
.tabs {
  display: flex;
  gap: 6px;
  align-items: center;
  margin-bottom: 8px;
}
.tabs .on {
  border-color: var(--act);
  background: var(--act-soft);
}
.tabs .bad b {
  color: var(--fault);
}
.said {
  margin-right: 14px;
}
.said small {
  color: var(--ink-soft);
  margin-right: 5px;
}
.said b {
  font-weight: 600;
}
.said s {
  color: var(--ink-faint);
}
.wait {
  padding: 26px 4px;
}
.empty {
  padding: 14px;
  margin: 0;
}
</style>
