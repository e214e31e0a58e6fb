<script setup lang="ts">
import { t } from '@/words'
import { computed, ref } from 'vue'
import { screening } from '@/api/endpoints/screening'
import { useAnswer } from '@/api/queries'

/** What was said of the takes of a reel, by whom; to read, to print, and as a table. */
const props = defineProps<{ production: string; reel: string }>()
const { data } = useAnswer(() => screening.summary(props.production, props.reel))
const who = ref('')
const takes = computed(() =>
  (data.value?.takes ?? [])
    .map((one) => ({
      ...one,
      notes: one.notes.filter((note) => who.value === '' || note.by === who.value),
      ratings: one.ratings.filter((rating) => who.value === '' || rating.by === who.value),
    }))
    .filter((one) => one.notes.length + one.ratings.length > 0),
)
</script>

<template>
  <div v-if="data" class="said">
    <p v-if="data.people.length === 0" class="soft">
      {{ t('screening.ReelSaid.nothingWasSaidOfThese') }}
    </p>
    <template v-else>
      <div class="people">
        <button class="chip" :class="{ on: who === '' }" @click="who = ''">
          {{ t('screening.ReelSaid.everybody') }}
        </button>
        <button
          v-for="one in data.people"
          :key="one.name"
          class="chip"
          :class="{ on: who === one.name }"
          @click="who = who === one.name ? '' : one.name"
        >
          {{ one.name }}: {{ one.notes }}
          {{ one.notes === 1 ? t('screening.ReelSaid.note') : t('screening.ReelSaid.notes')
          }}{{ one.stars === null ? '' : t('screening.ReelSaid.ratedOnTheMean', [one.rated, one.stars]) }}
        </button>
        <span class="push" />
        <a class="plain" target="_blank" :href="screening.notesUrl(production, reel, 'pdf')">{{
          t('screening.ReelSaid.print')
        }}</a>
        <a class="plain" :href="screening.notesUrl(production, reel, 'csv')">{{ t('screening.ReelSaid.csv') }}</a>
      </div>
      <section v-for="one in takes" :key="one.ulid">
        <h3>
          <span class="mono">{{ one.label }}</span>
          <small class="soft"
            >{{ one.status === 'none' ? '' : one.status === 'ng' ? t('screening.ReelSaid.ng') : one.status }}
            {{ one.description }}</small
          >
        </h3>
        <p v-for="rating in one.ratings" :key="rating.by" class="soft">
          {{ t('screening.ReelSaid.of5', [rating.by, rating.stars]) }}
        </p>
        <p v-for="note in one.notes" :key="note.ulid">
          <small class="mono soft">{{ note.timecode }} {{ note.by }}</small
          ><br />{{ note.text }}
        </p>
      </section>
    </template>
  </div>
</template>

<style scoped>
.said {
  display: grid;
  gap: 10px;
}
.people {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
}
.push {
  flex: 1;
}
.chip {
  border: 1px solid #4a545b;
  background: none;
  color: var(--on-dark);
  border-radius: 12px;
  padding: 1px 10px;
  cursor: pointer;
  font-size: 12px;
}
.chip.on {
  border-color: #6dbfa6;
  color: #8fd6c0;
}
.plain {
  background: var(--dark-2);
  color: var(--on-dark);
  border-color: #4a545b;
}
h3 {
  margin: 0 0 2px;
  font-size: 14px;
  border-top: 1px solid var(--dark-rule);
  padding-top: 8px;
}
p {
  margin: 0 0 6px;
  overflow-wrap: anywhere;
}
</style>
