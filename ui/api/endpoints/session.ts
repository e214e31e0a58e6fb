import type { Ended, RecoveryCodes, SecondFactor, Sessions, SessionState } from '../answers'
import { api, once } from '../client'

/** Signing in, and a person's own account. */
export const session = {
  now: () => api.get<SessionState>('session'),
  signIn: (body: unknown) => once.post<SessionState>('session', body),
  signOut: () => api.delete<SessionState>('session'),
  all: () => api.get<Sessions>('account/sessions'),
  end: (id: string) => api.delete(`account/sessions/${id}`),
  setPassword: (body: unknown) => api.put<Ended>('account/password', body),
  setKeys: (keys: Record<string, string[]>) => api.put('account/keys', { keys }),
  setPanels: (panels: Record<string, number>) => api.put('account/panels', { panels }),
  beginSecondFactor: () => api.post<SecondFactor>('account/second-factor'),
  confirmSecondFactor: (code: string) => api.put<RecoveryCodes>('account/second-factor', { code }),
  removeSecondFactor: (password: string) => api.delete('account/second-factor', { password }),
}
