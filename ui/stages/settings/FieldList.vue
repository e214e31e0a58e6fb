<script setup lang="ts">
import { settings as settingsApi } from '@/api/endpoints/settings'
import { ref } from 'vue'
import { makeStale, useAnswer } from '@/api/queries'
import type { OwnField } from '@/api/types'
import AnswerState from '@/shell/AnswerState.vue'
import { useDesk } from '@/shell/desk'
import { attempt, say } from '@/shell/say'

/** What this production wants to know of its takes beside what every production does. */
const TYPES: Record<OwnField['type'], string> = {
  text: 'text',
  number: 'a number',
  choice: 'one of a list',
  yes_no: 'yes or no',
}
const { production } = useDesk()
const { data, isPending, error, refetch } = useAnswer(() => settingsApi.fields(production.value.ulid))
const fresh = ref<{ label: string; type: OwnField['type']; choices: string }>({ label: '', type: 'text', choices: '' })
const listOf = (text: string) =>
  text
    .split(',')
    .map((one) => one.trim())
    .filter((one) => one !== '')

async function change(field: OwnField, values: Record<string, unknown>, what: string): Promise<void> {
  if ((await attempt(() => settingsApi.changeField(production.value.ulid, field.ulid, values))) !== undefined)
    say(`${what} Ctrl Z takes it back.`)
  makeStale('settings')
}
async function add(): Promise<void> {
  const { label, type, choices } = fresh.value
  const made = await attempt(() =>
    settingsApi.addField(production.value.ulid, {
      label: label.trim(),
      type,
      ...(type === 'choice' ? { choices: listOf(choices) } : {}),
    }),
  )
  if (made === undefined) return
  say(`${made.label} is a column of the slate sheet now. Ctrl Z takes it back.`)
  fresh.value = { label: '', type: 'text', choices: '' }
  makeStale('settings')
}
const value = (event: Event) => (event.target as HTMLInputElement).value.trim()
</script>

<template>
  <p class="intro">
    Fields of your own for every take: a column of the slate sheet, found in script notes by its name, searched, usable
    in name patterns, and handed on in lists and metadata. Values stay when a field is retired.
  </p>
  <AnswerState :pending="isPending" :error="error" :rows="3" @retry="refetch()">
    <table v-if="data && data.fields.length > 0" class="list">
      <thead>
        <tr>
          <th>Field</th>
          <th>What it holds</th>
          <th>To choose from</th>
          <th>In name patterns</th>
          <th />
        </tr>
      </thead>
      <tbody>
        <tr v-for="one in data.fields" :key="one.ulid" :class="{ past: one.is_retired }">
          <td>
            <input
              class="field"
              :value="one.label"
              maxlength="40"
              :disabled="!production.may.work"
              :aria-label="`Name of ${one.label}`"
              @change="change(one, { label: value($event) }, `It is called ${value($event)} now.`)"
            />
          </td>
          <td>{{ TYPES[one.type] }}</td>
          <td>
            <input
              v-if="one.type === 'choice'"
              class="field"
              :value="one.choices.join(', ')"
              :disabled="!production.may.work"
              :aria-label="`Choices of ${one.label}`"
              @change="change(one, { choices: listOf(value($event)) }, 'Kept.')"
            />
          </td>
          <td class="mono soft">{{ `\{${one.name}\}` }}</td>
          <td class="act">
            <button
              v-if="production.may.work"
              class="plain"
              @click="
                change(
                  one,
                  { retired: !one.is_retired },
                  one.is_retired ? `${one.label} is back.` : `${one.label} is retired.`,
                )
              "
            >
              {{ one.is_retired ? 'Bring back' : 'Retire' }}
            </button>
          </td>
        </tr>
      </tbody>
    </table>
    <div v-else-if="data" class="empty">
      <b>No fields of your own yet.</b>Lens, lighting state, which plate it is for: what your cutting room asks about.
    </div>
    <form v-if="production.may.work" class="add" @submit.prevent="add">
      <label>Name<input v-model="fresh.label" class="field" required maxlength="40" placeholder="Lens" /></label>
      <label
        >What it holds<select v-model="fresh.type" class="field">
          <option v-for="(title, type) in TYPES" :key="type" :value="type">{{ title }}</option>
        </select></label
      >
      <label v-if="fresh.type === 'choice'"
        >To choose from<input v-model="fresh.choices" class="field" required placeholder="day, dusk, night"
      /></label>
      <button class="go" type="submit">Add the field</button>
    </form>
  </AnswerState>
</template>

<style scoped src="./list.css"></style>
