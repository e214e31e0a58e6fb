import { log } from './api/endpoints/log'
import { createRouter, createWebHistory } from 'vue-router'
import { ahead } from './api/queries'
import type { StageName } from './shell/stages'

const loads: (() => Promise<unknown>)[] = []
function stage(name: StageName, load: () => Promise<unknown>) {
  loads.push(load)
  return { path: name, name, component: load as never }
}

/** Fetches the code of all stages, so that the first key to each finds it there. */
export const fetchStages = () => void Promise.allSettled(loads.map((load) => load()))

/**
 * `/LOWWATER-ULID/DAY-ULID/log`: production, day and stage stand in the address, so that a place can be sent to a
 * colleague.
 */
export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', name: 'home', component: () => import('./shell/ProductionsPage.vue') },
    { path: '/:production([0-9A-Za-z]{26})', component: () => import('./shell/NewestDay.vue') },
    {
      path: '/:production([0-9A-Za-z]{26})/:day([0-9A-Za-z]{26})',
      component: () => import('./shell/Desk.vue'),
      redirect: (to) => ({ name: 'day', params: to.params }),
      children: [
        stage('day', () => import('./stages/day/DayPage.vue')),
        stage('cards', () => import('./stages/cards/CardsPage.vue')),
        {
          ...stage('log', () => import('./stages/log/LogPage.vue')),
          // Asked for while the page is still being put together.
          beforeEnter: (to) => ahead(log.sheet(String(to.params.production), String(to.params.day))),
        },
        stage('lineup', () => import('./stages/lineup/LineupPage.vue')),
        stage('bins', () => import('./stages/bins/BinsPage.vue')),
        { path: 'clip/:clip([0-9A-Za-z]{26})', name: 'clip', component: () => import('./stages/bins/ClipPage.vue') },
        {
          path: 'compare/:first([0-9A-Za-z]{26})/:second([0-9A-Za-z]{26})',
          name: 'compare',
          component: () => import('./stages/bins/ComparePage.vue'),
        },
        { path: 'words', name: 'words', component: () => import('./stages/words/SpokenPage.vue') },
        { path: 'script', name: 'script', component: () => import('./stages/words/ScriptPage.vue') },
        stage('screening', () => import('./stages/screening/ScreeningPage.vue')),
        stage('assembly', () => import('./stages/assembly/AssemblyPage.vue')),
        stage('handoff', () => import('./stages/handoff/HandoffPage.vue')),
        {
          path: 'handoff/:handoff([0-9A-Za-z]{26})',
          name: 'package',
          component: () => import('./stages/handoff/PackagePage.vue'),
        },
        {
          path: 'received/:sequence([0-9A-Za-z]{26})',
          name: 'received',
          component: () => import('./stages/handoff/ReceivedPage.vue'),
        },
        { path: 'settings', name: 'settings', component: () => import('./stages/settings/SettingsPage.vue') },
      ],
    },
    {
      path: '/house/:production([0-9A-Za-z]{26})',
      name: 'house',
      component: () => import('./stages/screening/HousePage.vue'),
    },
    {
      path: '/watch/:secret([A-Za-z0-9_-]{20,60})',
      name: 'watch',
      component: () => import('./stages/screening/GuestPage.vue'),
      // Whoever has a link needs no sign-in.
      meta: { isOpen: true },
    },
    { path: '/:rest(.*)*', component: () => import('./shell/NotHere.vue') },
  ],
})
