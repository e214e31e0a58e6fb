import { decimal, t } from './index'

/** A size as people say it, to three figures at most. */
export function bytes(count: number): string {
  if (count >= 1e12) return t('words.amounts.tb', [decimal(count / 1e12, 1)])
  if (count >= 1e9) return t('words.amounts.gb', [decimal(count / 1e9, 1)])
  if (count >= 1e6) return t('words.amounts.mb', [decimal(count / 1e6, count >= 1e8 ? 0 : 1)])
  return t('words.amounts.kb', [Math.ceil(count / 1e3)])
}

/** Seconds in words for what is left of a task. */
export function left(seconds: number): string {
  if (!Number.isFinite(seconds)) return ''
  const whole = Math.max(0, Math.ceil(seconds))
  return whole >= 3600
    ? t('words.amounts.hMin', [Math.floor(whole / 3600), Math.floor(whole / 60) % 60])
    : `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, '0')}`
}
