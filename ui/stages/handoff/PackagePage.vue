<script setup lang="ts">
import { handoff as handoffApi } from '@/api/endpoints/handoff'
import { shell as shellApi } from '@/api/endpoints/shell'
import { Modal } from 'ant-design-vue'
import { computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { makeStale, useAnswer } from '@/api/queries'
import type { PackageFile } from '@/api/types'
import { bytes } from '@/player/time'
import AnswerState from '@/shell/AnswerState.vue'
import { useDesk } from '@/shell/desk'
import { useShortcuts } from '@/shell/keys'
import { attempt, say } from '@/shell/say'
import TaskProgress from '@/shell/TaskProgress.vue'
import OpenedFile from './OpenedFile.vue'
import { count, STATES, when } from './words'

/** A delivered package as the editing team sees it: every part of it opened, checked, accepted or asked about. */
const { production } = useDesk()
const route = useRoute()
const router = useRouter()
const ulid = computed(() => String(route.params.handoff))
const { data, isPending, error, refetch } = useAnswer(() => handoffApi.package(production.value.ulid, ulid.value))
const { data: tasks } = useAnswer(() => shellApi.tasks(production.value.ulid))
const one = computed(() => data.value?.handoff)
const running = computed(() =>
  (tasks.value?.tasks ?? []).find(
    (task) => task.kind === 'accept' && (task.state === 'running' || task.state === 'waiting'),
  ),
)
const failed = computed(() =>
  (tasks.value?.tasks ?? []).find((task) => task.kind === 'accept' && task.state === 'failed'),
)

const wanted = ref('')
const files = computed(() => {
  const words = wanted.value.trim().toLowerCase()
  return (data.value?.files ?? []).filter(
    (file) => words === '' || `${file.path} ${file.label ?? ''}`.toLowerCase().includes(words),
  )
})
const folders = computed(() => {
  const groups = new Map<string, PackageFile[]>()
  for (const file of files.value) {
    const folder = file.path.includes('/') ? `${file.path.split('/')[0]}/` : ''
    groups.set(folder, [...(groups.get(folder) ?? []), file])
  }
  return [...groups].sort(([x], [y]) => (x === '' ? 1 : y === '' ? -1 : x.localeCompare(y)))
})
const at = ref<string | null>(null)
const here = computed(() => data.value?.files.find((file) => file.path === at.value) ?? null)
function step(by: number): void {
  const list = folders.value.flatMap(([, some]) => some)
  const now = list.findIndex((file) => file.path === at.value)
  at.value = list[Math.max(0, Math.min(list.length - 1, now + by))]?.path ?? null
  document.querySelector('.file.on')?.scrollIntoView({ block: 'nearest' })
}

const may = computed(() => production.value.may.accept)
const canAnswer = computed(() => one.value?.state === 'delivered' || one.value?.state === 'queried')
async function accept(): Promise<void> {
  if (!may.value || !canAnswer.value) return
  Modal.confirm({
    title: `Accept hand-off ${one.value?.number}?`,
    content: 'Every file is read and compared with its hash first. You can take it back until the next package.',
    okText: 'Check and accept',
    onOk: async () => {
      if ((await attempt(() => handoffApi.accept(production.value.ulid, ulid.value))) === undefined) return
      say('Every file is read first; then it is accepted.')
      makeStale('handoffs')
      makeStale('tasks')
    },
  })
}
async function takeBack(): Promise<void> {
  if ((await attempt(() => handoffApi.takeBack(production.value.ulid, ulid.value))) !== undefined)
    say('The acceptance is taken back.')
  makeStale('handoffs')
}
const asking = ref<{ path: string | null; about: string } | null>(null)
const words = ref('')
function ask(file: PackageFile | null): void {
  if (!may.value || !canAnswer.value) return
  words.value = ''
  asking.value = { path: file?.path ?? null, about: file === null ? 'the package' : (file.label ?? file.path) }
}
async function send(): Promise<void> {
  const about = asking.value
  const question = words.value.trim()
  if (about === null || question === '') return
  if ((await attempt(() => handoffApi.ask(production.value.ulid, ulid.value, question, about.path))) !== undefined)
    say('The question is with the assistants.')
  asking.value = null
  makeStale('handoffs')
}
const answers = ref<Record<string, string>>({})
async function answer(question: string, text: string | null): Promise<void> {
  if (
    (await attempt(() => handoffApi.answer(production.value.ulid, ulid.value, question, text))) !== undefined &&
    text !== null
  )
    say('The answer goes with the next package.')
  makeStale('handoffs')
  makeStale('takes')
}
function leave(): void {
  void router.push({ name: 'handoff', params: { production: production.value.ulid, day: route.params.day } })
}
useShortcuts('Package', [
  {
    keys: ['ArrowDown', 'ArrowUp'],
    what: 'Next file, the one before',
    run: (event) => step(event.key === 'ArrowDown' ? 1 : -1),
  },
  { keys: ['y'], what: 'Check and accept', run: () => void accept() },
  { keys: ['a'], what: 'Ask about this file', run: () => ask(here.value) },
  { keys: ['A'], what: 'Ask about the package', run: () => ask(null) },
  { keys: ['Escape'], what: 'Back to the hand-offs', run: leave },
])
</script>

<template>
  <AnswerState :pending="isPending" :error="error" @retry="refetch()">
    <div v-if="data && one" class="page">
      <header class="bar">
        <button class="plain" @click="leave">Hand-offs <kbd>Esc</kbd></button>
        <h1>No. {{ one.number }} · {{ one.title }}</h1>
        <span class="state" :class="STATES[one.state].look">{{ STATES[one.state].text }}</span>
        <span class="soft"
          >{{ one.made_by }}, {{ when(one.delivered_at)
          }}<template v-if="one.summary">
            · {{ count(one.summary.files, 'file') }}, {{ bytes(one.summary.bytes) }}</template
          ></span
        >
        <span class="push" />
        <template v-if="may && canAnswer">
          <button class="plain" @click="ask(null)">Ask about it… <kbd>Shift A</kbd></button>
          <button class="go" @click="accept">Check and accept <kbd>Y</kbd></button>
        </template>
        <button v-if="may && one.state === 'accepted' && one.newest" class="plain" @click="takeBack">
          Take the acceptance back
        </button>
      </header>
      <div class="split">
        <nav class="files" aria-label="What lies in the package">
          <input v-model="wanted" class="field" aria-label="Find a file" placeholder="Find a file or a slate" />
          <section v-for="[folder, some] in folders" :key="folder">
            <h3>
              <span class="mono">{{ folder === '' ? 'beside the folders' : folder }}</span><small class="soft">{{
                some.length
              }}</small>
            </h3>
            <button
              v-for="file in some.slice(0, 500)"
              :key="file.path"
              class="file"
              :class="{ on: file.path === at }"
              @click="at = file.path"
            >
              <span>{{ folder === '' ? file.path : file.path.slice(folder.length) }}</span><small class="soft">{{
                file.label ?? bytes(file.bytes)
              }}</small>
            </button>
            <p v-if="some.length > 500" class="soft">and {{ some.length - 500 }} more; find them by name</p>
          </section>
          <p v-if="files.length === 0" class="empty">
            <b>{{
              data.files.length === 0 ? 'The package does not lie in the inbox any more.' : 'No file is called so.'
            }}</b>
          </p>
        </nav>
        <section class="shown">
          <TaskProgress v-if="running" :task="running" />
          <p v-else-if="failed && one.state === 'delivered'" class="note fault" role="alert">{{ failed.message }}</p>
          <OpenedFile v-if="here" :key="here.path" :handoff="ulid" :file="here">
            <button v-if="may && canAnswer" class="plain" @click="ask(here)">Ask about this… <kbd>A</kbd></button>
          </OpenedFile>
          <div v-else class="empty">
            <b>Choose a file at the left.</b>Pictures and sound play here, lists open here.
          </div>
          <section v-if="one.questions.length > 0" class="asked" aria-label="Questions">
            <h2>Questions</h2>
            <article v-for="asked in one.questions" :key="asked.ulid">
              <p>
                <b>{{ asked.about ?? 'The package' }}</b> “{{ asked.question }}”
                <span class="soft">{{ asked.by }}, {{ when(asked.at) }}</span>
              </p>
              <p v-if="asked.answer !== null">
                {{ asked.answer }} <span class="soft">{{ asked.answered_by }}</span>
                <button v-if="production.may.work" class="plain" @click="answer(asked.ulid, null)">Take back</button>
              </p>
              <form
                v-else-if="production.may.work"
                @submit.prevent="(answers[asked.ulid] ?? '').trim() && answer(asked.ulid, answers[asked.ulid]!.trim())"
              >
                <input
                  v-model="answers[asked.ulid]"
                  class="field"
                  maxlength="1000"
                  :aria-label="`Answer: ${asked.question}`"
                  placeholder="What is answered; it goes with the next package"
                />
                <button class="go" :disabled="(answers[asked.ulid] ?? '').trim() === ''">Answer</button>
                <RouterLink
                  v-if="asked.take ?? asked.clip"
                  class="plain"
                  :to="
                    asked.take
                      ? { name: 'log', params: route.params, query: { take: asked.take } }
                      : { name: 'clip', params: { ...route.params, clip: asked.clip! } }
                  "
                  >Go there</RouterLink
                >
              </form>
              <p v-else class="warn">not answered yet</p>
            </article>
          </section>
          <section v-if="one.waived.length > 0" class="asked" aria-label="Goes along as it is">
            <h2>Went along as it was</h2>
            <p v-for="point in one.waived" :key="point.day + point.point">
              {{ point.title }} <span class="soft">“{{ point.reason }}” {{ point.by }}</span>
            </p>
          </section>
        </section>
      </div>
    </div>
    <Modal
      :open="asking !== null"
      :title="`Ask about ${asking?.about}`"
      ok-text="Send the question"
      :ok-button-props="{ disabled: words.trim() === '' }"
      @ok="send"
      @cancel="asking = null"
    >
      <textarea
        v-model="words"
        class="field"
        rows="3"
        maxlength="1000"
        aria-label="What is wrong or missing"
        placeholder="What is wrong or missing"
        @vue:mounted="({ el }: { el: HTMLTextAreaElement }) => el.focus()"
        @keydown.ctrl.enter="send"
      />
    </Modal>
  </AnswerState>
</template>

<style scoped>
.page {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  height: 100%;
}
h1 {
  font-size: 16px;
  font-weight: 600;
  margin: 0;
}
.state {
  font-weight: 600;
}
.split {
  display: grid;
  grid-template-columns: 340px minmax(0, 1fr);
  grid-template-rows: minmax(0, 1fr);
}
.files {
  border-right: 1px solid var(--rule-strong);
  background: var(--sheet-2);
  overflow: auto;
  padding: 12px;
  display: grid;
  gap: 10px;
  align-content: start;
}
h3 {
  display: flex;
  justify-content: space-between;
  font-size: 12px;
  font-weight: 600;
  margin: 4px 0 3px;
}
.file {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 8px;
  width: 100%;
  border: 0;
  background: none;
  text-align: left;
  padding: 3px 8px;
  border-radius: 4px;
  cursor: pointer;
}
.file span {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  direction: rtl;
  text-align: left;
}
.file.on {
  background: var(--act-soft);
}
.shown {
  overflow: auto;
  padding: 16px 20px;
  display: grid;
  gap: 16px;
  align-content: start;
}
.asked {
  display: grid;
  gap: 8px;
}
.asked p {
  margin: 0;
}
.asked article {
  border-left: 3px solid var(--rule-strong);
  padding-left: 12px;
  display: grid;
  gap: 6px;
}
form {
  display: flex;
  gap: 8px;
}
form .field {
  flex: 1;
}
</style>
