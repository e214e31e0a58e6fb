<script setup lang="ts">
import { t } from '@/words'
import { log as logApi } from '@/api/endpoints/log'
import { watchDebounced } from '@vueuse/core'
import { computed, nextTick, ref, shallowRef } from 'vue'
import { ApiError } from '@/api/client'
import { makeStale } from '@/api/queries'
import type { Understood } from '@/api/types'
import { useDesk } from '@/shell/desk'

/** One typed line at the foot of the sheet: it says what it understood while it is typed, and Enter logs it. */
const props = defineProps<{
  row: string | null
  seen: (slate: string | null) => Record<string, unknown>
  isClip: boolean
  on: string
  example: string
}>()
const emit = defineEmits<{
  logged: [take: string, of: string | null, isClip: boolean]
  leave: []
  move: [step: number]
}>()
const { production, day } = useDesk()

const input = ref<HTMLInputElement | null>(null)
const text = ref('')
const active = ref(false)
const busy = ref(false)
const understood = shallowRef<Understood | null>(null)
const trouble = ref('')
/** The take that the line before logged; a clip without a slate goes on from it. */
const last = ref<string | null>(null)
const does = computed(() => {
  const now = understood.value
  if (now === null || now.slate === null) return ''
  return {
    nothing: '',
    joins: t('log.LogLine.putsInto', [props.on, now.slate]),
    'joins-new': t('log.LogLine.makesOf', [now.slate, props.on]),
    makes: t('log.LogLine.makesNoClipShowsIt', [now.slate]),
    edits: t('log.LogLine.changes', [now.slate]),
  }[now.does]
})

/** The text that `understood` answers. */
let read = ''
async function understand(): Promise<void> {
  const asked = text.value
  if (asked.trim() === '') {
    understood.value = null
    trouble.value = ''
    return
  }
  const query = new URLSearchParams({ text: asked, row: props.row ?? '', last: last.value ?? '' })
  const answer = await logApi.understand(production.value.ulid, day.value.ulid, query.toString()).catch(() => null)
  if (asked === text.value) {
    understood.value = answer
    read = asked
    trouble.value = ''
  }
}
watchDebounced([text, () => props.row], understand, { debounce: 60 })

async function log(): Promise<void> {
  if (text.value.trim() === '' || busy.value) return
  busy.value = true
  const { row, isClip } = props
  try {
    // Enter may be faster than the answer to the last letters.
    if (read !== text.value) await understand()
    const answer = await logApi.type(production.value.ulid, day.value.ulid, {
      text: text.value,
      row,
      last: last.value,
      seen: props.seen(understood.value?.slate ?? null),
    })
    last.value = answer.take
    text.value = ''
    understood.value = null
    trouble.value = ''
    emit('logged', answer.take, row, isClip)
  } catch (error) {
    const other =
      error instanceof ApiError && error.status === 409
        ? (error.context.fields as { field: string; theirs: unknown }[])[0]
        : undefined
    // The sheet has their value now; Enter once more means it.
    trouble.value =
      other !== undefined
        ? t('log.LogLine.somebodyElseHasSetTo', [other.field.replace('is_', ''), String(other.theirs)])
        : error instanceof ApiError
          ? `${error.message} ${error.fix}`
          : t('log.LogLine.itCouldNotBeLogged')
    if (other !== undefined) makeStale('takes')
  } finally {
    busy.value = false
  }
}
function open(begin = ''): void {
  text.value = begin
  void nextTick(() => input.value?.focus())
}
function enter(): void {
  active.value = true
  void understand()
}
function leave(): void {
  text.value = ''
  understood.value = null
  trouble.value = ''
  input.value?.blur()
  emit('leave')
}
defineExpose({ open })
</script>

<template>
  <div class="line" :class="{ active }">
    <div v-if="active && (understood || trouble)" class="says" aria-live="polite">
      <span v-if="trouble" class="fault" role="alert">{{ trouble }}</span>
      <template v-else-if="understood">
        <span v-for="problem in understood.problems" :key="problem" class="fault" role="alert">{{ problem }}</span>
        <span v-for="(piece, index) in understood.pieces" :key="index" class="piece" :class="piece.is"
          ><small>{{ piece.is }}</small
          >{{ piece.says }}</span
        >
        <span v-for="hint in understood.hints" :key="hint" class="warn">{{ hint }}</span>
        <span v-if="does" class="soft does">{{ does }}</span>
      </template>
    </div>
    <div class="entry">
      <label for="log-line"><kbd>B</kbd> {{ t('log.LogLine.log') }}</label>
      <input
        id="log-line"
        ref="input"
        v-model="text"
        class="field mono"
        :placeholder="example"
        maxlength="500"
        autocomplete="off"
        spellcheck="false"
        @focus="enter"
        @blur="active = false"
        @keydown.enter.stop.prevent="log"
        @keydown.esc.stop="leave"
        @keydown.down.prevent="emit('move', 1)"
        @keydown.up.prevent="emit('move', -1)"
      />
      <span class="soft hint"
        ><template v-if="active"
          ><b>{{ on }}</b> · <kbd>+</kbd> {{ t('log.LogLine.nextTake') }} <kbd>=</kbd> {{ t('log.LogLine.sameSlate') }}
          <kbd>Ctrl Space</kbd> {{ t('log.LogLine.play') }}</template
        ><slot v-else
      /></span>
    </div>
  </div>
</template>

<style scoped>
.line {
  border-top: 1px solid var(--rule-strong);
  background: var(--sheet-2);
  display: grid;
  align-content: end;
  position: relative;
}
.entry {
  display: flex;
  align-items: center;
  gap: 10px;
  padding: 7px 14px;
  min-height: 44px;
}
.entry label {
  display: flex;
  gap: 6px;
  align-items: center;
  white-space: nowrap;
  font-size: 12px;
}
.field {
  flex: 0 1 370px;
  min-width: 180px;
  height: 29px;
  font: 12.5px var(--mono);
}
.active .field {
  border-color: var(--act);
  flex-grow: 1;
}
.hint {
  font-size: 12px;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
  min-width: 0;
  display: block;
}
.hint kbd {
  margin-left: 6px;
}
.hint b {
  color: var(--ink);
  font-weight: 600;
}
.says {
  position: absolute;
  left: 0;
  right: 0;
  bottom: 100%;
  display: flex;
  flex-wrap: wrap;
  gap: 6px 8px;
  align-items: center;
  padding: 8px 14px;
  background: var(--sheet);
  border-top: 1px solid var(--rule-strong);
  box-shadow: 0 -4px 14px #1f2a3312;
  font-size: 12.5px;
  z-index: 6;
}
.piece {
  border: 1px solid var(--rule-strong);
  border-radius: 4px;
  padding: 1px 8px 2px;
  background: var(--sheet-2);
}
.piece small {
  color: var(--ink-soft);
  font-size: 10.5px;
  margin-right: 6px;
}
.piece.slate {
  border-color: var(--act);
  background: var(--act-soft);
  font-weight: 600;
  font-family: var(--mono);
}
.piece.status {
  border-color: var(--act);
  color: var(--act);
  font-weight: 600;
}
.does {
  margin-left: auto;
}
</style>
