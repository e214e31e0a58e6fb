import { computed, type Ref, ref } from 'vue'
import { useRouter } from 'vue-router'
import { makeStale } from '@/api/queries'
import { bins } from '@/api/endpoints/bins'
import { cards } from '@/api/endpoints/cards'
import type { BinEntry, BinRow } from '@/api/types'
import { useDesk } from '@/shell/desk'
import { attempt, say } from '@/shell/say'

/** What a dragged row carries: references, as JSON. */
export const DRAGGED = 'application/x-cartella-references'

const KINDS = { camera: 'Camera', recorder: 'Recorder', phone: 'Phone', other: 'Device' }
const IMPORTS = ['production sound', 'effects', 'music', 'graphics', 'stills', 'stock']

/** What people do to bins and to what lies in them. */
export function useBinActions(options: {
  bin: () => BinEntry | undefined
  isOwn: () => boolean
  /** The rows in hand: those that are chosen, else the one under the cursor. */
  hand: Ref<BinRow[]>
  letGo: () => void
}) {
  const { production } = useDesk()
  const router = useRouter()
  const id = () => production.value.ulid
  const mayOrganise = () => production.value.may.organise
  const naming = ref<{ title: string; name: string; run: (name: string) => Promise<unknown> } | null>(null)
  const refs = () => options.hand.value.map((row) => row.ref)
  const clips = () => [...new Set(options.hand.value.flatMap((row) => (row.clip === null ? [] : [row.clip])))]

  function make(): void {
    if (!mayOrganise()) return
    naming.value = {
      title: 'New bin',
      name: '',
      run: async (name) => {
        const made = await bins.make(id(), name)
        makeStale('bins')
        await router.replace({ query: { bin: made.key } })
      },
    }
  }
  function rename(): void {
    const bin = options.bin()
    if (!options.isOwn() || bin === undefined || !mayOrganise()) return
    naming.value = { title: 'Rename the bin', name: bin.name, run: (name) => bins.rename(id(), bin.key, name) }
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
    const bin = options.bin()
    if (!options.isOwn() || bin === undefined || !mayOrganise()) return
    if ((await attempt(() => bins.remove(id(), bin.key))) === undefined) return
    say(`${bin.name} is removed; its clips are where they were. Ctrl Z brings it back.`)
    await router.replace({ query: {} })
    makeStale('bins')
  }
  async function putInto(target: BinEntry, what: string[] = refs()): Promise<void> {
    if (what.length === 0) return
    const from = options.isOwn() ? (options.bin()?.key ?? null) : null
    const done = await attempt(() => bins.put(id(), target.key, what, from))
    if (done !== undefined) {
      const many = done.moved === 1 ? 'It is' : `${done.moved} are`
      say(`${done.moved === 0 ? 'Already' : many} in ${target.name}.`)
    }
    options.letGo()
    makeStale('bins')
  }
  async function takeOut(): Promise<void> {
    const bin = options.bin()
    if (!options.isOwn() || bin === undefined || refs().length === 0 || !mayOrganise()) return
    if ((await attempt(() => bins.takeOut(id(), bin.key, refs()))) !== undefined) say('Taken out of the bin.')
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
      title: `an import: ${kind}`,
      body: { import_kind: kind } as Record<string, string>,
    })),
  ])
  /** The device is the angle: said once for whatever is in hand. */
  async function assign(to: (typeof angles.value)[number]): Promise<void> {
    if (clips().length === 0) return
    const done = await attempt(() => cards.sayDevice(id(), clips(), to.body))
    if (done !== undefined) {
      const many = done.changed === 1 ? '1 clip is' : `${done.changed} clips are`
      const where =
        to.device === null ? to.title.replace('an import: ', 'among the imports, ') : `of device ${to.device}`
      say(`${many} ${where} now. Ctrl Z takes it back.`)
    }
    options.letGo()
    makeStale('clips')
  }
  return {
    naming,
    make,
    rename,
    finishNaming,
    remove,
    putInto,
    takeOut,
    angles,
    assign,
    hasClips: () => clips().length > 0,
  }
}
