<script setup lang="ts">
import { t } from '@/words'
import { computed, ref, shallowRef } from 'vue'
import type { BinEntry, BinRow } from '@/api/types'
import DeviceBadge from '@/shell/DeviceBadge.vue'
import NamesDialog, { type Named } from '@/shell/NamesDialog.vue'
import PickDialog from '@/shell/PickDialog.vue'
import TakeAwayDialog, { type Leaving } from '@/shell/TakeAwayDialog.vue'
import type { BinActions } from './useBinActions'

/** What is asked before something is done with what is in hand: into which bin, which device, look or names. */
const props = defineProps<{ actions: BinActions; hand: BinRow[]; count: number; bins: BinEntry[] }>()
const names = shallowRef<Named | null>(null)
const leaving = shallowRef<Leaving | null>(null)
const looks = ref(false)
const asking = ref(false)
const picking = ref<'move' | 'put' | null>(null)
const these = computed(() =>
  props.count === 1 ? t('bins.HandDialogs.it') : t('bins.HandDialogs.these', [props.count]),
)
const withClips = (work: () => void) => () => {
  if (props.actions.hasClips()) work()
}
defineExpose({
  put: () => (picking.value = 'put'),
  move: () => (picking.value = 'move'),
  name: () => (names.value = props.actions.named()),
  look: withClips(() => (looks.value = true)),
  device: withClips(() => (asking.value = true)),
  takeAway: withClips(() => {
    const clips = props.actions.clips()
    leaving.value = {
      clips,
      name: clips.length === 1 ? (props.hand[0]?.name ?? 'it') : t('bins.HandDialogs.clips', [clips.length]),
    }
  }),
})
</script>

<template>
  <NamesDialog :open="names !== null" :hand="names" @close="names = null" />
  <TakeAwayDialog :what="leaving" @close="leaving = null" />
  <PickDialog
    :open="looks"
    :title="count === 1 ? t('bins.HandDialogs.whichLookHasIt') : t('bins.HandDialogs.whichLookHave', [these])"
    :label="t('bins.HandDialogs.looks')"
    :choices="actions.looks.value"
    @pick="((looks = false), actions.setLook($event))"
    @close="looks = false"
  >
    <template #default="{ one }"
      ><b>{{ one.name }}</b
      ><span class="soft">{{ one.note }}</span></template
    >
  </PickDialog>
  <PickDialog
    :open="asking"
    :title="count === 1 ? t('bins.HandDialogs.whatIsIt') : t('bins.HandDialogs.whatAre', [these])"
    :label="t('bins.HandDialogs.devicesAndImports')"
    :choices="actions.angles.value"
    @pick="((asking = false), actions.assign($event))"
    @close="asking = false"
  >
    <template #default="{ one }"
      ><b><DeviceBadge v-if="one.device" :letter="one.device" /> {{ one.title }}</b></template
    >
  </PickDialog>
  <PickDialog
    :open="picking !== null"
    :title="
      t('bins.HandDialogs.intoABin', [
        picking === 'move' ? t('bins.HandDialogs.move') : t('bins.HandDialogs.put'),
        these,
      ])
    "
    :label="t('bins.HandDialogs.ownBins')"
    :choices="bins"
    @pick="(actions.putInto($event, undefined, picking === 'move'), (picking = null))"
    @close="picking = null"
  >
    <template #before
      ><p v-if="bins.length === 0" class="soft">{{ t('bins.HandDialogs.thereIsNoBinOf') }}</p></template
    >
    <template #default="{ one }"
      ><b :style="{ paddingLeft: `${12 * one.depth}px` }">{{ one.name }}</b
      ><span class="mono soft">{{ one.items }}</span></template
    >
  </PickDialog>
</template>
