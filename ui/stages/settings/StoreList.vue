<script setup lang="ts">
import { settings as settingsApi } from '@/api/endpoints/settings'
import { computed, ref } from 'vue'
import { makeStale, useAnswer } from '@/api/queries'
import type { StoreSetting } from '@/api/types'
import { bytes } from '@/player/time'
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
  one.is_there ? 'there' : one.is_other ? 'another volume, or none, in its place' : 'not there'

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
  say(`Cards are copied to ${fresh.value.name} as well from now on.`)
  fresh.value = { name: '', path: '' }
  makeStale('settings')
}
</script>

<template>
  <p class="intro">
    Cards are copied to every one of these, unless somebody chooses among them. Each holds a small file that says which
    volume it is; where that file is missing, nothing is written. Two copies count as two only on two disks.
  </p>
  <p v-if="isOneDisk" class="note warn disk">
    All of these lie on one disk. Cards can be copied and verified; releasing one will ask for a typed word.
  </p>
  <AnswerState :pending="isPending" :error="error" :rows="4" @retry="refetch()">
    <table v-if="data" class="list">
      <thead>
        <tr>
          <th>Name</th>
          <th>Path on the machine of the desk</th>
          <th>State</th>
          <th>Free</th>
          <th>Cards</th>
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
              :aria-label="`Name of ${one.name}`"
              @change="change(one, { name: value($event) }, 'Kept.')"
            />
          </td>
          <td class="mono path" :title="one.path">{{ one.path }}</td>
          <td class="state" :class="one.is_there ? 'good' : 'fault'">
            {{ one.is_retired ? 'no longer used' : state(one) }}
          </td>
          <td class="mono">{{ one.free_bytes === null ? '' : bytes(one.free_bytes) }}</td>
          <td class="mono">{{ one.cards }}</td>
          <td class="act">
            <template v-if="manage">
              <button
                v-if="!one.is_there && one.is_other"
                class="plain"
                title="Make what lies at this path now the volume that is meant"
                @click="change(one, { mark: true }, `${one.name} is what lies there now.`)"
              >
                It is this one
              </button>
              <button
                v-if="index > 0"
                class="plain"
                :aria-label="`${one.name} before the one above`"
                title="Before the one above"
                @click="change(one, { position: index - 1 }, 'Kept.')"
              >
                ↑
              </button>
              <button
                class="plain"
                @click="
                  change(
                    one,
                    { retired: !one.is_retired },
                    one.is_retired ? `${one.name} is used again.` : `Nothing is copied to ${one.name} any more.`,
                  )
                "
              >
                {{ one.is_retired ? 'Use again' : 'Retire' }}
              </button>
            </template>
          </td>
        </tr>
      </tbody>
    </table>
    <form v-if="manage" class="add" @submit.prevent="add">
      <label>Name<input v-model="fresh.name" class="field" required maxlength="60" placeholder="Shuttle 2" /></label>
      <label
        >Path<input
          v-model="fresh.path"
          class="field mono"
          required
          maxlength="400"
          size="34"
          placeholder="/mnt/shuttle-2"
      /></label>
      <button class="go" type="submit">Add the volume</button>
    </form>
    <p v-else class="intro">The admin of the production changes these.</p>
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
