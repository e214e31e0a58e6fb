import { type Ref, ref, watch } from 'vue'

/** Frames that a menu is given to be drawn before it takes the focus. */
const PATIENCE = 30

/**
 * A menu that hangs on a button: opened, its first control has the focus and the page behind it gets no key; Escape
 * closes
 * it and gives the focus back.
 */
export function useMenu(body: Readonly<Ref<HTMLElement | null>>): {
  open: Ref<boolean>
  onKey: (event: KeyboardEvent) => void
} {
  const open = ref(false)
  let opener: HTMLElement | null = null
  function enter(frames: number): void {
    if (!open.value || frames === 0) return
    body.value?.querySelector<HTMLElement>('select, input, button')?.focus()
    // What is not drawn yet takes no focus.
    if (body.value === null || !body.value.contains(document.activeElement))
      requestAnimationFrame(() => enter(frames - 1))
  }
  watch(open, (isOpen) => {
    if (!isOpen) return
    opener = document.activeElement instanceof HTMLElement ? document.activeElement : null
    enter(PATIENCE)
  })
  function onKey(event: KeyboardEvent): void {
    // Undo and the like belong to the page also from here.
    if (event.ctrlKey || event.metaKey) return
    event.stopPropagation()
    if (event.key !== 'Escape') return
    event.preventDefault()
    open.value = false
    opener?.focus()
  }
  return { open, onKey }
}
