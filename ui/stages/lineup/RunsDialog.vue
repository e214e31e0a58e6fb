<script setup lang="ts">
import { decimal, t, valueWord } from '@/words'
import { locale } from '@/words/language'
import { lineup as lineupApi } from '@/api/endpoints/lineup'
import { Modal } from 'ant-design-vue'
import { computed, ref, watch } from 'vue'
import { makeStale, useAnswer } from '@/api/queries'
import type { RunRow } from '@/api/types'
import { labelAt, TICKS } from '@/player/time'
import { useRows } from '@/grid/rows'
import AnswerState from '@/shell/AnswerState.vue'
import { useDesk } from '@/shell/desk'
import DeviceBadge from '@/shell/DeviceBadge.vue'
import { attempt, say } from '@/shell/say'

/** Every run of line-up over the day: what each found, what differs between two, and back to one. */
const props = defineProps<{ open: boolean }>()
const emit = defineEmits<{ close: []; go: [clip: string] }>()
const { production, day } = useDesk()

const { data, isPending, error, refetch } = useAnswer(() =>
  props.open ? lineupApi.runs(production.value.ulid, day.value.ulid) : null,
)
const chosen = ref<string | null>(null)
const other = ref('')
const compared = computed(() =>
  props.open && chosen.value !== null
    ? lineupApi.run(production.value.ulid, chosen.value, other.value === '' ? null : other.value)
    : null,
)
const { data: difference } = useAnswer(compared)
const { list, containerProps, wrapperProps } = useRows(
  computed(() => difference.value?.rows ?? []),
  29,
)
const run = computed(() => data.value?.runs.find((one) => one.ulid === chosen.value))
watch(data, (answer) => {
  if (chosen.value === null || !answer?.runs.some((one) => one.ulid === chosen.value))
    chosen.value = answer?.runs[0]?.ulid ?? null
})
watch(chosen, () => {
  other.value = ''
})

const when = (at: string) =>
  new Date(at).toLocaleString(locale, { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' })
const trust = (place: NonNullable<RunRow['before']>) =>
  place.locked ? t('lineup.RunsDialog.locked') : place.sure ? '' : t('lineup.RunsDialog.look')
const said = (place: RunRow['before']) =>
  place === null
    ? t('lineup.RunsDialog.notThereYet')
    : place.start_ticks === null
      ? t('lineup.RunsDialog.aStray')
      : t('lineup.RunsDialog.by', [
          labelAt(place.start_ticks, production.value.rate),
          valueWord(place.way ?? ''),
          trust(place),
        ])
function moved(ticks: number | null): string {
  if (ticks === null || ticks === 0) return ''
  const seconds = Math.abs(ticks) / TICKS
  const far = seconds >= 1 ? `${decimal(seconds, 2)} s` : `${decimal(seconds * 1000, 1)} ms`
  return `${ticks > 0 ? '+' : '−'}${far}`
}

async function back(): Promise<void> {
  const answer = await attempt(() => lineupApi.goBack(production.value.ulid, chosen.value ?? ''))
  if (answer === undefined) return
  makeStale('lineup')
  const [clips, them] =
    answer.moved === 1
      ? [t('lineup.RunsDialog.oneClip'), t('lineup.RunsDialog.it')]
      : [t('lineup.RunsDialog.clips', [answer.moved]), t('lineup.RunsDialog.them')]
  const kept = answer.kept > 0 ? t('lineup.RunsDialog.stayWhereAPersonPut', [answer.kept]) : ''
  say(t('lineup.RunsDialog.backWhereRunHad', [clips, run.value?.number, them, kept]))
  emit('close')
}
</script>

<template>
  <Modal :open="open" :width="860" :title="t('lineup.RunsDialog.runsOfThisDay')" :footer="null" @cancel="emit('close')">
    <AnswerState :pending="isPending" :error="error" @retry="refetch()">
      <div v-if="data && data.runs.length === 0" class="empty">
        <b>{{ t('lineup.RunsDialog.thisDayHasNotBeen') }}</b>{{ t('lineup.RunsDialog.everyRunIsKeptHere') }}
      </div>
      <div v-else-if="data" class="runs">
        <ul role="listbox" :aria-label="t('lineup.RunsDialog.runs')">
          <li v-for="one in data.runs" :key="one.ulid" role="presentation">
            <button
              role="option"
              :aria-selected="one.ulid === chosen"
              :class="{ on: one.ulid === chosen }"
              @click="chosen = one.ulid"
            >
              <b>{{ t('lineup.RunsDialog.run', [one.number]) }}</b> <span class="soft">{{ one.scope }}</span>
              <small>{{
                t('lineup.RunsDialog.placedSure', [
                  one.placed,
                  one.sure,
                  one.strays > 0 ? t('lineup.RunsDialog.strays', [one.strays]) : '',
                ])
              }}</small>
              <small
                >{{ one.by ?? t('lineup.RunsDialog.somebody') }}, {{ when(one.at) }} · {{ one.ways.join(', ') }}</small
              >
            </button>
          </li>
        </ul>
        <section v-if="run">
          <label
            >{{ t('lineup.RunsDialog.runBeside', [run.number]) }}
            <select v-model="other">
              <option value="">{{ t('lineup.RunsDialog.whatStandsNow') }}</option>
              <option v-for="one in data.runs.filter((o) => o.ulid !== chosen)" :key="one.ulid" :value="one.ulid">
                {{ t('lineup.RunsDialog.run2', [one.number]) }}
              </option>
            </select>
          </label>
          <p v-if="difference && difference.rows.length === 0" class="soft">
            {{ t('lineup.RunsDialog.nothingDiffers') }}
          </p>
          <div v-else-if="difference" class="table">
            <div class="row heads">
              <span>{{ t('lineup.RunsDialog.clip') }}</span><span>{{ t('lineup.RunsDialog.run', [run.number]) }}</span
              ><span>{{
                other === ''
                  ? t('lineup.RunsDialog.now')
                  : t('lineup.RunsDialog.run', [data.runs.find((o) => o.ulid === other)?.number])
              }}</span
              ><span>{{ t('lineup.RunsDialog.moved') }}</span>
            </div>
            <div
              v-bind="containerProps"
              class="rows"
              :style="{ height: `min(44vh, ${difference.rows.length * 29 + 2}px)` }"
              tabindex="0"
            >
              <div v-bind="wrapperProps">
                <div v-for="{ data: row } in list" :key="row.clip" class="row">
                  <button class="link mono" @click="emit('go', row.clip)">
                    <DeviceBadge :letter="row.device ?? ''" /> {{ row.name }}
                  </button>
                  <span class="mono">{{ said(row.before) }}</span>
                  <span class="mono">{{ said(row.after) }}</span>
                  <span class="mono">{{ moved(row.moved_ticks) }}</span>
                </div>
              </div>
            </div>
          </div>
          <button
            v-if="production.may.work && other === '' && difference && difference.rows.length > 0"
            class="go"
            @click="back"
          >
            {{ t('lineup.RunsDialog.goBackToRun', [run.number]) }}
          </button>
        </section>
      </div>
    </AnswerState>
  </Modal>
</template>

<style scoped>
.runs {
  display: grid;
  grid-template-columns: 250px minmax(0, 1fr);
  gap: 16px;
  max-height: 60vh;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  overflow: auto;
  display: grid;
  gap: 6px;
  align-content: start;
}
li button {
  width: 100%;
  text-align: left;
  border: 1px solid var(--rule);
  border-radius: 5px;
  background: var(--sheet);
  padding: 7px 10px;
  cursor: pointer;
  font: inherit;
}
li button.on {
  border-color: var(--act);
  box-shadow: inset 3px 0 var(--act);
}
li small {
  display: block;
  color: var(--ink-soft);
  font-size: 11.5px;
}
section {
  overflow: auto;
  display: grid;
  gap: 10px;
  align-content: start;
}
.row {
  display: grid;
  grid-template-columns: minmax(0, 1.2fr) minmax(0, 1fr) minmax(0, 1fr) 78px;
  gap: 8px;
  align-items: center;
  height: 29px;
  border-bottom: 1px solid var(--rule);
  font-size: 12px;
}
.row > * {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.row.heads {
  color: var(--ink-soft);
  font-weight: 500;
}
.link {
  border: 0;
  background: none;
  padding: 0;
  cursor: pointer;
  color: var(--ink);
  font-size: 12px;
  text-align: left;
}
select {
  font: inherit;
  padding: 3px 5px;
  border: 1px solid var(--rule-strong);
  border-radius: 4px;
  background: var(--sheet);
}
.go {
  justify-self: start;
}
</style>
