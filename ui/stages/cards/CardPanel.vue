<script setup lang="ts">
import { deskSays } from '@/words/desk'
import { counted, t } from '@/words'
import { locale } from '@/words/language'
import { cards as cardsApi } from '@/api/endpoints/cards'
import { computed } from 'vue'
import { reportUrl } from '@/api/client'
import { makeStale, useAnswer } from '@/api/queries'
import type { Card, Store } from '@/api/types'
import { bytes } from '@/words/amounts'
import { useDesk } from '@/shell/desk'
import { attempt, say } from '@/shell/say'
import DifferenceTree from './DifferenceTree.vue'
import { timeOf } from './tile'

/** One card: its copies and what a check found on them, its faults, its files, and the record of its releases. */
const props = defineProps<{ card: Card; stores: Store[] }>()
defineEmits<{ again: []; release: []; verify: []; away: [] }>()
const { production } = useDesk()
const { data: detail } = useAnswer(() => cardsApi.card(production.value.ulid, props.card.ulid))
const list = computed(() => (detail.value?.ulid === props.card.ulid ? detail.value.list : null))
const releases = computed(() => (detail.value?.ulid === props.card.ulid ? detail.value.releases : []))
const found = computed(() => (detail.value?.ulid === props.card.ulid ? detail.value.found : []))
/** Names of clips by how their media were known, when they came back. */
const foundBy = computed(() => {
  const ways: Record<string, string[]> = {}
  for (const one of found.value)
    (ways[one.words] ??= []).push(
      one.was === '' || one.was === props.card.roll ? one.name : t('cards.CardPanel.of', [one.name, one.was]),
    )
  return ways
})
const copyOn = (store: Store) => props.card.copies.find((copy) => copy.store === store.name)
const copied = computed(() =>
  props.card.task?.total_bytes ? Math.min(1, props.card.task.copied_bytes / props.card.task.total_bytes) : 0,
)
const share = (store: Store) =>
  props.card.task?.by_store
    ? Math.min(1, (props.card.task.by_store[store.key] ?? 0) / Math.max(1, props.card.task.total_bytes))
    : null
const day = (iso: string) =>
  new Date(iso).toLocaleDateString(locale, { day: 'numeric', month: 'short', year: 'numeric' })
const reports = computed(() =>
  props.card.kind === null ? [] : [props.card.kind === 'recorder' ? ('sound' as const) : ('camera' as const)],
)

async function setDevice(letter: string): Promise<void> {
  if (letter === (props.card.device ?? '')) return
  if (
    (await attempt(() =>
      cardsApi.setDevice(production.value.ulid, props.card.ulid, {
        was: props.card.device,
        device: letter === '' ? null : letter,
      }),
    )) === undefined
  ) {
    makeStale('cards')
    return
  }
  say(t('cards.CardPanel.andItsClipsAreCtrl', [props.card.roll, letter === '' ? t('cards.CardPanel.imports') : letter]))
  makeStale('cards')
}
</script>

<template>
  <h2>
    <span class="mono">{{ card.roll }}</span>{{
      card.task?.kind === 'offload'
        ? t('cards.CardPanel.onItsWay')
        : card.task?.kind === 'verify'
          ? t('cards.CardPanel.readAgain')
          : card.task?.kind === 'release'
            ? t('cards.CardPanel.lookedAt')
            : ''
    }}
  </h2>
  <p v-if="card.is_one_disk && card.released_at === null" class="note warn">
    {{ t('cards.CardPanel.bothCopiesAreVerifiedAnd') }}
  </p>
  <p v-if="card.matched_files > 0" class="soft fits">
    {{
      t('cards.CardPanel.whatTheHashesOnThe', [
        card.matched_files,
        card.matched_files === 1 ? t('cards.CardPanel.fileIs') : t('cards.CardPanel.filesAre'),
      ])
    }}
  </p>
  <div v-for="store in stores" :key="store.key" class="store" :class="{ away: store.free_bytes === null }">
    <b>{{ store.name }}</b><span :class="store.free_bytes === null ? 'fault' : 'soft'">{{
      store.free_bytes === null ? t('cards.CardPanel.notThere') : t('cards.CardPanel.free', [bytes(store.free_bytes)])
    }}</span>
    <div v-if="share(store) !== null" class="line">
      <i class="ahead" :style="{ width: `${copied * 100}%` }" /><i
        :style="{ width: `${(share(store) ?? 0) * 100}%` }"
      />
    </div>
    <span v-else class="soft wide mono" :title="copyOn(store)?.path">{{
      copyOn(store)?.path ??
      (card.chosen_stores !== null && !card.chosen_stores.includes(store.key)
        ? t('cards.CardPanel.notChosenForThisCard')
        : t('cards.CardPanel.noCopyYet'))
    }}</span>
    <span v-if="copyOn(store)?.read_from && !copyOn(store)?.checked_at" class="wide soft">{{
      copyOn(store)?.read_from === 'medium'
        ? t('cards.CardPanel.readBackFromTheDisk')
        : t('cards.CardPanel.readBackThroughTheSystems')
    }}</span>
    <span v-if="copyOn(store)?.checked_at" class="wide" :class="copyOn(store)?.is_whole ? 'good' : 'fault'"
      >{{ copyOn(store)?.is_whole ? t('cards.CardPanel.readAgainAsItWas') : t('cards.CardPanel.notAsItWasCopied') }},
      {{ timeOf(copyOn(store)?.checked_at ?? null) }}</span
    >
    <DifferenceTree v-if="copyOn(store)?.differences" :found="copyOn(store)!.differences!" />
  </div>
  <div v-if="card.faults.length > 0" class="note fault" role="alert">
    <div v-for="fault in card.faults.slice(0, 4)" :key="fault.path + fault.reason + (fault.destination ?? '')">
      <b>{{ fault.path === '' ? (fault.destination ?? card.roll) : fault.path.split('/').at(-1) }}</b>:
      {{ deskSays(fault.reason)
      }}<template v-if="fault.byte !== undefined">
        {{ ' ' }}{{ t('cards.CardPanel.byte', [fault.byte.toLocaleString(locale)]) }}</template
      ><template v-if="fault.path !== '' && fault.destination">
        {{ ' ' }}{{ t('cards.CardPanel.on', [fault.destination]) }}</template
      >
    </div>
    <div v-if="card.faults.length > 4">{{ t('cards.CardPanel.andMore', [card.faults.length - 4]) }}</div>
    <div>
      {{
        t('cards.CardPanel.ofFilesAreSafe', [
          card.verified_files,
          card.files,
          card.faults.some((fault) => fault.byte !== undefined)
            ? t('cards.CardPanel.cleanTheContactsAndTry')
            : t('cards.CardPanel.mendThatAndTryAgain'),
        ])
      }}
    </div>
  </div>
  <div v-if="production.may.work && (!card.task || card.task.kind === 'catalogue')" class="acts">
    <button
      v-if="card.state === 'fault' || card.state === 'stopped'"
      class="go"
      :disabled="!card.on_bench && card.upload === null"
      :title="card.on_bench || card.upload !== null ? '' : t('cards.CardPanel.putTheCardInA')"
      @click="$emit('again')"
    >
      {{ t('cards.CardPanel.tryAgain') }} <kbd>↵</kbd>
    </button>
    <button v-if="card.is_safe && card.released_at === null && !card.is_dropped" class="go" @click="$emit('release')">
      {{ t('cards.CardPanel.release') }} <kbd>↵</kbd>
    </button>
    <button
      v-if="card.copies.length > 0"
      class="plain"
      :title="t('cards.CardPanel.readEveryCopyAgainAnd')"
      @click="$emit('verify')"
    >
      {{ t('cards.CardPanel.verifyAgain') }} <kbd>V</kbd>
    </button>
    <button class="plain" :title="t('cards.CardPanel.outOfTheFootageWhat')" @click="$emit('away')">
      {{ t('cards.CardPanel.takeAway') }} <kbd>X</kbd>
    </button>
  </div>
  <section v-if="found.length > 0" class="record">
    <b>{{
      t('cards.CardPanel.foundAgain', [
        found.length,
        found.length === 1 ? t('cards.CardPanel.clip') : t('cards.CardPanel.clips'),
      ])
    }}</b>
    <span v-for="(names, words) in foundBy" :key="words"
      >{{ t('cards.CardPanel.by', [words]) }} <span class="mono">{{ names.join(', ') }}</span></span
    >
  </section>
  <section v-for="release in releases" :key="release.at" class="record">
    <b>{{
      t('cards.CardPanel.releasedBy', [
        day(release.at),
        timeOf(release.at),
        release.by ?? t('cards.CardPanel.somebody'),
      ])
    }}</b>
    <span>{{
      t('cards.CardPanel.filesVerifiedOn', [
        counted(release.evidence.files, 'file'),
        bytes(release.evidence.size_bytes),
        release.evidence.algorithm,
        timeOf(release.evidence.verified_at),
      ])
    }}</span>
    <ul>
      <li v-for="copy in release.evidence.copies" :key="copy.store">
        <b>{{ copy.store }}</b> <span class="mono">{{ copy.path }}</span><span
          v-if="copy.files !== undefined"
          class="soft"
        >
          {{
            t('cards.CardPanel.filesThereWithTheirSize', [
              counted(copy.files ?? 0, 'file'),
              copy.sample?.length ?? 0,
              copy.sample?.every((one) => one.from === 'medium') ? t('cards.CardPanel.fromTheDiskItself') : '',
            ])
          }}</span
        ><span class="mono soft c4" :title="copy.c4 ?? ''">{{ copy.manifest }}<br />{{ copy.c4 }}</span>
      </li>
    </ul>
    <span v-if="release.evidence.one_disk" class="warn">{{
      t('cards.CardPanel.bothCopiesLayOnOne', [release.evidence.words])
    }}</span>
  </section>
  <div class="line-of">
    <label v-if="production.may.work && card.state !== 'copying'"
      >{{ t('cards.CardPanel.device') }}
      <select
        class="field"
        :value="card.device ?? ''"
        :disabled="card.task !== null"
        @change="setDevice(($event.target as HTMLSelectElement).value)"
      >
        <option value="">{{ t('cards.CardPanel.noneAFolderOfImports') }}</option>
        <option
          v-for="one in production.devices.filter((other) => !other.is_retired || other.letter === card.device)"
          :key="one.letter"
          :value="one.letter"
        >
          {{ one.letter }} {{ one.note }}
        </option>
      </select>
    </label>
    <span v-for="kind in reports" :key="kind" class="report"
      ><span class="soft">{{
        kind === 'camera' ? t('cards.CardPanel.cameraReport') : t('cards.CardPanel.soundReport')
      }}</span
      ><a class="plain" :href="reportUrl(production.ulid, `cards/${card.ulid}`, kind, 'pdf')" target="_blank">{{
        t('cards.CardPanel.pdf')
      }}</a
      ><a class="plain" :href="reportUrl(production.ulid, `cards/${card.ulid}`, kind, 'csv')">{{
        t('cards.CardPanel.csv')
      }}</a></span
    >
  </div>
  <table v-if="list" class="list files">
    <tbody>
      <tr v-for="file in list" :key="file.path" :title="`${file.path}\n${file.algorithm ?? ''} ${file.hash ?? ''}`">
        <td class="mono name">{{ file.path.split('/').at(-1) }}</td>
        <td class="mono num">{{ bytes(file.size_bytes) }}</td>
        <td class="num" :class="file.fault ? 'fault' : 'good'">
          {{
            file.fault ??
            (file.copies >= 2
              ? t('cards.CardPanel.verifiedTwice')
              : file.copies === 1
                ? t('cards.CardPanel.oneCopy')
                : t('cards.CardPanel.noCopy'))
          }}
        </td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
.fits {
  margin: 0;
  font-size: 12px;
}
.store {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 1px 8px;
  background: #fff;
  border: 1px solid var(--rule);
  border-radius: 5px;
  padding: 7px 11px;
  font-size: 12px;
}
.store.away {
  border-color: #dfa697;
}
.wide {
  flex-basis: 100%;
  font-size: 11px;
  overflow-wrap: anywhere;
}
.line {
  position: relative;
  flex-basis: 100%;
  height: 9px;
  border-radius: 5px;
  background: #e9dfca;
  overflow: hidden;
  margin: 4px 0 2px;
}
.line i {
  position: absolute;
  inset: 0 auto 0 0;
  background: var(--act);
  transition: width 0.25s linear;
}
.line .ahead {
  background: #8fbcae;
}
.note {
  margin: 0;
  overflow-wrap: anywhere;
  display: grid;
  gap: 4px;
}
.acts {
  display: flex;
  gap: 8px;
  flex-wrap: wrap;
}
.record {
  min-width: 0;
  grid-template-columns: minmax(0, 1fr);
  border: 1px solid var(--info);
  background: var(--info-soft);
  border-radius: 5px;
  padding: 8px 11px;
  font-size: 12px;
  display: grid;
  gap: 3px;
}
.record ul {
  grid-template-columns: minmax(0, 1fr);
  list-style: none;
  margin: 2px 0 0;
  padding: 0;
  display: grid;
  gap: 5px;
}
.c4 {
  display: block;
  font-size: 10.5px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.line-of {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 8px;
}
.line-of label {
  display: flex;
  gap: 8px;
  align-items: center;
  font-weight: 500;
}
.line-of .field {
  height: 28px;
  flex: 1;
  min-width: 0;
}
.report {
  display: flex;
  gap: 6px;
  align-items: center;
  font-size: 12px;
}
.report .soft {
  margin-right: auto;
}
.report a {
  display: inline-flex;
  align-items: center;
}
.files {
  font-size: 12px;
  table-layout: fixed;
}
.files td {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.files td:nth-child(2) {
  width: 74px;
}
.files td:nth-child(3) {
  width: 96px;
}
.num {
  text-align: right;
}
</style>
