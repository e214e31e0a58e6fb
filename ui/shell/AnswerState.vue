<script setup lang="ts">
import { t } from '@/words'
import type { ApiError } from '@/api/client'

/** What stands in a panel until its answer is there: bones, or what went wrong and the next step. */
defineProps<{ pending: boolean; error: ApiError | null; rows?: number }>()
defineEmits<{ retry: [] }>()
</script>

<template>
  <div v-if="error" class="empty" role="alert">
    <b>{{ error.message }}</b>{{ error.fix }}<br /><button class="plain" @click="$emit('retry')">
      {{ t('shell.AnswerState.tryAgain') }}
    </button>
  </div>
  <div v-else-if="pending" class="bones" role="status" aria-busy="true" :aria-label="t('shell.AnswerState.loading')">
    <i v-for="row in rows ?? 8" :key="row" />
  </div>
  <slot v-else />
</template>
