<script setup lang="ts">
import { t } from '@/words'
import { Popover } from 'ant-design-vue'
import { computed, useTemplateRef } from 'vue'
import { useMenu } from '@/shell/menu'
import type { Recording } from './engine/playlist'

/** One channel by itself, for as long as somebody listens to it; what is heard of the take stays as it is. */
const props = defineProps<{ recordings: Recording[]; alone: { clip: string; index: number } | null }>()
const emit = defineEmits<{ hear: [channel: { clip: string; index: number } | null] }>()
/** What the channel that is heard by itself is called. */
const called = computed(() => {
  const of = props.recordings.find((one) => one.clip === props.alone?.clip)
  return of?.channels.find((one) => one.index === props.alone?.index)?.name ?? props.alone?.index
})
const { open, onKey } = useMenu(useTemplateRef<HTMLElement>('menu'))
</script>

<template>
  <Popover v-model:open="open" trigger="click" placement="topLeft">
    <template #content>
      <div ref="menu" class="hear" @keydown="onKey">
        <button class="row" :class="{ on: alone === null }" @click="emit('hear', null)">
          {{ t('player.HearMenu.allThatIsChosenFor') }}
        </button>
        <section v-for="one in recordings" :key="one.clip">
          <h3>
            {{ one.name }}
            <small class="soft">{{
              one.kind === 'sound' ? t('player.HearMenu.recorder') : t('player.HearMenu.camera')
            }}</small>
          </h3>
          <button
            v-for="channel in one.channels"
            :key="channel.index"
            class="row"
            :class="{ on: alone?.clip === one.clip && alone.index === channel.index }"
            @click="emit('hear', { clip: one.clip, index: channel.index })"
          >
            <span class="mono soft">{{ channel.index }}</span> {{ channel.name }}
          </button>
        </section>
      </div>
    </template>
    <button class="ear" :class="{ on: alone !== null }" :title="t('player.HearMenu.oneChannelByItself')">
      {{ alone === null ? t('player.HearMenu.oneChannel') : t('player.HearMenu.only', [called]) }}
    </button>
  </Popover>
</template>

<style scoped>
.hear {
  display: grid;
  gap: 4px;
  max-height: 320px;
  overflow: auto;
  min-width: 220px;
}
h3 {
  margin: 6px 0 2px;
  font-size: 12px;
}
.row {
  display: flex;
  gap: 8px;
  width: 100%;
  text-align: left;
  border: 0;
  background: none;
  border-radius: 4px;
  padding: 3px 8px;
  font-size: 13px;
  cursor: pointer;
}
.row:hover {
  background: var(--tab);
}
.row.on {
  background: var(--act-soft);
  font-weight: 600;
}
</style>
