<script setup lang="ts">
import { t } from '@/words'
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
      <div class="index" aria-hidden="true">{{ t('shell.BeforeWork.cartella') }}</div>
      <section class="sheet">
        <h1>
          {{ needs === 'password' ? t('shell.BeforeWork.chooseAPassword') : t('shell.BeforeWork.setUpASecondFactor') }}
        </h1>
        <p class="soft">
          {{
            needs === 'password' ? t('shell.BeforeWork.theOneYouSignedIn') : t('shell.BeforeWork.anAdminRequiresACode')
          }}
        </p>
        <PasswordForm v-if="needs === 'password'" @done="session.load()" />
        <SecondFactorForm v-else @done="session.load()" />
        <button class="plain" @click="attempt(session.signOut)">{{ t('shell.BeforeWork.signOut') }}</button>
      </section>
    </div>
  </main>
</template>

<style scoped src="./door.css"></style>
