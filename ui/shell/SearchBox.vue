<script setup lang="ts">
import { shell as shellApi } from '@/api/endpoints/shell'
import { refDebounced } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { useAnswer } from '@/api/queries'
import DeviceBadge from './DeviceBadge.vue'
import { useDesk } from './desk'
import { useShortcuts } from './keys'
import TakeNumber from './TakeNumber.vue'

const { production } = useDesk()
const router = useRouter()
const box = ref<HTMLInputElement | null>(null)
const text = ref('')
const at = ref(0)
const open = ref(false)
const asked = refDebounced(text, 150)
const { data, isPlaceholderData, isFetching } = useAnswer(() =>
  asked.value.trim() === '' ? null : shellApi.search(production.value.ulid, asked.value.trim()),
)

const hits = computed(() => [
  ...(data.value?.takes ?? []).map((take) => ({
    key: take.ulid,
    day: take.day,
    number: take.number,
    take,
    clip: null,
    go: { name: 'log', query: { take: take.ulid } },
  })),
  ...(data.value?.clips ?? []).map((clip) => ({
    key: clip.ulid,
    day: clip.day,
    number: clip.number,
    take: null,
    clip,
    go: { name: 'bins', query: { clip: clip.ulid } },
  })),
])
watch(asked, () => (at.value = 0))
/** What is shown answers what is typed, and not the letters before. */
const isCurrent = computed(
  () => asked.value === text.value && !isPlaceholderData.value && !(isFetching.value && data.value === undefined),
)
/** Enter came before the answer: the first hit is opened when it is there. */
const wanted = ref(false)
watch(text, () => (wanted.value = false))
watch(isCurrent, (now) => {
  if (now && wanted.value) enter()
})
function enter(): void {
  wanted.value = !isCurrent.value
  if (isCurrent.value) go(at.value)
}

function go(index: number): void {
  const hit = hits.value[index]
  if (hit === undefined) return
  open.value = false
  text.value = ''
  box.value?.blur()
  void router.push({
    name: hit.go.name,
    params: { production: production.value.ulid, day: hit.day },
    query: hit.go.query,
  })
}

function leave(): void {
  open.value = false
  box.value?.blur()
}

useShortcuts('Everywhere', [{ keys: ['/'], what: 'Find takes and clips', run: () => box.value?.focus() }])
</script>

<template>
  <div class="search" @keydown.esc="leave">
    <input
      ref="box"
      v-model="text"
      type="search"
      placeholder="Find slates, clips, notes"
      aria-label="Find slates, clips and notes"
      role="combobox"
      :aria-expanded="open && text !== ''"
      @focus="open = true"
      @blur="open = false"
      @keydown.down.prevent="at = Math.min(at + 1, hits.length - 1)"
      @keydown.up.prevent="at = Math.max(at - 1, 0)"
      @keydown.enter="enter"
    />
    <kbd v-if="text === ''">/</kbd>
    <div v-if="open && asked.trim() !== ''" class="hits" role="listbox">
      <p v-if="data && hits.length === 0" class="soft">Nothing has “{{ asked }}” in its slate, name or notes.</p>
      <button
        v-for="(hit, index) in hits"
        :key="hit.key"
        role="option"
        :aria-selected="index === at"
        :class="{ on: index === at }"
        @mousedown.prevent="go(index)"
      >
        <template v-if="hit.take"
          ><b class="mono">{{ hit.take.setup }}</b
          ><TakeNumber :take="hit.take.take" :part="hit.take.part" :status="hit.take.status" /><span>{{
            hit.take.description
          }}</span></template
        >
        <template v-else-if="hit.clip"
          ><DeviceBadge :letter="hit.clip.letter" /><span class="mono">{{ hit.clip.label ?? hit.clip.name }}</span
          ><span v-if="hit.clip.label" class="mono soft">{{ hit.clip.name }}</span></template
        >
        <small>day {{ hit.number }}</small>
      </button>
    </div>
  </div>
</template>

<style scoped>
.search {
  position: relative;
}
input {
  width: 216px;
  height: 28px;
  border: 1px solid var(--rule-strong);
  border-radius: 5px;
  background: var(--sheet);
  padding: 4px 9px;
  font: inherit;
  font-size: 12px;
  color: var(--ink);
}
input::placeholder {
  color: var(--ink-soft);
}
.search > kbd {
  position: absolute;
  right: 7px;
  top: 5px;
}
.hits {
  position: absolute;
  right: 0;
  top: 34px;
  width: 380px;
  background: var(--sheet);
  border: 1px solid var(--rule-strong);
  border-radius: 6px;
  box-shadow: 0 8px 24px #1f2a3326;
  z-index: 30;
  padding: 4px;
  max-height: 60vh;
  overflow: auto;
}
.hits p {
  margin: 10px;
}
.hits button {
  display: flex;
  gap: 8px;
  align-items: center;
  width: 100%;
  border: 0;
  background: none;
  text-align: left;
  padding: 4px 8px;
  border-radius: 4px;
  cursor: pointer;
  min-height: 30px;
}
.hits button.on,
.hits button:hover {
  background: var(--act-soft);
}
.hits span:not(.mono) {
  flex: 1;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.hits small {
  margin-left: auto;
  color: var(--ink-soft);
  white-space: nowrap;
}
</style>
