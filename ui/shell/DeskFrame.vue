<script setup lang="ts">
import { deskSays } from '@/words/desk'
import { t, valueWord } from '@/words'
import { shell as shellApi } from '@/api/endpoints/shell'
import { settings as settingsApi } from '@/api/endpoints/settings'
import { useElementSize, useLocalStorage } from '@vueuse/core'
import { Dropdown, Menu, MenuItem, Modal } from 'ant-design-vue'
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { tellHere, useLive } from '@/api/live'
import { makeStale, queryClient, useAnswer, willMakeStale } from '@/api/queries'
import type { Day, Production } from '@/api/types'
import { provideDesk } from './desk'
import AccountDialog from './AccountDialog.vue'
import { dayName } from './dayName'
import DayWalk from './DayWalk.vue'
import { chooseTones } from './device'
import HelpCard from './HelpCard.vue'
import { useShortcuts } from './keys'
import { attempt, say } from './say'
import SearchBox from './SearchBox.vue'
import { sendings } from './sending'
import { useSession } from './session'
import { SETTINGS, STAGES, type StageName } from './stages'
import TaskTray from './TaskTray.vue'

const props = defineProps<{ production: Production }>()
/** Pages that are reached from a stage, and belong to it. */
const INSIDE: Record<string, StageName> = { clip: 'bins', compare: 'bins', package: 'handoff', received: 'handoff' }
const route = useRoute()
const router = useRouter()
const session = useSession()
const help = ref(false)
const tray = ref(false)
const account = ref(false)
const isWalking = useLocalStorage('cartella.walking', false)
watch(() => props.production.devices, chooseTones, { immediate: true })
const newDay = ref<string | null>(null)

const day = computed<Day | undefined>(() => props.production.days.find((other) => other.ulid === route.params.day))
provideDesk({ production: computed(() => props.production), day: computed(() => day.value as Day) })
useLive(() => props.production.ulid)

/** How much of the files that this page sends has arrived; null while it sends none. */
const coming = computed(() => {
  const own = sendings.filter((one) => one.production === props.production.ulid && one.state !== 'stopped')
  const all = own.reduce((sum, one) => sum + one.bytes, 0)
  return own.length === 0
    ? null
    : Math.floor((100 * own.reduce((sum, one) => sum + one.received, 0)) / Math.max(1, all))
})
const { data: tabs } = useAnswer(() =>
  day.value === undefined ? null : shellApi.tabs(props.production.ulid, day.value.ulid),
)
const { data: tasks } = useAnswer(() => shellApi.tasks(props.production.ulid))
const running = computed(() =>
  (tasks.value?.tasks ?? []).filter((task) => task.state === 'running' || task.state === 'waiting'),
)
const failed = computed(() => (tasks.value?.tasks ?? []).filter((task) => task.state === 'failed'))

const note = computed<Record<StageName, string>>(() => {
  const counts = tabs.value
  return {
    day: t('shell.DeskFrame.sheet'),
    cards:
      counts === undefined || counts.cards.all === 0
        ? ''
        : t('shell.DeskFrame.of', [counts.cards.safe, counts.cards.all]),
    log:
      counts === undefined || counts.takes === 0
        ? ''
        : `${counts.takes} ${counts.takes === 1 ? t('shell.DeskFrame.take') : t('shell.DeskFrame.takes')}`,
    lineup:
      counts === undefined || counts.to_place === 0 || counts.placed === 0
        ? ''
        : t('shell.DeskFrame.of', [counts.placed, counts.to_place]),
    bins: '',
    screening: '',
    assembly: '',
    handoff: (counts?.handoff ?? '').replace(/[a-z][a-z ]*/, valueWord),
  }
})
const open = (stage: StageName) => (stage === 'day' ? (tabs.value?.open ?? 0) : (tabs.value?.by_stage[stage] ?? 0))

/** The page that comes gets the keys; a tab that kept the focus would take Enter for itself. */
const letGo = () => (document.activeElement as HTMLElement | null)?.blur()
function goStage(name: StageName): void {
  letGo()
  void router.push({ name, params: route.params })
}
function goDay(one: Day): Promise<unknown> {
  letGo()
  return router.push({ name: String(route.name), params: { ...route.params, day: one.ulid } })
}

const strip = ref<HTMLElement | null>(null)
// A shoot of forty days has more tabs than the screen is wide, and what stands beside them takes room as it comes.
const { width: stripWidth } = useElementSize(strip)
watch(
  [day, strip, stripWidth],
  () => strip.value?.querySelector('.date.on')?.scrollIntoView({ block: 'nearest', inline: 'center' }),
  { flush: 'post' },
)

function beside(step: number): void {
  const at = props.production.days.findIndex((one) => one.ulid === day.value?.ulid) + step
  const next = props.production.days[at]
  if (next !== undefined) void goDay(next)
}

/** Steps go back one after the other, however fast the keys come: two at once would both ask for the same one. */
let goingBack: Promise<void> = Promise.resolve()
function undo(redo: boolean): void {
  goingBack = goingBack.then(() => takeBack(redo))
}
async function takeBack(redo: boolean): Promise<void> {
  willMakeStale('sequences')
  const answer = await attempt(() =>
    redo ? shellApi.redo(props.production.ulid) : shellApi.undo(props.production.ulid),
  )
  if (answer === undefined) return
  // A step of a cut changes nothing else, and hands that cut are quick: where the cut is open it goes on by itself.
  if (answer.topics.length === 1 && answer.topics[0] === 'sequences') {
    const facts = { undone: true, sequence: answer.sequence, made: answer.step, taken: false }
    tellHere('sequences', facts)
    if (!facts.taken) makeStale('sequences')
  } else void queryClient.invalidateQueries({ predicate: (query) => query.queryKey[0] === props.production.ulid })
  const done = redo ? t('shell.DeskFrame.doneAgain') : t('shell.DeskFrame.takenBack')
  const more = answer.stayed_count > 2 ? t('shell.DeskFrame.andMore', [answer.stayed_count - 2]) : ''
  if (answer.label === null) say(redo ? t('shell.DeskFrame.nothingToDoAgain') : t('shell.DeskFrame.nothingToTakeBack'))
  else if (answer.stayed_count === 0) say(`${done}: ${deskSays(answer.label)}`)
  else
    say(
      t('shell.DeskFrame.butFor', [
        done,
        answer.stayed_count,
        deskSays(answer.label),
        answer.stayed.slice(0, 2).map(deskSays).join('; '),
        more,
      ]),
    )
}

async function addDay(): Promise<void> {
  const made = await attempt(() => settingsApi.addDay(props.production.ulid, { date: newDay.value }))
  if (made === undefined) return
  newDay.value = null
  await queryClient.invalidateQueries({ predicate: (query) => query.queryKey[0] === props.production.ulid })
  await goDay(made)
}

function suggestDay(): void {
  const last = props.production.days.at(-1)
  const date = new Date((last?.date ?? '2026-01-01') + 'T12:00:00')
  date.setDate(date.getDate() + 1)
  newDay.value = date.toISOString().slice(0, 10)
}

useShortcuts('Everywhere', [
  ...STAGES.map((stage) => ({
    keys: [stage.key],
    what: stage.name === 'day' ? t('shell.DeskFrame.daySheet') : stage.title,
    run: () => goStage(stage.name),
  })),
  {
    keys: [SETTINGS.key],
    what: t('shell.DeskFrame.setUpOfTheProduction2'),
    run: () => {
      letGo()
      void router.push({ name: SETTINGS.name, params: route.params })
    },
  },
  { keys: ['F9'], what: t('shell.DeskFrame.whatRunsWaitsAndFailed'), run: () => (tray.value = !tray.value) },
  {
    keys: ['Shift+ArrowLeft', 'Shift+ArrowRight'],
    what: t('shell.DeskFrame.dayBeforeDayAfter'),
    run: (event: KeyboardEvent) => beside(event.key === 'ArrowLeft' ? -1 : 1),
  },
  { keys: ['Ctrl+z'], what: t('shell.DeskFrame.takeBack'), run: () => undo(false) },
  { keys: ['Ctrl+Shift+z'], what: t('shell.DeskFrame.doAgain'), run: () => undo(true) },
  { keys: ['?'], what: t('shell.DeskFrame.thisCard'), run: () => (help.value = true) },
])
</script>

<template>
  <div class="desk">
    <nav class="spine" :aria-label="t('shell.DeskFrame.stages')">
      <RouterLink to="/" class="mark" :title="t('shell.DeskFrame.cartellaProductions')">C</RouterLink>
      <RouterLink
        v-for="stage in STAGES"
        :key="stage.name"
        :to="{ name: stage.name, params: route.params }"
        class="tab"
        :class="{
          on: route.name === stage.name || INSIDE[String(route.name)] === stage.name,
        }"
        :title="`${stage.title} (${stage.key})`"
        @click="letGo"
      >
        <kbd aria-hidden="true">{{ stage.key }}</kbd>
        <b>{{ stage.title }}</b>
        <span>{{ note[stage.name] }}&nbsp;</span>
        <i
          v-if="open(stage.name) > 0"
          class="count"
          :aria-label="t('shell.DeskFrame.openPoints', [open(stage.name)])"
          >{{ open(stage.name) }}</i
        >
      </RouterLink>
      <RouterLink
        :to="{ name: SETTINGS.name, params: route.params }"
        class="tab small"
        :class="{ on: route.name === SETTINGS.name }"
        :title="t('shell.DeskFrame.setUpOfTheProduction', [SETTINGS.key])"
        @click="letGo"
        ><kbd aria-hidden="true">{{ SETTINGS.key }}</kbd
        ><b>{{ SETTINGS.title }}</b></RouterLink
      >
    </nav>
    <header>
      <h1>{{ production.name }}</h1>
      <nav ref="strip" class="days" :aria-label="t('shell.DeskFrame.shootDays')">
        <button
          v-for="one in production.days"
          :key="one.ulid"
          class="date"
          :aria-current="one.ulid === day?.ulid ? 'page' : undefined"
          :class="{ on: one.ulid === day?.ulid }"
          @click="goDay(one)"
        >
          {{ t('shell.DeskFrame.day', [one.number, dayName(one)]) }}
        </button>
        <button
          v-if="production.may.work"
          class="date add"
          :title="t('shell.DeskFrame.addAShootDay')"
          :aria-label="t('shell.DeskFrame.addAShootDay')"
          @click="suggestDay"
        >
          +
        </button>
      </nav>
      <div class="right">
        <RouterLink
          v-if="coming !== null"
          :to="{ name: 'bins', params: route.params }"
          class="pill busy"
          role="status"
          :title="t('shell.DeskFrame.filesThatThisPageBrings')"
          >{{ t('shell.DeskFrame.bringingIn', [coming]) }}</RouterLink
        >
        <button
          v-if="running.length > 0"
          class="pill busy"
          role="status"
          :title="t('shell.DeskFrame.whatRunsF9')"
          @click="tray = true"
        >
          {{ running.length === 1 ? deskSays(running[0]?.title ?? '') : t('shell.DeskFrame.tasks', [running.length]) }}…
        </button>
        <button
          v-if="failed.length > 0"
          class="pill fault tray"
          :title="t('shell.DeskFrame.whatFailedF9')"
          @click="tray = true"
        >
          {{ t('shell.DeskFrame.failed', [failed.length]) }}
        </button>
        <SearchBox v-if="day" />
        <RouterLink
          v-if="tabs"
          :to="{ name: 'day', params: route.params }"
          class="pill"
          :class="{ fault: tabs.open > 0 }"
          >{{
            tabs.open === 0
              ? t('shell.DeskFrame.noOpenPoints')
              : tabs.open === 1
                ? t('shell.DeskFrame.n1OpenPoint')
                : t('shell.DeskFrame.openPoints', [tabs.open])
          }}</RouterLink
        >
        <Dropdown :trigger="['click']" placement="bottomRight">
          <button
            class="me"
            :title="`${session.user?.name}, ${valueWord(session.user?.role ?? '')}`"
            :aria-label="
              t('shell.DeskFrame.menuOf', [
                session.user?.initials,
                session.user?.name,
                valueWord(session.user?.role ?? ''),
              ])
            "
          >
            {{ session.user?.initials }}
          </button>
          <template #overlay>
            <Menu>
              <MenuItem key="who" disabled
                >{{ session.user?.name }}, {{ valueWord(production.your_role ?? session.user?.role ?? '') }}</MenuItem
              >
              <MenuItem key="account" @click="account = true">{{ t('shell.DeskFrame.yourAccount') }}</MenuItem>
              <MenuItem key="tasks" @click="tray = true"
                >{{ t('shell.DeskFrame.whatRunsAndWhatFailed') }} <kbd>F9</kbd></MenuItem
              >
              <MenuItem key="help" @click="help = true"
                >{{ t('shell.DeskFrame.keysOfThisPage') }} <kbd>?</kbd></MenuItem
              >
              <MenuItem key="walk" @click="isWalking = true">{{ t('shell.DeskFrame.aWalkThroughTheDay') }}</MenuItem>
              <MenuItem key="pick" @click="router.push('/')">{{ t('shell.DeskFrame.productions') }}</MenuItem>
              <MenuItem key="out" @click="attempt(session.signOut).then(() => router.push('/'))">{{
                t('shell.DeskFrame.signOut')
              }}</MenuItem>
            </Menu>
          </template>
        </Dropdown>
      </div>
    </header>
    <main>
      <div v-if="day === undefined" class="empty">
        <b>{{ t('shell.DeskFrame.thatDayIsNotIn') }}</b>{{ t('shell.DeskFrame.chooseOneOfTheDays') }}
      </div>
      <RouterView v-else v-slot="{ Component }"
        ><component :is="Component" :key="day.ulid + String(route.name)"
      /></RouterView>
    </main>
    <TaskTray :open="tray" :tasks="tasks?.tasks ?? []" @close="tray = false" />
    <AccountDialog :open="account" @close="account = false" />
    <HelpCard :open="help" @close="help = false" />
    <DayWalk v-if="isWalking && day" @leave="isWalking = false" />
    <Modal
      :open="newDay !== null"
      :title="t('shell.DeskFrame.addAShootDay')"
      :ok-text="t('shell.DeskFrame.addTheDay')"
      width="360px"
      @ok="addDay"
      @cancel="newDay = null"
    >
      <label
        >{{ t('shell.DeskFrame.date') }} <input v-model="newDay" class="field" type="date" @keydown.enter="addDay"
      /></label>
    </Modal>
  </div>
</template>

<style scoped>
.desk {
  height: 100%;
  display: grid;
  grid-template: 52px minmax(0, 1fr) / 76px minmax(0, 1fr);
}
.spine {
  display: flex;
  flex-direction: column;
  grid-row: 1 / 3;
  background: var(--spine);
  border-right: 1px solid var(--rule-strong);
  overflow: hidden auto;
  scrollbar-width: none;
}
.mark {
  flex: none;
  height: 52px;
  display: flex;
  align-items: center;
  justify-content: center;
  font-weight: 700;
  font-size: 19px;
  color: var(--ink);
}
.tab {
  flex: none;
  height: 62px;
  margin: 0 -1px 6px 10px;
  border-radius: 8px 0 0 8px;
  background: var(--tab);
  border: 1px solid var(--rule-strong);
  border-right-color: transparent;
  display: flex;
  flex-direction: column;
  align-items: center;
  justify-content: center;
  font-size: 11px;
  color: var(--ink-soft);
  gap: 3px;
  padding-top: 6px;
  position: relative;
  margin-right: 0;
}
.tab.small {
  height: 40px;
  margin-top: auto;
}
.tab:first-of-type {
  margin-top: 12px;
}
.tab b {
  font-weight: 600;
  color: var(--ink);
}
.tab.on {
  background: var(--sheet);
  color: var(--act);
  margin-right: -1px;
}
.tab.on b {
  color: var(--act);
}
.tab kbd {
  position: absolute;
  left: 4px;
  top: 2px;
  border: 0;
  background: none;
  padding: 0;
  font-size: 10px;
  color: var(--ink-faint);
}
.tab:focus-visible {
  outline-offset: -3px;
}
.count {
  position: absolute;
  right: 2px;
  top: 2px;
  background: var(--fault);
  color: #fff;
  border-radius: 8px;
  font: 600 10px/15px 'IBM Plex Sans';
  padding: 0 5px;
}
header {
  display: flex;
  align-items: flex-end;
  gap: 12px;
  padding: 0 18px 0 20px;
  border-bottom: 1px solid var(--rule-strong);
  min-width: 0;
}
h1 {
  font-size: 17px;
  margin: 0 6px 13px 0;
  font-weight: 600;
  white-space: nowrap;
  max-width: 24ch;
  overflow: hidden;
  text-overflow: ellipsis;
  flex: none;
}
.days {
  display: flex;
  gap: 8px;
  min-width: 0;
  overflow: auto hidden;
  scrollbar-width: none;
  align-self: flex-end;
  margin-bottom: -1px;
}
.date {
  padding: 7px 14px 8px;
  border: 1px solid var(--rule-strong);
  border-bottom-color: var(--rule-strong);
  border-radius: 7px 7px 0 0;
  background: var(--tab);
  color: var(--ink-soft);
  font-size: 12px;
  cursor: pointer;
  white-space: nowrap;
  /* The tab that adds a day lies over the end of the strip. */
  scroll-margin-inline: 48px;
}
.date.on {
  background: var(--sheet);
  color: var(--ink);
  font-weight: 600;
  border-bottom-color: var(--sheet);
  padding-bottom: 9px;
}
.date.add {
  position: sticky;
  right: 0;
  flex: none;
}
.right {
  margin-left: auto;
  display: flex;
  gap: 10px;
  align-items: center;
  margin-bottom: 11px;
  flex: none;
}
.pill.busy,
.pill.tray {
  border: 0;
  cursor: pointer;
}
.busy {
  background: var(--info-soft);
  color: var(--info);
  max-width: 170px;
  overflow: hidden;
  text-overflow: ellipsis;
}
.me {
  background: var(--ink);
  color: #fff;
  border: 0;
  border-radius: 12px;
  height: 26px;
  min-width: 26px;
  font-weight: 700;
  font-size: 11px;
  cursor: pointer;
}
main {
  background: var(--sheet);
  min-height: 0;
  min-width: 0;
  overflow: hidden;
  position: relative;
}
/* At twice the size: the day that is open can still be read. */
@media (max-width: 860px) {
  header {
    gap: 8px;
    padding: 0 10px 0 12px;
  }
  h1 {
    max-width: 11ch;
    font-size: 15px;
  }
  .days {
    flex: 1 0 130px;
  }
  .right {
    gap: 6px;
  }
}
</style>
