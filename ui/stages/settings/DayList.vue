<script setup lang="ts">
import { t } from '@/words'
import { settings as settingsApi } from '@/api/endpoints/settings'
import { ref } from 'vue'
import { useRouter } from 'vue-router'
import { makeStale } from '@/api/queries'
import type { Day } from '@/api/types'
import { useDesk } from '@/shell/desk'
import { attempt, say } from '@/shell/say'

const { production, day } = useDesk()
const router = useRouter()
const fresh = ref({ date: '', unit: 'Main unit' })
const value = (event: Event) => (event.target as HTMLInputElement).value.trim()

async function change(one: Day, values: Partial<Day>): Promise<void> {
  if ((await attempt(() => settingsApi.changeDay(production.value.ulid, one.ulid, values))) !== undefined)
    say(t('settings.DayList.dayIsCorrectedCtrlZ', [one.number]))
  makeStale('settings')
}
async function add(): Promise<void> {
  const made = await attempt(() => settingsApi.addDay(production.value.ulid, fresh.value))
  if (made === undefined) return
  say(t('settings.DayList.dayIsAddedCtrlZ', [made.number]))
  fresh.value.date = ''
  makeStale('settings')
}
async function remove(one: Day): Promise<void> {
  if ((await attempt(() => settingsApi.removeDay(production.value.ulid, one.ulid))) === undefined) return
  say(t('settings.DayList.dayIsRemovedCtrlZ', [one.number]))
  const other = production.value.days.find((another) => another.ulid !== one.ulid)
  if (one.ulid === day.value.ulid && other !== undefined)
    await router.replace({
      name: 'settings',
      params: { production: production.value.ulid, day: other.ulid },
      query: { tab: 'days' },
    })
  makeStale('settings')
}
</script>

<template>
  <p class="intro">
    {{ t('settings.DayList.aNightShootBelongsTo') }}
  </p>
  <table class="list">
    <thead>
      <tr>
        <th>{{ t('settings.DayList.number') }}</th>
        <th>{{ t('settings.DayList.date') }}</th>
        <th>{{ t('settings.DayList.unit') }}</th>
        <th />
      </tr>
    </thead>
    <tbody>
      <tr v-for="one in production.days" :key="one.ulid">
        <td>
          <input
            class="field mono"
            type="number"
            min="1"
            max="9999"
            :value="one.number"
            :disabled="!production.may.work"
            :aria-label="t('settings.DayList.numberOfDay', [one.number])"
            @change="change(one, { number: Number(value($event)) })"
          />
        </td>
        <td>
          <input
            class="field"
            type="date"
            :value="one.date"
            :disabled="!production.may.work"
            :aria-label="t('settings.DayList.dateOfDay', [one.number])"
            @change="change(one, { date: value($event) })"
          />
        </td>
        <td>
          <input
            class="field"
            maxlength="60"
            :value="one.unit"
            :disabled="!production.may.work"
            :aria-label="t('settings.DayList.unitOfDay', [one.number])"
            @change="change(one, { unit: value($event) })"
          />
        </td>
        <td class="act">
          <button
            v-if="production.may.work && production.days.length > 1"
            class="plain"
            :title="t('settings.DayList.onlyADayThatNothing')"
            @click="remove(one)"
          >
            {{ t('settings.DayList.remove') }}
          </button>
        </td>
      </tr>
    </tbody>
  </table>
  <form v-if="production.may.work" class="add" @submit.prevent="add">
    <label>{{ t('settings.DayList.date') }}<input v-model="fresh.date" class="field" type="date" required /></label>
    <label>{{ t('settings.DayList.unit') }}<input v-model="fresh.unit" class="field" maxlength="60" required /></label>
    <button class="go" type="submit">{{ t('settings.DayList.addTheDay') }}</button>
  </form>
</template>

<style scoped src="./list.css"></style>
