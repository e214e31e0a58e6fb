import { onScopeDispose, ref, shallowRef } from 'vue'
import { assembly } from '@/api/endpoints/assembly'
import { ApiError } from '@/api/client'
import { onLive } from '@/api/live'
import { willMakeStale } from '@/api/queries'
import type { SequenceEdited, SequenceStep, SequenceVersion } from '@/api/types'
import { complain } from '@/shell/say'
import { applied, type CutChange, type CutItem, type CutValue } from './value'

/** Something one asks of a cut; a page sees it as JSON. */
export type Operation = { op: string } & Record<string, unknown>

/**
 * A cut as it is by now: its own steps and those of others come in their order, each as a short change. What is asked
 * of it waits for what was asked before.
 */
export function useCut(production: () => string, sequence: () => string) {
  const value = shallowRef<CutValue | null>(null)
  const name = ref('')
  const kind = ref<string>('cut')
  const versions = shallowRef<SequenceVersion[]>([])
  const step = ref(0)
  const error = shallowRef<ApiError | null>(null)
  const isPending = ref(true)
  /** Called with what only moved, from the item that it was to the one that it is. */
  const listeners = new Set<(moved: Map<CutItem, CutItem>) => void>()
  let line: Promise<unknown> = Promise.resolve()
  let isClosed = false
  onScopeDispose(() => (isClosed = true))

  let busy = 0
  const acts: (() => void)[] = []
  /** One thing after the other. */
  function inLine<T>(work: () => Promise<T>): Promise<T> {
    busy++
    const turn = line.then(work)
    line = turn
      .catch(() => undefined)
      .then(() => {
        busy--
        next()
      })
    return turn
  }
  function next(): void {
    while (busy === 0 && acts.length > 0) acts.shift()!()
  }
  /**
   * What a hand does, in its order: an act that names items by their place waits until the step before it is here,
   * and what moves the playhead waits with it.
   */
  function act(work: () => void): void {
    acts.push(work)
    next()
  }
  function take(number: number, change: Record<string, unknown>): void {
    if (value.value === null) return
    const done = applied(value.value, change as unknown as CutChange)
    value.value = done.value
    step.value = number
    for (const listener of listeners) listener(done.moved)
  }
  async function read(): Promise<void> {
    try {
      const answer = await assembly.cut(production(), sequence())
      value.value = answer.value as unknown as CutValue
      ;[name.value, kind.value, step.value, versions.value] = [answer.name, answer.kind, answer.step, answer.versions]
      error.value = null
      for (const listener of listeners) listener(new Map())
    } catch (trouble) {
      if (value.value !== null || !(trouble instanceof ApiError)) throw trouble
      error.value = trouble
    }
    isPending.value = false
  }
  /** What others did, or what was taken back. */
  async function catchUp(to: number): Promise<void> {
    if (to <= step.value || isClosed) return
    const { steps } = await assembly.steps(production(), sequence(), step.value)
    if (steps === null) await read()
    else for (const one of steps) if (one.number === step.value + 1) take(one.number, one.change)
  }
  /** What one took back oneself comes with its answer, where nobody did anything meanwhile. */
  async function takenBack(facts: Record<string, unknown>): Promise<void> {
    const made = facts.made as SequenceStep | null
    if (made !== null && facts.sequence === sequence() && made.number === step.value + 1) take(made.number, made.change)
    else await catchUp(Infinity)
  }
  async function asked(work: (step: number) => Promise<SequenceEdited>): Promise<boolean> {
    return inLine(async () => {
      willMakeStale('sequences')
      try {
        const before = step.value
        const answer = await work(before)
        // Where others took steps meanwhile, theirs come first.
        if (answer.step !== null && answer.step.number > before + 1) await catchUp(answer.step.number)
        else if (answer.step !== null) take(answer.step.number, answer.step.change)
        return true
      } catch (trouble) {
        complain(trouble)
        if (trouble instanceof ApiError && trouble.status === 409) await read().catch(() => undefined)
        return false
      }
    })
  }
  onLive('sequences', (facts) => {
    if (facts.undone === true) {
      if (facts.sequence === sequence() && facts.made !== null) facts.taken = true
      void inLine(() => takenBack(facts)).catch(() => undefined)
      return
    }
    if (facts.sequence !== sequence()) return
    if (typeof facts.step === 'number') void inLine(() => catchUp(facts.step as number)).catch(() => undefined)
    // Names and versions come with the whole.
    else void inLine(read).catch(() => undefined)
  })
  void inLine(read).catch(complain)

  return {
    value,
    name,
    kind,
    versions,
    step,
    error,
    isPending,
    read: () => inLine(read),
    act,
    edit: (operations: Operation[], label: string) =>
      asked((now) => assembly.edit(production(), sequence(), now, operations, label)),
    /** Whatever else answers with the step that it made. */
    ask: asked,
    onStep(listener: (moved: Map<CutItem, CutItem>) => void): void {
      listeners.add(listener)
    },
  }
}

export type ActiveCut = ReturnType<typeof useCut>
