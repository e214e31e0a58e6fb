<script setup lang="ts">
import { deskSays } from '@/words/desk'
import { t, valueWord } from '@/words'
import { locale } from '@/words/language'
import { computed } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { bins as binsApi } from '@/api/endpoints/bins'
import { log as logApi } from '@/api/endpoints/log'
import { useAnswer } from '@/api/queries'
import type { ClipSheet } from '@/api/types'
import { length } from '@/player/time'
import { bytes } from '@/words/amounts'
import { useDesk } from '@/shell/desk'
import { whoSaid } from '@/shell/said'
import { whereIs } from '@/shell/sequence'

/** All that is known of a clip, and where it is: its fields, their history, its bins, cuts, files and their proof. */
const props = defineProps<{ sheet: ClipSheet; of: 'known' | 'places' }>()
const { production } = useDesk()
const route = useRoute()
const router = useRouter()
const id = () => production.value.ulid
const { data: uses } = useAnswer(() => binsApi.uses(id(), props.sheet.ulid))
const take = computed(() => props.sheet.take?.ulid ?? null)
const { data: history } = useAnswer(() =>
  take.value === null || props.of !== 'known' ? null : logApi.history(id(), take.value),
)
/** What is said of the take, by the names that the production gives its fields. */
const said = computed(() => {
  const { fields, sources } = props.sheet
  return production.value.fields.flatMap((one) => {
    const [text, source] = [fields[one.key], sources[one.key]]
    const label = one.key.startsWith('own:') ? one.label : deskSays(one.label)
    return text ? [{ label, text, by: source === undefined ? '' : whoSaid(source.by, source.place) }] : []
  })
})
const day = (iso: string) =>
  new Date(iso).toLocaleString(locale, { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' })

/** To the stage where it is worked on, on the clip's own day. */
function to(name: string, query: Record<string, string>, ownDay = true): void {
  const params = { production: id(), day: ownDay ? props.sheet.day : route.params.day }
  void router.push({ name, params, query })
}
const toTake = (one: string) => to('log', { take: one })
const toBin = (bin: string) => to('bins', { bin, clip: props.sheet.ulid }, false)
const toCut = (cut: { sequence: string; kind: string }) =>
  router.push(whereIs({ ulid: cut.sequence, kind: cut.kind }, route.params, props.sheet.ulid))
const toLineup = () => to('lineup', { clip: props.sheet.ulid })
</script>

<template>
  <dl v-if="of === 'known'">
    <template v-if="sheet.takes.length > 0"
      ><dt>{{ sheet.takes.length === 1 ? t('bins.ClipFacts.take') : t('bins.ClipFacts.takes') }}</dt>
      <dd>
        <button v-for="one in sheet.takes" :key="`${one.ulid} ${one.in_ticks}`" class="link" @click="toTake(one.ulid)">
          {{ one.label }}
        </button>
      </dd></template
    >
    <dt>{{ t('bins.ClipFacts.cameAs') }}</dt>
    <dd class="mono">{{ sheet.file }}</dd>
    <template v-if="sheet.roll"
      ><dt>{{ t('bins.ClipFacts.roll') }}</dt>
      <dd class="mono">{{ sheet.roll }}</dd></template
    >
    <template v-if="sheet.import_kind"
      ><dt>{{ t('bins.ClipFacts.import') }}</dt>
      <dd>{{ valueWord(sheet.import_kind ?? '') }}</dd></template
    >
    <dt>{{ t('bins.ClipFacts.starts') }}</dt>
    <dd class="mono">
      {{ sheet.start_timecode ?? t('bins.ClipFacts.noTimecode')
      }}<template v-if="sheet.corrected_timecode">{{
        t('bins.ClipFacts.corrected', [sheet.corrected_timecode])
      }}</template>
    </dd>
    <dt>{{ t('bins.ClipFacts.made') }}</dt>
    <dd class="mono">{{ (sheet.recorded_at ?? t('bins.ClipFacts.itDoesNotSay')).replace('T', ' ') }}</dd>
    <template v-if="sheet.found"
      ><dt>{{ t('bins.ClipFacts.foundAgain') }}</dt>
      <dd>
        {{ ' ' }}{{ t('bins.ClipFacts.by', [sheet.found.words])
        }}<template v-if="sheet.found.was">{{ t('bins.ClipFacts.wasOf', [sheet.found.was]) }}</template>
      </dd></template
    >
    <dt>{{ t('bins.ClipFacts.length') }}</dt>
    <dd class="mono">
      {{ length(sheet.duration_ticks)
      }}<template v-if="sheet.frames">
        {{ ' ' }}{{ t('bins.ClipFacts.fAt', [sheet.frames, sheet.rate.name]) }}</template
      >
    </dd>
    <template v-if="sheet.width"
      ><dt>{{ t('bins.ClipFacts.picture') }}</dt>
      <dd class="mono">{{ sheet.width }} × {{ sheet.height }}</dd></template
    >
    <template v-if="sheet.channels.length > 0"
      ><dt>{{ t('bins.ClipFacts.sound') }}</dt>
      <dd>
        {{
          t('bins.ClipFacts.atKhz', [
            sheet.channels.length,
            sheet.channels.length === 1 ? t('bins.ClipFacts.channel') : t('bins.ClipFacts.channels'),
            (sheet.sample_rate ?? 0) / 1000,
            sheet.channels.map((one) => one.name || t('bins.ClipFacts.channel2', [one.index])).join(', '),
          ])
        }}
      </dd></template
    >
    <template v-for="one in said" :key="one.label"
      ><dt>{{ one.label }}</dt>
      <dd class="lines">
        {{ one.text }}<span v-if="one.by" class="soft"> · {{ one.by }}</span>
      </dd></template
    >
    <template v-if="sheet.screening"
      ><dt>{{ t('bins.ClipFacts.screening') }}</dt>
      <dd class="lines">{{ sheet.screening }}</dd></template
    >
    <template v-if="(history?.steps.length ?? 0) > 0"
      ><dt>{{ t('bins.ClipFacts.history') }}</dt>
      <dd>
        <p
          v-for="(step, index) in history!.steps.slice(0, 40)"
          :key="index"
          class="step"
          :class="{ undone: step.undone }"
        >
          <span class="soft">{{ day(step.at) }} · {{ step.by }}</span> {{ deskSays(step.label) }}
          <span v-for="field in step.fields" :key="field.field" class="soft"
            >{{ field.field }}: {{ field.from || '–' }} → {{ field.to || '–' }}</span
          >
        </p>
      </dd></template
    >
    <template v-if="sheet.sidecars.length > 0"
      ><dt>{{ t('bins.ClipFacts.besideIt') }}</dt>
      <dd class="mono path">{{ sheet.sidecars.join(', ') }}</dd></template
    >
  </dl>
  <dl v-else>
    <dt>{{ t('bins.ClipFacts.bins') }}</dt>
    <dd>
      <p v-if="sheet.bins.length === 0" class="soft">{{ t('bins.ClipFacts.inNoneOfYourOwn') }}</p>
      <button v-for="bin in sheet.bins" :key="bin.key" class="link" @click="toBin(bin.key)">
        {{ bin.name
        }}<span v-if="bin.as !== 'clip'" class="soft"> {{ ' ' }}{{ t('bins.ClipFacts.byIts', [bin.as]) }}</span>
      </button>
    </dd>
    <dt>{{ t('bins.ClipFacts.cutsAndReels') }}</dt>
    <dd>
      <p v-if="uses?.uses.length === 0" class="soft">{{ t('bins.ClipFacts.inNoneYet') }}</p>
      <button v-for="one in uses?.uses ?? []" :key="one.sequence" class="link" @click="toCut(one)">
        {{ one.name }}<span v-if="one.times > 1" class="soft"> {{ t('bins.ClipFacts.times', [one.times]) }}</span>
      </button>
    </dd>
    <template v-if="sheet.placed_ticks !== null"
      ><dt>{{ t('bins.ClipFacts.lineUp') }}</dt>
      <dd>
        <button class="link" @click="toLineup">{{ t('bins.ClipFacts.itsPlaceOnTheDay') }}</button>
      </dd></template
    >
    <dt>{{ t('bins.ClipFacts.files') }}</dt>
    <dd>
      <p v-if="sheet.files.length === 0" class="soft mono path">{{ sheet.parts.join(', ') }}</p>
      <div v-for="file in sheet.files" :key="file.path" class="file">
        <b class="mono path">{{ file.path }}</b>
        <span class="soft"
          >{{ bytes(file.size_bytes) }} ·
          {{
            file.verified_at === null
              ? t('bins.ClipFacts.notVerified')
              : t('bins.ClipFacts.verified', [
                  file.copies,
                  file.copies === 1 ? t('bins.ClipFacts.copy') : t('bins.ClipFacts.copies'),
                ])
          }}</span
        >
        <span v-if="file.hash" class="mono soft path">{{ file.algorithm }} {{ file.hash }}</span>
      </div>
    </dd>
  </dl>
</template>

<style scoped>
.lines {
  white-space: pre-line;
}
.step {
  display: grid;
  margin: 0 0 5px;
  font-size: 12px;
}
.undone {
  opacity: 0.55;
  text-decoration: line-through;
}
dl {
  display: grid;
  grid-template-columns: 110px minmax(0, 1fr);
  gap: 8px 12px;
  margin: 0;
}
dt {
  color: var(--ink-soft);
}
dd {
  margin: 0;
  min-width: 0;
}
dd p {
  margin: 0;
}
.link {
  display: block;
  border: 0;
  background: none;
  padding: 0 0 4px;
  color: var(--act);
  cursor: pointer;
  text-align: left;
}
.path {
  overflow-wrap: anywhere;
  font-size: 12px;
}
.file {
  display: grid;
  gap: 2px;
  margin-bottom: 8px;
}
</style>
