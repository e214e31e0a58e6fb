<script setup lang="ts">
import { t } from '@/words'
import { Modal } from 'ant-design-vue'
import { computed } from 'vue'
import { imports } from '@/api/endpoints/imports'
import { makeStale, useAnswer } from '@/api/queries'
import type { Import } from '@/api/types'
import { bytes, left } from '@/words/amounts'
import { useDesk } from '@/shell/desk'
import { attempt } from '@/shell/say'
import { forget, secondsLeft, sendings, stop } from '@/shell/sending'

/** What is on its way in: what this page sends, and what stopped or waits for somebody. */
const { production } = useDesk()
const id = () => production.value.ulid
const { data } = useAnswer(() => (production.value.may.work ? imports.open(id()) : null))
const ours = computed(() => sendings.filter((one) => one.production === id()))
const rest = computed(() =>
  (data.value?.imports ?? []).filter((one) => !ours.value.some((own) => own.ulid === one.ulid)),
)
/** Whole here, and not copied yet: a fault is tried again, anything else is under way. */
const isWhole = (one: Import) => one.received_bytes === one.size_bytes
const share = (received: number, all: number) => `${Math.floor((100 * received) / Math.max(1, all))} %`

async function copy(one: Import): Promise<void> {
  await attempt(() => imports.copy(id(), one.ulid))
  makeStale('cards')
}
function drop(ulid: string, what: string): void {
  stop(ulid)
  Modal.confirm({
    title: t('bins.ImportsStrip.drop', [what]),
    content: t('bins.ImportsStrip.whatHasArrivedOfIt'),
    okText: t('bins.ImportsStrip.dropIt'),
    onOk: async () => {
      if ((await attempt(() => imports.drop(id(), ulid))) !== undefined) forget(ulid)
      makeStale('cards')
    },
  })
}
</script>

<template>
  <section v-if="ours.length + rest.length > 0" class="coming" :aria-label="t('bins.ImportsStrip.comingIn')">
    <article v-for="one in ours" :key="one.ulid" :class="one.state">
      <header>
        <b>{{ one.count }} {{ one.count === 1 ? t('bins.ImportsStrip.file') : t('bins.ImportsStrip.files') }}</b>
        <span class="mono">{{ share(one.received, one.bytes) }}</span>
      </header>
      <div
        class="line"
        role="progressbar"
        :aria-label="t('bins.ImportsStrip.arrived')"
        :aria-valuenow="Math.floor((100 * one.received) / Math.max(1, one.bytes))"
      >
        <i :style="{ width: share(one.received, one.bytes).replace(' ', '') }" />
      </div>
      <p v-if="one.state === 'sending'" class="soft mono">
        {{ t('bins.ImportsStrip.of', [bytes(one.received), bytes(one.bytes)])
        }}<template v-if="one.rate > 0">
          {{ ' ' }}{{ t('bins.ImportsStrip.sLeft', [bytes(one.rate), left(secondsLeft(one) ?? 0)]) }}</template
        >
      </p>
      <p v-else-if="one.state === 'waiting'">{{ t('bins.ImportsStrip.itIsTriedAgain', [one.trouble]) }}</p>
      <p v-else-if="one.state === 'failed'">{{ one.trouble }}</p>
      <p v-else class="soft">{{ t('bins.ImportsStrip.stoppedDropTheSameFiles') }}</p>
      <button
        v-if="one.state === 'sending' || one.state === 'waiting'"
        class="plain"
        :title="t('bins.ImportsStrip.whatHasArrivedStays')"
        @click="stop(one.ulid)"
      >
        {{ t('bins.ImportsStrip.stop') }}
      </button>
      <button v-else class="plain" @click="drop(one.ulid, t('bins.ImportsStrip.theseFiles'))">
        {{ t('bins.ImportsStrip.dropIt') }}
      </button>
    </article>
    <article v-for="one in rest" :key="one.ulid">
      <header>
        <b>{{
          one.roll ?? `${one.count} ${one.count === 1 ? t('bins.ImportsStrip.file') : t('bins.ImportsStrip.files')}`
        }}</b>
        <span class="mono">{{ share(one.received_bytes, one.size_bytes) }}</span>
      </header>
      <template v-if="isWhole(one)">
        <p class="soft">{{ t('bins.ImportsStrip.allOfItHasArrived') }}</p>
        <button class="plain" @click="copy(one)">
          {{ one.roll === null ? t('bins.ImportsStrip.copyIt') : t('bins.ImportsStrip.copyItAgain') }}
        </button>
      </template>
      <template v-else>
        <p class="soft">
          {{ one.is_mine ? t('bins.ImportsStrip.notAllOfItHas') : t('bins.ImportsStrip.bringsItIn', [one.by]) }}
        </p>
        <button
          class="plain"
          @click="
            drop(
              one.ulid,
              one.is_mine ? t('bins.ImportsStrip.theseFiles') : t('bins.ImportsStrip.theFilesOf', [one.by]),
            )
          "
        >
          {{ t('bins.ImportsStrip.dropIt') }}
        </button>
      </template>
    </article>
  </section>
</template>

<style scoped>
.coming {
  display: grid;
  gap: 6px;
  margin: 14px 0 0;
}
article {
  border: 1px solid var(--rule);
  border-radius: 5px;
  background: var(--sheet);
  padding: 7px 9px;
  font-size: 12px;
  display: grid;
  gap: 4px;
  justify-items: start;
}
article > * {
  width: 100%;
}
article > .plain {
  width: auto;
}
.failed {
  border-color: var(--fault);
}
header {
  display: flex;
  justify-content: space-between;
  gap: 6px;
}
.line {
  height: 5px;
  border-radius: 3px;
  background: var(--rule);
  overflow: hidden;
}
.line i {
  display: block;
  height: 100%;
  background: var(--act);
}
p {
  margin: 0;
}
</style>
