<script setup lang="ts">
import { Modal } from 'ant-design-vue'
import { ref, watch } from 'vue'
import { assembly } from '@/api/endpoints/assembly'
import { makeStale, useAnswer } from '@/api/queries'
import { useDesk } from '@/shell/desk'
import { attempt, say } from '@/shell/say'

/** The tracks that new cuts of the production have. */
const props = defineProps<{ open: boolean }>()
const emit = defineEmits<{ close: [] }>()
const { production } = useDesk()
const { data } = useAnswer(() => (props.open ? assembly.plan(production.value.ulid) : null))
const tracks = ref<{ kind: 'picture' | 'sound'; name: string; role: string }[]>([])
watch([data, () => props.open], ([plan]) => (tracks.value = (plan?.tracks ?? []).map((one) => ({ ...one }))))
const PICTURES = ['picture', 'stand-in', 'titles']
const roles = (kind: string) =>
  Object.entries(data.value?.roles ?? {}).filter(([role]) => PICTURES.includes(role) === (kind === 'picture'))
function kindIs(index: number, kind: string): void {
  tracks.value[index] = {
    ...tracks.value[index]!,
    kind: kind as 'picture',
    role: kind === 'picture' ? 'picture' : 'dialogue',
  }
}
function move(index: number, by: number): void {
  const [one] = tracks.value.splice(index, 1)
  if (one !== undefined) tracks.value.splice(index + by, 0, one)
}
async function keep(plan = tracks.value): Promise<void> {
  if ((await attempt(() => assembly.setPlan(production.value.ulid, plan))) === undefined) return
  say('New cuts begin with these tracks.')
  makeStale('settings')
  emit('close')
}
</script>

<template>
  <Modal :open="open" title="Tracks of new cuts" ok-text="Keep" width="520px" @cancel="emit('close')" @ok="keep()">
    <div class="rows">
      <div v-for="(one, index) in tracks" :key="index" class="row">
        <select
          class="field"
          aria-label="Holds"
          :value="one.kind"
          @change="kindIs(index, ($event.target as HTMLSelectElement).value)"
        >
          <option value="picture">picture</option>
          <option value="sound">sound</option>
        </select>
        <input v-model="one.name" class="field" maxlength="60" aria-label="Name" />
        <select v-model="one.role" class="field" aria-label="For">
          <option v-for="[role, called] in roles(one.kind)" :key="role" :value="role">{{ called }}</option>
        </select>
        <button class="plain" :disabled="index === 0" aria-label="Up" @click="move(index, -1)">↑</button>
        <button class="plain" :disabled="index === tracks.length - 1" aria-label="Down" @click="move(index, 1)">
          ↓
        </button>
        <button class="plain" @click="tracks.splice(index, 1)">Remove</button>
      </div>
    </div>
    <p>
      <button class="plain" @click="tracks.push({ kind: 'sound', name: '', role: 'effects' })">Add a track</button>
      <button v-if="data?.is_own" class="plain" @click="keep([])">As the desk would have them</button>
    </p>
    <p class="soft">Cuts that are there keep their own tracks.</p>
  </Modal>
</template>

<style scoped>
.rows {
  display: grid;
  gap: 4px;
  max-height: 50vh;
  overflow: auto;
}
.row {
  display: flex;
  gap: 6px;
  align-items: center;
}
.row input {
  flex: 1;
  min-width: 0;
}
p {
  display: flex;
  gap: 14px;
  margin: 10px 0 0;
}
</style>
