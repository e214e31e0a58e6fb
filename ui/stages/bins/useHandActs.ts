import { t } from '@/words'
import { computed, type Ref } from 'vue'
import type { BinRow, Production } from '@/api/types'
import type { Shortcut } from '@/shell/keys'
import { refuse } from '@/shell/say'
import type { HandAct } from './HandMenu.vue'
import type { BinActions } from './useBinActions'

/** Something that can be done with what is in hand, from the menu and by its key. */
interface Act extends HandAct {
  /** The key as the page hears it, and what the card of keys says of it. */
  key: string
  said: string
  /** Whether this person may, and the bin lets it be done. */
  may: boolean
}

/** All that can be done with what is chosen in a bin: once for the menu, the keys and the right click. */
export function useHandActs(options: {
  production: Ref<Production>
  actions: BinActions
  hand: Ref<BinRow[]>
  chosenCount: Ref<number>
  count: Ref<number>
  /** Brings the rows in hand that have not come. */
  ready: () => Promise<boolean>
  /** What other productions share is looked at, and put into own bins; nothing of it is changed here. */
  isShared: Ref<boolean>
  isOwn: Ref<boolean>
  day: () => string
  dialogs: () => {
    put: () => void
    move: () => void
    name: () => void
    look: () => void
    device: () => void
    takeAway: () => void
  } | null
  open: () => void
  compare: (first: string, second: string) => void
}) {
  const { actions } = options
  const whenReady = async (work: () => unknown): Promise<void> => {
    if (await options.ready()) work()
  }
  /** Two rows beside each other; of a take its first picture. */
  function compare(): void {
    if (options.chosenCount.value !== 2) return refuse(t('bins.useHandActs.chooseTwoOfThemCtrl'))
    const [first, second] = options.hand.value.map((row) => row.clip)
    if (first == null || second == null) return refuse(t('bins.useHandActs.aReelOrCutIs'))
    options.compare(first, second)
  }
  const ask = (which: 'put' | 'move' | 'name' | 'look' | 'device' | 'takeAway') => () => options.dialogs()?.[which]()
  const acts = computed<Act[]>(() => {
    const { organise, work } = options.production.value.may
    const shared = options.isShared.value
    const own = options.isOwn.value
    const act = (key: string, keys: string, what: string, said: string, may: boolean, run: () => unknown): Act => ({
      ...{ key, keys, what, said, may },
      run,
    })
    const later = (work: () => unknown) => () => void whenReady(work)
    return [
      act('Enter', 'Enter', t('bins.useHandActs.openItsPage'), t('bins.useHandActs.openItsSheet'), true, options.open),
      act(
        'v',
        'V',
        t('bins.useHandActs.compareTwo'),
        t('bins.useHandActs.twoThatAreChosenBeside'),
        true,
        later(compare),
      ),
      act('p', 'P', t('bins.useHandActs.putIntoABin'), t('bins.useHandActs.putIntoABin2'), organise, ask('put')),
      act(
        'P',
        'Shift P',
        t('bins.useHandActs.moveIntoAnotherBin'),
        t('bins.useHandActs.moveIntoAnotherBinOut'),
        organise && own,
        ask('move'),
      ),
      act(
        'Delete',
        'Delete',
        t('bins.useHandActs.takeOutOfThisBin'),
        t('bins.useHandActs.takeOutOfThisBin'),
        organise && own,
        actions.takeOut,
      ),
      act(
        'R',
        'Shift R',
        t('bins.useHandActs.reviewReelOfItsTakes'),
        t('bins.useHandActs.aReviewReelOfThe'),
        organise,
        later(actions.makeReel),
      ),
      act(
        '+',
        '+',
        t('bins.useHandActs.addToTheCut'),
        t('bins.useHandActs.addItToTheCut'),
        organise && !shared,
        later(actions.intoCut),
      ),
      act(
        'Alt+c',
        'Alt C',
        t('bins.useHandActs.splitTheChannels'),
        t('bins.useHandActs.splitTheChannelsOfWhat'),
        organise && !shared,
        later(actions.splitChannels),
      ),
      act(
        'c',
        'C',
        t('bins.useHandActs.circleOrNot'),
        t('bins.useHandActs.circleWhatIsChosenOr'),
        work && !shared,
        later(() => actions.circle(options.day())),
      ),
      act(
        'w',
        'W',
        t('bins.useHandActs.giveAKeyword'),
        t('bins.useHandActs.giveWhatIsChosenA'),
        work && !shared,
        later(() => actions.addKeyword(options.day())),
      ),
      act(
        'd',
        'D',
        t('bins.useHandActs.deviceOrKindOfImport'),
        t('bins.useHandActs.sayWhichDeviceItIs'),
        work && !shared,
        later(ask('device')),
      ),
      act(
        'Alt+n',
        'Alt N',
        t('bins.useHandActs.nameByAPattern'),
        t('bins.useHandActs.nameWhatIsChosenBy'),
        work && !shared,
        later(ask('name')),
      ),
      act(
        'Alt+l',
        'Alt L',
        t('bins.useHandActs.giveALook'),
        t('bins.useHandActs.giveWhatIsChosenA2'),
        work && !shared,
        later(ask('look')),
      ),
      act(
        'Shift+Delete',
        'Shift Delete',
        t('bins.useHandActs.takeAway'),
        t('bins.useHandActs.takeClipsOutOfThe'),
        work && !shared,
        later(ask('takeAway')),
      ),
    ]
  })
  const offered = computed(() =>
    acts.value.filter((one) => one.may && (one.key !== 'v' || options.chosenCount.value === 2)),
  )
  /** Keys are there from the start; what each may is asked when it is pressed. */
  const shortcuts: Shortcut[] = acts.value.map(({ key, said }) => ({
    keys: [key],
    what: said,
    run: () => {
      const now = acts.value.find((one) => one.key === key)
      if (now?.may === true && options.count.value > 0) now.run()
    },
  }))
  const colour = (one: string | null) =>
    whenReady(() => {
      if (actions.hasClips()) void actions.colourClips(one)
    })
  return { offered, shortcuts, colour }
}
