import { computed, type Ref, ref, shallowRef } from 'vue'
import type { Placed } from '@/api/types'
import { TICKS } from '@/player/time'
import { clusters, fitted, type View, within, xOf, zoomed } from './geometry'

export const endOf = (one: Placed) => one.start_ticks + one.duration_ticks

/** What of the day the map shows: how near, from where, and where its playhead stands. */
export function useMapView(options: {
  placed: Ref<Placed[]>
  /** Pixels that there are for the lanes. */
  width: Ref<number>
  frame: Ref<HTMLElement | null>
  chosen: Ref<Placed | undefined>
  /** The take of the chosen clip, from where to where. */
  take: Ref<{ from: number; to: number } | undefined>
}) {
  const { placed, width, frame, chosen } = options
  const playhead = ref<number | null>(null)
  /** A day of takes has hours of nothing between them; the map folds them away and keeps each cluster to scale. */
  const map = computed(() => clusters(placed.value.map((one) => ({ from: one.start_ticks, to: endOf(one) }))))
  const asked = shallowRef<Omit<View, 'width'> | null>(null)
  const view = computed<View>(() =>
    within(map.value, { left: 0, perPixel: Number.MAX_VALUE, ...asked.value, width: width.value }),
  )
  const isWhole = computed(() => view.value.width * view.value.perPixel >= map.value.length * 0.999)
  const x = (ticks: number) => xOf(map.value, view.value, ticks)
  /** As much of a clip's box as is in sight, so that its name is read however close one looks. */
  function box(from: number, to: number): { left: string; width: string } {
    const left = Math.max(-1, x(from))
    return { left: `${left}px`, width: `${Math.max(3, Math.min(view.value.width + 1, x(to)) - left)}px` }
  }
  const inSight = (one: Placed) => x(one.start_ticks) < view.value.width && x(endOf(one)) > 0
  /** Moves the view as little as shows a stretch, or its start where it is longer than the view. */
  function show(from: number, to: number): void {
    const left = x(from)
    const right = x(to)
    const wide = view.value.width
    if (left >= 0 && right <= wide) return
    if (left < 0 && right > wide) return
    pan(left < 0 || right - left > wide ? left - 40 : right - wide + 40)
  }
  const look = (next: View) => {
    asked.value = { left: next.left, perPixel: next.perPixel }
  }
  const pan = (pixels: number) =>
    look(within(map.value, { ...view.value, left: view.value.left + pixels * view.value.perPixel }))
  function zoom(factor: number, atPixel?: number): void {
    const centre =
      atPixel ??
      (chosen.value !== undefined && inSight(chosen.value)
        ? (Math.max(0, x(chosen.value.start_ticks)) + Math.min(view.value.width, x(endOf(chosen.value)))) / 2
        : view.value.width / 2)
    look(zoomed(map.value, view.value, factor, centre))
  }
  /** The take of the chosen clip, and from there the whole day again. */
  function fit(): void {
    const one = chosen.value
    if (!isWhole.value || one === undefined) asked.value = null
    else look(fitted(map.value, view.value.width, options.take.value ?? { from: one.start_ticks, to: endOf(one) }))
  }
  function fitClip(): void {
    const one = chosen.value
    if (one !== undefined) look(fitted(map.value, view.value.width, { from: one.start_ticks, to: endOf(one) }))
  }
  /** Single samples around the playhead. */
  function fitSamples(): void {
    const one = chosen.value
    if (one === undefined) return
    const at = playhead.value ?? one.start_ticks
    look(
      within(map.value, {
        width: view.value.width,
        perPixel: TICKS / 48_000 / 2,
        left: map.value.pos(at) - (view.value.width / 2) * (TICKS / 48_000 / 2),
      }),
    )
  }
  function wheel(event: WheelEvent): void {
    if (event.ctrlKey || event.metaKey) {
      event.preventDefault()
      zoom(Math.exp(-event.deltaY / 300), event.clientX - (frame.value?.getBoundingClientRect().left ?? 0))
    } else if (event.shiftKey || Math.abs(event.deltaX) > Math.abs(event.deltaY)) {
      event.preventDefault()
      pan(event.deltaX !== 0 ? event.deltaX : event.deltaY)
    }
  }
  function grab(event: PointerEvent): void {
    const track = event.currentTarget as HTMLElement
    const area = track.getBoundingClientRect()
    const to = (clientX: number) =>
      look(
        within(map.value, {
          ...view.value,
          left: ((clientX - area.left) / area.width) * map.value.length - (view.value.width * view.value.perPixel) / 2,
        }),
      )
    track.setPointerCapture(event.pointerId)
    to(event.clientX)
    track.onpointermove = (move) => to(move.clientX)
    track.onpointerup = track.onpointercancel = () => {
      track.onpointermove = null
    }
  }
  function point(event: MouseEvent): void {
    const left = frame.value?.getBoundingClientRect().left ?? 0
    playhead.value = map.value.ticksAt(view.value.left + (event.clientX - left) * view.value.perPixel)
  }

  /** Most of what is in sight further, or back. */
  const page = (direction: 1 | -1) => pan(direction * 0.8 * view.value.width)
  /** The playhead by a frame; where one sees single samples, by one of them. */
  function nudgePlayhead(direction: 1 | -1, frameTicks: number): void {
    const from = playhead.value ?? chosen.value?.start_ticks
    if (from === undefined) return
    const by = view.value.perPixel < TICKS / 48_000 ? TICKS / 48_000 : frameTicks
    playhead.value = from + direction * by
    show(playhead.value, playhead.value)
  }

  return {
    map,
    view,
    isWhole,
    playhead,
    x,
    box,
    show,
    zoom,
    fit,
    fitClip,
    fitSamples,
    wheel,
    grab,
    point,
    page,
    nudgePlayhead,
  }
}
