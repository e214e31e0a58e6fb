<script setup lang="ts">
import { deskSays } from '@/words/desk'
import { counted, t } from '@/words'
import { handoff as handoffApi } from '@/api/endpoints/handoff'
import { shell as shellApi } from '@/api/endpoints/shell'
import { Modal } from 'ant-design-vue'
import { computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { makeStale, useAnswer } from '@/api/queries'
import type { PackageFile } from '@/api/types'
import { bytes } from '@/words/amounts'
import AnswerState from '@/shell/AnswerState.vue'
import { useDesk } from '@/shell/desk'
import { useShortcuts } from '@/shell/keys'
import { attempt, say } from '@/shell/say'
import TaskProgress from '@/shell/TaskProgress.vue'
import OpenedFile from './OpenedFile.vue'
import { STATES, when } from './words'

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
    title: t('handoff.PackagePage.acceptHandOff', [one.value?.number]),
    content: t('handoff.PackagePage.everyFileIsReadAnd'),
    okText: t('handoff.PackagePage.checkAndAccept'),
    onOk: async () => {
      if ((await attempt(() => handoffApi.accept(production.value.ulid, ulid.value))) === undefined) return
      say(t('handoff.PackagePage.everyFileIsReadFirst'))
      makeStale('handoffs')
      makeStale('tasks')
    },
  })
}
async function takeBack(): Promise<void> {
  if ((await attempt(() => handoffApi.takeBack(production.value.ulid, ulid.value))) !== undefined)
    say(t('handoff.PackagePage.theAcceptanceIsTakenBack'))
  makeStale('handoffs')
}
const asking = ref<{ path: string | null; about: string } | null>(null)
const words = ref('')
function ask(file: PackageFile | null): void {
  if (!may.value || !canAnswer.value) return
  words.value = ''
  asking.value = {
    path: file?.path ?? null,
    about: file === null ? t('handoff.PackagePage.thePackage2') : (file.label ?? file.path),
  }
}
async function send(): Promise<void> {
  const about = asking.value
  const question = words.value.trim()
  if (about === null || question === '') return
  if ((await attempt(() => handoffApi.ask(production.value.ulid, ulid.value, question, about.path))) !== undefined)
    say(t('handoff.PackagePage.theQuestionIsWithThe'))
  asking.value = null
  makeStale('handoffs')
}
const answers = ref<Record<string, string>>({})
async function answer(question: string, text: string | null): Promise<void> {
  if (
    (await attempt(() => handoffApi.answer(production.value.ulid, ulid.value, question, text))) !== undefined &&
    text !== null
  )
    say(t('handoff.PackagePage.theAnswerGoesWithThe'))
  makeStale('handoffs')
  makeStale('takes')
}
function leave(): void {
  void router.push({ name: 'handoff', params: { production: production.value.ulid, day: route.params.day } })
}
useShortcuts('Package', [
  {
    keys: ['ArrowDown', 'ArrowUp'],
    what: t('handoff.PackagePage.nextFileTheOneBefore'),
    run: (event) => step(event.key === 'ArrowDown' ? 1 : -1),
  },
  { keys: ['y'], what: t('handoff.PackagePage.checkAndAccept'), run: () => void accept() },
  { keys: ['a'], what: t('handoff.PackagePage.askAboutThisFile'), run: () => ask(here.value) },
  { keys: ['A'], what: t('handoff.PackagePage.askAboutThePackage'), run: () => ask(null) },
  { keys: ['Escape'], what: t('handoff.PackagePage.backToTheHandOffs'), run: leave },
])
</script>

<template>
  <AnswerState :pending="isPending" :error="error" @retry="refetch()">
    <div v-if="data && one" class="page">
      <header class="bar">
        <button class="plain" @click="leave">{{ t('handoff.PackagePage.handOffs') }} <kbd>Esc</kbd></button>
        <h1>{{ t('handoff.PackagePage.no', [one.number, one.title]) }}</h1>
        <span class="state" :class="STATES[one.state].look">{{ STATES[one.state].text }}</span>
        <span class="soft"
          >{{ one.made_by }}, {{ when(one.delivered_at)
          }}<template v-if="one.summary">
            · {{ counted(one.summary.files, 'file') }}, {{ bytes(one.summary.bytes) }}</template
          ></span
        >
        <span class="push" />
        <template v-if="may && canAnswer">
          <button class="plain" @click="ask(null)">{{ t('handoff.PackagePage.askAboutIt') }} <kbd>Shift A</kbd></button>
          <button class="go" @click="accept">{{ t('handoff.PackagePage.checkAndAccept') }} <kbd>Y</kbd></button>
        </template>
        <button v-if="may && one.state === 'accepted' && one.newest" class="plain" @click="takeBack">
          {{ t('handoff.PackagePage.takeTheAcceptanceBack') }}
        </button>
      </header>
      <div class="split">
        <nav class="files" :aria-label="t('handoff.PackagePage.whatLiesInThePackage')">
          <input
            v-model="wanted"
            class="field"
            :aria-label="t('handoff.PackagePage.findAFile')"
            :placeholder="t('handoff.PackagePage.findAFileOrA')"
          />
          <section v-for="[folder, some] in folders" :key="folder">
            <h3>
              <span class="mono">{{ folder === '' ? t('handoff.PackagePage.besideTheFolders') : folder }}</span><small
                class="soft"
                >{{ some.length }}</small
              >
            </h3>
            <button
              v-for="file in some.slice(0, 500)"
              :key="file.path"
              class="file"
              :class="{ on: file.path === at }"
              @click="at = file.path"
            >
              <span
                ><bdi>{{ folder === '' ? file.path : file.path.slice(folder.length) }}</bdi></span
              ><small class="soft">{{ file.label ?? bytes(file.bytes) }}</small>
            </button>
            <p v-if="some.length > 500" class="soft">
              {{ t('handoff.PackagePage.andMoreFindThemBy', [some.length - 500]) }}
            </p>
          </section>
          <p v-if="files.length === 0" class="empty">
            <b>{{
              data.files.length === 0
                ? t('handoff.PackagePage.thePackageDoesNotLie')
                : t('handoff.PackagePage.noFileIsCalledSo')
            }}</b>
          </p>
        </nav>
        <section class="shown">
          <TaskProgress v-if="running" :task="running" />
          <p v-else-if="failed && one.state === 'delivered'" class="note fault" role="alert">
            {{ deskSays(failed.message ?? '') }}
          </p>
          <OpenedFile v-if="here" :key="here.path" :handoff="ulid" :file="here">
            <button v-if="may && canAnswer" class="plain" @click="ask(here)">
              {{ t('handoff.PackagePage.askAboutThis') }} <kbd>A</kbd>
            </button>
          </OpenedFile>
          <div v-else class="empty">
            <b>{{ t('handoff.PackagePage.chooseAFileAtThe') }}</b>{{
              t('handoff.PackagePage.picturesAndSoundPlayHere')
            }}
          </div>
          <section v-if="one.questions.length > 0" class="asked" :aria-label="t('handoff.PackagePage.questions')">
            <h2>{{ t('handoff.PackagePage.questions') }}</h2>
            <article v-for="asked in one.questions" :key="asked.ulid">
              <p>
                <b>{{ asked.about ?? t('handoff.PackagePage.thePackage') }}</b> “{{ asked.question }}”
                <span class="soft">{{ asked.by }}, {{ when(asked.at) }}</span>
              </p>
              <p v-if="asked.answer !== null">
                {{ asked.answer }} <span class="soft">{{ asked.answered_by }}</span>
                <button v-if="production.may.work" class="plain" @click="answer(asked.ulid, null)">
                  {{ t('handoff.PackagePage.takeBack') }}
                </button>
              </p>
              <form
                v-else-if="production.may.work"
                @submit.prevent="(answers[asked.ulid] ?? '').trim() && answer(asked.ulid, answers[asked.ulid]!.trim())"
              >
                <input
                  v-model="answers[asked.ulid]"
                  class="field"
                  maxlength="1000"
                  :aria-label="t('handoff.PackagePage.answer', [asked.question])"
                  :placeholder="t('handoff.PackagePage.whatIsAnsweredItGoes')"
                />
                <button class="go" :disabled="(answers[asked.ulid] ?? '').trim() === ''">
                  {{ t('handoff.PackagePage.answer2') }}
                </button>
                <RouterLink
                  v-if="asked.take ?? asked.clip"
                  class="plain"
                  :to="
                    asked.take
                      ? { name: 'log', params: route.params, query: { take: asked.take } }
                      : { name: 'clip', params: { ...route.params, clip: asked.clip! } }
                  "
                  >{{ t('handoff.PackagePage.goThere') }}</RouterLink
                >
              </form>
              <p v-else class="warn">{{ t('handoff.PackagePage.notAnsweredYet') }}</p>
            </article>
          </section>
          <section v-if="one.waived.length > 0" class="asked" :aria-label="t('handoff.PackagePage.goesAlongAsItIs')">
            <h2>{{ t('handoff.PackagePage.wentAlongAsItWas') }}</h2>
            <p v-for="point in one.waived" :key="point.day + point.point">
              {{ deskSays(point.title) }} <span class="soft">“{{ point.reason }}” {{ point.by }}</span>
            </p>
          </section>
        </section>
      </div>
    </div>
    <Modal
      :open="asking !== null"
      :title="t('handoff.PackagePage.askAbout', [asking?.about])"
      :ok-text="t('handoff.PackagePage.sendTheQuestion')"
      :ok-button-props="{ disabled: words.trim() === '' }"
      @ok="send"
      @cancel="asking = null"
    >
      <textarea
        v-model="words"
        class="field"
        rows="3"
        maxlength="1000"
        :aria-label="t('handoff.PackagePage.whatIsWrongOrMissing')"
        :placeholder="t('handoff.PackagePage.whatIsWrongOrMissing')"
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
