<script setup lang="ts">
import { t } from '@/words'
import { computed, ref } from 'vue'
import { words as wordsApi } from '@/api/endpoints/words'
import { shell as shellApi } from '@/api/endpoints/shell'
import { makeStale, useAnswer } from '@/api/queries'
import type { ClipSheet, ClipWords } from '@/api/types'
import { useDesk } from '@/shell/desk'
import { attempt, say } from '@/shell/say'
import TaskProgress from '@/shell/TaskProgress.vue'

/** Has the words of a clip found, or takes a text of them in. */
const props = defineProps<{ clip: ClipSheet; words: ClipWords; mayEdit: boolean }>()
const { production, day } = useDesk()
const language = ref(props.words.languages[0] ?? 'en-us')
const task = computed(() => props.words.task)
const { data: tasks } = useAnswer(() => (task.value === null ? null : shellApi.tasks(production.value.ulid)))
const running = computed(() => tasks.value?.tasks.find((one) => one.ulid === task.value) ?? null)
const hasWords = computed(() => props.words.sources.length > 0)
const again = ref(false)
async function find(byService: boolean): Promise<void> {
  const body = {
    clips: props.words.heard_in,
    language: language.value,
    service: byService,
    again: again.value,
  }
  const started = await attempt(() => wordsApi.find(production.value.ulid, day.value.ulid, body))
  if (started !== undefined) say(t('bins.WordsFind.itIsListenedToYou'))
  makeStale('tasks')
  makeStale('spoken')
}
const pasted = ref('')
const pasting = ref(false)
async function bring(what: string | File): Promise<void> {
  const sound = props.words.heard_in[0] ?? props.clip.ulid
  const done = await attempt(() =>
    typeof what === 'string'
      ? wordsApi.bring(production.value.ulid, sound, what, language.value, again.value)
      : wordsApi.bringFile(production.value.ulid, sound, what, language.value, again.value),
  )
  if (done === undefined) return
  pasting.value = false
  pasted.value = ''
  const unread = done.problems.length
  const rest = unread === 0 ? '' : t('bins.WordsFind.linesCouldNotBeRead', [unread, done.problems[0]])
  say(
    done.task === null
      ? t('bins.WordsFind.wordsCameWithTheirTimes', [done.words, rest])
      : t('bins.WordsFind.wordsAreAlignedToThe', [done.words]),
  )
  makeStale('tasks')
  makeStale('spoken')
}
function chosenFile(event: Event): void {
  const file = (event.target as HTMLInputElement).files?.[0]
  if (file !== undefined) void bring(file)
}
</script>

<template>
  <div class="find">
    <template v-if="task !== null">
      <p>{{ t('bins.WordsFind.whatIsSaidHereIs') }}</p>
      <TaskProgress v-if="running" :task="running" />
    </template>
    <template v-else-if="words.heard_in.length === 0">
      <p>{{ clip.has_sound ? t('bins.WordsFind.theMediaOfThisClip') : t('bins.WordsFind.thisClipHasNoSound') }}</p>
    </template>
    <template v-else-if="mayEdit">
      <p v-if="!hasWords">{{ t('bins.WordsFind.nobodyHasListenedToThis') }}</p>
      <div class="row">
        <button v-if="words.languages.length > 0" class="go" @click="find(false)">
          {{ t('bins.WordsFind.findWhatIsSaid') }}
        </button>
        <select
          v-if="words.languages.length > 1"
          v-model="language"
          class="field"
          :aria-label="t('bins.WordsFind.language')"
        >
          <option v-for="one in words.languages" :key="one">{{ one }}</option>
        </select>
        <button v-if="words.service" class="plain" :title="words.service" @click="find(true)">
          {{ t('bins.WordsFind.byTheService') }}
        </button>
      </div>
      <p v-if="words.languages.length === 0" class="soft">
        {{
          t('bins.WordsFind.theProgramThatRecognisesWords', [words.service ? t('bins.WordsFind.orUseTheService') : ''])
        }}
      </p>
      <div class="row soft">
        {{ t('bins.WordsFind.orBringAText') }}
        <label class="plain file"
          >{{ t('bins.WordsFind.srtWebvttText')
          }}<input type="file" accept=".srt,.vtt,.txt,.json,text/plain" @change="chosenFile"
        /></label>
        <button class="plain" @click="pasting = !pasting">{{ t('bins.WordsFind.pasteOne') }}</button>
      </div>
      <label v-if="hasWords" class="row soft">
        <input v-model="again" type="checkbox" /> {{ t('bins.WordsFind.replaceCorrectedWords') }}{{ ' ' }}
      </label>
      <form v-if="pasting" @submit.prevent="bring(pasted)">
        <textarea
          v-model="pasted"
          class="field"
          rows="6"
          :aria-label="t('bins.WordsFind.theText')"
          :placeholder="t('bins.WordsFind.whatIsSaidAsPlain')"
        />
        <button class="plain" :disabled="pasted.trim() === ''">{{ t('bins.WordsFind.alignItToTheSound') }}</button>
      </form>
    </template>
    <p v-else-if="!hasWords" class="soft">{{ t('bins.WordsFind.nobodyHasListenedToThis') }}</p>
  </div>
</template>

<style scoped>
.find {
  padding: 10px 12px;
  border: 1px solid var(--rule);
  border-radius: 5px;
  background: var(--sheet);
  margin-bottom: 10px;
}
p {
  margin: 0 0 8px;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  margin-bottom: 8px;
}
.file input {
  position: absolute;
  width: 1px;
  height: 1px;
  opacity: 0;
}
textarea {
  width: 100%;
  font-family: inherit;
}
</style>
