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
    title: 'The day sheet',
    text:
      'How far the day is: cards in, takes logged, sound in step, what is handed on. What stands open is ' +
      'listed below; each point has the button that settles it.',
  },
  {
    stage: 'cards',
    part: '.bench',
    title: 'Cards come in',
    text:
      'A card in a reader shows up here by itself, with its clips. It is copied to all volumes at once, ' +
      'read back and compared; only then it says that it may be released.',
  },
  {
    stage: 'log',
    part: '.left',
    title: 'Slates',
    text:
      'Scene, setup, take and angle are read from what devices wrote. You correct them in place, circle ' +
      'takes, bring the script notes. Two people can log one day; each sees what the other does.',
  },
  {
    stage: 'lineup',
    part: '.left',
    title: 'Picture and sound on one clock',
    text:
      'The day as a map: a lane for each device. Clips are placed by timecode and by what was heard; one ' +
      'that is not sure is marked, and you look at it with its sound and decide.',
  },
  {
    stage: 'bins',
    part: '.middle',
    title: 'Bins',
    text:
      'Clips, takes, subclips and imports, sorted by hand or by rules that fill themselves. A clip opens on ' +
      'a page of its own with its sound, words, markers and uses.',
  },
  {
    stage: 'screening',
    part: '.page',
    title: 'Dailies',
    text:
      'Review reels of the day in slate order, with a second window for the projector and links for those ' +
      'who are elsewhere. What is said while they play ends up on the take.',
  },
  {
    stage: 'assembly',
    part: '.page',
    title: 'First cuts',
    text:
      'String-outs from circled takes or from the lines of the script, and cuts between several cameras ' +
      'while they play. Every step goes back.',
  },
  {
    stage: 'handoff',
    part: '.split',
    title: 'On to the editing team',
    text:
      'What goes is chosen and counted before it goes: pictures, sound, lists, papers. The team checks it, ' +
      'asks, accepts; lists that come back are linked to the clips here.',
  },
]

export const WALK_END =
  'That is the way of a day. Ctrl Z takes your last step back, ? shows the keys of a page, and this ' +
  'walk is in the menu behind your initials.'
