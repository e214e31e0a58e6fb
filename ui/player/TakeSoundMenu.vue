<script setup lang="ts">
import { decimal, t } from '@/words'
import { lineup as lineupApi } from '@/api/endpoints/lineup'
import { useDebounceFn } from '@vueuse/core'
import { Popover } from 'ant-design-vue'
import { ref, useTemplateRef, watch } from 'vue'
import { makeStale } from '@/api/queries'
import type { TakeChannel, TakeSound } from '@/api/types'
import { useMenu } from '@/shell/menu'
import { attempt } from '@/shell/say'

/**
 * Which of the recorder's channels are heard under a take, and how loud; laid under its pictures anew after each
 * change.
 */
const props = defineProps<{ production: string; take: string; sound: TakeSound; canChange: boolean }>()
const { open, onKey } = useMenu(useTemplateRef<HTMLElement>('menu'))
const channels = ref<TakeChannel[]>([])
/** What the server has, as far as this page knows; null where nobody has chosen. */
let kept: TakeChannel[] | null = null

watch(
  () => props.sound,
  (sound) => {
    channels.value = sound.channels.map((one) => ({ ...one }))
    kept = sound.is_default ? null : sound.channels
  },
  { immediate: true },
)

const told = (list: TakeChannel[] | null) => list?.map(({ index, on, gain_db }) => ({ index, on, gain_db })) ?? null
async function send(next: TakeChannel[] | null): Promise<void> {
  const done = await attempt(() =>
    lineupApi.sound(props.production, props.take, { channels: told(next), was: told(kept) }),
  )
  if (done !== undefined) kept = next?.map((one) => ({ ...one })) ?? null
  makeStale('takes')
}
const sendSoon = useDebounceFn(() => send(channels.value), 350)
function change(at: number, part: Partial<TakeChannel>): void {
  channels.value = channels.value.map((one, n) => (n === at ? { ...one, ...part } : one))
  void sendSoon()
}
</script>

<template>
  <Popover v-model:open="open" trigger="click" placement="topLeft">
    <template #content>
      <div ref="menu" class="channels" @keydown="onKey">
        <h3>
          {{ sound.name }}
          <small class="soft">{{
            sound.is_default
              ? t('player.TakeSoundMenu.asTheRecorderMixedIt')
              : t('player.TakeSoundMenu.chosenForThisTake')
          }}</small>
        </h3>
        <div v-for="(one, n) in channels" :key="one.index" class="channel">
          <label
            ><input
              type="checkbox"
              :checked="one.on"
              :disabled="!canChange"
              @change="change(n, { on: ($event.target as HTMLInputElement).checked })"
            />
            {{ one.name }}</label
          >
          <input
            type="range"
            min="-24"
            max="12"
            step="0.5"
            :value="one.gain_db"
            :disabled="!canChange || !one.on"
            :aria-label="t('player.TakeSoundMenu.levelOf', [one.name])"
            @input="change(n, { gain_db: Number(($event.target as HTMLInputElement).value) })"
            @dblclick="change(n, { gain_db: 0 })"
          />
          <span class="mono">{{
            t('player.TakeSoundMenu.db', [one.gain_db > 0 ? '+' : '', decimal(one.gain_db, 1)])
          }}</span>
        </div>
        <button v-if="canChange && !sound.is_default" class="plain" @click="send(null)">
          {{ t('player.TakeSoundMenu.asTheRecorderMixedIt2') }}
        </button>
        <p class="soft">
          {{ t('player.TakeSoundMenu.forListeningOnEveryAngle') }}
        </p>
      </div>
    </template>
    <button
      class="ear"
      :title="t('player.TakeSoundMenu.channelsOfTheRecording')"
      :aria-label="t('player.TakeSoundMenu.channelsOfTheRecording')"
      :aria-expanded="open"
    >
      {{ t('player.TakeSoundMenu.channels') }}
    </button>
  </Popover>
</template>

<style scoped>
.channels {
  width: 330px;
  display: grid;
  gap: 6px;
  font-size: 13px;
}
h3 {
  font-size: 13px;
  margin: 0;
}
.channel {
  display: grid;
  grid-template-columns: 110px 1fr 62px;
  gap: 8px;
  align-items: center;
}
.channel input[type='range'] {
  accent-color: var(--act);
}
.channels p {
  margin: 4px 0 0;
  font-size: 12px;
}
.channels .plain {
  justify-self: start;
  padding: 2px 9px;
  font-size: 12px;
}
</style>
