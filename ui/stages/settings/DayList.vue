<script setup lang="ts">
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
    say(`Day ${one.number} is corrected. Ctrl Z takes it back.`)
  makeStale('settings')
}
async function add(): Promise<void> {
  const made = await attempt(() => settingsApi.addDay(production.value.ulid, fresh.value))
  if (made === undefined) return
  say(`Day ${made.number} is added. Ctrl Z takes it back.`)
  fresh.value.date = ''
  makeStale('settings')
}
async function remove(one: Day): Promise<void> {
  if ((await attempt(() => settingsApi.removeDay(production.value.ulid, one.ulid))) === undefined) return
  say(`Day ${one.number} is removed. Ctrl Z takes it back.`)
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
    A night shoot belongs to the day that began before it. Cards find their day by the dates of their clips, so a wrong
    date here makes them strangers.
  </p>
  <table class="list">
    <thead>
      <tr>
        <th>Number</th>
        <th>Date</th>
        <th>Unit</th>
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
            :aria-label="`Number of day ${one.number}`"
            @change="change(one, { number: Number(value($event)) })"
          />
        </td>
        <td>
          <input
            class="field"
            type="date"
            :value="one.date"
            :disabled="!production.may.work"
            :aria-label="`Date of day ${one.number}`"
            @change="change(one, { date: value($event) })"
          />
        </td>
        <td>
          <input
            class="field"
            maxlength="60"
            :value="one.unit"
            :disabled="!production.may.work"
            :aria-label="`Unit of day ${one.number}`"
            @change="change(one, { unit: value($event) })"
          />
        </td>
        <td class="act">
          <button
            v-if="production.may.work && production.days.length > 1"
            class="plain"
            title="Only a day that nothing belongs to"
            @click="remove(one)"
          >
            Remove
          </button>
        </td>
      </tr>
    </tbody>
  </table>
  <form v-if="production.may.work" class="add" @submit.prevent="add">
    <label>Date<input v-model="fresh.date" class="field" type="date" required /></label>
    <label>Unit<input v-model="fresh.unit" class="field" maxlength="60" required /></label>
    <button class="go" type="submit">Add the day</button>
  </form>
</template>

<style scoped src="./list.css"></style>
