<script setup lang="ts">
import { settings as settingsApi } from '@/api/endpoints/settings'
import { Modal } from 'ant-design-vue'
import { ref } from 'vue'
import { makeStale, useAnswer } from '@/api/queries'
import type { Member, Role } from '@/api/types'
import AnswerState from '@/shell/AnswerState.vue'
import { useDesk } from '@/shell/desk'
import { attempt, say } from '@/shell/say'

const ROLES: Role[] = ['assistant', 'editor', 'reviewer', 'admin']
const { production } = useDesk()
const { data, isPending, error, refetch } = useAnswer(() => settingsApi.people(production.value.ulid))
const fresh = ref<{ name: string; email: string; role: Role }>({ name: '', email: '', role: 'assistant' })
/** A password that is shown once, for somebody else. */
const shown = ref<{ name: string; password: string } | null>(null)
const ending = ref<Member | null>(null)
const value = (event: Event) => (event.target as HTMLInputElement | HTMLSelectElement).value

async function change(work: () => Promise<unknown>, what: string): Promise<void> {
  if ((await attempt(work)) !== undefined) say(what)
  makeStale('settings')
}
async function add(): Promise<void> {
  const made = await attempt(() => settingsApi.addPerson(production.value.ulid, fresh.value))
  if (made === undefined) return
  if (made.password !== null) shown.value = { name: made.name, password: made.password }
  else say(`${made.name} belongs to the production now.`)
  fresh.value = { name: '', email: '', role: 'assistant' }
  makeStale('settings')
}
async function reset(one: Member): Promise<void> {
  const answer = await attempt(() => settingsApi.newPassword(production.value.ulid, one.ulid))
  if (answer !== undefined) shown.value = { name: one.name, password: answer.password }
  makeStale('settings')
}
async function end(): Promise<void> {
  const one = ending.value
  ending.value = null
  if (one !== null)
    await change(
      () => settingsApi.endMembership(production.value.ulid, one.ulid),
      `${one.name} no longer belongs to the production. What they wrote stays.`,
    )
}
</script>

<template>
  <p class="intro">Roles are of this production only. Every change is written down.</p>
  <AnswerState :pending="isPending" :error="error" :rows="5" @retry="refetch()">
    <table v-if="data" class="list">
      <thead>
        <tr>
          <th>Name</th>
          <th>E-mail</th>
          <th>Role</th>
          <th>Second factor</th>
          <th>Signed in</th>
          <th />
        </tr>
      </thead>
      <tbody>
        <tr v-for="one in data.people" :key="one.ulid">
          <td>
            <b>{{ one.name }}</b><span v-if="one.is_you" class="soft"> (you)</span>
          </td>
          <td class="mono mail" :title="one.email">{{ one.email }}</td>
          <td>
            <span v-if="one.is_desk_admin" class="soft">admin of the desk</span
            ><select
              v-else
              class="field"
              :value="one.role"
              :aria-label="`Role of ${one.name}`"
              @change="
                change(
                  () => settingsApi.changePerson(production.ulid, one.ulid, { role: value($event) }),
                  `${one.name} is ${value($event)} now.`,
                )
              "
            >
              <option v-for="role in ROLES" :key="role" :value="role">{{ role }}</option>
            </select>
          </td>
          <td>
            <label class="tick"
              ><input
                type="checkbox"
                :checked="one.must_use_second_factor"
                @change="
                  change(
                    () =>
                      settingsApi.changePerson(production.ulid, one.ulid, {
                        must_use_second_factor: ($event.target as HTMLInputElement).checked,
                      }),
                    'Kept.',
                  )
                "
              />
              required</label
            >
            <span :class="one.has_second_factor ? 'good' : 'soft'">{{
              one.has_second_factor ? 'set up' : 'not set up'
            }}</span>
          </td>
          <td class="mono">{{ one.sessions === 0 ? '—' : one.sessions }}</td>
          <td class="act">
            <button
              v-if="one.sessions > 0 && !one.is_you"
              class="plain"
              @click="
                change(
                  () => settingsApi.endSessions(production.ulid, one.ulid),
                  `${one.name} is signed out everywhere.`,
                )
              "
            >
              Sign out
            </button>
            <button v-if="!one.is_you" class="plain" @click="reset(one)">New password</button>
            <button
              v-if="one.has_second_factor && !one.is_you"
              class="plain"
              title="For somebody who lost the authenticator and the codes"
              @click="
                change(
                  () => settingsApi.removeSecondFactor(production.ulid, one.ulid),
                  `${one.name} signs in without a code until it is set up again.`,
                )
              "
            >
              Factor off
            </button>
            <button class="plain" @click="ending = one">End…</button>
          </td>
        </tr>
      </tbody>
    </table>
    <form class="add" @submit.prevent="add">
      <label>Name<input v-model="fresh.name" class="field" required maxlength="120" /></label>
      <label>E-mail<input v-model="fresh.email" class="field" type="email" required maxlength="190" size="26" /></label>
      <label
        >Role<select v-model="fresh.role" class="field">
          <option v-for="role in ROLES" :key="role" :value="role">{{ role }}</option>
        </select></label
      >
      <button class="go" type="submit">Add the person</button>
    </form>
  </AnswerState>
  <Modal
    :open="shown !== null"
    :title="`The password of ${shown?.name}`"
    ok-text="I have passed it on"
    cancel-text="Close"
    @ok="shown = null"
    @cancel="shown = null"
  >
    <p>It is shown once. At the first sign-in it has to be changed.</p>
    <p class="mono password">{{ shown?.password }}</p>
  </Modal>
  <Modal
    :open="ending !== null"
    :title="`End the part of ${ending?.name}?`"
    ok-text="End it"
    cancel-text="Keep it"
    @ok="end"
    @cancel="ending = null"
  >
    <p>They no longer reach {{ production.name }}. Their notes, bins and steps stay under their name.</p>
  </Modal>
</template>

<style scoped src="./list.css"></style>
<style scoped>
.tick {
  display: inline-flex;
  gap: 4px;
  align-items: baseline;
  margin-right: 4px;
}
.tick input {
  align-self: center;
  margin: 0;
}
.mail {
  max-width: 210px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  font-size: 12px;
}
.password {
  font-size: 17px;
  background: var(--sheet-2);
  border: 1px solid var(--rule);
  border-radius: 5px;
  padding: 8px 12px;
  user-select: all;
}
</style>
