<script setup lang="ts">
import { t } from '@/words'
import { deskSays } from '@/words/desk'
import { bins as binsApi } from '@/api/endpoints/bins'
import { cards as cardsApi } from '@/api/endpoints/cards'
import { computed, nextTick, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { mediaUrl } from '@/api/client'
import { makeStale, useAnswer } from '@/api/queries'
import type { BinEntry } from '@/api/types'
import ClipPlayer from '@/player/ClipPlayer.vue'
import { length } from '@/player/time'
import { useDesk } from '@/shell/desk'
import DeviceBadge from '@/shell/DeviceBadge.vue'
import { useShortcuts } from '@/shell/keys'
import { attempt, say } from '@/shell/say'
import { useSheet } from '@/shell/sheet'
import TakeNumber from '@/shell/TakeNumber.vue'
import ClipPieces from './ClipPieces.vue'
import { useMarks } from './useMarks'

/** One clip in full: its player with marks, its subclips, and all that its file says. */
const props = defineProps<{ clip: string | null; ownBins: BinEntry[] }>()
const { production } = useDesk()
const route = useRoute()
const router = useRouter()
const { data, error } = useAnswer(() => (props.clip === null ? null : binsApi.clip(production.value.ulid, props.clip)))
const player = ref<InstanceType<typeof ClipPlayer> | null>(null)
const guide = ref(false)

/** The moment that the address asks for, in ticks. */
const from = computed(() => {
  const at = Number(route.query.at)
  return route.query.clip === props.clip && typeof route.query.at === 'string' && Number.isFinite(at) ? at : null
})
const { marks, set: setMarks } = useMarks(
  () => production.value.ulid,
  () => data.value,
)
const hasRange = computed(() => marks.value.in_ticks !== null && marks.value.out_ticks !== null)

async function remake(): Promise<void> {
  if ((await attempt(() => cardsApi.remake(production.value.ulid, props.clip ?? ''))) !== undefined)
    say(t('bins.ClipSheetPanel.itsProxyPicturesAndWaveform'))
  makeStale('tasks')
}

const stating = ref(false)
const reads = ref('')
const scope = ref<'card' | 'day' | 'device'>('card')
const readsBox = ref<HTMLInputElement | null>(null)
function startStating(): void {
  if (!production.value.may.work || !data.value?.device || data.value.start_ticks === null) return
  reads.value = player.value?.timecode ?? ''
  stating.value = true
  void nextTick(() => readsBox.value?.select())
}
async function state(): Promise<void> {
  const sheet = data.value
  if (sheet === undefined || player.value === null) return
  const answer = await attempt(() =>
    cardsApi.stateClock(production.value.ulid, sheet.ulid, {
      frame: player.value?.frame ?? 0,
      reads: reads.value.trim(),
      for: scope.value,
    }),
  )
  if (answer === undefined) return
  stating.value = false
  say(t('bins.ClipSheetPanel.theClockIsCorrectedWhat'))
  makeStale('clips')
}

useShortcuts('Clip sheet', [
  { keys: ['t'], what: t('bins.ClipSheetPanel.stateWhatThisFrameReads2'), run: startStating },
  {
    keys: ['Escape'],
    what: t('bins.ClipSheetPanel.clearTheMarks'),
    run: () => hasRange.value && void setMarks({ in_ticks: null, out_ticks: null }),
  },
])
const toSheet = useSheet(
  () => props.clip,
  () => player.value?.ticks ?? 0,
)
function toTake(take: string): void {
  const day = data.value?.day
  if (day !== undefined)
    void router.push({ name: 'log', params: { production: production.value.ulid, day }, query: { take } })
}
</script>

<template>
  <aside>
    <div v-if="clip === null" class="empty">
      <b>{{ t('bins.ClipSheetPanel.noClipChosen') }}</b>{{ t('bins.ClipSheetPanel.itsSheetStandsHere') }}
    </div>
    <div v-else-if="error" class="note fault">{{ error.message }} {{ error.fix }}</div>
    <div v-else-if="data === undefined || data.ulid !== clip" class="bones"><i v-for="n in 6" :key="n" /></div>
    <template v-else>
      <h2>
        <DeviceBadge v-if="data.device" :letter="data.device" /> <span class="mono">{{ data.name }}</span>{{ ' ' }}
        <template v-if="data.take"
          ><span class="soft">{{ data.take.setup }}</span
          ><TakeNumber :take="data.take.take" :part="data.take.part" :status="data.take.status"
        /></template>
        <button class="plain push" :title="t('bins.ClipSheetPanel.theWholePageForIt')" @click="toSheet">
          {{ t('bins.ClipSheetPanel.sheet') }}
        </button>
      </h2>
      <ClipPlayer
        v-if="data.kind === 'picture' || data.kind === 'sound'"
        ref="player"
        :production="production.ulid"
        :clip="data"
        :marks="marks"
        can-mark
        :guide="guide"
        :from="from"
        :take="data.take?.ulid"
        :can-work="production.may.work"
        @mark="setMarks"
        @guide="guide = $event"
      />
      <img
        v-else-if="data.kind === 'still'"
        class="still"
        :src="mediaUrl(production.ulid, data.ulid, 'still')"
        :alt="data.name"
      />
      <p v-for="problem in data.problems" :key="problem" class="note warn">{{ deskSays(problem) }}</p>
      <div v-if="!data.ready && production.may.work && data.kind !== 'other'" class="note warn">
        {{ t('bins.ClipSheetPanel.itHasNoProxyYet') }}
        <button class="plain" @click="remake">{{ t('bins.ClipSheetPanel.makeItAgain') }}</button>
      </div>
      <template v-if="data.kind === 'picture' || data.kind === 'sound'">
        <ClipPieces
          :clip="{ ...data, marks }"
          :own-bins="ownBins"
          :ticks="() => player?.ticks ?? 0"
          @go="player?.go($event)"
        />
      </template>
      <form v-if="stating" class="stating" @submit.prevent="state" @keydown.esc.stop="stating = false">
        <label
          >{{ t('bins.ClipSheetPanel.thisFrameReallyReads')
          }}<input ref="readsBox" v-model="reads" class="field mono" maxlength="16" placeholder="10:42:17:08"
        /></label>
        <label
          >{{ t('bins.ClipSheetPanel.for')
          }}<select v-model="scope" class="field">
            <option value="card">{{ t('bins.ClipSheetPanel.card', [data.roll]) }}</option>
            <option value="day">{{ t('bins.ClipSheetPanel.theDay') }}</option>
            <option value="device">{{ t('bins.ClipSheetPanel.device', [data.device]) }}</option>
          </select></label
        >
        <div class="answers">
          <button class="go">{{ t('bins.ClipSheetPanel.correct') }}</button><button
            type="button"
            class="plain"
            @click="stating = false"
          >
            {{ t('bins.ClipSheetPanel.leaveIt') }}
          </button>
        </div>
      </form>
      <dl>
        <template v-if="data.takes.length > 0">
          <dt>{{ data.takes.length === 1 ? t('bins.ClipSheetPanel.take') : t('bins.ClipSheetPanel.takes') }}</dt>
          <dd>
            <a v-for="one in data.takes" :key="`${one.ulid} ${one.in_ticks}`" class="of" @click="toTake(one.ulid)">
              {{ one.label }} {{ data.takes.length === 1 ? data.take?.description : '' }}
            </a>
          </dd>
        </template>
        <dt>{{ t('bins.ClipSheetPanel.roll') }}</dt>
        <dd class="mono">{{ data.roll ?? t('bins.ClipSheetPanel.none') }}</dd>
        <dt>{{ t('bins.ClipSheetPanel.starts') }}</dt>
        <dd class="mono">
          {{ data.start_timecode ?? t('bins.ClipSheetPanel.noTimecode')
          }}<template v-if="data.corrected_timecode"
            ><br /><span class="soft">{{ t('bins.ClipSheetPanel.corrected') }}</span>
            {{ data.corrected_timecode }}</template
          >
          <button
            v-if="production.may.work && data.start_ticks !== null && data.device"
            class="plain small"
            :title="t('bins.ClipSheetPanel.stateWhatThisFrameReads')"
            @click="startStating"
          >
            {{ t('bins.ClipSheetPanel.clock') }}
          </button>
        </dd>
        <dt>{{ t('bins.ClipSheetPanel.length') }}</dt>
        <dd class="mono">
          {{ length(data.duration_ticks)
          }}<template v-if="data.frames">
            {{ ' ' }}{{ t('bins.ClipSheetPanel.fAt', [data.frames, data.rate.name]) }}</template
          >
        </dd>
        <template v-if="data.width"
          ><dt>{{ t('bins.ClipSheetPanel.picture') }}</dt>
          <dd class="mono">{{ data.width }} × {{ data.height }}</dd></template
        >
        <template v-if="data.channels.length > 0"
          ><dt>{{ t('bins.ClipSheetPanel.sound') }}</dt>
          <dd>
            {{ data.channels.map((channel) => channel.name).join(', ') }}
            <span class="soft mono">{{ t('bins.ClipSheetPanel.khz', [(data.sample_rate ?? 0) / 1000]) }}</span>
          </dd></template
        >
        <dt>
          {{
            data.parts.length > 1 ? t('bins.ClipSheetPanel.files', [data.parts.length]) : t('bins.ClipSheetPanel.file')
          }}
        </dt>
        <dd class="mono path">
          <div v-for="part in data.parts" :key="part">{{ part }}</div>
        </dd>
        <template v-if="data.sidecars.length > 0"
          ><dt>{{ t('bins.ClipSheetPanel.besideIt') }}</dt>
          <dd class="mono path">
            <div v-for="one in data.sidecars" :key="one">{{ one }}</div>
          </dd></template
        >
      </dl>
      <button
        v-if="data.placed_ticks !== null"
        class="plain"
        @click="router.push({ name: 'lineup', params: { ...route.params, day: data.day }, query: { clip: data.ulid } })"
      >
        {{ t('bins.ClipSheetPanel.seeItsPlaceInThe') }}
      </button>
    </template>
  </aside>
</template>

<style scoped>
.of + .of {
  margin-left: 10px;
}
aside {
  border-left: 1px solid var(--rule-strong);
  background: var(--sheet-2);
  padding: 14px 16px;
  overflow: auto;
  display: grid;
  gap: 10px;
  align-content: start;
}
h2 {
  display: flex;
  align-items: center;
  gap: 7px;
  min-width: 0;
}
h2 .mono {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.still {
  width: 100%;
  border-radius: 5px;
}
dl {
  display: grid;
  grid-template-columns: 62px 1fr;
  row-gap: 5px;
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
dd a {
  color: var(--act);
  cursor: pointer;
}
.path {
  font-size: 11px;
}
.stating {
  display: grid;
  grid-template-columns: 1fr 110px;
  gap: 6px 8px;
  align-items: end;
  font-size: 12px;
  background: #fff;
  border: 1px solid var(--rule-strong);
  border-radius: 5px;
  padding: 8px 10px;
}
.answers {
  display: flex;
  gap: 6px;
  grid-column: 1 / -1;
}
.stating label {
  display: grid;
  gap: 2px;
}
.small {
  min-height: 20px;
  padding: 0 7px;
  font-size: 11px;
  margin-left: 8px;
}
.note {
  margin: 0;
}
</style>
