<script setup lang="ts">
import { t } from '@/words'
import { settings as settingsApi } from '@/api/endpoints/settings'
import { ref } from 'vue'
import { makeStale, useAnswer } from '@/api/queries'
import type { Device, DeviceKind } from '@/api/types'
import AnswerState from '@/shell/AnswerState.vue'
import { useDesk } from '@/shell/desk'
import { TONES } from '@/shell/device'
import DeviceBadge from '@/shell/DeviceBadge.vue'
import { attempt, say } from '@/shell/say'

const KINDS: Record<DeviceKind, string> = {
  camera: t('settings.DeviceList.camera'),
  recorder: t('settings.DeviceList.soundRecorder'),
  phone: t('settings.DeviceList.phone'),
  other: t('settings.DeviceList.other'),
}
const { production } = useDesk()
const { data, isPending, error, refetch } = useAnswer(() => settingsApi.devices(production.value.ulid))
const fresh = ref<{ letter: string; kind: DeviceKind; note: string }>({ letter: '', kind: 'camera', note: '' })

async function change(
  device: Device,
  values: Partial<Record<'letter' | 'kind' | 'note' | 'colour' | 'retired', unknown>>,
  what: string,
): Promise<void> {
  if ((await attempt(() => settingsApi.changeDevice(production.value.ulid, device.ulid, values))) !== undefined)
    say(t('settings.DeviceList.ctrlZTakesItBack', [what]))
  makeStale('settings')
}
async function add(): Promise<void> {
  const made = await attempt(() =>
    settingsApi.addDevice(production.value.ulid, { ...fresh.value, letter: fresh.value.letter.trim() }),
  )
  if (made === undefined) return
  say(t('settings.DeviceList.isAddedCtrlZTakes', [made.letter]))
  fresh.value = { letter: '', kind: 'camera', note: '' }
  makeStale('settings')
}
const value = (event: Event) => (event.target as HTMLInputElement | HTMLSelectElement).value.trim()
</script>

<template>
  <p class="intro">
    {{ t('settings.DeviceList.theCamerasAndRecordersOf') }}
  </p>
  <AnswerState :pending="isPending" :error="error" :rows="5" @retry="refetch()">
    <table v-if="data" class="list">
      <thead>
        <tr>
          <th>{{ t('settings.DeviceList.device') }}</th>
          <th>{{ t('settings.DeviceList.letterOrWord') }}</th>
          <th>{{ t('settings.DeviceList.whatItIs') }}</th>
          <th>{{ t('settings.DeviceList.note') }}</th>
          <th>{{ t('settings.DeviceList.colour') }}</th>
          <th>{{ t('settings.DeviceList.clips') }}</th>
          <th />
        </tr>
      </thead>
      <tbody>
        <tr v-for="one in data.devices" :key="one.ulid" :class="{ past: one.is_retired }">
          <td><DeviceBadge :letter="one.letter" /></td>
          <td>
            <input
              class="field mono"
              :value="one.letter"
              maxlength="12"
              size="8"
              :disabled="!production.may.work"
              :aria-label="t('settings.DeviceList.letterOf', [one.letter])"
              @change="
                change(one, { letter: value($event) }, t('settings.DeviceList.isNow', [one.letter, value($event)]))
              "
            />
          </td>
          <td>
            <select
              class="field"
              :value="one.kind"
              :disabled="!production.may.work"
              :aria-label="t('settings.DeviceList.whatIs', [one.letter])"
              @change="change(one, { kind: value($event) }, t('settings.DeviceList.isA', [one.letter, value($event)]))"
            >
              <option v-for="(title, kind) in KINDS" :key="kind" :value="kind">{{ title }}</option>
            </select>
          </td>
          <td>
            <input
              class="field"
              :value="one.note"
              maxlength="60"
              :disabled="!production.may.work"
              :aria-label="t('settings.DeviceList.noteOn', [one.letter])"
              @change="change(one, { note: value($event) }, t('settings.DeviceList.kept'))"
            />
          </td>
          <td>
            <select
              class="field"
              :value="one.colour ?? ''"
              :disabled="!production.may.work"
              :aria-label="t('settings.DeviceList.colourOf', [one.letter])"
              @change="
                change(
                  one,
                  { colour: value($event) === '' ? null : Number(value($event)) },
                  t('settings.DeviceList.kept'),
                )
              "
            >
              <option value="">{{ t('settings.DeviceList.byItsLetter') }}</option>
              <option v-for="(tone, index) in TONES" :key="tone" :value="index">
                {{ t('settings.DeviceList.like', [tone]) }}
              </option>
            </select>
          </td>
          <td class="mono">{{ one.clips }}</td>
          <td class="act">
            <button
              v-if="production.may.work"
              class="plain"
              @click="
                change(
                  one,
                  { retired: !one.is_retired },
                  one.is_retired
                    ? t('settings.DeviceList.isBack', [one.letter])
                    : t('settings.DeviceList.isRetired', [one.letter]),
                )
              "
            >
              {{ one.is_retired ? t('settings.DeviceList.bringBack') : t('settings.DeviceList.retire') }}
            </button>
          </td>
        </tr>
      </tbody>
    </table>
    <form v-if="production.may.work" class="add" @submit.prevent="add">
      <label
        >{{ t('settings.DeviceList.letterOrWord')
        }}<input v-model="fresh.letter" class="field mono" required maxlength="12" size="10" placeholder="D"
      /></label>
      <label
        >{{ t('settings.DeviceList.whatItIs')
        }}<select v-model="fresh.kind" class="field">
          <option v-for="(title, kind) in KINDS" :key="kind" :value="kind">{{ title }}</option>
        </select></label
      >
      <label
        >{{ t('settings.DeviceList.note')
        }}<input
          v-model="fresh.note"
          class="field"
          maxlength="60"
          :placeholder="t('settings.DeviceList.droneSecondUnit')"
      /></label>
      <button class="go" type="submit">{{ t('settings.DeviceList.addTheDevice') }}</button>
    </form>
  </AnswerState>
</template>

<style scoped src="./list.css"></style>
