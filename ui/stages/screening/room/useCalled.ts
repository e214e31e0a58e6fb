import { t } from '@/words'
import { useEventListener, useLocalStorage } from '@vueuse/core'
import { computed, onScopeDispose, ref } from 'vue'

/** What stands around the picture; each comes when it is called and goes by itself, unless it is pinned. */
export const PARTS = ['slate', 'timecode', 'strip', 'notes', 'script'] as const
export type Part = (typeof PARTS)[number]
export const TITLES: Record<Part, string> = {
  slate: t('screening.room.useCalled.slate'),
  timecode: t('screening.room.useCalled.timecode'),
  strip: t('screening.room.useCalled.takes'),
  notes: t('screening.room.useCalled.notes'),
  script: t('screening.room.useCalled.script'),
}

/** So long after the pointer's last move, or the key that called it, it goes; milliseconds. */
const GOES_AFTER = 2600

/** Which parts are pinned, kept on this machine; the script is called by itself. */
const pinned = useLocalStorage<Part[]>('cartella.room', [])

export function useCalled(isHeld: () => boolean) {
  const isCalled = ref(true)
  let timer: ReturnType<typeof setTimeout> | undefined
  function call(): void {
    isCalled.value = true
    clearTimeout(timer)
    timer = setTimeout(go, GOES_AFTER)
  }
  function go(): void {
    // While somebody writes, or the pointer rests on it, it stays.
    if (isHeld()) call()
    else isCalled.value = false
  }
  useEventListener(window, 'pointermove', (event) => {
    if (Math.abs(event.movementX) + Math.abs(event.movementY) > 0) call()
  })
  useEventListener(window, 'pointerdown', call)
  onScopeDispose(() => clearTimeout(timer))
  call()

  const isPinned = (part: Part): boolean => pinned.value.includes(part)
  return {
    isCalled,
    call,
    hide: () => {
      clearTimeout(timer)
      isCalled.value = false
    },
    isPinned,
    shows: (part: Part): boolean => isPinned(part) || (isCalled.value && part !== 'script'),
    pin: (part: Part): void => {
      pinned.value = isPinned(part) ? pinned.value.filter((one) => one !== part) : [...pinned.value, part]
      call()
    },
    /** All but the script, or nothing. */
    pinAll: (): void => {
      const all = PARTS.filter((one) => one !== 'script')
      pinned.value = all.every(isPinned) ? [] : [...all, ...pinned.value.filter((one) => one === 'script')]
      call()
    },
    anyPinned: computed(() => pinned.value.length > 0),
  }
}

export type Called = ReturnType<typeof useCalled>
