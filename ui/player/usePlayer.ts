import { onScopeDispose, readonly, ref, shallowRef, watch, type Ref } from 'vue'
import { mediaUrl } from '@/api/client'
import { useLocalStorage } from '@vueuse/core'
import type { Level } from './engine/mixer'
import { Player, type Trouble } from './engine/player'
import { frameAt, pieceAt, type Picture } from './engine/playlist'
import type { Rendition } from './engine/screen'

/** How loud this person listens on this machine; all players share it. */
const volume = useLocalStorage('cartella.volume', { level: 1, muted: false })

/** Where a file of a clip's media is asked for. */
export type MediaAddress = (clip: string, what: string, version: string) => string

const SILENCE: Level = { left: 0, right: 0, channels: new Map() }

/**
 * A player for a component: the engine, its first screen on a canvas, and what a page shows of it. It ends with its
 * owner.
 *
 * @param where the production whose media are played, or how the address of a file is made otherwise
 * @param picture the canvas of the first screen; null for sound alone
 */
export function usePlayer(
  where: () => string | MediaAddress,
  picture: Ref<HTMLCanvasElement | null>,
  rendition: Rendition = 'proxy',
) {
  const address: MediaAddress = (clip, what, version) => {
    const of = where()
    return typeof of === 'string' ? mediaUrl(of, clip, what, version) : of(clip, what, version)
  }
  const player = new Player({
    picture: (piece, size) => address(piece.clip, size, piece.version),
    channel: (sound, channel) => address(sound.clip, `channel-${channel}`, sound.version),
  })
  const screen = player.addScreen([], rendition)
  /** Where it is, ticks, and the frame that is seen; null until one is. */
  const position = ref(0)
  const shown = ref<number | null>(null)
  const piece = shallowRef<Picture | null>(null)
  const speed = ref(0)
  const trouble = ref<Trouble | null>(null)
  const level = shallowRef<Level>(SILENCE)

  player.onChange(() => {
    const at = player.transport.position()
    position.value = at
    speed.value = player.transport.speed
    piece.value = pieceAt(player.playlist.pictures, at)
    shown.value = screen.seen?.frame ?? null
    trouble.value = player.trouble
    const now = player.level()
    if (now.left > 0 || now.right > 0 || level.value.left > 0 || level.value.right > 0) level.value = now
  })
  watch(picture, (canvas) => screen.attach(canvas), { immediate: true, flush: 'post' })
  watch(volume, (now) => player.setVolume(now.level, now.muted), { immediate: true, deep: true })
  onScopeDispose(() => player.close())

  return {
    player,
    position: readonly(position),
    shown: readonly(shown),
    piece,
    speed: readonly(speed),
    trouble: readonly(trouble),
    level,
    volume,
    /** The frame that an instant wants, whether or not it is seen already; null in a gap. */
    frameAt: (ticks: number): number | null => {
      const here = pieceAt(player.playlist.pictures, ticks)
      return here === null ? null : frameAt(here, ticks)
    },
  }
}

export type ActivePlayer = ReturnType<typeof usePlayer>
