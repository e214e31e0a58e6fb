<script setup lang="ts">
import { screening as screeningApi } from '@/api/endpoints/screening'
import { computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { mediaUrl } from '@/api/client'
import { makeStale, useAnswer } from '@/api/queries'
import type { ReelSummary } from '@/api/types'
import { length } from '@/player/time'
import AnswerState from '@/shell/AnswerState.vue'
import { useDesk } from '@/shell/desk'
import { useShortcuts } from '@/shell/keys'
import { attempt, say } from '@/shell/say'
import ScreeningRoom from './ScreeningRoom.vue'

const { production, day } = useDesk()
const route = useRoute()
const router = useRouter()
const { data, isPending, error, refetch } = useAnswer(() => screeningApi.reels(production.value.ulid, day.value.ulid))
const open = computed(() => (typeof route.query.reel === 'string' ? route.query.reel : null))
const at = ref(0)
const busy = ref(false)

const clock = (moment: string | null) =>
  moment === null
    ? ''
    : new Date(moment).toLocaleString('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' })

async function build(circledOnly: boolean): Promise<void> {
  if (!production.value.may.organise || busy.value) return
  busy.value = true
  const made = await attempt(() =>
    screeningApi.build(production.value.ulid, day.value.ulid, { circled_only: circledOnly }),
  )
  busy.value = false
  if (made === undefined) return
  say('The reel is ready.')
  makeStale('sequences')
}

function watchReel(ulid: string | undefined): void {
  if (ulid === undefined) return
  // The browser lets a page fill the screen only while a key or click is being answered.
  void document.documentElement.requestFullscreen?.().catch(() => {})
  void router.push({ query: { reel: ulid } })
}

async function leave(): Promise<void> {
  if (document.fullscreenElement !== null) await document.exitFullscreen().catch(() => {})
  await router.replace({ query: {} })
}

async function remove(reel: ReelSummary): Promise<void> {
  if ((await attempt(() => screeningApi.remove(production.value.ulid, reel.ulid))) === undefined) return
  say(`${reel.name} is removed. Ctrl Z brings it back.`)
  makeStale('sequences')
}

useShortcuts('Screening', [
  {
    keys: ['ArrowDown', 'ArrowUp'],
    what: 'Next reel, the one before',
    run: (event) =>
      (at.value = Math.max(
        0,
        Math.min((data.value?.reels.length ?? 1) - 1, at.value + (event.key === 'ArrowDown' ? 1 : -1)),
      )),
  },
  { keys: ['Enter'], what: 'Watch the reel', run: () => watchReel(data.value?.reels[at.value]?.ulid) },
  { keys: ['n'], what: 'Build a reel of the circled takes', run: () => void build(true) },
  { keys: ['b'], what: 'Build a reel of all takes', run: () => void build(false) },
])
</script>

<template>
  <ScreeningRoom v-if="open !== null" :reel="open" @leave="leave" />
  <AnswerState v-else :pending="isPending" :error="error" @retry="refetch()">
    <div v-if="data" class="page">
      <div class="bar">
        <template v-if="production.may.organise">
          <button
            class="go"
            :disabled="busy"
            title="Circled takes in slate order, each from its slate (N)"
            @click="build(true)"
          >
            Build reel: circled takes
          </button>
          <button
            class="plain"
            :disabled="busy"
            title="Every take in slate order, each from its slate (B)"
            @click="build(false)"
          >
            All takes
          </button>
        </template>
        <span class="push soft">in slate order, each take from its slate on</span>
      </div>
      <div v-if="data.reels.length === 0" class="empty">
        <b>No reel of this day yet.</b
        >{{
          production.may.organise
            ? 'Build one of the circled takes, or of all of them.'
            : 'An assistant or editor builds it; it shows up here by itself.'
        }}
      </div>
      <ul v-else class="reels">
        <li v-for="(reel, index) in data.reels" :key="reel.ulid" :class="{ on: index === at }" @mouseenter="at = index">
          <button class="still" :aria-label="`Watch ${reel.name}`" @click="watchReel(reel.ulid)">
            <img v-if="reel.first_clip" :src="mediaUrl(production.ulid, reel.first_clip, 'thumb-3')" alt="" /><span
              >▶</span
            >
          </button>
          <div>
            <b>{{ reel.name }}</b>
            <p class="soft">
              {{ reel.items }} {{ reel.items === 1 ? 'take' : 'takes' }} ·
              <span class="mono">{{ length(reel.running_ticks) }}</span> ·
              {{ clock(reel.made_at) }}
            </p>
            <p v-if="reel.changed" class="soft changed">Built again {{ clock(reel.changed_at) }}: {{ reel.changed }}</p>
          </div>
          <button class="go" @click="watchReel(reel.ulid)">Watch full screen <kbd v-if="index === at">↵</kbd></button>
          <button v-if="production.may.organise" class="plain" @click="remove(reel)">Remove</button>
        </li>
      </ul>
    </div>
  </AnswerState>
</template>

<style scoped>
.page {
  height: 100%;
  overflow: auto;
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
.reels {
  list-style: none;
  margin: 0;
  padding: 12px 18px;
  display: grid;
  gap: 10px;
}
.reels li {
  display: grid;
  grid-template-columns: 148px minmax(0, 1fr) auto auto;
  gap: 16px;
  align-items: center;
  background: var(--dark-2);
  border: 1px solid var(--dark-rule);
  border-radius: 8px;
  padding: 10px 14px 10px 10px;
}
.reels li.on {
  border-color: #6dbfa6;
}
.reels b {
  font-size: 16px;
  font-weight: 600;
}
.reels p {
  margin: 2px 0 0;
}
.still {
  position: relative;
  border: 0;
  padding: 0;
  width: 148px;
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
  font-size: 22px;
  text-shadow: 0 1px 6px #000;
}
</style>
