<script setup lang="ts">
import { log as logApi } from '@/api/endpoints/log'
import { Modal } from 'ant-design-vue'
import { ref, shallowRef, watch } from 'vue'
import { makeStale } from '@/api/queries'
import type { ScriptReport } from '@/api/types'
import { useDesk } from '@/shell/desk'
import { attempt, say } from '@/shell/say'

/** A script in Fountain or plain text: its scenes are seen first, then stand over what was shot of them. */
const props = defineProps<{ open: boolean }>()
const emit = defineEmits<{ close: [] }>()
const picker = ref<HTMLInputElement | null>(null)
const chosen = shallowRef<File | null>(null)
const { production } = useDesk()
const report = shallowRef<ScriptReport | null>(null)
const over = ref(false)
watch(
  () => props.open,
  () => {
    chosen.value = null
    report.value = null
  },
)

async function bring(list: FileList | null | undefined): Promise<void> {
  over.value = false
  const file = list?.[0]
  if (file === undefined) return
  report.value = (await attempt(() => logApi.script(production.value.ulid, file))) ?? null
  chosen.value = report.value === null ? null : file
  if (picker.value !== null) picker.value.value = ''
}
async function apply(): Promise<void> {
  const file = chosen.value
  if (file === null) return picker.value?.click()
  if ((await attempt(() => logApi.script(production.value.ulid, file, { apply: '1' }))) === undefined) return
  say(`${report.value?.scenes} scenes are in. Ctrl+Z takes them back.`)
  makeStale('takes')
  emit('close')
}
const list = (names: string[]) =>
  names.slice(0, 30).join(', ') + (names.length > 30 ? ` and ${names.length - 30} more` : '')
</script>

<template>
  <Modal
    :open="open"
    title="Script"
    :ok-text="report === null ? 'Choose a file' : `Bring in ${report.scenes} scenes`"
    cancel-text="Leave it"
    @ok="apply"
    @cancel="emit('close')"
  >
    <input
      ref="picker"
      type="file"
      class="hush"
      accept=".fountain,.txt,.text,.spmd"
      aria-label="A script"
      @change="bring(($event.target as HTMLInputElement).files)"
    />
    <div
      class="bring"
      :class="{ over }"
      @dragover.prevent="over = true"
      @dragleave="over = false"
      @drop.prevent="bring($event.dataTransfer?.files)"
    >
      <template v-if="report === null"
        ><b>Drop a script here</b>
        <p class="soft">
          Fountain or plain text. Headings, who speaks and the length in eighths come over the scenes of the sheet;
          nothing of what is logged changes.
        </p></template
      >
      <dl v-else>
        <dt>File</dt>
        <dd>
          <b>{{ chosen?.name }}</b>
        </dd>
        <dt>Scenes</dt>
        <dd>{{ report.scenes }}, {{ report.pages }} pages</dd>
        <dt>New here</dt>
        <dd>{{ report.new.length === 0 ? 'none' : list(report.new) }}</dd>
        <dt>Changed</dt>
        <dd>{{ report.changed.length === 0 ? 'none' : list(report.changed) }}</dd>
        <dt>Gone</dt>
        <dd>{{ report.gone.length === 0 ? 'none' : `${list(report.gone)}; what was shot of them stays` }}</dd>
      </dl>
    </div>
  </Modal>
</template>

<style scoped>
.bring {
  border: 1.5px dashed var(--rule-strong);
  border-radius: 8px;
  padding: 22px;
}
.bring.over {
  border-color: var(--act);
  background: var(--act-soft);
}
.bring p {
  margin: 4px 0 0;
}
dl {
  display: grid;
  grid-template-columns: 80px 1fr;
  gap: 6px;
  margin: 0;
}
dt {
  color: var(--ink-soft);
}
dd {
  margin: 0;
}
</style>
