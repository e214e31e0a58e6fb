import { onScopeDispose, reactive } from 'vue'

export interface Shortcut {
  /** As `KeyboardEvent.key`; with `Shift+`, `Ctrl+` or both before it. */
  keys: string[]
  what: string
  run: (event: KeyboardEvent) => void
  /** Also while somebody types. */
  whileTyping?: boolean
  /** Stands on the card only; the browser's own event does it. */
  leaveToBrowser?: boolean
}

interface Group {
  title: string
  shortcuts: Shortcut[]
}

/** What the `?` card lists: the groups of what is on screen, the newest first. */
export const groups = reactive<Group[]>([])

export function isTyping(event: KeyboardEvent): boolean {
  const target = event.target as HTMLElement | null
  return target !== null && (target.isContentEditable || ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName))
}

function pressed(event: KeyboardEvent): string {
  const key =
    event.key.length === 1 ? (event.ctrlKey || event.metaKey ? event.key.toLowerCase() : event.key) : event.key
  const withShift = event.shiftKey && (event.key.length > 1 || event.ctrlKey || event.metaKey)
  return (event.ctrlKey || event.metaKey ? 'Ctrl+' : '') + (withShift ? 'Shift+' : '') + key
}

/** A dialog takes Enter and Escape wherever the focus is; the page behind it gets no key. */
function answerDialog(dialog: HTMLElement, event: KeyboardEvent): void {
  // A control of the dialog answers Enter itself.
  const control = (event.target as HTMLElement).closest('button, input, textarea, select, a, [role=listbox]')
  const hasOwn = control !== null && dialog.contains(control)
  const button =
    event.key === 'Escape' ? '.ant-modal-close' : event.key === 'Enter' && !hasOwn ? '.ant-btn-primary' : null
  if (button === null) return
  event.preventDefault()
  dialog.querySelector<HTMLElement>(button)?.click()
}

const isClosing = (dialog: HTMLElement): boolean => dialog.querySelector('.ant-zoom-leave') !== null

function listen(event: KeyboardEvent): void {
  if (event.defaultPrevented || event.altKey) return
  const dialogs = [...document.querySelectorAll<HTMLElement>('.ant-modal-wrap:not([style*="display: none"])')]
  // One that fades away has had its answer; a key pressed meanwhile is for the page.
  const dialog = dialogs.find((one) => !isClosing(one))
  if (dialog !== undefined) {
    answerDialog(dialog, event)
    return
  }
  const typing = isTyping(event) && !dialogs.some((one) => one.contains(event.target as Node))
  const name = pressed(event)
  for (const group of groups) {
    for (const shortcut of group.shortcuts) {
      if (shortcut.keys.includes(name) && shortcut.leaveToBrowser !== true && (!typing || shortcut.whileTyping)) {
        // Enter and Space belong to a button that has the focus, unless it stands for a row that the page acts on.
        if (
          (name === 'Enter' || name === ' ') &&
          (event.target as HTMLElement).closest('button:not([data-row]), a, [role=button]') !== null
        )
          return
        event.preventDefault()
        shortcut.run(event)
        return
      }
    }
  }
}

let installed = false

/** Shortcuts for as long as their owner is on screen; they stand on the `?` card under the title. */
export function useShortcuts(title: string, shortcuts: Shortcut[]): void {
  if (!installed) {
    window.addEventListener('keydown', listen)
    installed = true
  }
  const group: Group = { title, shortcuts }
  groups.unshift(group)
  onScopeDispose(() => {
    const at = groups.findIndex((other) => other.title === title && other.shortcuts.length === shortcuts.length)
    if (at >= 0) groups.splice(at, 1)
  })
}
