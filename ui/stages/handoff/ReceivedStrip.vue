<script setup lang="ts">
import { t } from '@/words'
import { handoff as handoffApi } from '@/api/endpoints/handoff'
import { ref, useTemplateRef } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { ApiError } from '@/api/client'
import { makeStale, useAnswer } from '@/api/queries'
import { useDesk } from '@/shell/desk'
import { useShortcuts } from '@/shell/keys'
import { complain, refuse } from '@/shell/say'
import { when } from './words'

/** Lists that came back from the editing team, and the way in for the next one. */
const { production, day } = useDesk()
const route = useRoute()
const router = useRouter()
const { data } = useAnswer(() => handoffApi.lists(production.value.ulid))
const box = useTemplateRef<HTMLInputElement>('box')
const over = ref(false)
const busy = ref(false)
const rate = ref('')
const open = (ulid: string) =>
  void router.push({
    name: 'received',
    params: { production: production.value.ulid, day: route.params.day, sequence: ulid },
  })

async function bring(file: File | undefined): Promise<void> {
  if (file === undefined || busy.value || !production.value.may.work) return
  busy.value = true
  try {
    const made = await handoffApi.bring(production.value.ulid, file, { day: day.value.ulid, rate: rate.value })
    makeStale('sequences')
    open(made.ulid)
  } catch (trouble) {
    // The same list is here already: it is opened.
    if (trouble instanceof ApiError && trouble.code === 'list.there') {
      refuse(trouble.message)
      open(String(trouble.context.sequence))
    } else complain(trouble)
  }
  busy.value = false
}
function drop(event: DragEvent): void {
  over.value = false
  void bring(event.dataTransfer?.files[0])
}
useShortcuts('Hand-off', [
  { keys: ['b'], what: t('handoff.ReceivedStrip.bringInAListThat'), run: () => box.value?.click() },
])
</script>

<template>
  <section class="back" :aria-label="t('handoff.ReceivedStrip.whatCameBack')">
    <header>
      <h2>{{ t('handoff.ReceivedStrip.whatCameBack') }}</h2>
      <template v-if="production.may.work">
        <button class="plain" :disabled="busy" @click="box?.click()">
          {{ t('handoff.ReceivedStrip.bringInAList') }} <kbd>B</kbd>
        </button>
        <label class="soft"
          >{{ t('handoff.ReceivedStrip.anEdlCountsAt') }}
          <select v-model="rate" class="field">
            <option value="">{{ t('handoff.ReceivedStrip.theProductionsRate') }}</option>
            <option v-for="one in ['23.976', '24', '25', '29.97', '29.97df', '30', '50', '59.94', '60']" :key="one">
              {{ one }}
            </option>
          </select></label
        >
        <input
          ref="box"
          type="file"
          hidden
          accept=".edl,.otio,.aaf,.txt"
          @change="(bring(box?.files?.[0]), box) && (box.value = '')"
        />
      </template>
    </header>
    <div class="lists" :class="{ over }" @dragover.prevent="over = true" @dragleave="over = false" @drop.prevent="drop">
      <button v-for="one in data?.lists ?? []" :key="one.ulid" class="list" @click="open(one.ulid)">
        <b>{{ one.name }}</b>
        <span :class="one.linked === one.total ? 'good' : 'warn'">{{
          t('handoff.ReceivedStrip.ofLinked', [one.linked, one.total])
        }}</span>
        <span class="soft">{{ one.file }} · {{ one.by }}, {{ when(one.at) }}</span>
      </button>
      <p v-if="data && data.lists.length === 0" class="soft">
        {{
          t('handoff.ReceivedStrip.nothingCameBackYet', [
            production.may.work ? t('handoff.ReceivedStrip.dropAnEdlAnOtio') : '',
          ])
        }}
      </p>
    </div>
  </section>
</template>

<style scoped>
.back {
  display: grid;
  gap: 8px;
}
header,
header label {
  display: flex;
  gap: 10px;
  align-items: center;
}
.lists {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(260px, 1fr));
  gap: 10px;
  min-height: 54px;
  border: 1px dashed var(--rule-strong);
  border-radius: 8px;
  padding: 10px;
}
.lists.over {
  border-color: var(--act);
  background: var(--act-soft);
}
.list {
  display: grid;
  gap: 2px;
  text-align: left;
  border: 1px solid var(--rule-strong);
  border-radius: 6px;
  background: #fff;
  padding: 8px 12px;
  cursor: pointer;
  overflow-wrap: anywhere;
}
p {
  margin: 0;
  grid-column: 1 / -1;
}
</style>
