<script setup lang="ts">
import { deskSays } from '@/words/desk'
import { t } from '@/words'
import { ref } from 'vue'
import { screening } from '@/api/endpoints/screening'
import { makeStale, useAnswer } from '@/api/queries'
import { bytes } from '@/words/amounts'
import { attempt, say } from '@/shell/say'

/** A reel as a file to be watched elsewhere: what is written over it, how it gets on, and where it is. */
const props = defineProps<{
  production: string
  reel: string
  mayExport: boolean
  /** A cut, whose tracks can be written by themselves. */
  isCut?: boolean
}>()
const { data } = useAnswer(() => screening.exports(props.production, props.reel))
const slate = ref(true)
const timecode = ref(true)
const name = ref('')
const originals = ref(false)
const height = ref(540)
const tracks = ref(false)
async function start(): Promise<void> {
  const made = await attempt(() =>
    screening.export(props.production, props.reel, {
      slate: slate.value,
      timecode: timecode.value,
      name: name.value.trim() || null,
      originals: originals.value,
      height: height.value,
      tracks: tracks.value,
    }),
  )
  if (made === undefined) return
  say(t('shell.SequenceFiles.theFileIsBeingWritten'))
  makeStale('tasks')
}
async function cancel(task: string): Promise<void> {
  await attempt(() => screening.cancelExport(props.production, props.reel, task))
  makeStale('tasks')
}
</script>

<template>
  <div class="files" :class="{ light: isCut }">
    <form v-if="mayExport" class="new" @submit.prevent="start">
      <span class="soft">{{ t('shell.SequenceFiles.overThePicture') }}</span>
      <label><input v-model="slate" type="checkbox" /> {{ t('shell.SequenceFiles.slate') }}</label>
      <label><input v-model="timecode" type="checkbox" /> {{ t('shell.SequenceFiles.timecode') }}</label>
      <label
        >{{ t('shell.SequenceFiles.name') }}
        <input v-model="name" class="say" maxlength="80" :placeholder="t('shell.SequenceFiles.none')"
      /></label>
      <label
        >{{ t('shell.SequenceFiles.from') }}
        <select v-model="originals" class="say">
          <option :value="false">{{ t('shell.SequenceFiles.proxies') }}</option>
          <option :value="true">{{ t('shell.SequenceFiles.recordings') }}</option>
        </select></label
      >
      <label
        >{{ t('shell.SequenceFiles.lines') }}
        <select v-model.number="height" class="say">
          <option v-for="one in [540, 720, 1080]" :key="one" :value="one">{{ one }}</option>
        </select></label
      >
      <label v-if="isCut"
        ><input v-model="tracks" type="checkbox" /> {{ t('shell.SequenceFiles.eachSoundTrackAsWell') }}</label
      >
      <button class="go">{{ t('shell.SequenceFiles.writeTheFile') }}</button>
    </form>
    <p v-if="data && data.exports.length === 0" class="soft">
      {{
        t('shell.SequenceFiles.noFileOfThisYet', [isCut ? t('shell.SequenceFiles.cut') : t('shell.SequenceFiles.reel')])
      }}
    </p>
    <ul v-else>
      <li v-for="one in data?.exports ?? []" :key="one.task">
        <template v-if="one.state === 'done'"
          ><span
            >{{ deskSays(one.message) }} <span class="soft">{{ bytes(one.bytes) }}</span><small
              v-if="one.proxies.length > 0"
              class="soft"
              :title="one.proxies.join(', ')"
            >
              {{
                t('shell.SequenceFiles.fromProxies', [
                  one.proxies.length,
                  one.proxies.length === 1 ? t('shell.SequenceFiles.take') : t('shell.SequenceFiles.takes'),
                ])
              }}</small
            ></span
          >
          <a class="plain" :href="screening.exportUrl(production, reel, one.task, 'picture')">{{
            t('shell.SequenceFiles.pictureAndSound')
          }}</a>
          <a class="plain" :href="screening.exportUrl(production, reel, one.task, 'sound')">{{
            t('shell.SequenceFiles.sound')
          }}</a><a
            v-for="track in one.tracks"
            :key="track.part"
            class="plain"
            :href="screening.exportUrl(production, reel, one.task, track.part)"
            >{{ track.name }}</a
          ></template
        >
        <template v-else-if="one.state === 'running' || one.state === 'waiting'"
          ><span
            >{{ one.state === 'waiting' ? t('shell.SequenceFiles.waits') : t('shell.SequenceFiles.isBeingWritten') }}
            <span class="soft">{{ one.now }}</span> <progress :value="one.done" :max="Math.max(1, one.total)" /></span
          ><button v-if="mayExport" class="plain" @click="cancel(one.task)">
            {{ t('shell.SequenceFiles.stop') }}
          </button></template
        >
        <span v-else>{{ one.state === 'cancelled' ? t('shell.SequenceFiles.stopped') : deskSays(one.message) }}</span>
      </li>
    </ul>
  </div>
</template>

<style scoped>
/* On the dark page of a reel, or on the sheet of a cut. */
.files {
  display: grid;
  gap: 12px;
}
.new {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  align-items: center;
}
.new label {
  display: flex;
  gap: 6px;
  align-items: center;
}
.say {
  width: 110px;
  font: inherit;
  padding: 4px 8px;
  border: 1px solid #5b666d;
  border-radius: 5px;
  background: var(--dark);
  color: var(--on-dark);
}
p,
ul {
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  align-items: center;
  padding: 6px 0;
  border-top: 1px solid var(--dark-rule);
}
li > span:first-child {
  flex: 1;
  min-width: 200px;
}
.plain {
  background: var(--dark-2);
  color: var(--on-dark);
  border-color: #4a545b;
}
progress {
  width: 100%;
  height: 6px;
  accent-color: #6dbfa6;
}
.light .say,
.light .plain {
  background: var(--sheet);
  color: var(--ink);
  border-color: var(--rule-strong);
}
.light li {
  border-color: var(--rule);
}
</style>
