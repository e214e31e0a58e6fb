import { words } from '@/api/endpoints/words'
import { makeStale } from '@/api/queries'
import { attempt } from './say'

/** Has all sound of a day that nobody has listened to listened to; whether that has begun. */
export async function listen(production: string, day: string): Promise<boolean> {
  const started = await attempt(() => words.find(production, day, { language: 'en-us' }))
  makeStale('tasks')
  return started !== undefined
}
