<script setup lang="ts">
import { settings as settingsApi } from '@/api/endpoints/settings'
import { makeStale } from '@/api/queries'
import { useDesk } from '@/shell/desk'
import { attempt, say } from '@/shell/say'

/** Whether all productions see what was brought in here. */
const { production } = useDesk()
async function share(on: boolean): Promise<void> {
  if ((await attempt(() => settingsApi.share(production.value.ulid, on))) !== undefined)
    say(on ? 'All productions see the imports of this one now.' : 'The imports are this production’s own again.')
  makeStale('settings')
}
</script>

<template>
  <section class="box">
    <label
      ><input
        type="checkbox"
        :checked="production.is_library"
        @change="share(($event.target as HTMLInputElement).checked)"
      />
      This production is a library</label
    >
    <p class="soft">
      Its imports (music, effects, graphics, stills, stock) then stand in the bins of every production under
      <i>Library</i>. Others see and hear them and put them into their own bins; they change nothing here. Camera and
      recorder files are never shared.
    </p>
  </section>
</template>

<style scoped>
.box {
  padding: 16px 18px;
  max-width: 560px;
}
label {
  display: flex;
  gap: 8px;
  align-items: center;
  font-weight: 500;
}
p {
  margin: 8px 0 0;
}
</style>
