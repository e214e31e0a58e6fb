<script setup lang="ts">
import { t } from '@/words'
import { language, LANGUAGES, speak } from '@/words/language'

/** Which language the interface speaks on this computer. The page is opened anew in it. */
</script>

<template>
  <p class="languages" role="group" :aria-label="t('shell.LanguageChoice.language')">
    <button
      v-for="(name, one) in LANGUAGES"
      :key="one"
      type="button"
      class="plain"
      :lang="one"
      :aria-pressed="one === language"
      :class="{ on: one === language }"
      @click="one !== language && speak(one)"
    >
      {{ name }}
    </button>
  </p>
</template>

<style scoped>
.languages {
  display: flex;
  gap: 4px;
  margin: 0;
}
.on,
.on:hover {
  background: var(--ink);
  border-color: var(--ink);
  color: var(--sheet);
}
</style>
