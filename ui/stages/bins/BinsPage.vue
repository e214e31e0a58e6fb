<script setup lang="ts">
import { useVirtualList } from '@vueuse/core'
import { Modal } from 'ant-design-vue'
import { computed, nextTick, ref, shallowRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api, mediaUrl } from '@/api/client'
import { makeStale, useAnswer } from '@/api/queries'
import type { BinClip, BinEntry, BinPage, BinTree } from '@/api/types'
import { labelAt, length } from '@/player/time'
import AnswerState from '@/shell/AnswerState.vue'
import { useDesk } from '@/shell/desk'
import DeviceBadge from '@/shell/DeviceBadge.vue'
import { useShortcuts } from '@/shell/keys'
import { attempt, say } from '@/shell/say'
import TakeNumber from '@/shell/TakeNumber.vue'
import ClipSheetPanel from './ClipSheetPanel.vue'

const PAGE = 200
const ROW = 46
const { production, base } = useDesk()
const route = useRoute()
const router = useRouter()
const { data: tree, isPending, error, refetch } = useAnswer<BinTree>(() => production.value.ulid, 'bins')

const entries = computed<BinEntry[]>(() =>
  tree.value === undefined ? [] : [...tree.value.scenes, ...tree.value.imports, ...tree.value.own],
)
const key = computed(() => (typeof route.query.bin === 'string' ? route.query.bin : (entries.value[0]?.key ?? null)))
const bin = computed(() => entries.value.find((one) => one.key === key.value))
const ownBins = computed(() => tree.value?.own ?? [])
const isOwn = computed(() => ownBins.value.some((one) => one.key === key.value))

// Pages come as the list is scrolled to them.
const loaded = shallowRef<BinClip[]>([])
const wanted = ref(PAGE)
const {
  data: page,
  isPending: clipsPending,
  error: clipsError,
  refetch: again,
} = useAnswer<BinPage>(
  () => production.value.ulid,
  () =>
    key.value === null
      ? null
      : `bins/${encodeURIComponent(key.value)}/clips?from=0&limit=${Math.min(500, wanted.value)}`,
)
const more = ref(0)
watch(page, (now) => {
  loaded.value = now?.clips ?? []
  more.value = (now?.total ?? 0) - loaded.value.length
})
watch(key, () => {
  wanted.value = PAGE
  chosen.value = new Set()
  loaded.value = []
})
async function loadMore(): Promise<void> {
  if (more.value <= 0 || key.value === null || busy) return
  busy = true
  const next = await attempt(() =>
    api.get<BinPage>(
      `${base.value}/bins/${encodeURIComponent(key.value ?? '')}/clips?from=${loaded.value.length}&limit=${PAGE}`,
    ),
  )
  busy = false
  if (next === undefined) return
  loaded.value = [...loaded.value, ...next.clips]
  more.value = next.total - loaded.value.length
}
let busy = false

const { list, containerProps, wrapperProps } = useVirtualList(loaded, { itemHeight: ROW, overscan: 10 })
watch(list, (shown) => {
  if ((shown.at(-1)?.index ?? 0) > loaded.value.length - 30) void loadMore()
})

const cursor = ref<string | null>(null)
const chosen = ref(new Set<string>())
const at = computed(() => loaded.value.findIndex((one) => one.ulid === cursor.value))
watch(
  [loaded, () => route.query.clip],
  ([now, asked]) => {
    if (typeof asked === 'string' && (cursor.value === null || now.length === 0)) cursor.value = asked
    else if (!now.some((one) => one.ulid === cursor.value) && cursor.value !== route.query.clip)
      cursor.value = now[0]?.ulid ?? null
  },
  { immediate: true },
)
watch(
  () => route.query.clip,
  (asked) => {
    if (typeof asked === 'string') cursor.value = asked
  },
)

function openBin(one: BinEntry): void {
  void router.replace({ query: { bin: one.key } })
}
function select(one: BinClip, event?: MouseEvent): void {
  if (event?.ctrlKey || event?.metaKey) {
    const set = new Set(chosen.value)
    if (set.has(one.ulid)) set.delete(one.ulid)
    else set.add(one.ulid)
    chosen.value = set
  } else if (event?.shiftKey && at.value >= 0) {
    const to = loaded.value.findIndex((other) => other.ulid === one.ulid)
    chosen.value = new Set(
      loaded.value.slice(Math.min(at.value, to), Math.max(at.value, to) + 1).map((other) => other.ulid),
    )
  } else chosen.value = new Set()
  cursor.value = one.ulid
  if (route.query.clip !== undefined) void router.replace({ query: { bin: key.value ?? undefined } })
}
function move(step: number, extend: boolean): void {
  const next = loaded.value[Math.max(0, Math.min(loaded.value.length - 1, at.value + step))]
  if (next === undefined) return
  if (extend && cursor.value !== null) chosen.value = new Set([...chosen.value, cursor.value, next.ulid])
  cursor.value = next.ulid
  void nextTick(() => {
    const box = containerProps.ref.value
    if (box === null) return
    const top = at.value * ROW
    if (top < box.scrollTop) box.scrollTop = top
    else if (top > box.scrollTop + box.clientHeight - ROW) box.scrollTop = top - box.clientHeight + ROW
  })
}
function stepBin(step: number): void {
  const now = entries.value.findIndex((one) => one.key === key.value)
  const next = entries.value[Math.max(0, Math.min(entries.value.length - 1, now + step))]
  if (next !== undefined) openBin(next)
}
const hand = computed(() => (chosen.value.size > 0 ? [...chosen.value] : cursor.value === null ? [] : [cursor.value]))

// Making, naming, moving.
const naming = ref<{ title: string; name: string; run: (name: string) => Promise<unknown> } | null>(null)
const picking = ref(false)
const pick = ref(0)

function make(): void {
  if (!production.value.may.organise) return
  naming.value = {
    title: 'New bin',
    name: '',
    run: async (name) => {
      const made = await api.post<{ key: string }>(`${base.value}/bins`, { name })
      makeStale('bins')
      await router.replace({ query: { bin: made.key } })
    },
  }
}
function rename(): void {
  if (isOwn.value && bin.value !== undefined && production.value.may.organise)
    naming.value = {
      title: 'Rename the bin',
      name: bin.value.name,
      run: (name) => api.patch(`${base.value}/bins/${key.value}`, { name }),
    }
}
async function finishNaming(): Promise<void> {
  const open = naming.value
  if (open === null || open.name.trim() === '') return
  if (
    (await attempt(async () => {
      await open.run(open.name.trim())
      return true
    })) === true
  )
    naming.value = null
  makeStale('bins')
}
async function removeBin(): Promise<void> {
  if (!isOwn.value || !production.value.may.organise) return
  const name = bin.value?.name
  if ((await attempt(() => api.delete(`${base.value}/bins/${key.value}`))) === undefined) return
  say(`${name} is removed; its clips are where they were. Ctrl Z brings it back.`)
  await router.replace({ query: {} })
  makeStale('bins')
}
async function putInto(target: BinEntry | undefined, clips: string[]): Promise<void> {
  picking.value = false
  if (target === undefined || clips.length === 0) return
  const done = await attempt(() =>
    api.post<{ moved: number }>(`${base.value}/bins/${target.key}/clips`, {
      clips,
      from: isOwn.value ? key.value : null,
    }),
  )
  if (done !== undefined)
    say(
      `${done.moved === 0 ? 'Already' : done.moved === 1 ? '1 clip is' : `${done.moved} clips are`} in ${target.name}.`,
    )
  chosen.value = new Set()
  makeStale('bins')
}
async function takeOut(): Promise<void> {
  if (!isOwn.value || hand.value.length === 0 || !production.value.may.organise) return
  if ((await attempt(() => api.delete(`${base.value}/bins/${key.value}/clips`, { clips: hand.value }))) !== undefined)
    say('Taken out of the bin.')
  chosen.value = new Set()
  makeStale('bins')
}
function drag(event: DragEvent, one: BinClip): void {
  event.dataTransfer?.setData(
    'application/x-cartella-clips',
    JSON.stringify(chosen.value.has(one.ulid) ? [...chosen.value] : [one.ulid]),
  )
}
// The device is the angle: said once for whatever is chosen.
const asking = ref(false)
const KINDS = { camera: 'Camera', recorder: 'Recorder', phone: 'Phone', other: 'Device' }
const IMPORTS = ['production sound', 'effects', 'music', 'graphics', 'stills', 'stock']
/** What a clip can be said to be: footage of a device that is in use, or an import of a kind. */
const angles = computed(() => [
  ...production.value.devices
    .filter((one) => !one.is_retired)
    .map((one) => ({
      key: one.letter,
      device: one.letter,
      title: `${KINDS[one.kind]} ${one.note}`.trim(),
      body: { device: one.letter } as Record<string, string>,
    })),
  ...IMPORTS.map((kind) => ({
    key: `import ${kind}`,
    device: null,
    title: `an import: ${kind}`,
    body: { import_kind: kind } as Record<string, string>,
  })),
])
async function assign(to: (typeof angles.value)[number] | undefined): Promise<void> {
  asking.value = false
  if (to === undefined || hand.value.length === 0) return
  const done = await attempt(() =>
    api.post<{ changed: number }>(`${base.value}/device`, { clips: hand.value, ...to.body }),
  )
  if (done !== undefined) {
    const clips = done.changed === 1 ? '1 clip is' : `${done.changed} clips are`
    const where = to.device === null ? to.title.replace('an import: ', 'among the imports, ') : `of device ${to.device}`
    say(`${clips} ${where} now. Ctrl Z takes it back.`)
  }
  chosen.value = new Set()
  makeStale('clips')
}

const over = ref<string | null>(null)
function drop(event: DragEvent, target: BinEntry): void {
  over.value = null
  const text = event.dataTransfer?.getData('application/x-cartella-clips')
  if (text) void putInto(target, JSON.parse(text) as string[])
}

useShortcuts('Bins', [
  {
    keys: ['ArrowDown', 'ArrowUp'],
    what: 'Next clip, the one before',
    run: (event) => move(event.key === 'ArrowDown' ? 1 : -1, false),
  },
  {
    keys: ['Shift+ArrowDown', 'Shift+ArrowUp'],
    what: 'Choose several',
    run: (event) => move(event.key === 'ArrowDown' ? 1 : -1, true),
  },
  {
    keys: ['PageDown', 'PageUp'],
    what: 'Next bin, the one before',
    run: (event) => stepBin(event.key === 'PageDown' ? 1 : -1),
  },
  {
    keys: ['p'],
    what: 'Put into a bin',
    run: () => {
      if (production.value.may.organise && hand.value.length > 0) {
        pick.value = 0
        picking.value = true
      }
    },
  },
  {
    keys: ['d'],
    what: 'Say which device it is of, or that it is an import',
    run: () => {
      if (production.value.may.work && hand.value.length > 0) {
        pick.value = 0
        asking.value = true
      }
    },
  },
  { keys: ['Delete'], what: 'Take out of this bin', run: () => void takeOut() },
  { keys: ['n'], what: 'New bin', run: make },
  { keys: ['F2'], what: 'Rename this bin', run: rename },
])
</script>

<template>
  <AnswerState :pending="isPending" :error="error" @retry="refetch()">
    <div v-if="tree" class="split">
      <nav class="tree" aria-label="Bins">
        <h3 v-if="tree.scenes.length > 0">Scenes</h3>
        <button
          v-for="one in tree.scenes"
          :key="one.key"
          class="bin"
          :class="{ on: one.key === key }"
          @click="openBin(one)"
        >
          <b>{{ one.name }}</b><small>{{ one.note }}</small
          ><span class="mono">{{ one.clips }}</span>
        </button>
        <h3 v-if="tree.imports.length > 0">Sound and imports</h3>
        <button
          v-for="one in tree.imports"
          :key="one.key"
          class="bin"
          :class="{ on: one.key === key }"
          @click="openBin(one)"
        >
          <b>{{ one.name }}</b><span class="mono">{{ one.clips }}</span>
        </button>
        <h3>
          Own bins
          <button v-if="production.may.organise" class="plus" title="New bin (N)" aria-label="New bin" @click="make">
            +
          </button>
        </h3>
        <button
          v-for="one in tree.own"
          :key="one.key"
          class="bin"
          :class="{ on: one.key === key, over: over === one.key }"
          @click="openBin(one)"
          @dragover.prevent="over = one.key"
          @dragleave="over = null"
          @drop.prevent="drop($event, one)"
        >
          <b>{{ one.name }}</b><span class="mono">{{ one.clips }}</span>
        </button>
        <p v-if="tree.own.length === 0" class="soft hint">
          {{
            production.may.organise
              ? 'N makes a bin of your own; drag clips onto it, or press P.'
              : 'Nobody made one yet.'
          }}
        </p>
      </nav>
      <section class="middle">
        <div class="bar">
          <b>{{ bin?.name ?? 'Bins' }}</b><span class="soft">{{ bin?.note }}</span>
          <template v-if="isOwn && production.may.organise"
            ><button class="plain" title="Rename (F2)" @click="rename">Rename</button
            ><button class="plain" @click="removeBin">Remove</button></template
          >
          <span class="push soft"
            >{{ chosen.size > 0 ? `${chosen.size} of ` : '' }}{{ page?.total ?? 0 }}
            {{ page?.total === 1 ? 'clip' : 'clips' }}, in slate order</span
          >
        </div>
        <div v-if="entries.length === 0" class="empty">
          <b>No bins yet.</b>Scenes get theirs when slates are read. N makes one of your own.
        </div>
        <AnswerState v-else :pending="clipsPending && loaded.length === 0" :error="clipsError" @retry="again()">
          <div v-if="loaded.length === 0" class="empty">
            <b>This bin is empty.</b>{{ isOwn ? 'Drag clips onto it in the tree, or press P on a clip.' : '' }}
          </div>
          <div v-else v-bind="containerProps" class="rows" role="listbox" aria-label="Clips">
            <div v-bind="wrapperProps">
              <div
                v-for="{ data: one } in list"
                :key="one.ulid"
                class="row"
                role="option"
                :aria-selected="one.ulid === cursor || chosen.has(one.ulid)"
                :class="{ on: one.ulid === cursor, also: chosen.has(one.ulid) }"
                draggable="true"
                :data-clip="one.ulid"
                @click="select(one, $event)"
                @dragstart="drag($event, one)"
              >
                <span class="thumb"
                  ><img
                    v-if="one.ready && (one.kind === 'picture' || one.kind === 'still')"
                    :src="mediaUrl(production.ulid, one.ulid, one.kind === 'still' ? 'thumb-1' : 'thumb-3')"
                    alt=""
                    loading="lazy"
                  /><i v-else class="mono">{{ one.kind === 'sound' ? '∿' : '…' }}</i></span
                >
                <span class="slate"
                  ><template v-if="one.take"
                    ><b class="mono">{{ one.take.setup }}</b
                    ><TakeNumber :take="one.take.take" :part="one.take.part" :status="one.take.status" /></template
                ></span>
                <DeviceBadge v-if="one.device" :letter="one.device" /><span v-else />
                <span class="mono name">{{ one.name }}</span>
                <span class="soft what">{{ one.take?.description }}</span>
                <span class="mono soft num">{{
                  one.start_ticks === null ? '' : labelAt(one.start_ticks, production.rate)
                }}</span>
                <span class="mono num">{{ length(one.duration_ticks) }}</span>
              </div>
            </div>
          </div>
        </AnswerState>
      </section>
      <ClipSheetPanel :clip="cursor" />
      <Modal
        :open="naming !== null"
        :title="naming?.title"
        ok-text="Keep"
        width="360px"
        @ok="finishNaming"
        @cancel="naming = null"
      >
        <input
          v-if="naming"
          v-model="naming.name"
          class="field"
          aria-label="Name of the bin"
          maxlength="120"
          autofocus
          @keydown.enter.prevent="finishNaming"
        />
      </Modal>
      <Modal
        :open="asking"
        :title="hand.length === 1 ? 'What is it?' : `What are these ${hand.length}?`"
        :footer="null"
        width="360px"
        @cancel="asking = false"
      >
        <div
          class="picks"
          tabindex="0"
          role="listbox"
          aria-label="Devices and imports"
          @vue:mounted="({ el }: { el: HTMLElement }) => el.focus()"
          @keydown.down.prevent="pick = Math.min(pick + 1, angles.length - 1)"
          @keydown.up.prevent="pick = Math.max(0, pick - 1)"
          @keydown.enter.prevent="assign(angles[pick])"
        >
          <button
            v-for="(one, index) in angles"
            :key="one.key"
            role="option"
            :aria-selected="index === pick"
            class="bin"
            :class="{ on: index === pick }"
            @click="assign(one)"
          >
            <b><DeviceBadge v-if="one.device" :letter="one.device" /> {{ one.title }}</b>
          </button>
        </div>
      </Modal>
      <Modal :open="picking" title="Put into a bin" :footer="null" width="360px" @cancel="picking = false">
        <p v-if="ownBins.length === 0" class="soft">There is no bin of your own yet. Close this and press N.</p>
        <div
          class="picks"
          tabindex="0"
          role="listbox"
          aria-label="Own bins"
          @vue:mounted="({ el }: { el: HTMLElement }) => el.focus()"
          @keydown.down.prevent="pick = Math.min(pick + 1, ownBins.length - 1)"
          @keydown.up.prevent="pick = Math.max(0, pick - 1)"
          @keydown.enter.prevent="putInto(ownBins[pick], hand)"
        >
          <button
            v-for="(one, index) in ownBins"
            :key="one.key"
            role="option"
            :aria-selected="index === pick"
            class="bin"
            :class="{ on: index === pick }"
            @click="putInto(one, hand)"
          >
            <b>{{ one.name }}</b><span class="mono">{{ one.clips }}</span>
          </button>
        </div>
      </Modal>
    </div>
  </AnswerState>
</template>

<style scoped>
.split {
  display: grid;
  grid-template-columns: 214px minmax(0, 1fr) 352px;
  grid-template-rows: minmax(0, 1fr);
  height: 100%;
}
.tree {
  border-right: 1px solid var(--rule-strong);
  background: var(--sheet-2);
  padding: 6px 10px 20px;
  overflow: auto;
}
h3 {
  font-size: 11px;
  font-weight: 500;
  color: var(--ink-soft);
  margin: 14px 6px 5px;
  display: flex;
  align-items: center;
}
.plus {
  margin-left: auto;
  border: 1px solid var(--rule-strong);
  background: var(--sheet);
  border-radius: 4px;
  width: 22px;
  height: 20px;
  line-height: 1;
  cursor: pointer;
}
.bin {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  align-items: center;
  width: 100%;
  text-align: left;
  border: 0;
  background: none;
  border-radius: 5px;
  padding: 4px 8px;
  min-height: 28px;
  cursor: pointer;
}
.bin b {
  font-weight: 500;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.bin small {
  grid-row: 2;
  color: var(--ink-soft);
  font-size: 11px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.bin .mono {
  color: var(--ink-soft);
  font-size: 12px;
}
.bin.on {
  background: var(--act-soft);
}
.bin.on b {
  font-weight: 600;
  color: var(--act);
}
.bin.over {
  box-shadow: 0 0 0 2px var(--act);
}
.hint {
  margin: 4px 8px;
  font-size: 12px;
}
.middle {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  min-width: 0;
}
.rows {
  height: 100%;
  overflow-y: auto;
}
.row {
  display: grid;
  grid-template-columns: 68px 82px 28px minmax(84px, 128px) minmax(0, 1fr) 88px 44px;
  gap: 0 8px;
  align-items: center;
  height: 46px;
  border-bottom: 1px solid var(--rule);
  padding: 0 14px 0 8px;
  white-space: nowrap;
}
.row > * {
  overflow: hidden;
  text-overflow: ellipsis;
}
.row.on {
  background: var(--act-soft);
  box-shadow: inset 3px 0 0 var(--act);
}
.row.also {
  background: #eaf2ec;
}
.thumb {
  width: 66px;
  height: 38px;
  border-radius: 3px;
  background: #e9e1cf;
  display: grid;
  place-items: center;
  color: var(--dev-S);
}
.thumb img {
  width: 100%;
  height: 100%;
  object-fit: cover;
  display: block;
}
.thumb i {
  font-style: normal;
  font-size: 18px;
}
.slate {
  display: flex;
  align-items: center;
  gap: 2px;
}
.slate b {
  min-width: 34px;
}
.name {
  font-size: 12px;
}
.num {
  font-size: 12px;
  text-align: right;
}
.what {
  font-size: 12px;
}
.picks {
  max-height: 50vh;
  overflow: auto;
}
@media (max-width: 1120px) {
  .row {
    grid-template-columns: 68px 82px 28px minmax(84px, 1fr) 44px;
  }
  .what,
  .row > .num.soft {
    display: none;
  }
}
</style>
