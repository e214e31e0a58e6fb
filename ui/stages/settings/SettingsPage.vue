<script setup lang="ts">
import { t } from '@/words'
import { computed } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useDesk } from '@/shell/desk'
import { useShortcuts } from '@/shell/keys'
import AuditList from './AuditList.vue'
import ConnectionList from './ConnectionList.vue'
import DayList from './DayList.vue'
import DeviceList from './DeviceList.vue'
import FieldList from './FieldList.vue'
import LibraryBox from './LibraryBox.vue'
import PeopleList from './PeopleList.vue'
import StoreList from './StoreList.vue'

/** How a production is set up. The tab stands in the address, so that a fix can lead to it. */
const { production } = useDesk()
const route = useRoute()
const router = useRouter()
const TABS = [
  { key: 'devices', title: t('settings.SettingsPage.devices'), part: DeviceList, manage: false },
  { key: 'days', title: t('settings.SettingsPage.shootDays'), part: DayList, manage: false },
  { key: 'fields', title: t('settings.SettingsPage.fields'), part: FieldList, manage: false },
  { key: 'volumes', title: t('settings.SettingsPage.volumesForCopies'), part: StoreList, manage: false },
  { key: 'people', title: t('settings.SettingsPage.people'), part: PeopleList, manage: true },
  { key: 'connections', title: t('settings.SettingsPage.programs'), part: ConnectionList, manage: true },
  { key: 'library', title: t('settings.SettingsPage.library'), part: LibraryBox, manage: true },
  { key: 'record', title: t('settings.SettingsPage.writtenDown'), part: AuditList, manage: true },
]
const tabs = computed(() => TABS.filter((tab) => !tab.manage || production.value.may.manage))
const tab = computed(() => tabs.value.find((one) => one.key === route.query.tab) ?? tabs.value[0]!)
const show = (key: string) => void router.replace({ query: { tab: key } })
function beside(step: number): void {
  const next = tabs.value[tabs.value.indexOf(tab.value) + step]
  if (next !== undefined) show(next.key)
}
useShortcuts('Production', [
  {
    keys: ['ArrowLeft', 'ArrowRight'],
    what: t('settings.SettingsPage.theListBeforeTheNext'),
    run: (event) => beside(event.key === 'ArrowLeft' ? -1 : 1),
  },
])
</script>

<template>
  <div class="page">
    <div class="bar" role="tablist" :aria-label="t('settings.SettingsPage.partsOfTheProduction')">
      <button
        v-for="one in tabs"
        :key="one.key"
        class="plain"
        role="tab"
        :aria-selected="one.key === tab.key"
        :class="{ on: one.key === tab.key }"
        @click="show(one.key)"
      >
        {{ one.title }}
      </button>
      <span class="push soft">{{
        t('settings.SettingsPage.picturesASecond', [production.name, production.rate.name])
      }}</span>
    </div>
    <div class="body"><component :is="tab.part" /></div>
  </div>
</template>

<style scoped>
.page {
  height: 100%;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
}
.on {
  border-color: var(--act);
  background: var(--act-soft);
  color: var(--act);
}
.body {
  overflow: auto;
  padding: 16px 18px 40px;
  max-width: 1080px;
}
</style>
