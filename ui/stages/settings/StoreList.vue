<script setup lang="ts">
import { t } from '@/words'
import { settings as settingsApi } from '@/api/endpoints/settings'
import { computed, ref } from 'vue'
import { makeStale, useAnswer } from '@/api/queries'
import type { StoreSetting } from '@/api/types'
import { bytes } from '@/words/amounts'
import AnswerState from '@/shell/AnswerState.vue'
import { useDesk } from '@/shell/desk'
import { attempt, say } from '@/shell/say'

const { production } = useDesk()
const { data, isPending, error, refetch } = useAnswer(() => settingsApi.stores(production.value.ulid), { poll: 5000 })
const fresh = ref({ name: '', path: '' })
const manage = computed(() => production.value.may.manage)
const used = computed(() => (data.value?.stores ?? []).filter((one) => !one.is_retired))
const isOneDisk = computed(
  () =>
    used.value.length > 1 && new Set(used.value.map((one) => one.device)).size === 1 && used.value[0]?.device !== null,
)
const value = (event: Event) => (event.target as HTMLInputElement).value.trim()
const state = (one: StoreSetting) =>
  one.is_there
    ? t('settings.StoreList.there')
    : one.is_other
      ? t('settings.StoreList.anotherVolumeOrNoneIn')
      : t('settings.StoreList.notThere')

async function change(
  one: StoreSetting,
  values: Partial<{ name: string; position: number; retired: boolean; mark: boolean }>,
  what: string,
): Promise<void> {
  if ((await attempt(() => settingsApi.changeStore(production.value.ulid, one.ulid, values))) !== undefined) say(what)
  makeStale('settings')
}
async function add(): Promise<void> {
  const made = await attempt(() => settingsApi.addStore(production.value.ulid, fresh.value))
  if (made === undefined) return
  say(t('settings.StoreList.cardsAreCopiedToAs', [fresh.value.name]))
  fresh.value = { name: '', path: '' }
  makeStale('settings')
}
</script>

<template>
  <p class="intro">
    {{ t('settings.StoreList.cardsAreCopiedToEvery') }}
  </p>
  <p v-if="isOneDisk" class="note warn disk">
    {{ t('settings.StoreList.allOfTheseLieOn') }}
  </p>
  <AnswerState :pending="isPending" :error="error" :rows="4" @retry="refetch()">
    <table v-if="data" class="list">
      <thead>
        <tr>
          <th>{{ t('settings.StoreList.name') }}</th>
          <th>{{ t('settings.StoreList.pathOnTheMachineOf') }}</th>
          <th>{{ t('settings.StoreList.state') }}</th>
          <th>{{ t('settings.StoreList.free') }}</th>
          <th>{{ t('settings.StoreList.cards') }}</th>
          <th />
        </tr>
      </thead>
      <tbody>
        <tr v-for="(one, index) in data.stores" :key="one.ulid" :class="{ past: one.is_retired }">
          <td>
            <input
              class="field"
              :value="one.name"
              maxlength="60"
              :disabled="!manage"
              :aria-label="t('settings.StoreList.nameOf', [one.name])"
              @change="change(one, { name: value($event) }, t('settings.StoreList.kept'))"
            />
          </td>
          <td class="mono path" :title="one.path">{{ one.path }}</td>
          <td class="state" :class="one.is_there ? 'good' : 'fault'">
            {{ one.is_retired ? t('settings.StoreList.noLongerUsed') : state(one) }}
          </td>
          <td class="mono">{{ one.free_bytes === null ? '' : bytes(one.free_bytes) }}</td>
          <td class="mono">{{ one.cards }}</td>
          <td class="act">
            <template v-if="manage">
              <button
                v-if="!one.is_there && one.is_other"
                class="plain"
                :title="t('settings.StoreList.makeWhatLiesAtThis')"
                @click="change(one, { mark: true }, t('settings.StoreList.isWhatLiesThereNow', [one.name]))"
              >
                {{ t('settings.StoreList.itIsThisOne') }}
              </button>
              <button
                v-if="index > 0"
                class="plain"
                :aria-label="t('settings.StoreList.beforeTheOneAbove', [one.name])"
                :title="t('settings.StoreList.beforeTheOneAbove2')"
                @click="change(one, { position: index - 1 }, t('settings.StoreList.kept'))"
              >
                ↑
              </button>
              <button
                class="plain"
                @click="
                  change(
                    one,
                    { retired: !one.is_retired },
                    one.is_retired
                      ? t('settings.StoreList.isUsedAgain', [one.name])
                      : t('settings.StoreList.nothingIsCopiedToAny', [one.name]),
                  )
                "
              >
                {{ one.is_retired ? t('settings.StoreList.useAgain') : t('settings.StoreList.retire') }}
              </button>
            </template>
          </td>
        </tr>
      </tbody>
    </table>
    <form v-if="manage" class="add" @submit.prevent="add">
      <label
        >{{ t('settings.StoreList.name')
        }}<input
          v-model="fresh.name"
          class="field"
          required
          maxlength="60"
          :placeholder="t('settings.StoreList.shuttle2')"
      /></label>
      <label
        >{{ t('settings.StoreList.path')
        }}<input
          v-model="fresh.path"
          class="field mono"
          required
          maxlength="400"
          size="34"
          :placeholder="t('settings.StoreList.mntShuttle2')"
      /></label>
      <button class="go" type="submit">{{ t('settings.StoreList.addTheVolume') }}</button>
    </form>
    <p v-else class="intro">{{ t('settings.StoreList.theAdminOfTheProduction') }}</p>
  </AnswerState>
</template>

<style scoped src="./list.css"></style>
<style scoped>
.disk {
  margin: 0 0 12px;
  max-width: 78ch;
}
.path {
  max-width: 330px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  font-size: 12px;
}
</style>
