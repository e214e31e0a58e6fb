<script setup lang="ts">
import { computed } from 'vue'
import type { Volume } from '@/api/types'
import { bytes } from '@/player/time'
import DeviceBadge from '@/shell/DeviceBadge.vue'
import { offloadLabel, span, stampOfVolume } from './tile'

/** A volume in a reader that is not a card of this production yet, or has something new on it. */
const props = defineProps<{ volume: Volume; title: string; chosen: boolean; may: boolean; otherDay: boolean }>()
defineEmits<{ choose: []; act: [] }>()
const stamp = computed(() => stampOfVolume(props.volume))
const line = computed(() => {
  const volume = props.volume
  if (volume.state === 'seen') return `Seen before: the same ${volume.known_files} files as ${volume.known_roll ?? ''}`
  if (volume.state === 'grown') return `${volume.known_roll ?? ''} again, with more on it`
  if (volume.state === 'reused') return `The card of ${volume.known_roll ?? ''}, used again`
  return `${props.title}, ${volume.why}`
})
const times = computed(() => span(props.volume.first?.at, props.volume.last?.at))
</script>

<template>
  <article
    class="card new"
    data-row
    tabindex="0"
    :aria-label="`${volume.name}, in a reader, ${stamp.text}`"
    :aria-current="chosen"
    :class="{ on: chosen, quiet: volume.state === 'seen' }"
    @click="$emit('choose')"
    @focus="$emit('choose')"
  >
    <header>
      <b class="mono">{{ volume.name }}</b><DeviceBadge :letter="volume.device" size="large" />
    </header>
    <p class="soft">
      {{ line }}<template v-if="times"> · {{ times }}</template>
    </p>
    <dl v-if="volume.state === 'grown' || volume.state === 'seen'">
      <div>
        <dt>new</dt>
        <dd class="mono">{{ volume.new_files }}</dd>
      </div>
      <div>
        <dt>known</dt>
        <dd class="mono">{{ volume.known_files }}</dd>
      </div>
      <div>
        <dt>{{ bytes(volume.size_bytes).split(' ')[1] }}</dt>
        <dd class="mono">{{ bytes(volume.size_bytes).split(' ')[0] }}</dd>
      </div>
    </dl>
    <dl v-else>
      <div>
        <dt>clips</dt>
        <dd class="mono">{{ volume.clips }}</dd>
      </div>
      <div>
        <dt>{{ bytes(volume.size_bytes).split(' ')[1] }}</dt>
        <dd class="mono">{{ bytes(volume.size_bytes).split(' ')[0] }}</dd>
      </div>
      <div>
        <dt>files</dt>
        <dd class="mono">{{ volume.files }}</dd>
      </div>
    </dl>
    <span class="stamp" :class="stamp.look">{{ stamp.text }}</span>
    <p v-if="volume.ask && may" class="warn ask">{{ volume.ask }}</p>
    <p v-else-if="volume.problem_count > 0" class="warn">
      {{ volume.problem_count }} {{ volume.problem_count === 1 ? 'thing' : 'things' }} to look at
    </p>
    <footer>
      <span v-if="otherDay">Dated {{ volume.date }}: day {{ volume.day }}</span>
      <template v-else-if="may"
        ><button v-if="volume.ask" class="plain" tabindex="-1" @click.stop="$emit('choose')">
          {{ volume.device === null ? 'Say what it is…' : 'Look at it…' }}</button
        ><button v-else-if="volume.state !== 'seen'" class="go" tabindex="-1" @click.stop="$emit('act')">
          {{ offloadLabel(volume) }}</button
        ><span v-else>Nothing to do. It may be taken out.</span></template
      >
    </footer>
  </article>
</template>

<style scoped src="./card.css"></style>
