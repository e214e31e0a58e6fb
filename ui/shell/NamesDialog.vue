<script setup lang="ts">
import { t } from '@/words'
import { deskSays } from '@/words/desk'
import { log as logApi } from '@/api/endpoints/log'
import { watchDebounced } from '@vueuse/core'
import { Modal } from 'ant-design-vue'
import { computed, ref, shallowRef, watch } from 'vue'
import { ApiError } from '@/api/client'
import { makeStale } from '@/api/queries'
import type { GivenName, Take } from '@/api/types'
import { useDesk } from './desk'
import { attempt, say } from './say'

/** What is chosen in a bin, by ULIDs. */
export interface Named {
  clips: string[]
  takes: string[]
  subclips: string[]
}

/**
 * Names for clips, takes or subclips by a pattern; every name is seen before it is given. Those of the chosen takes and
 * their day, or where something is in hand, of that.
 */
const props = withDefaults(defineProps<{ open: boolean; takes?: Take[]; chosen?: Take[]; hand?: Named | null }>(), {
  takes: () => [],
  chosen: () => [],
  hand: null,
})
const emit = defineEmits<{ close: [] }>()
const { production, day } = useDesk()
/** Those of the take that names are made of, those that the production added, and what is known of the file. */
const fields = computed(() => [
  ...production.value.fields
    .filter((field) => USUAL.includes(field.name) || field.key.startsWith('own:'))
    .map((field) => field.name),
  'device',
  'roll',
  'day',
  'date',
  'original',
  'n',
])
const USUAL = ['scene', 'setup', 'take', 'description', 'size', 'status']
const braced = (field: string) => '{' + field + '}'
const what = ref<'clips' | 'takes' | 'subclips'>('clips')
const whole = ref(false)
const kinds = ref<'all' | 'picture' | 'sound'>('all')
const pattern = ref('{setup}-{take:2} {device}')
const start = ref(1)
const step = ref(1)
const presets = ref<string[]>([])
const names = shallowRef<GivenName[]>([])
const trouble = ref('')
const onlyBad = ref(false)
const subject = computed(() => (whole.value ? props.takes : props.chosen))
const ulids = computed(() =>
  props.hand !== null
    ? props.hand[what.value]
    : what.value !== 'clips'
      ? subject.value.map((take) => take.ulid)
      : subject.value.flatMap((take) =>
          take.clips.filter((clip) => kinds.value === 'all' || clip.kind === kinds.value).map((clip) => clip.ulid),
        ),
)
/** Of all of them; a long day shows the first. */
const counts = shallowRef({ total: 0, changes: 0, bad: 0 })
const asking = ref(false)
const body = computed(() => ({
  what: what.value,
  // The desk knows what a whole day holds, of whatever size.
  ...(whole.value ? { day: day.value.ulid, kind: kinds.value } : { ulids: ulids.value }),
  pattern: pattern.value,
  start: start.value || 0,
  step: step.value || 1,
}))

watch(
  () => props.open,
  async (open) => {
    if (!open) return
    whole.value = props.hand === null && props.chosen.length <= 1
    const { hand } = props
    if (hand !== null) what.value = hand.clips.length > 0 ? 'clips' : hand.subclips.length > 0 ? 'subclips' : 'takes'
    presets.value = (await attempt(() => logApi.namePatterns(production.value.ulid)))?.patterns ?? []
    void preview()
  },
)
async function preview(): Promise<void> {
  if (!props.open) return
  if (ulids.value.length === 0 || pattern.value.trim() === '') {
    names.value = []
    counts.value = { total: 0, changes: 0, bad: 0 }
    return
  }
  const asked = body.value
  asking.value = true
  try {
    const answer = await logApi.previewNames(production.value.ulid, { ...asked, only_bad: onlyBad.value })
    if (asked !== body.value) return
    names.value = answer.names
    counts.value = answer
    trouble.value = ''
  } catch (error) {
    names.value = []
    counts.value = { total: 0, changes: 0, bad: 0 }
    trouble.value =
      error instanceof ApiError ? `${error.message} ${error.fix}` : t('shell.NamesDialog.itCannotBeTriedNow')
  } finally {
    asking.value = asked !== body.value
  }
}
watchDebounced([body, onlyBad], preview, { debounce: 150, deep: true })

async function give(): Promise<void> {
  if (asking.value || counts.value.bad > 0 || counts.value.changes === 0 || trouble.value !== '') return
  const done = await attempt(() => logApi.giveNames(production.value.ulid, body.value))
  if (done === undefined) return
  say(
    t('shell.NamesDialog.givenCtrlZTakesThem', [
      done.changed,
      done.changed === 1 ? t('shell.NamesDialog.name') : t('shell.NamesDialog.names2'),
    ]),
  )
  makeStale('takes')
  emit('close')
}
async function keep(): Promise<void> {
  const now = [...presets.value.filter((one) => one !== pattern.value), pattern.value].slice(-20)
  if ((await attempt(() => logApi.setNamePatterns(production.value.ulid, { was: presets.value, now }))) === undefined)
    return
  presets.value = now
  say(t('shell.NamesDialog.keptForThisProduction'))
}
async function drop(): Promise<void> {
  const now = presets.value.filter((one) => one !== pattern.value)
  if (
    now.length === 0 ||
    (await attempt(() => logApi.setNamePatterns(production.value.ulid, { was: presets.value, now }))) === undefined
  )
    return
  presets.value = now
}
</script>

<template>
  <Modal
    :open="open"
    :style="{ top: '36px' }"
    :title="t('shell.NamesDialog.names')"
    width="820px"
    :ok-text="
      t('shell.NamesDialog.give', [
        counts.changes,
        counts.changes === 1 ? t('shell.NamesDialog.name') : t('shell.NamesDialog.names2'),
      ])
    "
    :cancel-text="t('shell.NamesDialog.leaveThem')"
    :ok-button-props="{ disabled: asking || counts.bad > 0 || counts.changes === 0 || trouble !== '' }"
    @ok="give"
    @cancel="emit('close')"
  >
    <div class="choices">
      <label
        >{{ t('shell.NamesDialog.of') }}
        <select v-model="what" class="field">
          <option value="clips" :disabled="hand?.clips.length === 0">{{ t('shell.NamesDialog.clips') }}</option>
          <option value="takes" :disabled="hand?.takes.length === 0">{{ t('shell.NamesDialog.takes') }}</option>
          <option value="subclips" :disabled="hand?.subclips.length === 0">
            {{ t('shell.NamesDialog.subclips') }}
          </option>
        </select></label
      >
      <label v-if="what === 'clips' && hand === null"
        >{{ t('shell.NamesDialog.only') }}
        <select v-model="kinds" class="field">
          <option value="all">{{ t('shell.NamesDialog.pictureAndSound') }}</option>
          <option value="picture">{{ t('shell.NamesDialog.picture') }}</option>
          <option value="sound">{{ t('shell.NamesDialog.sound') }}</option>
        </select></label
      >
      <label v-if="hand === null"
        >{{ t('shell.NamesDialog.from') }}
        <select v-model="whole" class="field">
          <option :value="false" :disabled="chosen.length === 0">
            {{
              t('shell.NamesDialog.chosen', [
                chosen.length,
                chosen.length === 1 ? t('shell.NamesDialog.take') : t('shell.NamesDialog.takes'),
              ])
            }}
          </option>
          <option :value="true">{{ t('shell.NamesDialog.theWholeDay') }}</option>
        </select></label
      >
      <label
        >{{ t('shell.NamesDialog.countFrom') }}
        <input v-model.number="start" class="field mono num" type="number" min="0" max="99999"
      /></label>
      <label
        >{{ t('shell.NamesDialog.by') }}
        <input v-model.number="step" class="field mono num" type="number" min="1" max="1000"
      /></label>
    </div>
    <label class="text"
      >{{ t('shell.NamesDialog.pattern')
      }}<input v-model="pattern" class="field mono" maxlength="160" spellcheck="false" @keydown.enter.stop="give"
    /></label>
    <p class="words">
      <button v-for="field in fields" :key="field" type="button" class="plain mono" @click="pattern += braced(field)">
        {{ braced(field) }}
      </button>
    </p>
    <p class="words">
      <span class="soft">{{ t('shell.NamesDialog.readyMade') }}</span><button
        v-for="one in presets"
        :key="one"
        type="button"
        class="plain mono"
        :class="{ here: one === pattern }"
        @click="pattern = one"
      >
        {{ one }}</button
      ><button v-if="!presets.includes(pattern)" type="button" class="plain" @click="keep">
        {{ t('shell.NamesDialog.keepThisOne') }}</button
      ><button v-else-if="presets.length > 1" type="button" class="plain" @click="drop">
        {{ t('shell.NamesDialog.dropThisOne') }}
      </button>
    </p>
    <p v-if="trouble" class="note fault" role="alert">{{ trouble }}</p>
    <p v-else class="soft">
      {{ t('shell.NamesDialog.ofChange', [counts.changes, counts.total]) }}
      <label v-if="counts.bad > 0" class="fault"
        ><input v-model="onlyBad" type="checkbox" /> {{ t('shell.NamesDialog.cannotBeGiven', [counts.bad]) }}</label
      >
    </p>
    <div class="rolls" tabindex="0">
      <table class="list">
        <thead>
          <tr>
            <th>{{ t('shell.NamesDialog.theFilesOwn') }}</th>
            <th>{{ t('shell.NamesDialog.now') }}</th>
            <th>{{ t('shell.NamesDialog.then') }}</th>
            <th />
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in names" :key="one.ulid" :class="{ bad: one.problems.length > 0, dim: one.name === one.was }">
            <td class="mono soft">{{ one.original }}</td>
            <td class="mono">{{ one.was }}</td>
            <td class="mono">
              <b>{{ one.name }}</b>
            </td>
            <td class="fault">{{ one.problems.map(deskSays).join('; ') }}</td>
          </tr>
        </tbody>
      </table>
      <p v-if="!onlyBad && names.length > 0 && names.length < counts.total" class="soft empty">
        {{ t('shell.NamesDialog.theFirstOf', [names.length, counts.total]) }}
      </p>
      <p v-if="names.length === 0 && trouble === ''" class="soft empty">
        {{ t('shell.NamesDialog.nothingToNameHere') }}
      </p>
    </div>
  </Modal>
</template>

<style scoped>
.choices {
  display: flex;
  gap: 14px;
  flex-wrap: wrap;
  margin-bottom: 8px;
}
.choices label {
  display: flex;
  gap: 6px;
  align-items: center;
  font-size: 12px;
  color: var(--ink-soft);
}
.choices .field {
  height: 28px;
  width: auto;
  border: 1px solid var(--rule-strong);
  border-radius: 4px;
  background: #fff;
  font: inherit;
  color: var(--ink);
}
.choices .num {
  width: 66px;
}
.text {
  display: grid;
  gap: 4px;
  font-weight: 500;
}
.text .field {
  height: 32px;
}
.words {
  display: flex;
  flex-wrap: wrap;
  gap: 5px;
  margin: 8px 0;
  align-items: center;
}
.words button {
  font-size: 11px;
  font-weight: 400;
  padding: 2px 7px;
  min-height: 24px;
}
.words .here {
  border-color: var(--act);
  background: var(--act-soft);
}
.rolls {
  max-height: 34vh;
}
.dim td {
  color: var(--ink-soft);
}
.dim b {
  font-weight: 400;
}
.bad {
  background: var(--fault-soft);
}
.empty {
  padding: 18px;
}
p {
  margin: 6px 0;
}
</style>
