<script setup lang="ts">
import { t } from '@/words'
import { locale } from '@/words/language'
import { Modal } from 'ant-design-vue'
import { useDebounceFn } from '@vueuse/core'
import { computed, ref, shallowRef, watch } from 'vue'
import { bins as binsApi } from '@/api/endpoints/bins'
import { screening } from '@/api/endpoints/screening'
import { useAnswer } from '@/api/queries'
import type { ReelLook } from '@/api/types'
import { length } from '@/player/time'
import { useDesk } from '@/shell/desk'
import { attempt } from '@/shell/say'

/** A new review reel: from which takes, which of their pictures, from where on, in what order. */
const props = defineProps<{ open: boolean }>()
const emit = defineEmits<{ close: []; made: [reel: string] }>()
const { production, day } = useDesk()

type From = 'days' | 'scenes' | 'bin'
const from = ref<From>('days')
const days = ref<string[]>([])
const scenes = ref<string[]>([])
const bin = ref('')
const circled = ref(true)
const angles = ref('first')
const device = ref('')
const begin = ref('slate')
const order = ref('slate')
const name = ref('')
const busy = ref(false)

const { data: tree } = useAnswer(() => (props.open ? binsApi.tree(production.value.ulid) : null))
const allScenes = computed(() => tree.value?.groups.find((one) => one.key === 'scenes')?.bins ?? [])
const allBins = computed(() => [
  ...(tree.value?.own ?? []),
  ...(tree.value?.groups ?? []).filter((one) => one.key !== 'scenes' && one.key !== 'days').flatMap((one) => one.bins),
])
const cameras = computed(() => production.value.devices.filter((one) => one.kind === 'camera' || one.kind === 'phone'))
watch(
  () => props.open,
  (open) => {
    if (!open) return
    from.value = 'days'
    days.value = [day.value.ulid]
    scenes.value = []
    name.value = ''
    looked.value = null
  },
  { immediate: true },
)
const what = computed(() =>
  from.value === 'days' ? days.value : from.value === 'scenes' ? scenes.value : bin.value === '' ? [] : [bin.value],
)
const recipe = computed(() => ({
  from: from.value,
  what: what.value,
  circled_only: circled.value,
  angles: angles.value,
  device: angles.value === 'device' ? device.value : null,
  begin: begin.value,
  order: order.value,
}))
const isWhole = computed(() => what.value.length > 0 && (angles.value !== 'device' || device.value !== ''))

const looked = shallowRef<ReelLook | null>(null)
const look = useDebounceFn(async () => {
  const asked = JSON.stringify(recipe.value)
  if (!props.open || !isWhole.value) {
    looked.value = null
    return
  }
  const answer = await attempt(() => screening.look(production.value.ulid, day.value.ulid, recipe.value))
  if (asked === JSON.stringify(recipe.value)) looked.value = answer ?? null
}, 150)
watch([recipe, () => props.open], () => void look(), { deep: true, immediate: true })
const ends = computed(() =>
  looked.value === null
    ? ''
    : new Date(Date.now() + looked.value.running_ticks / 705_600).toLocaleTimeString(locale, {
        hour: '2-digit',
        minute: '2-digit',
      }),
)

function toggle(list: string[], one: string): string[] {
  return list.includes(one) ? list.filter((other) => other !== one) : [...list, one]
}
async function build(): Promise<void> {
  if (busy.value || !isWhole.value || looked.value?.takes === 0) return
  busy.value = true
  const made = await attempt(() =>
    screening.build(production.value.ulid, day.value.ulid, { ...recipe.value, name: name.value.trim() || null }),
  )
  busy.value = false
  if (made !== undefined) emit('made', made.ulid)
}
</script>

<template>
  <Modal
    :open="open"
    :title="t('screening.ReelDialog.newReviewReel')"
    :ok-text="t('screening.ReelDialog.buildIt')"
    :ok-button-props="{ disabled: !isWhole || looked?.takes === 0, loading: busy }"
    width="560px"
    @ok="build"
    @cancel="emit('close')"
  >
    <form class="recipe" @submit.prevent="build">
      <div class="line" role="radiogroup" :aria-label="t('screening.ReelDialog.takesOf')">
        <span>{{ t('screening.ReelDialog.takesOf') }}</span>
        <label><input v-model="from" type="radio" value="days" /> {{ t('screening.ReelDialog.days') }}</label>
        <label><input v-model="from" type="radio" value="scenes" /> {{ t('screening.ReelDialog.scenes') }}</label>
        <label><input v-model="from" type="radio" value="bin" /> {{ t('screening.ReelDialog.aBin') }}</label>
      </div>
      <div v-if="from === 'days'" class="chips">
        <button
          v-for="one in production.days"
          :key="one.ulid"
          type="button"
          class="chip"
          :class="{ on: days.includes(one.ulid) }"
          :aria-pressed="days.includes(one.ulid)"
          @click="days = toggle(days, one.ulid)"
        >
          {{ t('screening.ReelDialog.day', [one.number]) }}
        </button>
      </div>
      <div v-else-if="from === 'scenes'" class="chips">
        <button
          v-for="one in allScenes"
          :key="one.key"
          type="button"
          class="chip mono"
          :class="{ on: scenes.includes(one.key.slice(6)) }"
          :aria-pressed="scenes.includes(one.key.slice(6))"
          :title="one.note"
          @click="scenes = toggle(scenes, one.key.slice(6))"
        >
          {{ one.key.slice(6) }}
        </button>
        <span v-if="allScenes.length === 0" class="soft">{{ t('screening.ReelDialog.noSceneHasASlate') }}</span>
      </div>
      <select v-else v-model="bin" class="field bin" :aria-label="t('screening.ReelDialog.theBin')">
        <option value="" disabled>{{ t('screening.ReelDialog.chooseABin') }}</option>
        <option v-for="one in allBins" :key="one.key" :value="one.key">
          {{ '\u2003'.repeat(one.depth) }}{{ one.name }}{{ one.is_rule ? t('screening.ReelDialog.fillsItself') : '' }}
        </option>
      </select>
      <div class="line" role="radiogroup" :aria-label="t('screening.ReelDialog.which')">
        <span>{{ t('screening.ReelDialog.which') }}</span>
        <label
          ><input v-model="circled" type="radio" :value="true" /> {{ t('screening.ReelDialog.circledTakes') }}</label
        >
        <label><input v-model="circled" type="radio" :value="false" /> {{ t('screening.ReelDialog.allTakes') }}</label>
      </div>
      <div class="line">
        <span>{{ t('screening.ReelDialog.picture') }}</span>
        <select v-model="angles" class="field" :aria-label="t('screening.ReelDialog.picture')">
          <option value="first">{{ t('screening.ReelDialog.ofTheFirstCamera') }}</option>
          <option value="best">{{ t('screening.ReelDialog.ofTheCameraThatSaw') }}</option>
          <option value="device">{{ t('screening.ReelDialog.ofOneCamera') }}</option>
          <option value="each">{{ t('screening.ReelDialog.everyAngleOneAfterThe') }}</option>
          <option value="together">{{ t('screening.ReelDialog.allAnglesAtOnceIn') }}</option>
        </select>
        <select
          v-if="angles === 'device'"
          v-model="device"
          class="field"
          :aria-label="t('screening.ReelDialog.theCamera')"
        >
          <option value="" disabled>{{ t('screening.ReelDialog.which2') }}</option>
          <option v-for="one in cameras" :key="one.letter" :value="one.letter">{{ one.letter }} {{ one.note }}</option>
        </select>
      </div>
      <div class="line">
        <span>{{ t('screening.ReelDialog.eachTake') }}</span>
        <select v-model="begin" class="field" :aria-label="t('screening.ReelDialog.eachTake')">
          <option value="slate">{{ t('screening.ReelDialog.fromItsSlate') }}</option>
          <option value="action">{{ t('screening.ReelDialog.fromItsAction') }}</option>
          <option value="whole">{{ t('screening.ReelDialog.whole') }}</option>
        </select>
        <select v-model="order" class="field" :aria-label="t('screening.ReelDialog.order')">
          <option value="slate">{{ t('screening.ReelDialog.inSlateOrder') }}</option>
          <option value="shot">{{ t('screening.ReelDialog.asShot') }}</option>
        </select>
      </div>
      <label class="line"
        ><span>{{ t('screening.ReelDialog.name') }}</span>
        <input v-model="name" class="field grow" maxlength="120" :placeholder="t('screening.ReelDialog.byWhatItIs')"
      /></label>
      <p class="soft found" role="status">
        <template v-if="!isWhole">{{ t('screening.ReelDialog.chooseWhatItIsMade') }}</template>
        <template v-else-if="looked === null">{{ t('screening.ReelDialog.looking') }}</template>
        <template v-else-if="looked.takes === 0">{{ t('screening.ReelDialog.noTakeLikeThatHas') }}</template>
        <template v-else
          ><b
            >{{ looked.takes }}
            {{ looked.takes === 1 ? t('screening.ReelDialog.take') : t('screening.ReelDialog.takes') }},
            {{ length(looked.running_ticks) }}.</b
          >
          {{ t('screening.ReelDialog.begunNowItEndsAt', [ends]) }}
          <span class="mono">{{ looked.slates.join(' ') }}{{ looked.takes > looked.slates.length ? ' …' : '' }}</span>
        </template>
      </p>
    </form>
  </Modal>
</template>

<style scoped>
.recipe {
  display: grid;
  gap: 12px;
}
.line {
  display: flex;
  gap: 8px 16px;
  align-items: center;
  min-height: 28px;
}
.line > span:first-child {
  width: 74px;
}
.line select {
  padding: 3px 6px;
}
.chips {
  padding-left: 90px;
  display: flex;
  flex-wrap: wrap;
  gap: 5px;
  max-height: 132px;
  overflow: auto;
}
.chip {
  border: 1px solid var(--rule-strong);
  background: var(--sheet);
  border-radius: 12px;
  padding: 1px 10px;
  cursor: pointer;
  font-size: 12px;
}
.chip.on {
  background: var(--act);
  border-color: var(--act);
  color: #fff;
}
.bin {
  margin-left: 90px;
}
.grow {
  flex: 1;
}
.found {
  margin: 0;
  min-height: 40px;
}
</style>
