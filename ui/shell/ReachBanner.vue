<script setup lang="ts">
import { t } from '@/words'
import { useEventListener } from '@vueuse/core'
import { forget, lookForIt, onBack, reach } from '@/api/reach'
import { queryClient } from '@/api/queries'

/** Says that the desk cannot be reached, and what waits; when it is back, all on screen is asked for anew. */
onBack(() => void queryClient.invalidateQueries())
useEventListener(window, 'offline', () => void lookForIt())
useEventListener(window, 'beforeunload', (event) => {
  if (reach.waiting > 0) event.preventDefault()
})
</script>

<template>
  <div v-if="reach.isLost" class="reach" role="status">
    <span
      >{{ t('shell.ReachBanner.cartellaCannotBeReached') }}
      <template v-if="reach.waiting === 0">{{ t('shell.ReachBanner.itIsLookedFor') }}</template>
      <template v-else>{{
        t('shell.ReachBanner.sentWhenItIsBack', [
          reach.waiting === 1
            ? t('shell.ReachBanner.oneChangeWaitsAndIs')
            : t('shell.ReachBanner.changesWaitAndAre', [reach.waiting]),
        ])
      }}</template></span
    >
    <button v-if="reach.waiting > 0" class="plain" @click="forget">{{ t('shell.ReachBanner.doNotSend') }}</button>
  </div>
</template>

<style scoped>
.reach {
  position: fixed;
  z-index: 2000;
  left: 50%;
  bottom: 14px;
  transform: translateX(-50%);
  display: flex;
  gap: 14px;
  align-items: center;
  max-width: calc(100vw - 28px);
  padding: 8px 16px;
  border: 1px solid var(--warn-edge);
  border-radius: 4px;
  background: var(--warn-soft);
  color: var(--ink);
  box-shadow: 0 3px 14px rgb(31 42 51 / 22%);
}
</style>
