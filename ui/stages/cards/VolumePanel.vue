<script setup lang="ts">
import { deskSays } from '@/words/desk'
import { counted, t, valueWord } from '@/words'
import { cards as cardsApi } from '@/api/endpoints/cards'
import { settings as settingsApi } from '@/api/endpoints/settings'
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue'
import { makeStale, useAnswer } from '@/api/queries'
import type { DeviceKind, Store } from '@/api/types'
import { bytes } from '@/words/amounts'
import { useDesk } from '@/shell/desk'
import { attempt } from '@/shell/say'
import { offloadLabel } from './tile'

/** A volume in a reader: as what it would come in, where it would land, and what is on it. */
const props = defineProps<{ name: string; stores: Store[] }>()
const emit = defineEmits<{
  offload: [roll: string, device: string, compare: boolean]
  day: [number: number]
  place: []
  claim: [ours: boolean]
}>()
const { production, day } = useDesk()
const roll = defineModel<string>('roll', { required: true })
const device = defineModel<string>('device', { required: true })
const { data: volume, error } = useAnswer(() =>
  production.value.may.work ? cardsApi.volume(production.value.ulid, day.value.ulid, props.name) : null,
)
watch(
  [() => volume.value?.name, () => volume.value?.state],
  () => {
    roll.value = volume.value?.roll ?? ''
    device.value = volume.value?.device ?? ''
  },
  { immediate: true },
)
const isKnown = computed(() => volume.value?.state === 'seen' || volume.value?.state === 'grown')
const otherDay = computed(() =>
  volume.value?.day !== null && volume.value?.day !== day.value.number ? (volume.value?.day ?? null) : null,
)
const { data: place } = useAnswer(() => {
  if (volume.value === undefined || roll.value === '') return null
  const query = new URLSearchParams({
    roll: roll.value,
    ...(device.value === '' ? {} : { device: device.value }),
  })
  return cardsApi.place(production.value.ulid, day.value.ulid, query.toString())
})
const allProblems = ref(false)
const problems = computed(() =>
  allProblems.value ? (volume.value?.problems ?? []) : (volume.value?.problems ?? []).slice(0, 4),
)
const first = (text: string) => text.charAt(0).toUpperCase() + text.slice(1)
const devices = computed(() => production.value.devices.filter((one) => !one.is_retired))
/** A device that is not in the list yet, made here so that the card need not wait. */
const fresh = ref<{ letter: string; kind: DeviceKind } | null>(null)
const letterBox = useTemplateRef<HTMLInputElement>('letterBox')
watch(letterBox, (box) => box?.focus())
async function make(): Promise<void> {
  if (fresh.value === null) return
  const made = await attempt(() =>
    settingsApi.addDevice(production.value.ulid, { letter: fresh.value?.letter.trim(), kind: fresh.value?.kind }),
  )
  if (made === undefined) return
  fresh.value = null
  makeStale('settings')
  await nextTick()
  device.value = made.letter
}
function pick(event: Event): void {
  const chosen = (event.target as HTMLSelectElement).value
  if (chosen === '+') fresh.value = { letter: '', kind: 'camera' }
  else device.value = chosen
}
const away = computed(() => props.stores.filter((store) => store.free_bytes === null))
const small = computed(() =>
  props.stores.filter((store) => store.free_bytes !== null && store.free_bytes < (volume.value?.size_bytes ?? 0)),
)
</script>

<template>
  <h2>
    <span class="mono">{{ name }}</span>{{ t('cards.VolumePanel.inAReader') }}
  </h2>
  <p v-if="!production.may.work" class="soft">{{ t('cards.VolumePanel.assistantsOffloadCards') }}</p>
  <p v-else-if="error" class="note fault">{{ error.message }} {{ error.fix }}</p>
  <template v-else-if="volume && volume.name === name">
    <form class="as" @submit.prevent="emit('offload', roll, device, volume.state === 'seen')">
      <p v-if="volume.state === 'seen'" class="note">
        {{ t('cards.VolumePanel.everyFileOnItIs', [volume.known_roll]) }}
      </p>
      <p v-else-if="volume.state === 'grown'" class="note">
        {{
          t('cards.VolumePanel.filesAreKnownFromAre', [
            counted(volume.known_files, 'file'),
            volume.known_roll,
            volume.new_files,
          ])
        }}
      </p>
      <p v-else-if="volume.state === 'reused'" class="note">
        {{ t('cards.VolumePanel.thisCardWasBeforeAnd', [volume.known_roll]) }}
      </p>
      <label
        >{{ t('cards.VolumePanel.roll')
        }}<input v-model="roll" class="field mono" required maxlength="60" :disabled="isKnown"
      /></label>
      <label
        >{{ t('cards.VolumePanel.device') }}
        <select
          :value="fresh ? '+' : device"
          class="field"
          :class="{ asked: volume.ask !== null && device === '' }"
          :disabled="isKnown"
          @change="pick"
        >
          <option value="">{{ t('cards.VolumePanel.noneAFolderOfImports') }}</option>
          <option v-for="one in devices" :key="one.letter" :value="one.letter">{{ one.letter }} {{ one.note }}</option>
          <option value="+">{{ t('cards.VolumePanel.anotherDevice') }}</option>
        </select>
      </label>
      <div v-if="fresh" class="fresh">
        <label
          >{{ t('cards.VolumePanel.letterOrWord')
          }}<input
            v-model="fresh.letter"
            class="field mono"
            maxlength="12"
            ref="letterBox"
            @keydown.enter.prevent="make"
        /></label>
        <label
          >{{ t('cards.VolumePanel.whatItIs')
          }}<select v-model="fresh.kind" class="field">
            <option value="camera">{{ t('cards.VolumePanel.camera') }}</option>
            <option value="recorder">{{ t('cards.VolumePanel.soundRecorder') }}</option>
            <option value="phone">{{ t('cards.VolumePanel.phone') }}</option>
            <option value="other">{{ t('cards.VolumePanel.other') }}</option>
          </select></label
        >
        <button type="button" class="plain" :disabled="fresh.letter.trim() === ''" @click="make">
          {{ t('cards.VolumePanel.addIt') }}
        </button>
      </div>
      <p v-if="volume.ask" class="note warn">
        {{ deskSays(volume.ask) }} <i>{{ t('cards.VolumePanel.offloadAll') }}</i>
        {{
          t('cards.VolumePanel.leavesThisCardAlone', [
            volume.device === null ? t('cards.VolumePanel.sayHereWhatItIs') : t('cards.VolumePanel.ifItIsOneOf'),
          ])
        }}
      </p>
      <p class="soft">
        {{ first(deskSays(volume.why)) }}.<template v-if="volume.is_ours && volume.ours_why">
          {{ ' ' }}{{ t('cards.VolumePanel.aCardOfThisProduction', [deskSays(volume.ours_why)]) }}
          <button
            type="button"
            class="link"
            :title="t('cards.VolumePanel.othersSeeItAgain')"
            @click="emit('claim', false)"
          >
            {{ t('cards.VolumePanel.notOurs') }}
          </button></template
        ><template v-else-if="!volume.is_ours">
          {{ ' ' }}{{ t('cards.VolumePanel.nobodyHasClaimedIt') }}
          <button
            type="button"
            class="link"
            :title="t('cards.VolumePanel.othersNoLongerSeeIt')"
            @click="emit('claim', true)"
          >
            {{ t('cards.VolumePanel.itIsOurs') }}
          </button></template
        >
      </p>
      <div class="lands">
        <span class="soft">{{ t('cards.VolumePanel.landsIn') }}</span><span class="mono path">{{ place?.path }}</span
        ><button type="button" class="plain" :title="t('cards.VolumePanel.whereCardsLandW')" @click="emit('place')">
          {{ t('cards.VolumePanel.change') }}
        </button>
      </div>
      <p v-if="away.length > 0" class="note fault">
        {{
          t('cards.VolumePanel.notThereConnectOrThe', [
            away.map((store) => store.name).join(t('cards.VolumePanel.and')),
            away.length === 1 ? t('cards.VolumePanel.is') : t('cards.VolumePanel.are'),
            away.length === 1 ? t('cards.VolumePanel.it') : t('cards.VolumePanel.them'),
            stores.length - away.length === 1 ? t('cards.VolumePanel.oneCopy') : t('cards.VolumePanel.noCopy'),
          ])
        }}
      </p>
      <p v-if="small.length > 0" class="note fault">
        {{
          t('cards.VolumePanel.theCardHolds', [
            small.map((store) => t('cards.VolumePanel.hasFree', [store.name, bytes(store.free_bytes ?? 0)])).join(', '),
            bytes(volume.size_bytes),
          ])
        }}
      </p>
      <div v-if="otherDay !== null" class="note warn">
        {{ t('cards.VolumePanel.itsClipsAreDatedWhich', [volume.date, otherDay, day.number]) }}<br /><button
          type="button"
          class="go to-day"
          @click="emit('day', otherDay)"
        >
          {{ t('cards.VolumePanel.goToDay', [otherDay]) }}
        </button>
      </div>
      <div v-if="volume.problems.length > 0" class="note warn">
        <div v-for="problem in problems" :key="problem" class="problem">{{ deskSays(problem) }}</div>
        <button
          v-if="volume.problems.length > 4 && !allProblems"
          type="button"
          class="plain to-day"
          @click="allProblems = true"
        >
          {{ t('cards.VolumePanel.all', [volume.problem_count]) }}
        </button>
      </div>
      <button class="big" :class="otherDay !== null || volume.state === 'seen' ? 'plain' : 'go'" type="submit">
        {{
          volume.state === 'new' || volume.state === 'reused'
            ? t('cards.VolumePanel.offloadAs', [roll || volume.name])
            : offloadLabel(volume)
        }}
        <kbd>↵</kbd>
      </button>
    </form>
    <p class="soft figures">
      {{ t('cards.VolumePanel.files', [counted(volume.files, 'file'), bytes(volume.size_bytes)]) }}
      <template v-if="volume.first"> {{ ' ' }}{{ t('cards.VolumePanel.first', [volume.first.name]) }}</template>
      <template v-if="volume.first && volume.last">
        {{ ' ' }}{{ t('cards.VolumePanel.last', [volume.last.name]) }}</template
      >
    </p>
    <table class="list files">
      <tbody>
        <tr v-for="file in volume.list" :key="file.path">
          <td class="mono name" :title="file.path">{{ file.path.split('/').at(-1) }}</td>
          <td class="soft">
            {{
              isKnown
                ? file.is_new
                  ? t('cards.VolumePanel.new')
                  : t('cards.VolumePanel.known')
                : file.kind === null
                  ? t('cards.VolumePanel.other')
                  : valueWord(file.kind)
            }}
          </td>
          <td class="mono num">{{ bytes(file.size_bytes) }}</td>
        </tr>
      </tbody>
    </table>
    <p v-if="volume.files > volume.list.length" class="soft">
      {{ t('cards.VolumePanel.andMore', [volume.files - volume.list.length]) }}
    </p>
  </template>
  <div v-else class="bones"><i v-for="n in 5" :key="n" /></div>
</template>

<style scoped>
.as {
  display: grid;
  gap: 9px;
}
.as label {
  display: grid;
  gap: 2px;
  font-weight: 500;
}
.as p {
  margin: 0;
  font-size: 12px;
}
.note {
  margin: 0;
  overflow-wrap: anywhere;
  font-size: 12px;
}
p.note:not(.fault):not(.warn) {
  border-color: var(--rule-strong);
  background: #fff;
}
.fresh {
  display: grid;
  grid-template-columns: 1fr 1fr auto;
  gap: 6px;
  align-items: end;
  padding: 8px 10px;
  background: #fff;
  border: 1px solid var(--rule);
  border-radius: 5px;
}
.asked {
  border-color: var(--warn-edge);
}
.link {
  border: 0;
  background: none;
  padding: 0;
  color: var(--act);
  cursor: pointer;
  text-decoration: underline;
  text-underline-offset: 2px;
}
.lands {
  display: flex;
  gap: 6px;
  align-items: center;
  font-size: 12px;
  flex-wrap: wrap;
}
.path {
  overflow-wrap: anywhere;
  flex: 1;
  min-width: 120px;
}
.field {
  height: 30px;
}
.big {
  height: 40px;
  font-size: 14px;
}
.problem + .problem {
  margin-top: 3px;
}
.to-day {
  margin-top: 7px;
}
.figures {
  margin: 0;
  font-size: 12px;
  overflow-wrap: anywhere;
}
.files {
  font-size: 12px;
  table-layout: fixed;
}
.files td {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.files td:nth-child(2) {
  width: 62px;
}
.files td:nth-child(3) {
  width: 74px;
}
.num {
  text-align: right;
}
</style>
