<script setup lang="ts">
import { t } from '@/words'
import { useSessionStorage, watchDebounced } from '@vueuse/core'
import { watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useDesk } from '@/shell/desk'
import { useShortcuts } from '@/shell/keys'
import { beside, opened, placeOf, stood, type OpenCut } from './openCuts'

/** The cuts that lie open in this window: the one that is here, and the way to the others, each where it was left. */
const props = defineProps<{
  cut: string
  kind: OpenCut['kind']
  /** Empty until it is known. */
  name: string
  /** Ticks. */
  at: number
}>()
const { production } = useDesk()
const route = useRoute()
const router = useRouter()
const open = useSessionStorage<OpenCut[]>(placeOf(production.value.ulid), [])
watch(
  () => props.name,
  (name) => name !== '' && (open.value = opened(open.value, props.cut, props.kind, name)),
  { immediate: true },
)
// As it goes along: when the page is left, its player is gone before.
watchDebounced(
  () => props.at,
  (at) => (open.value = stood(open.value, props.cut, Math.round(at))),
  { debounce: 150, maxWait: 1000 },
)
function go(one: OpenCut | null | undefined): void {
  if (one === null || one === undefined || one.ulid === props.cut) return
  void router.push({
    name: 'assembly',
    params: route.params,
    query: one.kind === 'wall' ? { wall: one.ulid } : { cut: one.ulid, at: String(one.at) },
  })
}
useShortcuts('Open cuts', [
  {
    keys: ['Alt+PageUp', 'Alt+PageDown'],
    what: t('assembly.OpenCuts.theOpenCutBefore'),
    run: (event) => go(beside(open.value, props.cut, event.key === 'PageUp' ? -1 : 1)),
  },
])
</script>

<template>
  <select
    v-if="open.length > 1"
    class="field open"
    :value="cut"
    :aria-label="t('assembly.OpenCuts.openCuts')"
    :title="t('assembly.OpenCuts.openCutsKeys')"
    @change="go(open.find((one) => one.ulid === ($event.target as HTMLSelectElement).value))"
  >
    <option v-for="one in open" :key="one.ulid" :value="one.ulid">
      {{ one.kind === 'wall' ? t('assembly.OpenCuts.betweenAngles', [one.name]) : one.name }}
    </option>
  </select>
  <slot v-else />
</template>

<style scoped>
.open {
  max-width: 240px;
  font-weight: 600;
  background: transparent;
  color: inherit;
}
.open option {
  background: var(--sheet);
  color: var(--ink);
}
</style>
