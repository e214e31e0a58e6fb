import { t } from '@/words'
import { useRafFn } from '@vueuse/core'
import { computed, onScopeDispose, ref, shallowRef, watch, type Ref } from 'vue'
import { useRouter } from 'vue-router'
import { DeviceClock } from '@/player/engine/clock'
import { Leader } from '@/player/engine/link'
import type { Transport } from '@/player/engine/transport'
import { TICKS } from '@/player/time'
import { refuse } from '@/shell/say'
import {
  type Curtain,
  houseChannel,
  houseScreen,
  type HouseScreen,
  type HouseSeen,
  houseSetting,
  type HouseWord,
  machineScreens,
  openHouse,
  TEST_ROUND,
} from './house'
import type { RoomView } from './view'

/** A house that said nothing for so long is not there, milliseconds. */
const SILENT_AFTER = 2500

/** The house screen as the desk leads it: opened on its screen, told what is shown, and heard of. */
export function useHouse(options: {
  production: () => string
  reel: () => string
  transport: Transport
  view: Ref<RoomView>
  looks: Ref<boolean>
  isOver: Ref<boolean>
  /** How long a frame of what plays is, ticks. */
  frame: () => number
}) {
  const router = useRouter()
  const curtain = ref<Curtain>('picture')
  const screens = shallowRef<HouseScreen[]>([])
  const seen = shallowRef<HouseSeen | null>(null)
  /** Whether what the house said last lies within a frame of where the desk was at that moment. */
  const isInStep = ref(false)
  let heardAt = 0
  const leader = new Leader(
    houseChannel(options.production()),
    options.transport,
    () =>
      JSON.stringify({
        production: options.production(),
        reel: options.reel(),
        view: options.view.value,
        curtain: curtain.value,
        isOver: options.isOver.value,
        looks: options.looks.value,
        late: houseSetting.value.late,
      } satisfies HouseWord),
    (what) => {
      heardAt = performance.now()
      const now = JSON.parse(what) as HouseSeen
      seen.value = now
      const { transport } = options
      const since = (performance.timeOrigin + performance.now() - now.moment - houseSetting.value.late) / 1000
      const was = transport.position() - since * transport.speed * TICKS
      // A frame is seen from its beginning on; one more or less is in step.
      const frame = options.frame()
      isInStep.value = now.at >= 0 && now.at > was - 2 * frame && now.at <= was + frame
    },
  )
  watch([options.view, curtain, options.looks, options.isOver, () => houseSetting.value.late], () => leader.tell())
  const look = setInterval(() => {
    if (seen.value !== null && performance.now() - heardAt > SILENT_AFTER) seen.value = null
  }, 500)

  /** Opens the window on the chosen screen; one that is open comes to the front. */
  async function open(): Promise<void> {
    screens.value = await machineScreens()
    const address = router.resolve({ name: 'house', params: { production: options.production() } }).href
    const opened = openHouse(address, houseScreen(screens.value, houseSetting.value.screen))
    if (opened === null) refuse(t('screening.room.useHouse.theBrowserLetNoSecond'))
  }

  /** While the test picture runs, a beep is heard at each flash as the desk means it. */
  let context: AudioContext | null = null
  let device: DeviceClock | null = null
  let next = 0
  useRafFn(() => {
    if (curtain.value !== 'test') return
    context ??= new AudioContext()
    device ??= new DeviceClock(context, () => performance.now() / 1000)
    if (context.state !== 'running') void context.resume().catch(() => {})
    if (!device.look()) return
    const now = performance.timeOrigin + performance.now()
    const flash = Math.ceil(now / TEST_ROUND) * TEST_ROUND
    if (flash === next || flash - now > 400) return
    const at = device.at((flash - performance.timeOrigin) / 1000)
    if (at === null || at < context.currentTime) return
    next = flash
    const tone = context.createOscillator()
    const gain = context.createGain()
    tone.frequency.value = 1000
    gain.gain.setValueAtTime(0.4, at)
    tone.connect(gain).connect(context.destination)
    tone.start(at)
    tone.stop(at + 0.08)
  })
  onScopeDispose(() => {
    clearInterval(look)
    leader.close()
    void context?.close()
  })

  return {
    curtain,
    screens,
    seen,
    isThere: computed(() => seen.value !== null),
    isInStep,
    open,
    draw: (wanted: Curtain) => (curtain.value = curtain.value === wanted ? 'picture' : wanted),
    tell: () => leader.tell(),
  }
}

export type House = ReturnType<typeof useHouse>
