<script setup lang="ts">
import { counted, t } from '@/words'
import { useLocalStorage } from '@vueuse/core'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { settings as settingsApi } from '@/api/endpoints/settings'
import { shell as shellApi } from '@/api/endpoints/shell'
import { useAnswer } from '@/api/queries'
import { dayName } from './dayName'
import { attempt } from './say'

/** A production before it is opened: its newest days, what is open, cards that wait, and who is there. */
const props = defineProps<{ ulid: string; name: string }>()
const router = useRouter()
const isWalking = useLocalStorage('cartella.walking', false)
/** Nothing is heard of a production that is not open, so it is asked for now and then; milliseconds. */
const AGAIN = 20_000
const { data, error, refetch } = useAnswer(() => shellApi.glance(props.ulid), { poll: AGAIN })
const open = computed(() => (data.value?.days ?? []).reduce((sum, day) => sum + day.open, 0))
const waiting = computed(() => data.value?.waiting ?? [])
const NAMED = 4

const to = (day: string, stage = 'day') => ({ name: stage, params: { production: props.ulid, day } })
const date = ref(new Date().toISOString().slice(0, 10))
async function addDay(): Promise<void> {
  const made = await attempt(() => settingsApi.addDay(props.ulid, { date: date.value }))
  // Nothing is in yet: the first thing to do is a card.
  if (made !== undefined) await router.push(to(made.ulid, 'cards'))
}
</script>

<template>
  <section class="production" :aria-label="name">
    <header>
      <h2>
        <RouterLink v-if="data?.days[0]" :to="to(data.days[0].ulid)">{{ name }}</RouterLink>
        <template v-else>{{ name }}</template>
      </h2>
      <span v-if="data" class="soft mono">{{ t('shell.ProductionSheet.fps', [data.rate]) }}</span>
      <ul v-if="data && data.here.length > 0" class="here" :aria-label="t('shell.ProductionSheet.thereNow')">
        <li
          v-for="person in data.here"
          :key="person.name"
          :title="t('shell.ProductionSheet.hasAPageOfIt', [person.name])"
        >
          {{ person.initials }}
        </li>
      </ul>
    </header>
    <p v-if="error" class="fault">
      {{ error.message }} <button class="plain" @click="refetch()">{{ t('shell.ProductionSheet.lookAgain') }}</button>
    </p>
    <div v-else-if="data === undefined" class="bones" role="status" :aria-label="t('shell.ProductionSheet.oneMoment')">
      <i />
    </div>
    <template v-else>
      <nav v-if="data.days.length > 0" class="days" :aria-label="t('shell.ProductionSheet.daysOf', [name])">
        <RouterLink v-for="day in data.days" :key="day.ulid" class="day" :to="to(day.ulid)">
          <b>{{ t('shell.ProductionSheet.day', [day.number]) }}</b>
          <span class="soft">{{ dayName(day) }}</span>
          <span class="soft">{{
            day.cards === 0
              ? t('shell.ProductionSheet.noCardYet')
              : day.takes === 0
                ? counted(day.cards, 'card')
                : `${counted(day.cards, 'card')}, ${counted(day.takes, 'take')}`
          }}</span>
          <span :class="day.open > 0 ? 'fault' : 'good'">{{
            day.open > 0
              ? t('shell.ProductionSheet.open', [day.open])
              : day.cards === 0
                ? ''
                : t('shell.ProductionSheet.nothingOpen')
          }}</span>
        </RouterLink>
      </nav>
      <form v-else-if="data.may_add_day" class="first" @submit.prevent="addDay">
        <p class="soft">{{ t('shell.ProductionSheet.noShootDayYetDays') }}</p>
        <label
          >{{ t('shell.ProductionSheet.firstShootDay') }} <input v-model="date" class="field" type="date" required
        /></label>
        <button class="go">{{ t('shell.ProductionSheet.addTheDay') }}</button>
      </form>
      <p v-else class="soft">{{ t('shell.ProductionSheet.noShootDayYetAn') }}</p>
      <p v-if="data.days.length > 0" class="line">
        <RouterLink v-if="waiting.length > 0" class="warn" :to="to(data.days[0]!.ulid, 'cards')"
          >{{
            waiting.length === 1
              ? t('shell.ProductionSheet.aCardWaits')
              : t('shell.ProductionSheet.cardsWait', [waiting.length])
          }}: <span class="mono">{{ waiting.slice(0, NAMED).join(', ') }}</span>{{
            waiting.length > NAMED ? t('shell.ProductionSheet.andMore', [waiting.length - NAMED]) : ''
          }}</RouterLink
        >
        <span v-else class="soft">{{ t('shell.ProductionSheet.noCardWaits') }}</span>
        <span v-if="data.days_count > data.days.length" class="soft">{{
          t('shell.ProductionSheet.olderDays', [
            data.days_count - data.days.length,
            open === 0 ? '' : t('shell.ProductionSheet.areNotCountedHere'),
          ])
        }}</span>
        <RouterLink class="plain push" :to="to(data.days[0]!.ulid)" @click="isWalking = true">{{
          t('shell.ProductionSheet.aWalkThroughIt')
        }}</RouterLink>
      </p>
    </template>
  </section>
</template>

<style scoped>
.production {
  background: var(--sheet);
  border: 1px solid var(--rule-strong);
  border-radius: 8px;
  padding: 14px 18px 12px;
  display: grid;
  gap: 10px;
  min-width: 0;
}
header {
  display: flex;
  align-items: baseline;
  gap: 10px;
  min-width: 0;
}
h2 {
  font-size: 16px;
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
h2 a:hover {
  text-decoration: underline;
}
.here {
  list-style: none;
  display: flex;
  gap: 4px;
  margin: 0 0 0 auto;
  padding: 0;
}
.here li {
  border: 1px solid var(--rule-strong);
  border-radius: 50%;
  width: 26px;
  height: 26px;
  line-height: 24px;
  text-align: center;
  font-size: 11px;
  font-weight: 600;
  background: var(--act-soft);
}
.days {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(148px, 1fr));
  gap: 8px;
}
.day {
  border: 1px solid var(--rule);
  border-radius: 6px;
  background: var(--sheet-2);
  padding: 7px 11px;
  display: grid;
  align-content: start;
  font-size: 12px;
  line-height: 1.45;
}
.day b {
  font-size: 13px;
}
.day:hover {
  border-color: var(--act);
}
.line {
  margin: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
  font-size: 12.5px;
}
.line a:hover {
  text-decoration: underline;
}
.first {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  align-items: center;
}
.first p {
  flex-basis: 100%;
  margin: 0;
}
.first label {
  display: flex;
  gap: 8px;
  align-items: center;
}
.bones {
  padding: 0;
}
</style>
