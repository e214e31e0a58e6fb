import { t } from '@/words'
import type { ComputedRef } from 'vue'
import { refuse, say } from '@/shell/say'
import type { Operation } from './useCut'
import type { CutItem, CutTrack } from './value'

interface Copied {
  production: string
  items: { kind: string; role: string; name: string; offset: number; item: CutItem }[]
}
const CLIPBOARD = 'cartella.cut.copied'

/** Copied pieces keep their distances; they are pasted into any cut of the production. */
export function useCopied(options: {
  production: () => string
  meant: ComputedRef<{ track: number; item: CutItem }[]>
  tracks: ComputedRef<CutTrack[]>
  at: ComputedRef<number>
  edit: (operations: Operation[], label: string) => unknown
  nothing: () => void
}) {
  const { meant, tracks } = options
  /** @returns whether there was anything to copy */
  function copy(): boolean {
    if (meant.value.length === 0) {
      options.nothing()
      return false
    }
    const first = Math.min(...meant.value.map((one) => one.item.record_start_ticks))
    const copied: Copied = {
      production: options.production(),
      items: meant.value.map(({ track: on, item }) => ({
        kind: tracks.value[on]!.kind,
        role: tracks.value[on]!.role ?? '',
        name: tracks.value[on]!.name,
        offset: item.record_start_ticks - first,
        item,
      })),
    }
    localStorage.setItem(CLIPBOARD, JSON.stringify(copied))
    say(
      meant.value.length === 1
        ? t('assembly.useCopied.copied')
        : t('assembly.useCopied.piecesCopied', [meant.value.length]),
    )
    return true
  }
  function paste(): void {
    const copied = JSON.parse(localStorage.getItem(CLIPBOARD) ?? 'null') as Copied | null
    if (copied === null || copied.items.length === 0) return refuse(t('assembly.useCopied.nothingWasCopiedYet'))
    if (copied.production !== options.production()) return refuse(t('assembly.useCopied.whatWasCopiedIsOf'))
    const operations = copied.items.flatMap((one) => {
      const alike = tracks.value
        .map((two, index) => ({ two, index }))
        .filter(({ two }) => two.kind === one.kind && !two.locked)
      const on =
        alike.find(({ two }) => two.name === one.name) ??
        alike.find(({ two }) => (two.role ?? '') === one.role) ??
        alike[0]
      return on === undefined
        ? []
        : [{ op: 'lay_over', track: on.index, at_ticks: options.at.value + one.offset, item: one.item }]
    })
    if (operations.length === 0) return refuse(t('assembly.useCopied.thisCutHasNoOpen'))
    void options.edit(operations, operations.length === 1 ? 'Paste' : `Paste ${operations.length} pieces`)
  }
  return { copy, paste }
}
