<script setup lang="ts">
import { t } from '@/words'
import { cards as cardsApi } from '@/api/endpoints/cards'
import { watchDebounced } from '@vueuse/core'
import { Modal } from 'ant-design-vue'
import { computed, ref, watch } from 'vue'
import { ApiError } from '@/api/client'
import { makeStale } from '@/api/queries'
import { useDesk } from '@/shell/desk'
import { attempt, say } from '@/shell/say'

/** Where cards land, written with words in braces and tried on a card before it is kept. */
const props = defineProps<{ open: boolean; template: string; roll: string; device: string }>()
const emit = defineEmits<{ close: [] }>()
const { production, day } = useDesk()
const WORDS = ['production', 'day', 'date', 'unit', 'device', 'kind', 'roll']
const braced = (word: string) => '{' + word + '}'
const text = ref('')
const shown = ref('')
const trouble = ref('')
const changed = computed(() => text.value.trim() !== props.template)
watch(
  () => props.open,
  (open) => {
    if (open) text.value = props.template
  },
  { immediate: true },
)

async function preview(): Promise<void> {
  if (!props.open) return
  try {
    const query = new URLSearchParams({
      roll: props.roll === '' ? 'A001' : props.roll,
      template: text.value,
      ...(props.device === '' ? {} : { device: props.device }),
    })
    shown.value = (await cardsApi.wouldLand(production.value.ulid, day.value.ulid, query.toString())).path
    trouble.value = ''
  } catch (error) {
    trouble.value =
      error instanceof ApiError ? `${error.message} ${error.fix}` : t('cards.PlaceDialog.itCannotBeTriedNow')
  }
}
watch(() => props.open, preview)
watchDebounced(text, preview, { debounce: 200 })

async function keep(): Promise<void> {
  if (!changed.value || trouble.value !== '') return
  if (
    (await attempt(() => cardsApi.setTemplate(production.value.ulid, { was: props.template, now: text.value }))) ===
    undefined
  )
    return
  say(t('cards.PlaceDialog.newCardsLandThereFrom'))
  makeStale('cards')
  emit('close')
}
</script>

<template>
  <Modal
    :open="open"
    :title="t('cards.PlaceDialog.whereCardsLand')"
    :ok-text="t('cards.PlaceDialog.keep')"
    :cancel-text="t('cards.PlaceDialog.leaveIt')"
    :ok-button-props="{ disabled: !changed || trouble !== '' }"
    @ok="keep"
    @cancel="emit('close')"
  >
    <label class="text"
      >{{ t('cards.PlaceDialog.foldersBelowEachVolume')
      }}<input v-model="text" class="field mono" maxlength="200" spellcheck="false" @keydown.enter="keep"
    /></label>
    <p class="words">
      <button v-for="word in WORDS" :key="word" type="button" class="plain mono" @click="text += braced(word)">
        {{ braced(word) }}
      </button>
    </p>
    <p v-if="trouble" class="note fault" role="alert">{{ trouble }}</p>
    <p v-else class="soft">
      {{ t('cards.PlaceDialog.wouldLandIn', [roll === '' ? 'A001' : roll]) }}
      <span class="mono shown">{{ shown }}</span>
    </p>
    <p class="soft">{{ t('cards.PlaceDialog.cardsThatAreCopiedAlready') }}</p>
  </Modal>
</template>

<style scoped>
.text {
  display: grid;
  gap: 4px;
  font-weight: 500;
}
.field {
  height: 32px;
}
.words {
  display: flex;
  flex-wrap: wrap;
  gap: 5px;
  margin: 8px 0;
}
.words button {
  font-size: 11px;
  font-weight: 400;
  padding: 2px 7px;
  min-height: 24px;
}
.shown {
  color: var(--ink);
  overflow-wrap: anywhere;
}
p {
  margin: 6px 0;
}
</style>
