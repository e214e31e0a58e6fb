<script setup lang="ts">
import { deskSays } from '@/words/desk'
import { t, valueWord } from '@/words'
import { Modal } from 'ant-design-vue'
import { computed, ref, shallowRef, watch } from 'vue'
import { imports } from '@/api/endpoints/imports'
import { makeStale } from '@/api/queries'
import type { ImportLook } from '@/api/types'
import { bytes } from '@/words/amounts'
import { useDesk } from '@/shell/desk'
import { type DroppedFile, MOST_FILES } from '@/shell/dropped'
import { attempt, say } from '@/shell/say'
import { send } from '@/shell/sending'
import { IMPORTS } from './useBinActions'

/** Files that were dropped, before they come in: as what, and what of them stays out. */
const props = defineProps<{ files: DroppedFile[] | null; kind: string | null }>()
const emit = defineEmits<{ close: [] }>()
const { production, day } = useDesk()
const look = shallowRef<ImportLook>()
const as = ref('')
const withKnown = ref(false)
const showRefused = ref(false)
const isMany = computed(() => (props.files?.length ?? 0) > MOST_FILES)
const facts = (list: DroppedFile[]) => list.map(({ file, path }) => ({ path, size_bytes: file.size }))

watch(
  () => props.files,
  async (files) => {
    look.value = undefined
    as.value = props.kind ?? ''
    withKnown.value = showRefused.value = false
    if (files === null || isMany.value) return
    const found = await attempt(() => imports.look(production.value.ulid, facts(files)))
    if (props.files !== files) return
    if (found === undefined) emit('close')
    else look.value = found
  },
)
const known = computed(() => new Map(look.value?.known.map((one) => [one.place, one.roll])))
/** Those that come in. */
const chosen = computed(() =>
  (look.value?.places ?? [])
    .filter((place) => withKnown.value || !known.value.has(place))
    .flatMap((place) => props.files?.[place] ?? []),
)
const size = computed(() => chosen.value.reduce((sum, one) => sum + one.file.size, 0))
const rolls = computed(() => [...new Set(known.value.values())].join(', '))
const many = (count: number) => `${count} ${count === 1 ? t('bins.ImportDialog.file') : t('bins.ImportDialog.files')}`

async function bring(): Promise<void> {
  const list = chosen.value
  if (list.length === 0) return
  const at = { production: production.value.ulid, day: day.value.ulid }
  const begun = await attempt(() => imports.begin(at.production, at.day, facts(list), as.value || null))
  if (begun === undefined) return
  emit('close')
  makeStale('cards')
  if (begun.received_bytes > 0) say(t('bins.ImportDialog.theyGoOnWhereThey'))
  void send(at.production, begun, list)
}
</script>

<template>
  <Modal
    :open="files !== null"
    :title="
      look === undefined ? t('bins.ImportDialog.bringInFiles') : t('bins.ImportDialog.bringIn', [many(chosen.length)])
    "
    :ok-text="t('bins.ImportDialog.bringThemIn')"
    width="460px"
    :ok-button-props="{ disabled: chosen.length === 0 }"
    @ok="bring"
    @cancel="emit('close')"
  >
    <p v-if="isMany">{{ t('bins.ImportDialog.theseAreMoreThanFiles', [MOST_FILES]) }}</p>
    <p v-else-if="look === undefined" class="soft">
      {{ t('bins.ImportDialog.lookingAt', [many(files?.length ?? 0)]) }}
    </p>
    <template v-else>
      <p>
        <b class="mono">{{ bytes(size) }}</b> {{ t('bins.ImportDialog.onDayEachFileIs', [day.number]) }}
      </p>
      <fieldset @keydown.enter.prevent="bring">
        <legend>{{ t('bins.ImportDialog.theyAre') }}</legend>
        <label
          ><input
            v-model="as"
            type="radio"
            value=""
            @vue:mounted="({ el }: { el: HTMLInputElement }) => as === '' && el.focus()"
          />{{ t('bins.ImportDialog.whatTheirFoldersOrFiles') }}</label
        >
        <label v-for="one in IMPORTS" :key="one"
          ><input
            v-model="as"
            type="radio"
            :value="one"
            @vue:mounted="({ el }: { el: HTMLInputElement }) => as === one && el.focus()"
          />{{ valueWord(one) }}</label
        >
      </fieldset>
      <p v-if="known.size > 0" class="note warn">
        {{
          t('bins.ImportDialog.ofTheSameNameAnd', [
            many(known.size),
            known.size === 1 ? t('bins.ImportDialog.is') : t('bins.ImportDialog.are'),
            rolls,
          ])
        }}
        <label
          ><input v-model="withKnown" type="checkbox" />{{
            t('bins.ImportDialog.bringInAgain', [
              known.size === 1 ? t('bins.ImportDialog.it') : t('bins.ImportDialog.them'),
            ])
          }}</label
        >
      </p>
      <p v-if="look.refused.length > 0" class="note warn">
        {{ t('bins.ImportDialog.cannotComeIn', [many(look.refused.length)]) }}
        <button class="plain" :aria-expanded="showRefused" @click="showRefused = !showRefused">
          {{ t('bins.ImportDialog.whichAndWhy') }}
        </button>
      </p>
      <ul v-if="showRefused">
        <li v-for="(one, index) in look.refused.slice(0, 200)" :key="index">
          <span class="mono">{{ one.path }}</span> {{ deskSays(one.reason) }}
        </li>
      </ul>
    </template>
  </Modal>
</template>

<style scoped>
p {
  margin: 0 0 10px;
}
fieldset {
  border: 1px solid var(--rule);
  border-radius: 5px;
  padding: 6px 12px 9px;
  margin: 0 0 10px;
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 3px 12px;
}
fieldset label:first-of-type {
  grid-column: 1 / -1;
}
label {
  display: flex;
  gap: 7px;
  align-items: center;
}
legend {
  width: auto;
  margin: 0;
  padding: 0 5px;
  border: 0;
  font-size: 12px;
  color: var(--ink-soft);
}
ul {
  max-height: 160px;
  overflow: auto;
  margin: 0;
  padding-left: 16px;
  font-size: 12px;
}
li .mono {
  overflow-wrap: anywhere;
}
</style>
