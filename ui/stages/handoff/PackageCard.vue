<script setup lang="ts">
import { counted, t } from '@/words'
import type { Handoff } from '@/api/types'
import { bytes } from '@/words/amounts'
import { STATES, when } from './words'

/** A package in the list of them: how it stands, and what was said of it. */
defineProps<{ one: Handoff; on: boolean }>()
defineEmits<{ open: [] }>()
</script>

<template>
  <article :class="{ on }">
    <header>
      <b>{{ t('handoff.PackageCard.no', [one.number, one.title]) }}</b><span
        class="state"
        :class="STATES[one.state].look"
        >{{ STATES[one.state].text }}</span
      >
    </header>
    <p v-if="one.summary" class="soft">
      {{ counted(one.summary.clips, 'clip') }}, {{ counted(one.summary.files, 'file') }}, {{ bytes(one.summary.bytes) }}
    </p>
    <p v-if="one.summary && one.summary.missing.length > 0" class="fault">
      {{ t('handoff.PackageCard.leftOutNoFileCould', [one.summary.missing.join(', ')]) }}
    </p>
    <p v-if="one.summary?.unmixed?.length" class="warn">
      {{ t('handoff.PackageCard.withTheCamerasSoundOnly', [one.summary.unmixed.join(', ')]) }}
    </p>
    <p v-for="asked in one.questions" :key="asked.ulid" :class="asked.answer === null ? 'fault' : 'soft'">
      “{{ asked.question }}” <template v-if="asked.answer !== null">{{ t('handoff.PackageCard.answered') }}</template>
    </p>
    <p class="soft small">
      {{ one.made_by }}, {{ when(one.delivered_at ?? one.made_at)
      }}<template v-if="one.state === 'accepted'"> · {{ one.answered_by }}, {{ when(one.answered_at) }}</template>
    </p>
    <button v-if="one.delivered_at !== null" class="plain" @click="$emit('open')">
      {{ t('handoff.PackageCard.open') }} <kbd v-if="on">Enter</kbd>
    </button>
  </article>
</template>

<style scoped>
article {
  border: 1px solid var(--rule-strong);
  border-radius: 8px;
  background: #fff;
  padding: 10px 14px;
  display: grid;
  gap: 4px;
  align-content: start;
  overflow-wrap: anywhere;
}
article.on {
  border-color: var(--act);
}
header {
  display: flex;
  justify-content: space-between;
  gap: 10px;
}
b {
  font-weight: 600;
}
.state {
  font-weight: 600;
  white-space: nowrap;
}
p {
  margin: 0;
}
.small {
  font-size: 12px;
}
.plain {
  justify-self: start;
  margin-top: 4px;
}
</style>
