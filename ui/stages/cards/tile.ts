import { t } from '@/words'
import { locale } from '@/words/language'
import type { Card, Volume } from '@/api/types'

/** What a tile shows large enough to be read from two metres. */
export interface Stamp {
  text: string
  look: 'good' | 'info' | 'fault' | 'act' | 'soft'
}

export function stampOf(card: Card): Stamp | null {
  if (card.state === 'copying') return null
  if (card.state === 'fault' || card.state === 'stopped' || card.copies.some((copy) => !copy.is_whole))
    return { text: 'KEEP', look: 'fault' }
  if (card.released_at !== null) return { text: 'RELEASED', look: 'info' }
  return card.is_safe ? { text: 'VERIFIED', look: 'good' } : { text: 'COPIED', look: 'good' }
}

/** What needs somebody stands first: coming in, faulty, to be released; what is done with comes last. */
export function weightOf(card: Card): number {
  if (card.state === 'copying') return 0
  const text = stampOf(card)?.text
  return text === 'KEEP' ? 1 : text === 'RELEASED' ? 3 : 2
}

export function stampOfVolume(volume: Volume): Stamp {
  return volume.state === 'seen'
    ? { text: 'SEEN', look: 'soft' }
    : { text: volume.state === 'grown' ? 'MORE' : 'NEW', look: 'act' }
}

/** What the one button of a volume does. */
export function offloadLabel(volume: Volume): string {
  if (volume.state === 'seen') return t('cards.tile.compareWithTheCopies')
  if (volume.state === 'grown')
    return t('cards.tile.offloadNew', [
      volume.new_files,
      volume.new_files === 1 ? t('cards.tile.file') : t('cards.tile.files'),
    ])
  return volume.state === 'reused' ? t('cards.tile.offloadAs', [volume.roll]) : t('cards.tile.offload', [volume.name])
}

export const timeOf = (iso: string | null): string =>
  iso === null ? '' : new Date(iso).toLocaleTimeString(locale, { hour: '2-digit', minute: '2-digit' })

/** `08:52 to 11:40` of two local times; empty where one is not known. */
export function span(first: string | null | undefined, last: string | null | undefined): string {
  return !first || !last ? '' : t('cards.tile.to', [first.slice(11, 16), last.slice(11, 16)])
}

export interface Difference {
  sign: '−' | '≠' | '→' | '+' | '!'
  what: string
  look: 'fault' | 'warn' | 'soft'
  name: string
  note: string
}
export interface DifferenceFolder {
  path: string
  files: Difference[]
}

interface Found {
  missing: string[]
  altered: string[]
  new: string[]
  renamed: { from: string; to: string }[]
  problems: string[]
}

/** What a check found, folder by folder in their order; what concerns the manifest itself stands first. */
export function differenceTree(found: Found): DifferenceFolder[] {
  const folders = new Map<string, Difference[]>()
  const put = (path: string, sign: Difference['sign'], what: string, look: Difference['look'], note = ''): void => {
    const cut = path.lastIndexOf('/')
    const folder = cut < 0 ? '' : path.slice(0, cut)
    const files = folders.get(folder) ?? []
    files.push({ sign, what, look, name: path.slice(cut + 1), note })
    folders.set(folder, files)
  }
  for (const path of found.missing) put(path, '−', t('cards.tile.missing'), 'fault')
  for (const path of found.altered) put(path, '≠', t('cards.tile.altered'), 'fault')
  for (const { from, to } of found.renamed) put(to, '→', t('cards.tile.renamed'), 'warn', t('cards.tile.was', [from]))
  for (const path of found.new) put(path, '+', t('cards.tile.new'), 'soft')
  const tree = [...folders]
    .sort(([x], [y]) => x.localeCompare(y))
    .map(([path, files]) => ({ path, files: files.sort((x, y) => x.name.localeCompare(y.name)) }))
  if (found.problems.length > 0)
    tree.unshift({
      path: 'ascmhl',
      files: found.problems.map((name) => ({
        sign: '!' as const,
        what: t('cards.tile.manifest'),
        look: 'fault' as const,
        name,
        note: '',
      })),
    })
  return tree
}
