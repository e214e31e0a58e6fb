import { t } from '@/words'
import { useDebounceFn } from '@vueuse/core'
import { computed, type Ref, ref, shallowRef, watch } from 'vue'
import { bins, type RuleGroup } from '@/api/endpoints/bins'
import { ApiError } from '@/api/client'
import { makeStale } from '@/api/queries'
import type { BinArrangement, BinPage, RuleSubject } from '@/api/types'
import { attempt, say } from '@/shell/say'
import { EMPTY, isWhole, ofWords } from './rule'

/** A rule that is being written or changed: what it lets through is looked at before it is kept. */
export function useRuleDraft(options: {
  production: () => string
  binKey: Ref<string | null>
  isNew: Ref<boolean>
  /** Words of a search that it begins with; empty begins from nothing. */
  words: () => unknown
  kept: Ref<BinPage | undefined>
  subjects: Ref<RuleSubject[]>
  arrangement: Ref<BinArrangement>
  limit: number
  make: (rule: RuleGroup, made: () => void) => void
  again: () => Promise<unknown>
  drop: () => void
}) {
  const draft = shallowRef<RuleGroup | null>(null)
  const looked = shallowRef<BinPage>()
  /** How long all of it is; null while that is not known. */
  const lookedTicks = ref<number | null>(null)
  const trouble = ref<string | null>(null)
  const isDraft = computed(() => draft.value !== null)
  const keptRule = computed(() => (options.kept.value?.rule as unknown as RuleGroup | null | undefined) ?? null)
  const rule = computed(() => draft.value ?? keptRule.value)
  const byKey = computed(() => new Map(options.subjects.value.map((one) => [one.key, one])))
  const id = options.production
  watch(
    options.words,
    (words) => (draft.value = typeof words === 'string' ? (words === '' ? EMPTY : ofWords(words)) : null),
    { immediate: true },
  )
  watch(options.binKey, () => options.isNew.value || (draft.value = null))
  let lookedAt = 0
  async function look(): Promise<void> {
    const now = draft.value
    if (now === null || !isWhole(now, byKey.value)) return
    const turn = ++lookedAt
    try {
      const page = await bins.look(id(), now, options.arrangement.value, 0, options.limit)
      if (turn !== lookedAt || draft.value === null) return
      looked.value = page
      lookedTicks.value = page.ticks
      trouble.value = null
      if (page.ticks !== null) return
      const sum = await bins.lookSum(id(), now, options.arrangement.value)
      if (turn === lookedAt) lookedTicks.value = sum.ticks
    } catch (fault) {
      if (turn === lookedAt)
        trouble.value = fault instanceof ApiError ? fault.message : t('bins.useRuleDraft.itCouldNotBeLooked')
    }
  }
  const lookSoon = useDebounceFn(() => void look(), 120)
  watch([draft, options.arrangement, options.subjects], () =>
    draft.value === null ? (looked.value = undefined) : void lookSoon(),
  )
  function changeRule(now: RuleGroup): void {
    trouble.value = null
    draft.value = now
  }
  async function keepRule(): Promise<void> {
    const now = draft.value
    if (now === null) return
    if (!isWhole(now, byKey.value)) return say(t('bins.useRuleDraft.aWordOfTheRule'))
    if (options.isNew.value) return options.make(now, () => (draft.value = null))
    const of = options.binKey.value
    if (of === null) return
    const was = keptRule.value ?? undefined
    if ((await attempt(() => bins.change(id(), of, { rule: now, was }))) === undefined) return
    say(t('bins.useRuleDraft.theRuleIsKeptCtrl'))
    await options.again()
    draft.value = null
    makeStale('bins')
  }
  function dropRule(): void {
    draft.value = null
    if (options.isNew.value) options.drop()
  }
  return { draft, isDraft, looked, lookedTicks, trouble, changeRule, keepRule, dropRule, keptRule, rule }
}
