<script setup lang="ts">
import { t } from '@/words'
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
  say(t('assembly.PlanDialog.newCutsBeginWithThese'))
  makeStale('settings')
  emit('close')
}
</script>

<template>
  <Modal
    :open="open"
    :title="t('assembly.PlanDialog.tracksOfNewCuts')"
    :ok-text="t('assembly.PlanDialog.keep')"
    width="520px"
    @cancel="emit('close')"
    @ok="keep()"
  >
    <div class="rows">
      <div v-for="(one, index) in tracks" :key="index" class="row">
        <select
          class="field"
          :aria-label="t('assembly.PlanDialog.holds')"
          :value="one.kind"
          @change="kindIs(index, ($event.target as HTMLSelectElement).value)"
        >
          <option value="picture">{{ t('assembly.PlanDialog.picture') }}</option>
          <option value="sound">{{ t('assembly.PlanDialog.sound') }}</option>
        </select>
        <input v-model="one.name" class="field" maxlength="60" :aria-label="t('assembly.PlanDialog.name')" />
        <select v-model="one.role" class="field" :aria-label="t('assembly.PlanDialog.for')">
          <option v-for="[role, called] in roles(one.kind)" :key="role" :value="role">{{ called }}</option>
        </select>
        <button
          class="plain"
          :disabled="index === 0"
          :aria-label="t('assembly.PlanDialog.up')"
          @click="move(index, -1)"
        >
          ↑
        </button>
        <button
          class="plain"
          :disabled="index === tracks.length - 1"
          :aria-label="t('assembly.PlanDialog.down')"
          @click="move(index, 1)"
        >
          ↓
        </button>
        <button class="plain" @click="tracks.splice(index, 1)">{{ t('assembly.PlanDialog.remove') }}</button>
      </div>
    </div>
    <p>
      <button class="plain" @click="tracks.push({ kind: 'sound', name: '', role: 'effects' })">
        {{ t('assembly.PlanDialog.addATrack') }}
      </button>
      <button v-if="data?.is_own" class="plain" @click="keep([])">
        {{ t('assembly.PlanDialog.asTheDeskWouldHave') }}
      </button>
    </p>
    <p class="soft">{{ t('assembly.PlanDialog.cutsThatAreThereKeep') }}</p>
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
