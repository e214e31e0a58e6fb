import { t } from '@/words'
import type { StageName } from './stages'

/** What a new assistant is led past: a stage, the part of it that is meant, and what is done there. */
export interface WalkStep {
  stage: StageName
  part: string
  title: string
  text: string
}

export const WALK: WalkStep[] = [
  {
    stage: 'day',
    part: '.counts',
    title: t('shell.walk.theDaySheet'),
    text: t('shell.walk.howFarTheDayIs'),
  },
  {
    stage: 'cards',
    part: '.bench',
    title: t('shell.walk.cardsComeIn'),
    text: t('shell.walk.aCardInAReader'),
  },
  {
    stage: 'log',
    part: '.left',
    title: t('shell.walk.slates'),
    text: t('shell.walk.sceneSetupTakeAndAngle'),
  },
  {
    stage: 'lineup',
    part: '.left',
    title: t('shell.walk.pictureAndSoundOnOne'),
    text: t('shell.walk.theDayAsAMap'),
  },
  {
    stage: 'bins',
    part: '.middle',
    title: t('shell.walk.bins'),
    text: t('shell.walk.clipsTakesSubclipsAndImports'),
  },
  {
    stage: 'screening',
    part: '.page',
    title: t('shell.walk.dailies'),
    text: t('shell.walk.reviewReelsOfTheDay'),
  },
  {
    stage: 'assembly',
    part: '.page',
    title: t('shell.walk.firstCuts'),
    text: t('shell.walk.stringOutsFromCircledTakes'),
  },
  {
    stage: 'handoff',
    part: '.split',
    title: t('shell.walk.onToTheEditingTeam'),
    text: t('shell.walk.whatGoesIsChosenAnd'),
  },
]

export const WALK_END = t('shell.walk.thatIsTheWayOf')
