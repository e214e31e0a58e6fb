<script setup lang="ts">
import { shell as shellApi } from '@/api/endpoints/shell'
import { handoff as handoffApi } from '@/api/endpoints/handoff'
import { Modal } from 'ant-design-vue'
import { computed, ref, watch } from 'vue'
import { makeStale, useAnswer } from '@/api/queries'
import type { Handoff } from '@/api/types'
import { bytes } from '@/player/time'
import AnswerState from '@/shell/AnswerState.vue'
import { useDesk } from '@/shell/desk'
import { useShortcuts } from '@/shell/keys'
import { attempt, say } from '@/shell/say'
import TaskProgress from '@/shell/TaskProgress.vue'

const { production, day } = useDesk()
const { data, isPending, error, refetch } = useAnswer(() => handoffApi.list(production.value.ulid))
const { data: tasks } = useAnswer(() => shellApi.tasks(production.value.ulid))
const { data: tabs } = useAnswer(() => shellApi.tabs(production.value.ulid, day.value.ulid))
const days = ref(new Set<string>([day.value.ulid]))
const bins = ref(new Set<string>())
const busy = ref(false)
const querying = ref<Handoff | null>(null)
const sentence = ref('')
function ask(one: Handoff): void {
  sentence.value = ''
  querying.value = one
}
const at = ref(0)
watch(
  () => day.value.ulid,
  (ulid) => (days.value = new Set([ulid])),
)

const running = computed(() =>
  (tasks.value?.tasks ?? []).find(
    (task) =>
      (task.kind === 'handoff' || task.kind === 'accept') && (task.state === 'running' || task.state === 'waiting'),
  ),
)
const choices = computed(() => [
  ...(data.value?.bins.groups.find((group) => group.key === 'kinds')?.bins ?? []),
  ...(data.value?.bins.own ?? []),
])

function toggle(set: Set<string>, key: string): Set<string> {
  const next = new Set(set)
  if (!next.delete(key)) next.add(key)
  return next
}
async function make(): Promise<void> {
  if (!production.value.may.work || busy.value || days.value.size + bins.value.size === 0) return
  busy.value = true
  const done = await attempt(() =>
    handoffApi.make(production.value.ulid, { days: [...days.value], bins: [...bins.value] }),
  )
  busy.value = false
  if (done !== undefined) say("The package is being written to the editing room's inbox.")
  makeStale('handoffs')
}
async function answer(one: Handoff, query: string | null): Promise<void> {
  if (!production.value.may.accept) return
  const done = await attempt(() => handoffApi.answer(production.value.ulid, one.ulid, { query }))
  if (done !== undefined)
    say(
      query !== null
        ? 'The query is with the assistants.'
        : done.state === 'accepted'
          ? `Hand-off ${one.number} is accepted: every file is as it was delivered.`
          : `Every file of hand-off ${one.number} is read first; then it is accepted.`,
    )
  querying.value = null
  makeStale('handoffs')
}
const when = (iso: string | null) =>
  iso === null
    ? ''
    : new Date(iso).toLocaleString('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' })
const STATES = {
  packing: { text: 'being packed', look: '' },
  delivered: { text: 'delivered, not answered', look: 'warn' },
  accepted: { text: 'accepted', look: '' },
  queried: { text: 'queried', look: 'fault' },
  failed: { text: 'failed', look: 'fault' },
}

useShortcuts('Hand-off', [
  {
    keys: ['ArrowDown', 'ArrowUp'],
    what: 'Next hand-off, the one before',
    run: (event) =>
      (at.value = Math.max(
        0,
        Math.min((data.value?.handoffs.length ?? 1) - 1, at.value + (event.key === 'ArrowDown' ? 1 : -1)),
      )),
  },
  { keys: ['p'], what: 'Pack and deliver what is chosen', run: () => void make() },
  {
    keys: ['y'],
    what: 'Accept (editor)',
    run: () => {
      const one = data.value?.handoffs[at.value]
      if (one?.state === 'delivered' || one?.state === 'queried') void answer(one, null)
    },
  },
  {
    keys: ['q'],
    what: 'Query (editor)',
    run: () => {
      const one = data.value?.handoffs[at.value]
      if (one?.state === 'delivered' && production.value.may.accept) {
        ask(one)
      }
    },
  },
])
</script>

<template>
  <AnswerState :pending="isPending" :error="error" @retry="refetch()">
    <div v-if="data" class="split">
      <section v-if="production.may.work" class="choose">
        <h2>Hand off to the editing team</h2>
        <fieldset>
          <legend>Days</legend>
          <label v-for="one in production.days" :key="one.ulid"
            ><input type="checkbox" :checked="days.has(one.ulid)" @change="days = toggle(days, one.ulid)" /> Day
            {{ one.number }} <span class="soft">{{ one.date }}</span></label
          >
        </fieldset>
        <fieldset v-if="choices.length > 0">
          <legend>Bins</legend>
          <label v-for="one in choices" :key="one.key"
            ><input type="checkbox" :checked="bins.has(one.key)" @change="bins = toggle(bins, one.key)" />
            {{ one.name }} <span class="soft mono">{{ one.items }}</span></label
          >
        </fieldset>
        <p v-if="tabs && tabs.open > 0 && days.has(day.ulid)" class="note warn">
          {{ tabs.open }} open {{ tabs.open === 1 ? 'point' : 'points' }} on day {{ day.number }}. They go along as they
          are.
        </p>
        <button class="go big" :disabled="busy || days.size + bins.size === 0" @click="make">
          Pack and deliver <kbd>P</kbd>
        </button>
        <p class="soft small">
          Proxies with the recorder's sound, production sound, the day's reel as OTIO and EDL, the log as CSV, and a
          manifest over all of it.
        </p>
        <TaskProgress v-if="running" :task="running" />
      </section>
      <section class="made">
        <div v-if="data.handoffs.length === 0" class="empty">
          <b>Nothing has been handed off yet.</b
          >{{
            production.may.work
              ? 'Choose a day at the left, then pack and deliver.'
              : 'Packages show up here when the assistants deliver them.'
          }}
        </div>
        <article
          v-for="(one, index) in data.handoffs"
          :key="one.ulid"
          :class="{ on: index === at }"
          @mouseenter="at = index"
        >
          <header>
            <b>No. {{ one.number }} · {{ one.title }}</b
            ><span class="pill" :class="STATES[one.state].look">{{ STATES[one.state].text }}</span>
          </header>
          <p v-if="one.summary">
            {{ one.summary.clips }} clips, {{ one.summary.files }} files,
            <span class="mono">{{ bytes(one.summary.bytes) }}</span><template v-if="one.summary.reel">
              · reel {{ one.summary.reel }}</template
            >
          </p>
          <p v-if="one.summary?.unmixed?.length" class="warn">
            With the camera's sound only, since no copy of the recording could be reached:
            {{ one.summary.unmixed.join(', ') }}
          </p>
          <p v-if="one.summary && one.summary.missing.length > 0" class="fault">
            Left out, no file could be reached: {{ one.summary.missing.join(', ') }}
          </p>
          <p class="mono soft path">inbox/{{ one.folder }}</p>
          <p class="soft">
            Made by {{ one.made_by }}, {{ when(one.delivered_at ?? one.made_at)
            }}<template v-if="one.answered_by">
              · {{ one.state }} by {{ one.answered_by }}, {{ when(one.answered_at) }}</template
            >
          </p>
          <p v-if="one.query" class="note fault">{{ one.query }}</p>
          <div v-if="production.may.accept && (one.state === 'delivered' || one.state === 'queried')" class="acts">
            <button class="go" @click="answer(one, null)">Check and accept <kbd v-if="index === at">Y</kbd></button>
            <button v-if="one.state === 'delivered'" class="plain" @click="ask(one)">
              Query… <kbd v-if="index === at">Q</kbd>
            </button>
          </div>
        </article>
      </section>
      <Modal
        :open="querying !== null"
        :title="`Query hand-off ${querying?.number}`"
        ok-text="Send the query"
        :ok-button-props="{ disabled: sentence.trim() === '' }"
        @ok="querying && answer(querying, sentence.trim())"
        @cancel="querying = null"
      >
        <textarea
          v-model="sentence"
          class="field"
          rows="3"
          maxlength="1000"
          aria-label="What is wrong or missing"
          placeholder="What is wrong or missing"
        />
      </Modal>
    </div>
  </AnswerState>
</template>

<style scoped>
.split {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  grid-template-rows: minmax(0, 1fr);
  height: 100%;
}
.choose {
  width: 318px;
  border-right: 1px solid var(--rule-strong);
  background: var(--sheet-2);
  padding: 18px;
  overflow: auto;
  display: grid;
  gap: 12px;
  align-content: start;
}
fieldset {
  border: 0;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 5px;
}
legend {
  font-size: 11px;
  color: var(--ink-soft);
  padding: 0 0 4px;
  font-weight: 500;
}
label {
  display: flex;
  gap: 8px;
  align-items: center;
  cursor: pointer;
}
input[type='checkbox'] {
  accent-color: var(--act);
  width: 15px;
  height: 15px;
}
.big {
  height: 38px;
  font-size: 14px;
}
.small {
  font-size: 12px;
  margin: 0;
}
.note {
  margin: 0;
}
.made {
  overflow: auto;
  padding: 18px 22px;
  display: grid;
  gap: 12px;
  align-content: start;
}
article {
  border: 1px solid var(--rule-strong);
  border-radius: 8px;
  background: #fff;
  padding: 12px 16px;
  display: grid;
  gap: 5px;
}
article.on {
  border-color: var(--act);
}
article header {
  display: flex;
  justify-content: space-between;
  gap: 12px;
}
article b {
  font-size: 15px;
  font-weight: 600;
}
article p {
  margin: 0;
}
.path {
  font-size: 12px;
  overflow-wrap: anywhere;
}
.acts {
  display: flex;
  gap: 8px;
  margin-top: 6px;
}
</style>
