<script setup lang="ts">
import { counted, t } from '@/words'
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
const some = (count: number, what: string) => (count === 0 ? [] : [counted(count, what)])
/** What goes, as a word in a sentence. */
const them = computed(() => (found.value?.clips === 1 ? t('shell.TakeAwayDialog.it') : t('shell.TakeAwayDialog.them')))
const lines = computed(() => {
  const all = found.value
  if (all === undefined) return []
  return [
    ...some(all.takes, all.clips === 1 ? 'takeWithIt' : 'takeWithThem'),
    ...some(all.placed, 'placed'),
    ...some(all.subclips, 'subclipOrChannel'),
    ...some(all.markers, 'personsMarker'),
    ...some(all.marks, 'inAndOut'),
    ...some(all.notes, 'screeningNote'),
    ...(all.bins.length === 0
      ? []
      : [
          t('shell.TakeAwayDialog.inThe', [
            all.bins.length === 1 ? t('shell.TakeAwayDialog.bin') : t('shell.TakeAwayDialog.bins'),
            all.bins.join(', '),
          ]),
        ]),
    ...all.sequences.map((one) => t('shell.TakeAwayDialog.in', [counted(one.times, 'time'), one.name])),
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
  say(
    t('shell.TakeAwayDialog.takenAwayCtrlZBrings', [
      what.name,
      isOne(what) ? t('shell.TakeAwayDialog.is') : t('shell.TakeAwayDialog.are'),
    ]),
  )
  emit('close')
}
</script>

<template>
  <Modal
    :open="what !== null"
    :title="t('shell.TakeAwayDialog.takeAway', [what?.name ?? ''])"
    :ok-text="t('shell.TakeAwayDialog.takeAway2')"
    width="440px"
    :ok-button-props="{ disabled: found === undefined }"
    @ok="take"
    @cancel="emit('close')"
  >
    <p v-if="found === undefined" class="soft">{{ t('shell.TakeAwayDialog.lookingAtWhatDependsOn') }}</p>
    <template v-else>
      <p v-if="lines.length === 0">
        {{
          t('shell.TakeAwayDialog.nothingDependsOn', [
            found.clips === 0 ? t('shell.TakeAwayDialog.itItHasNoClips') : them,
          ])
        }}
      </p>
      <template v-else>
        <p>
          {{
            t('shell.TakeAwayDialog.thisDependsOnAndStays', [
              what !== null && 'card' in what && found.clips > 1
                ? t('shell.TakeAwayDialog.itsClips', [found.clips])
                : them,
            ])
          }}
        </p>
        <ul>
          <li v-for="line in lines" :key="line">{{ line }}</li>
        </ul>
      </template>
      <p class="soft">
        {{ t('shell.TakeAwayDialog.noFileIsDeletedWhen') }}
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
