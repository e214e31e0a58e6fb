import { t, valueWord } from '@/words'
import { computed, type Ref, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { makeStale, useAnswer } from '@/api/queries'
import { bins, type RuleGroup } from '@/api/endpoints/bins'
import { cards } from '@/api/endpoints/cards'
import { lineup } from '@/api/endpoints/lineup'
import { log as logApi } from '@/api/endpoints/log'
import { screening } from '@/api/endpoints/screening'
import type { BinEntry, BinRow } from '@/api/types'
import { useDesk } from '@/shell/desk'
import { attempt, refuse, say } from '@/shell/say'
import { STILL_SHOWN, useLastCut } from '@/shell/useLastCut'

/** What a dragged row carries: references, as JSON. */
export const DRAGGED = 'application/x-cartella-references'

const KINDS = {
  camera: t('bins.useBinActions.camera'),
  recorder: t('bins.useBinActions.recorder'),
  phone: t('bins.useBinActions.phone'),
  other: t('bins.useBinActions.device'),
}
export const IMPORTS = ['production sound', 'effects', 'music', 'graphics', 'stills', 'extra shots', 'stock']

/** Colours that a bin can have; what each looks like stands in colours.css. */
export const COLOURS = ['rust', 'ochre', 'moss', 'teal', 'slate', 'plum'] as const

/** Pieces of one step. */
const MOST_PIECES = 500

/** What people do to bins and to what lies in them. */
export function useBinActions(options: {
  bin: () => BinEntry | undefined
  /** References in hand: those that are chosen, else the one under the cursor; they may have to be asked for. */
  refs: () => Promise<string[]>
  /** The rows in hand that have come. */
  hand: Ref<BinRow[]>
  letGo: () => void
}) {
  const { production } = useDesk()
  const router = useRouter()
  const route = useRoute()
  const id = () => production.value.ulid
  const mayOrganise = () => production.value.may.organise
  const naming = ref<{ title: string; name: string; run: (name: string) => Promise<unknown> } | null>(null)
  const clips = () => [
    ...new Set(
      options.hand.value.flatMap((row) =>
        row.what === 'take' ? row.angles.map((one) => one.clip) : row.clip === null ? [] : [row.clip],
      ),
    ),
  ]
  /** The bin, if it is one that people made. */
  const own = () => {
    const bin = options.bin()
    return bin !== undefined && !bin.key.includes(':') && bin.key !== 'all' ? bin : undefined
  }
  const plain = () => (own()?.is_rule === false ? own() : undefined)

  function make(parent: string | null = null, rule: RuleGroup | null = null, made?: () => void): void {
    if (!mayOrganise()) return
    naming.value = {
      title: rule === null ? t('bins.useBinActions.newBin') : t('bins.useBinActions.newRuleBin'),
      name: '',
      run: async (name) => {
        const bin = await bins.make(id(), name, parent, rule)
        made?.()
        makeStale('bins')
        await router.replace({ query: { bin: bin.key } })
      },
    }
  }
  function rename(): void {
    const bin = own()
    if (bin === undefined || !mayOrganise()) return
    naming.value = {
      title: t('bins.useBinActions.renameTheBin'),
      name: bin.name,
      run: (name) => bins.change(id(), bin.key, { name }),
    }
  }
  async function finishNaming(): Promise<void> {
    const open = naming.value
    if (open === null || open.name.trim() === '') return
    const done = await attempt(async () => {
      await open.run(open.name.trim())
      return true
    })
    if (done === true) naming.value = null
    makeStale('bins')
  }
  async function remove(): Promise<void> {
    const bin = own()
    if (bin === undefined || !mayOrganise()) return
    if ((await attempt(() => bins.remove(id(), bin.key))) === undefined) return
    say(t('bins.useBinActions.isRemovedItsClipsAre', [bin.name]))
    await router.replace({ query: {} })
    makeStale('bins')
  }
  async function colour(to: string | null): Promise<void> {
    const bin = own()
    if (bin === undefined || !mayOrganise()) return
    await attempt(() => bins.change(id(), bin.key, { colour: to }))
    makeStale('bins')
  }
  /** Into another bin or to the top, before one of those there. */
  async function place(bin: string, parent: string | null, before: string | null): Promise<void> {
    if (bin === '' || !mayOrganise()) return
    await attempt(() => bins.place(id(), bin, parent, before))
    makeStale('bins')
  }
  async function freeze(): Promise<void> {
    const bin = own()
    if (bin === undefined || !bin.is_rule || !mayOrganise()) return
    const frozen = await attempt(() => bins.freeze(id(), bin.key))
    makeStale('bins')
    if (frozen === undefined) return
    say(t('bins.useBinActions.whatLiesInNowHas', [bin.name]))
    await router.replace({ query: { bin: frozen.key } })
  }
  async function setGroups(groups: string[]): Promise<void> {
    await attempt(() => bins.setGroups(id(), groups))
    makeStale('bins')
  }
  /** Puts references into a bin; out of the one they lie in only where they are moved. */
  async function putInto(target: BinEntry, what?: string[], isMove = true): Promise<void> {
    const refs = what ?? (await options.refs())
    if (refs.length === 0) return
    const from = isMove ? (plain()?.key ?? null) : null
    const done = await attempt(() => bins.put(id(), target.key, refs, from))
    if (done !== undefined) {
      const many = done.moved === 1 ? t('bins.useBinActions.itIs') : t('bins.useBinActions.are', [done.moved])
      say(t('bins.useBinActions.in', [done.moved === 0 ? t('bins.useBinActions.already') : many, target.name]))
    }
    options.letGo()
    makeStale('bins')
  }
  async function takeOut(): Promise<void> {
    const bin = plain()
    if (bin === undefined || !mayOrganise()) return
    const refs = await options.refs()
    if (refs.length === 0) return
    if ((await attempt(() => bins.takeOut(id(), bin.key, refs))) !== undefined)
      say(t('bins.useBinActions.takenOutOfTheBin'))
    options.letGo()
    makeStale('bins')
  }

  /** What a clip can be said to be: footage of a device that is in use, or an import of a kind. */
  const angles = computed(() => [
    ...production.value.devices
      .filter((one) => !one.is_retired)
      .map((one) => ({
        key: one.letter,
        device: one.letter as string | null,
        title: `${KINDS[one.kind]} ${one.note}`.trim(),
        body: { device: one.letter } as Record<string, string>,
      })),
    ...IMPORTS.map((kind) => ({
      key: `import ${kind}`,
      device: null as string | null,
      title: t('bins.useBinActions.anImport', [valueWord(kind)]),
      body: { import_kind: kind } as Record<string, string>,
    })),
  ])
  /** The device is the angle: said once for whatever is in hand. */
  async function assign(to: (typeof angles.value)[number]): Promise<void> {
    if (clips().length === 0) return
    const done = await attempt(() => cards.sayDevice(id(), clips(), to.body))
    if (done !== undefined) {
      const many =
        done.changed === 1 ? t('bins.useBinActions.n1ClipIs') : t('bins.useBinActions.clipsAre', [done.changed])
      const where =
        to.device === null
          ? to.title.replace('an import: ', 'among the imports, ')
          : t('bins.useBinActions.ofDevice', [to.device])
      say(t('bins.useBinActions.nowCtrlZTakesIt', [many, where]))
    }
    options.letGo()
    makeStale('clips')
  }
  const { data: known } = useAnswer(() => lineup.looks(id()))
  const looks = computed(() => [
    ...(known.value?.looks ?? []).map((one) => ({
      key: one.ulid,
      name: one.name,
      note: (one.devices ?? []).length === 0 ? '' : t('bins.useBinActions.ofDevice', [one.devices?.join(', ')]),
    })),
    { key: '', name: t('bins.useBinActions.theOneOfItsDevice'), note: '' },
  ])
  /** A look for the pictures in hand. */
  async function setLook(to: { key: string; name: string }): Promise<void> {
    const done = await attempt(() => lineup.setLook(id(), { look: to.key || null, clips: clips() }))
    if (done !== undefined)
      say(
        to.key === ''
          ? t('bins.useBinActions.theyLookAsTheirDevices')
          : t('bins.useBinActions.theLookIsNowCtrl', [to.name]),
      )
    makeStale('looks')
    makeStale('clips')
  }
  /** A colour for the clips in hand; null takes it off. */
  async function colourClips(colour: string | null): Promise<void> {
    const done = await attempt(() => bins.colourClips(id(), clips(), colour))
    if (done !== undefined)
      say(
        colour === null
          ? t('bins.useBinActions.theyHaveNoColourAny')
          : t('bins.useBinActions.theyAreNowCtrlZ', [valueWord(colour)]),
      )
    makeStale('clips')
  }
  /** What of what is in hand can be named by a pattern. */
  const named = () => ({
    clips: clips(),
    takes: takes().map((one) => one.ulid),
    subclips: options.hand.value.flatMap((row) => (row.what === 'subclip' ? [row.ref.split(':')[1]!] : [])),
  })
  /** A review reel of the takes in hand, each from its slate. */
  async function makeReel(): Promise<void> {
    const chosen = takes().map((one) => one.ulid)
    if (chosen.length === 0) return refuse(t('bins.useBinActions.nothingOfItHasA'))
    const day = String(route.params.day)
    const made = await attempt(() => screening.build(id(), day, { from: 'takes', what: chosen, circled_only: false }))
    if (made === undefined) return
    say(
      t('bins.useBinActions.aReelOfIsReady', [
        chosen.length,
        chosen.length === 1 ? t('bins.useBinActions.take') : t('bins.useBinActions.takes'),
      ]),
    )
    makeStale('sequences')
  }
  const { add } = useLastCut(id, () => production.value.may.organise)
  /** What is in hand, each piece with its sound, at the end of the cut that was worked on last. */
  async function intoCut(): Promise<void> {
    const pieces = options.hand.value.flatMap((row) => {
      const lasts = row.kind === 'still' ? STILL_SHOWN : (row.duration_ticks ?? 0)
      if (row.clip === null || lasts <= 0 || row.is_away) return []
      const from = row.in_ticks ?? 0
      return [{ clip: row.clip, in_ticks: from, out_ticks: from + lasts, take: row.take?.ulid ?? null }]
    })
    if (pieces.length === 0) return refuse(t('bins.useBinActions.nothingOfItRunsChoose'))
    if (pieces.length > MOST_PIECES) return refuse(t('bins.useBinActions.thatIsMoreThanPieces', [MOST_PIECES]))
    await add(
      pieces,
      pieces.length === 1 ? options.hand.value[0]!.name : t('bins.useBinActions.pieces', [pieces.length]),
    )
  }
  /** The takes of what is in hand, each once. */
  const takes = () => [
    ...new Map(options.hand.value.flatMap((row) => (row.take === null ? [] : [[row.take.ulid, row.take]]))).values(),
  ]
  /** One field of all takes in hand, in one step. */
  async function setField(day: string, field: string, value: (was: string) => string): Promise<number | undefined> {
    const edits = takes().flatMap((take) => {
      const was = field === 'status' ? take.status : (take.fields[field] ?? '')
      const now = value(was)
      return now === was ? [] : [{ take: take.ulid, changes: { [field]: { was, now } } }]
    })
    if (edits.length > 0 && (await attempt(() => logApi.edit(id(), day, { edits }))) === undefined) return undefined
    makeStale('takes')
    return edits.length
  }
  /** Circles all takes in hand; those that are all circled lose it. */
  async function circle(day: string): Promise<void> {
    if (!production.value.may.work || takes().length === 0) return
    const off = takes().every((take) => take.status === 'circled')
    const count = await setField(day, 'status', () => (off ? 'none' : 'circled'))
    if (count !== undefined)
      say(
        count === 1
          ? off
            ? t('bins.useBinActions.theTakeIsNoMore')
            : t('bins.useBinActions.theTakeIsCircled')
          : off
            ? t('bins.useBinActions.takesAreNoMore', [count])
            : t('bins.useBinActions.takesAreCircled', [count]),
      )
  }
  function addKeyword(day: string): void {
    if (!production.value.may.work || takes().length === 0) return
    naming.value = {
      title:
        takes().length === 1
          ? t('bins.useBinActions.aKeywordForTheTake')
          : t('bins.useBinActions.aKeywordForTakes', [takes().length]),
      name: '',
      run: async (word) => {
        const count = await setField(day, 'keywords', (was) => {
          const all = was.split(',').map((one) => one.trim())
          return all.includes(word) ? was : [...all.filter((one) => one !== ''), word].join(', ')
        })
        if (count === undefined) return
        say(
          t('bins.useBinActions.theKeyword', [
            count === 0
              ? t('bins.useBinActions.theyHave')
              : count === 1
                ? t('bins.useBinActions.itHas')
                : t('bins.useBinActions.have', [count]),
            word,
          ]),
        )
      },
    }
  }
  async function splitChannels(): Promise<void> {
    if (clips().length === 0 || !mayOrganise()) return
    const done = await attempt(() => bins.splitChannels(id(), clips()))
    if (done !== undefined)
      say(
        done.made === 0
          ? t('bins.useBinActions.thereIsNoChannelThat')
          : t('bins.useBinActions.channelsHaveNamesOfTheir', [done.made]),
      )
    options.letGo()
    makeStale('bins')
  }
  return {
    naming,
    circle,
    addKeyword,
    splitChannels,
    makeReel,
    intoCut,
    make,
    rename,
    finishNaming,
    remove,
    colour,
    place,
    freeze,
    setGroups,
    putInto,
    takeOut,
    own,
    plain,
    angles,
    assign,
    looks,
    setLook,
    colourClips,
    clips,
    named,
    hasClips: () => clips().length > 0,
  }
}

export type BinActions = ReturnType<typeof useBinActions>
