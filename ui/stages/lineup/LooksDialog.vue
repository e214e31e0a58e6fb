<script setup lang="ts">
import { decimal, t } from '@/words'
import { lineup as lineupApi } from '@/api/endpoints/lineup'
import { Modal } from 'ant-design-vue'
import { computed, ref, watch } from 'vue'
import { mediaUrl } from '@/api/client'
import { makeStale, useAnswer } from '@/api/queries'
import type { ClipSheet, LookValues } from '@/api/types'
import { fromSimple, isPlain, type SimpleLook, toSimple } from '@/player/look'
import LookFilter from '@/player/LookFilter.vue'
import { useDesk } from '@/shell/desk'
import DeviceBadge from '@/shell/DeviceBadge.vue'
import { attempt, say } from '@/shell/say'

/**
 * Looks of the production: brought in from files or made here, tried on the chosen clip, set for its device or for it
 * alone.
 */
const props = defineProps<{ open: boolean; clip: ClipSheet | undefined }>()
const emit = defineEmits<{ close: [] }>()
const { production } = useDesk()

const PLAIN: LookValues = { slope: [1, 1, 1], offset: [0, 0, 0], power: [1, 1, 1], saturation: 1 }
const { data } = useAnswer(() => (props.open ? lineupApi.looks(production.value.ulid) : null))
const chosen = ref<string | null>(null)
const values = ref<LookValues>(PLAIN)
const name = ref('')
const exact = ref(false)
const picker = ref<HTMLInputElement | null>(null)
const look = computed(() => data.value?.looks.find((one) => one.ulid === chosen.value))
const simple = computed(() => toSimple(values.value))
const isChanged = computed(() => JSON.stringify(values.value) !== JSON.stringify(own(look.value ?? PLAIN)))
const CONTROLS: { key: keyof SimpleLook; title: string; from: number; to: number }[] = [
  { key: 'light', title: t('lineup.LooksDialog.light'), from: -2, to: 2 },
  { key: 'shadows', title: t('lineup.LooksDialog.shadows'), from: -1, to: 1 },
  { key: 'middle', title: t('lineup.LooksDialog.middleTones'), from: -1, to: 1 },
  { key: 'warmth', title: t('lineup.LooksDialog.warmth'), from: -1, to: 1 },
  { key: 'colour', title: t('lineup.LooksDialog.colour'), from: 0, to: 2 },
]
const FIELDS = ['slope', 'offset', 'power'] as const

function own(one: LookValues): LookValues {
  return { slope: [...one.slope], offset: [...one.offset], power: [...one.power], saturation: one.saturation }
}
watch(
  () => props.open,
  (open) => {
    if (open) chosen.value = props.clip?.look?.ulid ?? null
  },
)
watch(
  [chosen, () => look.value, () => props.open],
  () => {
    values.value = own(look.value ?? PLAIN)
  },
  { immediate: true },
)

const turn = (key: keyof SimpleLook, value: number) => {
  values.value = fromSimple({ ...simple.value, [key]: value })
}
function write(field: (typeof FIELDS)[number], at: number, value: number): void {
  if (!Number.isFinite(value)) return
  const next = own(values.value)
  next[field][at] = value
  values.value = next
}

async function bring(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (file === undefined) return
  const answer = await attempt(() => lineupApi.bringLook(production.value.ulid, file))
  if (answer === undefined) return
  makeStale('looks')
  chosen.value = answer.looks[0]?.ulid ?? null
  say(
    answer.looks.length === 1
      ? t('lineup.LooksDialog.theLookIsHere', [answer.looks[0]!.name])
      : t('lineup.LooksDialog.looksAreHere', [answer.looks.length]),
  )
}
async function save(): Promise<void> {
  const now = look.value
  if (now !== undefined) {
    if (
      (await attempt(() =>
        lineupApi.changeLook(production.value.ulid, now.ulid, { was: own(now), now: values.value }),
      )) === undefined
    )
      return
  } else {
    const answer = await attempt(() => lineupApi.makeLook(production.value.ulid, { name: name.value, ...values.value }))
    if (answer === undefined) return
    chosen.value = answer.looks[0]?.ulid ?? null
    name.value = ''
  }
  makeStale('looks')
}
async function set(of: { device: string } | { clips: string[] }, which: string | null, said: string): Promise<void> {
  if ((await attempt(() => lineupApi.setLook(production.value.ulid, { look: which, ...of }))) === undefined) return
  makeStale('looks')
  say(said)
}
</script>

<template>
  <Modal :open="open" :width="820" :title="t('lineup.LooksDialog.looks')" :footer="null" @cancel="emit('close')">
    <div class="looks">
      <section class="list">
        <button class="one" :class="{ on: chosen === null }" @click="chosen = null">
          <b>{{ t('lineup.LooksDialog.aNewLook') }}</b><small>{{ t('lineup.LooksDialog.madeWithTheControls') }}</small>
        </button>
        <button
          v-for="one in data?.looks ?? []"
          :key="one.ulid"
          class="one"
          :class="{ on: chosen === one.ulid }"
          @click="chosen = one.ulid"
        >
          <b>{{ one.name }}</b> <DeviceBadge v-for="letter in one.devices ?? []" :key="letter" :letter="letter" />
          <small>{{ one.source || t('lineup.LooksDialog.madeHere') }}</small>
        </button>
        <template v-if="production.may.work">
          <input ref="picker" type="file" accept=".cc,.ccc,.cdl" hidden @change="bring" />
          <button class="plain" @click="picker?.click()">{{ t('lineup.LooksDialog.bringInCccCdlOr') }}</button>
        </template>
      </section>
      <section v-if="clip" class="try">
        <div class="picture">
          <LookFilter name="look-try" :look="values" /><img
            :src="mediaUrl(production.ulid, clip.ulid, 'thumb-3', clip.media_version)"
            :alt="clip.name"
            :style="isPlain(values) ? undefined : { filter: 'url(#look-try)' }"
          />
        </div>
        <label v-for="control in CONTROLS" :key="control.key" class="slide"
          >{{ control.title }}
          <input
            type="range"
            :min="control.from"
            :max="control.to"
            step="0.01"
            :value="simple[control.key]"
            :disabled="!production.may.work"
            @input="turn(control.key, Number(($event.target as HTMLInputElement).value))"
          />
          <span class="mono">{{ decimal(simple[control.key], 2) }}</span>
        </label>
        <button class="plain numbers" @click="exact = !exact">
          {{ exact ? t('lineup.LooksDialog.fewerNumbers') : t('lineup.LooksDialog.exactNumbers') }}
        </button>
        <table v-if="exact" class="mono">
          <tbody>
            <tr v-for="field in FIELDS" :key="field">
              <th>{{ field }}</th>
              <td v-for="(value, n) in values[field]" :key="n">
                <input
                  type="number"
                  step="0.01"
                  :aria-label="`${field} ${'RGB'[n]}`"
                  :value="value"
                  @change="write(field, n, Number(($event.target as HTMLInputElement).value))"
                />
              </td>
            </tr>
            <tr>
              <th>{{ t('lineup.LooksDialog.saturation') }}</th>
              <td>
                <input
                  type="number"
                  step="0.01"
                  :aria-label="t('lineup.LooksDialog.saturation')"
                  :value="values.saturation"
                  @change="values = { ...own(values), saturation: Number(($event.target as HTMLInputElement).value) }"
                />
              </td>
            </tr>
          </tbody>
        </table>
        <div v-if="production.may.work" class="acts">
          <input
            v-if="look === undefined"
            v-model="name"
            class="name"
            :placeholder="t('lineup.LooksDialog.nameOfTheLook')"
            :aria-label="t('lineup.LooksDialog.nameOfTheLook')"
            maxlength="120"
          />
          <button
            v-if="isChanged || look === undefined"
            class="go"
            :disabled="look === undefined && name.trim() === ''"
            @click="save"
          >
            {{ look === undefined ? t('lineup.LooksDialog.keepThisLook') : t('lineup.LooksDialog.keepTheChange') }}
          </button>
          <template v-if="look !== undefined && !isChanged">
            <button
              v-if="clip.device"
              class="go"
              @click="
                set(
                  { device: clip.device },
                  look.ulid,
                  t('lineup.LooksDialog.cameraLooksLikeInEvery', [clip.device, look.name]),
                )
              "
            >
              {{ t('lineup.LooksDialog.forCamera', [clip.device]) }}
            </button>
            <button
              class="plain"
              @click="set({ clips: [clip.ulid] }, look.ulid, t('lineup.LooksDialog.looksLike', [clip.name, look.name]))"
            >
              {{ t('lineup.LooksDialog.forThisClipOnly') }}
            </button>
          </template>
          <button
            v-if="clip.look?.of === 'clip'"
            class="plain"
            @click="set({ clips: [clip.ulid] }, null, t('lineup.LooksDialog.looksAsItsCameraDoes', [clip.name]))"
          >
            {{ t('lineup.LooksDialog.notForThisClip') }}
          </button>
          <button
            v-if="clip.look?.of === 'device' && clip.device"
            class="plain"
            @click="set({ device: clip.device }, null, t('lineup.LooksDialog.cameraHasNoLook', [clip.device]))"
          >
            {{ t('lineup.LooksDialog.noLookForCamera', [clip.device]) }}
          </button>
        </div>
      </section>
      <p v-else class="empty">
        <b>{{ t('lineup.LooksDialog.noPictureIsChosen') }}</b>{{ t('lineup.LooksDialog.chooseAClipWithA') }}
      </p>
    </div>
  </Modal>
</template>

<style scoped>
.looks {
  display: grid;
  grid-template-columns: 230px minmax(0, 1fr);
  gap: 18px;
}
.list {
  display: grid;
  gap: 6px;
  align-content: start;
  max-height: 60vh;
  overflow: auto;
}
.one {
  text-align: left;
  border: 1px solid var(--rule);
  border-radius: 5px;
  background: var(--sheet);
  padding: 6px 10px;
  font: inherit;
  cursor: pointer;
}
.one.on {
  border-color: var(--act);
  box-shadow: inset 3px 0 var(--act);
}
.one small {
  display: block;
  color: var(--ink-soft);
  font-size: 11.5px;
  overflow: hidden;
  text-overflow: ellipsis;
}
.try {
  display: grid;
  gap: 8px;
  align-content: start;
}
.picture {
  background: var(--dark);
  border-radius: 5px;
  overflow: hidden;
  aspect-ratio: 16 / 9;
  position: relative;
}
.picture img {
  width: 100%;
  height: 100%;
  object-fit: contain;
  display: block;
}
.slide input {
  accent-color: var(--act);
}
.slide {
  display: grid;
  grid-template-columns: 100px 1fr 46px;
  gap: 10px;
  align-items: center;
  font-size: 13px;
}
.numbers {
  justify-self: start;
  padding: 2px 9px;
  font-size: 12px;
}
table input {
  width: 84px;
  font: inherit;
  border: 1px solid var(--rule-strong);
  border-radius: 4px;
  padding: 2px 5px;
}
th {
  text-align: left;
  font-weight: 400;
  padding-right: 12px;
  color: var(--ink-soft);
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.name {
  border: 1px solid var(--rule-strong);
  border-radius: 4px;
  padding: 4px 8px;
  font: inherit;
  flex: 1;
  min-width: 140px;
}
</style>
