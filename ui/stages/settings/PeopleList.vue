<script setup lang="ts">
import { t, valueWord } from '@/words'
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
  else say(t('settings.PeopleList.belongsToTheProductionNow', [made.name]))
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
      t('settings.PeopleList.noLongerBelongsToThe', [one.name]),
    )
}
</script>

<template>
  <p class="intro">{{ t('settings.PeopleList.rolesAreOfThisProduction') }}</p>
  <AnswerState :pending="isPending" :error="error" :rows="5" @retry="refetch()">
    <table v-if="data" class="list">
      <thead>
        <tr>
          <th>{{ t('settings.PeopleList.name') }}</th>
          <th>{{ t('settings.PeopleList.eMail') }}</th>
          <th>{{ t('settings.PeopleList.role') }}</th>
          <th>{{ t('settings.PeopleList.secondFactor') }}</th>
          <th>{{ t('settings.PeopleList.signedIn') }}</th>
          <th />
        </tr>
      </thead>
      <tbody>
        <tr v-for="one in data.people" :key="one.ulid">
          <td>
            <b>{{ one.name }}</b><span v-if="one.is_you" class="soft">
              {{ ' ' }}{{ t('settings.PeopleList.you') }}</span
            >
          </td>
          <td class="mono mail" :title="one.email">{{ one.email }}</td>
          <td>
            <span v-if="one.is_desk_admin" class="soft">{{ t('settings.PeopleList.adminOfTheDesk') }}</span><select
              v-else
              class="field"
              :value="one.role"
              :aria-label="t('settings.PeopleList.roleOf', [one.name])"
              @change="
                change(
                  () => settingsApi.changePerson(production.ulid, one.ulid, { role: value($event) }),
                  t('settings.PeopleList.isNow', [one.name, valueWord(value($event))]),
                )
              "
            >
              <option v-for="role in ROLES" :key="role" :value="role">{{ valueWord(role) }}</option>
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
                    t('settings.PeopleList.kept'),
                  )
                "
              />
              {{ t('settings.PeopleList.required') }}</label
            >
            <span :class="one.has_second_factor ? 'good' : 'soft'">{{
              one.has_second_factor ? t('settings.PeopleList.setUp') : t('settings.PeopleList.notSetUp')
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
                  t('settings.PeopleList.isSignedOutEverywhere', [one.name]),
                )
              "
            >
              {{ t('settings.PeopleList.signOut') }}
            </button>
            <button v-if="!one.is_you" class="plain" @click="reset(one)">
              {{ t('settings.PeopleList.newPassword') }}
            </button>
            <button
              v-if="one.has_second_factor && !one.is_you"
              class="plain"
              :title="t('settings.PeopleList.forSomebodyWhoLostThe')"
              @click="
                change(
                  () => settingsApi.removeSecondFactor(production.ulid, one.ulid),
                  t('settings.PeopleList.signsInWithoutACode', [one.name]),
                )
              "
            >
              {{ t('settings.PeopleList.factorOff') }}
            </button>
            <button class="plain" @click="ending = one">{{ t('settings.PeopleList.end') }}</button>
          </td>
        </tr>
      </tbody>
    </table>
    <form class="add" @submit.prevent="add">
      <label
        >{{ t('settings.PeopleList.name') }}<input v-model="fresh.name" class="field" required maxlength="120"
      /></label>
      <label
        >{{ t('settings.PeopleList.eMail')
        }}<input v-model="fresh.email" class="field" type="email" required maxlength="190" size="26"
      /></label>
      <label
        >{{ t('settings.PeopleList.role')
        }}<select v-model="fresh.role" class="field">
          <option v-for="role in ROLES" :key="role" :value="role">{{ valueWord(role) }}</option>
        </select></label
      >
      <button class="go" type="submit">{{ t('settings.PeopleList.addThePerson') }}</button>
    </form>
  </AnswerState>
  <Modal
    :open="shown !== null"
    :title="t('settings.PeopleList.thePasswordOf', [shown?.name])"
    :ok-text="t('settings.PeopleList.iHavePassedItOn')"
    :cancel-text="t('settings.PeopleList.close')"
    @ok="shown = null"
    @cancel="shown = null"
  >
    <p>{{ t('settings.PeopleList.itIsShownOnceAt') }}</p>
    <p class="mono password">{{ shown?.password }}</p>
  </Modal>
  <Modal
    :open="ending !== null"
    :title="t('settings.PeopleList.endThePartOf', [ending?.name])"
    :ok-text="t('settings.PeopleList.endIt')"
    :cancel-text="t('settings.PeopleList.keepIt')"
    @ok="end"
    @cancel="ending = null"
  >
    <p>{{ t('settings.PeopleList.theyNoLongerReachTheir', [production.name]) }}</p>
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
