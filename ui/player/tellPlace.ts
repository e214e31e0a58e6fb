import { watch, type Ref } from 'vue'
import type { ActivePlayer } from './usePlayer'

/**
 * Says on an element where a player is: `data-at` in ticks, `data-frame` of the picture that is seen, empty while none
 * is. Not by a template, which would be made anew with every picture of the display and keep the next one waiting.
 */
export function tellPlace(element: Readonly<Ref<HTMLElement | null>>, active: ActivePlayer): void {
  const tell = (): void => {
    const { dataset } = element.value ?? {}
    if (dataset === undefined) return
    const [at, frame] = [String(Math.round(active.position.value)), String(active.shown.value ?? '')]
    if (dataset.at !== at) dataset.at = at
    if (dataset.frame !== frame) dataset.frame = frame
  }
  active.player.onChange(tell)
  watch(element, tell, { flush: 'post' })
}
