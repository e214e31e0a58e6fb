<script setup lang="ts">
import { deskSays } from '@/words/desk'
import { t } from '@/words'
import { locale } from '@/words/language'
import { shell as shellApi } from '@/api/endpoints/shell'
import { Drawer } from 'ant-design-vue'
import { computed } from 'vue'
import { makeStale } from '@/api/queries'
import type { Task } from '@/api/types'
import { useDesk } from './desk'
import { attempt, say } from './say'
import TaskProgress from './TaskProgress.vue'

/** What runs, waits, failed and ended in the last day, each with its sentence and its next step. */
const props = defineProps<{ open: boolean; tasks: Task[] }>()
const emit = defineEmits<{ close: [] }>()
const { production } = useDesk()
const AGAIN: Record<string, string> = {
  catalogue: t('shell.TaskTray.catalogueAgain'),
  handoff: t('shell.TaskTray.packAgain'),
  lineup: t('shell.TaskTray.lineUpAgain'),
  verify: t('shell.TaskTray.verifyAgain'),
  media: t('shell.TaskTray.makeItAgain'),
  release: t('shell.TaskTray.lookAgain'),
}
const groups = computed(() =>
  [
    {
      title: t('shell.TaskTray.running'),
      tasks: props.tasks.filter((task) => task.state === 'running'),
      none: t('shell.TaskTray.nothingRuns'),
    },
    { title: t('shell.TaskTray.waiting'), tasks: props.tasks.filter((task) => task.state === 'waiting'), none: '' },
    { title: t('shell.TaskTray.failed'), tasks: props.tasks.filter((task) => task.state === 'failed'), none: '' },
    {
      title: t('shell.TaskTray.endedSinceYesterday'),
      tasks: props.tasks.filter((task) => task.state === 'done' || task.state === 'cancelled'),
      none: t('shell.TaskTray.nothingEndedYet'),
    },
  ].filter((group) => group.tasks.length > 0 || group.none !== ''),
)
const time = (iso: string | null) =>
  iso === null ? '' : new Date(iso).toLocaleTimeString(locale, { hour: '2-digit', minute: '2-digit' })
async function again(task: Task): Promise<void> {
  if ((await attempt(() => shellApi.again(production.value.ulid, task.ulid))) !== undefined)
    say(t('shell.TaskTray.triedAgain', [deskSays(task.title)]))
  makeStale('tasks')
}
</script>

<template>
  <Drawer
    :open="open"
    :title="t('shell.TaskTray.workOfThisProduction')"
    placement="right"
    :width="420"
    :body-style="{ padding: '14px 18px 24px' }"
    @close="emit('close')"
  >
    <section v-for="group in groups" :key="group.title">
      <h3>
        {{ group.title }} <span v-if="group.tasks.length > 0" class="mono soft">{{ group.tasks.length }}</span>
      </h3>
      <p v-if="group.tasks.length === 0" class="soft">{{ group.none }}</p>
      <article v-for="task in group.tasks" :key="task.ulid" :class="task.state">
        <header>
          <b>{{ deskSays(task.title) }}</b><span class="soft"
            >{{ task.by ?? t('shell.TaskTray.byItself')
            }}<template v-if="task.ended_at">, {{ time(task.ended_at) }}</template
            ><template v-else-if="task.started_at">{{
              t('shell.TaskTray.since', [time(task.started_at)])
            }}</template></span
          >
        </header>
        <TaskProgress v-if="task.state === 'running' || task.state === 'waiting'" :task="task" />
        <template v-else>
          <p>
            {{
              (task.message === null ? null : deskSays(task.message)) ??
              (task.state === 'done' ? t('shell.TaskTray.done') : t('shell.TaskTray.stopped'))
            }}
            <span v-if="task.fix && task.state === 'failed'">{{ deskSays(task.fix) }}</span>
          </p>
          <p v-if="task.problems > 0" class="warn">
            {{
              t('shell.TaskTray.couldNotBeRead', [
                task.problems,
                task.problems === 1 ? t('shell.TaskTray.file') : t('shell.TaskTray.files'),
              ])
            }}
          </p>
          <button
            v-if="production.may.work && (task.state === 'failed' || task.state === 'cancelled')"
            class="plain"
            @click="again(task)"
          >
            {{ AGAIN[task.kind] ?? t('shell.TaskTray.tryAgain') }}
          </button>
        </template>
      </article>
    </section>
  </Drawer>
</template>

<style scoped>
h3 {
  font-size: 12px;
  font-weight: 600;
  color: var(--ink-soft);
  margin: 14px 0 6px;
}
section:first-child h3 {
  margin-top: 0;
}
article {
  background: #fff;
  border: 1px solid var(--rule);
  border-radius: 5px;
  padding: 9px 12px;
  display: grid;
  gap: 5px;
  font-size: 12px;
}
article + article {
  margin-top: 6px;
}
article.failed {
  border-color: #dfa697;
  background: var(--fault-soft);
  color: #7c2b1c;
}
article.failed .plain {
  justify-self: start;
}
header {
  display: flex;
  gap: 8px;
  justify-content: space-between;
  align-items: baseline;
}
header b {
  font-size: 13px;
  overflow-wrap: anywhere;
}
header span {
  white-space: nowrap;
}
p {
  margin: 0;
  overflow-wrap: anywhere;
}
</style>
