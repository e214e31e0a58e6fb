<script setup lang="ts">
import { computed, nextTick, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api, mediaUrl } from '@/api/client'
import { makeStale, queryClient, useAnswer } from '@/api/queries'
import type { ClipSheet } from '@/api/types'
import ClipPlayer from '@/player/ClipPlayer.vue'
import { length, toFrames } from '@/player/time'
import { useDesk } from '@/shell/desk'
import DeviceBadge from '@/shell/DeviceBadge.vue'
import { useShortcuts } from '@/shell/keys'
import { attempt, say } from '@/shell/say'
import TakeNumber from '@/shell/TakeNumber.vue'

/** One clip in full: its player with marks, its subclips, and all that its file says. */
const props = defineProps<{ clip: string | null }>()
const { production, base } = useDesk()
const route = useRoute()
const router = useRouter()
const { data, error } = useAnswer<ClipSheet>(
  () => production.value.ulid,
  () => (props.clip === null ? null : `clips/${props.clip}`),
)
const player = ref<InstanceType<typeof ClipPlayer> | null>(null)
const nameBox = ref<HTMLInputElement | null>(null)
const guide = ref(false)
const name = ref('')
const naming = ref(false)

const marks = computed(() => data.value?.marks ?? { in_ticks: null, out_ticks: null })
const hasRange = computed(() => marks.value.in_ticks !== null && marks.value.out_ticks !== null)

async function setMarks(next: { in_ticks: number | null; out_ticks: number | null }): Promise<void> {
  const sheet = data.value
  if (sheet === undefined) return
  queryClient.setQueryData<ClipSheet>([production.value.ulid, `clips/${sheet.ulid}`], { ...sheet, marks: next })
  await attempt(() => api.put(`${base.value}/clips/${sheet.ulid}/marks`, next))
}
function startNaming(): void {
  if (!hasRange.value || !production.value.may.organise) {
    if (!hasRange.value) say('Set an in point with I and an out point with O first.')
    return
  }
  const slate = data.value?.take ? `${data.value.take.setup}-${data.value.take.take} ` : ''
  name.value = `${slate}${data.value?.name} ${(data.value?.subclips.length ?? 0) + 1}`
  naming.value = true
  void nextTick(() => nameBox.value?.select())
}
async function keep(): Promise<void> {
  const sheet = data.value
  if (sheet === undefined || name.value.trim() === '') return
  const done = await attempt(() =>
    api.post(`${base.value}/clips/${sheet.ulid}/subclips`, {
      name: name.value.trim(),
      in_ticks: marks.value.in_ticks,
      out_ticks: marks.value.out_ticks,
    }),
  )
  if (done === undefined) return
  naming.value = false
  say(`${name.value.trim()} is kept as a subclip.`)
  makeStale('bins')
}

async function remake(): Promise<void> {
  if ((await attempt(() => api.post(`${base.value}/clips/${props.clip}/media`))) !== undefined)
    say('Its proxy, pictures and waveform are made again.')
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
    api.post<{ correction_ticks: number }>(`${base.value}/clips/${sheet.ulid}/clock`, {
      frame: player.value?.frame ?? 0,
      reads: reads.value.trim(),
      for: scope.value,
    }),
  )
  if (answer === undefined) return
  stating.value = false
  say('The clock is corrected; what was recorded stays. Line up again to use it.')
  makeStale('clips')
}

useShortcuts('Clip sheet', [
  { keys: ['t'], what: 'State what this frame reads, to correct the clock', run: startStating },
  { keys: ['u'], what: 'Keep the marked range as a subclip', run: startNaming },
  {
    keys: ['Escape'],
    what: 'Clear the marks',
    run: () => hasRange.value && void setMarks({ in_ticks: null, out_ticks: null }),
  },
])
function toTake(take: string): void {
  const day = data.value?.day
  if (day !== undefined)
    void router.push({ name: 'log', params: { production: production.value.ulid, day }, query: { take } })
}
</script>

<template>
  <aside>
    <div v-if="clip === null" class="empty"><b>No clip chosen.</b>Its sheet stands here.</div>
    <div v-else-if="error" class="note fault">{{ error.message }} {{ error.fix }}</div>
    <div v-else-if="data === undefined || data.ulid !== clip" class="bones"><i v-for="n in 6" :key="n" /></div>
    <template v-else>
      <h2>
        <DeviceBadge v-if="data.device" :letter="data.device" /> <span class="mono">{{ data.name }}</span>{{ ' ' }}
        <template v-if="data.take"
          ><span class="soft">{{ data.take.setup }}</span
          ><TakeNumber :take="data.take.take" :status="data.take.status"
        /></template>
      </h2>
      <ClipPlayer
        v-if="data.kind === 'picture' || data.kind === 'sound'"
        ref="player"
        :production="production.ulid"
        :clip="data"
        :marks="marks"
        can-mark
        :guide="guide"
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
      <p v-for="problem in data.problems" :key="problem" class="note warn">{{ problem }}</p>
      <div v-if="!data.ready && production.may.work && data.kind !== 'other'" class="note warn">
        It has no proxy yet. <button class="plain" @click="remake">Make it again</button>
      </div>
      <template v-if="data.kind === 'picture' || data.kind === 'sound'">
        <div class="marks">
          <span class="soft"><kbd>I</kbd> in, <kbd>O</kbd> out</span>
          <span class="mono">{{
            hasRange
              ? length((marks.out_ticks ?? 0) - (marks.in_ticks ?? 0)) +
                ` · ${toFrames((marks.out_ticks ?? 0) - (marks.in_ticks ?? 0), data.rate)} f`
              : ''
          }}</span>
          <button
            v-if="production.may.organise"
            class="plain"
            :class="{ go: hasRange }"
            :disabled="!hasRange"
            title="Keep as subclip (U)"
            @click="startNaming"
          >
            Keep as subclip <kbd>U</kbd>
          </button>
        </div>
        <form v-if="naming" class="naming" @submit.prevent="keep">
          <input
            ref="nameBox"
            v-model="name"
            class="field"
            aria-label="Name of the subclip"
            maxlength="160"
            @keydown.esc.stop="naming = false"
          /><button class="go">Keep</button>
        </form>
        <ul v-if="data.subclips.length > 0" class="subs">
          <li v-for="one in data.subclips" :key="one.ulid">
            <button @click="player?.go(toFrames(one.in_ticks, data.rate))">
              <b>{{ one.name }}</b><span class="mono soft">{{ length(one.out_ticks - one.in_ticks) }}</span>
            </button>
          </li>
        </ul>
      </template>
      <form v-if="stating" class="stating" @submit.prevent="state" @keydown.esc.stop="stating = false">
        <label
          >This frame really reads<input
            ref="readsBox"
            v-model="reads"
            class="field mono"
            maxlength="16"
            placeholder="10:42:17:08"
        /></label>
        <label
          >for<select v-model="scope" class="field">
            <option value="card">card {{ data.roll }}</option>
            <option value="day">the day</option>
            <option value="device">device {{ data.device }}</option>
          </select></label
        >
        <div class="answers">
          <button class="go">Correct</button
          ><button type="button" class="plain" @click="stating = false">Leave it</button>
        </div>
      </form>
      <dl>
        <template v-if="data.takes.length > 0">
          <dt>{{ data.takes.length === 1 ? 'Take' : 'Takes' }}</dt>
          <dd>
            <a v-for="one in data.takes" :key="`${one.ulid} ${one.in_ticks}`" class="of" @click="toTake(one.ulid)">
              {{ one.label }} {{ data.takes.length === 1 ? data.take?.description : '' }}
            </a>
          </dd>
        </template>
        <dt>Roll</dt>
        <dd class="mono">{{ data.roll ?? 'none' }}</dd>
        <dt>Starts</dt>
        <dd class="mono">
          {{ data.start_timecode ?? 'no timecode'
          }}<template v-if="data.corrected_timecode"
            ><br /><span class="soft">corrected</span> {{ data.corrected_timecode }}</template
          >
          <button
            v-if="production.may.work && data.start_ticks !== null && data.device"
            class="plain small"
            title="State what this frame reads (T)"
            @click="startStating"
          >
            Clock…
          </button>
        </dd>
        <dt>Length</dt>
        <dd class="mono">
          {{ length(data.duration_ticks)
          }}<template v-if="data.frames"> · {{ data.frames }} f at {{ data.rate.name }}</template>
        </dd>
        <template v-if="data.width"
          ><dt>Picture</dt>
          <dd class="mono">{{ data.width }} × {{ data.height }}</dd></template
        >
        <template v-if="data.channels.length > 0"
          ><dt>Sound</dt>
          <dd>
            {{ data.channels.map((channel) => channel.name).join(', ') }}
            <span class="soft mono">{{ (data.sample_rate ?? 0) / 1000 }} kHz</span>
          </dd></template
        >
        <dt>{{ data.parts.length > 1 ? `${data.parts.length} files` : 'File' }}</dt>
        <dd class="mono path">
          <div v-for="part in data.parts" :key="part">{{ part }}</div>
        </dd>
        <template v-if="data.sidecars.length > 0"
          ><dt>Beside it</dt>
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
        See its place in the line-up
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
.marks {
  display: flex;
  align-items: center;
  gap: 10px;
  justify-content: space-between;
  font-size: 12px;
  min-height: 30px;
}
.naming {
  display: flex;
  gap: 6px;
}
.subs {
  list-style: none;
  margin: 0;
  padding: 0;
  border-top: 1px solid var(--rule);
}
.subs button {
  display: flex;
  justify-content: space-between;
  gap: 8px;
  width: 100%;
  border: 0;
  border-bottom: 1px solid var(--rule);
  background: none;
  padding: 5px 4px;
  cursor: pointer;
  text-align: left;
}
.subs b {
  font-weight: 500;
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
}
.note {
  margin: 0;
}
</style>
