<script setup lang="ts">
import { t } from '@/words'
import { useTemplateRef, watch } from 'vue'
import { assembly } from '@/api/endpoints/assembly'
import { player as playerApi } from '@/api/endpoints/player'
import { useAnswer } from '@/api/queries'
import { fromAnswer } from '@/player/engine/playlist'
import { labelAt } from '@/player/time'
import { usePlayer } from '@/player/usePlayer'
import { useDesk } from '@/shell/desk'

/** A version of a cut and the cut as it is now, at one instant of their clock; the newer is heard. */
const props = defineProps<{ cut: string; version: string; name: string }>()
const { production } = useDesk()
const left = useTemplateRef<HTMLCanvasElement>('left')
const right = useTemplateRef<HTMLCanvasElement>('right')
const { data: was } = useAnswer(() => assembly.version(production.value.ulid, props.cut, props.version))
const { data: is } = useAnswer(() => playerApi.sequence(production.value.ulid, props.cut))
const active = usePlayer(() => production.value.ulid, right)
const { player, position, speed } = active
const other = player.addScreen([])
watch(left, (canvas) => other.attach(canvas), { flush: 'post' })
watch(was, (answer) => {
  if (answer === undefined) return
  other.load(fromAnswer(answer).pictures)
  player.goTo(player.transport.position())
})
watch(
  is,
  (answer) => {
    if (answer === undefined) return
    const list = fromAnswer(answer)
    // It plays as long as the longer of the two does.
    player.load({ ...list, length: Math.max(list.length, was.value?.duration_ticks ?? 0) }, player.transport.position())
    player.setSounds(list.sounds)
  },
  { immediate: true },
)
const go = (event: Event) => player.goTo(Number((event.target as HTMLInputElement).value))
</script>

<template>
  <div class="beside">
    <figure>
      <canvas ref="left" />
      <figcaption>{{ name }}</figcaption>
    </figure>
    <figure>
      <canvas ref="right" />
      <figcaption>{{ t('assembly.VersionBeside.asItIsNow') }}</figcaption>
    </figure>
    <div class="run">
      <button class="plain" @click="player.toggle()">
        {{ speed === 0 ? t('assembly.VersionBeside.play') : t('assembly.VersionBeside.stop') }}
      </button>
      <input
        type="range"
        :max="player.transport.last"
        :value="position"
        :aria-label="t('assembly.VersionBeside.where')"
        @input="go"
      />
      <span class="mono">{{ is ? labelAt(is.start_ticks + position, is.rate) : '' }}</span>
    </div>
  </div>
</template>

<style scoped>
.beside {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}
figure {
  margin: 0;
}
canvas {
  width: 100%;
  aspect-ratio: 16 / 9;
  background: var(--dark);
  display: block;
}
figcaption {
  color: var(--ink-soft);
}
.run {
  grid-column: 1 / -1;
  display: flex;
  gap: 10px;
}
.run input {
  flex: 1;
}
</style>
