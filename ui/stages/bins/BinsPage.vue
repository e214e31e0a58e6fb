<script setup lang="ts">
import { Modal } from 'ant-design-vue'
import { computed, ref, shallowRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { bins } from '@/api/endpoints/bins'
import { useAnswer } from '@/api/queries'
import type { BinEntry, BinRow } from '@/api/types'
import { useRange } from '@/grid/range'
import AnswerState from '@/shell/AnswerState.vue'
import PanelEdge from '@/shell/PanelEdge.vue'
import { useDesk } from '@/shell/desk'
import DeviceBadge from '@/shell/DeviceBadge.vue'
import { useShortcuts } from '@/shell/keys'
import PickDialog from '@/shell/PickDialog.vue'
import { attempt } from '@/shell/say'
import BinRows from './BinRows.vue'
import BinTreeNav from './BinTreeNav.vue'
import ClipSheetPanel from './ClipSheetPanel.vue'
import { DRAGGED, useBinActions } from './useBinActions'

const PAGE = 200
const { production } = useDesk()
const route = useRoute()
const router = useRouter()
const { data: tree, isPending, error, refetch } = useAnswer(() => bins.tree(production.value.ulid))

const entries = computed<BinEntry[]>(() =>
  tree.value === undefined ? [] : [...tree.value.scenes, ...tree.value.imports, ...tree.value.own],
)
const key = computed(() => (typeof route.query.bin === 'string' ? route.query.bin : (entries.value[0]?.key ?? null)))
const bin = computed(() => entries.value.find((one) => one.key === key.value))
const ownBins = computed(() => tree.value?.own ?? [])
const isOwn = computed(() => ownBins.value.some((one) => one.key === key.value))

// Pages come as the list is scrolled to them.
const loaded = shallowRef<(BinRow & { key: string })[]>([])
const more = ref(0)
const keyed = (rows: BinRow[]) => rows.map((row) => ({ ...row, key: row.ref }))
const {
  data: page,
  isPending: rowsPending,
  error: rowsError,
  refetch: again,
} = useAnswer(() => (key.value === null ? null : bins.page(production.value.ulid, key.value, 0, PAGE)))
watch(page, (now) => {
  loaded.value = keyed(now?.rows ?? [])
  more.value = (now?.total ?? 0) - loaded.value.length
})
let busy = false
async function loadMore(): Promise<void> {
  const of = key.value
  if (more.value <= 0 || of === null || busy) return
  busy = true
  const next = await attempt(() => bins.more(production.value.ulid, of, loaded.value.length, PAGE))
  busy = false
  if (next === undefined || of !== key.value) return
  loaded.value = [...loaded.value, ...keyed(next.rows)]
  more.value = next.total - loaded.value.length
}

const cursor = ref<string | null>(null)
const range = useRange({ rows: loaded, cursor })
/** Rows that were chosen one by one. */
const picked = ref(new Set<string>())
const chosen = computed(() =>
  range.anchor.value === null
    ? picked.value
    : new Set(loaded.value.slice(range.range.value.top, range.range.value.bottom + 1).map((row) => row.ref)),
)
const current = computed(() => loaded.value[range.at.value])
const hand = computed(() =>
  chosen.value.size > 0
    ? loaded.value.filter((row) => chosen.value.has(row.ref))
    : current.value === undefined
      ? []
      : [current.value],
)
function letGo(): void {
  picked.value = new Set()
  range.anchor.value = null
}
watch(key, () => {
  letGo()
  loaded.value = []
})
/** A clip that the address asks for is shown even where the bin's rows have not come yet. */
const asked = computed(() => (typeof route.query.clip === 'string' ? route.query.clip : null))
watch(
  [loaded, asked],
  ([rows, clip]) => {
    const wanted = clip === null ? undefined : rows.find((row) => row.clip === clip)
    if (wanted !== undefined && (cursor.value === null || current.value?.clip !== clip)) cursor.value = wanted.ref
    else if (current.value === undefined) cursor.value = rows[0]?.ref ?? null
  },
  { immediate: true },
)
const shownClip = computed(() =>
  asked.value !== null && current.value?.clip !== asked.value ? asked.value : (current.value?.clip ?? null),
)

const list = ref<InstanceType<typeof BinRows> | null>(null)
function forget(): void {
  if (route.query.clip !== undefined) void router.replace({ query: { bin: key.value ?? undefined } })
}
function select(row: BinRow, event: MouseEvent): void {
  if (event.ctrlKey || event.metaKey) {
    const set = new Set(chosen.value)
    if (!set.delete(row.ref)) set.add(row.ref)
    letGo()
    picked.value = set
    cursor.value = row.ref
  } else {
    if (!event.shiftKey) letGo()
    range.select(row.ref, event.shiftKey)
  }
  forget()
}
function move(step: number, extend: boolean): void {
  if (!extend) letGo()
  range.move(step, extend)
  forget()
  list.value?.reveal(range.at.value)
}
const openBin = (one: BinEntry) => void router.replace({ query: { bin: one.key } })
function stepBin(step: number): void {
  const now = entries.value.findIndex((one) => one.key === key.value)
  const next = entries.value[Math.max(0, Math.min(entries.value.length - 1, now + step))]
  if (next !== undefined) openBin(next)
}
function drag(event: DragEvent, row: BinRow): void {
  event.dataTransfer?.setData(DRAGGED, JSON.stringify(chosen.value.has(row.ref) ? [...chosen.value] : [row.ref]))
}

const actions = useBinActions({ bin: () => bin.value, isOwn: () => isOwn.value, hand, letGo })
const { naming } = actions
const picking = ref(false)
const asking = ref(false)

useShortcuts('Bins', [
  {
    keys: ['ArrowDown', 'ArrowUp'],
    what: 'Next row, the one before',
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
      if (production.value.may.organise && hand.value.length > 0) picking.value = true
    },
  },
  {
    keys: ['d'],
    what: 'Say which device it is of, or that it is an import',
    run: () => {
      if (production.value.may.work && actions.hasClips()) asking.value = true
    },
  },
  { keys: ['Delete'], what: 'Take out of this bin', run: () => void actions.takeOut() },
  { keys: ['n'], what: 'New bin', run: actions.make },
  { keys: ['F2'], what: 'Rename this bin', run: actions.rename },
])
</script>

<template>
  <AnswerState :pending="isPending" :error="error" @retry="refetch()">
    <div v-if="tree" class="split">
      <PanelEdge stage="bins" :usual="352" />
      <BinTreeNav
        :tree="tree"
        :chosen="key"
        :may-organise="production.may.organise"
        @open="openBin"
        @make="actions.make"
        @drop="actions.putInto"
      />
      <section class="middle">
        <div class="bar">
          <b>{{ bin?.name ?? 'Bins' }}</b><span class="soft">{{ bin?.note }}</span>
          <template v-if="isOwn && production.may.organise"
            ><button class="plain" title="Rename (F2)" @click="actions.rename">Rename</button
            ><button class="plain" @click="actions.remove">Remove</button></template
          >
          <span class="push soft"
            >{{ chosen.size > 0 ? `${chosen.size} of ` : '' }}{{ page?.total ?? 0 }}
            {{ isOwn ? 'in this bin' : page?.total === 1 ? 'clip' : 'clips' }}, in slate order</span
          >
        </div>
        <div v-if="entries.length === 0" class="empty">
          <b>No bins yet.</b>Scenes get theirs when slates are read. N makes one of your own.
        </div>
        <AnswerState v-else :pending="rowsPending && loaded.length === 0" :error="rowsError" @retry="again()">
          <div v-if="loaded.length === 0" class="empty">
            <b>This bin is empty.</b>{{ isOwn ? 'Drag clips onto it in the tree, or press P on a clip.' : '' }}
          </div>
          <BinRows
            v-else
            ref="list"
            :rows="loaded"
            :cursor="cursor"
            :chosen="chosen"
            :production="production"
            @select="select"
            @drag="drag"
            @more="loadMore"
          />
        </AnswerState>
      </section>
      <ClipSheetPanel :clip="shownClip" :own-bins="ownBins" />
      <Modal
        :open="naming !== null"
        :title="naming?.title"
        ok-text="Keep"
        width="360px"
        @ok="actions.finishNaming"
        @cancel="naming = null"
      >
        <input
          v-if="naming"
          v-model="naming.name"
          class="field"
          aria-label="Name of the bin"
          maxlength="120"
          autofocus
          @keydown.enter.prevent="actions.finishNaming"
        />
      </Modal>
      <PickDialog
        :open="asking"
        :title="hand.length === 1 ? 'What is it?' : `What are these ${hand.length}?`"
        label="Devices and imports"
        :choices="actions.angles.value"
        @pick="((asking = false), actions.assign($event))"
        @close="asking = false"
      >
        <template #default="{ one }"
          ><b><DeviceBadge v-if="one.device" :letter="one.device" /> {{ one.title }}</b></template
        >
      </PickDialog>
      <PickDialog
        :open="picking"
        title="Put into a bin"
        label="Own bins"
        :choices="ownBins"
        @pick="((picking = false), actions.putInto($event))"
        @close="picking = false"
      >
        <template #before
          ><p v-if="ownBins.length === 0" class="soft">
            There is no bin of your own yet. Close this and press N.
          </p></template
        >
        <template #default="{ one }"
          ><b>{{ one.name }}</b
          ><span class="mono soft">{{ one.items }}</span></template
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
.middle {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  min-width: 0;
}
</style>
