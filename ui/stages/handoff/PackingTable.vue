<script setup lang="ts">
import { ref } from 'vue'
import type { PackingPlan } from '@/api/types'
import { bytes } from '@/player/time'
import { count } from './words'

/** The packing list: what a package will hold, folder by folder, and what of it is new. */
defineProps<{ plan: PackingPlan | null; waits: boolean }>()
const opened = ref<string | null>(null)
const news = (row: { new: number; changed: number; moved: number }) =>
  [
    row.new > 0 ? { text: `${row.new} new`, look: 'good' } : null,
    row.changed > 0 ? { text: `${row.changed} changed`, look: 'warn' } : null,
    row.moved > 0 ? { text: `${row.moved} moved`, look: 'warn' } : null,
  ].filter((one) => one !== null)
</script>

<template>
  <section class="list" aria-label="Packing list" :aria-busy="waits">
    <header>
      <h1>Packing list</h1>
      <p v-if="plan" class="soft" role="status">
        {{ count(plan.clips, 'clip') }}, {{ count(plan.takes, 'take') }}, about {{ bytes(plan.bytes) }}
      </p>
    </header>
    <p v-if="plan && plan.clips === 0" class="empty">
      <b>{{
        plan.since === null ? 'Nothing that is chosen holds a clip.' : `Nothing is new since no. ${plan.since}.`
      }}</b>Choose something else at the left.
    </p>
    <table v-else-if="plan">
      <thead>
        <tr>
          <th>Folder</th>
          <th>What</th>
          <th>{{ plan.since === null ? '' : `Since no. ${plan.since}` }}</th>
          <th class="num">Number</th>
          <th class="num">Size</th>
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
          <td>{{ row.what }}</td>
          <td>
            <template v-if="plan.since !== null"
              ><span v-for="(one, index) in news(row)" :key="one.text" :class="one.look"
                >{{ index > 0 ? ' · ' : '' }}{{ one.text }}</span
              ><span v-if="news(row).length === 0" class="soft">as it was</span></template
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
              >and {{ row.count - row.names.length }} more</span
            >
          </td>
        </tr>
      </tbody>
      <tbody>
        <tr>
          <td class="mono">log.csv, log.xlsx</td>
          <td colspan="4">everything that is known of each take and clip; looks, markers and subclips beside it</td>
        </tr>
        <tr>
          <td class="mono">reports/</td>
          <td colspan="4">camera, sound and daily reports, screening notes, open points</td>
        </tr>
        <tr>
          <td class="mono">README.pdf</td>
          <td colspan="4">what this is, on one page, with a picture of each scene</td>
        </tr>
        <tr>
          <td class="mono">ascmhl/</td>
          <td colspan="4">hashes of all of it</td>
        </tr>
      </tbody>
    </table>
    <p v-else class="soft">Counting what goes…</p>
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
