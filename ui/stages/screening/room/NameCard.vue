<script setup lang="ts">
import { t } from '@/words'
import { length } from '@/player/time'

/** What the house sees before a reel begins and behind its end: what it is, and how long. */
defineProps<{ production: string; name: string; takes: number; running: number; isEnd?: boolean }>()
</script>

<template>
  <div class="card" role="status">
    <p>{{ production }}</p>
    <h1>{{ name }}</h1>
    <p class="soft">
      <template v-if="isEnd">{{ t('screening.room.NameCard.endOfTheReel') }}</template>
      <template v-else
        >{{ takes }} {{ takes === 1 ? t('screening.room.NameCard.take') : t('screening.room.NameCard.takes') }} ·
        {{ length(running) }}</template
      >
    </p>
  </div>
</template>

<style scoped>
.card {
  position: absolute;
  inset: 0;
  display: grid;
  align-content: center;
  justify-items: center;
  gap: 1.2vh;
  background: #0c0f11;
  color: var(--on-dark);
  text-align: center;
}
h1 {
  margin: 0;
  font-weight: 600;
  font-size: 5vh;
  max-width: 80%;
  overflow-wrap: anywhere;
}
p {
  margin: 0;
  font-size: 2.4vh;
}
.soft {
  color: var(--on-dark-soft);
}
</style>
