<script setup lang="ts">
import { deskSays } from '@/words/desk'
import { counted, decimal, t } from '@/words'
import { shell as shellApi } from '@/api/endpoints/shell'
import { computed } from 'vue'
import type { Task } from '@/api/types'
import { bytes, left } from '@/words/amounts'
import { useDesk } from './desk'
import { attempt } from './say'

const props = defineProps<{ task: Task }>()
const { production } = useDesk()
const share = computed(() =>
  props.task.total_bytes > 0
    ? props.task.done_bytes / props.task.total_bytes
    : props.task.total > 0
      ? props.task.done / props.task.total
      : 0,
)
/** Copied and not verified yet: the lighter part behind the dark one. */
const ahead = computed(() =>
  props.task.total_bytes > 0 ? Math.min(1, props.task.copied_bytes / props.task.total_bytes) : 0,
)
const rate = computed(() => props.task.done_per_minute ?? 0)
const rest = computed(() =>
  props.task.bytes_per_second > 0
    ? left(
        (props.task.total_bytes - Math.max(props.task.done_bytes, props.task.copied_bytes)) /
          props.task.bytes_per_second,
      )
    : rate.value > 0 && props.task.total > props.task.done
      ? left((60 * (props.task.total - props.task.done)) / rate.value)
      : '',
)
const unit = computed(() => {
  const word =
    (
      {
        words: 'secondWord',
        align: 'secondWord',
        offload: 'fileWord',
        verify: 'fileWord',
        accept: 'fileWord',
        notes: 'rowWord',
        release: 'copyWord',
      } as Record<string, string>
    )[props.task.kind] ?? 'clipWord'
  return counted(props.task.total, word)
})
</script>

<template>
  <div class="progress" role="progressbar" :aria-valuenow="Math.round(share * 100)" :aria-label="deskSays(task.title)">
    <div class="line">
      <i class="ahead" :style="{ width: `${ahead * 100}%` }" /><i :style="{ width: `${share * 100}%` }" />
    </div>
    <div class="facts">
      <span v-if="task.state === 'waiting'">{{
        task.now === '' ? t('shell.TaskProgress.waitingForAWorker') : t('shell.TaskProgress.waiting')
      }}</span>
      <template v-else>
        <span
          ><b class="mono">{{ task.done }}</b
          ><template v-if="task.total > 0"> {{ ' ' }}{{ t('shell.TaskProgress.of', [task.total]) }}</template>
          {{ unit }}</span
        >
        <span v-if="task.total_bytes > 0" class="mono">{{
          t('shell.TaskProgress.of2', [bytes(task.done_bytes), bytes(task.total_bytes)])
        }}</span>
        <span v-if="task.bytes_per_second > 0" class="mono">{{
          t('shell.TaskProgress.s', [bytes(task.bytes_per_second)])
        }}</span>
        <span v-else-if="rate > 0" class="mono">{{
          t('shell.TaskProgress.aMinute', [rate >= 10 ? Math.round(rate) : decimal(rate, 1)])
        }}</span>
        <b v-if="rest" class="mono">{{ t('shell.TaskProgress.left', [rest]) }}</b>
      </template>
    </div>
    <div class="now">
      <span :class="task.state === 'waiting' && task.now !== '' ? 'warn full' : 'soft'" :title="task.now">{{
        task.now
      }}</span>
      <button
        v-if="production.may.work"
        class="plain"
        :disabled="task.cancelling"
        @click="attempt(() => shellApi.cancel(production.ulid, task.ulid))"
      >
        {{ task.cancelling ? t('shell.TaskProgress.stopping') : t('shell.TaskProgress.stop') }}
      </button>
    </div>
  </div>
</template>

<style scoped>
.progress {
  display: grid;
  gap: 6px;
  font-size: 12px;
}
.line {
  position: relative;
  height: 9px;
  border-radius: 5px;
  background: #e9dfca;
  overflow: hidden;
}
.line i {
  position: absolute;
  inset: 0 auto 0 0;
  background: var(--act);
  transition: width 0.25s linear;
}
.line .ahead {
  background: #8fbcae;
}
.facts {
  display: flex;
  gap: 12px;
  flex-wrap: wrap;
  justify-content: space-between;
}
.now {
  display: flex;
  gap: 8px;
  align-items: center;
  min-height: 28px;
}
.now .full {
  white-space: normal;
}
.now span {
  flex: 1;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>
