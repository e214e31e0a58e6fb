<script setup lang="ts">
import { t } from '@/words'
import { ConfigProvider } from 'ant-design-vue'
import BeforeWork from './shell/BeforeWork.vue'
import ReachBanner from './shell/ReachBanner.vue'
import { useSession } from './shell/session'
import SignIn from './shell/SignIn.vue'
import { useRoute } from 'vue-router'
import { ownWords, paper } from './theme/antd'

const route = useRoute()
const session = useSession()
session.load()
</script>

<template>
  <ConfigProvider :theme="paper" :locale="ownWords" :auto-insert-space-in-button="false">
    <RouterView v-if="route.meta.isOpen" />
    <p v-else-if="session.state === 'loading'" class="app-wait" role="status">{{ t('App.openingTheFolder') }}</p>
    <div v-else-if="session.state === 'unreachable'" class="app-wait" role="alert">
      <p>{{ t('App.cartellaCannotBeReachedNothing') }}</p>
      <button class="plain" @click="session.load()">{{ t('App.tryAgain') }}</button>
    </div>
    <SignIn v-else-if="session.user === null" />
    <BeforeWork v-else-if="session.user.needs !== null" />
    <RouterView v-else />
    <ReachBanner />
  </ConfigProvider>
</template>
