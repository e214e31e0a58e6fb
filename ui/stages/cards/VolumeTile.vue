<script setup lang="ts">
import { deskSays } from '@/words/desk'
import { counted, t, valueWord } from '@/words'
import { computed } from 'vue'
import type { Volume } from '@/api/types'
import { bytes } from '@/words/amounts'
import DeviceBadge from '@/shell/DeviceBadge.vue'
import { offloadLabel, span, stampOfVolume } from './tile'

/** A volume in a reader that is not a card of this production yet, or has something new on it. */
const props = defineProps<{ volume: Volume; title: string; chosen: boolean; may: boolean; otherDay: boolean }>()
defineEmits<{ choose: []; act: [] }>()
const stamp = computed(() => stampOfVolume(props.volume))
const line = computed(() => {
  const volume = props.volume
  if (volume.state === 'seen')
    return t('cards.VolumeTile.seenBeforeTheSameFiles', [counted(volume.known_files, 'file'), volume.known_roll ?? ''])
  if (volume.state === 'grown') return t('cards.VolumeTile.againWithMoreOnIt', [volume.known_roll ?? ''])
  if (volume.state === 'reused') return t('cards.VolumeTile.theCardOfUsedAgain', [volume.known_roll ?? ''])
  return `${props.title}, ${deskSays(volume.why)}`
})
const times = computed(() => span(props.volume.first?.at, props.volume.last?.at))
</script>

<template>
  <article
    class="card new"
    data-row
    tabindex="0"
    :aria-label="t('cards.VolumeTile.inAReader', [volume.name, valueWord(stamp.text)])"
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
        <dt>{{ t('cards.VolumeTile.new') }}</dt>
        <dd class="mono">{{ volume.new_files }}</dd>
      </div>
      <div>
        <dt>{{ t('cards.VolumeTile.known') }}</dt>
        <dd class="mono">{{ volume.known_files }}</dd>
      </div>
      <div>
        <dt>{{ bytes(volume.size_bytes).split(' ')[1] }}</dt>
        <dd class="mono">{{ bytes(volume.size_bytes).split(' ')[0] }}</dd>
      </div>
    </dl>
    <dl v-else>
      <div>
        <dt>{{ counted(volume.clips, 'clipWord') }}</dt>
        <dd class="mono">{{ volume.clips }}</dd>
      </div>
      <div>
        <dt>{{ bytes(volume.size_bytes).split(' ')[1] }}</dt>
        <dd class="mono">{{ bytes(volume.size_bytes).split(' ')[0] }}</dd>
      </div>
      <div>
        <dt>{{ counted(volume.files, 'fileWord') }}</dt>
        <dd class="mono">{{ volume.files }}</dd>
      </div>
    </dl>
    <span class="stamp" :class="stamp.look">{{ valueWord(stamp.text) }}</span>
    <p v-if="volume.ask && may" class="warn ask" :style="{ '--stamp': valueWord(stamp.text).length }">
      {{ deskSays(volume.ask) }}
    </p>
    <p v-else-if="volume.problem_count > 0" class="warn">
      {{
        t('cards.VolumeTile.toLookAt', [
          volume.problem_count,
          volume.problem_count === 1 ? t('cards.VolumeTile.thing') : t('cards.VolumeTile.things'),
        ])
      }}
    </p>
    <footer>
      <span v-if="otherDay">{{ t('cards.VolumeTile.datedDay', [volume.date, volume.day]) }}</span>
      <template v-else-if="may"
        ><button v-if="volume.ask" class="plain" tabindex="-1" @click.stop="$emit('choose')">
          {{ volume.device === null ? t('cards.VolumeTile.sayWhatItIs') : t('cards.VolumeTile.lookAtIt') }}</button
        ><button v-else-if="volume.state !== 'seen'" class="go" tabindex="-1" @click.stop="$emit('act')">
          {{ offloadLabel(volume) }}</button
        ><span v-else>{{ t('cards.VolumeTile.nothingToDoItMay') }}</span></template
      >
    </footer>
  </article>
</template>

<style scoped src="./card.css"></style>
