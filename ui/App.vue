<script setup lang="ts">
import { ConfigProvider } from 'ant-design-vue'
import BeforeWork from './shell/BeforeWork.vue'
import ReachBanner from './shell/ReachBanner.vue'
import { useSession } from './shell/session'
import SignIn from './shell/SignIn.vue'
import { useRoute } from 'vue-router'
import { paper } from './theme/antd'

const route = useRoute()
const session = useSession()
session.load()
</script>

<template>
  <ConfigProvider :theme="paper" :auto-insert-space-in-button="false">
    <RouterView v-if="route.meta.isOpen" />
    <p v-else-if="session.state === 'loading'" class="app-wait" role="status">Opening the folder…</p>
    <div v-else-if="session.state === 'unreachable'" class="app-wait" role="alert">
      <p>Cartella cannot be reached. Nothing is lost.</p>
      <button class="plain" @click="session.load()">Try again</button>
    </div>
    <SignIn v-else-if="session.user === null" />
    <BeforeWork v-else-if="session.user.needs !== null" />
    <RouterView v-else />
    <ReachBanner />
  </ConfigProvider>
</template>
