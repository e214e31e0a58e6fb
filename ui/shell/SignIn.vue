<script setup lang="ts">
import { ref } from 'vue'
import { ApiError } from '@/api/client'
import { useSession } from './session'

const session = useSession()
const email = ref('')
const password = ref('')
const trouble = ref('')
const busy = ref(false)

async function submit(): Promise<void> {
  busy.value = true
  trouble.value = ''
  try {
    await session.signIn(email.value, password.value)
  } catch (error) {
    trouble.value = error instanceof ApiError ? `${error.message} ${error.fix}` : 'Load the page again.'
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <main class="door">
    <div class="folder">
      <div class="index" aria-hidden="true">Cartella</div>
      <form class="sheet" @submit.prevent="submit">
        <h1>Sign in</h1>
        <p class="soft">Cards in, slates logged, picture and sound on one clock.</p>
        <label>E-mail<input v-model="email" class="field" type="email" name="email" autocomplete="username" required autofocus></label>
        <label>Password<input v-model="password" class="field" type="password" name="password" autocomplete="current-password" required></label>
        <p v-if="trouble" class="note fault" role="alert">{{ trouble }}</p>
        <button class="go" type="submit" :disabled="busy">{{ busy ? 'Signing in…' : 'Sign in' }}</button>
      </form>
    </div>
  </main>
</template>

<style scoped>
.door { min-height: 100%; display: grid; place-items: center; padding: 24px; }
.folder { width: 380px; max-width: 100%; }
.index { display: inline-block; background: var(--spine); border: 1px solid var(--rule-strong); border-bottom: 0; border-radius: 8px 8px 0 0; padding: 6px 18px; font-weight: 600; margin-left: 18px; }
.sheet { background: var(--sheet); border: 1px solid var(--rule-strong); border-radius: 8px; padding: 26px 28px 28px; display: grid; gap: 12px; }
h1 { font-size: 20px; margin: 0; font-weight: 600; }
p { margin: 0; }
label { display: grid; gap: 3px; font-weight: 500; }
.field { height: 34px; }
.go { height: 36px; font-size: 13px; margin-top: 4px; }
</style>
