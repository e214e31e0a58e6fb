<script setup lang="ts">
import { session as sessionApi } from '@/api/endpoints/session'
import { Modal } from 'ant-design-vue'
import { ref, watch } from 'vue'
import type { SessionRow } from '@/api/types'
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
  if ((await attempt(() => sessionApi.end(one.id))) !== undefined) say('That session has ended.')
  await load()
}
async function remove(): Promise<void> {
  if ((await attempt(() => sessionApi.removeSecondFactor(password.value))) === undefined) return
  removing.value = false
  password.value = ''
  say('The second factor is off.')
  await session.refresh()
}
async function changed(ended: number): Promise<void> {
  say(
    ended === 0
      ? 'The password is changed.'
      : `The password is changed; ${ended} other ${ended === 1 ? 'session has' : 'sessions have'} ended.`,
  )
  await load()
}
async function set(): Promise<void> {
  setting.value = false
  say('A code is asked for from now on.')
  await session.refresh()
}
const when = (iso: string) =>
  new Date(iso).toLocaleString('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' })
</script>

<template>
  <Modal :open="open" title="Your account" width="640px" :footer="null" @cancel="emit('close')">
    <div class="grid">
      <section>
        <h3>Password</h3>
        <PasswordForm @done="changed" />
      </section>
      <section>
        <h3>Second factor</h3>
        <SecondFactorForm v-if="setting" @done="set" />
        <template v-else-if="session.user?.has_second_factor">
          <p>
            A code of your authenticator is asked for at every sign-in. {{ session.user.recovery_codes_left }} recovery
            codes are left.
          </p>
          <form v-if="removing" class="inline" @submit.prevent="remove">
            <input
              v-model="password"
              class="field"
              type="password"
              aria-label="Your password"
              placeholder="Your password"
              required
            /><button class="plain">Turn it off</button>
          </form>
          <button v-else class="plain" @click="removing = true">Turn it off…</button>
        </template>
        <template v-else>
          <p class="soft">
            A code that changes twice a minute, beside the password. Without your phone nobody signs in as you.
          </p>
          <button class="plain" @click="setting = true">Set it up…</button>
        </template>
      </section>
    </div>
    <section>
      <h3>Where you are signed in</h3>
      <table class="list">
        <tbody>
          <tr v-for="one in sessions" :key="one.id">
            <td>{{ one.browser }}</td>
            <td class="mono soft">{{ one.address }}</td>
            <td class="soft">{{ when(one.last_at) }}</td>
            <td class="act">
              <span v-if="one.is_this" class="pill">this one</span
              ><button v-else class="plain" @click="end(one)">End it</button>
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
