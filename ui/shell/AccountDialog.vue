<script setup lang="ts">
import { t } from '@/words'
import { locale } from '@/words/language'
import { session as sessionApi } from '@/api/endpoints/session'
import { Modal } from 'ant-design-vue'
import { ref, watch } from 'vue'
import type { SessionRow } from '@/api/types'
import LanguageChoice from './LanguageChoice.vue'
import PasswordForm from './PasswordForm.vue'
import { attempt, say } from './say'
import SecondFactorForm from './SecondFactorForm.vue'
import { useSession } from './session'

/** One's own account: password, second factor, and where one is signed in. */
const props = defineProps<{ open: boolean }>()
const emit = defineEmits<{ close: [] }>()
const session = useSession()
const sessions = ref<SessionRow[]>([])
const setting = ref(false)
const removing = ref(false)
const password = ref('')

async function load(): Promise<void> {
  sessions.value = (await attempt(() => sessionApi.all()))?.sessions ?? []
}
watch(
  () => props.open,
  (open) => {
    setting.value = removing.value = false
    password.value = ''
    if (open) void load()
  },
)
async function end(one: SessionRow): Promise<void> {
  if ((await attempt(() => sessionApi.end(one.id))) !== undefined) say(t('shell.AccountDialog.thatSessionHasEnded'))
  await load()
}
async function remove(): Promise<void> {
  if ((await attempt(() => sessionApi.removeSecondFactor(password.value))) === undefined) return
  removing.value = false
  password.value = ''
  say(t('shell.AccountDialog.theSecondFactorIsOff'))
  await session.refresh()
}
async function changed(ended: number): Promise<void> {
  say(
    ended === 0
      ? t('shell.AccountDialog.thePasswordIsChanged')
      : t('shell.AccountDialog.thePasswordIsChangedOther', [
          ended,
          ended === 1 ? t('shell.AccountDialog.sessionHas') : t('shell.AccountDialog.sessionsHave'),
        ]),
  )
  await load()
}
async function set(): Promise<void> {
  setting.value = false
  say(t('shell.AccountDialog.aCodeIsAskedFor'))
  await session.refresh()
}
const when = (iso: string) =>
  new Date(iso).toLocaleString(locale, { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' })
</script>

<template>
  <Modal
    :open="open"
    :title="t('shell.AccountDialog.yourAccount')"
    width="640px"
    :footer="null"
    @cancel="emit('close')"
  >
    <div class="grid">
      <section>
        <h3>{{ t('shell.AccountDialog.password') }}</h3>
        <PasswordForm @done="changed" />
      </section>
      <section>
        <h3>{{ t('shell.AccountDialog.secondFactor') }}</h3>
        <SecondFactorForm v-if="setting" @done="set" />
        <template v-else-if="session.user?.has_second_factor">
          <p>
            {{ t('shell.AccountDialog.aCodeOfYourAuthenticator', [session.user.recovery_codes_left]) }}
          </p>
          <form v-if="removing" class="inline" @submit.prevent="remove">
            <input
              v-model="password"
              class="field"
              type="password"
              :aria-label="t('shell.AccountDialog.yourPassword')"
              :placeholder="t('shell.AccountDialog.yourPassword')"
              required
            /><button class="plain">{{ t('shell.AccountDialog.turnItOff') }}</button>
          </form>
          <button v-else class="plain" @click="removing = true">{{ t('shell.AccountDialog.turnItOff2') }}</button>
        </template>
        <template v-else>
          <p class="soft">
            {{ t('shell.AccountDialog.aCodeThatChangesTwice') }}
          </p>
          <button class="plain" @click="setting = true">{{ t('shell.AccountDialog.setItUp') }}</button>
        </template>
      </section>
    </div>
    <section class="language">
      <h3>{{ t('shell.LanguageChoice.language') }}</h3>
      <LanguageChoice />
    </section>
    <section>
      <h3>{{ t('shell.AccountDialog.whereYouAreSignedIn') }}</h3>
      <table class="list">
        <tbody>
          <tr v-for="one in sessions" :key="one.id">
            <td>{{ one.browser }}</td>
            <td class="mono soft">{{ one.address }}</td>
            <td class="soft">{{ when(one.last_at) }}</td>
            <td class="act">
              <span v-if="one.is_this" class="pill">{{ t('shell.AccountDialog.thisOne') }}</span><button
                v-else
                class="plain"
                @click="end(one)"
              >
                {{ t('shell.AccountDialog.endIt') }}
              </button>
            </td>
          </tr>
        </tbody>
      </table>
    </section>
  </Modal>
</template>

<style scoped>
.grid {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 26px;
  margin-bottom: 16px;
}
h3 {
  font-size: 13px;
  font-weight: 600;
  margin: 0 0 8px;
}
p {
  margin: 0 0 10px;
}
.language {
  margin-bottom: 16px;
}
.inline {
  display: flex;
  gap: 6px;
}
.inline .field {
  height: 28px;
}
.act {
  text-align: right;
}
</style>
