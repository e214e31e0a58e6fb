<script setup lang="ts">
import { deskSays } from '@/words/desk'
import { counted, t } from '@/words'
import { computed, ref, shallowRef, watch } from 'vue'
import { log as logApi } from '@/api/endpoints/log'
import type { NoteFile, NoteReport, NoteSample, Said, Verdict } from '@/api/types'
import { useDesk } from '@/shell/desk'
import { attempt } from '@/shell/say'
import { fieldName } from './sheet'

/** What a file of notes would change, row by row, which older file it corrects, and what of it is left out. */
const props = defineProps<{ file: NoteFile; report: NoteReport; titles: Record<string, string> }>()
const emit = defineEmits<{ go: [take: string]; corrects: [place: string | null] }>()
const { production } = useDesk()
const VERDICTS: { key: Verdict; title: string }[] = [
  { key: 'new', title: t('log.NotesReport.new') },
  { key: 'different', title: t('log.NotesReport.different') },
  { key: 'same', title: t('log.NotesReport.theSame') },
  { key: 'unmatched', title: t('log.NotesReport.ofNoTake') },
]
const tab = ref<Verdict | 'faults'>('new')
const later = shallowRef<NoteReport['faults']>([])
const fetching = ref(false)
watch(
  () => props.report,
  (report) => {
    later.value = []
    tab.value = VERDICTS.find((one) => report.counts[one.key] > 0)?.key ?? (report.fault_count > 0 ? 'faults' : 'new')
  },
  { immediate: true },
)
const samples = computed<NoteSample[]>(() => (tab.value === 'faults' ? [] : props.report.samples[tab.value]))
const faults = computed(() => [...props.report.faults, ...later.value])
async function more(): Promise<void> {
  fetching.value = true
  const answer = await attempt(() => logApi.noteFaults(production.value.ulid, props.file.ulid, faults.value.length))
  fetching.value = false
  if (answer !== undefined) later.value = [...later.value, ...answer.faults]
}
const words = (value: Said | null) =>
  value === true
    ? t('log.NotesReport.yes')
    : value === null || value === false || value === '' || value === 'none'
      ? '—'
      : String(value)
/** What is put behind words that stay, as in notes of several sources; empty where they are replaced. */
function added({ was, becomes }: { was: Said; becomes: Said | null }): string {
  return typeof was === 'string' && typeof becomes === 'string' && was !== '' && becomes.startsWith(was)
    ? becomes.slice(was.length).replace(/^[\s,]+/, '')
    : ''
}
const called = (field: string) => props.titles[field] ?? fieldName(production.value.fields, field)
const choice = (event: Event) => emit('corrects', (event.target as HTMLSelectElement).value || null)
</script>

<template>
  <div>
    <p v-if="file.others.length > 0" class="corrects">
      <label
        >{{ t('log.NotesReport.theyCorrect') }}
        <select class="field" :value="report.corrects ?? ''" @change="choice">
          <option value="">{{ t('log.NotesReport.noOtherFileTheyAdd') }}</option>
          <option v-for="place in file.others" :key="place" :value="place">{{ place }}</option>
        </select></label
      >
      <span v-if="report.corrects" class="soft"
        >{{ t('log.NotesReport.itsWordsGiveWayTo')
        }}<template v-if="report.left > 0">
          {{
            t('log.NotesReport.ofItNotInThese', [
              report.left,
              report.left === 1 ? t('log.NotesReport.take') : t('log.NotesReport.takes'),
              report.left === 1 ? t('log.NotesReport.is') : t('log.NotesReport.are'),
            ])
          }}</template
        ></span
      >
    </p>
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
        <b class="mono">{{ report.fault_count }}</b>
        {{
          t('log.NotesReport.leftOut', [
            report.fault_count === 1 ? t('log.NotesReport.cell') : t('log.NotesReport.cells'),
          ])
        }}
      </button>
      <a
        v-if="tab === 'faults' && report.fault_count > 0"
        class="plain"
        :href="logApi.noteFaultsFile(production.ulid, file.ulid)"
        download
        >{{ t('log.NotesReport.saveAsCsv') }}</a><span class="soft push"
        >{{ counted(report.rows, 'row')
        }}<template v-if="report.made"> {{ ' ' }}{{ t('log.NotesReport.takesThatAreNotIn', [report.made]) }}</template
        ><template v-if="report.joined">
          {{ ' ' }}{{ t('log.NotesReport.clipsGetTheirSlate', [report.joined]) }}</template
        ></span
      >
    </div>
    <div class="rolls" tabindex="0">
      <table v-if="tab === 'faults'" class="list">
        <thead>
          <tr>
            <th>{{ t('log.NotesReport.cell2') }}</th>
            <th>{{ t('log.NotesReport.whatItShouldBe') }}</th>
            <th>{{ t('log.NotesReport.whyItIsLeftOut') }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(one, index) in faults" :key="index">
            <td class="mono">{{ one.column }}{{ one.row }}</td>
            <td>{{ called(one.what) }}</td>
            <td class="fault">{{ deskSays(one.why) }}</td>
          </tr>
        </tbody>
      </table>
      <table v-else class="list">
        <thead>
          <tr>
            <th>{{ t('log.NotesReport.row') }}</th>
            <th>{{ t('log.NotesReport.slate') }}</th>
            <th>{{ t('log.NotesReport.whatItSays') }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(one, index) in samples" :key="index">
            <td class="mono soft">{{ one.row }}</td>
            <td class="mono">
              <a v-if="one.take" @click="emit('go', one.take)"
                ><b>{{ one.slate }}</b></a
              ><b v-else>{{ one.slate || '—' }}</b>
            </td>
            <td>
              <span v-if="one.why" class="soft said">{{ deskSays(one.why) }}</span><span
                v-for="field in one.fields"
                :key="field.field"
                class="said"
                ><small>{{ called(field.field) }}</small
                ><template v-if="tab !== 'different'"
                  ><b>{{ words(field.said) }}</b></template
                ><template v-else-if="field.becomes === null"
                  ><b>{{ words(field.was) }}</b
                  >{{ t('log.NotesReport.staysTheySay', [words(field.said)]) }}</template
                ><template v-else-if="added(field)"
                  >{{ words(field.was) }} <b>+ {{ words(added(field)) }}</b></template
                ><template v-else
                  ><s>{{ words(field.was) }}</s
                  >&nbsp;→ <b>{{ words(field.becomes) }}</b></template
                ></span
              >
            </td>
          </tr>
        </tbody>
      </table>
      <p v-if="tab === 'faults' ? faults.length === 0 : samples.length === 0" class="soft empty">
        {{ t('log.NotesReport.none') }}
      </p>
      <p v-else-if="tab === 'faults' && faults.length < report.fault_count" class="soft empty">
        {{ t('log.NotesReport.theFirstOf', [faults.length, report.fault_count]) }}
        <button class="plain" :disabled="fetching" @click="more">{{ t('log.NotesReport.showMore') }}</button>
      </p>
      <p v-else-if="tab !== 'faults' && samples.length < report.counts[tab]" class="soft empty">
        {{ t('log.NotesReport.theFirstOf', [samples.length, report.counts[tab]]) }}
      </p>
    </div>
  </div>
</template>

<style scoped>
.push {
  margin-left: auto;
}
.rolls {
  max-height: 50vh;
}
.corrects {
  display: flex;
  gap: 10px;
  align-items: center;
  margin: 0 0 8px;
}
select.field {
  height: 26px;
  max-width: 320px;
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
.empty {
  padding: 14px;
  margin: 0;
}
</style>
