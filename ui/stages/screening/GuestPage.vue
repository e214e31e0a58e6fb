<script setup lang="ts">
import { t } from '@/words'
import { computed, onMounted, onScopeDispose, ref, shallowRef, useTemplateRef, watch } from 'vue'
import { useRoute } from 'vue-router'
import { ApiError } from '@/api/client'
import { guest as guestApi } from '@/api/endpoints/guest'
import type { Guest, Playlist, Reel, Room } from '@/api/types'
import { tellPlace } from '@/player/tellPlace'
import { length } from '@/player/time'
import { TROUBLE } from '@/player/trouble'
import { usePlayer } from '@/player/usePlayer'
import { usePlayerKeys } from '@/player/usePlayerKeys'
import { useShortcuts } from '@/shell/keys'
import { serverApart } from './room/clock'
import NameCard from './room/NameCard.vue'
import RoomScreens from './room/RoomScreens.vue'
import RoomStrip from './room/RoomStrip.vue'
import RoomTimecode from './room/RoomTimecode.vue'
import { useReel } from './room/useReel'
import type { RoomWord } from './room/useTogether'
import { actionOf, FIRST_VIEW, slateOf } from './room/view'

/** Somebody with a link watches one reel, on their own or in step with the room. */
const route = useRoute()
const secret = String(route.params.secret)
const known = ref<Guest | null>(null)
const trouble = ref<string | null>(null)
const password = ref('')
const reel = shallowRef<Reel>()
const playlist = shallowRef<Playlist>()
const canvas = shallowRef<HTMLCanvasElement | null>(null)

const active = usePlayer(() => (clip, what, version) => guestApi.mediaUrl(secret, clip, what, version), canvas)
const { player, position, speed } = active
const { transport } = player
const show = useReel(active, reel, playlist)
const { item, items, at, view } = show
const page = useTemplateRef<HTMLElement>('page')
tellPlace(page, active)
show.play(() => 0)
watch(show.playlist, (list) => list !== null && player.setSounds(list.sounds))

async function ask<T>(work: () => Promise<T>): Promise<T | undefined> {
  try {
    return await work()
  } catch (cause) {
    trouble.value =
      cause instanceof ApiError ? `${cause.message} ${cause.fix}` : t('screening.GuestPage.somethingWentWrongLoadThe')
    return undefined
  }
}
onMounted(async () => {
  document.title = t('screening.GuestPage.screening')
  known.value = (await ask(() => guestApi.show(secret))) ?? null
  if (known.value?.is_open) await load()
})
/** A press lets the browser play sound, too. */
async function open(): Promise<void> {
  trouble.value = null
  const answer = await ask(() => guestApi.open(secret, password.value === '' ? null : password.value))
  if (answer === undefined) return
  known.value = answer
  await load()
}
async function load(): Promise<void> {
  ;[reel.value, playlist.value] = [await ask(() => guestApi.reel(secret)), await ask(() => guestApi.playlist(secret))]
  if (reel.value?.together) view.value = { ...FIRST_VIEW, mode: 'all' }
  apart = (await ask(() => serverApart())) ?? 0
  listen()
}

// In step with the room.
let apart = 0
const room = shallowRef<Room | null>(null)
const follows = ref(true)
const isBlank = ref(false)
const isTogether = computed(() => room.value?.open === true && follows.value)
let source: EventSource | null = null
let poll: ReturnType<typeof setInterval> | undefined
function listen(): void {
  source = new EventSource(guestApi.liveUrl(secret))
  source.addEventListener('room', (message) => hear(JSON.parse((message as MessageEvent<string>).data) as Room))
  source.onerror = () => {
    // Where events do not come through, or too many watch by this link, it is asked.
    if (source?.readyState !== EventSource.CLOSED) return
    poll ??= setInterval(() => void guestApi.room(secret).then(hear, lost), 1000)
  }
}
function lost(cause: unknown): void {
  if (!(cause instanceof ApiError) || cause.status !== 410) return
  clearInterval(poll)
  player.stop()
  trouble.value = `${cause.message} ${cause.fix}`
  reel.value = undefined
}
function hear(now: Room): void {
  const before = room.value
  room.value = now
  if (!now.open) {
    isBlank.value = false
    if (before?.open === true && follows.value) player.stop()
    return
  }
  if (follows.value) follow()
}
function follow(): void {
  const now = room.value
  if (now?.open !== true) return
  const word = parse(now.shows)
  if (word !== null) {
    show.look(word.view)
    isBlank.value = word.blank
  }
  if (now.speed === 0) transport.goExactly(now.at_ticks)
  else transport.follow(now.at_ticks, now.speed, (Date.now() + apart - now.epoch_ms) / 1000)
}
function parse(text: string): RoomWord | null {
  try {
    return JSON.parse(text) as RoomWord
  } catch {
    return null
  }
}
// The reel is there after the word of where the room is.
watch(show.playlist, () => isTogether.value && follow(), { flush: 'post' })
function alone(): void {
  follows.value = !follows.value
  isBlank.value = false
  if (follows.value) follow()
  else player.stop()
}
const own = (work: () => void) => () => {
  if (!isTogether.value) work()
}
function go(index: number): void {
  if (isTogether.value) return
  const next = Math.max(0, Math.min(items.value.length - 1, index))
  const goesOn = speed.value !== 0
  player.goTo(items.value[next]?.at_ticks ?? 0)
  if (goesOn) transport.run(1)
}
function goAction(): void {
  if (isTogether.value || item.value === undefined) return
  const goesOn = speed.value !== 0
  player.goTo(actionOf(item.value))
  if (goesOn) transport.run(1)
}
function fill(): void {
  if (document.fullscreenElement !== null) void document.exitFullscreen()
  else void document.documentElement.requestFullscreen().catch(() => {})
}
const isOver = computed(
  () =>
    speed.value === 0 &&
    show.playlist.value !== null &&
    position.value > 0 &&
    position.value >= transport.last - 30_000_000,
)
onScopeDispose(() => {
  source?.close()
  clearInterval(poll)
})

const keys = usePlayerKeys(active)
useShortcuts('Watching', [
  ...keys.shortcuts.map((one) => ({ ...one, run: (event: KeyboardEvent) => !isTogether.value && one.run(event) })),
  {
    keys: [';', "'"],
    what: t('screening.GuestPage.takeBeforeTakeAfter'),
    run: (event) => go(at.value + (event.key === ';' ? -1 : 1)),
  },
  { keys: ['a'], what: t('screening.GuestPage.pastTheSlateToThe'), run: goAction },
  { keys: ['f'], what: t('screening.GuestPage.fullScreenOrNot'), run: fill },
])
</script>

<template>
  <div ref="page" class="guest" :data-playing="speed !== 0" :data-together="isTogether">
    <div v-if="reel === undefined" class="door">
      <h1>{{ known?.reel ?? t('screening.GuestPage.aScreening') }}</h1>
      <p v-if="known" class="soft">{{ t('screening.GuestPage.for', [known.production, known.for_name]) }}</p>
      <p v-if="trouble" role="alert" class="trouble">{{ trouble }}</p>
      <form v-if="known" @submit.prevent="open">
        <label v-if="known.needs_password"
          >{{ t('screening.GuestPage.password') }}
          <input v-model="password" class="say" type="password" autocomplete="off"
        /></label>
        <button class="go large">{{ t('screening.GuestPage.watch') }}</button>
      </form>
      <p v-else-if="!trouble" class="soft">{{ t('screening.GuestPage.oneMoment') }}</p>
    </div>
    <template v-else>
      <div class="screen" @click="own(() => player.toggle())()">
        <RoomScreens v-show="!isBlank" :active="active" :beside="show.beside.value" looks @canvas="canvas = $event" />
        <span class="name" aria-hidden="true">{{ known?.for_name }}</span>
        <NameCard
          v-if="isOver && !isTogether"
          :production="known?.production ?? ''"
          :name="reel.name"
          :takes="items.length"
          :running="show.playlist.value?.length ?? 0"
          is-end
        />
        <p v-if="player.trouble" class="trouble" role="alert">{{ TROUBLE[player.trouble] }}</p>
      </div>
      <footer>
        <p class="line">
          <b v-if="item" class="mono">{{ slateOf(item) }}</b>
          <span class="what">{{ item?.take.description }}</span>
          <RoomTimecode :active="active" class="soft" />
        </p>
        <div class="buttons">
          <button
            class="plain large"
            :disabled="isTogether"
            :aria-label="t('screening.GuestPage.takeBefore')"
            @click="go(at - 1)"
          >
            ‹
          </button>
          <button class="plain large" :disabled="isTogether" @click="player.toggle()">
            {{ speed !== 0 ? t('screening.GuestPage.stop') : t('screening.GuestPage.play') }}
          </button>
          <button
            class="plain large"
            :disabled="isTogether"
            :aria-label="t('screening.GuestPage.takeAfter')"
            @click="go(at + 1)"
          >
            ›
          </button>
          <button class="plain large" :disabled="isTogether" @click="goAction">
            {{ t('screening.GuestPage.toTheAction') }}
          </button>
          <button
            v-for="(one, index) in item && item.angles.length > 1 ? item.angles : []"
            :key="one.clip"
            class="plain large"
            :disabled="isTogether"
            @click="view = { ...view, turned: { item: at, angle: index } }"
          >
            {{ one.device ?? index + 1 }}
          </button>
          <span class="push" />
          <button v-if="room?.open" class="plain large" :class="{ on: follows }" @click="alone">
            {{ follows ? t('screening.GuestPage.inStepWithTheRoom') : t('screening.GuestPage.joinTheRoom') }}
          </button>
          <button class="plain large" @click="fill">{{ t('screening.GuestPage.fullScreen') }}</button>
        </div>
        <RoomStrip :items="items" :at="at" :active="active" @go="go" />
        <p class="soft small">
          {{
            t('screening.GuestPage.forPleasePassNothingOn', [
              reel.name,
              length(show.playlist.value?.length ?? 0),
              known?.for_name,
            ])
          }}
        </p>
      </footer>
    </template>
  </div>
</template>

<style scoped>
.guest {
  position: fixed;
  inset: 0;
  background: #0c0f11;
  color: var(--on-dark);
  display: grid;
  grid-template-rows: minmax(0, 1fr) auto;
}
.guest :deep(.soft) {
  color: var(--on-dark-soft);
}
.door {
  display: grid;
  align-content: center;
  justify-items: center;
  gap: 14px;
  grid-row: 1 / 3;
  padding: 24px;
  text-align: center;
}
.door form {
  display: grid;
  gap: 14px;
  justify-items: center;
}
h1 {
  margin: 0;
  font-size: 28px;
  font-weight: 600;
  overflow-wrap: anywhere;
}
p {
  margin: 0;
}
.say {
  background: var(--dark);
  color: var(--on-dark);
  border: 1px solid #5b666d;
  border-radius: 5px;
  padding: 8px 10px;
  font: inherit;
}
.screen {
  position: relative;
  min-height: 0;
}
.name {
  position: absolute;
  left: 50%;
  top: 60%;
  transform: translate(-50%, -50%);
  color: #ffffff;
  opacity: 0.22;
  font-size: clamp(16px, 4vw, 34px);
  white-space: nowrap;
  pointer-events: none;
  text-shadow: 0 0 4px #000;
}
.trouble {
  color: #f0b9a8;
}
.screen .trouble {
  position: absolute;
  inset: auto 16px 16px;
  text-align: center;
}
footer {
  display: grid;
  gap: 10px;
  padding: 12px 16px 14px;
  background: var(--dark);
  border-top: 1px solid var(--dark-rule);
  min-width: 0;
}
.line {
  display: flex;
  gap: 12px;
  align-items: baseline;
  font-size: 15px;
}
.what {
  flex: 1;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.buttons {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.push {
  flex: 1;
}
.plain {
  background: var(--dark-2);
  color: var(--on-dark);
  border-color: #4a545b;
}
.plain.on {
  border-color: #6dbfa6;
  color: #8fd6c0;
}
.plain:disabled {
  opacity: 0.5;
}
.large {
  min-height: 44px;
  min-width: 44px;
  padding: 0 16px;
  font-size: 15px;
}
.small {
  font-size: 12px;
}
</style>
