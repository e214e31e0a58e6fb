import { QueryObserver } from '@tanstack/vue-query'
import { describe, expect, it, vi } from 'vitest'
import { type Cause, justMadeStale, makeStale, queryClient } from './queries'

function staleAfter(topic: Cause): string[] {
  queryClient.clear()
  const paths = [
    '',
    'tasks',
    'days/D/cards',
    'days/D/log',
    'days/D/sheet',
    'days/D/tabs',
    'days/D/lineup',
    'bins',
    'bins/scene:3/clips?from=0',
    'clips/C',
    'reels/R',
    'days/D/reels',
    'handoffs',
    '(nothing)',
  ]
  for (const path of paths) queryClient.setQueryData(['P', path], {})
  makeStale(topic)
  return paths.filter((path) => queryClient.getQueryState(['P', path])?.isInvalidated)
}

describe('what a change makes old', () => {
  it('is all that shows it, and never the production itself or a question that waits', () => {
    expect(staleAfter('takes')).toEqual([
      'days/D/log',
      'days/D/sheet',
      'days/D/tabs',
      'days/D/lineup',
      'bins',
      'bins/scene:3/clips?from=0',
      'clips/C',
      'reels/R',
      'days/D/reels',
    ])
    expect(staleAfter('cards')).toEqual(['days/D/cards', 'days/D/sheet', 'days/D/tabs'])
    expect(staleAfter('notes')).toEqual(['reels/R', 'days/D/reels'])
    expect(staleAfter('handoffs')).toEqual(['days/D/sheet', 'handoffs'])
  })

  it('is also an answer that was on its way when it happened', async () => {
    queryClient.clear()
    let asked = 0
    const answers: ((value: string) => void)[] = []
    const observer = new QueryObserver(queryClient, {
      queryKey: ['P', 'looks'],
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
    expect([justMadeStale('bins'), justMadeStale('sequences')]).toEqual([true, false])
  })

  it('is nothing for a topic that no page knows', () => {
    expect(staleAfter('weather' as Cause)).toEqual([])
  })
})
