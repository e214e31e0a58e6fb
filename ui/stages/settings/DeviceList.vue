<script setup lang="ts">
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
  camera: 'camera',
  recorder: 'sound recorder',
  phone: 'phone',
  other: 'other',
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
    say(`${what} Ctrl Z takes it back.`)
  makeStale('settings')
}
async function add(): Promise<void> {
  const made = await attempt(() =>
    settingsApi.addDevice(production.value.ulid, { ...fresh.value, letter: fresh.value.letter.trim() }),
  )
  if (made === undefined) return
  say(`${made.letter} is added. Ctrl Z takes it back.`)
  fresh.value = { letter: '', kind: 'camera', note: '' }
  makeStale('settings')
}
const value = (event: Event) => (event.target as HTMLInputElement | HTMLSelectElement).value.trim()
</script>

<template>
  <p class="intro">
    The cameras and recorders of this production. A device is the angle: a card is assigned to one, and every clip of it
    has it. Their order is the order of the lanes, which are dragged in the line-up.
  </p>
  <AnswerState :pending="isPending" :error="error" :rows="5" @retry="refetch()">
    <table v-if="data" class="list">
      <thead>
        <tr>
          <th>Device</th>
          <th>Letter or word</th>
          <th>What it is</th>
          <th>Note</th>
          <th>Colour</th>
          <th>Clips</th>
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
              :aria-label="`Letter of ${one.letter}`"
              @change="change(one, { letter: value($event) }, `${one.letter} is now ${value($event)}.`)"
            />
          </td>
          <td>
            <select
              class="field"
              :value="one.kind"
              :disabled="!production.may.work"
              :aria-label="`What ${one.letter} is`"
              @change="change(one, { kind: value($event) }, `${one.letter} is a ${value($event)}.`)"
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
              :aria-label="`Note on ${one.letter}`"
              @change="change(one, { note: value($event) }, 'Kept.')"
            />
          </td>
          <td>
            <select
              class="field"
              :value="one.colour ?? ''"
              :disabled="!production.may.work"
              :aria-label="`Colour of ${one.letter}`"
              @change="change(one, { colour: value($event) === '' ? null : Number(value($event)) }, 'Kept.')"
            >
              <option value="">by its letter</option>
              <option v-for="(tone, index) in TONES" :key="tone" :value="index">like {{ tone }}</option>
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
                  one.is_retired ? `${one.letter} is back.` : `${one.letter} is retired.`,
                )
              "
            >
              {{ one.is_retired ? 'Bring back' : 'Retire' }}
            </button>
          </td>
        </tr>
      </tbody>
    </table>
    <form v-if="production.may.work" class="add" @submit.prevent="add">
      <label
        >Letter or word<input
          v-model="fresh.letter"
          class="field mono"
          required
          maxlength="12"
          size="10"
          placeholder="D"
      /></label>
      <label
        >What it is<select v-model="fresh.kind" class="field">
          <option v-for="(title, kind) in KINDS" :key="kind" :value="kind">{{ title }}</option>
        </select></label
      >
      <label>Note<input v-model="fresh.note" class="field" maxlength="60" placeholder="drone, second unit" /></label>
      <button class="go" type="submit">Add the device</button>
    </form>
  </AnswerState>
</template>

<style scoped src="./list.css"></style>
