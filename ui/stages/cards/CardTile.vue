<script setup lang="ts">
import { counted, t, valueWord } from '@/words'
import { computed } from 'vue'
import type { Card } from '@/api/types'
import { length } from '@/player/time'
import { bytes } from '@/words/amounts'
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
  if (props.card.state === 'fault' || props.card.state === 'stopped')
    return isAtHand.value ? t('cards.CardTile.tryAgain') : null
  return props.card.is_safe && props.card.released_at === null && !props.card.is_dropped
    ? t('cards.CardTile.release')
    : null
})
const foot = computed(() => {
  const card = props.card
  if (card.task?.kind === 'catalogue' && card.state === 'verified')
    return t('cards.CardTile.cataloguingOf', [card.task.done, card.task.total])
  if (card.state === 'fault' || card.state === 'stopped')
    return t('cards.CardTile.ofSafe', [
      card.verified_files,
      card.files,
      isAtHand.value ? '' : t('cards.CardTile.putItInAReader'),
    ])
  const changed = card.copies.filter((copy) => !copy.is_whole)
  if (changed.length > 0) return t('cards.CardTile.notAsItWasCopied', [changed.map((copy) => copy.store).join(', ')])
  if (card.released_at !== null)
    return t('cards.CardTile.by', [
      timeOf(card.released_at),
      card.released_by ?? t('cards.CardTile.somebody'),
      card.on_bench ? t('cards.CardTile.inTheReader') : '',
    ])
  if (!card.is_safe)
    return card.copies.length === 1
      ? t('cards.CardTile.oneCopyItNeedsA')
      : t('cards.CardTile.ofFilesVerifiedTwice', [card.verified_files, card.files])
  return card.is_one_disk
    ? t('cards.CardTile.bothCopiesOnOneDisk')
    : t('cards.CardTile.copiesOnDisks', [card.copies.length, card.copies.length])
})
</script>

<template>
  <article
    class="card"
    data-row
    tabindex="0"
    :aria-label="`${card.roll}, ${stamp ? valueWord(stamp.text) : t('cards.CardTile.beingCopied')}`"
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
      <template v-if="card.use_number > 1">
        {{ ' ' }}{{ t('cards.CardTile.useOfTheCard', [card.use_number]) }}</template
      >
    </p>
    <template v-if="busy">
      <strong v-if="share !== null" class="percent mono">{{ Math.floor(share * 100) }}<small>%</small></strong>
      <TaskProgress :task="busy" />
    </template>
    <dl v-else>
      <div>
        <dt>{{ counted(card.clips, 'clipWord') }}</dt>
        <dd class="mono">{{ card.clips }}</dd>
      </div>
      <div>
        <dt>{{ bytes(card.size_bytes).split(' ')[1] }}</dt>
        <dd class="mono">{{ bytes(card.size_bytes).split(' ')[0] }}</dd>
      </div>
      <div>
        <dt>{{ t('cards.CardTile.running') }}</dt>
        <dd class="mono">{{ length(card.running_ticks) }}</dd>
      </div>
    </dl>
    <span v-if="stamp && !busy" class="stamp" :class="stamp.look">{{ valueWord(stamp.text) }}</span>
    <footer v-if="!busy">
      <button
        v-if="action"
        :class="action === t('cards.CardTile.tryAgain') ? 'go' : 'plain'"
        tabindex="-1"
        @click.stop="$emit('act')"
      >
        {{ action }}</button><span>{{ foot }}</span>
    </footer>
  </article>
</template>

<style scoped src="./card.css"></style>
