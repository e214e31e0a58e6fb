<script setup lang="ts">
import { deskSays } from '@/words/desk'
import { counted, t } from '@/words'
import { ref } from 'vue'
import type { PackingPlan } from '@/api/types'
import { bytes } from '@/words/amounts'

/** The packing list: what a package will hold, folder by folder, and what of it is new. */
defineProps<{ plan: PackingPlan | null; waits: boolean }>()
const opened = ref<string | null>(null)
const news = (row: { new: number; changed: number; moved: number }) =>
  [
    row.new > 0 ? { text: t('handoff.PackingTable.new', [row.new]), look: 'good' } : null,
    row.changed > 0 ? { text: t('handoff.PackingTable.changed', [row.changed]), look: 'warn' } : null,
    row.moved > 0 ? { text: t('handoff.PackingTable.moved', [row.moved]), look: 'warn' } : null,
  ].filter((one) => one !== null)
</script>

<template>
  <section class="list" :aria-label="t('handoff.PackingTable.packingList')" :aria-busy="waits">
    <header>
      <h1>{{ t('handoff.PackingTable.packingList') }}</h1>
      <p v-if="plan" class="soft" role="status">
        {{
          t('handoff.PackingTable.about', [counted(plan.clips, 'clip'), counted(plan.takes, 'take'), bytes(plan.bytes)])
        }}
      </p>
    </header>
    <p v-if="plan && plan.clips === 0" class="empty">
      <b>{{
        plan.since === null
          ? t('handoff.PackingTable.nothingThatIsChosenHolds')
          : t('handoff.PackingTable.nothingIsNewSinceNo', [plan.since])
      }}</b>{{ t('handoff.PackingTable.chooseSomethingElseAtThe') }}
    </p>
    <table v-else-if="plan">
      <thead>
        <tr>
          <th>{{ t('handoff.PackingTable.folder') }}</th>
          <th>{{ t('handoff.PackingTable.what') }}</th>
          <th>{{ plan.since === null ? '' : t('handoff.PackingTable.sinceNo', [plan.since]) }}</th>
          <th class="num">{{ t('handoff.PackingTable.number') }}</th>
          <th class="num">{{ t('handoff.PackingTable.size') }}</th>
        </tr>
      </thead>
      <tbody v-for="row in plan.rows" :key="row.folder">
        <tr>
          <td class="mono">
            <button
              class="fold"
              :aria-expanded="opened === row.folder"
              @click="opened = opened === row.folder ? null : row.folder"
            >
              {{ row.folder }}
            </button>
          </td>
          <td>{{ deskSays(row.what) }}</td>
          <td>
            <template v-if="plan.since !== null"
              ><span v-for="(one, index) in news(row)" :key="one.text" :class="one.look"
                >{{ index > 0 ? ' · ' : '' }}{{ one.text }}</span
              ><span v-if="news(row).length === 0" class="soft">{{ t('handoff.PackingTable.asItWas') }}</span></template
            >
          </td>
          <td class="num mono">{{ row.count }}</td>
          <td class="num mono">{{ bytes(row.bytes) }}</td>
        </tr>
        <tr v-if="opened === row.folder" class="names">
          <td />
          <td colspan="4">
            <span v-for="(name, index) in row.names" :key="index">{{ name }}</span><span
              v-if="row.count > row.names.length"
              class="soft"
              >{{ t('handoff.PackingTable.andMore', [row.count - row.names.length]) }}</span
            >
          </td>
        </tr>
      </tbody>
      <tbody>
        <tr>
          <td class="mono">{{ t('handoff.PackingTable.logCsvLogXlsx') }}</td>
          <td colspan="4">{{ t('handoff.PackingTable.everythingThatIsKnownOf') }}</td>
        </tr>
        <tr>
          <td class="mono">{{ t('handoff.PackingTable.reports') }}</td>
          <td colspan="4">{{ t('handoff.PackingTable.cameraSoundAndDailyReports') }}</td>
        </tr>
        <tr>
          <td class="mono">{{ t('handoff.PackingTable.readmePdf') }}</td>
          <td colspan="4">{{ t('handoff.PackingTable.whatThisIsOnOne') }}</td>
        </tr>
        <tr>
          <td class="mono">{{ t('handoff.PackingTable.ascmhl') }}</td>
          <td colspan="4">{{ t('handoff.PackingTable.hashesOfAllOfIt') }}</td>
        </tr>
      </tbody>
    </table>
    <p v-else class="soft">{{ t('handoff.PackingTable.countingWhatGoes') }}</p>
  </section>
</template>

<style scoped>
.list {
  border: 1px solid var(--rule-strong);
  border-radius: 3px 12px 3px 3px;
  background: #fff;
  padding: 16px 20px;
}
header {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  gap: 12px;
}
h1 {
  font-size: 17px;
  font-weight: 600;
  margin: 0;
}
p {
  margin: 0;
}
table {
  width: 100%;
  border-collapse: collapse;
  margin-top: 8px;
}
th {
  text-align: left;
  font-size: 11px;
  color: var(--ink-soft);
  font-weight: 500;
}
th,
td {
  padding: 6px 10px 6px 0;
  border-bottom: 1px solid var(--rule);
  vertical-align: top;
}
.num {
  text-align: right;
  white-space: nowrap;
  padding-right: 0;
  padding-left: 10px;
}
.fold {
  border: 0;
  background: none;
  padding: 0;
  font: inherit;
  cursor: pointer;
  text-decoration: underline dotted;
  text-underline-offset: 3px;
}
.names td {
  font-size: 12px;
}
.names span {
  display: inline-block;
  margin-right: 12px;
}
</style>
