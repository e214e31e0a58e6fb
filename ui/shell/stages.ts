/** How the production is set up: no stage of the work, but reached like one. */
export const SETTINGS = { name: 'settings', title: 'Set-up', key: '9' } as const

export type StageName = 'day' | 'cards' | 'log' | 'lineup' | 'bins' | 'screening' | 'assembly' | 'handoff'

/** The stages in the order of the work. */
export const STAGES: { name: StageName; title: string; key: string }[] = [
  { name: 'day', title: 'Day', key: '1' },
  { name: 'cards', title: 'Cards', key: '2' },
  { name: 'log', title: 'Log', key: '3' },
  { name: 'lineup', title: 'Line-up', key: '4' },
  { name: 'bins', title: 'Bins', key: '5' },
  { name: 'screening', title: 'Screening', key: '6' },
  { name: 'assembly', title: 'Assembly', key: '7' },
  { name: 'handoff', title: 'Hand-off', key: '8' },
]
