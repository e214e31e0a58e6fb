<script setup lang="ts">
import { onMounted, ref } from 'vue'
import { useRouter } from 'vue-router'
import { api } from '@/api/client'
import type { Production } from '@/api/types'
import { attempt } from './say'
import { useSession } from './session'

const session = useSession()
const router = useRouter()
const noDays = ref(false)

async function open(ulid: string): Promise<void> {
  const production = await attempt(() => api.get<Production>(`productions/${ulid}`))
  if (production === undefined) return
  const day = production.days[0]
  noDays.value = day === undefined
  if (day !== undefined) await router.push({ name: 'day', params: { production: ulid, day: day.ulid } })
}

onMounted(() => {
  const only = session.productions.length === 1 ? session.productions[0] : undefined
  if (only !== undefined) void open(only.ulid)
})
</script>

<template>
  <main class="pick">
    <h1>Productions</h1>
    <p v-if="session.productions.length === 0" class="soft">You are in no production yet. An admin can add you to one.</p>
    <p v-if="noDays" class="note warn">This production has no shoot day yet.</p>
    <button v-for="production in session.productions" :key="production.ulid" class="item" @click="open(production.ulid)">{{ production.name }}</button>
    <button class="plain" @click="attempt(session.signOut)">Sign out</button>
  </main>
</template>

<style scoped>
.pick { max-width: 420px; margin: 12vh auto; display: grid; gap: 10px; padding: 0 20px; }
h1 { font-size: 20px; font-weight: 600; margin: 0 0 6px; }
.item { text-align: left; background: var(--sheet); border: 1px solid var(--rule-strong); border-radius: 8px; padding: 14px 18px; font-weight: 600; font-size: 15px; cursor: pointer; }
.item:hover { border-color: var(--act); }
.plain { justify-self: start; margin-top: 10px; }
</style>
