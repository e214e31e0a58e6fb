<script setup lang="ts">
import { deskSays } from '@/words/desk'
import { t } from '@/words'
import { locale } from '@/words/language'
import { screening as screeningApi } from '@/api/endpoints/screening'
import { computed, nextTick, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { mediaUrl } from '@/api/client'
import { makeStale, useAnswer } from '@/api/queries'
import type { ReelSummary } from '@/api/types'
import { length } from '@/player/time'
import AnswerState from '@/shell/AnswerState.vue'
import { useDesk } from '@/shell/desk'
import { useShortcuts } from '@/shell/keys'
import { attempt, say } from '@/shell/say'
import SequenceFiles from '@/shell/SequenceFiles.vue'
import DarkRoom from './DarkRoom.vue'
import ReelDialog from './ReelDialog.vue'
import ReelLinks from './ReelLinks.vue'
import ReelSaid from './ReelSaid.vue'
import ReelTakes from './ReelTakes.vue'

/** The reels of a day, and all about the one that is chosen. */
const { production, day } = useDesk()
const route = useRoute()
const router = useRouter()
const { data, isPending, error, refetch } = useAnswer(() => screeningApi.reels(production.value.ulid, day.value.ulid))
const open = computed(() => (typeof route.query.reel === 'string' ? route.query.reel : null))
const chosen = ref<string | null>(null)
const reels = computed(() => data.value?.reels ?? [])
const at = computed(() => {
  const found = reels.value.findIndex((one) => one.ulid === chosen.value)
  return found < 0 ? 0 : found
})
const reel = computed<ReelSummary | undefined>(() => reels.value[at.value])
const { data: whole } = useAnswer(() =>
  open.value === null && reel.value !== undefined ? screeningApi.reel(production.value.ulid, reel.value.ulid) : null,
)
type Part = 'takes' | 'said' | 'links' | 'file'
const part = ref<Part>('takes')
const PARTS = computed<[Part, string][]>(() => [
  ['takes', t('screening.ScreeningPage.takes')],
  ['said', t('screening.ScreeningPage.notes')],
  ...(production.value.may.organise ? ([['links', t('screening.ScreeningPage.fromAfar')]] as [Part, string][]) : []),
  ['file', t('screening.ScreeningPage.asAFile')],
])
const building = ref(false)
const busy = ref(false)
const naming = ref<string | null>(null)
const nameBox = ref<HTMLInputElement | null>(null)

const clock = (moment: string | null) =>
  moment === null
    ? ''
    : new Date(moment).toLocaleString(locale, { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' })

async function buildAll(): Promise<void> {
  if (!production.value.may.organise || busy.value) return
  busy.value = true
  const made = await attempt(() => screeningApi.build(production.value.ulid, day.value.ulid, { circled_only: false }))
  busy.value = false
  if (made !== undefined) isMade(made.ulid)
}
function isMade(ulid: string): void {
  building.value = false
  chosen.value = ulid
  say(t('screening.ScreeningPage.theReelIsReady'))
  makeStale('sequences')
}

function watchReel(ulid: string | undefined): void {
  if (ulid === undefined) return
  // The browser lets a page fill the screen only while a key or click is being answered.
  void document.documentElement.requestFullscreen?.().catch(() => {})
  chosen.value = ulid
  void router.push({ query: { reel: ulid } })
}
async function leave(): Promise<void> {
  if (document.fullscreenElement !== null) await document.exitFullscreen().catch(() => {})
  await router.replace({ query: {} })
}
async function remove(one: ReelSummary | undefined): Promise<void> {
  if (one === undefined || !production.value.may.organise) return
  if ((await attempt(() => screeningApi.remove(production.value.ulid, one.ulid))) === undefined) return
  say(t('screening.ScreeningPage.isRemovedCtrlZBrings', [one.name]))
  makeStale('sequences')
}
function rename(): void {
  if (reel.value === undefined || !production.value.may.organise) return
  naming.value = reel.value.name
  void nextTick(() => nameBox.value?.select())
}
async function keepName(): Promise<void> {
  const [name, one] = [naming.value?.trim() ?? '', reel.value]
  naming.value = null
  if (one === undefined || name === '' || name === one.name) return
  await attempt(() => screeningApi.rename(production.value.ulid, one.ulid, name))
  makeStale('sequences')
}
watch(reel, () => (naming.value = null))

useShortcuts('Screening', [
  {
    keys: ['ArrowDown', 'ArrowUp'],
    what: t('screening.ScreeningPage.nextReelTheOneBefore'),
    run: (event) => {
      const next = reels.value[at.value + (event.key === 'ArrowDown' ? 1 : -1)]
      if (next !== undefined) chosen.value = next.ulid
    },
  },
  { keys: ['Enter'], what: t('screening.ScreeningPage.watchTheReel'), run: () => watchReel(reel.value?.ulid) },
  {
    keys: ['n'],
    what: t('screening.ScreeningPage.newReviewReel2'),
    run: () => (building.value = production.value.may.organise),
  },
  { keys: ['b'], what: t('screening.ScreeningPage.aReelOfAllTakes'), run: () => void buildAll() },
  { keys: ['F2'], what: t('screening.ScreeningPage.anotherNameForTheReel'), run: rename },
  { keys: ['Shift+Delete'], what: t('screening.ScreeningPage.removeTheReel'), run: () => void remove(reel.value) },
  {
    keys: ['[', ']'],
    what: t('screening.ScreeningPage.takesNotesFromAfarAs'),
    run: (event) => {
      const all = PARTS.value.map(([key]) => key)
      part.value = all[(all.indexOf(part.value) + (event.key === ']' ? 1 : -1) + all.length) % all.length]!
    },
  },
])
</script>

<template>
  <DarkRoom v-if="open !== null" :reel="open" @leave="leave" />
  <AnswerState v-else :pending="isPending" :error="error" @retry="refetch()">
    <div v-if="data" class="page">
      <div class="bar">
        <template v-if="production.may.organise">
          <button class="go" :title="t('screening.ScreeningPage.daysScenesOrABin')" @click="building = true">
            {{ t('screening.ScreeningPage.newReviewReel') }}
          </button>
          <button
            class="plain"
            :disabled="busy"
            :title="t('screening.ScreeningPage.everyTakeOfTheDay')"
            @click="buildAll"
          >
            {{ t('screening.ScreeningPage.allTakesOfTheDay') }}
          </button>
        </template>
        <span class="push soft">{{ t('screening.ScreeningPage.inAndOutPointsOn') }}</span>
      </div>
      <div v-if="reels.length === 0" class="empty">
        <b>{{ t('screening.ScreeningPage.noReelOfThisDay') }}</b>{{
          production.may.organise
            ? t('screening.ScreeningPage.buildOneOfTheCircled')
            : t('screening.ScreeningPage.anAssistantOrEditorBuilds')
        }}
      </div>
      <div v-else class="both">
        <ul class="reels" :aria-label="t('screening.ScreeningPage.reelsOfTheDay')">
          <li
            v-for="(one, index) in reels"
            :key="one.ulid"
            :class="{ on: index === at }"
            :aria-current="index === at"
            @click="chosen = one.ulid"
          >
            <button
              class="still"
              :aria-label="t('screening.ScreeningPage.watch', [one.name])"
              @click.stop="watchReel(one.ulid)"
            >
              <img v-if="one.first_clip" :src="mediaUrl(production.ulid, one.first_clip, 'thumb-3')" alt="" /><span
                >▶</span
              >
            </button>
            <div>
              <b :title="one.name">{{ one.name }}</b>
              <p class="soft">
                {{ deskSays(one.shows) }} · <span class="mono">{{ length(one.running_ticks) }}</span> ·
                {{ clock(one.made_at) }}
              </p>
              <p class="soft of-what">
                {{ one.of === '' ? '' : `${deskSays(one.of)}: ` }}{{ one.words.split(', ').map(deskSays).join(', ') }}
              </p>
              <p v-if="one.changed" class="soft">
                {{ t('screening.ScreeningPage.builtAgain', [clock(one.changed_at), one.changed]) }}
              </p>
              <p v-if="one.links > 0" class="soft">
                {{
                  t('screening.ScreeningPage.open', [
                    one.links,
                    one.links === 1 ? t('screening.ScreeningPage.linkIs') : t('screening.ScreeningPage.linksAre'),
                  ])
                }}
              </p>
            </div>
          </li>
        </ul>
        <section v-if="reel" class="reel">
          <header>
            <form v-if="naming !== null" class="name" @submit.prevent="keepName">
              <input
                ref="nameBox"
                v-model="naming"
                class="say"
                maxlength="120"
                :aria-label="t('screening.ScreeningPage.nameOfTheReel')"
                @blur="keepName"
                @keydown.esc.stop="naming = null"
              />
            </form>
            <h2 v-else :title="reel.name">{{ reel.name }}</h2>
            <button class="go" @click="watchReel(reel.ulid)">
              {{ t('screening.ScreeningPage.watch2') }} <kbd>↵</kbd>
            </button>
            <template v-if="production.may.organise">
              <button class="plain" :title="t('screening.ScreeningPage.anotherNameF2')" @click="rename">
                {{ t('screening.ScreeningPage.rename') }}
              </button>
              <button
                class="plain"
                :title="t('screening.ScreeningPage.removeTheReelShiftDelete')"
                @click="remove(reel)"
              >
                {{ t('screening.ScreeningPage.remove') }}
              </button>
            </template>
          </header>
          <nav class="parts" role="tablist">
            <button
              v-for="[key, title] in PARTS"
              :key="key"
              role="tab"
              :aria-selected="part === key"
              :class="{ on: part === key }"
              @click="part = key"
            >
              {{ title }}
            </button>
          </nav>
          <div class="of">
            <ReelTakes
              v-if="part === 'takes' && whole"
              :key="whole.ulid"
              :production="production.ulid"
              :reel="whole"
              :may-change="production.may.organise"
              @watch="watchReel(reel.ulid)"
            />
            <ReelSaid v-else-if="part === 'said'" :production="production.ulid" :reel="reel.ulid" />
            <ReelLinks v-else-if="part === 'links'" :key="reel.ulid" :production="production.ulid" :reel="reel.ulid" />
            <SequenceFiles
              v-else-if="part === 'file'"
              :production="production.ulid"
              :reel="reel.ulid"
              :may-export="production.may.organise"
            />
          </div>
        </section>
      </div>
      <ReelDialog :open="building" @close="building = false" @made="isMade" />
    </div>
  </AnswerState>
</template>

<style scoped>
.page {
  height: 100%;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  background: var(--dark);
  color: var(--on-dark);
}
.bar {
  border-color: var(--dark-rule);
}
.page :deep(.soft) {
  color: var(--on-dark-soft);
}
.page :deep(.empty) {
  color: var(--on-dark-soft);
}
.page :deep(.empty b) {
  color: var(--on-dark);
}
.plain {
  background: var(--dark-2);
  color: var(--on-dark);
  border-color: #4a545b;
}
.both {
  display: grid;
  grid-template-columns: minmax(330px, 5fr) minmax(420px, 7fr);
  min-height: 0;
}
.reels {
  list-style: none;
  margin: 0;
  padding: 12px 12px 12px 18px;
  overflow: auto;
  display: grid;
  gap: 10px;
  align-content: start;
}
.reels li {
  display: grid;
  grid-template-columns: 112px minmax(0, 1fr);
  gap: 14px;
  align-items: start;
  background: var(--dark-2);
  border: 1px solid var(--dark-rule);
  border-radius: 8px;
  padding: 9px 12px 9px 9px;
  cursor: pointer;
}
.reels li.on {
  border-color: #6dbfa6;
}
.reels b {
  font-size: 15px;
  font-weight: 600;
  display: block;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.reels p {
  margin: 1px 0 0;
  font-size: 12px;
}
.of-what::first-letter {
  text-transform: uppercase;
}
.still {
  position: relative;
  border: 0;
  padding: 0;
  width: 112px;
  aspect-ratio: 16 / 9;
  border-radius: 5px;
  overflow: hidden;
  background: #000;
  cursor: pointer;
}
.still img {
  width: 100%;
  height: 100%;
  object-fit: cover;
  display: block;
}
.still span {
  position: absolute;
  inset: 0;
  display: grid;
  place-items: center;
  color: #fff;
  font-size: 20px;
  text-shadow: 0 1px 6px #000;
}
.reel {
  min-width: 0;
  min-height: 0;
  display: grid;
  grid-template-rows: auto auto minmax(0, 1fr);
  border-left: 1px solid var(--dark-rule);
}
.reel header {
  display: flex;
  gap: 8px;
  align-items: center;
  padding: 12px 18px 8px;
}
h2 {
  flex: 1;
  margin: 0;
  font-size: 18px;
  font-weight: 600;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.name {
  flex: 1;
}
.say {
  width: 100%;
  background: var(--dark);
  color: var(--on-dark);
  border: 1px solid #5b666d;
  border-radius: 5px;
  padding: 4px 8px;
  font: inherit;
}
.parts {
  display: flex;
  gap: 18px;
  padding: 0 18px;
  border-bottom: 1px solid var(--dark-rule);
}
.parts button {
  border: 0;
  background: none;
  color: var(--on-dark-soft);
  padding: 5px 0;
  border-bottom: 2px solid transparent;
  cursor: pointer;
}
.parts button.on {
  color: var(--on-dark);
  border-bottom-color: #6dbfa6;
}
.of {
  overflow: auto;
  padding: 12px 18px;
  scrollbar-width: thin;
  scrollbar-color: #4a545b transparent;
}
@media (max-width: 860px) {
  .both {
    grid-template-columns: minmax(0, 2fr) minmax(0, 3fr);
  }
  .reels {
    padding: 10px;
  }
  .reels li {
    grid-template-columns: minmax(0, 1fr);
  }
  .reel header {
    flex-wrap: wrap;
  }
}
</style>
