import { t } from '@/words'
import { watchDebounced } from '@vueuse/core'
import { shallowRef, watch, type ComputedRef, type Ref, type ShallowRef } from 'vue'
import { assembly } from '@/api/endpoints/assembly'
import type { Beneath } from '@/api/types'
import { refuse, say } from '@/shell/say'
import type { Trial } from './tried'
import type { ActiveCut } from './useCut'
import { endOf, type CutItem, type CutTrack } from './value'

/** Milliseconds that the playhead rests before it is asked what lies under it. */
const RESTS = 600

/** What lies under the playhead, and what else has the same moment: tried in place, kept or left. */
export function useTrial(options: {
  production: () => string
  sequence: () => string
  cut: ActiveCut
  trial: ShallowRef<Trial | null>
  track: Ref<number>
  /** On that track: the index of what is meant. */
  current: ComputedRef<number | null>
  currentItem: ComputedRef<CutItem | null>
  tracks: ComputedRef<CutTrack[]>
  speed: Readonly<Ref<number>>
}) {
  const { cut, trial, track, current, currentItem, speed } = options
  const beneath = shallowRef<Beneath | null>(null)
  async function look(): Promise<void> {
    if (speed.value !== 0 || trial.value !== null) return
    const index = current.value
    if (index === null) beneath.value = null
    else
      beneath.value = await assembly
        .beneath(options.production(), options.sequence(), track.value, index)
        .catch(() => null)
  }
  watchDebounced([currentItem, track, cut.step], look, { debounce: RESTS, immediate: true })
  watch(speed, (now) => now === 0 && void look())

  function tryOne(index: number): void {
    const one = beneath.value?.instead[index]
    const item = currentItem.value
    if (one === undefined || item === null) return
    trial.value = { index, one, from: item.record_start_ticks, to: endOf(item) }
  }
  function tryNext(): void {
    const count = beneath.value?.instead.length ?? 0
    if (count === 0) refuse(t('assembly.useTrial.nothingElseSawThisMoment'))
    else tryOne(trial.value === null ? 0 : (trial.value.index + 1) % count)
  }
  function drop(): void {
    trial.value = null
  }
  async function keep(): Promise<void> {
    const now = trial.value
    if (now === null) return
    // The sound of another take goes onto the track on which the one before lies.
    const said = options.tracks.value
      .flatMap((one) => (one.kind === 'sound' ? one.items : []))
      .find((item) => item.record_start_ticks < now.to && endOf(item) > now.from && item.metadata.heard !== undefined)
    const piece = {
      clip: now.one.clip,
      in_ticks: now.one.in_ticks,
      out_ticks: now.one.out_ticks,
      take: now.one.take?.ulid ?? null,
      character: said?.metadata.heard ?? null,
    }
    const done = await cut.ask((step) =>
      assembly.put(options.production(), options.sequence(), {
        pieces: [piece],
        how: now.one.kind === 'angle' ? 'lay_over' : 'instead',
        takes: now.one.kind === 'angle' ? 'picture' : 'both',
        at_ticks: now.from,
        until_ticks: now.to,
        track: track.value,
        step,
        label: `${now.one.label} instead`,
      }),
    )
    drop()
    if (done) say(t('assembly.useTrial.itIs', [now.one.label]))
  }
  return { beneath, tryOne, tryNext, drop, keep }
}
