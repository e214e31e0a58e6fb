import { t } from '@/words'
/** How the production is set up: no stage of the work, but reached like one. */
export const SETTINGS = { name: 'settings', title: t('shell.stages.setUp'), key: '9' } as const

export type StageName = 'day' | 'cards' | 'log' | 'lineup' | 'bins' | 'screening' | 'assembly' | 'handoff'

/** The stages in the order of the work. */
export const STAGES: { name: StageName; title: string; key: string }[] = [
  { name: 'day', title: t('shell.stages.day'), key: '1' },
  { name: 'cards', title: t('shell.stages.cards'), key: '2' },
  { name: 'log', title: t('shell.stages.log'), key: '3' },
  { name: 'lineup', title: t('shell.stages.lineUp'), key: '4' },
  { name: 'bins', title: t('shell.stages.bins'), key: '5' },
  { name: 'screening', title: t('shell.stages.screening'), key: '6' },
  { name: 'assembly', title: t('shell.stages.assembly'), key: '7' },
  { name: 'handoff', title: t('shell.stages.handOff'), key: '8' },
]
