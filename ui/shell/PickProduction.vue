<script setup lang="ts">
import { shell as shellApi } from '@/api/endpoints/shell'
import { onMounted, ref } from 'vue'
import { useRouter } from 'vue-router'
import { attempt } from './say'
import { useSession } from './session'

const session = useSession()
const router = useRouter()
const noDays = ref(false)
const opening = ref(false)
const fresh = ref({ name: '', rate: '25', style: 'letter', date: new Date().toISOString().slice(0, 10) })
const RATES = ['23.976', '24', '25', '29.97', '29.97df', '30', '48', '50', '59.94', '59.94df', '60']

async function open(ulid: string): Promise<void> {
  const production = await attempt(() => shellApi.open(ulid))
  if (production === undefined) return
  const day = production.days[0]
  noDays.value = day === undefined
  if (day !== undefined) await router.push({ name: 'day', params: { production: ulid, day: day.ulid } })
}

async function make(): Promise<void> {
  const made = await attempt(() => shellApi.makeProduction(fresh.value))
  if (made === undefined) return
  await session.load()
  await open(made.ulid)
}

onMounted(() => {
  // Somebody with one production wants that one; an admin may have come to open another.
  const only = session.productions.length === 1 && session.user?.role !== 'admin' ? session.productions[0] : undefined
  if (only !== undefined) void open(only.ulid)
})
</script>

<template>
  <main class="pick">
    <h1>Productions</h1>
    <p v-if="session.productions.length === 0" class="soft">
      You are in no production yet. An admin can add you to one.
    </p>
    <p v-if="noDays" class="note warn">This production has no shoot day yet.</p>
    <button
      v-for="production in session.productions"
      :key="production.ulid"
      class="item"
      @click="open(production.ulid)"
    >
      {{ production.name }}
    </button>
    <form v-if="opening" class="item form" @submit.prevent="make">
      <label>Name<input v-model="fresh.name" class="field" required maxlength="120" autofocus /></label>
      <label
        >Frame rate<select v-model="fresh.rate" class="field">
          <option v-for="rate in RATES" :key="rate">{{ rate }}</option>
        </select></label
      >
      <label
        >Slates<select v-model="fresh.style" class="field">
          <option value="letter">letters: scene 12, setup 12A, take 3</option>
          <option value="number">running numbers: slate 214, take 3, the scene beside it</option>
        </select></label
      >
      <label>First shoot day<input v-model="fresh.date" class="field" type="date" required /></label>
      <span
        ><button class="go">Open the production</button>{{ ' ' }}
        <button class="plain" type="button" @click="opening = false">Cancel</button></span
      >
    </form>
    <button v-else-if="session.user?.role === 'admin'" class="go new" @click="opening = true">New production</button>
    <button class="plain" @click="attempt(session.signOut)">Sign out</button>
  </main>
</template>

<style scoped>
.pick {
  max-width: 420px;
  margin: 0 auto;
  padding: 12vh 20px 0;
  display: grid;
  gap: 10px;
}
h1 {
  font-size: 20px;
  font-weight: 600;
  margin: 0 0 6px;
}
.item {
  text-align: left;
  background: var(--sheet);
  border: 1px solid var(--rule-strong);
  border-radius: 8px;
  padding: 14px 18px;
  font-weight: 600;
  font-size: 15px;
  cursor: pointer;
}
.item:hover {
  border-color: var(--act);
}
.form {
  display: grid;
  gap: 8px;
  font-weight: 400;
  font-size: 13px;
  cursor: default;
}
.form label {
  display: grid;
  gap: 2px;
  font-weight: 500;
}
.form .field {
  height: 30px;
}
.new {
  justify-self: start;
}
.plain {
  justify-self: start;
  margin-top: 10px;
}
</style>
