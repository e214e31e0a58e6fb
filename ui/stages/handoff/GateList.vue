<script setup lang="ts">
import { deskSays } from '@/words/desk'
import { counted, t } from '@/words'
import { day as dayApi } from '@/api/endpoints/day'
import { nextTick, ref, useTemplateRef } from 'vue'
import { useRouter } from 'vue-router'
import { makeStale } from '@/api/queries'
import type { GatePoint } from '@/api/types'
import { useDesk } from '@/shell/desk'
import { attempt } from '@/shell/say'

/** What stands open about what goes: each is set right here, or goes along with a reason. */
const props = defineProps<{ points: GatePoint[] }>()
const emit = defineEmits<{ changed: [] }>()
const reasons = defineModel<Record<string, string>>({ required: true })
const { production } = useDesk()
const router = useRouter()
const forAll = ref('')
const box = useTemplateRef<HTMLInputElement>('box')
const keyOf = (one: GatePoint) => `${one.day} ${one.key}`

/** The page wants to know about what is left. */
function ask(): void {
  void nextTick(() => (box.value ?? document.querySelector<HTMLInputElement>('.gate .why'))?.focus())
}
defineExpose({ ask })

/** What is written is done; the next key is the page's again. */
const letGo = () => (document.activeElement as HTMLElement | null)?.blur()

function all(): void {
  const words = forAll.value.trim()
  if (words === '') return
  reasons.value = {
    ...Object.fromEntries(props.points.map((one) => [keyOf(one), words])),
    ...Object.fromEntries(Object.entries(reasons.value).filter(([, said]) => said.trim() !== '')),
  }
  forAll.value = ''
  letGo()
}
async function fix(one: GatePoint, step: string): Promise<void> {
  if ((await attempt(() => dayApi.fix(production.value.ulid, one.day, { key: one.key, fix: step }))) === undefined)
    return
  makeStale('takes')
  emit('changed')
}
function go(one: GatePoint): void {
  const { stage, take, clip, card } = one.place
  void router.push({
    name: stage,
    params: { production: production.value.ulid, day: one.day },
    query: { ...(take ? { take } : {}), ...(clip ? { clip } : {}), ...(card ? { card } : {}) },
  })
}
</script>

<template>
  <section class="gate" :aria-label="t('handoff.GateList.beforeItGoes')">
    <h2>{{ t('handoff.GateList.beforeItGoes') }}</h2>
    <p v-if="points.length === 0" class="good">{{ t('handoff.GateList.nothingStandsOpenAboutWhat') }}</p>
    <template v-else>
      <form v-if="points.length > 1" class="all" @submit.prevent="all">
        <input
          ref="box"
          v-model="forAll"
          class="field"
          maxlength="300"
          :aria-label="t('handoff.GateList.whyTheRestGoesAlong')"
          :placeholder="t('handoff.GateList.whyTheRestGoesAlong')"
        />
        <button class="plain" :disabled="forAll.trim() === ''">
          {{ t('handoff.GateList.forAll', [points.length]) }}
        </button>
      </form>
      <ul>
        <li v-for="one in points" :key="keyOf(one)" :class="one.weight">
          <i />
          <div>
            <a role="button" tabindex="0" @click="go(one)" @keydown.enter="go(one)"
              ><b>{{ deskSays(one.title) }}</b></a
            ><small>{{ deskSays(one.evidence) }}</small>
            <input
              v-model="reasons[keyOf(one)]"
              class="field why"
              maxlength="300"
              :aria-label="t('handoff.GateList.whyItGoesAlong', [deskSays(one.title)])"
              :placeholder="t('handoff.GateList.orSayWhyItGoes')"
              @keydown.enter="letGo"
            />
          </div>
          <button v-if="one.fixes[0]" class="plain" @click="fix(one, one.fixes[0].name)">
            {{ deskSays(one.fixes[0].label) }}
          </button>
          <button v-else class="plain" @click="go(one)">{{ t('handoff.GateList.look') }}</button>
        </li>
      </ul>
      <p class="soft small">{{ t('handoff.GateList.whatGoesAlongSaysSo', [counted(points.length, 'point')]) }}</p>
    </template>
  </section>
</template>

<style scoped>
.gate {
  display: grid;
  gap: 8px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  max-height: 260px;
  overflow: auto;
}
li {
  display: grid;
  grid-template-columns: 6px minmax(0, 1fr) auto;
  gap: 10px;
  align-items: start;
  padding: 7px 0;
  border-bottom: 1px solid var(--rule);
}
li > i {
  align-self: stretch;
  border-radius: 2px;
  background: var(--warn-edge);
}
li.fault > i {
  background: var(--fault);
}
li b {
  font-weight: 500;
}
li small {
  display: block;
  color: var(--ink-soft);
}
li .plain {
  max-width: 120px;
  white-space: normal;
}
.why {
  width: 100%;
  height: 25px;
  margin-top: 4px;
  font-size: 12px;
}
.all {
  display: flex;
  gap: 8px;
}
.all .field {
  flex: 1;
  min-width: 0;
}
.small {
  font-size: 12px;
}
p {
  margin: 0;
}
</style>
