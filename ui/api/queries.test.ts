import { describe, expect, it } from 'vitest'
import { makeStale, queryClient } from './queries'

function staleAfter(topic: string): string[] {
  queryClient.clear()
  const paths = ['', 'tasks', 'days/D/cards', 'days/D/log', 'days/D/sheet', 'days/D/tabs', 'days/D/lineup', 'bins', 'bins/scene:3/clips?from=0', 'clips/C', 'reels/R', 'days/D/reels', 'handoffs', '(nothing)']
  for (const path of paths) queryClient.setQueryData(['P', path], {})
  makeStale(topic)
  return paths.filter((path) => queryClient.getQueryState(['P', path])?.isInvalidated)
}

describe('what a change makes old', () => {
  it('is all that shows it, and never the production itself or a question that waits', () => {
    expect(staleAfter('takes')).toEqual(['days/D/log', 'days/D/sheet', 'days/D/tabs', 'days/D/lineup', 'bins', 'bins/scene:3/clips?from=0', 'clips/C', 'reels/R', 'days/D/reels'])
    expect(staleAfter('cards')).toEqual(['days/D/cards', 'days/D/sheet', 'days/D/tabs'])
    expect(staleAfter('notes')).toEqual(['reels/R', 'days/D/reels'])
    expect(staleAfter('handoffs')).toEqual(['days/D/sheet', 'handoffs'])
  })

  it('is nothing for a topic that no page knows', () => {
    expect(staleAfter('weather')).toEqual([])
  })
})
