<script setup lang="ts">
import { t } from '@/words'
import type { LogClip, Production, Take } from '@/api/types'
import { length } from '@/player/time'
import DeviceBadge from '@/shell/DeviceBadge.vue'
import TakeNumber from '@/shell/TakeNumber.vue'
import type { Then } from './useCellEdit'
import { holeOf, syncOf } from './rows'
import { cellText, marksOf, runningOf, slateOf, type SheetColumn } from './sheet'
import type { Colleague } from './usePresence'

/** The cells of one take in the slate sheet, one of them open for typing. */
const props = defineProps<{
  take: Take
  /** The setup stands in the row above already. */
  repeats: boolean
  shown: SheetColumn[]
  stuck: Record<string, number>
  /** Whether the cursor is on this row, and in which column it is. */
  isOn: boolean
  column: string
  /** The column that is being typed in; `slate` for setup and take. */
  editing: string | null
  isChosen: (column: number) => boolean
  who: Colleague[]
  production: Production
}>()
const draft = defineModel<string>('draft', { required: true })
const emit = defineEmits<{ choose: [column: string, event: MouseEvent]; commit: [then: Then]; leave: [] }>()

/** A row is drawn again with every step of the cursor; what each device has of a take is sorted once. */
const sorted = new WeakMap<Take, Map<string | null, LogClip[]>>()
const NONE: LogClip[] = []
function cellClips(take: Take, letter: string): LogClip[] {
  let own = sorted.get(take)
  if (own === undefined) sorted.set(take, (own = Map.groupBy(take.clips, (clip) => clip.device)))
  return own.get(letter) ?? NONE
}
const clipTitle = (clips: LogClip[]): string =>
  clips
    .map((clip) =>
      [clip.name, clip.file === clip.name ? '' : `(${clip.file})`, length(clip.duration_ticks), ...clip.problems]
        .filter(Boolean)
        .join(' '),
    )
    .join('\n')
const isRecorder = (letter: string) =>
  props.production.devices.find((device) => device.letter === letter)?.kind === 'recorder'
const hole = (take: Take, letter: string) => holeOf(take, letter, isRecorder(letter) ? 'recorder' : 'camera')
const otherSlate = (take: Take) => take.claims.map(slateOf).find((slate) => slate !== slateOf(take)) ?? ''
</script>

<template>
  <span
    v-for="(cell, index) in shown"
    :key="cell.key"
    role="gridcell"
    class="cell"
    :data-column="cell.key"
    :style="cell.frozen ? { left: `${stuck[cell.key]}px` } : {}"
    :class="{
      stuck: cell.frozen,
      cur: isOn && cell.key === column,
      sel: isChosen(index),
      words: cell.words,
    }"
    @click.stop="emit('choose', cell.key, $event)"
  >
    <input
      v-if="editing !== null && (editing === cell.key || (editing === 'slate' && cell.key === 'setup'))"
      v-model="draft"
      class="field edit"
      :class="{ mono: editing === 'slate', wide: editing === 'slate' }"
      :aria-label="editing === 'slate' ? t('log.TakeCells.setupAndTake') : cell.title"
      :maxlength="cell.limit"
      @keydown.enter.stop.prevent="emit('commit', editing === 'slate' ? 'stay' : 'down')"
      @keydown.tab.prevent="emit('commit', $event.shiftKey ? 'back' : 'next')"
      @keydown.esc.stop="emit('leave')"
      @blur="editing && emit('commit', 'stay')"
    />
    <template v-else-if="cell.key === 'setup'"
      ><span class="mono su" :class="{ again: repeats }">{{ take.setup }}</span
      ><i v-for="other in who" :key="other.who" class="here" :title="t('log.TakeCells.isOnThisRow', [other.name])">{{
        other.initials
      }}</i></template
    >
    <TakeNumber v-else-if="cell.key === 'take'" :take="take.take" :part="take.part" :status="take.status" />
    <span
      v-else-if="cell.key === 'description'"
      class="what"
      :title="take.notes ? `${take.description}\n${take.notes}` : take.description"
      ><span>{{ take.description }}<i v-if="!take.description" class="soft">—</i></span
      ><em v-if="marksOf(take)">{{ marksOf(take) }}</em
      ><em v-if="take.notes" :title="t('log.TakeCells.hasANote')">✎</em
      ><em v-if="take.claims.length" class="warn" :title="t('log.TakeCells.twoSourcesDisagree')">{{
        t('log.TakeCells.or', [otherSlate(take)])
      }}</em
      ><em
        v-if="take.disputes.length"
        class="warn"
        :title="t('log.TakeCells.twoSourcesDifferOn', [take.disputes.map((dispute) => dispute.field).join(', ')])"
        >≠</em
      ></span
    >
    <template v-else-if="cell.key.startsWith('device:')">
      <template v-if="cellClips(take, cell.key.slice(7)).length > 0">
        <DeviceBadge :letter="cell.key.slice(7)" /><span
          class="mono clip"
          :class="{ bad: cellClips(take, cell.key.slice(7)).some((clip) => clip.problems.length > 0) }"
          :title="clipTitle(cellClips(take, cell.key.slice(7)))"
          >{{ cellClips(take, cell.key.slice(7))[0]?.name }}</span
        >
        <small
          class="mono"
          :class="{ fault: cellClips(take, cell.key.slice(7)).some((clip) => clip.problems.length > 0) }"
          >{{
            cellClips(take, cell.key.slice(7)).length > 1
              ? `+${cellClips(take, cell.key.slice(7)).length - 1}`
              : length(cellClips(take, cell.key.slice(7))[0]?.duration_ticks ?? null)
          }}</small
        >
      </template>
      <span v-else-if="hole(take, cell.key.slice(7)).hole" class="hole">{{ hole(take, cell.key.slice(7)).text }}</span>
      <span v-else class="faint">{{ hole(take, cell.key.slice(7)).text }}</span>
    </template>
    <span v-else-if="cell.key === 'sync'" :class="syncOf(take).look">{{ syncOf(take).text }}</span>
    <span v-else-if="cell.key === 'length'" class="mono soft">{{ length(runningOf(take) || null) }}</span>
    <span v-else class="text soft" :title="cellText(take, cell.key)">{{ cellText(take, cell.key) }}</span>
  </span>
</template>

<style scoped>
small {
  color: var(--ink-soft);
  font-size: 12px;
}
.cell {
  overflow: hidden;
  text-overflow: ellipsis;
  height: 30px;
  display: flex;
  align-items: center;
  gap: 6px;
  min-width: 0;
  border-radius: 3px;
  padding: 0 3px;
  margin: 0 -3px;
  font-size: 13px;
}
.cell > span {
  overflow: hidden;
  text-overflow: ellipsis;
}
.stuck {
  position: sticky;
  z-index: 1;
  background: inherit;
}
.cell small {
  margin-left: auto;
  padding-right: 5px;
  font-size: 10.5px;
  flex: none;
}
.cell small.fault {
  color: var(--fault);
}
.cur {
  box-shadow: inset 0 0 0 1.5px var(--act);
  background: var(--sheet);
}
.cur.words {
  cursor: text;
}
.sel {
  background: #cfe3da;
  border-radius: 0;
}
.su {
  font-weight: 600;
}
.su.again {
  color: var(--ink-faint);
  font-weight: 400;
}
.here {
  font: 600 9px/15px 'IBM Plex Sans';
  background: var(--info);
  color: #fff;
  border-radius: 8px;
  padding: 0 5px;
  flex: none;
}
.what {
  display: flex;
  gap: 6px;
  align-items: baseline;
  min-width: 0;
}
.what > span {
  overflow: hidden;
  text-overflow: ellipsis;
}
.what em {
  flex: none;
}
.what em {
  font-style: normal;
  font-size: 11px;
  color: var(--ink-soft);
}
.what em.warn {
  color: var(--warn);
  font-weight: 600;
}
.clip {
  font-size: 12px;
  overflow: hidden;
  text-overflow: ellipsis;
}
.clip.bad {
  text-decoration: underline wavy var(--fault) 1px;
  text-underline-offset: 3px;
}
.hole {
  flex: 1;
  height: 22px;
  border: 1px dashed var(--fault);
  border-radius: 4px;
  color: var(--fault);
  font-size: 11px;
  display: flex;
  align-items: center;
  padding: 0 7px;
  background: repeating-linear-gradient(135deg, #fff0 0 5px, #f6dcd480 5px 10px);
}
.faint {
  color: var(--ink-faint);
  font-size: 12px;
}
.text {
  font-size: 12px;
  overflow: hidden;
  text-overflow: ellipsis;
}
.edit {
  height: 25px;
}
.edit.wide {
  width: 96px;
  flex: none;
  position: absolute;
  z-index: 5;
}
</style>
