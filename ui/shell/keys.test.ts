// @vitest-environment happy-dom
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { effectScope, type EffectScope } from 'vue'
import { ownKeys, useShortcuts } from './keys'

let scope: EffectScope
beforeEach(() => (scope = effectScope()))
afterEach(() => {
  scope.stop()
  ownKeys.value = {}
})
const press = (key: string, on: EventTarget = document.body) =>
  on.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }))

describe('shortcuts', () => {
  it('listen to the keys that a person gave them, and are told which of their own was meant', () => {
    const heard: string[] = []
    scope.run(() => useShortcuts('Player', [{ keys: ['j', 'l'], what: 'x', run: (event) => heard.push(event.key) }]))
    press('l')
    ownKeys.value = { 'Player/j': ['a', 'd'] }
    press('l')
    press('d')
    press('a')
    expect(heard).toEqual(['l', 'l', 'j'])
  })

  it('reach the page from a box that was ticked, all but the space bar that ticks it', () => {
    const heard: string[] = []
    scope.run(() => useShortcuts('Player', [{ keys: [' ', '.'], what: 'x', run: (event) => heard.push(event.key) }]))
    const box = document.body.appendChild(document.createElement('input'))
    press('.', box)
    box.type = 'checkbox'
    press('.', box)
    press(' ', box)
    expect(heard).toEqual(['.'])
    box.remove()
  })

  it('go to the one of two players that was touched last', () => {
    const heard: string[] = []
    const boxes = ['first', 'second'].map((name) => {
      const box = document.body.appendChild(document.createElement('div'))
      scope.run(() => useShortcuts('Player', [{ keys: [' '], what: 'play', run: () => heard.push(name) }], () => box))
      return box
    })
    press(' ')
    boxes[0]!.dispatchEvent(new Event('pointerdown', { bubbles: true }))
    press(' ')
    boxes[1]!.dispatchEvent(new Event('focusin', { bubbles: true }))
    press(' ')
    expect(heard).toEqual(['second', 'first', 'second'])
    boxes.forEach((box) => box.remove())
  })

  it('reach what lives in a dialog while it is open, and nothing behind it', () => {
    const heard: string[] = []
    const dialog = document.body.appendChild(document.createElement('div'))
    dialog.className = 'ant-modal-wrap'
    const [inside, behind] = [dialog, document.body].map((parent) =>
      parent.appendChild(document.createElement('section')),
    )
    scope.run(() => {
      useShortcuts('Player', [{ keys: ['l'], what: 'x', run: () => heard.push('behind') }], () => behind!)
      useShortcuts('Player', [{ keys: ['l'], what: 'x', run: () => heard.push('inside') }], () => inside!)
      useShortcuts('Page', [{ keys: ['m'], what: 'x', run: () => heard.push('page') }])
      useShortcuts('Other dialog', [{ keys: ['l', 'm'], what: 'x', run: () => heard.push('closed') }], () => null)
    })
    behind!.dispatchEvent(new Event('pointerdown', { bubbles: true }))
    press('l')
    press('m')
    dialog.remove()
    press('l')
    press('m')
    expect(heard).toEqual(['inside', 'behind', 'page'])
    behind!.remove()
  })

  it('know Alt by the key that was pressed, and take what AltGr writes for the sign', () => {
    const heard: string[] = []
    scope.run(() =>
      useShortcuts('Player', [
        { keys: ['Alt+i'], what: 'x', run: () => heard.push('go') },
        { keys: ['Alt+Shift+i'], what: 'x', run: () => heard.push('clear') },
        { keys: ['['], what: 'x', run: () => heard.push('angle') },
      ]),
    )
    const alt = (more: KeyboardEventInit, isAltGr = false) => {
      const event = new KeyboardEvent('keydown', { altKey: true, bubbles: true, cancelable: true, ...more })
      event.getModifierState = (name: string) => name === 'AltGraph' && isAltGr
      document.body.dispatchEvent(event)
    }
    alt({ key: 'ˆ', code: 'KeyI' })
    alt({ key: 'I', code: 'KeyI', shiftKey: true })
    alt({ key: '[', code: 'Digit8', ctrlKey: true }, true)
    expect(heard).toEqual(['go', 'clear', 'angle'])
  })

  it('leave words that are typed alone, and end with their owner', () => {
    const heard: string[] = []
    scope.run(() => useShortcuts('Log', [{ keys: ['c'], what: 'circle', run: () => heard.push('c') }]))
    const field = document.body.appendChild(document.createElement('input'))
    press('c', field)
    press('c')
    scope.stop()
    press('c')
    field.remove()
    expect(heard).toEqual(['c'])
  })
})
