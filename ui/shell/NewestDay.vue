<script setup lang="ts">
import { watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { shell } from '@/api/endpoints/shell'
import { useAnswer } from '@/api/queries'
import AnswerState from './AnswerState.vue'
import NotHere from './NotHere.vue'

/** An address that was cut short after its production leads to the newest day. */
const route = useRoute()
const router = useRouter()
const { data, isPending, error, refetch } = useAnswer(() => shell.production(String(route.params.production)))
watch(
  data,
  (now) => {
    const day = now?.days[0]
    if (day !== undefined) void router.replace({ name: 'day', params: { ...route.params, day: day.ulid } })
  },
  { immediate: true },
)
</script>

<template>
  <NotHere v-if="error?.status === 404 || data?.days.length === 0" />
  <AnswerState v-else :pending="isPending || data !== undefined" :error="error" @retry="refetch()" />
</template>
