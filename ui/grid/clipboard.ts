import { useEventListener } from '@vueuse/core'
import { isTyping } from '@/shell/keys'

/** Cells as spreadsheets put them on the clipboard: tabs and line ends, quotes around what holds one of these. */
export function toTsv(rows: string[][]): string {
  return rows
    .map((row) => row.map((cell) => (/[\t\n\r"]/.test(cell) ? `"${cell.replaceAll('"', '""')}"` : cell)).join('\t'))
    .join('\n')
}

export function fromTsv(text: string): string[][] {
  const rows: string[][] = [[]]
  let cell = ''
  let quoted = false
  const source = text.replaceAll('\r\n', '\n').replaceAll('\r', '\n').replace(/\n$/, '')
  for (let at = 0; at < source.length; at++) {
    const one = source[at]!
    if (quoted) {
      if (one !== '"') cell += one
      else if (source[at + 1] === '"') cell += source[++at]
      else quoted = false
    } else if (one === '"' && cell === '') quoted = true
    else if (one === '\t' || one === '\n') {
      rows.at(-1)!.push(cell)
      cell = ''
      if (one === '\n') rows.push([])
    } else cell += one
  }
  rows.at(-1)!.push(cell)
  return rows
}

/** Whether a key or the clipboard is for something else than the grid: a field, or a dialog over it. */
export const isElsewhere = (event: Event): boolean =>
  isTyping(event as KeyboardEvent) || document.querySelector('.ant-modal-wrap:not([style*="display: none"])') !== null

/**
 * Copying out of a grid and pasting into it, by the browser's own events, so that spreadsheets understand both.
 * `copied` gives null where nothing is chosen; `paste` gets the cells.
 */
export function useClipboard(copied: () => string[][] | null, paste: (cells: string[][]) => boolean): void {
  useEventListener(document, 'copy', (event: ClipboardEvent) => {
    if (isElsewhere(event) || (document.getSelection()?.toString() ?? '') !== '') return
    const cells = copied()
    if (cells === null) return
    event.clipboardData?.setData('text/plain', toTsv(cells))
    event.preventDefault()
  })
  useEventListener(document, 'paste', (event: ClipboardEvent) => {
    const text = event.clipboardData?.getData('text/plain') ?? ''
    if (isElsewhere(event) || text === '') return
    if (paste(fromTsv(text))) event.preventDefault()
  })
}
