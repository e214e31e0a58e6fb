<script setup lang="ts">
import { t } from '@/words'
import { Modal } from 'ant-design-vue'
import { useSessionStorage } from '@vueuse/core'
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { assembly } from '@/api/endpoints/assembly'
import { words as wordsApi } from '@/api/endpoints/words'
import { makeStale, useAnswer } from '@/api/queries'
import type { Cut, Event } from '@/api/types'
import { length } from '@/player/time'
import AnswerState from '@/shell/AnswerState.vue'
import DeviceBadge from '@/shell/DeviceBadge.vue'
import { useDesk } from '@/shell/desk'
import { useSoFar } from '@/shell/soFar'
import { useShortcuts } from '@/shell/keys'
import { attempt, say } from '@/shell/say'
import CutDesk from './CutDesk.vue'
import { placeOf, still, type OpenCut } from './openCuts'
import PlanDialog from './PlanDialog.vue'
import WallPage from './WallPage.vue'

/** Cuts, string-outs, and what several cameras saw at once; one of them open. */
const { production, day } = useDesk()
const route = useRoute()
const router = useRouter()
const asked = (name: string) => (typeof route.query[name] === 'string' ? String(route.query[name]) : null)
const cut = computed(() => asked('cut'))
const wall = computed(() => asked('wall'))
const mayCut = computed(() => production.value.may.organise)
const isOpen = computed(() => cut.value !== null || wall.value !== null)
const { data, isPending, error, refetch } = useAnswer(() => wordsApi.cuts(production.value.ulid))
const {
  data: events,
  isPending: eventsPending,
  error: eventsError,
  refetch: refetchEvents,
} = useAnswer(() => assembly.events(production.value.ulid, day.value.ulid))
const KINDS: Record<string, string> = {
  cut: t('assembly.AssemblyPage.cut'),
  string_out: t('assembly.AssemblyPage.stringOut'),
  angle_cut: t('assembly.AssemblyPage.betweenAngles'),
}
const cuts = computed(() => data.value?.cuts ?? [])
const lying = useSessionStorage<OpenCut[]>(placeOf(production.value.ulid), [])
watch(cuts, (now) => {
  // What is here may be newer than the list.
  const here = [cut.value, wall.value].filter((one) => one !== null)
  lying.value = still(lying.value, [...now.map((one) => one.ulid), ...here])
})
const at = ref(0)
const { soFar, rest } = useSoFar(cuts, at)
const list = useTemplateRef<HTMLElement>('list')

function open(one: Pick<Cut, 'ulid' | 'kind'>): void {
  void router.push({ query: one.kind === 'angle_cut' ? { wall: one.ulid } : { cut: one.ulid } })
}
const making = ref<string | null>(null)
const nameBox = useTemplateRef<HTMLInputElement>('nameBox')
function ask(): void {
  if (!mayCut.value) return
  making.value = ''
  void nextTick(() => nameBox.value?.focus())
}
async function make(): Promise<void> {
  const name = (making.value ?? '').trim()
  making.value = null
  if (name === '') return
  const done = await attempt(() => wordsApi.makeCut(production.value.ulid, name))
  if (done === undefined) return
  makeStale('sequences')
  open({ ulid: done.ulid, kind: 'cut' })
}
const laying = ref<{ of: 'circled' | 'keyword'; scene: string; keyword: string } | null>(null)
const { data: script } = useAnswer(() =>
  laying.value === null ? null : wordsApi.script(production.value.ulid, '', null),
)
const choice = useTemplateRef<HTMLSelectElement>('choice')
/** By the keyboard: a letter or an arrow chooses the scene, Enter lays it. */
function askWhat(): void {
  if (!mayCut.value) return
  laying.value = { of: 'circled', scene: '', keyword: '' }
  void nextTick(() => choice.value?.focus())
}
const isLaying = ref(false)
async function lay(): Promise<void> {
  const now = laying.value
  if (now === null || isLaying.value) return
  isLaying.value = true
  const done = await attempt(() =>
    assembly.stringOut(
      production.value.ulid,
      now.of === 'circled'
        ? { of: 'circled', scene: now.scene === '' ? null : now.scene }
        : { of: 'keyword', keyword: now.keyword },
    ),
  )
  isLaying.value = false
  if (done === undefined) return
  laying.value = null
  makeStale('sequences')
  const left = done.left.length > 0 ? t('assembly.AssemblyPage.withoutPictureOrSoundAnd', [done.left.join(', ')]) : ''
  say(t('assembly.AssemblyPage.isLaid', [done.name, left]))
  open({ ulid: done.ulid, kind: 'string_out' })
}
async function begin(event: Event): Promise<void> {
  const done = await attempt(() => assembly.begin(production.value.ulid, day.value.ulid, event.key))
  if (done === undefined) return
  makeStale('sequences')
  open({ ulid: done.ulid, kind: 'angle_cut' })
}
async function remove(one: Cut): Promise<void> {
  if ((await attempt(() => assembly.remove(production.value.ulid, one.ulid))) === undefined) return
  say(t('assembly.AssemblyPage.isOffTheListCtrl', [one.name]))
  makeStale('sequences')
}
const plan = ref(false)
function step(by: number): void {
  at.value = Math.max(0, Math.min(cuts.value.length - 1, at.value + by))
  void nextTick(() => list.value?.querySelector('.on')?.scrollIntoView({ block: 'nearest' }))
}
const alone =
  <T extends unknown[]>(run: (...all: T) => void) =>
  (...all: T): void => {
    if (!isOpen.value) run(...all)
  }
useShortcuts('Cuts', [
  {
    keys: ['ArrowUp', 'ArrowDown'],
    what: t('assembly.AssemblyPage.theCutAboveBelow'),
    run: alone((event) => step(event.key === 'ArrowUp' ? -1 : 1)),
  },
  {
    keys: ['Enter'],
    what: t('assembly.AssemblyPage.openIt'),
    run: alone(() => cuts.value[at.value] !== undefined && open(cuts.value[at.value]!)),
  },
  { keys: ['+'], what: t('assembly.AssemblyPage.aNewCut'), run: alone(ask) },
  {
    keys: ['a'],
    what: t('assembly.AssemblyPage.layAStringOut'),
    run: alone(askWhat),
  },
])
const leave = () => void router.push({ query: {} })
</script>

<template>
  <CutDesk v-if="cut !== null" :key="cut" :cut="cut" @leave="leave" />
  <WallPage v-else-if="wall !== null" :key="wall" :cut="wall" @leave="leave" />
  <div v-else class="page">
    <section>
      <div class="bar">
        <h2>{{ t('assembly.AssemblyPage.cuts') }}</h2>
        <template v-if="mayCut">
          <button class="plain" @click="ask">{{ t('assembly.AssemblyPage.newCut') }} <kbd>+</kbd></button>
          <button class="plain" @click="askWhat">{{ t('assembly.AssemblyPage.layAStringOut') }} <kbd>A</kbd></button>
          <button class="plain push" @click="plan = true">{{ t('assembly.AssemblyPage.tracksOfNewCuts') }}</button>
        </template>
      </div>
      <AnswerState :pending="isPending" :error="error" @retry="refetch()">
        <div v-if="cuts.length === 0" class="empty">
          <b>{{ t('assembly.AssemblyPage.nothingIsCutYet') }}</b>
          <template v-if="mayCut"
            >{{ t('assembly.AssemblyPage.aStringOutOfThe') }}<br />
            <button class="plain" @click="askWhat">
              {{ t('assembly.AssemblyPage.layOne') }}
            </button></template
          ><template v-else>{{ t('assembly.AssemblyPage.theAssistantsAndTheEditors') }}</template>
        </div>
        <div v-else ref="list" class="list" role="list" :aria-label="t('assembly.AssemblyPage.cuts')">
          <div
            v-for="(one, index) in soFar"
            :key="one.ulid"
            role="listitem"
            class="row"
            :class="{ on: at === index }"
            :aria-current="at === index"
            @click="at = index"
            @dblclick="open(one)"
          >
            <button class="name" data-row :title="one.name" @click="open(one)">{{ one.name }}</button>
            <span class="soft">{{ KINDS[one.kind] ?? one.kind }}</span>
            <span class="mono">{{ length(one.duration_ticks) }}</span>
            <button
              v-if="mayCut"
              class="plain"
              :aria-label="t('assembly.AssemblyPage.remove', [one.name])"
              @click.stop="remove(one)"
            >
              {{ t('assembly.AssemblyPage.remove2') }}
            </button>
          </div>
          <p v-if="rest > 0" ref="end" class="soft">{{ t('shell.soFar.more', [rest]) }}</p>
        </div>
      </AnswerState>
    </section>
    <section class="events">
      <div class="bar">
        <h2>{{ t('assembly.AssemblyPage.seenBySeveralCamerasDay', [day.number]) }}</h2>
      </div>
      <AnswerState :pending="eventsPending" :error="eventsError" @retry="refetchEvents()">
        <p v-if="events && events.events.length === 0" class="soft nothing">
          {{ t('assembly.AssemblyPage.nothingOfThisDayIs') }}
          <RouterLink class="plain" :to="{ name: 'lineup', params: route.params }">{{
            t('assembly.AssemblyPage.lineItUp')
          }}</RouterLink>
        </p>
        <div v-else-if="events" class="list">
          <div v-for="event in events.events" :key="event.key" class="row">
            <b class="mono slate">{{ event.label }}</b>
            <span class="name soft" :title="event.description">{{ event.description }}</span>
            <span class="badges"><DeviceBadge v-for="letter in event.letters" :key="letter" :letter="letter" /></span>
            <span class="mono">{{ length(event.to - event.from) }}</span>
            <button v-if="mayCut" class="plain" @click="begin(event)">
              {{ t('assembly.AssemblyPage.cutBetweenAngles') }}
            </button>
          </div>
        </div>
      </AnswerState>
    </section>
    <Modal
      :open="making !== null"
      :title="t('assembly.AssemblyPage.aNewCut')"
      :ok-text="t('assembly.AssemblyPage.makeIt')"
      @cancel="making = null"
      @ok="make"
    >
      <form @submit.prevent="make">
        <label
          >{{ t('assembly.AssemblyPage.name') }}
          <input
            ref="nameBox"
            :value="making"
            class="field wide"
            maxlength="120"
            @input="making = ($event.target as HTMLInputElement).value"
        /></label>
      </form>
    </Modal>
    <Modal
      :open="laying !== null"
      :title="t('assembly.AssemblyPage.layAStringOut')"
      :ok-text="t('assembly.AssemblyPage.layIt')"
      :confirm-loading="isLaying"
      @cancel="laying = null"
      @ok="lay"
    >
      <form v-if="laying" class="dialog" @submit.prevent="lay">
        <label
          ><input v-model="laying.of" type="radio" value="circled" />
          {{ t('assembly.AssemblyPage.circledTakesInTheScripts') }}</label
        >
        <label v-if="laying.of === 'circled'" class="in"
          >{{ t('assembly.AssemblyPage.of') }}
          <select ref="choice" v-model="laying.scene" class="field" @keydown.enter.prevent="lay">
            <option value="">{{ t('assembly.AssemblyPage.allScenes') }}</option>
            <option v-for="one in script?.scenes ?? []" :key="one" :value="one">
              {{ t('assembly.AssemblyPage.scene', [one]) }}
            </option>
          </select></label
        >
        <label
          ><input v-model="laying.of" type="radio" value="keyword" />
          {{ t('assembly.AssemblyPage.takesWithAKeyword') }}</label
        >
        <label v-if="laying.of === 'keyword'" class="in"
          ><input
            v-model="laying.keyword"
            class="field"
            maxlength="80"
            :placeholder="t('assembly.AssemblyPage.gulls')"
            :aria-label="t('assembly.AssemblyPage.keyword')"
        /></label>
        <p class="soft">
          {{ t('assembly.AssemblyPage.allReadsOfOneLine') }}
        </p>
      </form>
    </Modal>
    <PlanDialog :open="plan" @close="plan = false" />
  </div>
</template>

<style scoped>
.page {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  grid-template-rows: minmax(0, 3fr) minmax(0, 2fr);
  height: 100%;
  min-height: 0;
}
section {
  display: flex;
  flex-direction: column;
  min-height: 0;
}
.events {
  border-top: 1px solid var(--rule-strong);
  background: var(--sheet-2);
}
.list {
  overflow: auto;
  padding: 4px 18px 16px;
}
.row {
  display: flex;
  gap: 14px;
  align-items: center;
  padding: 5px 8px;
  border-bottom: 1px solid var(--rule);
  border-left: 3px solid transparent;
}
.row.on {
  border-left-color: var(--act);
  background: var(--sheet-2);
}
.name {
  flex: 1;
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  text-align: left;
}
button.name {
  border: 0;
  background: none;
  cursor: pointer;
  font-weight: 600;
}
.slate {
  min-width: 56px;
}
.badges {
  display: flex;
  gap: 4px;
}
.nothing {
  padding: 8px 18px;
}
.dialog {
  display: grid;
  gap: 8px;
}
.in {
  padding-left: 22px;
}
.wide {
  width: 100%;
}
@media (max-width: 860px) {
  .bar,
  .row {
    flex-wrap: wrap;
  }
}
</style>
