<script setup lang="ts">
import { t } from '@/words'
import { computed, onMounted, onScopeDispose, ref, shallowRef, useTemplateRef, watch } from 'vue'
import { useRoute } from 'vue-router'
import { useEventListener } from '@vueuse/core'
import { player as playerApi } from '@/api/endpoints/player'
import { screening as screeningApi } from '@/api/endpoints/screening'
import { shell as shellApi } from '@/api/endpoints/shell'
import { useLive } from '@/api/live'
import { useAnswer } from '@/api/queries'
import { Follower } from '@/player/engine/link'
import { tellPlace } from '@/player/tellPlace'
import { usePlayer } from '@/player/usePlayer'
import { drawTest, houseChannel, type HouseSeen, type HouseWord } from './room/house'
import NameCard from './room/NameCard.vue'
import RoomScreens from './room/RoomScreens.vue'
import { useReel } from './room/useReel'

/** The window for the projector: picture only, in step with the desk, without a control or a pointer. */
const route = useRoute()
const production = String(route.params.production)
useLive(production)
const word = shallowRef<HouseWord | null>(null)
const reel = computed(() => word.value?.reel ?? null)
const { data } = useAnswer(() => (reel.value === null ? null : screeningApi.reel(production, reel.value)))
const { data: answer } = useAnswer(() => (reel.value === null ? null : playerApi.sequence(production, reel.value)))
const { data: known } = useAnswer(() => shellApi.production(production))

const canvas = shallowRef<HTMLCanvasElement | null>(null)
const active = usePlayer(() => production, canvas)
// The desk is heard; two of them would be an echo.
active.player.setVolume(0, true)
const page = useTemplateRef<HTMLElement>('page')
tellPlace(page, active)
const show = useReel(active, data, answer)
show.play(() => 0)
const curtain = computed(() => word.value?.curtain ?? 'blank')

const follower = new Follower(houseChannel(production), active.player.transport, (about) => {
  const now = JSON.parse(about) as HouseWord
  word.value = now
  show.look(now.view)
  follower.lead = now.late / 1000
})
// The reel comes after the word of where it is.
watch(show.playlist, () => follower.follow(), { flush: 'post' })

let told = 0
active.player.onChange(() => {
  if (performance.now() - told < 200) return
  told = performance.now()
  report()
})
function report(): void {
  const seen = active.player.screens[0]?.seen ?? null
  follower.seen(
    JSON.stringify({
      curtain: curtain.value,
      clip: seen?.piece.clip ?? null,
      frame: seen?.frame ?? null,
      at: active.player.screens[0]?.seenTicks() ?? -1,
      moment: performance.timeOrigin + performance.now() + follower.apart,
      isFull: document.fullscreenElement !== null,
    } satisfies HouseSeen),
  )
}
const beat = setInterval(report, 1000)
onScopeDispose(() => {
  clearInterval(beat)
  follower.close()
})

const test = ref<HTMLCanvasElement | null>(null)
let frame = 0
watch([curtain, test], () => {
  cancelAnimationFrame(frame)
  const draw = (): void => {
    if (curtain.value !== 'test' || test.value === null) return
    const { clientWidth, clientHeight } = test.value
    if (test.value.width !== clientWidth) test.value.width = clientWidth
    if (test.value.height !== clientHeight) test.value.height = clientHeight
    const now = performance.timeOrigin + performance.now() + follower.apart
    drawTest(test.value, now + (word.value?.late ?? 0))
    frame = requestAnimationFrame(draw)
  }
  draw()
})
onScopeDispose(() => cancelAnimationFrame(frame))

/** Only for the first moments, and only while it does not fill its screen. */
const hint = ref(true)
function fill(): void {
  if (document.fullscreenElement !== null) void document.exitFullscreen()
  else void document.documentElement.requestFullscreen().catch(() => {})
}
useEventListener(window, 'keydown', (event) => {
  if (event.key === 'f' || event.key === 'F') fill()
})
onMounted(() => {
  document.title = t('screening.HousePage.houseScreen')
  // Opened by a press at the desk it may fill its screen at once.
  if (navigator.userActivation?.isActive)
    document.documentElement.requestFullscreen().then(
      () => (hint.value = false),
      () => {},
    )
  setTimeout(() => (hint.value = false), 6000)
})
</script>

<template>
  <div ref="page" class="house" :data-curtain="curtain" :data-playing="active.speed.value !== 0" @dblclick="fill">
    <div v-show="curtain === 'picture'" class="picture">
      <RoomScreens
        :active="active"
        :beside="show.beside.value"
        :looks="word?.looks ?? true"
        @canvas="canvas = $event"
      />
    </div>
    <canvas v-if="curtain === 'test'" ref="test" class="test" />
    <NameCard
      v-else-if="curtain === 'card' || (curtain === 'picture' && word?.isOver)"
      :is-end="curtain === 'picture'"
      :production="known?.name ?? ''"
      :name="data?.name ?? ''"
      :takes="data?.items.length ?? 0"
      :running="show.playlist.value?.length ?? 0"
    />
    <p v-if="hint" class="hint">{{ t('screening.HousePage.fOrADoubleClick') }}</p>
  </div>
</template>

<style scoped>
.house {
  position: fixed;
  inset: 0;
  background: #0c0f11;
  color: var(--on-dark);
  cursor: none;
  user-select: none;
}
.picture,
.test {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}
.hint {
  position: absolute;
  inset: auto 0 24px;
  text-align: center;
  color: var(--on-dark-soft);
  margin: 0;
}
</style>
