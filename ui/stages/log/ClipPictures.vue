<script setup lang="ts">
import { t } from '@/words'
import { useVirtualList } from '@vueuse/core'
import { computed, nextTick, ref, watch } from 'vue'
import { mediaUrl } from '@/api/client'
import type { LogClip, Rate, Take } from '@/api/types'
import FramePicture from '@/player/FramePicture.vue'
import { length, toFrames } from '@/player/time'
import DeviceBadge from '@/shell/DeviceBadge.vue'
import { useShortcuts } from '@/shell/keys'
import TakeNumber from '@/shell/TakeNumber.vue'
import type { Row } from './rows'

/** The clips as pictures, in the order of the sheet; moving over one looks through it. */
const props = defineProps<{ rows: Row[]; production: string; rate: Rate; cursor: string | null; clip: string | null }>()
const emit = defineEmits<{ choose: [row: string, clip: string] }>()

const box = ref<HTMLElement | null>(null)
const across = ref(4)
interface Picture {
  clip: LogClip
  take: Take | null
  row: string
}
const pictures = computed<Picture[]>(() =>
  props.rows.flatMap((row): Picture[] => {
    if (row.kind === 'take')
      return row.take.clips
        .filter((clip) => clip.kind === 'picture')
        .map((clip) => ({ clip, take: row.take, row: row.key }))
    return row.kind === 'clip' && row.clip.kind === 'picture'
      ? [{ clip: row.clip, take: row.take, row: row.take === null ? row.key : row.take.ulid }]
      : []
  }),
)
const lines = computed(() =>
  Array.from({ length: Math.ceil(pictures.value.length / across.value) }, (_, index) =>
    pictures.value.slice(index * across.value, (index + 1) * across.value),
  ),
)
const LINE = 158
const { list, containerProps, wrapperProps, scrollTo } = useVirtualList(lines, { itemHeight: LINE, overscan: 3 })
const at = computed(() =>
  Math.max(
    0,
    pictures.value.findIndex((one) => one.clip.ulid === props.clip),
  ),
)

watch(box, (element, _, clean) => {
  if (element === null) return
  const watcher = new ResizeObserver(() => (across.value = Math.max(1, Math.floor((element.clientWidth - 20) / 200))))
  watcher.observe(element)
  clean(() => watcher.disconnect())
})
function go(step: number): void {
  const next = pictures.value[Math.min(Math.max(at.value + step, 0), pictures.value.length - 1)]
  if (next === undefined) return
  emit('choose', next.row, next.clip.ulid)
  void nextTick(() => {
    const line = Math.floor(at.value / across.value)
    const view = containerProps.ref.value
    if (view !== null && (line * LINE < view.scrollTop || (line + 1) * LINE > view.scrollTop + view.clientHeight))
      scrollTo(Math.max(0, line - 1))
  })
}

// One is opened at a time: that of the picture under the pointer. By the production's frames, whatever the clip's own
// are.
const framesOf = (one: Picture): number => Math.max(1, toFrames(one.clip.duration_ticks ?? 0, props.rate))
const looking = ref<string | null>(null)
const share = ref(0)
function look(one: Picture, event: PointerEvent): void {
  if (!one.clip.ready) return
  looking.value = one.clip.ulid
  const edge = (event.currentTarget as HTMLElement).getBoundingClientRect()
  share.value = Math.min(1, Math.max(0, (event.clientX - edge.left) / edge.width))
}

useShortcuts('Pictures', [
  {
    keys: ['ArrowRight', 'ArrowLeft'],
    what: t('log.ClipPictures.nextPictureTheOneBefore'),
    run: (event) => go(event.key === 'ArrowRight' ? 1 : -1),
  },
  {
    keys: ['ArrowDown', 'ArrowUp'],
    what: t('log.ClipPictures.aLineDownALine'),
    run: (event) => go(event.key === 'ArrowDown' ? across.value : -across.value),
  },
])
</script>

<template>
  <div ref="box" class="pictures" role="listbox" :aria-label="t('log.ClipPictures.clipsAsPictures')">
    <div v-if="pictures.length === 0" class="empty">
      <b>{{ t('log.ClipPictures.noPictureOnThisDay') }}</b>{{ t('log.ClipPictures.offloadACameraCardFirst') }}
    </div>
    <div v-else v-bind="containerProps" class="scroll">
      <div v-bind="wrapperProps">
        <div v-for="{ data: line, index } in list" :key="index" class="shelf" :style="{ '--across': across }">
          <article
            v-for="one in line"
            :key="one.clip.ulid"
            role="option"
            :aria-selected="one.clip.ulid === clip"
            :class="{ on: one.clip.ulid === clip }"
            :data-picture="one.clip.ulid"
            @click="emit('choose', one.row, one.clip.ulid)"
          >
            <div class="frame" @pointermove="look(one, $event)" @pointerleave="looking = null">
              <img v-if="one.clip.ready" :src="mediaUrl(production, one.clip.ulid, 'thumb-2')" alt="" loading="lazy" />
              <span v-else class="soft">{{ t('log.ClipPictures.beingMade') }}</span>
              <FramePicture
                v-if="looking === one.clip.ulid"
                class="through"
                :production="production"
                :clip="one.clip.ulid"
                :rate="rate"
                :frames="framesOf(one)"
                :frame="Math.floor(share * (framesOf(one) - 1))"
                rendition="small"
              />
              <i v-if="looking === one.clip.ulid" class="head" :style="{ left: `${share * 100}%` }" />
              <b v-if="one.take?.size" class="size">{{ one.take.size }}</b>
            </div>
            <footer>
              <DeviceBadge :letter="one.clip.device" /><template v-if="one.take"
                ><b class="mono">{{ one.take.setup }}</b
                ><TakeNumber :take="one.take.take" :part="one.take.part" :status="one.take.status" /></template
              ><span v-else class="soft">{{ t('log.ClipPictures.noSlate') }}</span
              ><span class="mono name" :title="one.clip.name">{{ one.clip.name }}</span
              ><small class="mono soft">{{ length(one.clip.duration_ticks) }}</small>
            </footer>
          </article>
        </div>
      </div>
    </div>
  </div>
</template>

<style scoped>
.pictures,
.scroll {
  min-height: 0;
  height: 100%;
  overflow: hidden;
}
.scroll {
  overflow-y: auto !important;
}
.shelf {
  display: grid;
  grid-template-columns: repeat(var(--across), minmax(0, 1fr));
  gap: 10px;
  height: 158px;
  padding: 10px 14px 0;
}
article {
  min-width: 0;
  border-radius: 5px;
  padding: 4px;
  cursor: pointer;
}
article.on {
  background: var(--act-soft);
  box-shadow: 0 0 0 1.5px var(--act);
}
.frame {
  position: relative;
  height: 108px;
  background: var(--dark);
  border-radius: 3px;
  overflow: hidden;
  display: grid;
  place-items: center;
}
.frame img {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  object-fit: cover;
}
.frame .soft {
  color: var(--on-dark-soft);
  font-size: 12px;
}
.head {
  position: absolute;
  top: 0;
  bottom: 0;
  width: 2px;
  background: #ffd987;
}
.size {
  position: absolute;
  left: 5px;
  top: 5px;
  font-size: 10.5px;
  font-weight: 600;
  background: #14181bb0;
  color: var(--on-dark);
  border-radius: 3px;
  padding: 0 6px;
}
footer {
  display: flex;
  align-items: center;
  gap: 5px;
  font-size: 12px;
  height: 28px;
  white-space: nowrap;
  overflow: hidden;
}
.name {
  overflow: hidden;
  text-overflow: ellipsis;
  flex: 1;
}
</style>
