<script setup lang="ts">
import { computed } from 'vue'
import type { Card } from '@/api/types'
import { bytes, length } from '@/player/time'
import DeviceBadge from '@/shell/DeviceBadge.vue'
import TaskProgress from '@/shell/TaskProgress.vue'
import { span, stampOf, timeOf } from './tile'

/** A card that was copied or is being copied. The tile fills from the left while it comes in. */
const props = defineProps<{ card: Card; title: string; chosen: boolean; may: boolean }>()
defineEmits<{ choose: []; act: [] }>()
const stamp = computed(() => stampOf(props.card))
/** Work that the card itself takes part in; making pictures of its clips goes on beside. */
const busy = computed(() => (props.card.task?.kind === 'catalogue' ? null : props.card.task))
const share = computed(() => {
  const task = busy.value
  if (task === null || task.total_bytes === 0) return null
  // Copying is half of the work, reading back and comparing the other.
  return (Math.max(task.copied_bytes, task.done_bytes) + task.done_bytes) / (2 * task.total_bytes)
})
/** What it was copied from can be read: a card in a reader, or files that were dropped on a page. */
const isAtHand = computed(() => props.card.on_bench || props.card.upload !== null)
const action = computed(() => {
  if (!props.may || busy.value !== null) return null
  if (props.card.state === 'fault' || props.card.state === 'stopped') return isAtHand.value ? 'Try again' : null
  return props.card.is_safe && props.card.released_at === null && !props.card.is_dropped ? 'Release…' : null
})
const foot = computed(() => {
  const card = props.card
  if (card.task?.kind === 'catalogue' && card.state === 'verified')
    return `cataloguing, ${card.task.done} of ${card.task.total}`
  if (card.state === 'fault' || card.state === 'stopped')
    return `${card.verified_files} of ${card.files} safe${isAtHand.value ? '' : '. Put it in a reader'}`
  const changed = card.copies.filter((copy) => !copy.is_whole)
  if (changed.length > 0) return `Not as it was copied: ${changed.map((copy) => copy.store).join(', ')}`
  if (card.released_at !== null)
    return `${timeOf(card.released_at)} by ${card.released_by ?? 'somebody'}${card.on_bench ? ', in the reader' : ''}`
  if (!card.is_safe)
    return card.copies.length === 1
      ? 'one copy; it needs a second'
      : `${card.verified_files} of ${card.files} files verified twice`
  return card.is_one_disk ? 'both copies on one disk' : `${card.copies.length} copies on ${card.copies.length} disks`
})
</script>

<template>
  <article
    class="card"
    data-row
    tabindex="0"
    :aria-label="`${card.roll}, ${stamp?.text ?? 'being copied'}`"
    :aria-current="chosen"
    :class="{
      on: chosen,
      bad: stamp?.look === 'fault',
      quiet: card.released_at !== null && stamp?.look !== 'fault',
      busy: share !== null,
    }"
    :style="share === null ? {} : { '--in': `${share * 100}%` }"
    @click="$emit('choose')"
    @focus="$emit('choose')"
  >
    <header>
      <b class="mono">{{ card.roll }}</b><DeviceBadge :letter="card.device" size="large" />
    </header>
    <p class="soft">
      {{ title }}
      <template v-if="span(card.first_at, card.last_at)"> · {{ span(card.first_at, card.last_at) }}</template>
      <template v-if="card.use_number > 1"> · use {{ card.use_number }} of the card</template>
    </p>
    <template v-if="busy">
      <strong v-if="share !== null" class="percent mono">{{ Math.floor(share * 100) }}<small>%</small></strong>
      <TaskProgress :task="busy" />
    </template>
    <dl v-else>
      <div>
        <dt>clips</dt>
        <dd class="mono">{{ card.clips }}</dd>
      </div>
      <div>
        <dt>{{ bytes(card.size_bytes).split(' ')[1] }}</dt>
        <dd class="mono">{{ bytes(card.size_bytes).split(' ')[0] }}</dd>
      </div>
      <div>
        <dt>running</dt>
        <dd class="mono">{{ length(card.running_ticks) }}</dd>
      </div>
    </dl>
    <span v-if="stamp && !busy" class="stamp" :class="stamp.look">{{ stamp.text }}</span>
    <footer v-if="!busy">
      <button v-if="action" :class="action === 'Try again' ? 'go' : 'plain'" tabindex="-1" @click.stop="$emit('act')">
        {{ action }}</button><span>{{ foot }}</span>
    </footer>
  </article>
</template>

<style scoped src="./card.css"></style>
