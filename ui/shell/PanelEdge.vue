<script setup lang="ts">
import { t } from '@/words'
import { useDebounceFn, useEventListener, useWindowSize } from '@vueuse/core'
import { computed, ref, useTemplateRef, watchEffect } from 'vue'
import { useShortcuts } from './keys'
import { useSession } from './session'

/**
 * The edge of the panel on the right of a stage: dragged, or moved by a key, up to half the page; each person's stays
 * as they left it.
 * The page lays itself out by `--panel`.
 */
const props = defineProps<{ stage: 'log' | 'bins' | 'lineup'; usual: number }>()
const session = useSession()
const { width: pageWidth } = useWindowSize()
const edge = useTemplateRef<HTMLElement>('edge')

const LEAST = 280
const STEP = 120
const most = computed(() => Math.max(LEAST, Math.floor(pageWidth.value / 2)))
const wanted = ref(session.user?.panels[props.stage] ?? props.usual)
const width = computed(() => Math.round(Math.min(most.value, Math.max(LEAST, wanted.value))))

const keep = useDebounceFn(() => session.setPanel(props.stage, width.value).catch(() => {}), 600)
function set(next: number): void {
  wanted.value = Math.min(most.value, Math.max(LEAST, next))
  void keep()
}
watchEffect(() => edge.value?.parentElement?.style.setProperty('--panel', `${width.value}px`), { flush: 'post' })

const dragging = ref(false)
function begin(event: PointerEvent): void {
  dragging.value = true
  edge.value?.setPointerCapture(event.pointerId)
  event.preventDefault()
}
useEventListener(edge, 'pointermove', (event) => {
  if (dragging.value) set(pageWidth.value - event.clientX)
})
useEventListener(edge, ['pointerup', 'pointercancel'], () => (dragging.value = false))
function onKey(event: KeyboardEvent): void {
  const by = { ArrowLeft: 20, ArrowRight: -20 }[event.key]
  if (by === undefined) return
  event.preventDefault()
  event.stopPropagation()
  set(width.value + by)
}
useShortcuts('Panel', [
  {
    keys: ['Alt+w'],
    what: t('shell.PanelEdge.thePanelWiderUpTo'),
    run: () => set(width.value >= most.value ? props.usual : width.value + STEP),
  },
])
</script>

<template>
  <div
    ref="edge"
    class="edge"
    :class="{ on: dragging }"
    role="separator"
    aria-orientation="vertical"
    :aria-label="t('shell.PanelEdge.widthOfThePanel')"
    :aria-valuenow="width"
    :aria-valuemin="LEAST"
    :aria-valuemax="most"
    tabindex="0"
    :title="t('shell.PanelEdge.dragToMakeThePanel')"
    @pointerdown="begin"
    @dblclick="set(usual)"
    @keydown="onKey"
  />
</template>

<style scoped>
.edge {
  position: absolute;
  top: 0;
  bottom: 0;
  right: calc(var(--panel) - 3px);
  width: 7px;
  cursor: col-resize;
  z-index: 3;
  touch-action: none;
}
.edge:hover,
.edge.on,
.edge:focus-visible {
  background: linear-gradient(90deg, transparent 2px, var(--act) 2px 5px, transparent 5px);
  outline: none;
}
@media (max-width: 860px) {
  .edge {
    display: none;
  }
}
</style>
