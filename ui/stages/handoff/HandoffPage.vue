<script setup lang="ts">
import { deskSays } from '@/words/desk'
import { counted, t } from '@/words'
import { bins as binsApi } from '@/api/endpoints/bins'
import { handoff as handoffApi, type Choice, type Waiver } from '@/api/endpoints/handoff'
import { shell as shellApi } from '@/api/endpoints/shell'
import { useLocalStorage, watchDebounced } from '@vueuse/core'
import { computed, ref, shallowRef, useTemplateRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { ApiError } from '@/api/client'
import { makeStale, useAnswer } from '@/api/queries'
import type { Handoff, PackingPlan } from '@/api/types'
import { bytes } from '@/words/amounts'
import AnswerState from '@/shell/AnswerState.vue'
import { useDesk } from '@/shell/desk'
import { useSoFar } from '@/shell/soFar'
import { useShortcuts } from '@/shell/keys'
import { attempt, complain, say } from '@/shell/say'
import TaskProgress from '@/shell/TaskProgress.vue'
import GateList from './GateList.vue'
import PackageCard from './PackageCard.vue'
import PackingTable from './PackingTable.vue'
import ReceivedStrip from './ReceivedStrip.vue'

/** What goes to the editing team: chosen, looked over, packed; what they said of it; and what came back. */
const { production, day } = useDesk()
const router = useRouter()
const route = useRoute()
const { data, isPending, error, refetch } = useAnswer(() => handoffApi.list(production.value.ulid))
const { data: tasks } = useAnswer(() => shellApi.tasks(production.value.ulid))

type From = 'since' | 'days' | 'bins' | 'cuts' | 'takes'
/** Takes that were chosen in the log stand in the address. */
const takes = computed(() =>
  typeof route.query.takes === 'string' ? route.query.takes.split(',').filter(Boolean) : [],
)
const from = ref<From>(takes.value.length > 0 ? 'takes' : 'days')
/** Those of bins that are a question about all footage are counted by themselves. */
const { data: counts } = useAnswer(() => (from.value === 'bins' ? binsApi.counts(production.value.ulid) : null))
const days = ref(new Set<string>([day.value.ulid]))
const bins = ref(new Set<string>())
const cuts = ref(new Set<string>())
watch(
  () => day.value.ulid,
  (ulid) => (days.value = new Set([ulid])),
)
/** How media and lists go is the same from one package to the next. */
const how = useLocalStorage<Omit<Choice, 'days' | 'bins' | 'sequences' | 'takes' | 'since' | 'folders' | 'pattern'>>(
  'cartella.handoff',
  { picture: 'proxies', sound: 'recorded', mixes: true, lists: ['otio', 'edl', 'aaf', 'words'], columns: null },
  { mergeDefaults: true },
)
/** Where media lie and how they are called is the production's: as its last package had it. */
const folders = ref<Choice['folders']>('flat')
const pattern = ref('')
watch(
  () => data.value !== undefined,
  (there) => {
    if (there) [folders.value, pattern.value] = [data.value!.folders, data.value!.pattern]
  },
  { immediate: true },
)
const choice = computed<Choice>(() => ({
  ...how.value,
  folders: folders.value,
  pattern: pattern.value,
  days: from.value === 'days' ? [...days.value] : [],
  bins: from.value === 'bins' ? [...bins.value] : [],
  sequences: from.value === 'cuts' ? [...cuts.value] : [],
  takes: from.value === 'takes' ? takes.value : [],
  since: from.value === 'since',
}))
const isEmpty = computed(() => {
  const { since, days: some, bins: few, sequences, takes: chosen } = choice.value
  return !since && some.length + few.length + sequences.length + chosen.length === 0
})

const plan = shallowRef<PackingPlan | null>(null)
const planTrouble = ref('')
const planning = ref(false)
let asked = 0
async function look(): Promise<void> {
  const mine = ++asked
  if (!production.value.may.work || isEmpty.value) {
    plan.value = null
    return
  }
  planning.value = true
  try {
    const found = await handoffApi.plan(production.value.ulid, choice.value)
    if (mine === asked) [plan.value, planTrouble.value] = [found, '']
  } catch (trouble) {
    if (mine === asked) planTrouble.value = trouble instanceof ApiError ? trouble.message : ''
    if (!(trouble instanceof ApiError)) complain(trouble)
  }
  if (mine === asked) planning.value = false
}
watchDebounced(choice, look, { debounce: 250, immediate: true, deep: true })

/** Reasons why points go along, by day and key. */
const reasons = ref<Record<string, string>>({})
const left = computed(
  () => (plan.value?.points ?? []).filter((one) => (reasons.value[`${one.day} ${one.key}`] ?? '').trim() === '').length,
)
const waived = computed<Waiver[]>(() =>
  (plan.value?.points ?? []).flatMap((one) => {
    const reason = (reasons.value[`${one.day} ${one.key}`] ?? '').trim()
    return reason === '' ? [] : [{ day: one.day, point: one.key, reason }]
  }),
)
const KINDS: Record<string, string> = {
  reel: t('handoff.HandoffPage.reel'),
  string_out: t('handoff.HandoffPage.stringOut'),
  cut: t('handoff.HandoffPage.cut'),
  angle_cut: t('handoff.HandoffPage.cutBetweenAngles'),
  received: t('handoff.HandoffPage.cameBack'),
}
const busy = ref(false)
const gate = useTemplateRef('gate')
async function make(): Promise<void> {
  if (!production.value.may.work || busy.value || isEmpty.value) return
  if (left.value > 0) {
    gate.value?.ask()
    return
  }
  busy.value = true
  const done = await attempt(() => handoffApi.make(production.value.ulid, choice.value, waived.value))
  busy.value = false
  if (done !== undefined) {
    say(t('handoff.HandoffPage.thePackageIsBeingWritten'))
    reasons.value = {}
  }
  makeStale('handoffs')
}
const running = computed(() =>
  (tasks.value?.tasks ?? []).filter(
    (task) =>
      ['handoff', 'accept', 'pull'].includes(task.kind) && (task.state === 'running' || task.state === 'waiting'),
  ),
)
const choices = computed(() => [
  { name: t('handoff.HandoffPage.ownBins'), bins: data.value?.bins.own ?? [] },
  ...(data.value?.bins.groups ?? []).map((group) => ({
    name: deskSays(group.name),
    bins: group.bins.map((bin) => ({ ...bin, name: deskSays(bin.name) })),
  })),
])
function toggle(set: Set<string>, key: string): Set<string> {
  const next = new Set(set)
  if (!next.delete(key)) next.add(key)
  return next
}
const FROMS = computed<{ key: From; words: string }[]>(() => [
  ...(takes.value.length > 0 ? [{ key: 'takes' as const, words: counted(takes.value.length, 'take') }] : []),
  { key: 'days', words: t('handoff.HandoffPage.days2') },
  { key: 'bins', words: t('handoff.HandoffPage.bins') },
  { key: 'cuts', words: t('handoff.HandoffPage.reelsAndCuts2') },
  { key: 'since', words: t('handoff.HandoffPage.whatIsNew') },
])
const room = computed(() => {
  const { free_bytes: free = null, bytes: needs = 0 } = plan.value ?? {}
  return free === null
    ? ''
    : needs > free
      ? t('handoff.HandoffPage.onlyFree', [bytes(free)])
      : t('handoff.HandoffPage.free', [bytes(free)])
})

const at = ref(0)
const { soFar, rest } = useSoFar(() => data.value?.handoffs ?? [], at)
const here = computed<Handoff | undefined>(() => data.value?.handoffs[at.value])
const openPackage = (one: Handoff) =>
  one.delivered_at !== null && void router.push({ name: 'package', params: { handoff: one.ulid } })
useShortcuts('Hand-off', [
  {
    keys: ['ArrowDown', 'ArrowUp'],
    what: t('handoff.HandoffPage.nextPackageTheOneBefore'),
    run: (event) =>
      (at.value = Math.max(
        0,
        Math.min((data.value?.handoffs.length ?? 1) - 1, at.value + (event.key === 'ArrowDown' ? 1 : -1)),
      )),
  },
  { keys: ['Enter'], what: t('handoff.HandoffPage.openThePackage'), run: () => here.value && openPackage(here.value) },
  { keys: ['p'], what: t('handoff.HandoffPage.packAndDeliverWhatIs'), run: () => void make() },
])
</script>

<template>
  <AnswerState :pending="isPending" :error="error" @retry="refetch()">
    <div v-if="data" class="split" :class="{ alone: !production.may.work }">
      <section v-if="production.may.work" class="choose" :aria-label="t('handoff.HandoffPage.whatGoes')">
        <h2>{{ t('handoff.HandoffPage.whatGoes') }}</h2>
        <div class="froms" role="radiogroup" :aria-label="t('handoff.HandoffPage.chosenBy')">
          <button
            v-for="one in FROMS"
            :key="one.key"
            role="radio"
            :aria-checked="from === one.key"
            :class="{ on: from === one.key }"
            @click="from = one.key"
          >
            {{ one.words }}
          </button>
        </div>
        <p v-if="from === 'since'" class="soft small">
          {{
            plan?.since == null
              ? t('handoff.HandoffPage.noPackageWasAcceptedYet')
              : t('handoff.HandoffPage.allThatIsNewOr', [plan.since])
          }}
        </p>
        <fieldset v-if="from === 'days'" class="long">
          <legend class="off">{{ t('handoff.HandoffPage.days') }}</legend>
          <label v-for="one in production.days" :key="one.ulid"
            ><input type="checkbox" :checked="days.has(one.ulid)" @change="days = toggle(days, one.ulid)" />
            {{ t('handoff.HandoffPage.day', [one.number]) }} <span class="soft">{{ one.date }}</span></label
          >
        </fieldset>
        <fieldset v-if="from === 'bins'" class="long">
          <legend class="off">{{ t('handoff.HandoffPage.bins') }}</legend>
          <template v-for="group in choices" :key="group.name">
            <b v-if="group.bins.length > 0" class="soft small">{{ group.name }}</b>
            <label v-for="one in group.bins" :key="one.key"
              ><input type="checkbox" :checked="bins.has(one.key)" @change="bins = toggle(bins, one.key)" />
              {{ one.name }} <span class="soft mono">{{ one.items ?? counts?.counts[one.key] ?? '…' }}</span></label
            >
          </template>
        </fieldset>
        <fieldset v-if="from === 'cuts'" class="long">
          <legend class="off">{{ t('handoff.HandoffPage.reelsAndCuts') }}</legend>
          <p v-if="data.cuts.length === 0" class="soft">{{ t('handoff.HandoffPage.thereIsNoReelOr') }}</p>
          <label v-for="one in data.cuts" :key="one.ulid"
            ><input type="checkbox" :checked="cuts.has(one.ulid)" @change="cuts = toggle(cuts, one.ulid)" />
            {{ one.name }} <span class="soft">{{ KINDS[one.kind] }}</span></label
          >
        </fieldset>
        <div class="how">
          <label
            >{{ t('handoff.HandoffPage.pictures') }}
            <select v-model="how.picture" class="field">
              <option value="proxies">{{ t('handoff.HandoffPage.asProxies') }}</option>
              <option value="originals">{{ t('handoff.HandoffPage.asRecorded') }}</option>
              <option value="both">{{ t('handoff.HandoffPage.both') }}</option>
              <option value="none">{{ t('handoff.HandoffPage.not') }}</option>
            </select></label
          >
          <label v-if="how.picture === 'proxies' || how.picture === 'both'"
            >{{ t('handoff.HandoffPage.with') }}
            <select v-model="how.mixes" class="field">
              <option :value="true">{{ t('handoff.HandoffPage.theRecordersSound') }}</option>
              <option :value="false">{{ t('handoff.HandoffPage.theCamerasSound') }}</option>
            </select></label
          >
          <label
            >{{ t('handoff.HandoffPage.productionSound') }}
            <select v-model="how.sound" class="field">
              <option value="recorded">{{ t('handoff.HandoffPage.asRecorded') }}</option>
              <option value="split">{{ t('handoff.HandoffPage.aFileForEachChannel') }}</option>
              <option value="mix">{{ t('handoff.HandoffPage.asItIsHeardHere') }}</option>
              <option value="none">{{ t('handoff.HandoffPage.not') }}</option>
            </select></label
          >
          <span class="lists" role="group" :aria-label="t('handoff.HandoffPage.lists')"
            >{{ t('handoff.HandoffPage.lists') }}
            <label v-for="one in ['otio', 'edl', 'aaf', 'words']" :key="one"
              ><input v-model="how.lists" type="checkbox" :value="one" />{{
                one === 'words' ? t('handoff.HandoffPage.words') : one.toUpperCase()
              }}</label
            ></span
          >
          <label
            >{{ t('handoff.HandoffPage.mediaLie') }}
            <select v-model="folders" class="field">
              <option value="flat">{{ t('handoff.HandoffPage.together') }}</option>
              <option value="day">{{ t('handoff.HandoffPage.byDay') }}</option>
              <option value="scene">{{ t('handoff.HandoffPage.byScene') }}</option>
              <option value="device">{{ t('handoff.HandoffPage.byDevice') }}</option>
            </select></label
          >
          <label
            >{{ t('handoff.HandoffPage.andAreCalled') }}
            <input
              v-model="pattern"
              class="field mono"
              maxlength="200"
              :placeholder="t('handoff.HandoffPage.rollAndName')"
              :title="t('handoff.HandoffPage.aPatternSuchAsSetup')"
          /></label>
          <details v-if="plan !== null" class="columns">
            <summary>
              {{
                t('handoff.HandoffPage.logWith', [
                  how.columns === null ? t('handoff.HandoffPage.allColumns') : counted(how.columns.length, 'column'),
                ])
              }}
            </summary>
            <button v-if="how.columns !== null" class="plain" @click="how.columns = null">
              {{ t('handoff.HandoffPage.allColumns2') }}
            </button>
            <label v-for="one in plan.columns" :key="one"
              ><input
                type="checkbox"
                :checked="how.columns === null || how.columns.includes(one)"
                @change="how.columns = [...toggle(new Set(how.columns ?? plan.columns), one)]"
              />{{ one }}</label
            >
          </details>
        </div>
        <GateList v-if="plan !== null" ref="gate" v-model="reasons" :points="plan.points" @changed="look" />
        <h2>{{ t('handoff.HandoffPage.to') }}</h2>
        <p class="soft">
          {{ t('handoff.HandoffPage.theEditingRoomsInbox')
          }}<template v-if="room">
            ·
            <span :class="{ fault: plan?.free_bytes != null && plan.bytes > plan.free_bytes }">{{
              room
            }}</span></template
          >
        </p>
        <p v-if="planTrouble" class="note fault" role="alert">{{ planTrouble }}</p>
        <div class="act">
          <button class="go big" :disabled="busy || isEmpty || plan?.clips === 0" @click="make">
            {{ t('handoff.HandoffPage.packAndDeliver') }} <kbd>P</kbd>
          </button>
          <span v-if="left > 0" class="warn" role="status">{{
            t('handoff.HandoffPage.toLookAtFirst', [counted(left, 'point')])
          }}</span>
        </div>
        <TaskProgress v-for="one in running" :key="one.ulid" :task="one" />
      </section>
      <section class="right">
        <PackingTable v-if="production.may.work && !isEmpty" :plan="plan" :waits="planning" />
        <div class="made">
          <div v-if="data.handoffs.length === 0" class="empty">
            <b>{{ t('handoff.HandoffPage.nothingHasBeenHandedOff') }}</b>{{
              production.may.work
                ? t('handoff.HandoffPage.chooseWhatGoesAtThe')
                : t('handoff.HandoffPage.packagesShowUpHereWhen')
            }}
          </div>
          <PackageCard
            v-for="(one, index) in soFar"
            :key="one.ulid"
            :one="one"
            :on="index === at"
            @mouseenter="at = index"
            @open="openPackage(one)"
          />
          <p v-if="rest > 0" ref="end" class="soft">{{ t('shell.soFar.more', [rest]) }}</p>
        </div>
        <ReceivedStrip />
      </section>
    </div>
  </AnswerState>
</template>

<style scoped>
.split {
  display: grid;
  grid-template-columns: 400px minmax(0, 1fr);
  grid-template-rows: minmax(0, 1fr);
  height: 100%;
}
.split.alone {
  grid-template-columns: minmax(0, 1fr);
}
.choose {
  border-right: 1px solid var(--rule-strong);
  background: var(--sheet-2);
  padding: 16px 18px;
  overflow: auto;
  display: grid;
  gap: 11px;
  grid-auto-rows: max-content;
  align-content: start;
}
.froms {
  display: flex;
  border: 1px solid var(--rule-strong);
  border-radius: 5px;
  overflow: hidden;
  width: max-content;
  max-width: 100%;
}
.froms button {
  border: 0;
  border-right: 1px solid var(--rule-strong);
  background: var(--sheet);
  padding: 5px 11px;
  font-size: 12px;
  cursor: pointer;
}
.froms button:last-child {
  border-right: 0;
}
.froms .on {
  background: var(--ink);
  color: var(--sheet);
}
fieldset {
  border: 0;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 5px;
}
.long {
  max-height: 190px;
  overflow: auto;
}
.off {
  position: absolute;
  width: 1px;
  height: 1px;
  overflow: hidden;
  clip-path: inset(50%);
}
label {
  display: flex;
  gap: 8px;
  align-items: center;
  cursor: pointer;
}
.how {
  display: grid;
  gap: 7px;
}
.how label {
  justify-content: space-between;
}
.how select {
  width: 210px;
}
.how .mono {
  width: 210px;
}
.lists {
  display: flex;
  gap: 14px;
  align-items: center;
}
.lists label {
  gap: 5px;
  font-size: 12px;
}
.columns label {
  justify-content: start;
  font-size: 12px;
  padding: 1px 0 1px 14px;
}
.columns summary {
  cursor: pointer;
}
input[type='checkbox'] {
  accent-color: var(--act);
  width: 15px;
  height: 15px;
}
.act {
  display: flex;
  gap: 12px;
  align-items: center;
}
.big {
  height: 38px;
  font-size: 14px;
}
.small {
  font-size: 12px;
}
p {
  margin: 0;
}
.right {
  overflow: auto;
  padding: 16px 22px;
  display: grid;
  gap: 16px;
  align-content: start;
}
.made {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(260px, 1fr));
  gap: 12px;
}
.made .empty {
  grid-column: 1 / -1;
}
@media (max-width: 860px) {
  .split {
    grid-template-columns: minmax(0, 1fr);
    grid-template-rows: auto auto;
    overflow: auto;
  }
}
</style>
