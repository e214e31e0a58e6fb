<script setup lang="ts">
import { deskSays } from '@/words/desk'
import { t } from '@/words'
import { computed } from 'vue'
import type { ClipCheck } from '@/api/types'
import { clock, length } from '@/player/time'
import DeviceBadge from '@/shell/DeviceBadge.vue'

/** Every device of the day side by side: the same number of clips, of about the same length, or a reason. */
const props = defineProps<{ check: ClipCheck }>()
const most = computed(() => Math.max(1, ...props.check.devices.map((one) => one.running_ticks)))
</script>

<template>
  <section v-if="check.devices.length > 0" class="check" :aria-label="t('cards.ClipCheckStrip.clipCheck')">
    <h2>{{ t('cards.ClipCheckStrip.clipCheck') }}</h2>
    <table>
      <tbody>
        <tr v-for="one in check.devices" :key="one.device">
          <td><DeviceBadge :letter="one.device" /></td>
          <td class="mono num">{{ one.clips }}</td>
          <td class="soft">{{ one.clips === 1 ? t('cards.ClipCheckStrip.clip') : t('cards.ClipCheckStrip.clips') }}</td>
          <td class="mono num">{{ length(one.running_ticks) }}</td>
          <td class="line"><i :class="one.kind" :style="{ width: `${(one.running_ticks / most) * 100}%` }" /></td>
          <td class="mono soft">
            {{
              one.first_ticks === null
                ? ''
                : t('cards.ClipCheckStrip.to', [clock(one.first_ticks), clock(one.last_ticks ?? 0)])
            }}
          </td>
        </tr>
      </tbody>
    </table>
    <p v-for="one in check.differences" :key="one.device" class="note warn">
      <b>{{ deskSays(one.title) }}.</b> {{ deskSays(one.evidence) }}
    </p>
    <p v-if="check.differences.length === 0 && check.devices.length > 1" class="soft">
      {{ t('cards.ClipCheckStrip.theDevicesAgreeOrThe') }}
    </p>
  </section>
</template>

<style scoped>
.check {
  padding: 4px 18px 20px;
  display: grid;
  gap: 8px;
  max-width: 860px;
}
table {
  border-collapse: collapse;
  font-size: 13px;
  width: 100%;
}
td {
  padding: 4px 10px 4px 0;
  border-bottom: 1px solid var(--rule);
  white-space: nowrap;
}
.num {
  text-align: right;
  width: 1%;
  font-weight: 600;
}
.line {
  width: 60%;
}
.line i {
  display: block;
  height: 8px;
  border-radius: 4px;
  background: var(--act);
  opacity: 0.75;
}
.line i.recorder {
  background: var(--dev-S);
}
p {
  margin: 0;
  font-size: 12.5px;
}
</style>
