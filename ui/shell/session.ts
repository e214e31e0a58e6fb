import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import { session } from '@/api/endpoints/session'
import { queryClient } from '@/api/queries'
import { ownKeys } from './keys'
import type { Person, SessionState } from '@/api/types'

/** Who is signed in, and in which productions. */
export const useSession = defineStore('session', () => {
  const state = ref<'loading' | 'ready' | 'unreachable'>('loading')
  const user = shallowRef<Person | null>(null)
  const productions = shallowRef<SessionState['productions']>([])

  function take(answer: SessionState): void {
    user.value = answer.user
    productions.value = answer.productions
    ownKeys.value = answer.user?.own_keys ?? {}
    state.value = 'ready'
  }

  async function load(): Promise<void> {
    state.value = 'loading'
    try {
      take(await session.now())
    } catch {
      state.value = 'unreachable'
    }
  }

  async function signIn(email: string, password: string, code = ''): Promise<void> {
    take(await session.signIn({ email, password, code: code === '' ? null : code }))
  }

  /** Asks who one is once more, without leaving the page. */
  async function refresh(): Promise<void> {
    take(await session.now())
  }

  async function signOut(): Promise<void> {
    take(await session.signOut())
    queryClient.clear()
  }

  /** How wide the panel of a stage is, and the same kept with the person. */
  async function setPanel(stage: string, width: number): Promise<void> {
    if (user.value === null) return
    const panels = { ...user.value.panels, [stage]: width }
    user.value = { ...user.value, panels }
    await session.setPanels(panels)
  }

  return { state, user, productions, load, refresh, signIn, signOut, setPanel }
})
