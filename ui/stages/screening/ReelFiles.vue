<script setup lang="ts">
import { ref } from 'vue'
import { screening } from '@/api/endpoints/screening'
import { makeStale, useAnswer } from '@/api/queries'
import { bytes } from '@/player/time'
import { attempt, say } from '@/shell/say'

/** A reel as a file to be watched elsewhere: what is written over it, how it gets on, and where it is. */
const props = defineProps<{ production: string; reel: string; mayExport: boolean }>()
const { data } = useAnswer(() => screening.exports(props.production, props.reel))
const slate = ref(true)
const timecode = ref(true)
const name = ref('')
const originals = ref(false)
const height = ref(540)
async function start(): Promise<void> {
  const made = await attempt(() =>
    screening.export(props.production, props.reel, {
      slate: slate.value,
      timecode: timecode.value,
      name: name.value.trim() || null,
      originals: originals.value,
      height: height.value,
    }),
  )
  if (made === undefined) return
  say('The file is being written. It goes on while you do other things.')
  makeStale('tasks')
}
async function cancel(task: string): Promise<void> {
  await attempt(() => screening.cancelExport(props.production, props.reel, task))
  makeStale('tasks')
}
</script>

<template>
  <div class="files">
    <form v-if="mayExport" class="new" @submit.prevent="start">
      <span class="soft">Over the picture</span>
      <label><input v-model="slate" type="checkbox" /> slate</label>
      <label><input v-model="timecode" type="checkbox" /> timecode</label>
      <label>name <input v-model="name" class="say" maxlength="80" placeholder="none" /></label>
      <label
        >from
        <select v-model="originals" class="say">
          <option :value="false">proxies</option>
          <option :value="true">recordings</option>
        </select></label
      >
      <label
        >lines
        <select v-model.number="height" class="say">
          <option v-for="one in [540, 720, 1080]" :key="one" :value="one">{{ one }}</option>
        </select></label
      >
      <button class="go">Write the file</button>
    </form>
    <p v-if="data && data.exports.length === 0" class="soft">
      No file of this reel yet: H.264 with its sound, and the sound by itself as WAV.
    </p>
    <ul v-else>
      <li v-for="one in data?.exports ?? []" :key="one.task">
        <template v-if="one.state === 'done'"
          ><span
            >{{ one.message }} <span class="soft">{{ bytes(one.bytes) }}</span><small
              v-if="one.proxies.length > 0"
              class="soft"
              :title="one.proxies.join(', ')"
            >
              {{ one.proxies.length }} {{ one.proxies.length === 1 ? 'take' : 'takes' }} from proxies</small
            ></span
          >
          <a class="plain" :href="screening.exportUrl(production, reel, one.task, 'picture')">Picture and sound</a>
          <a class="plain" :href="screening.exportUrl(production, reel, one.task, 'sound')">Sound</a></template
        >
        <template v-else-if="one.state === 'running' || one.state === 'waiting'"
          ><span
            >{{ one.state === 'waiting' ? 'Waits' : 'Is being written' }} <span class="soft">{{ one.now }}</span>
            <progress :value="one.done" :max="Math.max(1, one.total)" /></span
          ><button v-if="mayExport" class="plain" @click="cancel(one.task)">Stop</button></template
        >
        <span v-else>{{ one.state === 'cancelled' ? 'Stopped.' : one.message }}</span>
      </li>
    </ul>
  </div>
</template>

<style scoped src="./parts.css"></style>
<style scoped>
.files {
  display: grid;
  gap: 12px;
}
.say {
  width: 110px;
}
li {
  grid-template-columns: minmax(0, 1fr) auto auto;
}
progress {
  width: 100%;
  height: 6px;
  accent-color: #6dbfa6;
}
</style>
