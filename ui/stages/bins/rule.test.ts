import { describe, expect, it } from 'vitest'
import type { RuleCondition, RuleGroup } from '@/api/endpoints/bins'
import type { RuleSubject } from '@/api/types'
import { added, begun, changed, EMPTY, grouped, isWhole, joined, ofWords, phrase } from './rule'

const is = (about: string, ...values: string[]): RuleCondition => ({ about, test: 'is', values })
const rule: RuleGroup = {
  join: 'all',
  parts: [is('status', 'circled'), { join: 'any', parts: [is('device', 'A'), is('device', 'B')] }],
}
const status: RuleSubject = {
  key: 'status',
  label: 'Status',
  type: 'choice',
  tests: [
    { test: 'is', phrase: 'that is {}', values: true, several: true },
    { test: 'is_not', phrase: 'that is not {}', values: true, several: true },
  ],
  choices: [
    { value: 'none', word: 'without a status' },
    { value: 'circled', word: 'circled' },
  ],
}
const cut: RuleSubject = {
  key: 'cut',
  label: 'Cuts',
  type: 'holder',
  tests: [
    { test: 'filled', phrase: 'used in a cut', values: false, several: false },
    { test: 'is', phrase: 'used in the cut {}', values: true, several: true },
  ],
  choices: [],
}
const subjects = new Map([status, cut].map((one) => [one.key, one]))

describe('a rule that is changed', () => {
  it('loses a condition, and a group that nothing is left in', () => {
    const once = changed(rule, [1, 0], () => null)
    expect(once.parts[1]).toEqual({ join: 'any', parts: [is('device', 'B')] })
    expect(changed(once, [1, 0], () => null)).toEqual({ join: 'all', parts: [is('status', 'circled')] })
    expect(changed(EMPTY, [], () => null)).toEqual(EMPTY)
  })
  it('gets a condition in the group that was asked, and leaves the others alone', () => {
    const next = added(rule, [1], is('device', 'C'))
    expect((next.parts[1] as RuleGroup).parts).toHaveLength(3)
    expect(next.parts[0]).toBe(rule.parts[0])
    expect(rule.parts).toHaveLength(2)
  })
  it('puts a condition into brackets, and joins a group in another way', () => {
    expect(grouped(rule, [0]).parts[0]).toEqual({ join: 'any', parts: [is('status', 'circled')] })
    expect((joined(rule, [1], 'none').parts[1] as RuleGroup).join).toBe('none')
    expect(joined(rule, [], 'any').join).toBe('any')
  })
})

describe('a condition', () => {
  it('begins with a choice that says something', () => {
    expect(begun(status)).toEqual(is('status', 'circled'))
    expect(begun(cut)).toEqual({ about: 'cut', test: 'filled', values: [] })
  })
  it('is whole when what it asks with words has some', () => {
    expect(isWhole(begun(cut), subjects)).toBe(true)
    expect(isWhole(is('cut'), subjects)).toBe(false)
    expect(isWhole({ join: 'all', parts: [is('status', 'circled'), is('cut')] }, subjects)).toBe(false)
  })
  it('is said in the words of the server, and says when something is missing or gone', () => {
    expect(phrase(is('status', 'circled', 'none'), subjects)).toEqual({
      before: 'that is ',
      words: 'circled or without a status',
      after: '',
    })
    expect(phrase(begun(cut), subjects)).toEqual({ before: '', words: 'used in a cut', after: '' })
    expect(phrase(is('cut'), subjects).words).toBe('…')
    expect(phrase(is('weather'), subjects).before).toContain('gone')
  })
})

it('makes words that were looked for a rule: each of them somewhere', () => {
  const made = ofWords('  gull  tide ')
  expect(made.join).toBe('all')
  expect(made.parts.map((part) => (part as RuleGroup).parts.map((one) => (one as RuleCondition).values[0]))).toEqual([
    ['gull', 'gull', 'gull', 'gull', 'gull'],
    ['tide', 'tide', 'tide', 'tide', 'tide'],
  ])
})
