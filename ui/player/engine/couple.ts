import type { Transport } from './transport'

/**
 * Two transports in step: whatever one does, the other does the same far away from it. Ticks.
 *
 * @param apart how much later the second stands than the first
 * @returns lets go of them
 */
export function couple(first: Transport, second: Transport, apart: number): () => void {
  let isFollowing = false
  const follow = (leader: Transport, other: Transport, by: number) => () => {
    // What the other does is told, too, and is no command of its own.
    if (isFollowing) return
    isFollowing = true
    const at = leader.position() + by
    if (leader.speed !== 0 && at >= 0 && at <= other.last) other.follow(at, leader.speed, 0)
    else other.goTo(at)
    isFollowing = false
  }
  const ends = [first.onChange(follow(first, second, apart)), second.onChange(follow(second, first, -apart))]
  return () => ends.forEach((end) => end())
}
