import type { LogClip, SlateSheet, Take } from '@/api/types'

export type Row =
  | { kind: 'scene'; key: string; scene: string; heading: string; setups: number; takes: number }
  | { kind: 'take'; key: string; take: Take; repeats: boolean }
  | { kind: 'rest'; key: string; count: number }
  | { kind: 'clip'; key: string; clip: LogClip }

/** The sheet as rows of one height: scenes, their takes, then the clips that no take claims. */
export function rowsOf(sheet: SlateSheet): Row[] {
  const rows: Row[] = []
  let scene: string | null = null
  let setup = ''
  const perScene = new Map<string, { setups: Set<string>; takes: number }>()
  for (const take of sheet.takes) {
    const counts = perScene.get(take.scene) ?? { setups: new Set<string>(), takes: 0 }
    counts.setups.add(take.setup)
    counts.takes++
    perScene.set(take.scene, counts)
  }
  for (const take of sheet.takes) {
    if (take.scene !== scene) {
      scene = take.scene
      setup = ''
      const counts = perScene.get(scene)
      rows.push({ kind: 'scene', key: 'scene:' + scene, scene, heading: sheet.scenes[scene] ?? '', setups: counts?.setups.size ?? 0, takes: counts?.takes ?? 0 })
    }
    rows.push({ kind: 'take', key: take.ulid, take, repeats: take.setup === setup })
    setup = take.setup
  }
  if (sheet.unslated.length > 0) {
    rows.push({ kind: 'rest', key: 'rest', count: sheet.unslated.length })
    for (const clip of sheet.unslated) rows.push({ kind: 'clip', key: clip.ulid, clip })
  }
  return rows
}

/** What stands in the cell of a device that has nothing of a take: why that is so, or a hole. */
export function holeOf(take: Take, letter: string, kind: 'camera' | 'recorder'): { text: string; hole: boolean } {
  if (kind === 'recorder') {
    if (take.is_mos) return { text: 'MOS', hole: false }
    if (take.is_guide_only) return { text: 'guide only', hole: false }
    return { text: 'nothing here', hole: true }
  }
  if (take.is_wild) return { text: 'wild', hole: false }
  if (take.absent_devices.includes(letter)) return { text: 'not rolling', hole: false }
  return take.missed.includes(letter) ? { text: 'nothing here', hole: true } : { text: '—', hole: false }
}

const SYNC: Record<string, { text: string; look: string }> = {
  sound: { text: 'by sound', look: 'good' },
  timecode: { text: 'by timecode', look: 'good' },
  hand: { text: 'by hand', look: 'good' },
  clock: { text: 'by clock', look: 'warn' },
  start: { text: 'by start', look: 'warn' },
  unsure: { text: 'look at it', look: 'warn' },
  mos: { text: 'MOS', look: 'soft' },
  wild: { text: 'wild', look: 'soft' },
  guide: { text: 'guide only', look: 'soft' },
  'no sound': { text: 'no sound', look: 'fault' },
  'no picture': { text: 'no picture', look: 'fault' },
  'not lined up': { text: 'not yet', look: 'soft' },
}

export function syncOf(take: Take): { text: string; look: string } {
  return SYNC[take.sync] ?? { text: take.sync, look: 'soft' }
}
