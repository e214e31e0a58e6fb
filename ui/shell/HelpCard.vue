<script setup lang="ts">
import { t } from '@/words'
import { useEventListener } from '@vueuse/core'
import { Modal } from 'ant-design-vue'
import { computed, onMounted, ref, watch } from 'vue'
import { session } from '@/api/endpoints/session'
import { groups, idOf, keysOf, ownKeys, pressed, type Shortcut } from './keys'
import { attempt, say } from './say'

/** The keys of what is on screen; each can be given another one, which is kept for the person. */
const props = defineProps<{ open: boolean }>()
defineEmits<{ close: [] }>()
interface Line {
  id: string
  what: string
  keys: string[]
  usual: string[]
  fixed: boolean
}
/** Parts of the page add to one group, such as what works everywhere; two players of one page are one. */
const merged = computed(() =>
  [...Map.groupBy(groups, (group) => group.scope)].map(([scope, parts]) => {
    const lines = new Map<string, Line>()
    for (const shortcut of parts.flatMap((part) => part.shortcuts)) {
      const id = idOf(scope, shortcut)
      if (!lines.has(id)) lines.set(id, line(scope, id, shortcut))
    }
    return { scope, lines: [...lines.values()] }
  }),
)
const line = (scope: string, id: string, shortcut: Shortcut): Line => ({
  id,
  what: shortcut.what,
  keys: keysOf(scope, shortcut),
  usual: shortcut.keys,
  fixed: shortcut.leaveToBrowser === true,
})
const scopeName = (scope: string): string => t(`scopes.${scope.replaceAll(/\W/g, '')}`)
const SIGNS: Record<string, string> = {
  ' ': t('shell.HelpCard.space'),
  ArrowUp: '↑',
  ArrowDown: '↓',
  ArrowLeft: '←',
  ArrowRight: '→',
  Escape: t('shell.HelpCard.esc'),
  PageDown: 'Page ↓',
  PageUp: 'Page ↑',
}
function shown(key: string): string {
  const parts = key.match(/^(Ctrl\+)?(Alt\+)?(Shift\+)?(.+)$/s)
  const [, ctrl, alt, shift, own = key] = parts ?? []
  const name = SIGNS[own] ?? (/^[a-z]$/.test(own) ? own.toUpperCase() : own)
  return `${ctrl ? 'Ctrl ' : ''}${alt ? 'Alt ' : ''}${shift ? '⇧ ' : ''}${name}`
}

// Another key: chosen, then pressed.
const changing = ref<{ scope: string; line: Line; at: number } | null>(null)
watch(
  () => props.open,
  () => (changing.value = null),
)
useEventListener(
  window,
  'keydown',
  (event: KeyboardEvent) => {
    if (changing.value === null || ['Shift', 'Control', 'Alt', 'Meta'].includes(event.key)) return
    event.preventDefault()
    event.stopImmediatePropagation()
    if (event.key === 'Escape') changing.value = null
    else void take(pressed(event))
  },
  { capture: true },
)
async function take(key: string): Promise<void> {
  const now = changing.value
  if (now === null) return
  changing.value = null
  const taken = merged.value
    .find((group) => group.scope === now.scope)
    ?.lines.find((one) => one.id !== now.line.id && one.keys.includes(key))
  if (taken !== undefined) {
    say(t('shell.HelpCard.isAlreadyGiveThatAnother', [shown(key), taken.what]))
    return
  }
  await keep(now.line, now.line.keys.with(now.at, key))
}
async function keep(one: Line, keys: string[]): Promise<void> {
  const isUsual = JSON.stringify(keys) === JSON.stringify(one.usual)
  const next = Object.fromEntries(Object.entries(ownKeys.value).filter(([id]) => id !== one.id))
  if (!isUsual) next[one.id] = keys
  if ((await attempt(() => session.setKeys(next))) !== undefined) ownKeys.value = next
}

/** The card alone, on paper: theme/tokens.css leaves everything else out meanwhile. */
function print(): void {
  document.body.classList.add('prints')
  window.addEventListener('afterprint', () => document.body.classList.remove('prints'), { once: true })
  window.print()
}

/** Whether the card goes on below what is seen. */
const box = ref<HTMLElement | null>(null)
const goesOn = ref(false)
function look(): void {
  const card = box.value
  goesOn.value = card !== null && card.scrollTop + card.clientHeight < card.scrollHeight - 4
}
watch([box, merged], () => requestAnimationFrame(look))
onMounted(look)
</script>

<template>
  <Modal :open="open" :title="t('shell.HelpCard.keysOfThisPage')" :footer="null" width="760px" @cancel="$emit('close')">
    <div class="frame" :class="{ on: goesOn }">
      <div ref="box" class="scroll" tabindex="0" @scroll="look">
        <div class="card">
          <section v-for="group in merged" :key="group.scope">
            <h2>{{ scopeName(group.scope) }}</h2>
            <dl>
              <template v-for="one in group.lines" :key="one.id">
                <dt>
                  <component
                    :is="one.fixed ? 'span' : 'button'"
                    v-for="(key, at) in one.keys"
                    :key="at"
                    class="cap"
                    :class="{ own: one.keys[at] !== one.usual[at] }"
                    :title="
                      one.fixed
                        ? t('shell.HelpCard.theBrowserDoesThisOne')
                        : t('shell.HelpCard.anotherKeyFor', [one.what])
                    "
                    @click="one.fixed || (changing = { scope: group.scope, line: one, at })"
                    ><kbd>{{
                      changing?.line.id === one.id && changing.at === at ? t('shell.HelpCard.pressAKey') : shown(key)
                    }}</kbd></component
                  >
                </dt>
                <dd>
                  {{ one.what }}
                  <button
                    v-if="JSON.stringify(one.keys) !== JSON.stringify(one.usual)"
                    class="usual"
                    @click="keep(one, one.usual)"
                  >
                    {{ t('shell.HelpCard.asUsual') }}
                  </button>
                </dd>
              </template>
            </dl>
          </section>
        </div>
      </div>
      <p class="more" aria-hidden="true">{{ t('shell.HelpCard.moreBelow') }}</p>
    </div>
    <p class="soft hint">
      {{ t('shell.HelpCard.aClickOnAKey') }}
      <button class="plain print" @click="print">{{ t('shell.HelpCard.printThisCard') }}</button>
    </p>
  </Modal>
</template>

<style scoped>
.frame {
  position: relative;
}
.scroll {
  max-height: 62vh;
  overflow-y: auto;
  outline: none;
}
.card {
  columns: 2;
  column-gap: 28px;
}
.more {
  display: none;
  position: absolute;
  left: 0;
  right: 0;
  bottom: 0;
  margin: 0;
  padding: 22px 0 2px;
  text-align: center;
  font-size: 12px;
  color: var(--ink-soft);
  background: linear-gradient(#fffdf600, var(--sheet) 60%);
  pointer-events: none;
}
.on .more {
  display: block;
}
section {
  break-inside: avoid-column;
  margin-bottom: 18px;
}
dl {
  display: grid;
  grid-template-columns: 112px 1fr;
  gap: 5px 10px;
  margin: 8px 0 0;
  align-items: start;
}
dt {
  display: flex;
  gap: 3px;
  justify-content: flex-end;
  align-items: flex-start;
  flex-wrap: wrap;
}
dd {
  margin: 0;
}
.cap {
  border: 0;
  padding: 0;
  background: none;
  flex: none;
}
button.cap {
  cursor: pointer;
}
button.cap:hover kbd {
  border-color: var(--act);
}
.own kbd {
  color: var(--act);
  border-color: var(--act);
}
.usual {
  border: 0;
  background: none;
  color: var(--act);
  cursor: pointer;
  font-size: 11px;
  padding: 0 4px;
}
.hint {
  margin: 12px 0 0;
  font-size: 12px;
  display: flex;
  justify-content: space-between;
  align-items: center;
}
@media print {
  .scroll {
    max-height: none;
    overflow: visible;
  }
  .hint,
  .more {
    display: none !important;
  }
}
</style>
