<script setup lang="ts">
import { t } from '@/words'
import { session as sessionApi } from '@/api/endpoints/session'
import { ref } from 'vue'
import { ApiError } from '@/api/client'

const emit = defineEmits<{ done: [ended: number] }>()
const current = ref('')
const password = ref('')
const trouble = ref('')

async function save(): Promise<void> {
  trouble.value = ''
  try {
    const answer = await sessionApi.setPassword({
      current: current.value,
      password: password.value,
    })
    current.value = password.value = ''
    emit('done', answer.ended)
  } catch (error) {
    trouble.value =
      error instanceof ApiError ? `${error.message} ${error.fix}` : t('shell.PasswordForm.loadThePageAgain')
  }
}
</script>

<template>
  <form class="form" @submit.prevent="save">
    <label
      >{{ t('shell.PasswordForm.passwordOfNow')
      }}<input v-model="current" class="field" type="password" autocomplete="current-password" required
    /></label>
    <label
      >{{ t('shell.PasswordForm.newPassword')
      }}<input
        v-model="password"
        class="field"
        type="password"
        autocomplete="new-password"
        minlength="10"
        required
      /><small class="soft">{{ t('shell.PasswordForm.atLeastTenLettersA') }}</small></label
    >
    <p v-if="trouble" class="note fault" role="alert">{{ trouble }}</p>
    <span
      ><button class="go" type="submit">{{ t('shell.PasswordForm.changeThePassword') }}</button></span
    >
  </form>
</template>

<style scoped>
.form {
  display: grid;
  gap: 10px;
}
label {
  display: grid;
  gap: 3px;
  font-weight: 500;
}
small {
  font-weight: 400;
}
.field {
  height: 32px;
}
p {
  margin: 0;
}
</style>
