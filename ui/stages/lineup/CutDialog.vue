<script setup lang="ts">
import { deskSays } from '@/words/desk'
import { t } from '@/words'
import { lineup as lineupApi } from '@/api/endpoints/lineup'
import { Modal } from 'ant-design-vue'
import { computed, ref, watch } from 'vue'
import { makeStale, useAnswer } from '@/api/queries'
import type { CutRow } from '@/api/types'
import AnswerState from '@/shell/AnswerState.vue'
import { useRows } from '@/grid/rows'
import { useDesk } from '@/shell/desk'
import DeviceBadge from '@/shell/DeviceBadge.vue'
import { attempt, say } from '@/shell/say'

/**
 * What the line-up says of takes, in one list: slates, false starts, sound alone, picture alone; all that is ticked in
 * one step.
 */
const props = defineProps<{ open: boolean }>()
const emit = defineEmits<{ close: []; go: [clip: string] }>()
const { production, day } = useDesk()

const { data, isPending, error, refetch } = useAnswer(() =>
  props.open ? lineupApi.cutPlan(production.value.ulid, day.value.ulid) : null,
)
const left = ref(new Set<string>())
const pattern = ref('')
const working = ref(false)
const GROUPS: { what: CutRow['what']; title: string }[] = [
  { what: 'take', title: t('lineup.CutDialog.takes') },
  { what: 'false_start', title: t('lineup.CutDialog.falseStarts') },
  { what: 'wild', title: t('lineup.CutDialog.soundWithoutPictureWildTracks') },
  { what: 'room_tone', title: t('lineup.CutDialog.soundWithoutPictureRoomTone') },
  { what: 'mos', title: t('lineup.CutDialog.pictureWithoutSoundMos') },
]
const WORDS: Record<CutRow['what'], string> = {
  take: '',
  false_start: t('lineup.CutDialog.falseStart'),
  wild: t('lineup.CutDialog.wild'),
  room_tone: t('lineup.CutDialog.roomToneWild'),
  mos: t('lineup.CutDialog.mos'),
}
const keyOf = (row: CutRow) => `${row.clip}:${row.what}`
const groups = computed(() =>
  GROUPS.map((group) => ({ ...group, rows: (data.value?.rows ?? []).filter((row) => row.what === group.what) })).filter(
    (group) => group.rows.length > 0,
  ),
)
type Line = { kind: 'head'; key: string; title: string; rows: CutRow[] } | { kind: 'row'; key: string; row: CutRow }
const lines = computed<Line[]>(() =>
  groups.value.flatMap((group): Line[] => [
    { kind: 'head', key: group.what, title: group.title, rows: group.rows },
    ...group.rows.map((row): Line => ({ kind: 'row', key: keyOf(row), row })),
  ]),
)
const { list, containerProps, wrapperProps } = useRows(lines, 31)
const chosen = computed(() => (data.value?.rows ?? []).map(keyOf).filter((key) => !left.value.has(key)))
watch(
  () => props.open,
  (open) => {
    if (open) {
      left.value = new Set()
      void refetch()
    }
  },
)
watch(data, (answer) => {
  pattern.value = answer?.pattern ?? ''
})

function toggle(keys: string[], on: boolean): void {
  const next = new Set(left.value)
  for (const key of keys)
    if (on) next.delete(key)
    else next.add(key)
  left.value = next
}
async function apply(): Promise<void> {
  working.value = true
  const answer = await attempt(() =>
    lineupApi.cut(production.value.ulid, day.value.ulid, {
      chosen: chosen.value,
      pattern: pattern.value || null,
    }),
  )
  working.value = false
  if (answer === undefined) return
  makeStale('takes')
  makeStale('lineup')
  say(
    t('lineup.CutDialog.cutIntoTakesCtrlZ', [
      answer.changed === 1 ? t('lineup.CutDialog.oneClip') : t('lineup.CutDialog.clips', [answer.changed]),
    ]),
  )
  emit('close')
}
</script>

<template>
  <Modal
    :open="open"
    :width="760"
    :title="t('lineup.CutDialog.cutIntoTakes')"
    :ok-text="
      chosen.length === 1 ? t('lineup.CutDialog.applyThisOne') : t('lineup.CutDialog.applyThese', [chosen.length])
    "
    :ok-button-props="{ disabled: chosen.length === 0 || !production.may.work }"
    :confirm-loading="working"
    @ok="apply"
    @cancel="emit('close')"
  >
    <AnswerState :pending="isPending" :error="error" @retry="refetch()">
      <div v-if="data && data.rows.length === 0" class="empty">
        <b>{{ t('lineup.CutDialog.everyClipHasTheTake') }}</b>{{ t('lineup.CutDialog.nothingIsLeftToCut') }}
      </div>
      <div v-else-if="data" class="plan">
        <p class="soft">
          {{ t('lineup.CutDialog.sceneTakeNotesKeywordsStatus') }}
        </p>
        <div
          v-bind="containerProps"
          class="rows"
          :style="{ height: `min(46vh, ${lines.length * 31 + 2}px)` }"
          tabindex="0"
        >
          <ul v-bind="wrapperProps">
            <template v-for="{ data: line } in list" :key="line.key">
              <li v-if="line.kind === 'head'" class="head">
                <label
                  ><input
                    type="checkbox"
                    :checked="line.rows.every((row) => !left.has(keyOf(row)))"
                    @change="toggle(line.rows.map(keyOf), ($event.target as HTMLInputElement).checked)"
                  />
                  {{ line.title }}</label
                >
                <span class="soft">{{ line.rows.length }}</span>
              </li>
              <li v-else>
                <input
                  type="checkbox"
                  :checked="!left.has(line.key)"
                  :aria-label="`${line.row.name}: ${line.row.now ?? WORDS[line.row.what]}`"
                  @change="toggle([line.key], ($event.target as HTMLInputElement).checked)"
                />
                <button class="link mono" @click="emit('go', line.row.clip)">
                  <DeviceBadge :letter="line.row.device ?? ''" /> {{ line.row.name }}
                </button>
                <span class="mono cut">
                  {{ line.row.was ?? t('lineup.CutDialog.noTake') }} → <b>{{ line.row.now ?? WORDS[line.row.what] }}</b>
                  <i v-if="line.row.is_new" class="soft"> {{ ' ' }}{{ t('lineup.CutDialog.new') }}</i>
                </span>
                <small class="soft cut" :title="deskSays(line.row.why)">{{ deskSays(line.row.why) }}</small>
              </li>
            </template>
          </ul>
        </div>
        <label class="names"
          >{{ t('lineup.CutDialog.nameThem') }}
          <select v-model="pattern">
            <option value="">{{ t('lineup.CutDialog.asTheyAre') }}</option>
            <option v-for="one in data.patterns" :key="one" :value="one">{{ one }}</option>
          </select>
        </label>
      </div>
    </AnswerState>
  </Modal>
</template>

<style scoped>
.plan {
  display: grid;
  gap: 12px;
}
.plan p {
  margin: 0;
  font-size: 12.5px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 20px minmax(0, 210px) minmax(0, 190px) minmax(0, 1fr);
  gap: 8px;
  align-items: center;
  height: 31px;
  border-bottom: 1px solid var(--rule);
  font-size: 12.5px;
}
li.head {
  display: flex;
  font-weight: 600;
  font-size: 13px;
}
.cut {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.link {
  border: 0;
  background: none;
  padding: 0;
  cursor: pointer;
  color: var(--ink);
  text-align: left;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  font-size: 12.5px;
}
i {
  font-style: normal;
}
.names {
  display: flex;
  gap: 8px;
  align-items: center;
  font-size: 13px;
}
select {
  font: inherit;
  padding: 3px 5px;
  border: 1px solid var(--rule-strong);
  border-radius: 4px;
  background: var(--sheet);
}
</style>
