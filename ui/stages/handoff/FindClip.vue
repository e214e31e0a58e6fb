<script setup lang="ts">
import { t } from '@/words'
import { shell as shellApi } from '@/api/endpoints/shell'
import { refDebounced } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { useAnswer } from '@/api/queries'
import { useDesk } from '@/shell/desk'
import DeviceBadge from '@/shell/DeviceBadge.vue'

/** Finds the clip that an event means, by a few words. */
const props = defineProps<{ words: string }>()
const emit = defineEmits<{ pick: [clip: string] }>()
const { production } = useDesk()
const text = ref(props.words)
const asked = refDebounced(text, 150)
const { data } = useAnswer(() =>
  asked.value.trim() === '' ? null : shellApi.search(production.value.ulid, asked.value.trim()),
)
const clips = computed(() => (data.value?.hits ?? []).filter((hit) => hit.what === 'clip'))
const at = ref(0)
watch(clips, () => (at.value = 0))
const pick = (index: number) => clips.value[index] && emit('pick', clips.value[index].ulid)
</script>

<template>
  <input
    v-model="text"
    class="field"
    :aria-label="t('handoff.FindClip.wordsOfItsName')"
    @vue:mounted="({ el }: { el: HTMLInputElement }) => (el.focus(), el.select())"
    @keydown.down.prevent="at = Math.min(at + 1, clips.length - 1)"
    @keydown.up.prevent="at = Math.max(0, at - 1)"
    @keydown.enter.prevent="pick(at)"
  />
  <div class="hits" role="listbox" :aria-label="t('handoff.FindClip.clipsOfThatName')">
    <button
      v-for="(hit, index) in clips"
      :key="hit.ulid"
      role="option"
      :aria-selected="index === at"
      :class="{ on: index === at }"
      @click="pick(index)"
    >
      <DeviceBadge v-if="hit.device" :letter="hit.device" /><b>{{ hit.name }}</b>
      <span class="soft">{{ hit.note }}</span>
    </button>
    <p v-if="clips.length === 0" class="soft">{{ t('handoff.FindClip.noClipIsCalledSo') }}</p>
  </div>
</template>

<style scoped>
.field {
  width: 100%;
}
.hits {
  max-height: 46vh;
  overflow: auto;
  margin-top: 8px;
}
.hits button {
  display: flex;
  gap: 10px;
  width: 100%;
  border: 0;
  background: none;
  padding: 6px 8px;
  border-radius: 4px;
  cursor: pointer;
  text-align: left;
}
.hits .on {
  background: var(--act-soft);
}
</style>
