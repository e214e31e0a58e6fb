<script setup lang="ts">
import { deskSays } from '@/words/desk'
import { t } from '@/words'
import { computed } from 'vue'
import type { Stray, StrayStep } from '@/api/types'
import { length } from '@/player/time'
import DeviceBadge from '@/shell/DeviceBadge.vue'
import { say } from '@/shell/say'
import { useSoFar } from '@/shell/soFar'

/** Clips without a place: why, and what fits each. */
const props = defineProps<{ strays: Stray[]; mayWork: boolean }>()
const emit = defineEmits<{ step: [stray: Stray, which: StrayStep] }>()
const { soFar, rest } = useSoFar(() => props.strays)
const strayWords = computed(() => {
  const fresh = props.strays.filter((one) => one.steps[0] === 'lineup').length
  const out = props.strays.filter((one) => one.left_out).length
  const groups: [number, string][] = [
    [props.strays.length - fresh - out, t('lineup.StrayTray.nothingCouldPlace')],
    [fresh, t('lineup.StrayTray.cameInSinceTheLast')],
    [out, t('lineup.StrayTray.takenOutByAPerson')],
  ]
  return t('lineup.StrayTray.nobodyUp', [
    groups
      .filter(([count]) => count > 0)
      .map(([count, what]) => `${count} ${what}`)
      .join(', '),
    props.strays.length === 1 ? t('lineup.StrayTray.itHolds') : t('lineup.StrayTray.theyHold'),
  ])
})
const STEPS: Record<StrayStep, string> = {
  back: t('lineup.StrayTray.letItInAgain'),
  lineup: t('lineup.StrayTray.lineItUp'),
  clap: t('lineup.StrayTray.matchAClap'),
  hand: t('lineup.StrayTray.placeByHand'),
  false_start: t('lineup.StrayTray.markFalseStart'),
  out: t('lineup.StrayTray.notInThisLineUp'),
  wild: t('lineup.StrayTray.itIsWild'),
}
/** The focus goes to what fits the next stray; Enter does it. */
function nextStray(): void {
  const first = [...document.querySelectorAll('.stray')]
    .map((stray) => stray.querySelector<HTMLElement>('button'))
    .filter((button) => button !== null)
  const at = first.findIndex((button) => button.closest('.stray')?.contains(document.activeElement))
  if (first.length === 0) say(t('lineup.StrayTray.thereIsNoStray'))
  else first[(at + 1) % first.length]!.focus()
}

defineExpose({ nextStray })
</script>

<template>
  <div class="strays">
    <h2>
      {{ t('lineup.StrayTray.strays') }} <span class="soft">— {{ strayWords }}</span>
    </h2>
    <div class="tray">
      <div v-for="stray in soFar" :key="stray.clip" class="stray" :class="{ out: stray.left_out }">
        <span
          ><DeviceBadge :letter="stray.device" /> <b class="mono">{{ stray.name }}</b>{{ ' ' }}
          <span class="mono soft">{{ length(stray.duration_ticks) }}</span></span
        >
        <p>{{ deskSays(stray.reason) }}</p>
        <span v-if="mayWork" class="steps"
          ><button v-for="which in stray.steps" :key="which" class="plain" @click="emit('step', stray, which)">
            {{ STEPS[which] }}
          </button></span
        >
      </div>
      <p v-if="rest > 0" ref="end" class="soft">{{ t('shell.soFar.more', [rest]) }}</p>
    </div>
  </div>
</template>

<style scoped>
.strays {
  border-top: 1px solid var(--rule-strong);
  background: var(--sheet-2);
  padding: 10px 18px;
  max-height: 212px;
  overflow: auto;
  flex: none;
}
.strays h2 span {
  font-weight: 400;
  font-size: 12px;
}
.tray {
  display: flex;
  gap: 10px;
  flex-wrap: wrap;
  margin-top: 8px;
}
.stray {
  overflow-wrap: anywhere;
  width: 258px;
  border: 1px dashed var(--fault);
  border-radius: 5px;
  padding: 8px 10px;
  background: var(--sheet);
}
.stray p {
  margin: 4px 0 8px;
  font-size: 11.5px;
  color: var(--ink-soft);
}
.steps {
  display: flex;
  gap: 5px;
  flex-wrap: wrap;
}
.steps button {
  padding: 3px 8px;
  font-size: 12px;
}
.stray.out {
  border-color: var(--rule-strong);
  opacity: 0.8;
}
</style>
