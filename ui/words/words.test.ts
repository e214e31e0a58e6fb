import { parse } from 'vue/compiler-sfc'
import { describe, expect, it } from 'vitest'
import en from './en'
import italian from './it'
import { counted, decimal, t } from './index'

/** Every word of the interface, of both languages: none is missing, none is left over, none lost a place. */
type Tree = { [name: string]: string | Tree }
const flat = (tree: Tree, above = ''): [string, string][] =>
  Object.entries(tree).flatMap(([name, value]): [string, string][] =>
    typeof value === 'string' ? [[above + name, value]] : flat(value, `${above}${name}.`),
  )
const english = new Map(flat(en as Tree))
const other = new Map(flat(italian as Tree))
const sources = import.meta.glob(['../**/*.{vue,ts}', '!../**/*.test.ts'], {
  query: '?raw',
  import: 'default',
  eager: true,
})
const said = Object.entries(sources as Record<string, string>).flatMap(([file, text]) =>
  [...text.matchAll(/\bt\(\s*'([\w.]+)'/g)].map(([, name]) => ({ file, name: name! })),
)
/** Names that are put together where they are said: what the desk sends, keys' groups, and what is counted. */
const MADE = /^(values|scopes|counted)\./
const places = (text: string): string[] => [...text.matchAll(/\{\w+\}/g)].map(([place]) => place).sort()

describe('the words of the interface', () => {
  it('are there in both languages', () => {
    expect([...other.keys()].sort()).toEqual([...english.keys()].sort())
    expect([...other].filter(([, text]) => text.trim() === '')).toEqual([])
  })
  it('are there wherever one is said', () => {
    expect(said.filter(({ name }) => !english.has(name))).toEqual([])
    expect(said.length).toBeGreaterThan(2000)
  })
  it('are all said somewhere', () => {
    const names = new Set(said.map(({ name }) => name))
    expect([...english.keys()].filter((name) => !names.has(name) && !MADE.test(name))).toEqual([])
  })
  it('have their places in both languages', () => {
    const missing = [...english].filter(
      // A count of one may be a word of its own.
      ([name, text]) => !name.startsWith('counted.') && places(text).join() !== places(other.get(name) ?? '').join(),
    )
    expect(missing.map(([name]) => name)).toEqual([])
  })
  it('name every group of keys and everything that is counted', () => {
    const texts = Object.entries(sources as Record<string, string>)
    const groups = texts.flatMap(([, text]) =>
      [...text.matchAll(/useShortcuts\(\s*'([^']+)'/g)].map(([, scope]) => scope!),
    )
    const things = texts.flatMap(([, text]) =>
      [...text.matchAll(/\bcounted\([^'()]*(?:\([^()]*\))?[^'()]*'(\w+)'/g)].map(([, what]) => what!),
    )
    expect(groups.filter((scope) => !english.has(`scopes.${scope.replaceAll(/\W/g, '')}`))).toEqual([])
    expect(things.filter((what) => !english.has(`counted.${what}`))).toEqual([])
    expect(groups.length * things.length).toBeGreaterThan(200)
  })
})

/** What an element or attribute of a template says by itself; keys and code are the same in every language. */
interface Node {
  type: number
  tag?: string
  content?: unknown
  props?: { type: number; name: string; value?: { content: string } }[]
  children?: Node[]
}
const READ = new Set(['title', 'label', 'placeholder', 'alt', 'aria-label', 'ok-text', 'cancel-text'])
function bare(node: Node): string[] {
  if (node.tag === 'kbd' || node.tag === 'code') return []
  const own = (node.props ?? []).filter((prop) => prop.type === 6 && READ.has(prop.name))
  const texts = [...own.map((prop) => prop.value?.content ?? ''), node.type === 2 ? String(node.content) : '']
  return [...texts.filter((text) => /[a-z]{3}/.test(text)), ...(node.children ?? []).flatMap(bare)]
}

describe('a template', () => {
  it('says nothing but words of both languages', () => {
    const found = Object.entries(sources as Record<string, string>)
      .filter(([file]) => file.endsWith('.vue'))
      .flatMap(([file, text]) =>
        bare(parse(text).descriptor.template!.ast as unknown as Node).map((word) => `${file}: ${word.trim()}`),
      )
    expect(found).toEqual([])
    // All templates are parsed, which a machine that does other things takes seconds for.
  }, 60_000)
})

describe('a sentence', () => {
  it('has what belongs in its places, and signs that mean something elsewhere', () => {
    expect(t('shell.DeskFrame.of', [2, 5])).toBe('2 of 5')
    expect(t('log.SlatesDialog.setupTake')).toBe('{setup} {take}')
    expect(t('shell.HelpCard.isAlreadyGiveThatAnother', ['<b>{1}|@', 'x'])).toContain('<b>{1}|@')
  })
  it('counts one and several', () => {
    expect([0, 1, 2].map((count) => counted(count, 'clip'))).toEqual(['0 clips', '1 clip', '2 clips'])
  })
  it('writes decimals without groups', () => {
    expect(decimal(1234.56, 1)).toBe('1234.6')
  })
})
