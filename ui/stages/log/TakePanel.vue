<script setup lang="ts">
import { t } from '@/words'
import { locale } from '@/words/language'
import { bins as binsApi } from '@/api/endpoints/bins'
import { day as dayApi } from '@/api/endpoints/day'
import { log as logApi } from '@/api/endpoints/log'
import { refDebounced } from '@vueuse/core'
import { computed, nextTick, ref, shallowRef, watch } from 'vue'
import { useRoute } from 'vue-router'
import { makeStale, useAnswer } from '@/api/queries'
import type { Dispute, LogClip, Said, Take } from '@/api/types'
import ClipPlayer from '@/player/ClipPlayer.vue'
import { useDesk } from '@/shell/desk'
import DeviceBadge from '@/shell/DeviceBadge.vue'
import { attempt, say } from '@/shell/say'
import { SOURCES, whoSaid } from '@/shell/said'
import { useSheet } from '@/shell/sheet'
import { syncOf } from './rows'
import { cellText, fieldName, marksOf, slateOf } from './sheet'
import TakeHistory from './TakeHistory.vue'

/** The take under the cursor beside the sheet: its picture from any angle, and what is written of it. */
const props = defineProps<{ take: Take | null; clip: LogClip | null; want: string | null; mayLog: boolean }>()
const emit = defineEmits<{ change: [take: Take, values: Partial<Take>] }>()
const { production, day } = useDesk()
const route = useRoute()

/** The clip that was chosen; another take shows its clip of the same device. */
const angle = shallowRef<{ clip: string; device: string | null } | null>(null)
const guide = ref(false)
const history = ref(false)
const note = ref('')
const noteBox = ref<HTMLTextAreaElement | null>(null)
const clips = computed(() => (props.take !== null ? props.take.clips : props.clip === null ? [] : [props.clip]))
watch([() => props.want, () => props.clip?.ulid], () =>
  choose(clips.value.find((one) => one.ulid === (props.want ?? props.clip?.ulid))),
)
const chosen = computed(
  () =>
    clips.value.find((one) => one.ulid === angle.value?.clip) ??
    clips.value.find((one) => one.device === angle.value?.device) ??
    clips.value[0],
)
const choose = (one: LogClip | undefined) => one !== undefined && (angle.value = { clip: one.ulid, device: one.device })
/** A cursor that runs through the sheet asks for the clip where it rests, after what was typed is on its way. */
const resting = refDebounced(
  computed(() => chosen.value?.ulid ?? null),
  90,
)
const { data, error } = useAnswer(() =>
  resting.value === null ? null : binsApi.clip(production.value.ulid, resting.value),
)
const { data: marked } = useAnswer(() =>
  resting.value === null || props.take === null ? null : logApi.markers(production.value.ulid, props.take.ulid),
)
const bySlate = computed(() => {
  const said = new Map<string, string[]>()
  for (const claim of props.take?.claims ?? []) {
    const slate = slateOf(claim)
    const who = said.get(slate) ?? []
    if (!who.some((one) => one.endsWith(`(${claim.where})`)))
      said.set(slate, [
        ...who,
        `${claim.from === 'ixml' ? t('log.TakePanel.theRecorder') : t('log.TakePanel.theName')} (${claim.where})`,
      ])
  }
  return [...said]
})

watch(
  () => props.take?.ulid,
  () => (note.value = props.take?.notes ?? ''),
  { immediate: true },
)
watch(
  () => props.take?.notes,
  (now) => {
    if (document.activeElement !== noteBox.value) note.value = now ?? ''
  },
)

function turn(step: number): void {
  if (clips.value.length === 0) return
  const at = clips.value.indexOf(chosen.value!)
  choose(clips.value[(at + step + clips.value.length) % clips.value.length])
}
function writeNote(): void {
  if (props.mayLog) void nextTick(() => noteBox.value?.focus())
}
/** The take as it was when its note was begun, so that a colleague's note meanwhile is not overwritten. */
const begun = shallowRef<Take | null>(null)
function keepNote(): void {
  const take = begun.value
  begun.value = null
  if (take !== null && note.value.trim() !== take.notes) emit('change', take, { notes: note.value.trim() })
  else note.value = props.take?.notes ?? ''
}
async function settle(slate: string): Promise<void> {
  if (props.take === null) return
  const done = await attempt(() =>
    dayApi.fix(production.value.ulid, day.value.ulid, {
      key: `claim.${props.take?.ulid}`,
      fix: `slate:${slate}`,
    }),
  )
  if (done !== undefined) say(t('log.TakePanel.itIs', [slate]))
  makeStale('takes')
}
/** What this production added, where something is said. */
const ownFields = computed(() => {
  const take = props.take
  if (take === null) return []
  return production.value.fields.filter((field) => field.key.startsWith('own:') && cellText(take, field.key) !== '')
})
const own = computed(() => (props.take === null ? '' : slateOf(props.take)))
const words = (value: Said) =>
  value === true
    ? t('log.TakePanel.yes')
    : value === false || value === '' || value === 'none'
      ? t('log.TakePanel.nothing')
      : value === 'ng'
        ? t('log.TakePanel.ng2')
        : String(value)
const called = (field: string) => fieldName(production.value.fields, field)
const when = (at: number) =>
  new Date(at * 1000).toLocaleString(locale, { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' })
/** Two sources that say the same need no two buttons. */
const unlike = (dispute: Dispute) =>
  dispute.said.filter((said, at) => dispute.said.findIndex((other) => other.value === said.value) === at)
/** @param said which of what was said is right, by its id; of a number, whose; or `now` */
async function decide(field: string, said: string, alike: boolean): Promise<void> {
  if (props.take === null) return
  const done = await attempt(() => logApi.settle(production.value.ulid, props.take?.ulid ?? '', { field, said, alike }))
  if (done !== undefined && alike)
    say(
      t('log.TakePanel.settledForCtrlZTakes', [
        done.settled,
        done.settled === 1 ? t('log.TakePanel.take2') : t('log.TakePanel.takes'),
      ]),
    )
  makeStale('takes')
}
/** Digits go to a timecode while the player has the focus; with Alt they are angles. */
function regionKey(event: KeyboardEvent): void {
  const digit = event.altKey ? /^Digit([1-9])$/.exec(event.code)?.[1] : undefined
  const wanted = clips.value[Number(digit ?? 0) - 1]
  if (wanted === undefined) return
  event.preventDefault()
  choose(wanted)
}
const player = ref<InstanceType<typeof ClipPlayer> | null>(null)
useSheet(
  () => data.value?.ulid,
  () => player.value?.ticks ?? 0,
)
defineExpose({ turn, writeNote, toggleHistory: () => (history.value = !history.value) })
</script>

<template>
  <aside @keydown="regionKey">
    <div v-if="chosen === undefined" class="empty">
      <b>{{ take === null ? t('log.TakePanel.noTakeHere') : t('log.TakePanel.noClipShows', [own]) }}</b>{{
        take === null ? t('log.TakePanel.chooseARowOfThe') : t('log.TakePanel.itIsInTheLog')
      }}
    </div>
    <template v-else>
      <div v-if="error" class="note fault">{{ error.message }} {{ error.fix }}</div>
      <ClipPlayer
        v-else-if="data && data.ulid === chosen.ulid"
        ref="player"
        :production="production.ulid"
        :clip="data"
        :guide="guide"
        :take="data.take?.ulid"
        :can-work="production.may.work"
        @guide="guide = $event"
      />
      <div v-else class="hold" />
      <div class="angles" role="radiogroup" :aria-label="t('log.TakePanel.angle')">
        <button
          v-for="(one, index) in clips"
          :key="one.ulid"
          class="angle"
          role="radio"
          :aria-checked="one.ulid === chosen.ulid"
          :class="{ on: one.ulid === chosen.ulid }"
          :title="t('log.TakePanel.andOrAlt', [one.name, index + 1])"
          @click="choose(one)"
        >
          <DeviceBadge :letter="one.device" /><span>{{
            clips.filter((other) => other.device === one.device).length > 1
              ? one.name
              : (production.devices.find((device) => device.letter === one.device)?.note ?? one.name)
          }}</span>
        </button>
      </div>
      <dl v-if="take">
        <dt>{{ t('log.TakePanel.take') }}</dt>
        <dd>
          <b class="mono">{{ take.setup }} / {{ take.take }}{{ take.part }}</b>
          {{
            { none: '', circled: t('log.TakePanel.circled'), hold: t('log.TakePanel.hold'), ng: t('log.TakePanel.ng') }[
              take.status
            ]
          }}<span v-if="marksOf(take)" class="soft"> · {{ marksOf(take) }}</span>
        </dd>
        <template v-if="take.name"
          ><dt>{{ t('log.TakePanel.name') }}</dt>
          <dd class="mono clip">{{ take.name }}</dd></template
        >
        <dt>{{ t('log.TakePanel.happens') }}</dt>
        <dd>{{ take.description || '—' }}</dd>
        <dt>{{ t('log.TakePanel.size') }}</dt>
        <dd>{{ take.size || '—' }}</dd>
        <template v-if="take.keywords"
          ><dt>{{ t('log.TakePanel.keywords') }}</dt>
          <dd>{{ take.keywords }}</dd></template
        >
        <template v-for="field in ownFields" :key="field.key">
          <dt>{{ field.label }}</dt>
          <dd>{{ cellText(take, field.key) }}</dd>
        </template>
        <dt>{{ t('log.TakePanel.clip') }}</dt>
        <dd class="mono clip">
          {{ data?.roll }} · {{ chosen.name
          }}<span v-if="chosen.file !== chosen.name" class="soft">
            {{ ' ' }}{{ t('log.TakePanel.was', [chosen.file]) }}</span
          >
        </dd>
        <template v-if="marked && marked.markers.length > 0"
          ><dt>{{ t('log.TakePanel.markers') }}</dt>
          <dd class="marks">
            <RouterLink
              v-for="one in marked.markers"
              :key="one.ulid"
              :to="{ name: 'clip', params: { ...route.params, clip: one.clip }, query: { at: one.in_ticks } }"
              :title="one.note || t('log.TakePanel.on', [one.clip_name])"
              ><DeviceBadge :letter="one.device" /> {{ one.name || t('log.TakePanel.aPlace') }}
              <span class="mono soft">{{ one.timecode }}</span></RouterLink
            >
          </dd></template
        >
        <template v-if="take.screening"
          ><dt>{{ t('log.TakePanel.screening') }}</dt>
          <dd>{{ take.screening }}</dd></template
        >
        <dt>{{ t('log.TakePanel.synced') }}</dt>
        <dd :class="syncOf(take).look">{{ syncOf(take).text }}</dd>
        <dt>
          <label for="note">{{ t('log.TakePanel.notes') }}</label>
        </dt>
        <dd>
          <textarea
            id="note"
            ref="noteBox"
            v-model="note"
            class="field"
            rows="3"
            :disabled="!mayLog"
            :placeholder="t('log.TakePanel.anythingTheCuttingRoomShould')"
            @focus="begun = take"
            @blur="keepNote"
            @keydown.esc.stop="noteBox?.blur()"
            @keydown.ctrl.enter="noteBox?.blur()"
          />
        </dd>
      </dl>
      <template v-if="take">
        <button
          class="plain"
          :aria-expanded="history"
          :title="t('log.TakePanel.whoChangedWhatOfThis')"
          @click="history = !history"
        >
          {{ t('log.TakePanel.history') }} <kbd>Y</kbd>
        </button>
        <TakeHistory v-if="history" :take="take.ulid" />
      </template>
      <dl v-else>
        <dt>{{ t('log.TakePanel.clip') }}</dt>
        <dd class="mono clip">{{ data?.roll }} · {{ chosen.name }}</dd>
        <dt>{{ t('log.TakePanel.starts') }}</dt>
        <dd class="mono">{{ data?.start_timecode ?? t('log.TakePanel.noTimecode') }}</dd>
        <dt>{{ t('log.TakePanel.slate') }}</dt>
        <dd>
          {{ ' ' }}{{ t('log.TakePanel.none') }} <kbd>↵</kbd> {{ t('log.TakePanel.typesIt') }} <kbd>B</kbd>
          {{ t('log.TakePanel.logsTheWholeLine') }} <kbd>F</kbd> {{ t('log.TakePanel.marksAFalseStart') }} <kbd>W</kbd>
          {{ t('log.TakePanel.marksItWild') }}{{ ' ' }}
        </dd>
      </dl>
      <div v-if="bySlate.length > 1" class="note warn says">
        <b>{{ t('log.TakePanel.twoSourcesDisagree') }}</b>{{ ' ' }}
        <span v-for="[slate, who] in bySlate" :key="slate"
          >{{ who.join(t('log.TakePanel.and')) }}
          {{ who.length > 1 ? t('log.TakePanel.say') : t('log.TakePanel.says') }} {{ slate }}.
        </span>
        <div v-if="mayLog">
          <button
            v-for="[slate] in bySlate"
            :key="slate"
            class="plain"
            :class="{ go: slate === own }"
            @click="settle(slate)"
          >
            {{ slate === own ? t('log.TakePanel.keep') : t('log.TakePanel.use') }} {{ slate }}</button
          ><button class="alike" :title="t('log.TakePanel.forEveryTakeOfThe')" @click="decide('slate', 'ixml', true)">
            {{ t('log.TakePanel.theRecorderForAllAlike') }}</button
          ><button class="alike" :title="t('log.TakePanel.forEveryTakeOfThe')" @click="decide('slate', 'name', true)">
            {{ t('log.TakePanel.theNamesForAllAlike') }}
          </button>
        </div>
      </div>
      <div v-for="dispute in take?.disputes ?? []" :key="dispute.field" class="note warn says">
        <b>{{ t('log.TakePanel.sourcesDifferOn', [called(dispute.field)]) }}</b>
        <ul>
          <li>
            {{ whoSaid(dispute.by, dispute.place) }}: <b>{{ words(dispute.now) }}</b>{{ ' ' }}
            <small v-if="dispute.at">{{ when(dispute.at) }}</small>
          </li>
          <li v-for="said in dispute.said" :key="said.id">
            {{ whoSaid(said.source, said.place) }}: <b>{{ words(said.value) }}</b>{{ ' ' }}
            <small>{{ when(said.at) }}</small>
          </li>
        </ul>
        <div v-if="mayLog">
          <button class="plain go" @click="decide(dispute.field, 'now', false)">
            {{ t('log.TakePanel.keep2', [words(dispute.now)]) }}
          </button>
          <button
            v-for="said in unlike(dispute)"
            :key="said.id"
            class="plain"
            @click="decide(dispute.field, said.id, false)"
          >
            {{ t('log.TakePanel.use2', [words(said.value)]) }}
          </button>
          <button
            v-for="said in dispute.said"
            :key="`all ${said.id}`"
            class="alike"
            :title="t('log.TakePanel.forEveryTakeOfThe2', [called(dispute.field)])"
            @click="decide(dispute.field, said.id, true)"
          >
            {{ t('log.TakePanel.forAllAlike', [said.source === 'script' ? said.place : SOURCES[said.source]]) }}
          </button>
        </div>
      </div>
    </template>
  </aside>
</template>

<style scoped>
.marks {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 10px;
}
aside {
  border-left: 1px solid var(--rule-strong);
  background: var(--sheet-2);
  padding: 14px 16px;
  overflow: auto;
  display: grid;
  gap: 11px;
  align-content: start;
}
.hold {
  aspect-ratio: 16 / 9;
  background: var(--dark);
  border-radius: 5px;
  margin-bottom: 106px;
}
.angles {
  display: flex;
  gap: 7px;
  flex-wrap: wrap;
}
.angle {
  flex: 1 1 88px;
  height: 28px;
  border: 1px solid var(--rule-strong);
  border-radius: 4px;
  background: var(--sheet);
  display: flex;
  align-items: center;
  gap: 6px;
  padding: 0 7px;
  font-size: 12px;
  cursor: pointer;
  min-width: 0;
}
.angle span:last-child {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.angle.on {
  border-color: var(--ink);
  box-shadow: 0 0 0 1px var(--ink);
}
dl {
  display: grid;
  grid-template-columns: 70px 1fr;
  row-gap: 7px;
  margin: 0;
  font-size: 12.5px;
}
dt {
  color: var(--ink-soft);
}
dd {
  margin: 0;
  min-width: 0;
  overflow-wrap: anywhere;
}
.clip {
  font-size: 12px;
}
.says div {
  margin-top: 7px;
  display: flex;
  gap: 7px;
  flex-wrap: wrap;
}
.alike {
  border: 0;
  background: none;
  padding: 4px 2px;
  font-size: 12px;
  text-decoration: underline;
  text-underline-offset: 3px;
  cursor: pointer;
}
.says ul {
  margin: 4px 0 0;
  padding-left: 16px;
}
.says small {
  color: #7a5a2c;
}
textarea {
  resize: vertical;
}
</style>
