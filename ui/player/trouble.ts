import type { Trouble } from './engine/player'

/** What hinders a player, as pages say it. */
export const TROUBLE: Record<Trouble, string> = {
  missing: 'Its proxy is not there yet.',
  silent: 'Some of its sound is not there yet.',
  decode: 'Its proxy cannot be decoded.',
  server: 'The server does not answer.',
  device: 'No sound device answers; the pictures play without it.',
  browser:
    'This browser plays pictures on https and on the desk itself only. ' +
    'Whoever runs the desk starts it with ./cartella start --share.',
}
