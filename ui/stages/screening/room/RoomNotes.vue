<script setup lang="ts">
import { t } from '@/words'
import { computed, nextTick, ref } from 'vue'
import { screening } from '@/api/endpoints/screening'
import { makeStale } from '@/api/queries'
import type { ReelAngle, ReelItem, ReelNote } from '@/api/types'
import DeviceBadge from '@/shell/DeviceBadge.vue'
import { attempt } from '@/shell/say'
import { whoSaid } from '@/shell/said'
import TakeNumber from '@/shell/TakeNumber.vue'
import type { RoomView } from './view'

/** What is known of the take that plays and what is said of it; the note that is being written. */
const props = defineProps<{
  production: string
  item: ReelItem
  angle: ReelAngle
  view: RoomView
  /** Where the note that is written begins, as a label; null while none is. */
  writes: { at: string; to: string | null } | null
  mayReview: boolean
}>()
const emit = defineEmits<{
  write: [text: string]
  begin: []
  cancel: []
  go: [note: ReelNote]
  place: [clip: string, ticks: number]
  turn: [angle: number]
  stars: [stars: number | null]
}>()
const box = ref<HTMLInputElement | null>(null)
const text = ref('')
const mine = computed(() => props.item.take.ratings.find((one) => one.mine)?.stars ?? 0)
const others = computed(() => props.item.take.ratings.filter((one) => !one.mine))
const placeholder = computed(() => {
  const now = props.writes
  if (now === null) return t('screening.room.RoomNotes.noteAtThisFrame')
  return now.to === null
    ? t('screening.room.RoomNotes.noteAt', [now.at])
    : t('screening.room.RoomNotes.noteFromTo', [now.at, now.to])
})
function keep(): void {
  const words = text.value.trim()
  text.value = ''
  box.value?.blur()
  if (words === '') emit('cancel')
  else emit('write', words)
}
function leave(): void {
  text.value = ''
  box.value?.blur()
  emit('cancel')
}

/** A note of one's own that is being written anew. */
const opened = ref<{ ulid: string; text: string } | null>(null)
async function change(note: ReelNote): Promise<void> {
  opened.value = { ulid: note.ulid, text: note.text }
  await nextTick()
  document.querySelector<HTMLInputElement>('.notes .again')?.focus()
}
async function store(): Promise<void> {
  const now = opened.value
  opened.value = null
  if (now === null || now.text.trim() === '') return
  await attempt(() => screening.changeNote(props.production, props.item.take.ulid, now.ulid, now.text.trim()))
  makeStale('notes', { take: props.item.take.ulid })
}
async function remove(note: ReelNote): Promise<void> {
  await attempt(() => screening.removeNote(props.production, props.item.take.ulid, note.ulid))
  makeStale('notes', { take: props.item.take.ulid })
}
defineExpose({ focus: () => box.value?.focus(), isWriting: () => document.activeElement === box.value })
</script>

<template>
  <div class="about">
    <h1 class="mono">
      {{ item.take.setup }} /
      <span class="number"
        ><TakeNumber :take="item.take.take" :part="item.take.part" :status="item.take.status" dark
      /></span>
    </h1>
    <p v-if="item.take.description || item.take.size" class="soft">
      {{ [item.take.description, item.take.size].filter((one) => one !== '').join('. ') }}
    </p>
    <div class="stars" role="group" :aria-label="t('screening.room.RoomNotes.yourStars')">
      <button
        v-for="n in 5"
        :key="n"
        class="star"
        :class="{ on: n <= mine }"
        :disabled="!mayReview"
        :title="
          n === mine ? t('screening.room.RoomNotes.takeYourStarsAwayR') : t('screening.room.RoomNotes.of5R', [n, n])
        "
        :aria-label="t('screening.room.RoomNotes.of5', [n])"
        @click="emit('stars', n === mine ? null : n)"
      >
        ★
      </button>
      <span v-for="one in others" :key="one.by" class="soft">{{ one.by }} {{ one.stars }}/5</span>
    </div>
    <form @submit.prevent="keep">
      <input
        ref="box"
        v-model="text"
        class="say"
        :placeholder="placeholder"
        :aria-label="placeholder"
        :disabled="!mayReview"
        maxlength="1000"
        @focus="writes ?? emit('begin')"
        @keydown.esc.stop="leave"
      />
    </form>
    <ul class="notes">
      <li v-for="one in item.notes" :key="one.ulid">
        <form v-if="opened?.ulid === one.ulid" @submit.prevent="store">
          <input
            v-model="opened.text"
            class="say again"
            :aria-label="t('screening.room.RoomNotes.theNote')"
            maxlength="1000"
            @blur="store"
            @keydown.esc.stop="opened = null"
          />
        </form>
        <template v-else>
          <button
            class="place"
            :title="one.clip ? t('screening.room.RoomNotes.goToTheFrame') : ''"
            @click="emit('go', one)"
          >
            <small class="mono">{{ one.timecode ?? '' }}{{ one.out_ticks === null ? '' : ' –' }} · {{ one.by }}</small
            ><span>{{ one.text }}</span>
          </button>
          <span v-if="one.mine" class="acts"
            ><button class="act" @click="change(one)">{{ t('screening.room.RoomNotes.change') }}</button
            ><button class="act" @click="remove(one)">{{ t('screening.room.RoomNotes.remove') }}</button></span
          >
        </template>
      </li>
      <li v-for="one in item.take.said" :key="one.by + one.place" class="came">
        <small class="mono">{{ whoSaid(one.by, one.place) }}</small><span>{{ one.text }}</span>
      </li>
      <li v-if="item.take.log_note" class="came">
        <small class="mono">{{ t('screening.room.RoomNotes.theLog') }}</small><span>{{ item.take.log_note }}</span>
      </li>
    </ul>
    <div v-if="item.markers.length > 0" class="angles">
      <span class="soft">{{ t('screening.room.RoomNotes.markers') }}</span>
      <button
        v-for="(one, index) in item.markers"
        :key="one.ulid"
        class="plain"
        :title="t('screening.room.RoomNotes.goToTheMarker')"
        @click="emit('place', one.clip, one.in_ticks)"
      >
        <i class="flag" />{{ one.name || index + 1 }}
      </button>
    </div>
    <div v-if="item.angles.length > 1" class="angles">
      <span class="soft">{{ t('screening.room.RoomNotes.angles') }}</span>
      <button
        v-for="(one, index) in item.angles"
        :key="one.clip"
        class="plain"
        :class="{ on: one.clip === angle.clip }"
        @click="emit('turn', index)"
      >
        <DeviceBadge :letter="one.device" /> {{ one.device_note || one.name }} <kbd>{{ index + 1 }}</kbd>
      </button>
      <span class="soft"
        ><kbd>0</kbd>
        {{ view.mode === 'all' ? t('screening.room.RoomNotes.one') : t('screening.room.RoomNotes.allAtOnce') }}</span
      >
    </div>
  </div>
</template>

<style scoped>
.about {
  display: grid;
  gap: 10px;
  align-content: start;
}
h1 {
  font-size: 28px;
  font-weight: 600;
  margin: 0;
  display: flex;
  align-items: center;
  gap: 8px;
}
.number {
  transform: scale(1.5);
  margin-left: 10px;
  font-size: 17px;
}
p {
  margin: 0;
}
.stars {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 2px 6px;
  font-size: 12px;
}
.star {
  border: 0;
  background: none;
  padding: 0 1px;
  font-size: 16px;
  line-height: 1;
  color: #4a545b;
  cursor: pointer;
}
.star.on {
  color: #d9a441;
}
.say {
  width: 100%;
  background: var(--dark);
  color: var(--on-dark);
  border: 1px solid #5b666d;
  border-radius: 5px;
  padding: 8px 10px;
  font: inherit;
}
.notes {
  list-style: none;
  margin: 0;
  padding: 0;
}
.notes li {
  border-top: 1px solid var(--dark-rule);
  padding: 9px 0;
  display: grid;
  gap: 2px;
}
.place {
  display: grid;
  gap: 2px;
  width: 100%;
  text-align: left;
  background: none;
  border: 0;
  padding: 0;
  cursor: pointer;
  color: var(--on-dark);
  overflow-wrap: anywhere;
}
.came span {
  overflow-wrap: anywhere;
}
.notes small {
  color: var(--on-dark-soft);
  font-size: 11px;
}
.acts {
  display: flex;
  gap: 10px;
}
.act {
  border: 0;
  background: none;
  padding: 0;
  color: var(--on-dark-soft);
  font-size: 11px;
  cursor: pointer;
  text-decoration: underline;
}
.angles {
  display: flex;
  gap: 6px;
  flex-wrap: wrap;
  align-items: center;
}
.flag {
  width: 7px;
  height: 7px;
  border-radius: 1px;
  background: #d9a441;
}
.plain {
  background: var(--dark);
  color: var(--on-dark);
  border-color: #4a545b;
  display: inline-flex;
  gap: 6px;
  align-items: center;
}
.plain.on {
  border-color: #6dbfa6;
  color: #8fd6c0;
}
kbd {
  background: transparent;
  color: var(--on-dark-soft);
  border-color: #4a545b;
}
</style>
