<script setup lang="ts">
import { t } from '@/words'
import { computed } from 'vue'
import type { CardCopy } from '@/api/types'
import { differenceTree } from './tile'

/** What a check of a copy found, folder by folder. */
const props = defineProps<{ found: NonNullable<CardCopy['differences']> }>()
const tree = computed(() => differenceTree(props.found))
</script>

<template>
  <ul class="tree mono" :aria-label="t('cards.DifferenceTree.whatDiffers')">
    <li v-for="folder in tree" :key="folder.path">
      <span class="folder">{{ folder.path === '' ? t('cards.DifferenceTree.atTheTop') : folder.path + '/' }}</span>
      <ul>
        <li v-for="file in folder.files" :key="file.sign + file.name" :class="file.look">
          <b :title="file.what">{{ file.sign }}</b><span
            >{{ file.name }}<small v-if="file.note">{{ file.note }}</small></span
          ><i>{{ file.what }}</i>
        </li>
      </ul>
    </li>
  </ul>
</template>

<style scoped>
.tree,
.tree ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
.tree {
  flex-basis: 100%;
  margin-top: 5px;
  font-size: 11px;
  max-height: 240px;
  overflow: auto;
}
.tree ul {
  border-left: 1px solid var(--rule-strong);
  margin: 1px 0 5px 4px;
  padding-left: 9px;
}
.folder {
  color: var(--ink-soft);
  overflow-wrap: anywhere;
}
.tree ul li {
  display: grid;
  grid-template-columns: 14px 1fr auto;
  gap: 4px;
}
.tree ul span {
  overflow-wrap: anywhere;
}
small {
  display: block;
  color: var(--ink-soft);
  font-size: 10.5px;
}
i {
  font:
    11px 'IBM Plex Sans',
    sans-serif;
}
</style>
