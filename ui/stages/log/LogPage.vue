<script setup lang="ts">
import { useVirtualList } from '@vueuse/core'
import { Modal } from 'ant-design-vue'
import { computed, nextTick, ref, shallowRef, watch } from 'vue'
import { useRoute } from 'vue-router'
import { api, ApiError } from '@/api/client'
import { makeStale, useAnswer } from '@/api/queries'
import type { LogClip, SlateSheet, Take, TakeStatus } from '@/api/types'
import { length } from '@/player/time'
import AnswerState from '@/shell/AnswerState.vue'
import { useDesk } from '@/shell/desk'
import DeviceBadge from '@/shell/DeviceBadge.vue'
import { useShortcuts } from '@/shell/keys'
import { attempt, complain, say } from '@/shell/say'
import TakeNumber from '@/shell/TakeNumber.vue'
import { holeOf, rowsOf, syncOf, type Row } from './rows'
import TakePanel from './TakePanel.vue'
import { useTakeEdits } from './useTakeEdits'

const ROW = 31
const { production, day, base } = useDesk()
const route = useRoute()
const { data, isPending, error, refetch } = useAnswer<SlateSheet>(() => production.value.ulid, () => `days/${day.value.ulid}/log`)
const edits = useTakeEdits(() => production.value.ulid, () => day.value.ulid)
const mayLog = computed(() => production.value.may.work)

const rows = computed(() => (data.value === undefined ? [] : rowsOf(data.value)))
const devices = computed(() => {
  const used = new Set([...(data.value?.takes ?? []).flatMap((take) => take.clips.map((clip) => clip.device)), ...(data.value?.unslated ?? []).map((clip) => clip.device)])
  return production.value.devices.filter((device) => used.has(device.letter))
})
const { list, containerProps, wrapperProps, scrollTo } = useVirtualList(rows, { itemHeight: ROW, overscan: 12 })

const cursor = ref<string | null>(null)
const at = computed(() => rows.value.findIndex((row) => row.key === cursor.value))
const row = computed<Row | undefined>(() => rows.value[at.value])
const editing = shallowRef<{ key: string; field: 'description' | 'size' | 'slate' } | null>(null)
const draft = ref('')
const panel = ref<InstanceType<typeof TakePanel> | null>(null)
const sheet = ref<HTMLElement | null>(null)

const summary = computed(() => {
  const takes = data.value?.takes ?? []
  const ticks = takes.reduce((sum, take) => sum + Math.max(0, ...take.clips.filter((clip) => clip.kind === 'picture').map((clip) => clip.duration_ticks ?? 0)), 0)
  return `${takes.length} ${takes.length === 1 ? 'take' : 'takes'} · ${takes.filter((take) => take.status === 'circled').length} circled · ${length(ticks)}`
})

watch(
  [rows, () => route.query.take, () => route.query.clip],
  ([now, take, clip], before) => {
    const asked = now.find((one) => (take !== undefined && one.key === take) || (clip !== undefined && ((one.kind === 'clip' && one.key === clip) || (one.kind === 'take' && one.take.clips.some((other) => other.ulid === clip)))))
    const isNewAsk = before === undefined || before[1] !== take || before[2] !== clip || (before[0]?.length ?? 0) === 0
    if (asked !== undefined && isNewAsk) select(asked.key)
    else if (!now.some((one) => one.key === cursor.value)) cursor.value = now.find((one) => one.kind === 'take' || one.kind === 'clip')?.key ?? null
  },
  { immediate: true },
)

function select(key: string): void {
  cursor.value = key
  void nextTick(() => {
    const box = containerProps.ref.value
    if (box === null) return
    const top = at.value * ROW
    if (top < box.scrollTop + ROW) scrollTo(Math.max(0, at.value - 2))
    else if (top > box.scrollTop + box.clientHeight - 2 * ROW) box.scrollTop = top - box.clientHeight + 3 * ROW
  })
}

function move(step: number): void {
  let next = at.value
  do next += step
  while (rows.value[next] !== undefined && rows.value[next]?.kind !== 'take' && rows.value[next]?.kind !== 'clip')
  const target = rows.value[next]
  if (target !== undefined) select(target.key)
}

function cellClips(take: Take, letter: string): LogClip[] {
  return take.clips.filter((clip) => clip.device === letter)
}
const otherSlate = (take: Take) => take.claims.map((claim) => `${claim.setup}/${claim.take}`).find((slate) => slate !== `${take.setup}/${take.take}`) ?? ''
const isRecorder = (letter: string) => production.value.devices.find((device) => device.letter === letter)?.kind === 'recorder'
const hole = (take: Take, letter: string) => holeOf(take, letter, isRecorder(letter) ? 'recorder' : 'camera')

// Editing in place.
function edit(field: 'description' | 'size' | 'slate'): void {
  const current = row.value
  if (!mayLog.value || current === undefined || current.kind === 'scene' || current.kind === 'rest') return
  const wanted = current.kind === 'clip' ? 'slate' : field
  draft.value = current.kind === 'clip' ? '' : wanted === 'slate' ? `${current.take.setup}/${current.take.take}` : current.take[wanted as 'description' | 'size']
  editing.value = { key: current.key, field: wanted }
  void nextTick(() => {
    const input = sheet.value?.querySelector<HTMLInputElement>('input.edit')
    input?.focus()
    input?.select()
  })
}

async function commit(then: 'down' | 'next' | 'stay'): Promise<void> {
  const open = editing.value
  const current = rows.value.find((one) => one.key === open?.key)
  editing.value = null
  sheet.value?.focus()
  if (open === null || current === undefined) return
  if (then === 'down') move(1)
  if (current.kind === 'take') {
    if (open.field === 'slate') await renumber(current.take, draft.value)
    else await edits.change(current.take, { [open.field]: draft.value.trim() })
    if (then === 'next') edit(open.field === 'description' ? 'size' : 'description')
  } else if (current.kind === 'clip' && draft.value.trim() !== '') {
    await setSlate(current.clip, draft.value.trim())
  }
}

async function renumber(take: Take, text: string): Promise<void> {
  const part = /^([A-Za-z0-9-]+)\s*[/ ]\s*(\d{1,3})$/.exec(text.trim())
  if (part === null) {
    complain(new ApiError(422, 'slate.unreadable', `“${text.trim()}” is not a slate.`, 'Write setup and take, such as 3B/1.', {}))
    return
  }
  await edits.change(take, { setup: part[1]!.toUpperCase(), take: Number(part[2]) })
}

async function setSlate(clip: LogClip, text: string): Promise<void> {
  const answer = await attempt(() => api.post<{ take: string | null }>(`${base.value}/days/${day.value.ulid}/log/slate`, { clips: [clip.ulid], slate: text }))
  makeStale('takes')
  if (answer?.take) cursor.value = answer.take
}

async function readSlates(): Promise<void> {
  const answer = await attempt(() => api.post<{ read: number; from_recorder: number; from_names: number; silent: number }>(`${base.value}/days/${day.value.ulid}/log/read`))
  if (answer === undefined) return
  say(answer.read === 0 ? `Nothing new to read. ${answer.silent} clips say no slate.` : `Read ${answer.read} slates: ${answer.from_recorder} from the recorder, ${answer.from_names} from names. ${answer.silent} clips say none.`)
  makeStale('takes')
}

async function mark(status: TakeStatus): Promise<void> {
  const current = row.value
  if (current?.kind !== 'take') return
  const now = current.take.status === status ? 'none' : status
  if (mayLog.value) await edits.change(current.take, { status: now })
  else if (status === 'circled') {
    await attempt(() => api.put(`${base.value}/takes/${current.take.ulid}/circle`, { was: current.take.status, now }))
    makeStale('takes')
  }
}

async function flag(field: 'is_mos' | 'is_tail_slate' | 'is_wild'): Promise<void> {
  if (row.value?.kind === 'take' && mayLog.value) await edits.change(row.value.take, { [field]: !row.value.take[field] })
}

async function falseStart(): Promise<void> {
  const current = row.value
  if (current?.kind !== 'clip' || !mayLog.value) return
  await attempt(() => api.post(`${base.value}/days/${day.value.ulid}/log/slate`, { clips: [current.clip.ulid], slate: null, false_start: !current.clip.is_false_start }))
  makeStale('takes')
}

useShortcuts('Slate sheet', [
  { keys: ['ArrowDown', 'ArrowUp'], what: 'Next row, the one before', run: (event) => move(event.key === 'ArrowDown' ? 1 : -1) },
  { keys: ['PageDown', 'PageUp'], what: 'A page on, a page back', run: (event) => { for (let n = 0; n < 15; n++) move(event.key === 'PageDown' ? 1 : -1) } },
  { keys: ['Enter', 'F2'], what: 'Type what happens (or the slate of a clip that has none)', run: () => edit('description') },
  { keys: ['e'], what: 'Type the size', run: () => edit('size') },
  { keys: ['r'], what: 'Change setup and take', run: () => edit('slate') },
  { keys: ['c'], what: 'Circled, or not', run: () => void mark('circled') },
  { keys: ['x'], what: 'NG, or not', run: () => void mark('ng') },
  { keys: ['h'], what: 'Hold, or not', run: () => void mark('hold') },
  { keys: ['m'], what: 'MOS, or not', run: () => void flag('is_mos') },
  { keys: ['t'], what: 'Tail slate, or not', run: () => void flag('is_tail_slate') },
  { keys: ['w'], what: 'Wild, or not', run: () => void flag('is_wild') },
  { keys: ['f'], what: 'False start, or not (a clip without slate)', run: () => void falseStart() },
  { keys: ['n'], what: 'Write a note', run: () => panel.value?.writeNote() },
  { keys: ['y'], what: 'Who changed what of this take', run: () => panel.value?.toggleHistory() },
  { keys: ['[', ']'], what: 'Angle before, angle after', run: (event) => panel.value?.turn(event.key === ']' ? 1 : -1) },
  { keys: ['s'], what: 'Read slates', run: () => void (mayLog.value && readSlates()) },
])
</script>

<template>
  <AnswerState :pending="isPending" :error="error" :rows="14" @retry="refetch()">
    <div v-if="data" class="split">
      <section class="left">
        <div class="bar">
          <b>Slate sheet</b>
          <button v-if="mayLog" class="plain" title="From the recorder's fields and from names (S)" @click="readSlates">Read slates</button>
          <span class="push soft">{{ summary }}</span>
        </div>
        <div v-if="rows.length === 0" class="empty"><b>No clip of this day yet.</b>Offload a card first; its clips come here.<br><RouterLink :to="{ name: 'cards', params: route.params }"><button class="go">To the bench</button></RouterLink></div>
        <div v-else ref="sheet" class="sheet" tabindex="-1" role="table" aria-label="Slate sheet">
          <div v-bind="containerProps" class="scroll">
            <div class="row heads" role="row" :style="{ '--devices': devices.length }">
              <span>Setup</span><span>Take</span><span>What happens</span><span>Size</span>
              <span v-for="device in devices" :key="device.letter" class="dev"><DeviceBadge :letter="device.letter" /> {{ device.note }}</span><span>Synced</span>
            </div>
            <div v-bind="wrapperProps">
              <div
                v-for="{ data: one } in list" :key="one.key" class="row" role="row" :class="[one.kind, { on: one.key === cursor }]" :style="{ '--devices': devices.length }" :aria-selected="one.key === cursor" :data-row="one.key"
                @click="(one.kind === 'take' || one.kind === 'clip') && select(one.key)" @dblclick="edit('description')"
              >
                <template v-if="one.kind === 'scene'"><span class="mono">{{ one.scene }}</span><b>{{ one.heading }}</b><small>{{ one.setups }} {{ one.setups === 1 ? 'setup' : 'setups' }} · {{ one.takes }} {{ one.takes === 1 ? 'take' : 'takes' }}</small></template>
                <template v-else-if="one.kind === 'rest'"><b>No slate</b><small>{{ one.count }} {{ one.count === 1 ? 'clip' : 'clips' }} that no take claims · Enter types a slate</small></template>
                <template v-else-if="one.kind === 'take'">
                  <template v-if="editing?.key === one.key && editing.field === 'slate'"><input v-model="draft" class="field edit mono two" aria-label="Setup and take" @keydown.enter.stop.prevent="commit('stay')" @keydown.esc.stop="editing = null; sheet?.focus()" @blur="editing && commit('stay')"></template>
                  <template v-else><span class="mono su" :class="{ again: one.repeats }">{{ one.take.setup }}</span><span><TakeNumber :take="one.take.take" :status="one.take.status" /></span></template>
                  <input v-if="editing?.key === one.key && editing.field === 'description'" v-model="draft" class="field edit" aria-label="What happens" maxlength="300" @keydown.enter.stop.prevent="commit('down')" @keydown.tab.prevent="commit('next')" @keydown.esc.stop="editing = null; sheet?.focus()" @blur="editing && commit('stay')">
                  <span v-else class="what" :title="one.take.notes ? `${one.take.description}\n${one.take.notes}` : one.take.description">{{ one.take.description }}<i v-if="!one.take.description" class="soft">—</i><em v-if="one.take.is_tail_slate"> tail</em><em v-if="one.take.notes" title="has a note"> ✎</em><em v-if="one.take.claims.length" class="warn" title="Two sources disagree"> or {{ otherSlate(one.take) }}?</em></span>
                  <input v-if="editing?.key === one.key && editing.field === 'size'" v-model="draft" class="field edit" aria-label="Size" maxlength="30" @keydown.enter.stop.prevent="commit('down')" @keydown.tab.prevent="commit('next')" @keydown.esc.stop="editing = null; sheet?.focus()" @blur="editing && commit('stay')">
                  <span v-else class="soft">{{ one.take.size }}</span>
                  <span v-for="device in devices" :key="device.letter" class="cell">
                    <template v-if="cellClips(one.take, device.letter).length > 0">
                      <DeviceBadge :letter="device.letter" /><span class="mono" :title="cellClips(one.take, device.letter).map((clip) => `${clip.name} ${length(clip.duration_ticks)}`).join('\n')">{{ cellClips(one.take, device.letter)[0]?.name }}</span>
                      <small v-if="cellClips(one.take, device.letter).length > 1">+{{ cellClips(one.take, device.letter).length - 1 }}</small>
                    </template>
                    <span v-else-if="hole(one.take, device.letter).hole" class="hole">{{ hole(one.take, device.letter).text }}</span>
                    <span v-else class="faint">{{ hole(one.take, device.letter).text }}</span>
                  </span>
                  <span :class="syncOf(one.take).look">{{ syncOf(one.take).text }}</span>
                </template>
                <template v-else>
                  <input v-if="editing?.key === one.key" v-model="draft" class="field edit mono two" placeholder="3B/1" aria-label="Slate" @keydown.enter.stop.prevent="commit('down')" @keydown.esc.stop="editing = null; sheet?.focus()" @blur="editing && commit('stay')">
                  <span v-else class="faint two">{{ one.clip.is_wild ? 'wild' : one.clip.is_false_start ? 'false start' : 'no slate' }}</span>
                  <span class="cell rest"><DeviceBadge :letter="one.clip.device" /><span class="mono">{{ one.clip.name }}</span><small class="mono">{{ length(one.clip.duration_ticks) }}</small><em v-if="one.clip.problems.length" class="fault">{{ one.clip.problems[0] }}</em></span>
                </template>
              </div>
            </div>
          </div>
        </div>
        <div class="foot soft"><kbd>↵</kbd> what happens <kbd>C</kbd> circled <kbd>X</kbd> NG <kbd>N</kbd> note <kbd>Space</kbd> play <kbd>[</kbd><kbd>]</kbd> angle <kbd>Ctrl Z</kbd> take back</div>
      </section>
      <TakePanel ref="panel" :take="row?.kind === 'take' ? row.take : null" :clip="row?.kind === 'clip' ? row.clip : null" :may-log="mayLog" @change="(take, values) => edits.change(take, values)" />
      <Modal :open="edits.conflict.value !== null" title="Two people changed the same thing" ok-text="Use mine" cancel-text="Keep theirs" @ok="edits.settle(true)" @cancel="edits.settle(false)">
        <dl v-if="edits.conflict.value" class="both"><dt>Yours</dt><dd>{{ edits.conflict.value.yours }}</dd><dt>Theirs</dt><dd>{{ edits.conflict.value.theirs }}</dd></dl>
      </Modal>
    </div>
  </AnswerState>
</template>

<style scoped>
.split { display: grid; grid-template-columns: minmax(0, 1fr) 372px; grid-template-rows: minmax(0, 1fr); height: 100%; }
.left { display: grid; grid-template-rows: auto minmax(0, 1fr) 40px; min-width: 0; min-height: 0; }
.sheet { min-width: 0; min-height: 0; overflow: hidden; outline: none; }
.row { display: grid; grid-template-columns: 50px 44px minmax(120px, 1fr) 60px repeat(var(--devices), minmax(92px, 112px)) 80px; gap: 0 6px; align-items: center; height: 31px; padding: 0 10px; border-bottom: 1px solid var(--rule); white-space: nowrap; cursor: default; }
.row > * { overflow: hidden; text-overflow: ellipsis; }
.heads { font-size: 11px; color: var(--ink-soft); background: var(--sheet-2); border-bottom-color: var(--rule-strong); position: sticky; top: 0; z-index: 2; }
.heads .dev { display: flex; gap: 5px; align-items: center; }
.scroll { height: 100%; }
.scene, .rest.row { background: #f6efdf; border-bottom-color: var(--rule-strong); display: flex; gap: 10px; }
.scene b, .rest.row b { font-weight: 600; }
.scene .mono { font-weight: 600; }
.row small { color: var(--ink-soft); font-size: 12px; }
.row.on { background: var(--act-soft); box-shadow: inset 3px 0 0 var(--act); }
.su { font-weight: 600; }
.su.again { color: var(--ink-faint); font-weight: 400; }
.what em, .cell em { font-style: normal; font-size: 11px; color: var(--ink-soft); }
.what em.warn { color: var(--warn); font-weight: 600; }
.cell { display: flex; align-items: center; gap: 6px; font-size: 12px; }
.cell .mono { overflow: hidden; text-overflow: ellipsis; }
.hole { flex: 1; height: 22px; border: 1px dashed var(--fault); border-radius: 4px; color: var(--fault); font-size: 11px; display: flex; align-items: center; padding: 0 7px; background: repeating-linear-gradient(135deg, #fff0 0 5px, #f6dcd480 5px 10px); }
.faint { color: var(--ink-faint); font-size: 12px; }
.two { grid-column: span 2; }
.cell.rest { grid-column: span 3; }
.edit { height: 25px; overflow: visible; }
.foot { border-top: 1px solid var(--rule-strong); background: var(--sheet-2); display: flex; align-items: center; gap: 6px; padding: 0 14px; font-size: 12px; overflow: hidden; white-space: nowrap; }
.foot kbd:not(:first-child):not(kbd + kbd) { margin-left: 10px; }
.both { display: grid; grid-template-columns: 70px 1fr; gap: 6px; }
.both dd { margin: 0; font-weight: 600; }
@media (max-width: 1000px) { .split { grid-template-columns: minmax(0, 1fr) 300px; } }
</style>
