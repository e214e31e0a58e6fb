<script setup lang="ts">
import { shell as shellApi } from '@/api/endpoints/shell'
import { computed, onMounted } from 'vue'
import { useRoute } from 'vue-router'
import { useAnswer } from '@/api/queries'
import AnswerState from './AnswerState.vue'
import { fetchStages } from '@/router'
import DeskFrame from './DeskFrame.vue'

const route = useRoute()
const ulid = computed(() => String(route.params.production))
const { data, isPending, error, refetch } = useAnswer(() => shellApi.production(ulid.value))
onMounted(() => window.requestIdleCallback(fetchStages, { timeout: 4000 }))
</script>

<template>
  <AnswerState :pending="isPending" :error="error" @retry="refetch()">
    <DeskFrame v-if="data" :key="data.ulid" :production="data" />
  </AnswerState>
</template>
