<script setup lang="ts">
import { handoff as handoffApi } from '@/api/endpoints/handoff'
import { Modal } from 'ant-design-vue'
import { computed, ref, useTemplateRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { makeStale, useAnswer } from '@/api/queries'
import type { AlsoLinkable, ReceivedEvent } from '@/api/types'
import AnswerState from '@/shell/AnswerState.vue'
import { useDesk } from '@/shell/desk'
import { useShortcuts } from '@/shell/keys'
import { attempt, say } from '@/shell/say'
import ChangeList from './ChangeList.vue'
import EventRows from './EventRows.vue'
import FindClip from './FindClip.vue'
import { count, WAYS } from './words'

/** A list that came back: what each event was linked to and why, or why not; what changed; and its originals. */
const { production } = useDesk()
const route = useRoute()
const router = useRouter()
const ulid = computed(() => String(route.params.sequence))
const { data, isPending, error, refetch } = useAnswer(() => handoffApi.received(production.value.ulid, ulid.value))
const show = ref<'events' | 'changes' | 'problems'>('events')
const onlyOpen = ref(false)
const events = computed(() => (data.value?.events ?? []).filter((one) => !onlyOpen.value || one.way === 'none'))
const at = ref(0)
const here = computed<ReceivedEvent | undefined>(() => events.value[at.value])
const rows = useTemplateRef<{ scrollTo: (index: number) => void }>('rows')
watch(onlyOpen, () => (at.value = 0))
function step(by: number): void {
  at.value = Math.max(0, Math.min(events.value.length - 1, at.value + by))
  rows.value?.scrollTo(Math.max(0, at.value - 4))
}
function nextOpen(): void {
  const from = events.value.findIndex((one, index) => index > at.value && one.way === 'none')
  const found = from >= 0 ? from : events.value.findIndex((one) => one.way === 'none')
  if (found >= 0) step(found - at.value)
}

const finding = ref(false)
const others = ref<AlsoLinkable[]>([])
async function link(clip: string): Promise<void> {
  const event = here.value
  if (event === undefined) return
  finding.value = false
  const one = { track: event.track, index: event.index, clip, was: event.clip }
  // Asked before the event is linked: until then it still says from where it comes.
  const beside = await attempt(() => handoffApi.others(production.value.ulid, ulid.value, one))
  if ((await attempt(() => handoffApi.link(production.value.ulid, ulid.value, [one]))) === undefined) return
  say('Linked. Ctrl+Z takes it back.')
  others.value = beside?.others ?? []
  makeStale('sequences')
}
async function linkOthers(): Promise<void> {
  const links = others.value.map(({ track, index, clip }) => ({ track, index, clip, was: null }))
  others.value = []
  if ((await attempt(() => handoffApi.link(production.value.ulid, ulid.value, links))) !== undefined)
    say(`${count(links.length, 'event')} linked.`)
  makeStale('sequences')
}
async function again(): Promise<void> {
  const done = await attempt(() => handoffApi.linkAgain(production.value.ulid, ulid.value))
  if (done !== undefined)
    say(done.count === 0 ? 'Nothing more could be linked.' : `${count(done.count, 'more event')} linked.`)
  makeStale('sequences')
}
function goToClip(): void {
  const event = here.value
  if (event?.clip == null) return
  void router.push({
    name: 'clip',
    params: { production: production.value.ulid, day: route.params.day, clip: event.clip },
    query: { at: String(event.in_ticks ?? 0) },
  })
}

const pulling = ref(false)
const handles = ref(12)
const trimmed = ref(false)
async function pull(): Promise<void> {
  pulling.value = false
  const done = await attempt(() => handoffApi.pull(production.value.ulid, ulid.value, handles.value, trimmed.value))
  if (done !== undefined) say("The originals are copied to the editing room's inbox.")
  makeStale('tasks')
}
function leave(): void {
  void router.push({ name: 'handoff', params: { production: production.value.ulid, day: route.params.day } })
}
const mayWork = computed(() => production.value.may.work)
useShortcuts('List that came back', [
  {
    keys: ['ArrowDown', 'ArrowUp'],
    what: 'Next event, the one before',
    run: (event) => step(event.key === 'ArrowDown' ? 1 : -1),
  },
  { keys: ['n'], what: 'Next event that is not linked', run: nextOpen },
  { keys: ['Enter'], what: 'The clip that it shows', run: goToClip },
  { keys: ['f'], what: 'Find its clip by hand', run: () => mayWork.value && (finding.value = true) },
  { keys: ['Escape'], what: 'Back to the hand-offs', run: leave },
])
</script>

<template>
  <AnswerState :pending="isPending" :error="error" @retry="refetch()">
    <div v-if="data" class="page">
      <header class="bar">
        <button class="plain" @click="leave">Hand-offs <kbd>Esc</kbd></button>
        <h1>{{ data.name }}</h1>
        <span class="soft">{{ data.file }} · from {{ data.start }}, {{ data.length }} long, at {{ data.rate }}</span>
        <span class="push" />
        <button v-if="mayWork" class="plain" @click="pulling = true">Pull the originals…</button>
      </header>
      <div class="bar">
        <button class="plain" :class="{ on: show === 'events' }" @click="show = 'events'">
          {{ count(data.total, 'event') }},
          <b :class="data.linked === data.total ? 'good' : 'warn'">{{ data.linked }} linked</b>
        </button>
        <button class="plain" :class="{ on: show === 'changes' }" @click="show = 'changes'">What changed</button>
        <button
          v-if="data.problem_count > 0"
          class="plain"
          :class="{ on: show === 'problems' }"
          @click="show = 'problems'"
        >
          <span class="warn">{{ count(data.problem_count, 'line') }} not read as written</span>
        </button>
        <template v-if="show === 'events' && data.linked < data.total">
          <label><input v-model="onlyOpen" type="checkbox" /> only those that are not linked</label>
          <button v-if="mayWork" class="plain" @click="again">Look for them again</button>
        </template>
      </div>
      <div v-if="others.length > 0" class="also" role="status">
        {{ count(others.length, 'other event') }} of the same folder
        {{ others.length === 1 ? 'has its clip' : 'have their clips' }} beside it:
        <span class="soft"
          >{{
            others
              .slice(0, 4)
              .map((one) => one.clip_name)
              .join(', ')
          }}{{ others.length > 4 ? '…' : '' }}</span
        >
        <button class="go" @click="linkOthers">Link {{ others.length === 1 ? 'it' : 'them' }} too</button>
        <button class="plain" @click="others = []">Leave</button>
      </div>
      <main v-if="show === 'events'">
        <EventRows ref="rows" :events="events" :cursor="at" @pick="at = $event">
          <template #head>Linked by</template>
          <template #default="{ event }">
            <span :class="event.way === 'none' ? 'fault' : 'soft'" :title="event.reason">
              <template v-if="event.clip_name"
                ><b>{{ event.clip_name }}</b> {{ event.slates }} · </template
              >{{ event.way === 'none' ? event.reason : WAYS[event.way] }}</span
            >
          </template>
        </EventRows>
        <aside v-if="here" aria-live="polite">
          <h2>{{ here.name }}</h2>
          <p class="soft">{{ here.place }}</p>
          <p v-if="here.way === 'none'" class="fault">{{ here.reason }}</p>
          <template v-else>
            <p>
              <b>{{ here.clip_name ?? 'a clip that is gone' }}</b> {{ here.slates }}
            </p>
            <p class="soft">Found by {{ WAYS[here.way] }}. {{ here.reason }}</p>
          </template>
          <div class="acts">
            <button v-if="here.clip" class="plain" @click="goToClip">Its clip <kbd>Enter</kbd></button>
            <button v-if="mayWork" class="plain" @click="finding = true">Find it by hand… <kbd>F</kbd></button>
            <button v-if="data.linked < data.total" class="plain" @click="nextOpen">Next open one <kbd>N</kbd></button>
          </div>
        </aside>
      </main>
      <ChangeList v-else-if="show === 'changes'" :sequence="ulid" :others="data.others" />
      <ul v-else class="problems">
        <li v-for="(one, index) in data.problems" :key="index">
          <span class="mono soft">{{ one.where }}</span> {{ one.reason }}
        </li>
      </ul>
      <Modal :open="finding" title="Which clip is it?" :footer="null" width="560px" @cancel="finding = false">
        <FindClip v-if="finding && here" :words="here.name" @pick="link" />
      </Modal>
      <Modal :open="pulling" title="Pull the originals" ok-text="Pull" @ok="pull" @cancel="pulling = false">
        <p>What this cut needs is copied to the editing room's inbox and verified, with a list of what is what.</p>
        <label class="line"><input v-model="trimmed" type="radio" :value="false" /> Whole clips</label>
        <label class="line"
          ><input v-model="trimmed" type="radio" :value="true" /> Only the stretches, where a file lets them be copied
          out</label
        >
        <label class="line"
          >with <input v-model.number="handles" class="field" type="number" min="0" max="1000" /> frames on either
          side</label
        >
      </Modal>
    </div>
  </AnswerState>
</template>

<style scoped>
.page {
  display: grid;
  grid-template-rows: auto auto auto minmax(0, 1fr);
  height: 100%;
}
h1 {
  font-size: 16px;
  font-weight: 600;
  margin: 0;
}
.bar label,
.line {
  display: flex;
  gap: 6px;
  align-items: center;
}
.line {
  padding: 4px 0;
}
.line .field {
  width: 80px;
}
.plain.on {
  border-color: var(--ink);
}
.also {
  display: flex;
  gap: 10px;
  align-items: center;
  flex-wrap: wrap;
  padding: 8px 18px;
  background: var(--info-soft);
}
main {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 260px;
  gap: 16px;
  padding: 12px 18px;
  grid-row: 4;
  min-height: 0;
}
main :deep(.events) {
  height: 100%;
}
aside {
  display: grid;
  gap: 8px;
  align-content: start;
  overflow-wrap: anywhere;
}
aside p {
  margin: 0;
}
.acts {
  display: grid;
  gap: 6px;
  justify-items: start;
}
.problems {
  grid-row: 4;
  overflow: auto;
  list-style: none;
  margin: 0;
  padding: 12px 18px;
}
.problems li {
  padding: 5px 0;
  border-bottom: 1px solid var(--rule);
}
</style>
