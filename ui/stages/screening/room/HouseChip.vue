<script setup lang="ts">
import { t } from '@/words'
import { computed } from 'vue'
import { type Curtain, houseSetting } from './house'
import type { House } from './useHouse'

/** What the house sees, at the desk; and how late its projector is. */
const props = defineProps<{ house: House }>()
const WORDS: Record<Curtain, string> = {
  picture: t('screening.room.HouseChip.thePicture'),
  blank: t('screening.room.HouseChip.nothing'),
  card: t('screening.room.HouseChip.theNameCard'),
  test: t('screening.room.HouseChip.theTestPicture'),
}
const words = computed(() => {
  const seen = props.house.seen.value
  if (seen === null) return t('screening.room.HouseChip.noHouseScreenIsOpen')
  return t('screening.room.HouseChip.theHouseSees', [WORDS[seen.curtain]])
})
function later(by: number): void {
  houseSetting.value = {
    ...houseSetting.value,
    late: Math.max(0, Math.min(1000, houseSetting.value.late + by)),
  }
}
</script>

<template>
  <div class="house-chip" :class="{ off: !house.isThere.value }" data-testid="house">
    <p>
      <i :class="{ step: house.isThere.value && house.isInStep.value }" />{{ words
      }}<span v-if="house.isThere.value" class="soft">{{
        house.isInStep.value ? t('screening.room.HouseChip.inStep') : t('screening.room.HouseChip.comingIntoStep')
      }}</span>
    </p>
    <div class="row">
      <button class="plain" @click="house.open()">
        {{ house.isThere.value ? t('screening.room.HouseChip.toTheFront') : t('screening.room.HouseChip.open') }}
        <kbd>H</kbd>
      </button>
      <button
        class="plain"
        :class="{ on: house.curtain.value === 'blank' }"
        :disabled="!house.isThere.value"
        @click="house.draw('blank')"
      >
        {{ t('screening.room.HouseChip.blank') }} <kbd>B</kbd>
      </button>
      <button
        class="plain"
        :class="{ on: house.curtain.value === 'card' }"
        :disabled="!house.isThere.value"
        @click="house.draw('card')"
      >
        {{ t('screening.room.HouseChip.name') }} <kbd>Alt N</kbd>
      </button>
      <button
        class="plain"
        :class="{ on: house.curtain.value === 'test' }"
        :disabled="!house.isThere.value"
        @click="house.draw('test')"
      >
        {{ t('screening.room.HouseChip.test') }} <kbd>Alt T</kbd>
      </button>
    </div>
    <label v-if="house.screens.value.length > 1"
      >{{ t('screening.room.HouseChip.screen') }}
      <select v-model="houseSetting.screen">
        <option value="">{{ t('screening.room.HouseChip.anotherThanThisOne') }}</option>
        <option v-for="one in house.screens.value" :key="one.label" :value="one.label">{{ one.label }}</option>
      </select>
    </label>
    <div v-if="house.curtain.value === 'test'" class="late">
      <span>{{ t('screening.room.HouseChip.moveItUntilFlashAnd') }}</span>
      <button class="plain" :aria-label="t('screening.room.HouseChip.n5MsLess')" @click="later(-5)">−</button>
      <b class="mono">{{ t('screening.room.HouseChip.ms', [houseSetting.late]) }}</b>
      <button class="plain" :aria-label="t('screening.room.HouseChip.n5MsMore')" @click="later(5)">+</button>
    </div>
    <p v-else-if="houseSetting.late > 0" class="soft">
      {{ t('screening.room.HouseChip.shownMsEarlyForA', [houseSetting.late]) }}
    </p>
  </div>
</template>

<style scoped>
.house-chip {
  display: grid;
  gap: 8px;
  border-top: 1px solid var(--dark-rule);
  padding-top: 10px;
  font-size: 12px;
}
p {
  margin: 0;
}
i {
  display: inline-block;
  width: 8px;
  height: 8px;
  border-radius: 50%;
  margin-right: 7px;
  background: #d9a441;
}
.off i {
  background: #4a545b;
}
i.step {
  background: #6dbfa6;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.plain {
  background: var(--dark);
  color: var(--on-dark);
  border-color: #4a545b;
  padding: 2px 7px;
  font-size: 11px;
}
.plain.on {
  border-color: #6dbfa6;
  color: #8fd6c0;
}
.plain:disabled {
  opacity: 0.5;
}
kbd {
  background: transparent;
  color: var(--on-dark-soft);
  border-color: #4a545b;
}
.late {
  display: flex;
  gap: 6px;
  align-items: center;
  flex-wrap: wrap;
}
select {
  background: var(--dark);
  color: var(--on-dark);
  border: 1px solid #4a545b;
  border-radius: 4px;
}
</style>
