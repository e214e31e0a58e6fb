<script setup lang="ts">
import { deskSays } from '@/words/desk'
import { t } from '@/words'
import { shell as shellApi } from '@/api/endpoints/shell'
import { refDebounced } from '@vueuse/core'
import { computed, nextTick, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { mediaUrl } from '@/api/client'
import { useAnswer } from '@/api/queries'
import type { SearchHit } from '@/api/types'
import { clock } from '@/player/time'
import DeviceBadge from './DeviceBadge.vue'
import { useDesk } from './desk'
import { useShortcuts } from './keys'
import { whereIs } from './sequence'
import TakeNumber from './TakeNumber.vue'

/** Finds things by a few words, sort by sort; Enter opens one at the moment that was found. */
const { production, day } = useDesk()
const router = useRouter()
const box = ref<HTMLInputElement | null>(null)
const panel = ref<HTMLElement | null>(null)
const text = ref('')
const at = ref(0)
const open = ref(false)
/** The one sort that is shown; null shows all. */
const only = ref<SearchHit['what'] | null>(null)
const asked = refDebounced(text, 150)
const { data, isPlaceholderData, isFetching } = useAnswer(() =>
  asked.value.trim() === '' ? null : shellApi.search(production.value.ulid, asked.value.trim()),
)

const SORTS = {
  take: t('shell.SearchBox.takes'),
  clip: t('shell.SearchBox.clips'),
  marker: t('shell.SearchBox.markers'),
  spoken: t('shell.SearchBox.whatIsSaid'),
  subclip: t('shell.SearchBox.subclips'),
  sequence: t('shell.SearchBox.cutsAndReels'),
  bin: t('shell.SearchBox.bins'),
} as const
const counts = computed(() => {
  const all = new Map<SearchHit['what'], number>()
  for (const hit of data.value?.hits ?? []) all.set(hit.what, (all.get(hit.what) ?? 0) + 1)
  return [...all]
})
/** Of each sort the server tells eight at most. */
const MOST = 8
const hits = computed(() => (data.value?.hits ?? []).filter((hit) => only.value === null || hit.what === only.value))
watch(asked, () => ((at.value = 0), (only.value = null)))
watch(only, () => (at.value = 0))
watch(at, () => void nextTick(() => panel.value?.querySelector('.on')?.scrollIntoView({ block: 'nearest' })))
/** What is shown answers what is typed, and not the letters before. */
const isCurrent = computed(
  () => asked.value === text.value && !isPlaceholderData.value && !(isFetching.value && data.value === undefined),
)
/** Enter came before the answer: the first hit is opened when it is there. */
const wanted = ref<{ log: boolean } | null>(null)
watch(text, () => (wanted.value = null))
watch(isCurrent, (now) => {
  if (now && wanted.value !== null) enter(wanted.value.log)
})
function enter(log: boolean): void {
  wanted.value = isCurrent.value ? null : { log }
  if (isCurrent.value) go(at.value, log)
}
/** The next sort to show alone, and all of them again at the end. */
function sort(step: number): void {
  const all = [null, ...counts.value.map(([what]) => what)]
  only.value = all[(all.indexOf(only.value) + step + all.length) % all.length] ?? null
}

function go(index: number, log = false): void {
  const hit = hits.value[index]
  if (hit === undefined) return
  close()
  const params = { production: production.value.ulid, day: hit.day ?? day.value.ulid }
  if (hit.what === 'bin') return void router.push({ name: 'bins', params, query: { bin: hit.ulid } })
  if (hit.what === 'sequence') return void router.push(whereIs({ ulid: hit.ulid, kind: hit.kind ?? '' }, params))
  if (hit.take !== null && (log || hit.clip === null))
    return void router.push({ name: 'log', params, query: { take: hit.ulid } })
  if (hit.clip === null) return
  void router.push({
    name: 'clip',
    params: { ...params, clip: hit.clip },
    query: {
      at: hit.at_ticks === null ? undefined : String(hit.at_ticks),
      tab: hit.what === 'spoken' ? 'words' : undefined,
    },
  })
}
/** The page on which all of what is said is looked through. */
function allWords(): void {
  const q = text.value.trim()
  close()
  void router.push({
    name: 'words',
    params: { production: production.value.ulid, day: day.value.ulid },
    query: q === '' ? {} : { q },
  })
}
/** The words as the rule of a bin: in a name, in what happens, in notes, keywords or markers. */
function keep(): void {
  const words = (data.value?.meant ?? asked.value).trim()
  close()
  void router.push({
    name: 'bins',
    params: { production: production.value.ulid, day: day.value.ulid },
    query: { new: words },
  })
}
function close(): void {
  open.value = false
  text.value = ''
  box.value?.blur()
}
function leave(): void {
  open.value = false
  box.value?.blur()
}

useShortcuts('Everywhere', [
  { keys: ['/'], what: t('shell.SearchBox.findTakesClipsMarkersCuts'), run: () => box.value?.focus() },
  { keys: ['Alt+/'], what: t('shell.SearchBox.findWhatWasSaidAnywhere'), run: allWords },
])
</script>

<template>
  <div class="search" @keydown.esc="leave">
    <input
      ref="box"
      v-model="text"
      type="search"
      :placeholder="t('shell.SearchBox.findSlatesClipsWords')"
      :aria-label="t('shell.SearchBox.findSlatesClipsAndWords')"
      role="combobox"
      :aria-expanded="open && text !== ''"
      @focus="open = true"
      @blur="open = false"
      @keydown.down.prevent="at = Math.min(at + 1, hits.length - 1)"
      @keydown.up.prevent="at = Math.max(at - 1, 0)"
      @keydown.tab="
        (event: KeyboardEvent) => counts.length > 1 && (event.preventDefault(), sort(event.shiftKey ? -1 : 1))
      "
      @keydown.enter.exact="enter(false)"
      @keydown.enter.shift="enter(true)"
      @keydown.enter.ctrl="allWords"
    />
    <kbd v-if="text === ''">/</kbd>
    <div v-if="open && asked.trim() !== ''" ref="panel" class="hits" role="listbox">
      <p v-if="data && data.hits.length === 0" class="soft">
        {{ t('shell.SearchBox.nothingHasInItsSlate', [asked]) }}
      </p>
      <p v-if="data?.meant" class="soft">
        {{ t('shell.SearchBox.nothingHasThisIs', [asked]) }}<b>{{ data.meant }}</b
        >”.
      </p>
      <div v-if="counts.length > 1" class="sorts">
        <button :class="{ on: only === null }" @mousedown.prevent="only = null">
          {{ t('shell.SearchBox.all') }}</button><button
          v-for="[what, count] in counts"
          :key="what"
          :class="{ on: only === what }"
          :title="t('shell.SearchBox.tabGoesFromSortTo')"
          @mousedown.prevent="only = what"
        >
          {{ SORTS[what] }} {{ count }}{{ count === MOST ? t('shell.SearchBox.orMore') : '' }}
        </button>
      </div>
      <template v-for="(hit, index) in hits" :key="`${hit.what} ${hit.ulid}`">
        <h5 v-if="only === null && hits[index - 1]?.what !== hit.what">{{ SORTS[hit.what] }}</h5>
        <button
          role="option"
          class="hit"
          :aria-selected="index === at"
          :class="{ on: index === at }"
          @mousedown.prevent="go(index)"
        >
          <span class="thumb"
            ><img
              v-if="hit.ready && hit.clip && (hit.kind === 'picture' || hit.kind === 'still')"
              :src="mediaUrl(production.ulid, hit.clip, hit.kind === 'still' ? 'thumb-1' : 'thumb-3')"
              alt=""
            /><i v-else>{{
              hit.what === 'bin' ? '∴' : hit.what === 'sequence' ? '▤' : hit.kind === 'sound' ? '∿' : '…'
            }}</i></span
          >
          <span class="words"
            ><span class="first"
              ><template v-if="hit.take"
                ><b class="mono">{{ hit.take.setup }}</b
                ><TakeNumber :take="hit.take.take" :part="hit.take.part" :status="hit.take.status" /></template
              ><template v-else
                ><DeviceBadge v-if="hit.device" :letter="hit.device" /><b :class="{ mono: hit.what === 'clip' }">{{
                  hit.name
                }}</b></template
              ></span
            ><small v-if="hit.note" class="soft">{{
              hit.what === 'sequence' ? deskSays(hit.note) : hit.note
            }}</small></span
          >
          <small v-if="hit.number !== null" class="where"
            >{{ t('shell.SearchBox.day', [hit.number])
            }}<template v-if="(hit.what === 'marker' || hit.what === 'spoken') && hit.at_ticks !== null">
              · {{ clock(hit.at_ticks, true) }}</template
            ></small
          >
        </button>
      </template>
      <div class="foot soft">
        <template v-if="hits.length > 0"
          ><kbd>Enter</kbd> {{ t('shell.SearchBox.itsSheet') }} <kbd>Shift Enter</kbd>
          {{ t('shell.SearchBox.theLog') }}</template
        >
        <button class="plain" :title="t('shell.SearchBox.ctrlEnter')" @mousedown.prevent="allWords">
          {{ t('shell.SearchBox.allThatIsSaid') }}
        </button>
        <button v-if="hits.length > 0 && production.may.organise" class="plain" @mousedown.prevent="keep">
          {{ t('shell.SearchBox.keepAsARuleBin') }}
        </button>
      </div>
    </div>
  </div>
</template>

<style scoped>
.search {
  position: relative;
}
input {
  width: clamp(88px, 17vw, 216px);
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
  width: 440px;
  background: var(--sheet);
  border: 1px solid var(--rule-strong);
  border-radius: 6px;
  box-shadow: 0 8px 24px #1f2a3326;
  z-index: 30;
  padding: 4px;
  max-height: 74vh;
  overflow: auto;
}
.hits p {
  margin: 10px;
}
.sorts {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  padding: 4px 6px;
}
.sorts button {
  border: 1px solid var(--rule-strong);
  background: var(--sheet);
  border-radius: 10px;
  padding: 1px 8px;
  font-size: 11px;
  cursor: pointer;
}
.sorts .on {
  background: var(--ink);
  color: var(--sheet);
}
h5 {
  margin: 8px 8px 2px;
  font-size: 11px;
  font-weight: 500;
  color: var(--ink-soft);
}
.hit {
  display: flex;
  gap: 9px;
  align-items: center;
  width: 100%;
  border: 0;
  background: none;
  text-align: left;
  padding: 3px 8px;
  border-radius: 4px;
  cursor: pointer;
}
.hit.on,
.hit:hover {
  background: var(--act-soft);
}
.thumb {
  flex: none;
  width: 52px;
  height: 30px;
  border-radius: 3px;
  background: #e9e1cf;
  display: grid;
  place-items: center;
  overflow: hidden;
  color: var(--dev-S);
}
.thumb img {
  width: 100%;
  height: 100%;
  object-fit: cover;
}
.thumb i {
  font-style: normal;
}
.words {
  flex: 1;
  min-width: 0;
}
.words > * {
  display: block;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.first {
  display: flex !important;
  align-items: center;
  gap: 5px;
}
.where {
  color: var(--ink-soft);
  white-space: nowrap;
}
.foot {
  display: flex;
  gap: 6px;
  align-items: center;
  padding: 8px;
  white-space: nowrap;
  border-top: 1px solid var(--rule);
  margin-top: 4px;
  font-size: 11.5px;
}
.foot .plain {
  margin-left: auto;
}
</style>
