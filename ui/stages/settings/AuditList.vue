<script setup lang="ts">
import { settings as settingsApi } from '@/api/endpoints/settings'
import { useAnswer } from '@/api/queries'
import type { AuditRow } from '@/api/types'
import AnswerState from '@/shell/AnswerState.vue'
import { useDesk } from '@/shell/desk'

const WHAT: Record<string, string> = {
  signed_in: 'signed in',
  signed_out: 'signed out',
  sign_in_refused: 'was refused',
  password_changed: 'changed their password',
  password_reset: 'gave a new password',
  second_factor_on: 'set up a second factor',
  second_factor_off: 'turned a second factor off',
  session_ended: 'ended sessions',
  person_added: 'added somebody',
  role_changed: 'changed a role',
  membership_ended: 'ended a membership',
  setting_changed: 'changed a setting',
  'card.released': 'released a card',
  'handoff.delivered': 'delivered a hand-off',
  'token.made': 'made a token for a program',
  'token.revoked': 'revoked a token',
  'hook.made': 'added a web hook',
  'hook.removed': 'removed a web hook',
  'handoff.answered': 'answered a hand-off',
}
const { production } = useDesk()
const { data, isPending, error, refetch } = useAnswer(() => settingsApi.audit(production.value.ulid))
const when = (iso: string) =>
  new Date(iso).toLocaleString('en-GB', {
    day: 'numeric',
    month: 'short',
    hour: '2-digit',
    minute: '2-digit',
    second: '2-digit',
  })
const facts = (row: AuditRow) =>
  Object.entries(row.facts)
    .filter(([, value]) => value !== null && value !== false)
    .map(([key, value]) => `${key.replaceAll('_', ' ')}${value === true ? '' : `: ${String(value)}`}`)
    .join(' · ')
</script>

<template>
  <p class="intro">
    Sign-ins, refusals, roles, settings, releases and hand-offs, newest first. Nothing here can be changed or removed.
  </p>
  <AnswerState :pending="isPending" :error="error" :rows="8" @retry="refetch()">
    <p v-if="data?.rows.length === 0" class="empty"><b>Nothing is written down yet.</b></p>
    <table v-else-if="data" class="list">
      <thead>
        <tr>
          <th>When</th>
          <th>Who</th>
          <th>What</th>
          <th />
          <th>From</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(row, index) in data.rows" :key="index">
          <td class="state soft">{{ when(row.at) }}</td>
          <td class="mono">{{ row.who }}</td>
          <td :class="{ fault: row.what === 'sign_in_refused' }">{{ WHAT[row.what] ?? row.what }}</td>
          <td class="soft">{{ facts(row) }}</td>
          <td class="mono soft">{{ row.address }}</td>
        </tr>
      </tbody>
    </table>
  </AnswerState>
</template>

<style scoped src="./list.css"></style>
