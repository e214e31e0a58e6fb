import { t } from '@/words'
import { message } from 'ant-design-vue'
import { ApiError } from '@/api/client'

/** One plain sentence at the head of the page, for a few seconds. */
export function say(text: string): void {
  void message.success({ content: text, duration: 3 })
}

export function complain(trouble: unknown): void {
  const text =
    trouble instanceof ApiError ? `${trouble.message} ${trouble.fix}` : t('shell.say.somethingWentWrongInThis')
  if (!(trouble instanceof ApiError)) console.error(trouble)
  void message.error({ content: text, duration: 7 })
}

/** Runs what a click or a key started, and says what went wrong. */
export async function attempt<T>(work: () => Promise<T>): Promise<T | undefined> {
  try {
    return await work()
  } catch (trouble) {
    complain(trouble)
    return undefined
  }
}

/** What a person asked for cannot be, in one sentence. */
export function refuse(text: string): void {
  void message.warning({ content: text, duration: 4 })
}
