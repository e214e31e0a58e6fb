<script setup lang="ts">
import { t } from '@/words'
import { settings as settingsApi } from '@/api/endpoints/settings'
import { makeStale } from '@/api/queries'
import { useDesk } from '@/shell/desk'
import { attempt, say } from '@/shell/say'

/** Whether all productions see what was brought in here. */
const { production } = useDesk()
async function share(on: boolean): Promise<void> {
  if ((await attempt(() => settingsApi.share(production.value.ulid, on))) !== undefined)
    say(
      on ? t('settings.LibraryBox.allProductionsSeeTheImports') : t('settings.LibraryBox.theImportsAreThisProductions'),
    )
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
      {{ t('settings.LibraryBox.thisProductionIsALibrary') }}</label
    >
    <p class="soft">
      {{ t('settings.LibraryBox.itsImportsMusicEffectsGraphics') }}
      <i>{{ t('settings.LibraryBox.library') }}</i>{{ t('settings.LibraryBox.othersSeeAndHearThem') }}
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
