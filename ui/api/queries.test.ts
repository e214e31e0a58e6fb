import { QueryObserver } from '@tanstack/vue-query'
import { describe, expect, it, vi } from 'vitest'
import { type Ask, type Cause, pathOf } from './ask'
import { bins } from './endpoints/bins'
import { cards } from './endpoints/cards'
import { day } from './endpoints/day'
import { handoff } from './endpoints/handoff'
import { lineup } from './endpoints/lineup'
import { log } from './endpoints/log'
import { screening } from './endpoints/screening'
import { shell } from './endpoints/shell'
import { justMadeStale, makeStale, queryClient, setAnswer, willMakeStale } from './queries'

const asks: Record<string, Ask<unknown>> = {
  production: shell.production('P'),
  tasks: shell.tasks('P'),
  cards: cards.stage('P', 'D'),
  log: log.sheet('P', 'D'),
  sheet: day.sheet('P', 'D'),
  tabs: shell.tabs('P', 'D'),
  lineup: lineup.day('P', 'D'),
  bins: bins.tree('P'),
  bin: bins.page('P', 'scene:3', { order: 'slate', down: false, takes: false, days: [], devices: [] }, 200),
  clip: bins.clip('P', 'C'),
  history: log.history('P', 'T'),
  reel: screening.reel('P', 'R'),
  reels: screening.reels('P', 'D'),
  handoffs: handoff.list('P'),
}

function staleAfter(topic: Cause, facts: Record<string, unknown> = {}): string[] {
  queryClient.clear()
  for (const one of Object.values(asks)) setAnswer(one, {})
  queryClient.setQueryData(['(nothing)'], {})
  makeStale(topic, facts)
  return Object.keys(asks).filter((name) => queryClient.getQueryState(asks[name]!.key)?.isInvalidated)
}

describe('what a change makes old', () => {
  it('leaves it to a page to ask for what it is changing itself', () => {
    queryClient.clear()
    setAnswer(asks.bin!, {})
    willMakeStale('words')
    expect(justMadeStale('words')).toBe(true)
    expect(queryClient.getQueryState(asks.bin!.key)?.isInvalidated).toBe(false)
  })

  it('is all that shows it, and never the production itself or a question that waits', () => {
    expect(staleAfter('takes')).toEqual([
      'log',
      'sheet',
      'tabs',
      'lineup',
      'bins',
      'bin',
      'clip',
      'history',
      'reel',
      'reels',
    ])
    expect(staleAfter('cards')).toEqual(['cards', 'sheet', 'tabs'])
    expect(staleAfter('notes')).toEqual(['reel', 'reels'])
    expect(staleAfter('handoffs')).toEqual(['sheet', 'tabs', 'handoffs'])
    expect(queryClient.getQueryState(['(nothing)'])?.isInvalidated).toBe(false)
  })

  it('is nothing that is about another row than the one that changed', () => {
    expect(staleAfter('takes', { take: 'other' })).not.toContain('history')
    expect(staleAfter('takes', { take: 'T' })).toContain('history')
    expect(staleAfter('sequences', { sequence: 'other' })).toEqual(['sheet', 'bin', 'reels'])
    expect(staleAfter('clips', { clip: 'C' })).toContain('clip')
  })

  it('asks the same address again that it came from', () => {
    for (const one of Object.values(asks)) expect(pathOf(one.key)).toBe(one.path)
  })

  it('is also an answer that was on its way when it happened', async () => {
    queryClient.clear()
    let asked = 0
    const answers: ((value: string) => void)[] = []
    const observer = new QueryObserver(queryClient, {
      queryKey: lineup.looks('P').key,
      queryFn: () =>
        new Promise<string>((answer) => {
          asked += 1
          answers.push(answer)
        }),
    })
    const stop = observer.subscribe(() => undefined)
    expect(asked).toBe(1)
    makeStale('looks')
    answers[0]?.('from before')
    await vi.waitUntil(() => asked === 2)
    answers[1]?.('from after')
    await vi.waitUntil(() => observer.getCurrentResult().data === 'from after')
    stop()
  })

  it('is what this page did itself only once', () => {
    makeStale('bins')
    expect([justMadeStale('bins'), justMadeStale('lanes')]).toEqual([true, false])
  })

  it('is nothing for a topic that no page knows', () => {
    expect(staleAfter('weather' as Cause)).toEqual([])
  })
})
