<script setup lang="ts">
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
  if (started !== undefined) say('It is listened to. You can go on meanwhile.')
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
  const rest = unread === 0 ? '' : ` ${unread} lines could not be read: ${done.problems[0]}`
  say(
    done.task === null
      ? `${done.words} words came with their times.${rest}`
      : `${done.words} words are aligned to the sound.`,
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
      <p>What is said here is being found.</p>
      <TaskProgress v-if="running" :task="running" />
    </template>
    <template v-else-if="words.heard_in.length === 0">
      <p>{{ clip.has_sound ? 'The media of this clip are not made yet.' : 'This clip has no sound.' }}</p>
    </template>
    <template v-else-if="mayEdit">
      <p v-if="!hasWords">Nobody has listened to this clip yet.</p>
      <div class="row">
        <button v-if="words.languages.length > 0" class="go" @click="find(false)">Find what is said</button>
        <select v-if="words.languages.length > 1" v-model="language" class="field" aria-label="Language">
          <option v-for="one in words.languages" :key="one">{{ one }}</option>
        </select>
        <button v-if="words.service" class="plain" :title="words.service" @click="find(true)">By the service</button>
      </div>
      <p v-if="words.languages.length === 0" class="soft">
        The program that recognises words is not on this machine: install Debian’s packages pocketsphinx and
        pocketsphinx-en-us{{ words.service ? ', or use the service' : '' }}.
      </p>
      <div class="row soft">
        or bring a text:
        <label class="plain file"
          >SRT, WebVTT, text…<input type="file" accept=".srt,.vtt,.txt,.json,text/plain" @change="chosenFile"
        /></label>
        <button class="plain" @click="pasting = !pasting">Paste one</button>
      </div>
      <label v-if="hasWords" class="row soft">
        <input v-model="again" type="checkbox" /> Replace corrected words
      </label>
      <form v-if="pasting" @submit.prevent="bring(pasted)">
        <textarea
          v-model="pasted"
          class="field"
          rows="6"
          aria-label="The text"
          placeholder="What is said, as plain text; it gets its times from the sound."
        />
        <button class="plain" :disabled="pasted.trim() === ''">Align it to the sound</button>
      </form>
    </template>
    <p v-else-if="!hasWords" class="soft">Nobody has listened to this clip yet.</p>
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
