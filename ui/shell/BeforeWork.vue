<script setup lang="ts">
import { computed } from 'vue'
import PasswordForm from './PasswordForm.vue'
import { attempt } from './say'
import SecondFactorForm from './SecondFactorForm.vue'
import { useSession } from './session'

/**
 * What has to be done once before any production opens: a password of one's own, or the second factor that an admin
 * requires.
 */
const session = useSession()
const needs = computed(() => session.user?.needs)
</script>

<template>
  <main class="door">
    <div class="folder">
      <div class="index" aria-hidden="true">Cartella</div>
      <section class="sheet">
        <h1>{{ needs === 'password' ? 'Choose a password' : 'Set up a second factor' }}</h1>
        <p class="soft">
          {{
            needs === 'password'
              ? 'The one you signed in with was given to you. Choose one that nobody else knows.'
              : 'An admin requires a code beside the password for your account.'
          }}
        </p>
        <PasswordForm v-if="needs === 'password'" @done="session.load()" />
        <SecondFactorForm v-else @done="session.load()" />
        <button class="plain" @click="attempt(session.signOut)">Sign out</button>
      </section>
    </div>
  </main>
</template>

<style scoped src="./door.css"></style>
