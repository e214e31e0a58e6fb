import { computed, type Ref, shallowRef, watch } from 'vue'
import type { Playlist as PlaylistAnswer, Reel, ReelItem } from '@/api/types'
import { fromAnswer, indexAt, type Playlist } from '@/player/engine/playlist'
import type { ActivePlayer } from '@/player/usePlayer'
import { besidePictures, FIRST_VIEW, mainPictures, type RoomView } from './view'

/**
 * A reel in a player: which take plays, what of it is on the screen, and the pictures of each place on it. The room,
 * the house screen and those who watch from afar all stand on it.
 */
export function useReel(active: ActivePlayer, reel: Ref<Reel | undefined>, answer: Ref<PlaylistAnswer | undefined>) {
  const { player, position } = active
  const view = shallowRef<RoomView>(FIRST_VIEW)
  const items = computed<ReelItem[]>(() => reel.value?.items ?? [])
  // Looked up with every picture of the display: the places are listed once.
  const places = computed(() => items.value.map((one) => ({ at: one.at_ticks })))
  const at = computed(() => Math.max(0, indexAt(places.value, position.value)))
  const item = computed<ReelItem | undefined>(() => items.value[at.value])
  watch(at, (now) => {
    if (view.value.turned !== null && view.value.turned.item !== now) view.value = { ...view.value, turned: null }
  })
  const whole = computed<Playlist | null>(() => (answer.value === undefined ? null : fromAnswer(answer.value)))
  const playlist = computed<Playlist | null>(() =>
    whole.value === null ? null : { ...whole.value, pictures: mainPictures(whole.value, items.value, view.value) },
  )
  const beside = computed(() => (whole.value === null ? [] : besidePictures(whole.value, items.value, view.value)))
  const angle = computed(() => {
    const turned = view.value.turned
    const one = item.value
    const chosen = turned?.item === at.value ? one?.angles[turned.angle] : undefined
    return chosen ?? one?.angles.find((other) => other.clip === one.clip) ?? one?.angles[0]
  })
  let isLoaded = false
  /** Puts the reel into the player once it is known, and again, in place, when it changes. */
  function play(begin: () => number): void {
    watch(
      playlist,
      (list) => {
        if (list === null) return
        if (isLoaded) player.replace(list)
        else player.load(list, begin())
        isLoaded = true
      },
      { immediate: true },
    )
  }
  /** What another window or the room shows; the same again changes nothing here. */
  function look(wanted: RoomView): void {
    if (JSON.stringify(wanted) !== JSON.stringify(view.value)) view.value = wanted
  }
  return { view, items, at, item, angle, playlist, beside, play, look }
}

export type ActiveReel = ReturnType<typeof useReel>
