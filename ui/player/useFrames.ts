import { onScopeDispose, readonly, ref, shallowRef, toValue, watch, type MaybeRefOrGetter, type Ref } from 'vue'
import type { Rate } from '@/api/types'

/**
 * Drives a video element by whole frames, 0-based from the start of the media.
 *
 * The frame shown is taken from the compositor, since `currentTime` can be ahead of the picture. A seek aims at the
 * middle of its frame, so that no rounding of seconds reaches a neighbour. Steps asked for while a seek is under way
 * add up, and none is lost.
 */
export function useFrames(
  video: Ref<HTMLVideoElement | null>,
  rate: MaybeRefOrGetter<Rate>,
  frames: MaybeRefOrGetter<number | null>,
) {
  /** The frame on screen; null until one is. */
  const shown = shallowRef<number | null>(null)
  const playing = ref(false)
  /** Times normal speed, below zero backwards; 0 when it stands. */
  const speed = ref(0)
  /** Where the next step counts from while the picture is still on its way. */
  let wanted: number | null = null
  let shuttle: number | undefined

  const perSecond = () => toValue(rate).num / toValue(rate).den
  const last = () => Math.max(0, (toValue(frames) ?? Number.MAX_SAFE_INTEGER) - 1)
  const clamp = (frame: number) => Math.min(Math.max(frame, 0), last())
  const middle = (frame: number) => (frame + 0.5) / perSecond()

  function seekElement(frame: number): void {
    const element = video.value
    if (element === null) return
    if (element.readyState < 1) {
      element.addEventListener('loadedmetadata', () => wanted !== null && (element.currentTime = middle(wanted)), {
        once: true,
      })
      return
    }
    if (!element.seeking) element.currentTime = middle(frame)
  }

  function goTo(frame: number): void {
    stand()
    wanted = clamp(frame)
    seekElement(wanted)
  }

  function step(count: number): void {
    stand()
    wanted = clamp((wanted ?? shown.value ?? 0) + count)
    seekElement(wanted)
  }

  function stand(): void {
    window.clearInterval(shuttle)
    shuttle = undefined
    if (video.value !== null && !video.value.paused) {
      video.value.pause()
      wanted = shown.value
      // The decoder may be a frame ahead of what was seen; this brings it back to the frame that the label names.
      if (wanted !== null) seekElement(wanted)
    }
    speed.value = 0
  }

  async function run(times: number): Promise<void> {
    const element = video.value
    if (element === null) return
    window.clearInterval(shuttle)
    shuttle = undefined
    speed.value = times
    if (times <= 0) {
      element.pause()
      // The element cannot play backwards; it is led back frame by frame against the clock.
      let from = wanted ?? shown.value ?? 0
      let since = performance.now()
      shuttle = window.setInterval(() => {
        if (element.seeking) return
        const frame = clamp(Math.round(from + ((performance.now() - since) / 1000) * perSecond() * speed.value))
        wanted = frame
        seekElement(frame)
        if (frame === 0) {
          from = 0
          since = performance.now()
          stand()
        }
      }, 1000 / 25)
      return
    }
    if ((wanted ?? shown.value ?? 0) >= last()) {
      wanted = 0
      element.currentTime = middle(0)
    }
    element.playbackRate = times
    // The pitch of fast speech is of no use, but 2x is still understood.
    element.muted = times > 2
    wanted = null
    try {
      await element.play()
    } catch {
      speed.value = 0
    }
  }

  const toggle = () => (speed.value === 0 ? run(1) : Promise.resolve(stand()))
  /** 1, 2, 4, 8 with each press. */
  const faster = (direction: 1 | -1) =>
    run(speed.value * direction > 0 ? direction * Math.min(8, Math.abs(speed.value) * 2) : direction)

  watch(
    video,
    (element, _before, onCleanup) => {
      shown.value = null
      if (element === null) return
      let request = element.requestVideoFrameCallback(function frame(_now, { mediaTime }) {
        shown.value = Math.round(mediaTime * perSecond())
        request = element.requestVideoFrameCallback(frame)
      })
      const state = () => (playing.value = !element.paused && !element.ended)
      const ended = () => {
        // A seek to the last frame ends the media too; only play that ran to its end has a place to take over.
        if (speed.value !== 0) wanted = shown.value
        speed.value = 0
        state()
      }
      // A further step may have been asked for while this seek was under way.
      const sought = () => {
        if (wanted === null || !element.paused) return
        if (Math.abs(element.currentTime - middle(wanted)) > 0.25 / perSecond()) element.currentTime = middle(wanted)
        // The compositor keeps silent about a picture that it showed before, or was too busy to tell.
        else shown.value = wanted
      }
      const loaded = () => {
        if (wanted !== null) element.currentTime = middle(wanted)
      }
      element.addEventListener('play', state)
      element.addEventListener('pause', state)
      element.addEventListener('ended', ended)
      element.addEventListener('seeked', sought)
      element.addEventListener('loadedmetadata', loaded)
      onCleanup(() => {
        element.cancelVideoFrameCallback(request)
        element.removeEventListener('play', state)
        element.removeEventListener('pause', state)
        element.removeEventListener('ended', ended)
        element.removeEventListener('seeked', sought)
        element.removeEventListener('loadedmetadata', loaded)
      })
    },
    { immediate: true, flush: 'post' },
  )
  onScopeDispose(() => window.clearInterval(shuttle))

  /** Before another medium is loaded: where that one shall stand when it is there. */
  function expect(frame: number): void {
    window.clearInterval(shuttle)
    shuttle = undefined
    speed.value = 0
    wanted = Math.max(0, frame)
    shown.value = null
  }

  return {
    shown: readonly(shown),
    playing: readonly(playing),
    speed: readonly(speed),
    goTo,
    step,
    stand,
    run,
    toggle,
    faster,
    expect,
  }
}
