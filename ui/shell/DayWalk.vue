<script setup lang="ts">
import { t } from '@/words'
import { useLocalStorage } from '@vueuse/core'
import { computed, nextTick, onScopeDispose, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { WALK, WALK_END } from './walk'

/** Leads past the stages of a day, one after the other; it can be left at any point and goes on from there. */
const emit = defineEmits<{ leave: [] }>()
const route = useRoute()
const router = useRouter()
const at = useLocalStorage('cartella.walk', 0)
const step = computed(() => WALK[at.value] ?? null)
const next = ref<HTMLButtonElement | null>(null)

// The part that is meant has an edge round it while it is talked about.
let marked: Element | null = null
let watching: MutationObserver | null = null
function unmark(): void {
  watching?.disconnect()
  marked?.classList.remove('walked')
  watching = marked = null
}
function mark(): void {
  unmark()
  const part = step.value?.part
  if (part === undefined) return
  const find = (): boolean => {
    marked = document.querySelector(`main ${part}`)
    marked?.classList.add('walked')
    return marked !== null
  }
  if (find()) return
  // The page asks for its answer first.
  watching = new MutationObserver(() => find() && watching?.disconnect())
  watching.observe(document.body, { childList: true, subtree: true })
}
watch(
  step,
  async (now) => {
    if (now !== null && route.name !== now.stage) await router.push({ name: now.stage, params: route.params })
    await nextTick()
    mark()
    next.value?.focus()
  },
  { immediate: true },
)
// Who looks around meanwhile finds the part again when the page is back.
watch(() => route.name, mark, { flush: 'post' })
onScopeDispose(unmark)

function leave(): void {
  if (step.value === null) at.value = 0
  emit('leave')
}
</script>

<template>
  <section class="walk" :aria-label="t('shell.DayWalk.aWalkThroughTheDay')" @keydown.esc.stop="leave">
    <p class="soft count">
      {{ step === null ? t('shell.DayWalk.theEnd') : t('shell.DayWalk.of', [at + 1, WALK.length]) }}
    </p>
    <div role="status">
      <h2>{{ step?.title ?? t('shell.DayWalk.youHaveSeenItAll') }}</h2>
      <p>{{ step?.text ?? WALK_END }}</p>
    </div>
    <div class="ways">
      <button v-if="step !== null" ref="next" class="go" @click="at++">
        {{ at + 1 < WALK.length ? t('shell.DayWalk.next') : t('shell.DayWalk.lastWord') }}
      </button>
      <button v-if="at > 0" class="plain" @click="at = Math.min(at, WALK.length) - 1">
        {{ t('shell.DayWalk.back') }}
      </button>
      <button class="plain push" :title="t('shell.DayWalk.esc')" @click="leave">
        {{ step === null ? t('shell.DayWalk.close') : t('shell.DayWalk.leaveIt') }}
      </button>
    </div>
  </section>
</template>

<style scoped>
.walk {
  position: fixed;
  z-index: 900;
  right: 18px;
  bottom: 18px;
  width: min(340px, calc(100vw - 36px));
  padding: 14px 16px;
  border: 1px solid var(--rule-strong);
  border-radius: 6px;
  background: var(--sheet);
  box-shadow: 0 6px 24px rgb(31 42 51 / 24%);
}
.count {
  margin: 0 0 2px;
  font-size: 12px;
}
h2 {
  font-size: 15px;
  margin: 0 0 4px;
}
.walk p {
  margin-top: 0;
}
.ways {
  display: flex;
  gap: 12px;
  align-items: center;
}
</style>
