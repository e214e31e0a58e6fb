import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import { api } from '@/api/client'
import { queryClient } from '@/api/queries'
import type { Person, SessionAnswer } from '@/api/types'

/** Who is signed in, and in which productions. */
export const useSession = defineStore('session', () => {
  const state = ref<'loading' | 'ready' | 'unreachable'>('loading')
  const user = shallowRef<Person | null>(null)
  const productions = shallowRef<SessionAnswer['productions']>([])

  function take(answer: SessionAnswer): void {
    user.value = answer.user
    productions.value = answer.productions
    state.value = 'ready'
  }

  async function load(): Promise<void> {
    state.value = 'loading'
    try {
      take(await api.get<SessionAnswer>('session'))
    } catch {
      state.value = 'unreachable'
    }
  }

  async function signIn(email: string, password: string, code = ''): Promise<void> {
    take(await api.post<SessionAnswer>('session', { email, password, code: code === '' ? null : code }))
  }

  /** Asks who one is once more, without leaving the page. */
  async function refresh(): Promise<void> {
    take(await api.get<SessionAnswer>('session'))
  }

  async function signOut(): Promise<void> {
    take(await api.delete<SessionAnswer>('session'))
    queryClient.clear()
  }

  return { state, user, productions, load, refresh, signIn, signOut }
})
