<script setup lang="ts">
import { t } from '@/words'
import { computed } from 'vue'
import { screening } from '@/api/endpoints/screening'
import { useAnswer } from '@/api/queries'
import { scriptPieces } from './script'

/** The scene of the take that plays, as the script has it. */
const props = defineProps<{ production: string; scene: string }>()
const { data } = useAnswer(() => screening.scene(props.production, props.scene))
const pieces = computed(() => (data.value?.text == null ? [] : scriptPieces(data.value.text)))
</script>

<template>
  <section class="script" :aria-label="t('screening.room.ScriptBeside.script')">
    <h2 class="mono">{{ scene }}</h2>
    <p v-if="data?.heading" class="heading">{{ data.heading }}</p>
    <p v-if="data && pieces.length === 0" class="soft">
      {{
        data.text === null
          ? t('screening.room.ScriptBeside.noScriptOfThisScene')
          : t('screening.room.ScriptBeside.theScriptHasNothingBut')
      }}
    </p>
    <p v-for="(piece, index) in pieces" :key="index" :class="piece.kind">{{ piece.text }}</p>
  </section>
</template>

<style scoped>
.script {
  font-family: var(--mono);
  font-size: 12.5px;
  line-height: 1.5;
}
h2 {
  font-size: 20px;
  font-weight: 600;
  margin: 0;
}
p {
  margin: 0 0 10px;
  white-space: pre-line;
  overflow-wrap: anywhere;
}
.heading {
  font-weight: 600;
}
.speaker {
  margin: 0 0 0 30%;
}
.speech {
  margin-left: 12%;
  margin-right: 8%;
}
</style>
