import { t } from '@/words'
import type { Trouble } from './engine/player'

/** What hinders a player, as pages say it. */
export const TROUBLE: Record<Trouble, string> = {
  missing: t('player.trouble.itsProxyIsNotThere'),
  silent: t('player.trouble.someOfItsSoundIs'),
  decode: t('player.trouble.itsProxyCannotBeDecoded'),
  server: t('player.trouble.theServerDoesNotAnswer'),
  device: t('player.trouble.noSoundDeviceAnswersThe'),
  browser: t('player.trouble.thisBrowserPlaysPicturesOn'),
}
