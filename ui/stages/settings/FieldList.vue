<script setup lang="ts">
import { t } from '@/words'
import { settings as settingsApi } from '@/api/endpoints/settings'
import { ref } from 'vue'
import { makeStale, useAnswer } from '@/api/queries'
import type { OwnField } from '@/api/types'
import AnswerState from '@/shell/AnswerState.vue'
import { useDesk } from '@/shell/desk'
import { attempt, say } from '@/shell/say'

/** What this production wants to know of its takes beside what every production does. */
const TYPES: Record<OwnField['type'], string> = {
  text: t('settings.FieldList.text'),
  number: t('settings.FieldList.aNumber'),
  choice: t('settings.FieldList.oneOfAList'),
  yes_no: t('settings.FieldList.yesOrNo'),
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
    say(t('settings.FieldList.ctrlZTakesItBack', [what]))
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
  say(t('settings.FieldList.isAColumnOfThe', [made.label]))
  fresh.value = { label: '', type: 'text', choices: '' }
  makeStale('settings')
}
const value = (event: Event) => (event.target as HTMLInputElement).value.trim()
</script>

<template>
  <p class="intro">
    {{ t('settings.FieldList.fieldsOfYourOwnFor') }}
  </p>
  <AnswerState :pending="isPending" :error="error" :rows="3" @retry="refetch()">
    <table v-if="data && data.fields.length > 0" class="list">
      <thead>
        <tr>
          <th>{{ t('settings.FieldList.field') }}</th>
          <th>{{ t('settings.FieldList.whatItHolds') }}</th>
          <th>{{ t('settings.FieldList.toChooseFrom') }}</th>
          <th>{{ t('settings.FieldList.inNamePatterns') }}</th>
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
              :aria-label="t('settings.FieldList.nameOf', [one.label])"
              @change="change(one, { label: value($event) }, t('settings.FieldList.itIsCalledNow', [value($event)]))"
            />
          </td>
          <td>{{ TYPES[one.type] }}</td>
          <td>
            <input
              v-if="one.type === 'choice'"
              class="field"
              :value="one.choices.join(', ')"
              :disabled="!production.may.work"
              :aria-label="t('settings.FieldList.choicesOf', [one.label])"
              @change="change(one, { choices: listOf(value($event)) }, t('settings.FieldList.kept'))"
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
                  one.is_retired
                    ? t('settings.FieldList.isBack', [one.label])
                    : t('settings.FieldList.isRetired', [one.label]),
                )
              "
            >
              {{ one.is_retired ? t('settings.FieldList.bringBack') : t('settings.FieldList.retire') }}
            </button>
          </td>
        </tr>
      </tbody>
    </table>
    <div v-else-if="data" class="empty">
      <b>{{ t('settings.FieldList.noFieldsOfYourOwn') }}</b>{{ t('settings.FieldList.lensLightingStateWhichPlate') }}
    </div>
    <form v-if="production.may.work" class="add" @submit.prevent="add">
      <label
        >{{ t('settings.FieldList.name')
        }}<input
          v-model="fresh.label"
          class="field"
          required
          maxlength="40"
          :placeholder="t('settings.FieldList.lens')"
      /></label>
      <label
        >{{ t('settings.FieldList.whatItHolds')
        }}<select v-model="fresh.type" class="field">
          <option v-for="(title, type) in TYPES" :key="type" :value="type">{{ title }}</option>
        </select></label
      >
      <label v-if="fresh.type === 'choice'"
        >{{ t('settings.FieldList.toChooseFrom')
        }}<input v-model="fresh.choices" class="field" required :placeholder="t('settings.FieldList.dayDuskNight')"
      /></label>
      <button class="go" type="submit">{{ t('settings.FieldList.addTheField') }}</button>
    </form>
  </AnswerState>
</template>

<style scoped src="./list.css"></style>
