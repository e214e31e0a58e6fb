<script setup lang="ts">
import { t, valueWord } from '@/words'
import './colours.css'
import { useDebounceFn } from '@vueuse/core'
import { Modal, Popover } from 'ant-design-vue'
import { computed, nextTick, ref, shallowRef, useTemplateRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { bins } from '@/api/endpoints/bins'
import { setAnswer, useAnswer } from '@/api/queries'
import type { BinEntry, BinRow, BinArrangement } from '@/api/types'
import { length } from '@/player/time'
import AnswerState from '@/shell/AnswerState.vue'
import { useDesk } from '@/shell/desk'
import { useShortcuts } from '@/shell/keys'
import PanelEdge from '@/shell/PanelEdge.vue'
import PickDialog from '@/shell/PickDialog.vue'
import { attempt } from '@/shell/say'
import { whereIs } from '@/shell/sequence'
import BinBar from './BinBar.vue'
import BinPictures from './BinPictures.vue'
import BinRows from './BinRows.vue'
import BinTreeNav from './BinTreeNav.vue'
import ClipSheetPanel from './ClipSheetPanel.vue'
import HandDialogs from './HandDialogs.vue'
import HandMenu from './HandMenu.vue'
import ImportDialog from './ImportDialog.vue'
import ImportsStrip from './ImportsStrip.vue'
import RuleSentence from './RuleSentence.vue'
import { COLOURS, DRAGGED, IMPORTS, useBinActions } from './useBinActions'
import { PAGE, useBinList } from './useBinList'
import { useBinCells } from './useBinCells'
import { useBringing } from './useBringing'
import { useHand } from './useHand'
import { useHandActs } from './useHandActs'
import { useRested } from './useRested'
import { useRuleDraft } from './useRuleDraft'
import { type BinColumn, columnsOf, PLAIN, plainOf } from './view'

const { production } = useDesk()
const route = useRoute()
const router = useRouter()
const id = () => production.value.ulid
const { data: tree, isPending, error, refetch } = useAnswer(() => bins.tree(id()))
const { data: counts } = useAnswer(() => bins.counts(id()))
const { data: asked } = useAnswer(() => bins.subjects(id()))
const subjects = computed(() => asked.value?.subjects ?? [])

const filled = computed(() => tree.value?.groups.flatMap((group) => group.bins) ?? [])
const ownBins = computed(() => tree.value?.own ?? [])
const plainBins = computed(() => ownBins.value.filter((bin) => !bin.is_rule))
const entries = computed<BinEntry[]>(() => [...filled.value, ...ownBins.value])
/** A rule that is being written and has no bin yet. */
const isNew = computed(() => route.query.new !== undefined)
const key = computed(() =>
  isNew.value ? null : typeof route.query.bin === 'string' ? route.query.bin : (entries.value[0]?.key ?? null),
)
const bin = computed(() => entries.value.find((one) => one.key === key.value))
const headings = computed(() =>
  Object.fromEntries(
    (tree.value?.groups.find((group) => group.key === 'scenes')?.bins ?? []).map((one) => [one.name, one.note]),
  ),
)

// How this person looks at this bin.
const viewOf = computed<BinArrangement>(() => tree.value?.views[key.value ?? ''] ?? plainOf(key.value ?? ''))
const newView = shallowRef<BinArrangement>(PLAIN)
const view = computed(() => (isNew.value ? newView.value : viewOf.value))
/** Scene by scene is slate order, whatever the rows are ordered by. */
const looking = computed<BinArrangement>(() =>
  view.value.show === 'scenes' ? { ...view.value, order: 'slate', down: false } : view.value,
)
/** Arrangements that are not kept yet, each by its bin. */
const unkept = new Map<string, BinArrangement>()
const keepViews = useDebounceFn(() => {
  for (const [of, arranged] of unkept) void attempt(() => bins.keepArrangement(id(), of, arranged))
  unkept.clear()
}, 400)
function setView(now: BinArrangement): void {
  if (isNew.value) newView.value = now
  else if (key.value !== null && tree.value !== undefined) {
    const of = key.value
    setAnswer(bins.tree(id()), { ...tree.value, views: { ...tree.value.views, [of]: now } })
    unkept.set(of, now)
    void keepViews()
  }
  letGo()
}
const columns = computed(() => columnsOf(view.value, production.value.fields))
const setColumns = (now: BinColumn[] | null) =>
  setView({
    ...view.value,
    columns: (now ?? []).map(({ key: column, width, shown }) => ({ key: column, width, shown })),
  })
const sort = (order: string) =>
  setView({ ...view.value, order, down: view.value.order === order ? !view.value.down : false })
const takesAsked = computed(() => /^(scene:|day:|all$)/.test(key.value ?? ''))

const {
  data: kept,
  isPending: rowsPending,
  error: rowsError,
  refetch: again,
} = useAnswer(() => (key.value === null ? null : bins.page(id(), key.value, looking.value, PAGE)))

const { draft, isDraft, looked, lookedTicks, trouble, changeRule, keepRule, dropRule, keptRule, rule } = useRuleDraft({
  production: id,
  binKey: key,
  isNew,
  words: () => route.query.new,
  kept,
  subjects,
  arrangement: looking,
  limit: PAGE,
  make: (now, made) => actions.make(null, now, made),
  again: () => again(),
  drop: () => void router.replace({ query: {} }),
})

const page = computed(() => (isDraft.value ? looked.value : kept.value))
// Of very much the length comes a moment later.
const { data: summed } = useAnswer(() =>
  key.value !== null && kept.value?.ticks === null ? bins.sum(id(), key.value, looking.value) : null,
)
const ticks = computed(() => page.value?.ticks ?? (isDraft.value ? lookedTicks.value : summed.value?.ticks) ?? 0)
const of = computed(
  () =>
    `${key.value} ${JSON.stringify([looking.value.order, looking.value.down, looking.value.takes])} ${isDraft.value}`,
)
const { rows, total, need, come, written, shownRow, show } = useBinList({
  first: page,
  of,
  ask: (from, limit) =>
    draft.value !== null
      ? bins.look(id(), draft.value, looking.value, from, limit)
      : bins.more(id(), key.value ?? '', looking.value, from, limit),
})

const { cursor, range, isChosen, chosenCount, current, inHand, hand, refs, ready, letGo, select, goTo } = useHand({
  production: id,
  binKey: key,
  arrangement: looking,
  rows,
  shownRow,
  come,
})
/** A clip that the address asks for is shown even where the bin's rows have not come yet. */
const wanted = computed(() => (typeof route.query.clip === 'string' ? route.query.clip : null))
watch(
  [rows, wanted],
  ([list, clip]) => {
    const found = clip === null ? undefined : list.find((one) => one.row?.clip === clip)
    if (found !== undefined && (cursor.value === null || current.value?.clip !== clip)) cursor.value = found.key
    else if (current.value === null && range.at.value < 0) cursor.value = list[0]?.key ?? null
  },
  { immediate: true },
)
const shownClip = computed(() =>
  wanted.value !== null && current.value?.clip !== wanted.value ? wanted.value : (current.value?.clip ?? null),
)

interface Shown {
  reveal: (at: number) => void
  page: () => number
  across?: number
}
const list = useTemplateRef<Shown>('list')
const bar = useTemplateRef('bar')
const sentence = useTemplateRef('sentence')
const handMenu = useTemplateRef('handMenu')
function forget(): void {
  if (route.query.clip !== undefined) void router.replace({ query: { bin: key.value ?? undefined } })
}
function press(row: string, event: MouseEvent): void {
  select(row, event)
  forget()
}
function step(at: number, extend: boolean): void {
  if (!goTo(at, extend)) return
  forget()
  list.value?.reveal(range.at.value)
}
const move = (by: number, extend: boolean) => step(range.at.value + by, extend)
const down = () => (view.value.show === 'rows' ? 1 : (list.value?.across ?? 1))
const openBin = (one: BinEntry) => void router.replace({ query: { bin: one.key } })
function stepBin(step: number): void {
  const now = entries.value.findIndex((one) => one.key === key.value)
  const next = entries.value[Math.max(0, Math.min(entries.value.length - 1, now + step))]
  if (next !== undefined) openBin(next)
}
function drag(event: DragEvent, row: BinRow): void {
  const isChosenOne = inHand.value.some((one) => one.key === row.ref)
  // What is chosen is asked for when it is dropped: not all of it may have come yet.
  event.dataTransfer?.setData(DRAGGED, JSON.stringify(isChosenOne && chosenCount.value > 0 ? null : [row.ref]))
}
/** What a row is leads to where it is worked on: a cut or reel to its stage, anything else to its clip. */
function open(row: BinRow): void {
  const params = { production: id(), day: route.params.day }
  if (row.sequence !== null) void router.push(whereIs(row.sequence, params))
  else if (row.clip !== null)
    void router.push({
      name: 'clip',
      params: { production: id(), day: route.params.day, clip: row.clip },
      query: {
        at: row.in_ticks === null ? undefined : String(row.in_ticks),
        sub: row.what === 'subclip' ? row.ref.split(':')[1] : undefined,
      },
    })
}
const showAngle = (clip: string) => void router.replace({ query: { bin: key.value ?? undefined, clip } })

const cells = useBinCells({
  production,
  day: () => String(route.params.day),
  columns,
  rowAt: (of) => {
    const found = rows.value.find((one) => one.key === of)
    return found === undefined ? null : shownRow(found)
  },
  written,
  show,
  leave: () => void nextTick(() => (document.activeElement as HTMLElement | null)?.blur()),
})
const panelClip = useRested(shownClip, () => cells.open.value !== null)
const actions = useBinActions({ bin: () => bin.value, refs, hand, letGo })
const { naming } = actions
/** What other productions share is looked at, and put into own bins; nothing of it is changed here. */
const isShared = computed(() => key.value?.startsWith('library:') === true)
const isOwn = computed(() => actions.own() !== undefined)
const dialogs = useTemplateRef('dialogs')
const {
  offered,
  shortcuts: handKeys,
  colour: giveColour,
} = useHandActs({
  production,
  actions,
  hand,
  chosenCount,
  count: computed(() => inHand.value.length),
  ready,
  isShared,
  isOwn,
  day: () => String(route.params.day),
  dialogs: () => dialogs.value,
  open: () => current.value !== null && open(current.value),
  compare: (first, second) =>
    void router.push({ name: 'compare', params: { production: id(), day: route.params.day, first, second } }),
})
/** A right click is on its row, or on all that is chosen where that row is among them. */
function openMenu(row: string, event: MouseEvent): void {
  if (!inHand.value.some((one) => one.key === row)) press(row, event)
  handMenu.value?.open()
}
const placing = ref(false)
/** Where the bin can go: the top, or any bin that is filled by hand and does not lie in it. */
const places = computed(() => {
  const inside = new Set([key.value ?? ''])
  for (const one of ownBins.value) if (one.parent !== null && inside.has(one.parent)) inside.add(one.key)
  const top = { key: '', name: t('bins.BinsPage.atTheTop'), depth: 0, items: null }
  return [top, ...plainBins.value.filter((one) => !inside.has(one.key))]
})
function beginRule(): void {
  if (!production.value.may.organise) return
  void router.replace({ query: { new: '' } })
}
// The first word is asked for as soon as the sentence is there.
watch([isNew, sentence], ([now, there]) => now && route.query.new === '' && there && void nextTick(() => there.ask()), {
  flush: 'post',
})

const bringing = useBringing({
  may: () => production.value.may.work,
  files: useTemplateRef<HTMLInputElement>('filesBox'),
  folder: useTemplateRef<HTMLInputElement>('folderBox'),
})
/** What lies in the bin of a kind of import comes in as that kind. */
const bringKind = computed(() => {
  const kind = /^import:(.+)$/.exec(key.value ?? '')?.[1]
  return kind !== undefined && IMPORTS.includes(kind) ? kind : null
})

const may = () => production.value.may.organise
useShortcuts('Bins', [
  {
    keys: ['ArrowDown', 'ArrowUp'],
    what: t('bins.BinsPage.nextRowTheOneBefore'),
    run: (event) => move(event.key === 'ArrowDown' ? down() : -down(), false),
  },
  {
    keys: ['ArrowRight', 'ArrowLeft'],
    what: t('bins.BinsPage.nextPictureTheOneBefore'),
    run: (event) => view.value.show !== 'rows' && move(event.key === 'ArrowRight' ? 1 : -1, false),
  },
  {
    keys: ['Shift+ArrowDown', 'Shift+ArrowUp'],
    what: t('bins.BinsPage.chooseSeveral'),
    run: (event) => move(event.key === 'ArrowDown' ? down() : -down(), true),
  },
  {
    keys: ['Ctrl+ArrowDown', 'Ctrl+ArrowUp'],
    what: t('bins.BinsPage.aPageOfRowsFurther'),
    run: (event) => move((event.key === 'ArrowDown' ? 1 : -1) * (list.value?.page() ?? 10), false),
  },
  {
    keys: ['Ctrl+Home', 'Ctrl+End'],
    what: t('bins.BinsPage.firstRowLastRow'),
    run: (event) => step(event.key === 'Home' ? 0 : Infinity, false),
  },
  {
    keys: ['Ctrl+Shift+Home', 'Ctrl+Shift+End'],
    what: t('bins.BinsPage.chooseAsFarAsThe'),
    run: (event) => step(event.key === 'Home' ? 0 : Infinity, true),
  },
  { keys: ['Ctrl+a'], what: t('bins.BinsPage.chooseAllOfTheBin'), run: () => range.all() },
  {
    keys: ['PageDown', 'PageUp'],
    what: t('bins.BinsPage.nextBinTheOneBefore'),
    run: (event) => stepBin(event.key === 'PageDown' ? 1 : -1),
  },
  ...handKeys,
  {
    keys: ['e'],
    what: t('bins.BinsPage.writeInTheRowTab'),
    run: () => cursor.value !== null && view.value.show === 'rows' && cells.start(cursor.value),
  },
  { keys: ['Alt+m'], what: t('bins.BinsPage.whatCanBeDoneWith'), run: () => handMenu.value?.open() },
  { keys: ['n'], what: t('bins.BinsPage.newBin'), run: () => actions.make() },
  { keys: ['N'], what: t('bins.BinsPage.newRuleBin'), run: beginRule },
  { keys: ['r'], what: t('bins.BinsPage.toTheWordsOfThe'), run: () => sentence.value?.enter() },
  { keys: ['F2'], what: t('bins.BinsPage.renameThisBin'), run: actions.rename },
  {
    keys: ['Alt+b'],
    what: t('bins.BinsPage.placeThisBinInAnother'),
    run: () => may() && isOwn.value && (placing.value = true),
  },
  {
    keys: ['Alt+1', 'Alt+2', 'Alt+3'],
    what: t('bins.BinsPage.rowsPicturesByScene'),
    run: (event) =>
      setView({
        ...view.value,
        show: (['rows', 'pictures', 'scenes'] as const)[Number(event.code.slice(-1)) - 1] ?? 'rows',
      }),
  },
  { keys: ['b'], what: t('bins.BinsPage.bringInFiles'), run: () => bringing.choose(false) },
  { keys: ['B'], what: t('bins.BinsPage.bringInAFolder'), run: () => bringing.choose(true) },
  { keys: ['Alt+d'], what: t('bins.BinsPage.daysAndDevices'), run: () => bar.value?.filter() },
  { keys: ['Alt+k'], what: t('bins.BinsPage.columns'), run: () => bar.value?.columns() },
  { keys: ['Ctrl+Enter'], what: t('bins.BinsPage.keepTheRule'), whileTyping: true, run: () => void keepRule() },
])
</script>

<template>
  <AnswerState :pending="isPending" :error="error" @retry="refetch()">
    <div
      v-if="tree"
      class="split"
      @dragenter="bringing.hover"
      @dragover="bringing.hover"
      @dragleave="bringing.leave"
      @drop="bringing.drop"
    >
      <div v-if="bringing.isOver.value" class="catch">
        <p>
          <b>{{ t('bins.BinsPage.dropFilesAndFoldersHere') }}</b><span>{{
            bringKind === null ? t('bins.BinsPage.asWhatTheirFoldersSay') : t('bins.BinsPage.as', [bringKind])
          }}</span>
        </p>
      </div>
      <PanelEdge stage="bins" :usual="352" />
      <BinTreeNav
        :tree="tree"
        :counts="counts?.counts"
        :chosen="key"
        :may-organise="production.may.organise"
        @open="openBin"
        @make="actions.make()"
        @make-rule="beginRule"
        @drop="(bin, what) => actions.putInto(bin, what ?? undefined)"
        @place="actions.place"
        @groups="actions.setGroups"
      >
        <p v-if="production.may.work" class="bring soft">
          {{ t('bins.BinsPage.bringIn') }}
          <button
            class="plain"
            :title="t('bins.BinsPage.musicEffectsGraphicsStillsStock')"
            @click="bringing.choose(false)"
          >
            {{ t('bins.BinsPage.files') }}</button><button
            class="plain"
            :title="t('bins.BinsPage.withAllThatIsBelow')"
            @click="bringing.choose(true)"
          >
            {{ t('bins.BinsPage.aFolder') }}
          </button>
        </p>
        <input ref="filesBox" class="files-box" type="file" multiple hidden @change="bringing.chosen" />
        <input ref="folderBox" class="folder-box" type="file" webkitdirectory hidden @change="bringing.chosen" />
        <ImportsStrip />
      </BinTreeNav>
      <section class="middle">
        <div class="top">
          <div class="bar">
            <b>{{ isNew ? t('bins.BinsPage.aNewRule') : (bin?.name ?? t('bins.BinsPage.bins')) }}</b><span
              class="soft note-line"
              >{{ bin?.note }}</span
            >
            <template v-if="isOwn && production.may.organise"
              ><button class="plain" :title="t('bins.BinsPage.renameF2')" @click="actions.rename">
                {{ t('bins.BinsPage.rename') }}</button
              ><button class="plain" :title="t('bins.BinsPage.intoAnotherBinAltB')" @click="placing = true">
                {{ t('bins.BinsPage.place') }}</button
              ><Popover trigger="click" placement="bottomLeft"
                ><button class="plain">{{ t('bins.BinsPage.colour') }}</button>
                <template #content
                  ><div class="colours">
                    <button
                      v-for="one in COLOURS"
                      :key="one"
                      class="swatch"
                      :class="`bin-${one}`"
                      :aria-label="valueWord(one)"
                      :title="valueWord(one)"
                      @click="actions.colour(one)"
                    /><button class="plain" @click="actions.colour(null)">{{ t('bins.BinsPage.none') }}</button>
                  </div></template
                ></Popover
              ><button class="plain" @click="actions.remove">{{ t('bins.BinsPage.remove') }}</button></template
            >
            <span class="push" /><HandMenu
              v-if="rows.length > 0"
              ref="handMenu"
              :title="
                inHand.length === 1
                  ? (hand[0]?.name ?? t('bins.BinsPage.it'))
                  : t('bins.BinsPage.thatAreChosen', [inHand.length])
              "
              :acts="offered"
              :colours="production.may.work && !isShared ? COLOURS : null"
              @colour="giveColour"
            />
            <span class="soft sum"
              >{{ chosenCount > 0 ? t('bins.BinsPage.of', [chosenCount]) : '' }}{{ total
              }}{{ ticks > 0 ? ` · ${length(ticks)}` : '' }}</span
            >
          </div>
          <RuleSentence
            v-if="rule !== null && subjects.length > 0"
            ref="sentence"
            :rule="rule"
            :kept="isNew ? null : keptRule"
            :subjects="subjects"
            :total="page?.total ?? null"
            :ticks="ticks"
            :trouble="isDraft ? trouble : null"
            :may-change="production.may.organise"
            @change="changeRule"
            @keep="keepRule"
            @back="dropRule"
            @freeze="actions.freeze"
          />
          <BinBar
            ref="bar"
            :view="view"
            :columns="columns"
            :production="production"
            :takes-asked="takesAsked"
            :bin="key ?? ''"
            @view="setView"
            @columns="setColumns"
          />
        </div>
        <div v-if="entries.length === 0 && !isNew" class="empty">
          <b>{{ t('bins.BinsPage.noBinsYet') }}</b>{{ t('bins.BinsPage.scenesGetTheirsWhenSlates') }}
        </div>
        <AnswerState
          v-else
          :pending="!isDraft && rowsPending && rows.length === 0"
          :error="isDraft ? null : rowsError"
          @retry="again()"
        >
          <div v-if="rows.length === 0" class="empty">
            <template v-if="isDraft"
              ><b>{{ t('bins.BinsPage.nothingIsLikeThat') }}</b
              >{{ t('bins.BinsPage.changeAWordOfThe') }}</template
            >
            <template v-else-if="view.days.length + view.devices.length > 0"
              ><b>{{ t('bins.BinsPage.nothingOfTheseDaysAnd') }}</b
              ><button class="plain" @click="setView({ ...view, days: [], devices: [] })">
                {{ t('bins.BinsPage.showAllOfThem') }}
              </button></template
            >
            <template v-else
              ><b>{{ t('bins.BinsPage.thisBinIsEmpty') }}</b
              >{{
                bin?.is_rule
                  ? t('bins.BinsPage.nothingIsLikeItsRule')
                  : isOwn
                    ? t('bins.BinsPage.dragClipsOntoItIn')
                    : t('bins.BinsPage.clipsComeHereFromCards')
              }}<template v-if="!isOwn && !bin?.is_rule"
                ><br /><RouterLink class="plain" :to="{ name: 'cards', params: route.params }">{{
                  t('bins.BinsPage.toTheBench')
                }}</RouterLink></template
              ></template
            >
          </div>
          <BinRows
            v-else-if="view.show === 'rows'"
            ref="list"
            :rows="rows"
            :columns="columns"
            :order="view.order"
            :down="view.down"
            :cursor="cursor"
            :is-chosen="isChosen"
            :production="production"
            :cells="cells"
            @menu="openMenu"
            @select="press"
            @open="open"
            @angle="showAngle"
            @drag="drag"
            @need="need"
            @sort="sort"
            @columns="setColumns"
          />
          <BinPictures
            v-else
            ref="list"
            :rows="rows"
            :by-scene="view.show === 'scenes'"
            :headings="headings"
            :cursor="cursor"
            :is-chosen="isChosen"
            :production="production"
            @menu="openMenu"
            @select="press"
            @open="open"
            @drag="drag"
            @need="need"
          />
        </AnswerState>
      </section>
      <ImportDialog :files="bringing.files.value" :kind="bringKind" @close="bringing.files.value = null" />
      <ClipSheetPanel :clip="panelClip" :own-bins="ownBins" />
      <Modal
        :open="naming !== null"
        :title="naming?.title"
        :ok-text="t('bins.BinsPage.keep')"
        width="360px"
        @ok="actions.finishNaming"
        @cancel="naming = null"
      >
        <input
          v-if="naming"
          v-model="naming.name"
          class="field"
          :aria-label="naming.title"
          maxlength="120"
          @vue:mounted="({ el }: { el: HTMLInputElement }) => el.focus()"
          @keydown.enter.prevent="actions.finishNaming"
        />
      </Modal>
      <HandDialogs ref="dialogs" :actions="actions" :hand="hand" :count="inHand.length" :bins="plainBins" />
      <PickDialog
        :open="placing"
        :title="t('bins.BinsPage.whereDoesLie', [bin?.name ?? t('bins.BinsPage.it2')])"
        :label="t('bins.BinsPage.ownBins')"
        :choices="places"
        @pick="((placing = false), actions.place(key ?? '', $event.key || null, null))"
        @close="placing = false"
      >
        <template #default="{ one }"
          ><b :style="{ paddingLeft: `${12 * one.depth}px` }">{{ one.name }}</b></template
        >
      </PickDialog>
    </div>
  </AnswerState>
</template>

<style scoped>
.split {
  position: relative;
  display: grid;
  grid-template-columns: 214px minmax(0, 1fr) var(--panel, 352px);
  grid-template-rows: minmax(0, 1fr);
  height: 100%;
}
.catch {
  position: absolute;
  inset: 8px;
  z-index: 20;
  display: grid;
  place-items: center;
  border: 2px dashed var(--act);
  border-radius: 8px;
  background: rgb(255 252 245 / 92%);
  pointer-events: none;
}
.catch p {
  display: grid;
  gap: 4px;
  text-align: center;
  font-size: 15px;
}
.bring {
  display: flex;
  gap: 6px;
  align-items: center;
  margin: 14px 6px 0;
  font-size: 11px;
}
.middle {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  min-width: 0;
}
.top {
  min-width: 0;
}
.note-line {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.sum {
  white-space: nowrap;
}
.colours {
  display: flex;
  gap: 7px;
  align-items: center;
}
.swatch {
  width: 22px;
  height: 22px;
  border-radius: 50%;
  border: 1px solid var(--rule-strong);
  cursor: pointer;
}
/* At twice the size a page is half as wide: the panel goes below, and the page scrolls to it. */
@media (max-width: 860px) {
  .split {
    grid-template-columns: 172px minmax(0, 1fr);
    grid-template-rows: minmax(340px, 100%) auto;
    overflow-y: auto;
  }
  .split > :deep(aside:last-of-type) {
    grid-column: 1 / -1;
  }
}
</style>
