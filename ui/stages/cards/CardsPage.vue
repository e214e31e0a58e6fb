<script setup lang="ts">
import { counted, t, valueWord } from '@/words'
import { away } from '@/api/endpoints/away'
import { cards as cardsApi } from '@/api/endpoints/cards'
import { imports } from '@/api/endpoints/imports'
import { Dropdown, Modal } from 'ant-design-vue'
import { computed, nextTick, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { reportUrl } from '@/api/client'
import { makeStale, useAnswer } from '@/api/queries'
import type { AwayCard, Card } from '@/api/types'
import { bytes } from '@/words/amounts'
import AnswerState from '@/shell/AnswerState.vue'
import { useDesk } from '@/shell/desk'
import { useSoFar } from '@/shell/soFar'
import { useShortcuts } from '@/shell/keys'
import { attempt, say } from '@/shell/say'
import TakeAwayDialog, { type Leaving } from '@/shell/TakeAwayDialog.vue'
import CardPanel from './CardPanel.vue'
import CardTile from './CardTile.vue'
import ClipCheckStrip from './ClipCheckStrip.vue'
import PlaceDialog from './PlaceDialog.vue'
import { weightOf } from './tile'
import VolumePanel from './VolumePanel.vue'
import VolumeTile from './VolumeTile.vue'

/** What the server asks to be typed. */
const ONE_DISK = t('cards.CardsPage.oneDisk')

const { production, day } = useDesk()
const route = useRoute()
const router = useRouter()
const { data, isPending, error, refetch } = useAnswer(() => cardsApi.stage(production.value.ulid, day.value.ulid), {
  poll: 2000,
})

const chosen = ref<{ kind: 'volume' | 'card'; key: string } | null>(null)
const releasing = ref<Card | null>(null)
/** Typed by hand where both copies lie on one disk; it goes into the record. */
const words = ref('')
const wordsBox = ref<HTMLInputElement | null>(null)
/** Keys of the volumes that cards are copied to now; null is all of them. */
const to = ref<string[] | null>(null)
const placing = ref(false)
const roll = ref('')
const device = ref('')

const cards = computed(() => [...(data.value?.cards ?? [])].sort((x, y) => weightOf(x) - weightOf(y)))
const { soFar, rest } = useSoFar(cards, () => cards.value.findIndex((one) => one.ulid === chosen.value?.key))
const tiles = computed(() => [
  ...(data.value?.volumes ?? []).map((one) => ({ kind: 'volume' as const, key: one.name })),
  ...cards.value.map((one) => ({ kind: 'card' as const, key: one.ulid })),
])
watch(
  [data, () => route.query.card],
  () => {
    const asked = tiles.value.find((place) => place.key === route.query.card)
    if (asked !== undefined && chosen.value?.key !== asked.key) chosen.value = asked
    if (chosen.value === null || !tiles.value.some((place) => place.key === chosen.value?.key)) {
      // What was a volume a moment ago is a card now; the person still looks at the same thing.
      const became = data.value?.cards.find((card) => card.volume === chosen.value?.key)
      chosen.value = became ? { kind: 'card', key: became.ulid } : (tiles.value[0] ?? null)
    }
  },
  { immediate: true },
)

const card = computed(() =>
  chosen.value?.kind === 'card' ? data.value?.cards.find((one) => one.ulid === chosen.value?.key) : undefined,
)
const volume = computed(() =>
  chosen.value?.kind === 'volume' ? data.value?.volumes.find((one) => one.name === chosen.value?.key) : undefined,
)

const safe = computed(
  () =>
    (data.value?.cards ?? []).filter(
      (one) => one.is_safe && !one.is_dropped && !one.is_one_disk && one.released_at === null,
    ).length,
)
const oneDisk = computed(
  () =>
    (data.value?.cards ?? []).filter((one) => one.is_one_disk && !one.is_dropped && one.released_at === null).length,
)
const places = computed(() => to.value?.length ?? data.value?.stores.length ?? 0)
const toPlaces = computed(
  () => `${places.value} ${places.value === 1 ? t('cards.CardsPage.place') : t('cards.CardsPage.places')}`,
)
function choose(place: { kind: 'volume' | 'card'; key: string }): void {
  chosen.value = place
  void nextTick(() => document.querySelector('.card.on')?.scrollIntoView({ block: 'nearest' }))
  if (route.query.card !== undefined) void router.replace({ query: {} })
}
const total = computed(() =>
  (data.value?.cards ?? []).reduce((sum, one) => sum + (one.verified_at === null ? 0 : one.size_bytes), 0),
)

async function send(name: string, as: string, letter: string, compare = false): Promise<boolean> {
  return (
    (await attempt(() =>
      cardsApi.offload(production.value.ulid, day.value.ulid, name, {
        roll: as,
        device: letter === '' ? null : letter,
        compare,
        to: to.value,
      }),
    )) !== undefined
  )
}
async function offload(name: string, as: string, letter: string, compare = false): Promise<void> {
  if (!(await send(name, as, letter, compare))) return
  say(
    compare
      ? t('cards.CardsPage.isReadAgainAndCompared', [as])
      : t('cards.CardsPage.isOnItsWayTo', [as, toPlaces.value]),
  )
  makeStale('cards')
}

/** What "all" means, as the server says it: surely of this day, of a known device, and nobody else's. */
const ours = computed(() => (data.value?.volumes ?? []).filter((one) => one.in_all))
const asking = computed(
  () => (data.value?.volumes ?? []).filter((one) => one.ask !== null && one.state !== 'seen').length,
)
const elsewhere = computed(() => (data.value?.volumes ?? []).filter((one) => one.state !== 'seen').length)
const running = computed(() => (data.value?.cards ?? []).filter((one) => one.task?.kind === 'offload'))

function toggle(key: string): void {
  const all = (data.value?.stores ?? []).map((one) => one.key)
  const next = (to.value ?? all).includes(key)
    ? (to.value ?? all).filter((one) => one !== key)
    : [...(to.value ?? all), key]
  if (next.length > 0) to.value = next.length === all.length ? null : next
}
async function offloadAll(): Promise<void> {
  const answer = await attempt(() => cardsApi.offloadAll(production.value.ulid, day.value.ulid, { to: to.value }))
  makeStale('cards')
  if (answer === undefined) return
  const sent = answer.started.length
  if (sent > 0)
    say(
      t('cards.CardsPage.wayTo', [
        sent,
        sent === 1 ? t('cards.CardsPage.cardIsOnIts') : t('cards.CardsPage.cardsAreOnTheir'),
        toPlaces.value,
      ]),
    )
  const first = answer.asked[0]
  if (first !== undefined) {
    choose({ kind: 'volume', key: first.name })
    if (sent === 0) say(`${first.name}: ${first.why}`)
  }
}

function startRelease(one: Card): void {
  words.value = ''
  releasing.value = one
  if (one.is_one_disk) void nextTick(() => wordsBox.value?.focus())
}
async function release(): Promise<void> {
  const one = releasing.value
  if (one === null || (one.is_one_disk && words.value.trim().toLowerCase() !== ONE_DISK)) return
  releasing.value = null
  const answer = await attempt(() =>
    cardsApi.release(production.value.ulid, one.ulid, { words: one.is_one_disk ? words.value : null }),
  )
  if (answer !== undefined)
    say(
      answer.released_at === null
        ? t('cards.CardsPage.bothCopiesOfAreLooked', [one.roll])
        : t('cards.CardsPage.isReleasedItMayBe', [one.roll]),
    )
  makeStale('cards')
}

async function claim(name: string, ours: boolean): Promise<void> {
  if ((await attempt(() => (ours ? cardsApi.claim : cardsApi.giveBack)(production.value.ulid, name))) !== undefined)
    say(
      ours
        ? t('cards.CardsPage.isACardOfNow', [name, production.value.name])
        : t('cards.CardsPage.isGivenBackWhoeverIt', [name]),
    )
  makeStale('cards')
}

async function verifyAgain(): Promise<void> {
  const one = card.value
  if (
    one === undefined ||
    (one.task !== null && one.task.kind !== 'catalogue') ||
    one.copies.length === 0 ||
    !production.value.may.work
  )
    return
  if ((await attempt(() => cardsApi.verify(production.value.ulid, one.ulid))) !== undefined)
    say(t('cards.CardsPage.everyCopyOfIsRead', [one.roll]))
  makeStale('cards')
}

const KINDS = {
  camera: t('cards.CardsPage.camera'),
  recorder: t('cards.CardsPage.recorder'),
  phone: t('cards.CardsPage.phone'),
  other: t('cards.CardsPage.device'),
}
const deviceTitle = (letter: string | null) => {
  const found = production.value.devices.find((one) => one.letter === letter)
  return found === undefined
    ? t('cards.CardsPage.folderOfImports')
    : `${KINDS[found.kind]} ${letter}${found.note === '' || found.kind === 'recorder' ? '' : ` · ${found.note}`}`
}

function toDay(number: number): void {
  const other = production.value.days.find((one) => one.number === number)
  if (other !== undefined)
    void router.push({ name: 'cards', params: { production: production.value.ulid, day: other.ulid } })
}

function move(step: number): void {
  const at = tiles.value.findIndex((place) => place.key === chosen.value?.key)
  const next = tiles.value[Math.max(0, Math.min(tiles.value.length - 1, at + step))]
  if (next !== undefined) choose(next)
}
/** Files that were dropped on a page lie here until they are whole on the volumes. */
async function copyAgain(upload: string): Promise<void> {
  await attempt(() => imports.copy(production.value.ulid, upload))
  makeStale('cards')
}
const leaving = ref<Leaving | null>(null)
function takeAway(): void {
  const one = card.value
  if (one === undefined || !production.value.may.work || (one.task !== null && one.task.kind !== 'catalogue')) return
  leaving.value = { card: one.ulid, name: one.roll }
}
async function bringBack(one: AwayCard): Promise<void> {
  if ((await attempt(() => away.back(production.value.ulid, one.ulid))) !== undefined)
    say(t('cards.CardsPage.isHereAgain', [one.roll]))
  makeStale('cards')
  makeStale('clips')
}
/** The one thing to do next with a card. */
function actOn(one: Card): void {
  if (one.is_safe && one.released_at === null && !one.is_dropped) startRelease(one)
  else if (one.upload !== null && (one.state === 'fault' || one.state === 'stopped')) void copyAgain(one.upload)
  else if (one.on_bench && (one.state === 'fault' || one.state === 'stopped'))
    void offload(one.volume, one.roll, one.device ?? '')
}
function act(): void {
  if (!production.value.may.work) return
  if (volume.value !== undefined)
    void offload(volume.value.name, roll.value, device.value, volume.value.state === 'seen')
  else if (card.value !== undefined && (card.value.task === null || card.value.task.kind === 'catalogue'))
    actOn(card.value)
}

useShortcuts('Cards', [
  {
    keys: ['ArrowRight', 'ArrowLeft', 'ArrowDown', 'ArrowUp'],
    what: t('cards.CardsPage.nextCardTheOneBefore'),
    run: (event) => move(event.key === 'ArrowRight' || event.key === 'ArrowDown' ? 1 : -1),
  },
  { keys: ['Enter'], what: t('cards.CardsPage.offloadTryAgainOrRelease'), run: act },
  {
    keys: ['w'],
    what: t('cards.CardsPage.whereCardsLand'),
    run: () => {
      placing.value = production.value.may.work
    },
  },
  { keys: ['v'], what: t('cards.CardsPage.verifyTheCopiesAgain'), run: () => void verifyAgain() },
  { keys: ['x'], what: t('cards.CardsPage.takeTheCardAway'), run: takeAway },
  {
    keys: ['a'],
    what: t('cards.CardsPage.offloadEverythingOnTheBench'),
    run: () => production.value.may.work && void offloadAll(),
  },
])
</script>

<template>
  <AnswerState :pending="isPending" :error="error" @retry="refetch()">
    <div v-if="data" class="split">
      <section class="bench">
        <div class="bar">
          <button
            v-if="production.may.work && ours.length > 0"
            class="go first"
            :title="t('cards.CardsPage.offloadEverythingThatIsNew')"
            @click="offloadAll"
          >
            {{
              t('cards.CardsPage.offload', [
                ours.length === 1 ? ours[0]?.name : t('cards.CardsPage.allCards', [ours.length]),
              ])
            }}
            <kbd>A</kbd>
          </button>
          <span v-if="ours.length > 0" class="soft">{{ t('cards.CardsPage.toVerified', [toPlaces]) }}</span>
          <span v-else-if="asking > 0" class="soft">{{
            t('cards.CardsPage.somethingFirst', [
              asking,
              asking === 1 ? t('cards.CardsPage.cardAsks') : t('cards.CardsPage.cardsAsk'),
            ])
          }}</span>
          <span v-else-if="running.length > 0" class="soft">{{
            t('cards.CardsPage.comingIn', [
              running.length,
              running.length === 1 ? t('cards.CardsPage.cardIs') : t('cards.CardsPage.cardsAre'),
            ])
          }}</span>
          <span v-else-if="elsewhere > 0" class="soft">{{
            t('cards.CardsPage.ofAnotherDayInThe', [
              elsewhere,
              elsewhere === 1 ? t('cards.CardsPage.card') : t('cards.CardsPage.cards'),
            ])
          }}</span>
          <span v-else class="soft">{{ t('cards.CardsPage.nothingNewInTheReaders') }}</span>
          <Dropdown v-if="production.may.work && data.stores.length > 1" :trigger="['click']">
            <button class="plain" :class="{ set: to !== null }">
              {{
                to === null
                  ? t('cards.CardsPage.toAllVolumes')
                  : t('cards.CardsPage.to', [
                      data.stores
                        .filter((one) => to?.includes(one.key))
                        .map((one) => one.name)
                        .join(', '),
                    ])
              }}
              ▾
            </button>
            <template #overlay>
              <div class="menu" role="group" :aria-label="t('cards.CardsPage.volumesThatCardsAreCopied')">
                <label v-for="one in data.stores" :key="one.key"
                  ><input type="checkbox" :checked="to === null || to.includes(one.key)" @change="toggle(one.key)" />
                  {{ one.name }}
                  <span class="soft">{{
                    one.is_there
                      ? t('cards.CardsPage.free', [bytes(one.free_bytes ?? 0)])
                      : t('cards.CardsPage.notThere')
                  }}</span></label
                >
              </div>
            </template>
          </Dropdown>
          <span class="push soft"
            >{{ t('cards.CardsPage.inOnThisDay', [bytes(total)]) }}
            <b :class="{ good: safe > 0 }">{{
              t('cards.CardsPage.safeToRelease', [
                safe,
                safe === 1 ? t('cards.CardsPage.card') : t('cards.CardsPage.cards'),
              ])
            }}</b><template v-if="oneDisk > 0">
              ·
              <b class="warn" :title="t('cards.CardsPage.bothCopiesOfACard')">{{
                t('cards.CardsPage.onOneDiskOnly', [oneDisk])
              }}</b></template
            ></span
          >
        </div>
        <div class="cards">
          <VolumeTile
            v-for="one in data.volumes"
            :key="one.name"
            :volume="one"
            :title="deviceTitle(one.device)"
            :may="production.may.work"
            :chosen="chosen?.key === one.name"
            :other-day="one.day !== null && one.day !== day.number"
            @choose="choose({ kind: 'volume', key: one.name })"
            @act="offload(one.name, one.roll, one.device ?? '')"
          />
          <CardTile
            v-for="one in soFar"
            :key="one.ulid"
            :card="one"
            :title="deviceTitle(one.device)"
            :may="production.may.work"
            :chosen="chosen?.key === one.ulid"
            @choose="choose({ kind: 'card', key: one.ulid })"
            @act="actOn(one)"
          />
          <div v-if="rest > 0" ref="end" class="slot">{{ t('shell.soFar.more', [rest]) }}</div>
          <div class="slot">
            {{ t('cards.CardsPage.putTheNextCardIn') }}<br />{{ t('cards.CardsPage.itShowsUpHereBy')
            }}<a v-if="data.panel" :href="data.panel" target="_blank" rel="noopener">{{
              t('cards.CardsPage.standInBench')
            }}</a>
          </div>
        </div>
        <p v-for="one in data.away" :key="one.ulid" class="gone soft">
          <span class="mono">{{ one.roll }}</span>
          {{
            t('cards.CardsPage.wasTakenAwayWith', [
              one.clips,
              one.clips === 1 ? t('cards.CardsPage.clip') : t('cards.CardsPage.clips'),
            ])
          }}
          <button v-if="production.may.work" class="plain" @click="bringBack(one)">
            {{ t('cards.CardsPage.bringBack') }}
          </button>
        </p>
        <ClipCheckStrip :check="data.check" />
        <p v-if="data.check.devices.length > 0" class="reports soft">
          {{ t('cards.CardsPage.reportsOfTheDay') }}
          <template v-for="kind in ['camera', 'sound'] as const" :key="kind"
            ><span>{{ valueWord(kind) }}</span
            ><a class="plain" :href="reportUrl(production.ulid, `days/${day.ulid}`, kind, 'pdf')" target="_blank">{{
              t('cards.CardsPage.pdf')
            }}</a
            ><a class="plain" :href="reportUrl(production.ulid, `days/${day.ulid}`, kind, 'csv')">{{
              t('cards.CardsPage.csv')
            }}</a></template
          >
        </p>
      </section>

      <aside aria-live="polite">
        <div v-if="chosen === null" class="empty">
          <b>{{ t('cards.CardsPage.theBenchIsEmpty') }}</b>{{ t('cards.CardsPage.putACardInA') }}
        </div>
        <VolumePanel
          v-else-if="volume"
          :key="volume.name"
          v-model:roll="roll"
          v-model:device="device"
          :name="volume.name"
          :stores="data.stores"
          @offload="(as, letter, compare) => volume && offload(volume.name, as, letter, compare)"
          @day="toDay"
          @place="placing = true"
          @claim="(ours) => volume && claim(volume.name, ours)"
        />
        <CardPanel
          v-else-if="card"
          :key="card.ulid"
          :card="card"
          :stores="data.stores"
          @again="act"
          @release="card && startRelease(card)"
          @verify="verifyAgain"
          @away="takeAway"
        />
      </aside>

      <TakeAwayDialog :what="leaving" @close="leaving = null" />
      <PlaceDialog
        :open="placing"
        :template="data.template"
        :roll="volume ? roll : (card?.roll ?? '')"
        :device="volume ? device : (card?.device ?? '')"
        @close="placing = false"
      />
      <Modal
        :open="releasing !== null"
        :title="t('cards.CardsPage.release', [releasing?.roll])"
        :ok-text="t('cards.CardsPage.releaseTheCard')"
        :cancel-text="t('cards.CardsPage.keepIt')"
        :ok-button-props="{ disabled: releasing?.is_one_disk === true && words.trim().toLowerCase() !== ONE_DISK }"
        @ok="release"
        @cancel="releasing = null"
      >
        <p>
          {{
            t('cards.CardsPage.allFilesAreVerifiedOn', [
              counted(releasing?.files ?? 0, 'file'),
              bytes(releasing?.size_bytes ?? 0),
              releasing?.copies.map((copy) => copy.store).join(t('cards.CardsPage.and')),
            ])
          }}
        </p>
        <template v-if="releasing?.is_one_disk">
          <p class="note fault">
            <b>{{ t('cards.CardsPage.bothCopiesLieOnOne') }}</b> {{ t('cards.CardsPage.ifItFailsBothAre') }}
          </p>
          <label class="words"
            >{{ t('cards.CardsPage.toReleaseItAllThe') }} <b class="mono">{{ ONE_DISK }}</b><input
              ref="wordsBox"
              v-model="words"
              class="field mono"
              autocomplete="off"
              @keydown.enter="release"
          /></label>
        </template>
      </Modal>
    </div>
  </AnswerState>
</template>

<style scoped>
.split {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 352px;
  grid-template-rows: minmax(0, 1fr);
  height: 100%;
}
.bench {
  overflow: auto;
  min-width: 0;
}
.first {
  min-height: 34px;
  font-size: 13px;
  padding: 4px 15px;
}
.cards {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(252px, 100%), 1fr));
  gap: 14px;
  padding: 16px 18px;
}
.gone {
  display: flex;
  gap: 8px;
  align-items: center;
  margin: 0 18px 8px;
}
.slot {
  min-height: 196px;
  border: 1px dashed var(--rule-strong);
  border-radius: 10px 24px 10px 10px;
  display: grid;
  place-items: center;
  text-align: center;
  color: var(--ink-soft);
  font-size: 12px;
  align-content: center;
}
.slot a {
  color: var(--act);
  margin-top: 10px;
  text-decoration: underline;
}
.words {
  display: grid;
  gap: 4px;
}
.words .field {
  height: 30px;
  max-width: 220px;
}
.set {
  border-color: var(--act);
  color: var(--act);
}
.menu {
  background: #fff;
  border: 1px solid var(--rule-strong);
  border-radius: 6px;
  padding: 8px 12px;
  display: grid;
  gap: 6px;
  box-shadow: 0 6px 18px #0002;
}
.menu label {
  display: flex;
  gap: 7px;
  align-items: center;
  cursor: pointer;
}
.menu .soft {
  margin-left: auto;
  padding-left: 14px;
}
.reports {
  display: flex;
  gap: 8px;
  align-items: center;
  padding: 0 18px 20px;
  font-size: 12px;
  margin: 0;
}
.reports a {
  display: inline-flex;
  align-items: center;
}
.reports span {
  margin-left: 8px;
}
aside {
  border-left: 1px solid var(--rule-strong);
  background: var(--sheet-2);
  padding: 16px 18px;
  overflow: auto;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 12px;
  align-content: start;
}
@media (max-width: 860px) {
  .split {
    grid-template-columns: minmax(0, 1fr) minmax(200px, 42%);
  }
}
</style>
