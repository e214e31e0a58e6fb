<script setup lang="ts">
import { t } from '@/words'
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
  say(t('log.ScriptDialog.scenesAreInCtrlZ', [report.value?.scenes]))
  makeStale('takes')
  emit('close')
}
const list = (names: string[]) =>
  names.slice(0, 30).join(', ') + (names.length > 30 ? t('log.ScriptDialog.andMore', [names.length - 30]) : '')
</script>

<template>
  <Modal
    :open="open"
    :title="t('log.ScriptDialog.script')"
    :ok-text="
      report === null ? t('log.ScriptDialog.chooseAFile') : t('log.ScriptDialog.bringInScenes', [report.scenes])
    "
    :cancel-text="t('log.ScriptDialog.leaveIt')"
    @ok="apply"
    @cancel="emit('close')"
  >
    <input
      ref="picker"
      type="file"
      class="hush"
      accept=".fountain,.txt,.text,.spmd"
      :aria-label="t('log.ScriptDialog.aScript')"
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
        ><b>{{ t('log.ScriptDialog.dropAScriptHere') }}</b>
        <p class="soft">
          {{ t('log.ScriptDialog.fountainOrPlainTextHeadings') }}
        </p></template
      >
      <dl v-else>
        <dt>{{ t('log.ScriptDialog.file') }}</dt>
        <dd>
          <b>{{ chosen?.name }}</b>
        </dd>
        <dt>{{ t('log.ScriptDialog.scenes') }}</dt>
        <dd>{{ t('log.ScriptDialog.pages', [report.scenes, report.pages]) }}</dd>
        <dt>{{ t('log.ScriptDialog.newHere') }}</dt>
        <dd>{{ report.new.length === 0 ? t('log.ScriptDialog.none') : list(report.new) }}</dd>
        <dt>{{ t('log.ScriptDialog.changed') }}</dt>
        <dd>{{ report.changed.length === 0 ? t('log.ScriptDialog.none') : list(report.changed) }}</dd>
        <dt>{{ t('log.ScriptDialog.gone') }}</dt>
        <dd>
          {{
            report.gone.length === 0
              ? t('log.ScriptDialog.none')
              : t('log.ScriptDialog.whatWasShotOfThem', [list(report.gone)])
          }}
        </dd>
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
