import { onScopeDispose, shallowReactive, shallowRef, toValue, type MaybeRefOrGetter } from 'vue'

export interface Shortcut {
  /** By which a person's own keys for it are kept; the first of its keys where it says nothing. */
  id?: string
  /** As `KeyboardEvent.key`; with `Shift+`, `Ctrl+`, `Alt+` or `Alt+Shift+` before it. */
  keys: string[]
  what: string
  run: (event: KeyboardEvent) => void
  /** Also while somebody types. */
  whileTyping?: boolean
  /** Stands on the card only; the browser's own event does it. */
  leaveToBrowser?: boolean
}

interface Group {
  /** Several groups of one scope, such as two players, share their keys; one of them gets each. */
  scope: string
  shortcuts: Shortcut[]
  within?: MaybeRefOrGetter<HTMLElement | null>
}

/** What the `?` card lists: the groups of what is on screen, the newest first. */
export const groups = shallowReactive<Group[]>([])

/** A person's own keys, by scope and id; they take the place of those that a shortcut brings along. */
export const ownKeys = shallowRef<Record<string, string[]>>({})

export const idOf = (scope: string, shortcut: Shortcut): string => `${scope}/${shortcut.id ?? shortcut.keys[0]}`
export const keysOf = (scope: string, shortcut: Shortcut): string[] =>
  shortcut.leaveToBrowser ? shortcut.keys : (ownKeys.value[idOf(scope, shortcut)] ?? shortcut.keys)

export function isTyping(event: KeyboardEvent): boolean {
  const target = event.target as HTMLElement | null
  if (target === null) return false
  // A box that is ticked takes the space bar and no other key.
  if (target instanceof HTMLInputElement && target.type === 'checkbox') return event.key === ' '
  return target.isContentEditable || ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName)
}

/** A key as shortcuts name it. With Alt some systems give another letter; the key that was pressed counts then. */
export function pressed(event: KeyboardEvent): string {
  if (withAlt(event)) {
    const key = /^(?:Key|Digit)(.)$/.exec(event.code)?.[1]?.toLowerCase() ?? event.key
    return `Alt+${event.shiftKey ? 'Shift+' : ''}${key.length === 1 ? key.toLowerCase() : key}`
  }
  // AltGr is how some keyboards write a sign; on some systems it comes as Ctrl and Alt together.
  if (event.getModifierState?.('AltGraph') === true && event.key.length === 1) return event.key
  const key =
    event.key.length === 1 ? (event.ctrlKey || event.metaKey ? event.key.toLowerCase() : event.key) : event.key
  const withShift = event.shiftKey && (event.key.length > 1 || event.ctrlKey || event.metaKey)
  return (event.ctrlKey || event.metaKey ? 'Ctrl+' : '') + (withShift ? 'Shift+' : '') + key
}

/** Alt by itself; as a part of AltGr it only writes a sign. */
const withAlt = (event: KeyboardEvent): boolean =>
  event.altKey && !event.ctrlKey && !event.metaKey && event.getModifierState?.('AltGraph') !== true

/** A dialog takes Enter and Escape wherever the focus is; the page behind it gets no key. True when it was one. */
function answerDialog(dialog: HTMLElement, event: KeyboardEvent): boolean {
  // A control of the dialog answers Enter itself.
  const control = (event.target as HTMLElement).closest('button, input, textarea, select, a, [role=listbox]')
  const hasOwn = control !== null && dialog.contains(control)
  const button =
    event.key === 'Escape' ? '.ant-modal-close' : event.key === 'Enter' && !hasOwn ? '.ant-btn-primary' : null
  if (button === null) return false
  event.preventDefault()
  dialog.querySelector<HTMLElement>(button)?.click()
  return true
}

const isClosing = (dialog: HTMLElement): boolean => dialog.querySelector('.ant-zoom-leave') !== null

/** Of several groups of a scope the one that was pointed at or had the focus last, else the newest. */
let lastTouched: Node | null = null
function isActive(group: Group, dialog: HTMLElement | undefined): boolean {
  const element = toValue(group.within)
  // What is not on screen, such as what a closed dialog holds, listens to nothing.
  if (element === null || (dialog !== undefined && (element === undefined || !dialog.contains(element)))) return false
  const alike = groups.filter(
    (one) =>
      one.scope === group.scope &&
      one.within !== undefined &&
      (dialog === undefined || dialog.contains(toValue(one.within))),
  )
  if (group.within === undefined || alike.length < 2) return true
  const touched = alike.find((one) => lastTouched !== null && toValue(one.within)?.contains(lastTouched) === true)
  return (touched ?? alike[0]) === group
}

function listen(event: KeyboardEvent): void {
  if (event.defaultPrevented) return
  // Alt together with Ctrl is the system's or the browser's, unless it is how a keyboard writes AltGr.
  if (event.altKey && !withAlt(event) && event.getModifierState?.('AltGraph') !== true) return
  const dialogs = [...document.querySelectorAll<HTMLElement>('.ant-modal-wrap:not([style*="display: none"])')]
  // One that fades away has had its answer; a key pressed meanwhile is for the page.
  const dialog = dialogs.find((one) => !isClosing(one))
  if (dialog !== undefined && answerDialog(dialog, event)) return
  const typing = isTyping(event) && !dialogs.some((one) => one.contains(event.target as Node))
  const name = pressed(event)
  for (const group of groups) {
    if (!isActive(group, dialog)) continue
    for (const shortcut of group.shortcuts) {
      const isMeant = keysOf(group.scope, shortcut).includes(name) && shortcut.leaveToBrowser !== true
      if (isMeant && (!typing || shortcut.whileTyping)) {
        // Enter and Space belong to a button that has the focus, unless it stands for a row that the page acts on.
        if (
          (name === 'Enter' || name === ' ') &&
          (event.target as HTMLElement).closest('button:not([data-row]), a, [role=button]') !== null
        )
          return
        event.preventDefault()
        shortcut.run(asMeant(event, shortcut, group.scope, name))
        return
      }
    }
  }
}

/** A shortcut for two keys asks which one it was; of a person's own keys the first stands for its first, and so on. */
function asMeant(event: KeyboardEvent, shortcut: Shortcut, scope: string, name: string): KeyboardEvent {
  const usual = shortcut.keys[keysOf(scope, shortcut).indexOf(name)] ?? shortcut.keys[0]!
  if (usual === name) return event
  return new KeyboardEvent('keydown', {
    key: usual.replace(/^(Ctrl\+|Alt\+)?(Shift\+)?(?=.)/, ''),
    ctrlKey: usual.startsWith('Ctrl+'),
    altKey: usual.startsWith('Alt+'),
    shiftKey: usual.includes('Shift+'),
    repeat: event.repeat,
  })
}

let installed = false
function install(): void {
  if (installed) return
  installed = true
  window.addEventListener('keydown', listen)
  for (const kind of ['pointerdown', 'focusin'] as const)
    window.addEventListener(kind, (event) => (lastTouched = event.target as Node | null), { capture: true })
}

/**
 * Shortcuts for as long as their owner is on screen; they stand on the `?` card under their scope's name. Where two
 * owners of one scope can be on a page, each says within which element it lives;
 * one within a dialog has its keys there.
 */
export function useShortcuts(
  scope: string,
  shortcuts: Shortcut[],
  within?: MaybeRefOrGetter<HTMLElement | null>,
): void {
  install()
  const group: Group = { scope, shortcuts, ...(within === undefined ? {} : { within }) }
  groups.unshift(group)
  onScopeDispose(() => {
    const at = groups.findIndex((other) => other.shortcuts === shortcuts || other.shortcuts[0] === shortcuts[0])
    if (at >= 0) groups.splice(at, 1)
  })
}
