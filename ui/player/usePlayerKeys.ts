import { t } from '@/words'
import { useEventListener } from '@vueuse/core'
import { type Shortcut } from '@/shell/keys'
import { looksShown } from './look'
import type { ActivePlayer } from './usePlayer'

/** Held, a step crawls at these parts of normal speed; with Shift at the second. */
const CRAWL = 0.25
const CRAWL_FASTER = 0.5
const FIVE = 5

/**
 * The keys that every player has, in every stage. The page adds its own and says which it needs for itself.
 *
 * @param taken keys that the page has for something else
 */
export function usePlayerKeys(active: ActivePlayer, taken: string[] = []) {
  const { player } = active
  const { transport } = player
  /** The key under a crawl or creep that ends when it is let go of. */
  let held: string | null = null
  let stopKeyDown = false

  function shuttle(event: KeyboardEvent, direction: 1 | -1): void {
    // A held key is one press.
    if (event.repeat) return
    if (stopKeyDown) {
      held = event.key.toLowerCase()
      transport.creep(direction * CRAWL)
    } else transport.faster(direction)
  }
  function stop(event: KeyboardEvent): void {
    stopKeyDown = true
    if (!event.repeat) player.stop()
  }
  /** A press steps; held, it crawls until it is let go of. */
  function step(event: KeyboardEvent, direction: 1 | -1, withShift: boolean): void {
    if (!event.repeat) player.step(direction * (withShift ? FIVE : 1))
    else if (held === null) {
      held = event.key.toLowerCase()
      transport.creep(direction * (withShift ? CRAWL_FASTER : CRAWL))
    }
  }
  useEventListener(window, 'keyup', (event) => {
    const key = event.key.toLowerCase()
    if (key === 'k') stopKeyDown = false
    if (held === null || (key !== held && key !== 'k' && !UNSHIFTED[held]?.includes(key))) return
    held = null
    player.stop()
  })
  useEventListener(window, 'blur', () => {
    stopKeyDown = false
    if (held !== null) player.stop()
    held = null
  })

  const shortcuts: Shortcut[] = [
    {
      keys: [' '],
      what: t('player.usePlayerKeys.playStop'),
      run: (event) => !event.repeat && player.toggle(),
    },
    {
      keys: ['Ctrl+ '],
      what: t('player.usePlayerKeys.playStopWhileTyping'),
      whileTyping: true,
      run: () => player.toggle(),
    },
    {
      keys: ['Ctrl+ArrowLeft', 'Ctrl+ArrowRight'],
      what: t('player.usePlayerKeys.aSecondBackASecond'),
      whileTyping: true,
      run: (event) =>
        player.step((event.key === 'ArrowLeft' ? -1 : 1) * (active.piece.value?.rate ?? player.playlist.rate).nominal),
    },
    { keys: ['j'], what: t('player.usePlayerKeys.backEachPressDoublesUp'), run: (event) => shuttle(event, -1) },
    { keys: ['k'], what: t('player.usePlayerKeys.stopHeldWithJOr'), run: stop },
    { keys: ['l'], what: t('player.usePlayerKeys.forwardEachPressDoublesUp'), run: (event) => shuttle(event, 1) },
    {
      keys: [',', '.'],
      what: t('player.usePlayerKeys.oneFrameBackOneForward'),
      run: (event) => step(event, event.key === ',' ? -1 : 1, false),
    },
    {
      keys: ['<', '>'],
      what: t('player.usePlayerKeys.fiveFramesBackFiveForward'),
      run: (event) => step(event, event.key === '<' ? -1 : 1, true),
    },
    {
      keys: ['Alt+r'],
      what: t('player.usePlayerKeys.roundAndRoundOrNot'),
      run: () => transport.setLoop(!transport.loops),
    },
    {
      keys: ['Alt+ArrowUp', 'Alt+ArrowDown'],
      what: t('player.usePlayerKeys.louderSofter'),
      run: (event) => {
        const level = active.volume.value.level + (event.key === 'ArrowUp' ? 0.1 : -0.1)
        active.volume.value = { level: Math.round(10 * Math.min(1, Math.max(0, level))) / 10, muted: false }
      },
    },
    {
      keys: ['Alt+s'],
      what: t('player.usePlayerKeys.silentOrNot'),
      run: () => {
        active.volume.value = { ...active.volume.value, muted: !active.volume.value.muted }
      },
    },
    {
      keys: ['\\'],
      what: t('player.usePlayerKeys.lookOffOn'),
      run: () => {
        looksShown.value = !looksShown.value
      },
    },
  ]

  return {
    shortcuts: shortcuts.filter((one) => !one.keys.some((key) => taken.includes(key))),
    step,
    /** Arrow keys, where the player has the focus; true when the key was one of them. */
    arrows(event: KeyboardEvent): boolean {
      const direction = ({ ArrowLeft: -1, ArrowRight: 1 } as const)[event.key as 'ArrowLeft']
      if (direction === undefined || event.ctrlKey || event.metaKey) return false
      // Sound alone is stepped by a millisecond, too.
      if (event.altKey) player.nudge(direction * 705_600)
      else step(event, direction, event.shiftKey)
      return true
    },
  }
}

/** What a key is without Shift, which may be let go of first. */
const UNSHIFTED: Record<string, string> = { '<': ',', '>': '.', ',': '<', '.': '>' }
