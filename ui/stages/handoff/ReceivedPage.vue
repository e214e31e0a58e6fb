<script setup lang="ts">
import { counted, t } from '@/words'
import { deskSays } from '@/words/desk'
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
import { WAYS } from './words'

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
  say(t('handoff.ReceivedPage.linkedCtrlZTakesIt'))
  others.value = beside?.others ?? []
  makeStale('sequences')
}
async function linkOthers(): Promise<void> {
  const links = others.value.map(({ track, index, clip }) => ({ track, index, clip, was: null }))
  others.value = []
  if ((await attempt(() => handoffApi.link(production.value.ulid, ulid.value, links))) !== undefined)
    say(t('handoff.ReceivedPage.linked2', [counted(links.length, 'event')]))
  makeStale('sequences')
}
async function again(): Promise<void> {
  const done = await attempt(() => handoffApi.linkAgain(production.value.ulid, ulid.value))
  if (done !== undefined)
    say(
      done.count === 0
        ? t('handoff.ReceivedPage.nothingMoreCouldBeLinked')
        : t('handoff.ReceivedPage.linked2', [counted(done.count, 'moreEvent')]),
    )
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
  if (done !== undefined) say(t('handoff.ReceivedPage.theOriginalsAreCopiedTo'))
  makeStale('tasks')
}
function leave(): void {
  void router.push({ name: 'handoff', params: { production: production.value.ulid, day: route.params.day } })
}
const mayWork = computed(() => production.value.may.work)
useShortcuts('List that came back', [
  {
    keys: ['ArrowDown', 'ArrowUp'],
    what: t('handoff.ReceivedPage.nextEventTheOneBefore'),
    run: (event) => step(event.key === 'ArrowDown' ? 1 : -1),
  },
  { keys: ['n'], what: t('handoff.ReceivedPage.nextEventThatIsNot'), run: nextOpen },
  { keys: ['Enter'], what: t('handoff.ReceivedPage.theClipThatItShows'), run: goToClip },
  {
    keys: ['f'],
    what: t('handoff.ReceivedPage.findItsClipByHand'),
    run: () => mayWork.value && (finding.value = true),
  },
  { keys: ['Escape'], what: t('handoff.ReceivedPage.backToTheHandOffs'), run: leave },
])
</script>

<template>
  <AnswerState :pending="isPending" :error="error" @retry="refetch()">
    <div v-if="data" class="page">
      <header class="bar">
        <button class="plain" @click="leave">{{ t('handoff.ReceivedPage.handOffs') }} <kbd>Esc</kbd></button>
        <h1>{{ data.name }}</h1>
        <span class="soft">{{
          t('handoff.ReceivedPage.fromLongAt', [data.file, data.start, data.length, data.rate])
        }}</span>
        <span class="push" />
        <button v-if="mayWork" class="plain" @click="pulling = true">
          {{ t('handoff.ReceivedPage.pullTheOriginals') }}
        </button>
      </header>
      <div class="bar">
        <button class="plain" :class="{ on: show === 'events' }" @click="show = 'events'">
          {{ counted(data.total, 'event') }},
          <b :class="data.linked === data.total ? 'good' : 'warn'">{{
            t('handoff.ReceivedPage.linked', [data.linked])
          }}</b>
        </button>
        <button class="plain" :class="{ on: show === 'changes' }" @click="show = 'changes'">
          {{ t('handoff.ReceivedPage.whatChanged') }}
        </button>
        <button
          v-if="data.problem_count > 0"
          class="plain"
          :class="{ on: show === 'problems' }"
          @click="show = 'problems'"
        >
          <span class="warn">{{
            t('handoff.ReceivedPage.notReadAsWritten', [counted(data.problem_count, 'line')])
          }}</span>
        </button>
        <template v-if="show === 'events' && data.linked < data.total">
          <label
            ><input v-model="onlyOpen" type="checkbox" /> {{ t('handoff.ReceivedPage.onlyThoseThatAreNot') }}</label
          >
          <button v-if="mayWork" class="plain" @click="again">{{ t('handoff.ReceivedPage.lookForThemAgain') }}</button>
        </template>
      </div>
      <div v-if="others.length > 0" class="also" role="status">
        {{
          t('handoff.ReceivedPage.ofTheSameFolderBeside', [
            counted(others.length, 'otherEvent'),
            others.length === 1 ? t('handoff.ReceivedPage.hasItsClip') : t('handoff.ReceivedPage.haveTheirClips'),
          ])
        }}
        <span class="soft"
          >{{
            others
              .slice(0, 4)
              .map((one) => one.clip_name)
              .join(', ')
          }}{{ others.length > 4 ? '…' : '' }}</span
        >
        <button class="go" @click="linkOthers">
          {{
            t('handoff.ReceivedPage.linkToo', [
              others.length === 1 ? t('handoff.ReceivedPage.it') : t('handoff.ReceivedPage.them'),
            ])
          }}
        </button>
        <button class="plain" @click="others = []">{{ t('handoff.ReceivedPage.leave') }}</button>
      </div>
      <main v-if="show === 'events'">
        <EventRows ref="rows" :events="events" :cursor="at" @pick="at = $event">
          <template #head>{{ t('handoff.ReceivedPage.linkedBy') }}</template>
          <template #default="{ event }">
            <span :class="event.way === 'none' ? 'fault' : 'soft'" :title="event.reason">
              <template v-if="event.clip_name"
                ><b>{{ event.clip_name }}</b> {{ event.slates }} · </template
              >{{ event.way === 'none' ? deskSays(event.reason) : WAYS[event.way] }}</span
            >
          </template>
        </EventRows>
        <aside v-if="here" aria-live="polite">
          <h2>{{ here.name }}</h2>
          <p class="soft">{{ here.place }}</p>
          <p v-if="here.way === 'none'" class="fault">{{ deskSays(here.reason) }}</p>
          <template v-else>
            <p>
              <b>{{ here.clip_name ?? t('handoff.ReceivedPage.aClipThatIsGone') }}</b> {{ here.slates }}
            </p>
            <p class="soft">{{ t('handoff.ReceivedPage.foundBy', [WAYS[here.way], here.reason]) }}</p>
          </template>
          <div class="acts">
            <button v-if="here.clip" class="plain" @click="goToClip">
              {{ t('handoff.ReceivedPage.itsClip') }} <kbd>Enter</kbd>
            </button>
            <button v-if="mayWork" class="plain" @click="finding = true">
              {{ t('handoff.ReceivedPage.findItByHand') }} <kbd>F</kbd>
            </button>
            <button v-if="data.linked < data.total" class="plain" @click="nextOpen">
              {{ t('handoff.ReceivedPage.nextOpenOne') }} <kbd>N</kbd>
            </button>
          </div>
        </aside>
      </main>
      <ChangeList v-else-if="show === 'changes'" :sequence="ulid" :others="data.others" />
      <ul v-else class="problems">
        <li v-for="(one, index) in data.problems" :key="index">
          <span class="mono soft">{{ deskSays(one.where) }}</span> {{ deskSays(one.reason) }}
        </li>
      </ul>
      <Modal
        :open="finding"
        :title="t('handoff.ReceivedPage.whichClipIsIt')"
        :footer="null"
        width="560px"
        @cancel="finding = false"
      >
        <FindClip v-if="finding && here" :words="here.name" @pick="link" />
      </Modal>
      <Modal
        :open="pulling"
        :title="t('handoff.ReceivedPage.pullTheOriginals2')"
        :ok-text="t('handoff.ReceivedPage.pull')"
        @ok="pull"
        @cancel="pulling = false"
      >
        <p>{{ t('handoff.ReceivedPage.whatThisCutNeedsIs') }}</p>
        <label class="line"
          ><input v-model="trimmed" type="radio" :value="false" /> {{ t('handoff.ReceivedPage.wholeClips') }}</label
        >
        <label class="line"
          ><input v-model="trimmed" type="radio" :value="true" />
          {{ t('handoff.ReceivedPage.onlyTheStretchesWhereA') }}</label
        >
        <label class="line"
          >{{ t('handoff.ReceivedPage.with') }}
          <input v-model.number="handles" class="field" type="number" min="0" max="1000" />
          {{ t('handoff.ReceivedPage.framesOnEitherSide') }}</label
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
