<script setup lang="ts">
import { deskSays } from '@/words/desk'
import { t, valueWord } from '@/words'
import { day as dayApi } from '@/api/endpoints/day'
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { makeStale, useAnswer } from '@/api/queries'
import type { OpenPoint } from '@/api/types'
import { length } from '@/player/time'
import { bytes } from '@/words/amounts'
import AnswerState from '@/shell/AnswerState.vue'
import { useDesk } from '@/shell/desk'
import { useShortcuts } from '@/shell/keys'
import { attempt, say } from '@/shell/say'
import { useSoFar } from '@/shell/soFar'
import RolledStrip from './RolledStrip.vue'

const { production, day, base } = useDesk()
const router = useRouter()
const { data, isPending, error, refetch } = useAnswer(() => dayApi.sheet(production.value.ulid, day.value.ulid))
const at = ref(0)
const busy = ref('')
const points = computed(() => data.value?.points ?? [])
const { soFar, rest } = useSoFar(points, at)
watch(points, (list) => (at.value = Math.min(at.value, Math.max(0, list.length - 1))))

const unitNumber = (count: number) => bytes(count).split(' ')
const stageOf = (name: string) => ({ name, params: { production: production.value.ulid, day: day.value.ulid } })

function open(point: OpenPoint): void {
  const { stage, ...query } = point.place
  void router.push({ ...stageOf(stage), query })
}

async function fix(point: OpenPoint, name: string | undefined): Promise<void> {
  if (name === undefined || !production.value.may.work || busy.value !== '') return
  busy.value = point.key
  const answer = await attempt(() => dayApi.fix(production.value.ulid, day.value.ulid, { key: point.key, fix: name }))
  busy.value = ''
  if (answer === undefined) return
  say(
    t('day.DayPage.ctrlZTakesItBack', [
      deskSays(point.title),
      deskSays(point.fixes.find((one) => one.name === name)?.label ?? '').toLowerCase(),
    ]),
  )
  makeStale('takes')
}

useShortcuts('Day sheet', [
  {
    keys: ['ArrowDown', 'ArrowUp'],
    what: t('day.DayPage.nextOpenPointTheOne'),
    run: (event) =>
      (at.value = Math.max(0, Math.min(points.value.length - 1, at.value + (event.key === 'ArrowDown' ? 1 : -1)))),
  },
  {
    keys: ['Enter'],
    what: t('day.DayPage.takeTheStepThatThe'),
    run: () => {
      const point = points.value[at.value]
      if (point) {
        if (point.fixes.length > 0) void fix(point, point.fixes[0]?.name)
        else open(point)
      }
    },
  },
  {
    keys: ['ArrowRight'],
    what: t('day.DayPage.goToThePlaceOf'),
    run: () => {
      const point = points.value[at.value]
      if (point) open(point)
    },
  },
])
</script>

<template>
  <div class="page">
    <AnswerState :pending="isPending" :error="error" :rows="10" @retry="refetch()">
      <template v-if="data">
        <section class="counts" :aria-label="t('day.DayPage.countsOfTheDay')">
          <div>
            <b class="mono">{{ data.counts.cards_safe }}</b><span class="mono of"> / {{ data.counts.cards }}</span>
            <p>
              {{ t('day.DayPage.cardsVerifiedTwice')
              }}<template v-if="data.counts.cards_unsafe.length > 0">
                ·
                <strong class="fault">{{
                  t('day.DayPage.not', [
                    data.counts.cards_unsafe.slice(0, 2).join(', '),
                    data.counts.cards_unsafe.length > 2 ? '…' : '',
                  ])
                }}</strong></template
              >
            </p>
          </div>
          <div>
            <b class="mono">{{ unitNumber(data.counts.bytes_verified)[0] }}</b>
            <p>{{ t('day.DayPage.inVerifiedTwice', [unitNumber(data.counts.bytes_verified)[1]]) }}</p>
          </div>
          <div>
            <b class="mono">{{ data.counts.takes }}</b>
            <p>
              {{
                t('day.DayPage.takesOfSetups', [
                  data.counts.setups,
                  data.counts.scenes,
                  data.counts.scenes === 1 ? t('day.DayPage.scene') : t('day.DayPage.scenes'),
                ])
              }}
            </p>
          </div>
          <div>
            <b class="mono">{{ data.counts.circled }}</b>
            <p>{{ t('day.DayPage.circledMin', [length(data.counts.circled_ticks)]) }}</p>
          </div>
          <div>
            <b class="mono">{{ data.counts.synced }}</b><span class="mono of"> / {{ data.counts.to_sync }}</span>
            <p>
              {{ t('day.DayPage.synced')
              }}<template v-if="data.counts.unsure + data.counts.strays > 0"
                >,
                <strong class="fault">{{
                  t('day.DayPage.unsureStrays', [data.counts.unsure, data.counts.strays])
                }}</strong></template
              >
            </p>
          </div>
          <div>
            <b class="mono">{{ data.counts.handed_off }}</b>
            <p>{{ t('day.DayPage.handedOffToday') }}</p>
          </div>
        </section>

        <RolledStrip :lanes="data.rolled" />

        <div class="two">
          <section>
            <h2>{{ t('day.DayPage.openPoints') }}</h2>
            <p v-if="data.running.length > 0" class="note warn wait" role="status">
              {{
                t('day.DayPage.notDoneYetWhatMay', [
                  data.running.slice(0, 3).join(', '),
                  data.running.length > 3 ? t('day.DayPage.andMore', [data.running.length - 3]) : '',
                  data.running.length === 1 ? t('day.DayPage.is') : t('day.DayPage.are'),
                  data.running.length === 1 ? t('day.DayPage.itHas') : t('day.DayPage.theyHave'),
                ])
              }}
            </p>
            <p v-if="points.length === 0 && data.running.length > 0" class="clear soft">
              {{ t('day.DayPage.nothingElseIsOpen') }}
            </p>
            <p v-else-if="points.length === 0" class="clear">
              <b>{{ t('day.DayPage.nothingIsOpen') }}</b>{{ ' ' }}
              <span class="soft">{{
                data.counts.cards === 0 ? t('day.DayPage.noCardOfThisDay') : t('day.DayPage.everyClipHasItsTake')
              }}</span>
            </p>
            <ol class="points">
              <li
                v-for="(point, index) in soFar"
                :key="point.key"
                :class="{ on: index === at }"
                @mouseenter="at = index"
              >
                <i :class="point.weight" :title="valueWord(point.weight)" />
                <RouterLink
                  class="what"
                  :to="{
                    ...stageOf(point.place.stage),
                    query: { take: point.place.take, clip: point.place.clip, card: point.place.card },
                  }"
                  ><b>{{ deskSays(point.title) }}</b
                  ><span>{{ deskSays(point.evidence) }}</span></RouterLink
                >
                <span v-if="production.may.work" class="steps">
                  <button
                    v-for="(one, n) in point.fixes"
                    :key="one.name"
                    class="plain"
                    :disabled="busy === point.key"
                    @click="fix(point, one.name)"
                  >
                    {{ deskSays(one.label) }} <kbd v-if="index === at && n === 0" title="Enter">↵</kbd>
                  </button>
                </span>
              </li>
            </ol>
            <p v-if="rest > 0" ref="end" class="soft">{{ t('shell.soFar.more', [rest]) }}</p>
          </section>
          <section>
            <h2>{{ t('day.DayPage.toWrapTheDay') }}</h2>
            <ul class="wrap">
              <li v-for="step in data.wrap" :key="step.title" :class="{ done: step.done }">
                <span class="tick" aria-hidden="true">{{ step.done ? '✓' : step.is_running ? '…' : '○' }}</span>
                <RouterLink :to="stageOf(step.stage)"
                  ><b>{{ deskSays(step.title) }}</b
                  ><span
                    >{{ deskSays(step.note)
                    }}<span class="hush">{{ step.done ? t('day.DayPage.done') : t('day.DayPage.open') }}</span></span
                  ></RouterLink
                >
              </li>
            </ul>
            <p class="daily soft">
              {{ t('day.DayPage.dailyLog') }}
              <a class="plain" :href="`/api/${base}/days/${day.ulid}/daily-log.pdf`" target="_blank">{{
                t('day.DayPage.pdf')
              }}</a>{{ ' ' }}
              <a class="plain" :href="`/api/${base}/days/${day.ulid}/daily-log.csv`">{{ t('day.DayPage.csv') }}</a>
            </p>
          </section>
        </div>
      </template>
    </AnswerState>
  </div>
</template>

<style scoped>
.page {
  height: 100%;
  overflow: auto;
  padding: 18px 24px 28px;
  display: grid;
  gap: 16px;
  align-content: start;
}
.counts {
  display: grid;
  grid-template-columns: repeat(6, 1fr);
  border: 1px solid var(--rule-strong);
  border-radius: 10px;
  background: #fff;
}
.counts div {
  padding: 12px 16px;
  border-left: 1px solid var(--rule);
  min-width: 0;
}
.counts div:first-child {
  border-left: 0;
}
.counts b {
  font-size: 23px;
  font-weight: 600;
}
.of {
  font-size: 15px;
  color: var(--ink-soft);
}
.counts p {
  margin: 2px 0 0;
  color: var(--ink-soft);
  font-size: 12px;
}
.two {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 330px;
  gap: 26px;
}
h2 {
  padding-bottom: 10px;
  border-bottom: 1px solid var(--rule);
}
.wait {
  margin: 10px 0 0;
}
.clear {
  padding: 18px 0;
  margin: 0;
}
.points,
.wrap {
  list-style: none;
  margin: 0;
  padding: 0;
}
.points li {
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 9px 6px 9px 0;
  border-bottom: 1px solid var(--rule);
  min-height: 54px;
}
.points li.on {
  background: var(--sheet-2);
}
.points i {
  width: 8px;
  height: 34px;
  border-radius: 2px;
  flex: none;
  background: var(--warn-edge);
}
.points i.fault {
  background: var(--fault);
}
.what {
  flex: 1;
  min-width: 0;
  display: grid;
  color: var(--ink);
}
.what b,
.wrap b {
  font-weight: 600;
}
.what:hover b,
.wrap a:hover b {
  text-decoration: underline;
  text-underline-offset: 2px;
}
.what span,
.wrap a > span {
  color: var(--ink-soft);
  font-size: 12px;
}
.steps {
  display: flex;
  gap: 6px;
  flex-wrap: wrap;
  justify-content: flex-end;
}
.wrap li {
  display: flex;
  gap: 10px;
  padding: 9px 0;
  border-bottom: 1px solid var(--rule);
}
.wrap a {
  display: grid;
  color: var(--ink);
  min-width: 0;
}
.daily {
  margin: 12px 0 0;
  display: flex;
  gap: 8px;
  align-items: center;
  font-size: 12px;
}
.daily a {
  display: inline-flex;
  align-items: center;
}
.tick {
  width: 14px;
  color: var(--ink-soft);
}
.done .tick {
  color: var(--act);
  font-weight: 700;
}
@media (max-width: 1080px) {
  .two {
    grid-template-columns: 1fr;
  }
  .counts {
    grid-template-columns: repeat(3, 1fr);
  }
}
</style>
