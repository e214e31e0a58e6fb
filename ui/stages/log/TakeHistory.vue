<script setup lang="ts">
import { deskSays } from '@/words/desk'
import { t, valueWord } from '@/words'
import { locale } from '@/words/language'
import { log as logApi } from '@/api/endpoints/log'
import { computed } from 'vue'
import { useAnswer } from '@/api/queries'
import { useDesk } from '@/shell/desk'

/** Who changed what of a take, from what to what, and when. */
const props = defineProps<{ take: string }>()
const { production } = useDesk()
const { data, error } = useAnswer(() => logApi.history(production.value.ulid, props.take))
const steps = computed(() => data.value?.steps ?? [])
const when = (iso: string) =>
  new Date(iso).toLocaleString(locale, { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' })
</script>

<template>
  <section class="history" :aria-label="t('log.TakeHistory.historyOfTheTake')">
    <p v-if="error" class="note fault">{{ error.message }} {{ error.fix }}</p>
    <p v-else-if="data && steps.length === 0" class="soft">{{ t('log.TakeHistory.nobodyHasChangedAnythingOf') }}</p>
    <ol>
      <li v-for="(step, index) in steps" :key="index" :class="{ undone: step.undone }">
        <span class="soft"
          >{{ when(step.at) }} · {{ step.by
          }}<template v-if="step.undone"> {{ ' ' }}{{ t('log.TakeHistory.takenBack') }}</template></span
        >
        <span v-for="one in step.fields" :key="one.field + one.from + one.to" class="field-change"
          ><b>{{ deskSays(one.field) }}</b
          >{{ ' ' }}
          <template v-if="one.field === 'clip'">{{
            one.to !== '' ? t('log.TakeHistory.joined', [one.to]) : t('log.TakeHistory.left', [one.from])
          }}</template><template v-else
            ><s v-if="one.from !== ''">{{ one.field === 'status' ? valueWord(one.from) : one.from }}</s>
            <span v-else class="soft">{{ t('log.TakeHistory.empty') }}</span> →
            <span v-if="one.to !== ''">{{ one.field === 'status' ? valueWord(one.to) : one.to }}</span><span
              v-else
              class="soft"
              >{{ t('log.TakeHistory.empty') }}</span
            ></template
          ></span
        >
        <span v-if="step.fields.length === 0">{{ deskSays(step.label) }}</span>
      </li>
    </ol>
  </section>
</template>

<style scoped>
ol {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: grid;
  gap: 1px;
  padding: 6px 0;
  border-bottom: 1px solid var(--rule);
  font-size: 12px;
}
.undone .field-change {
  opacity: 0.55;
}
.field-change {
  overflow-wrap: anywhere;
}
s {
  color: var(--ink-soft);
}
p {
  margin: 0;
  font-size: 12px;
}
</style>
