<script setup lang="ts">
import { Modal } from 'ant-design-vue'
import { computed, shallowRef, watch } from 'vue'
import { away } from '@/api/endpoints/away'
import { makeStale } from '@/api/queries'
import type { Dependents } from '@/api/types'
import { useDesk } from './desk'
import { attempt, say } from './say'

/** What depends on a card or on clips, said before they are taken away. */
export type Leaving = { card: string; name: string } | { clips: string[]; name: string }

const props = defineProps<{ what: Leaving | null }>()
const emit = defineEmits<{ close: [] }>()
const { production } = useDesk()
const found = shallowRef<Dependents>()
const id = () => production.value.ulid

async function look(): Promise<void> {
  const what = props.what
  found.value = undefined
  if (what === null) return
  const answer = await attempt(() => ('card' in what ? away.ofCard(id(), what.card) : away.ofClips(id(), what.clips)))
  if (props.what !== what) return
  if (answer === undefined) emit('close')
  else found.value = answer
}
watch(() => props.what, look)
const count = (many: number, one: string, several = `${one}s`) =>
  many === 0 ? [] : [`${many} ${many === 1 ? one : several}`]
/** What goes, as a word in a sentence. */
const them = computed(() => (found.value?.clips === 1 ? 'it' : 'them'))
const lines = computed(() => {
  const all = found.value
  if (all === undefined) return []
  return [
    ...count(all.takes, `take with ${them.value} among its angles`, `takes with ${them.value} among their angles`),
    ...count(all.placed, 'place in the line-up', 'places in the line-up'),
    ...count(all.subclips, 'subclip or channel', 'subclips and channels'),
    ...count(all.markers, 'marker of a person', 'markers of people'),
    ...count(all.marks, 'pair of in and out', 'pairs of in and out'),
    ...count(all.notes, 'note of a screening', 'notes of screenings'),
    ...(all.bins.length === 0 ? [] : [`in the ${all.bins.length === 1 ? 'bin' : 'bins'} ${all.bins.join(', ')}`]),
    ...all.sequences.map((one) => `${one.times} ${one.times === 1 ? 'time' : 'times'} in ${one.name}`),
  ]
})
const isOne = (what: Leaving) => 'card' in what || what.clips.length === 1
async function take(): Promise<void> {
  const what = props.what
  const seen = found.value?.total
  if (what === null || seen === undefined) return
  const done = await attempt(() =>
    'card' in what ? away.card(id(), what.card, seen) : away.clips(id(), what.clips, seen),
  )
  makeStale('cards')
  makeStale('clips')
  makeStale('takes')
  makeStale('lineup')
  // More may depend on it by now.
  if (done === undefined) return look()
  say(`${what.name} ${isOne(what) ? 'is' : 'are'} taken away. Ctrl Z brings back all of it.`)
  emit('close')
}
</script>

<template>
  <Modal
    :open="what !== null"
    :title="`Take away ${what?.name ?? ''}?`"
    ok-text="Take away"
    width="440px"
    :ok-button-props="{ disabled: found === undefined }"
    @ok="take"
    @cancel="emit('close')"
  >
    <p v-if="found === undefined" class="soft">Looking at what depends on it…</p>
    <template v-else>
      <p v-if="lines.length === 0">
        Nothing depends on
        {{ found.clips === 0 ? 'it: it has no clips' : them }}.
      </p>
      <template v-else>
        <p>
          This depends on
          {{ what !== null && 'card' in what && found.clips > 1 ? `its ${found.clips} clips` : them }} and stays as it
          is, without media of its own:
        </p>
        <ul>
          <li v-for="line in lines" :key="line">{{ line }}</li>
        </ul>
      </template>
      <p class="soft">
        No file is deleted. When the same media come in again, all of it finds them by their checksums, by reel,
        timecode and length, or by name and length.
      </p>
    </template>
  </Modal>
</template>

<style scoped>
p {
  margin: 0 0 8px;
}
ul {
  margin: 0 0 10px;
  padding-left: 18px;
  max-height: 40vh;
  overflow: auto;
}
</style>
