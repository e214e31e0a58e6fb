<script setup lang="ts">
import { t } from '@/words'
import { onMounted, ref, useTemplateRef, watch } from 'vue'
import { useRouter } from 'vue-router'
import { shell as shellApi } from '@/api/endpoints/shell'
import ProductionSheet from './ProductionSheet.vue'
import { attempt } from './say'
import { useSession } from './session'

/** The productions that one is in, and a new one. */
const session = useSession()
const router = useRouter()
const isAdmin = session.user?.role === 'admin'
const opening = ref(false)
const nameBox = useTemplateRef<HTMLInputElement>('nameBox')
// What appears after a click is not focused by the browser itself.
watch(nameBox, (box) => box?.focus())
const fresh = ref({ name: '', rate: '25', style: 'letter', date: new Date().toISOString().slice(0, 10) })
const RATES = ['23.976', '24', '25', '29.97', '29.97df', '30', '48', '50', '59.94', '59.94df', '60']

async function open(ulid: string, stage: 'day' | 'cards'): Promise<void> {
  const production = await attempt(() => shellApi.open(ulid))
  const day = stage === 'cards' ? production?.days[0] : production?.days.at(-1)
  if (day !== undefined) await router.push({ name: stage, params: { production: ulid, day: day.ulid } })
}
async function make(): Promise<void> {
  const made = await attempt(() => shellApi.makeProduction(fresh.value))
  if (made === undefined) return
  await session.load()
  // Nothing is in yet: the first thing to do is a card.
  await open(made.ulid, 'cards')
}

onMounted(() => {
  document.title = t('shell.ProductionsPage.productions')
  // Somebody with one production wants that one, unless they come from it; an admin may have come to open another.
  const only = session.productions.length === 1 && !isAdmin ? session.productions[0] : undefined
  if (only !== undefined && router.options.history.state.back === null) void open(only.ulid, 'day')
})
</script>

<template>
  <main class="productions">
    <header>
      <h1>{{ t('shell.ProductionsPage.productions') }}</h1>
      <button v-if="isAdmin && !opening && session.productions.length > 0" class="go" @click="opening = true">
        {{ t('shell.ProductionsPage.newProduction') }}
      </button>
      <span class="push soft">{{ session.user?.name }}</span>
      <button class="plain" @click="attempt(session.signOut)">{{ t('shell.ProductionsPage.signOut') }}</button>
    </header>
    <div v-if="session.productions.length === 0 && !opening" class="empty">
      <template v-if="isAdmin">
        <b>{{ t('shell.ProductionsPage.noProductionIsHereYet') }}</b>{{ t('shell.ProductionsPage.openOneWithItsFrame')
        }}<br />
        <button class="go" @click="opening = true">{{ t('shell.ProductionsPage.openTheFirstProduction') }}</button>
      </template>
      <template v-else>
        <b>{{ t('shell.ProductionsPage.youAreInNoProduction') }}</b>{{ t('shell.ProductionsPage.anAdminAddsYouTo')
        }}{{ ' ' }}
      </template>
    </div>
    <form v-if="opening" class="fresh" :aria-label="t('shell.ProductionsPage.aNewProduction')" @submit.prevent="make">
      <label
        >{{ t('shell.ProductionsPage.name')
        }}<input v-model="fresh.name" class="field" required maxlength="120" ref="nameBox"
      /></label>
      <label
        >{{ t('shell.ProductionsPage.frameRate')
        }}<select v-model="fresh.rate" class="field">
          <option v-for="rate in RATES" :key="rate">{{ rate }}</option>
        </select></label
      >
      <label
        >{{ t('shell.ProductionsPage.slates')
        }}<select v-model="fresh.style" class="field">
          <option value="letter">{{ t('shell.ProductionsPage.lettersScene12Setup12a') }}</option>
          <option value="number">{{ t('shell.ProductionsPage.runningNumbersSlate214Take') }}</option>
        </select></label
      >
      <label
        >{{ t('shell.ProductionsPage.firstShootDay') }}<input v-model="fresh.date" class="field" type="date" required
      /></label>
      <span
        ><button class="go">{{ t('shell.ProductionsPage.openTheProduction') }}</button>{{ ' ' }}
        <button class="plain" type="button" @click="opening = false">
          {{ t('shell.ProductionsPage.cancel') }}
        </button></span
      >
    </form>
    <ProductionSheet
      v-for="production in session.productions"
      :key="production.ulid"
      :ulid="production.ulid"
      :name="production.name"
    />
  </main>
</template>

<style scoped>
.productions {
  max-width: 1040px;
  margin: 0 auto;
  padding: 40px 24px;
  display: grid;
  gap: 14px;
}
.productions > header {
  display: flex;
  align-items: center;
  gap: 14px;
}
h1 {
  font-size: 20px;
  font-weight: 600;
  margin: 0;
}
.push {
  margin-left: auto;
}
.fresh {
  background: var(--sheet);
  border: 1px solid var(--rule-strong);
  border-radius: 8px;
  padding: 16px 18px;
  display: grid;
  gap: 10px;
  max-width: 460px;
}
.fresh label {
  display: grid;
  gap: 2px;
  font-weight: 500;
}
.fresh .field {
  height: 30px;
}
</style>
