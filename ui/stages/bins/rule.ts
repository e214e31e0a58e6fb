import { t } from '@/words'
import type { RuleCondition, RuleGroup } from '@/api/endpoints/bins'
import type { RuleSubject } from '@/api/types'

/** Where in a rule something stands: the place in the outermost group, then in the one inside, and so on. */
export type Path = readonly number[]

export const isGroup = (part: RuleCondition | RuleGroup): part is RuleGroup => 'join' in part
export const EMPTY: RuleGroup = { join: 'all', parts: [] }

/**
 * The rule with a part replaced by what a change makes of it; null takes it out, and groups that nothing is left in
 * with it.
 */
export function changed(
  group: RuleGroup,
  path: Path,
  change: (part: RuleCondition | RuleGroup) => RuleCondition | RuleGroup | null,
): RuleGroup {
  const [at, ...rest] = path
  if (at === undefined) return (change(group) as RuleGroup | null) ?? EMPTY
  return {
    ...group,
    parts: group.parts.flatMap((part, index) => {
      if (index !== at) return [part]
      const next = rest.length === 0 ? change(part) : isGroup(part) ? changed(part, rest, change) : part
      return next === null || (isGroup(next) && next.parts.length === 0) ? [] : [next]
    }),
  }
}

/** With a condition behind the last part of a group. */
export const added = (group: RuleGroup, path: Path, condition: RuleCondition): RuleGroup =>
  changed(group, path, (part) => (isGroup(part) ? { ...part, parts: [...part.parts, condition] } : part))

/** With a condition in a group of its own, to which others can be added. */
export const grouped = (group: RuleGroup, path: Path): RuleGroup =>
  changed(group, path, (part) => ({ join: 'any', parts: [part] }))

export const joined = (group: RuleGroup, path: Path, join: RuleGroup['join']): RuleGroup =>
  changed(group, path, (part) => (isGroup(part) ? { ...part, join } : part))

/** A new condition about something: its first question, with the first thing that can be chosen. */
export function begun(subject: RuleSubject): RuleCondition {
  const test = subject.tests[0]!
  return {
    about: subject.key,
    test: test.test,
    values: test.values
      ? subject.choices
          .filter((one) => one.value !== 'none')
          .slice(0, 1)
          .map((one) => one.value)
      : [],
  }
}

/** Whether it can be asked: a test that takes words has some. */
export const isWhole = (part: RuleCondition | RuleGroup, subjects: Map<string, RuleSubject>): boolean =>
  isGroup(part)
    ? part.parts.every((one) => isWhole(one, subjects))
    : subjects.get(part.about)?.tests.find((one) => one.test === part.test)?.values !== true || part.values.length > 0

/** What a condition says: the words before those that can be changed, these, and the words behind. */
export function phrase(
  part: RuleCondition,
  subjects: Map<string, RuleSubject>,
): { before: string; words: string; after: string } {
  const subject = subjects.get(part.about)
  if (subject === undefined) return { before: t('bins.rule.ofSomethingThatIsGone'), words: '', after: '' }
  const said = subject.tests.find((one) => one.test === part.test)?.phrase ?? '{}'
  const word = (value: string) => subject.choices.find((one) => one.value === value)?.word ?? value
  const [before = '', after] = said.split('{}')
  return after === undefined
    ? { before: '', words: before, after: '' }
    : { before, words: part.values.map(word).join(' or ') || '…', after }
}

/** A rule for words that were looked for: each of them in a name, in what happens, in notes, keywords or markers. */
export const ofWords = (words: string): RuleGroup => ({
  join: 'all',
  parts: words
    .split(/\s+/)
    .filter((word) => word !== '')
    .map((word): RuleGroup => ({
      join: 'any',
      parts: ['named', 'description', 'notes', 'keywords', 'marker'].map((about) => ({
        about,
        test: 'contains',
        values: [word],
      })),
    })),
})
