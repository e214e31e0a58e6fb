<script setup lang="ts">
import { t } from '@/words'
import { handoff as handoffApi } from '@/api/endpoints/handoff'
import { computed } from 'vue'
import { useAnswer } from '@/api/queries'
import type { PackageFile } from '@/api/types'
import { bytes } from '@/words/amounts'
import AnswerState from '@/shell/AnswerState.vue'
import { useDesk } from '@/shell/desk'
import EventRows from './EventRows.vue'

/** One file of a package: a picture or a sound plays, a list opens, a paper is shown, the rest can be saved. */
const props = defineProps<{ handoff: string; file: PackageFile }>()
const { production } = useDesk()
const kind = computed(() => {
  const extension = /\.([a-z0-9]+)$/i.exec(props.file.path)?.[1]?.toLowerCase() ?? ''
  if (extension === 'mp4') return 'picture'
  if (extension === 'wav') return 'sound'
  if (['edl', 'otio', 'aaf'].includes(extension)) return 'list'
  if (['pdf', 'csv', 'json', 'ccc', 'jpg', 'png'].includes(extension)) return 'paper'
  return 'other'
})
const isBin = computed(() => props.file.path.startsWith('bins/'))
const url = computed(() => handoffApi.fileUrl(production.value.ulid, props.handoff, props.file.path))
const { data, isPending, error, refetch } = useAnswer(() =>
  kind.value === 'list' && !isBin.value
    ? handoffApi.opened(production.value.ulid, props.handoff, props.file.path)
    : null,
)
</script>

<template>
  <article>
    <header>
      <h2>{{ file.path.split('/').at(-1) }}</h2>
      <span class="soft">{{ file.label }} {{ bytes(file.bytes) }}</span>
      <span class="push" />
      <slot />
      <a class="plain" :href="url" download>{{ t('handoff.OpenedFile.save') }}</a>
    </header>
    <video v-if="kind === 'picture'" :src="url" controls preload="metadata" />
    <audio v-else-if="kind === 'sound'" :src="url" controls preload="metadata" />
    <iframe v-else-if="kind === 'paper' || isBin" :src="url" :title="file.path" />
    <AnswerState v-else-if="kind === 'list'" :pending="isPending" :error="error" @retry="refetch()">
      <template v-if="data">
        <p class="soft">{{ t('handoff.OpenedFile.eventsAt', [data.title, data.events.length, data.rate]) }}</p>
        <EventRows :events="data.events" />
      </template>
    </AnswerState>
    <p v-else class="soft">{{ t('handoff.OpenedFile.thisKindOfFileIs') }}</p>
  </article>
</template>

<style scoped>
article {
  display: grid;
  gap: 10px;
}
header {
  display: flex;
  gap: 12px;
  align-items: center;
}
h2 {
  overflow-wrap: anywhere;
}
.push {
  margin-left: auto;
}
video {
  width: 100%;
  max-height: 52vh;
  background: var(--dark);
}
audio {
  width: 100%;
}
iframe {
  width: 100%;
  height: 62vh;
  border: 1px solid var(--rule);
  background: #fff;
}
p {
  margin: 0;
}
</style>
