<script setup lang="ts">
import { t } from '@/words'
import { locale } from '@/words/language'
import { settings as settingsApi } from '@/api/endpoints/settings'
import { useAnswer } from '@/api/queries'
import type { AuditRow } from '@/api/types'
import AnswerState from '@/shell/AnswerState.vue'
import { useDesk } from '@/shell/desk'

const WHAT: Record<string, string> = {
  signed_in: t('settings.AuditList.signedIn'),
  signed_out: t('settings.AuditList.signedOut'),
  sign_in_refused: t('settings.AuditList.wasRefused'),
  password_changed: t('settings.AuditList.changedTheirPassword'),
  password_reset: t('settings.AuditList.gaveANewPassword'),
  second_factor_on: t('settings.AuditList.setUpASecondFactor'),
  second_factor_off: t('settings.AuditList.turnedASecondFactorOff'),
  session_ended: t('settings.AuditList.endedSessions'),
  person_added: t('settings.AuditList.addedSomebody'),
  role_changed: t('settings.AuditList.changedARole'),
  membership_ended: t('settings.AuditList.endedAMembership'),
  setting_changed: t('settings.AuditList.changedASetting'),
  'card.released': t('settings.AuditList.releasedACard'),
  'handoff.delivered': t('settings.AuditList.deliveredAHandOff'),
  'token.made': t('settings.AuditList.madeATokenForA'),
  'token.revoked': t('settings.AuditList.revokedAToken'),
  'hook.made': t('settings.AuditList.addedAWebHook'),
  'hook.removed': t('settings.AuditList.removedAWebHook'),
  'link.made': t('settings.AuditList.madeALinkToWatch'),
  'link.ended': t('settings.AuditList.endedALink'),
  'handoff.answered': t('settings.AuditList.answeredAHandOff'),
}
const { production } = useDesk()
const { data, isPending, error, refetch } = useAnswer(() => settingsApi.audit(production.value.ulid))
const when = (iso: string) =>
  new Date(iso).toLocaleString(locale, {
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
    {{ t('settings.AuditList.signInsRefusalsRolesSettings') }}
  </p>
  <AnswerState :pending="isPending" :error="error" :rows="8" @retry="refetch()">
    <p v-if="data?.rows.length === 0" class="empty">
      <b>{{ t('settings.AuditList.nothingIsWrittenDownYet') }}</b>
    </p>
    <table v-else-if="data" class="list">
      <thead>
        <tr>
          <th>{{ t('settings.AuditList.when') }}</th>
          <th>{{ t('settings.AuditList.who') }}</th>
          <th>{{ t('settings.AuditList.what') }}</th>
          <th />
          <th>{{ t('settings.AuditList.from') }}</th>
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
