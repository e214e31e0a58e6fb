import type { CutClip } from '@/api/types'
import type { Heard, Picture, Sound } from '@/player/engine/playlist'
import { ticksPerFrame } from '@/player/time'
import { endOf, type CutItem, type CutValue } from './value'

/** A part of an item that is seen: `from` of its source, ticks. */
export interface Seen {
  item: CutItem
  at: number
  length: number
  from: number
}

const seenOf = (item: CutItem, from: number, to: number): Seen => ({
  item,
  at: from,
  length: to - from,
  from: item.source_start_ticks + from - item.record_start_ticks,
})

/**
 * What of several tracks of picture is seen: a later one covers those before it, as far as it plays. As
 * `core/src/Cutting/Shown` has it; both are held to `core/tests/Cutting/stacks.json`.
 */
export function shownOf(tracks: CutItem[][]): Seen[] {
  let seen: Seen[] = []
  for (const above of tracks) {
    const all: Seen[] = above.map((item) => seenOf(item, item.record_start_ticks, endOf(item)))
    let next = 0
    for (const one of seen) {
      const end = one.at + one.length
      while (next < above.length && endOf(above[next]!) <= one.at) next++
      let from = one.at
      for (let n = next; n < above.length && above[n]!.record_start_ticks < end; n++) {
        const over = above[n]!
        if (over.record_start_ticks > from) all.push(seenOf(one.item, from, over.record_start_ticks))
        from = Math.max(from, endOf(over))
      }
      if (from < end) all.push(seenOf(one.item, from, end))
    }
    seen = all.sort((a, b) => a.at - b.at)
  }
  return seen
}

function channelsOf(item: CutItem, clip: CutClip): Heard[] {
  const own = item.metadata.channels
  return own !== null && typeof own === 'object'
    ? Object.entries(own as Record<string, number>).map(([index, db]) => ({ index: Number(index), gainDb: Number(db) }))
    : clip.heard.map((one) => ({ index: one.index, gainDb: one.gain_db }))
}

/** What a cut plays, of what is known of its clips: at once, and as the server says it when it is asked. */
export function playedOf(value: CutValue, clips: Map<string, CutClip>): { pictures: Picture[]; sounds: Sound[] } {
  const plays = (item: CutItem): boolean => item.enabled && clips.has(item.source.id)
  const tracks = value.tracks.filter((track) => track.kind === 'picture' && track.enabled)
  const pictures = shownOf(tracks.map((track) => track.items.filter(plays))).map(
    ({ item, at, length, from }): Picture => {
      const clip = clips.get(item.source.id)!
      return {
        clip: clip.ulid,
        at,
        length,
        from,
        rate: clip.rate,
        frames: clip.frames ?? Math.max(1, Math.floor(clip.duration_ticks / ticksPerFrame(clip.rate))),
        start: clip.start_ticks,
        version: clip.media_version,
        look: clip.look,
        name: item.name,
        take: item.metadata.take ?? null,
      }
    },
  )
  const sounds = value.tracks.flatMap((track, number) =>
    track.kind !== 'sound' || !track.enabled
      ? []
      : track.items.filter(plays).map((item): Sound => {
          const clip = clips.get(item.source.id)!
          return {
            clip: clip.ulid,
            at: item.record_start_ticks,
            length: item.duration_ticks,
            from: item.source_start_ticks,
            channels: channelsOf(item, clip),
            gainDb: Number(item.metadata.gain_millibels ?? 0) / 100,
            driftPpm: Number(item.metadata.drift_ppm ?? 0),
            fadeIn: Number(item.metadata.fade_in_ticks ?? 0),
            fadeOut: Number(item.metadata.fade_out_ticks ?? 0),
            track: number,
            version: clip.media_version,
          }
        }),
  )
  return { pictures, sounds: sounds.sort((a, b) => a.at - b.at) }
}
