<script setup lang="ts">
import { t } from '@/words'
import { session as sessionApi } from '@/api/endpoints/session'
import qrcode from 'qrcode-generator'
import { computed, onMounted, ref } from 'vue'
import { ApiError } from '@/api/client'

/** Sets up codes of an authenticator: the square to be read, the first code, then the recovery codes, shown once. */
const emit = defineEmits<{ done: [] }>()
const offer = ref<{ secret: string; address: string } | null>(null)
const code = ref('')
const codes = ref<string[]>([])
const trouble = ref('')
const spelled = computed(() => offer.value?.secret.match(/.{1,4}/g)?.join(' ') ?? '')
/** One path of unit squares: drawn as a picture of the page, so that no other origin is asked for it. */
const square = computed(() => {
  if (offer.value === null) return { size: 0, path: '' }
  const code = qrcode(0, 'M')
  code.addData(offer.value.address)
  code.make()
  const size = code.getModuleCount()
  let path = ''
  for (let row = 0; row < size; row++)
    for (let column = 0; column < size; column++) if (code.isDark(row, column)) path += `M${column} ${row}h1v1h-1z`
  return { size, path }
})

async function ask<T>(work: () => Promise<T>): Promise<T | undefined> {
  trouble.value = ''
  try {
    return await work()
  } catch (error) {
    trouble.value =
      error instanceof ApiError ? `${error.message} ${error.fix}` : t('shell.SecondFactorForm.loadThePageAgain')
    return undefined
  }
}
onMounted(async () => (offer.value = (await ask(() => sessionApi.beginSecondFactor())) ?? null))
async function confirm(): Promise<void> {
  const answer = await ask(() => sessionApi.confirmSecondFactor(code.value))
  if (answer !== undefined) codes.value = answer.recovery_codes
}
</script>

<template>
  <div v-if="codes.length > 0" class="form">
    <p>
      <b>{{ t('shell.SecondFactorForm.keepTheseTenCodesOn') }}</b> {{ t('shell.SecondFactorForm.eachSignsYouInOnce') }}
    </p>
    <ul class="mono codes">
      <li v-for="one in codes" :key="one">{{ one }}</li>
    </ul>
    <span
      ><button class="go" @click="emit('done')">{{ t('shell.SecondFactorForm.iHaveKeptThem') }}</button></span
    >
  </div>
  <form v-else class="form" @submit.prevent="confirm">
    <template v-if="offer">
      <svg
        :viewBox="`-2 -2 ${square.size + 4} ${square.size + 4}`"
        role="img"
        :aria-label="t('shell.SecondFactorForm.squareToBeReadBy')"
      >
        <rect x="-2" y="-2" :width="square.size + 4" :height="square.size + 4" fill="#fff" />
        <path :d="square.path" fill="#1f2a33" />
      </svg>
      <p>
        {{ t('shell.SecondFactorForm.readTheSquareWithAn') }} <span class="mono key">{{ spelled }}</span>
      </p>
      <label
        >{{ t('shell.SecondFactorForm.theCodeItShowsNow')
        }}<input
          v-model="code"
          class="field mono"
          inputmode="numeric"
          autocomplete="one-time-code"
          maxlength="10"
          required
      /></label>
    </template>
    <p v-if="trouble" class="note fault" role="alert">{{ trouble }}</p>
    <span
      ><button class="go" type="submit" :disabled="offer === null">
        {{ t('shell.SecondFactorForm.turnItOn') }}
      </button></span
    >
  </form>
</template>

<style scoped>
.form {
  display: grid;
  gap: 10px;
}
svg {
  width: 184px;
  height: 184px;
  border: 1px solid var(--rule);
  border-radius: 4px;
  shape-rendering: crispEdges;
}
p {
  margin: 0;
}
label {
  display: grid;
  gap: 3px;
  font-weight: 500;
}
.field {
  height: 32px;
}
.key {
  overflow-wrap: anywhere;
}
.codes {
  list-style: none;
  margin: 0;
  padding: 10px 12px;
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 4px 18px;
  background: #fff;
  border: 1px solid var(--rule);
  border-radius: 5px;
}
</style>
