<script setup lang="ts">
import { computed, nextTick, useTemplateRef, watch } from 'vue'
import { bins as binsApi } from '@/api/endpoints/bins'
import { useAnswer } from '@/api/queries'
import ClipPlayer from '@/player/ClipPlayer.vue'
import { TICKS } from '@/player/time'
import AnswerState from '@/shell/AnswerState.vue'
import { useDesk } from '@/shell/desk'

/** Plays a clip from a place in it where something is said, as soon as it is there. */
const props = defineProps<{
  clip: string
  /** Ticks from the clip's start. */
  from: number
  /** Where it ends by itself; null lets it go on. */
  to?: number | null
  take?: string | null
  /** Another number lets it be heard again. */
  turn: number
}>()
const emit = defineEmits<{ end: [] }>()
const { production } = useDesk()
const { data: sheet, isPending, error, refetch } = useAnswer(() => binsApi.clip(production.value.ulid, props.clip))
const player = useTemplateRef('player')
const ready = computed(() => player.value !== null && sheet.value?.ulid === props.clip)
/** What is heard around it. */
const LEAD = TICKS / 4
function start(): void {
  if (player.value === null) return
  player.value.goToTicks(Math.max(0, props.from - LEAD))
  player.value.player.transport.run(1)
}
watch([ready, () => props.turn], () => ready.value && void nextTick(start))
watch(
  () => player.value?.ticks ?? 0,
  (ticks) => {
    if (props.to == null || player.value?.playing !== true || ticks < props.to + LEAD) return
    player.value.stop()
    emit('end')
  },
)
defineExpose({ stop: () => player.value?.stop() })
</script>

<template>
  <AnswerState :pending="isPending" :error="error" @retry="refetch()">
    <ClipPlayer
      v-if="sheet && sheet.ulid === clip && (sheet.kind === 'picture' || sheet.kind === 'sound')"
      ref="player"
      :key="sheet.ulid"
      :production="production.ulid"
      :clip="sheet"
      :marks="sheet.marks"
      :can-mark="false"
      bare
      :take="take"
    />
  </AnswerState>
</template>
