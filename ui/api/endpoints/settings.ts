import type {
  AddedPerson,
  Audit,
  Connections,
  Day,
  Device,
  Devices,
  Done,
  Ended,
  Fields,
  Made,
  NewPassword,
  OwnField,
  People,
  ShownSecret,
  Stores,
} from '../answers'
import { below, question } from '../ask'
import { api } from '../client'

/** The set-up of a production. */
const devicesOf = question<Devices>('devices', () => 'settings/devices')
const storesOf = question<Stores>('stores', () => 'settings/stores')
const fieldsOf = question<Fields>('fields', () => 'settings/fields')
const peopleOf = question<People>('people', () => 'settings/people')
const connectionsOf = question<Connections>('connections', () => 'settings/connections')
const auditOf = question<Audit>('audit', () => 'settings/audit')

export const settings = {
  devices: (production: string) => devicesOf(production, {}),
  stores: (production: string) => storesOf(production, {}),
  fields: (production: string) => fieldsOf(production, {}),
  people: (production: string) => peopleOf(production, {}),
  audit: (production: string) => auditOf(production, {}),
  changeDevice: (production: string, device: string, body: unknown) =>
    api.patch<Device>(below(production, `settings/devices/${device}`), body),
  addDevice: (production: string, body: unknown) => api.post<Device>(below(production, 'settings/devices'), body),
  addPerson: (production: string, body: unknown) => api.post<AddedPerson>(below(production, 'settings/people'), body),
  newPassword: (production: string, user: string) =>
    api.post<NewPassword>(below(production, `settings/people/${user}/password`)),
  endMembership: (production: string, user: string) => api.delete<Done>(below(production, `settings/people/${user}`)),
  changePerson: (production: string, user: string, body: unknown) =>
    api.patch<Done>(below(production, `settings/people/${user}`), body),
  endSessions: (production: string, user: string) =>
    api.delete<Ended>(below(production, `settings/people/${user}/sessions`)),
  removeSecondFactor: (production: string, user: string) =>
    api.delete<Done>(below(production, `settings/people/${user}/second-factor`)),
  changeField: (production: string, field: string, body: unknown) =>
    api.patch<OwnField>(below(production, `settings/fields/${field}`), body),
  addField: (production: string, body: unknown) => api.post<OwnField>(below(production, 'settings/fields'), body),
  changeStore: (production: string, store: string, body: unknown) =>
    api.patch<Stores>(below(production, `settings/stores/${store}`), body),
  setWordsService: (production: string, url: string | null, token: string | null) =>
    api.put<Done>(below(production, 'settings/words-service'), { url, token }),
  connections: (production: string) => connectionsOf(production, {}),
  addHook: (production: string, url: string, events: string[]) =>
    api.post<ShownSecret>(below(production, 'settings/hooks'), { url, events }),
  removeHook: (production: string, hook: string) => api.delete<Done>(below(production, `settings/hooks/${hook}`)),
  addToken: (production: string, name: string) => api.post<ShownSecret>(below(production, 'settings/tokens'), { name }),
  revokeToken: (production: string, token: string) => api.delete<Done>(below(production, `settings/tokens/${token}`)),
  share: (production: string, on: boolean) => api.put<Done>(below(production, 'settings/library'), { is_library: on }),
  addStore: (production: string, body: unknown) => api.post<Made>(below(production, 'settings/stores'), body),
  changeDay: (production: string, day: string, body: unknown) => api.patch<Day>(below(production, `days/${day}`), body),
  addDay: (production: string, body: unknown) => api.post<Day>(below(production, 'days'), body),
  removeDay: (production: string, day: string) => api.delete<Done>(below(production, `days/${day}`)),
}
