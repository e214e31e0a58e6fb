import { useVirtualList } from '@vueuse/core'
import { nextTick, type Ref } from 'vue'

/** Rows of one height of which only those in sight are drawn, and a way to bring one into sight. */
export function useRows<T>(rows: Ref<T[]>, height: number, options: { overscan?: number; heads?: number } = {}) {
  const { list, containerProps, wrapperProps } = useVirtualList(rows, {
    itemHeight: height,
    overscan: options.overscan ?? 8,
  })
  /** Heads that stay at the top cover so many rows. */
  const heads = options.heads ?? 0
  function reveal(at: number, then?: (scroll: HTMLElement) => void): void {
    void nextTick(() => {
      const scroll = containerProps.ref.value
      if (scroll === null || at < 0) return
      const top = at * height
      if (top < scroll.scrollTop + heads * height) scroll.scrollTop = Math.max(0, top - 2 * heads * height)
      else if (top > scroll.scrollTop + scroll.clientHeight - (1 + heads) * height)
        scroll.scrollTop = top - scroll.clientHeight + (1 + 2 * heads) * height
      then?.(scroll)
    })
  }
  return { list, containerProps, wrapperProps, reveal }
}
