import type { Guest, Moment, Playlist, Reel, Room } from '../answers'
import { api } from '../client'

const at = (secret: string, path = ''): string => `watch/${secret}${path === '' ? '' : '/' + path}`

/** What somebody with a link is answered; nothing else answers them. */
export const guest = {
  show: (secret: string) => api.get<Guest>(at(secret)),
  open: (secret: string, password: string | null) => api.post<Guest>(at(secret, 'open'), { password }),
  reel: (secret: string) => api.get<Reel>(at(secret, 'reel')),
  playlist: (secret: string) => api.get<Playlist>(at(secret, 'playlist')),
  room: (secret: string) => api.get<Room>(at(secret, 'room')),
  liveUrl: (secret: string) => `/api/${at(secret, 'live')}`,
  mediaUrl: (secret: string, clip: string, what: string, version: string) =>
    `/api/${at(secret, `clips/${clip}/media/${what}`)}?v=${version}`,
  clock: () => api.get<Moment>('clock'),
}
