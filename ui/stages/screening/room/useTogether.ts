import { useThrottleFn } from '@vueuse/core'
import { onScopeDispose, ref, watch, type Ref } from 'vue'
import { screening } from '@/api/endpoints/screening'
import type { Transport } from '@/player/engine/transport'
import { attempt } from '@/shell/say'
import { serverApart } from './clock'
import type { RoomView } from './view'

/** What those who follow from afar are told of the room beside where it is. */
export interface RoomWord {
  view: RoomView
  blank: boolean
}

/** Also while nothing happens the room says that it is there, milliseconds. */
const BEAT = 10_000

/** Lets those who have a link watch along: the server is told where the room is, each time that something moves it. */
export function useTogether(options: {
  production: () => string
  reel: () => string
  transport: Transport
  view: Ref<RoomView>
  blank: Ref<boolean>
}) {
  const isOn = ref(false)
  let apart = 0
  async function tell(): Promise<void> {
    if (!isOn.value) return
    const word: RoomWord = { view: options.view.value, blank: options.blank.value }
    const told = await attempt(() =>
      screening.tellRoom(options.production(), options.reel(), {
        at_ticks: Math.round(options.transport.position()),
        speed: options.transport.speed,
        epoch_ms: Math.round(Date.now() + apart),
        shows: JSON.stringify(word),
      }),
    )
    if (told === undefined) isOn.value = false
  }
  // A held key moves it often; the last of a burst is always told.
  const tellSoon = useThrottleFn(() => void tell(), 120, true)
  const leave = options.transport.onChange(() => void tellSoon())
  watch([options.view, options.blank], () => void tellSoon())
  const beat = setInterval(() => void tell(), BEAT)

  async function toggle(): Promise<void> {
    if (isOn.value) {
      isOn.value = false
      await attempt(() => screening.closeRoom(options.production(), options.reel()))
      return
    }
    apart = (await attempt(() => serverApart())) ?? 0
    isOn.value = true
    await tell()
  }
  onScopeDispose(() => {
    leave()
    clearInterval(beat)
    if (isOn.value) void screening.closeRoom(options.production(), options.reel()).catch(() => {})
  })
  return { isOn, toggle }
}
