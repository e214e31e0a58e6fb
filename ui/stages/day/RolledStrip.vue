<script setup lang="ts">
import { t } from '@/words'
import { computed } from 'vue'
import { useRouter } from 'vue-router'
import type { DaySheet } from '@/api/types'
import { clock, TICKS } from '@/player/time'
import { useDesk } from '@/shell/desk'
import { deviceColour } from '@/shell/device'
import DeviceBadge from '@/shell/DeviceBadge.vue'
import { hours } from './strip'

/** Who rolled when: a strip for each device over the clock of the day; a box where others rolled and it did not. */
const props = defineProps<{ lanes: DaySheet['rolled'] }>()
const router = useRouter()
const { production, day } = useDesk()

const span = computed(() => {
  const all = props.lanes.flatMap((lane) => lane.spans)
  if (all.length === 0) return null
  const from = Math.min(...all.map((one) => one[0]))
  const to = Math.max(...all.map((one) => one[1]))
  const room = Math.max(30 * TICKS, (to - from) * 0.03)
  return { from: from - room, to: to + room }
})
const at = (ticks: number) =>
  span.value === null ? 0 : (100 * (ticks - span.value.from)) / (span.value.to - span.value.from)
const marks = computed(() => (span.value === null ? [] : hours(span.value.from, span.value.to)))
const go = (clip: string) =>
  router.push({ name: 'log', params: { production: production.value.ulid, day: day.value.ulid }, query: { clip } })
</script>

<template>
  <section class="rolled">
    <h2>
      {{ t('day.RolledStrip.whoRolledWhen') }} <span class="soft">{{ t('day.RolledStrip.aBoxIsAMoment') }}</span>
    </h2>
    <p v-if="span === null" class="soft none">
      {{ t('day.RolledStrip.nothingHasBeenShotOr') }}
      <RouterLink class="plain" :to="{ name: 'cards', params: { production: production.ulid, day: day.ulid } }">{{
        t('day.RolledStrip.toTheBench')
      }}</RouterLink>
    </p>
    <template v-else>
      <div v-for="lane in lanes" :key="lane.device" class="lane">
        <DeviceBadge :letter="lane.device" />
        <div class="track">
          <button
            v-for="one in lane.spans"
            :key="one[2]"
            class="roll"
            :style="{
              left: `${at(one[0])}%`,
              width: `${at(one[1]) - at(one[0])}%`,
              background: deviceColour(lane.device),
            }"
            tabindex="-1"
            :title="
              t('day.RolledStrip.to', [
                one[3] ?? t('day.RolledStrip.noSlate'),
                clock(one[0], true),
                clock(one[1], true),
              ])
            "
            @click="go(one[2])"
          />
          <i
            v-for="gap in lane.holes"
            :key="gap[0]"
            class="gap"
            :style="{ left: `calc(${at(gap[0])}% - 2px)`, width: `calc(${at(gap[1]) - at(gap[0])}% + 4px)` }"
            :title="t('day.RolledStrip.didNotRollAt', [lane.device, clock(gap[0], true)])"
          />
        </div>
      </div>
      <div class="lane">
        <span class="corner" />
        <div class="hours mono">
          <span v-for="mark in marks" :key="mark.at" :style="{ left: `${at(mark.at)}%` }">{{ mark.text }}</span>
        </div>
      </div>
    </template>
  </section>
</template>

<style scoped>
.rolled {
  border: 1px solid var(--rule-strong);
  border-radius: 10px;
  background: #fff;
  padding: 12px 16px 8px;
}
h2 {
  margin-bottom: 10px;
}
h2 span {
  font-weight: 400;
  font-size: 12px;
}
.none {
  margin: 0 0 8px;
}
.lane {
  display: grid;
  grid-template-columns: 30px 1fr;
  align-items: center;
  height: 25px;
}
.track {
  position: relative;
  height: 17px;
  background: #f5efe1;
  border-radius: 3px;
}
.roll {
  position: absolute;
  top: 0;
  bottom: 0;
  min-width: 4px;
  border: 0;
  border-radius: 2px;
  padding: 0;
  cursor: pointer;
}
.gap {
  position: absolute;
  top: -3px;
  bottom: -3px;
  min-width: 8px;
  border: 1px solid var(--fault);
  border-radius: 3px;
  background: #f6dcd4b3;
}
.hours {
  position: relative;
  height: 18px;
  font-size: 11px;
  color: var(--ink-soft);
}
.hours span {
  position: absolute;
  transform: translateX(-50%);
}
</style>
