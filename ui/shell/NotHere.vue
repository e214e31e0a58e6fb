<script setup lang="ts">
import { t } from '@/words'
/** For an address at which nothing is. */
</script>

<template>
  <div class="empty">
    <b>{{ t('shell.NotHere.thereIsNothingAtThis') }}</b>{{ t('shell.NotHere.itMayBeInA') }}<br /><RouterLink to="/"
      ><button class="plain">{{ t('shell.NotHere.toTheProductions') }}</button></RouterLink
    >
  </div>
</template>
