import { useVirtualList } from '@vueuse/core'
import { nextTick, watch, type Ref } from 'vue'

/** Rows of which only those in sight are drawn, and a way to bring one into sight. */
export function useRows<T>(
  rows: Ref<T[]>,
  /** Pixels; of each row by its place, where they differ. */
  height: number | ((at: number) => number),
  options: {
    overscan?: number
    /** Heads that stay at the top cover so many rows. */
    heads?: number
    /** Which row is which: what a colleague adds above those in sight does not push them away. */
    key?: (row: T) => string | undefined
  } = {},
) {
  const { list, containerProps, wrapperProps } = useVirtualList(rows, {
    itemHeight: height,
    overscan: options.overscan ?? 8,
  })
  const heads = options.heads ?? 0
  const heightAt = (at: number) => (typeof height === 'number' ? height : height(at))
  function topOf(at: number): number {
    if (typeof height === 'number') return at * height
    let top = 0
    for (let row = 0; row < at; row++) top += height(row)
    return top
  }
  watch(rows, (now, before) => {
    const scroll = containerProps.ref.value
    const { key } = options
    // Other rows of the same number are another order, which is asked for.
    if (scroll === null || key === undefined || scroll.scrollTop === 0 || now.length === before.length) return
    if (typeof height !== 'number') return
    const at = Math.ceil(scroll.scrollTop / height)
    const seen = before[at] === undefined ? undefined : key(before[at])
    const moved = seen === undefined ? -1 : now.findIndex((row) => row !== undefined && key(row) === seen)
    if (moved === -1 || moved === at) return
    const top = scroll.scrollTop + (moved - at) * height
    void nextTick(() => (scroll.scrollTop = top))
  })
  function reveal(at: number, then?: (scroll: HTMLElement) => void): void {
    void nextTick(() => {
      const scroll = containerProps.ref.value
      if (scroll === null || at < 0) return
      const top = topOf(at)
      const own = heightAt(at)
      if (top < scroll.scrollTop + heads * own) scroll.scrollTop = Math.max(0, top - 2 * heads * own)
      else if (top > scroll.scrollTop + scroll.clientHeight - (1 + heads) * own)
        scroll.scrollTop = top - scroll.clientHeight + (1 + 2 * heads) * own
      then?.(scroll)
    })
  }
  return { list, containerProps, wrapperProps, reveal }
}
