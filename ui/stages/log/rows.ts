import { counted, t } from '@/words'
import type { Device, LogClip, SheetScene, SlateSheet, Take } from '@/api/types'

export type Order = 'slate' | 'shot' | 'device' | 'size'
export type Row =
  | { kind: 'scene'; key: string; scene: string; facts: SheetScene | undefined; setups: number; takes: number }
  | { kind: 'take'; key: string; take: Take; repeats: boolean }
  | { kind: 'rest'; key: string; title: string; note: string; device: string | null }
  | { kind: 'clip'; key: string; clip: LogClip; take: Take | null }

export const ORDERS: { key: Order; title: string }[] = [
  { key: 'slate', title: t('log.rows.slateOrder') },
  { key: 'shot', title: t('log.rows.asShot') },
  { key: 'device', title: t('log.rows.byDevice') },
  { key: 'size', title: t('log.rows.widestFirst') },
]

/**
 * When a take or a clip began: where it lies on the common clock, else what its own device says; what has no time comes
 * last.
 */
const began = (clips: LogClip[]): number =>
  Math.min(
    Number.MAX_SAFE_INTEGER,
    ...clips.map((clip) => clip.placed_ticks ?? clip.start_ticks ?? Number.MAX_SAFE_INTEGER),
  )

/**
 * The sheet as rows of one height: takes under their scenes, or in another order, then the clips that no take claims.
 */
export function rowsOf(
  sheet: SlateSheet,
  order: Order = 'slate',
  devices: Device[] = [],
  scenes: Record<string, SheetScene> = {},
): Row[] {
  if (order === 'device') return byDevice(sheet, devices)
  const rows: Row[] = []
  const takes =
    order === 'shot'
      ? [...sheet.takes].sort((x, y) => began(x.clips) - began(y.clips))
      : order === 'size'
        ? widestFirst(sheet.takes)
        : sheet.takes
  const counts = new Map<string, { setups: Set<string>; takes: number }>()
  for (const take of sheet.takes) {
    const count = counts.get(take.scene) ?? { setups: new Set<string>(), takes: 0 }
    count.setups.add(take.setup)
    count.takes++
    counts.set(take.scene, count)
  }
  let scene: string | null = null
  let setup = ''
  for (const take of takes) {
    if (order !== 'shot' && take.scene !== scene) {
      scene = take.scene
      setup = ''
      const count = counts.get(scene)
      rows.push({
        kind: 'scene',
        key: 'scene:' + scene,
        scene,
        facts: scenes[scene],
        setups: count?.setups.size ?? 0,
        takes: count?.takes ?? 0,
      })
    }
    rows.push({ kind: 'take', key: take.ulid, take, repeats: take.setup === setup })
    setup = take.setup
  }
  if (sheet.unslated.length > 0) {
    const clips = `${sheet.unslated.length} ${sheet.unslated.length === 1 ? t('log.rows.clip') : t('log.rows.clips')}`
    rows.push({
      kind: 'rest',
      key: 'rest',
      title: t('log.rows.noSlate'),
      note: t('log.rows.thatNoTakeClaimsEnter', [clips]),
      device: null,
    })
    for (const clip of sheet.unslated) rows.push({ kind: 'clip', key: clip.ulid, clip, take: null })
  }
  return rows
}

/** Setups stay together; within each the widest stands first. */
function widestFirst(takes: Take[]): Take[] {
  const place = new Map<string, number>()
  takes.forEach((take, index) => {
    if (!place.has(take.setup)) place.set(take.setup, index)
  })
  return [...takes].sort((x, y) => place.get(x.setup)! - place.get(y.setup)! || x.width - y.width)
}

function byDevice(sheet: SlateSheet, devices: Device[]): Row[] {
  const all = [
    ...sheet.takes.flatMap((take) => take.clips.map((clip) => ({ clip, take: take as Take | null }))),
    ...sheet.unslated.map((clip) => ({ clip, take: null })),
  ]
  const rows: Row[] = []
  for (const letter of [...devices.map((device) => device.letter as string | null), null]) {
    const own = all.filter((one) => one.clip.device === letter).sort((x, y) => began([x.clip]) - began([y.clip]))
    if (own.length === 0) continue
    const bare = own.filter((one) => one.take === null).length
    rows.push({
      kind: 'rest',
      key: `device:${letter ?? ''}`,
      title:
        letter === null
          ? t('log.rows.noDevice')
          : `${devices.find((device) => device.letter === letter)?.note || t('log.rows.device')}`,
      note: counted(own.length, 'clip') + (bare === 0 ? '' : t('log.rows.withoutASlate', [bare])),
      device: letter,
    })
    // A recording over several takes stands there once for each.
    for (const { clip, take } of own)
      rows.push({ kind: 'clip', key: clip.in_ticks === null ? clip.ulid : `${clip.ulid} ${clip.in_ticks}`, clip, take })
  }
  return rows
}

/** What stands in the cell of a device that has nothing of a take: why that is so, or a hole. */
export function holeOf(take: Take, letter: string, kind: 'camera' | 'recorder'): { text: string; hole: boolean } {
  if (take.is_false_start) return { text: t('log.rows.falseStart'), hole: false }
  if (kind === 'recorder') {
    if (take.is_mos) return { text: t('log.rows.mos'), hole: false }
    if (take.absent_devices.includes(letter)) return { text: t('log.rows.notRolling'), hole: false }
    if (take.is_guide_only) return { text: t('log.rows.guideOnly'), hole: false }
    // Of two recorders one may have run alone all day; that is no hole.
    if (take.clips.some((clip) => clip.kind === 'sound') && !take.missed.includes(letter))
      return { text: '—', hole: false }
    return { text: t('log.rows.nothingHere'), hole: true }
  }
  if (take.is_wild) return { text: t('log.rows.wild'), hole: false }
  if (take.absent_devices.includes(letter)) return { text: t('log.rows.notRolling'), hole: false }
  return take.missed.includes(letter) ? { text: t('log.rows.nothingHere'), hole: true } : { text: '—', hole: false }
}

const SYNC: Record<string, { text: string; look: string }> = {
  sound: { text: t('log.rows.bySound'), look: 'good' },
  timecode: { text: t('log.rows.byTimecode'), look: 'good' },
  hand: { text: t('log.rows.byHand'), look: 'good' },
  clock: { text: t('log.rows.byClock'), look: 'warn' },
  start: { text: t('log.rows.byStart'), look: 'warn' },
  unsure: { text: t('log.rows.lookAtIt'), look: 'warn' },
  mos: { text: t('log.rows.mos'), look: 'soft' },
  wild: { text: t('log.rows.wild'), look: 'soft' },
  guide: { text: t('log.rows.guideOnly'), look: 'soft' },
  'no sound': { text: t('log.rows.noSound'), look: 'fault' },
  'no picture': { text: t('log.rows.noPicture'), look: 'fault' },
  'no file': { text: t('log.rows.noFile'), look: 'fault' },
  'not lined up': { text: t('log.rows.notYet'), look: 'soft' },
}

export function syncOf(take: Take): { text: string; look: string } {
  return SYNC[take.sync] ?? { text: take.sync, look: 'soft' }
}
