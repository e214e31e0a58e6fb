<script setup lang="ts">
import { t } from '@/words'
import { nextTick, ref } from 'vue'
import { ApiError } from '@/api/client'
import LanguageChoice from './LanguageChoice.vue'
import { useSession } from './session'

const session = useSession()
const email = ref('')
const password = ref('')
const code = ref('')
const codeBox = ref<HTMLInputElement | null>(null)
/** Asked for once the server says that this account has a second factor. */
const wantsCode = ref(false)
const trouble = ref('')
const busy = ref(false)

async function submit(): Promise<void> {
  busy.value = true
  trouble.value = ''
  const first = !wantsCode.value
  try {
    await session.signIn(email.value, password.value, code.value)
  } catch (error) {
    const isCode = error instanceof ApiError && error.code === 'session.code'
    if (isCode) {
      wantsCode.value = true
      code.value = ''
      void nextTick(() => codeBox.value?.focus())
    }
    trouble.value =
      error instanceof ApiError
        ? isCode && first
          ? ''
          : `${error.message} ${error.fix}`
        : t('shell.SignIn.loadThePageAgain')
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <main class="door">
    <div class="folder">
      <div class="index" aria-hidden="true">{{ t('shell.SignIn.cartella') }}</div>
      <form class="sheet" @submit.prevent="submit">
        <h1>{{ t('shell.SignIn.signIn') }}</h1>
        <p class="soft">{{ t('shell.SignIn.cardsInSlatesLoggedPicture') }}</p>
        <label
          >{{ t('shell.SignIn.eMail')
          }}<input
            v-model="email"
            class="field"
            type="email"
            name="email"
            autocomplete="username"
            required
            autofocus
            @input="wantsCode = false"
        /></label>
        <label
          >{{ t('shell.SignIn.password')
          }}<input
            v-model="password"
            class="field"
            type="password"
            name="password"
            autocomplete="current-password"
            required
        /></label>
        <label v-if="wantsCode"
          >{{ t('shell.SignIn.codeOfYourAuthenticator')
          }}<input
            ref="codeBox"
            v-model="code"
            class="field mono"
            name="code"
            inputmode="numeric"
            autocomplete="one-time-code"
            maxlength="20"
            required
          /><small class="soft">{{ t('shell.SignIn.sixDigitsOrOneOf') }}</small></label
        >
        <p v-if="trouble" class="note fault" role="alert">{{ trouble }}</p>
        <button class="go" type="submit" :disabled="busy">
          {{ busy ? t('shell.SignIn.signingIn') : t('shell.SignIn.signIn') }}
        </button>
      </form>
      <LanguageChoice class="language" />
    </div>
  </main>
</template>

<style scoped src="./door.css"></style>
<style scoped>
.language {
  justify-content: center;
  margin-top: 14px;
}
</style>
