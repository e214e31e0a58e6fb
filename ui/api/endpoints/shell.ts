import type { Glance, Made, Production, SearchResult, Tabs, Task, Tasks, Undone } from '../answers'
import { below, question } from '../ask'
import { api } from '../client'

/** What the frame around the stages asks. */
const productionOf = question<Production>('production', () => '')
const glanceOf = question<Glance>('glance', () => 'glance')
const tabsOf = question<Tabs, { day: string }>('tabs', ({ day }) => `days/${day}/tabs`)
const tasksOf = question<Tasks>('tasks', () => 'tasks')
const searchOf = question<SearchResult, { words: string }>(
  'search',
  ({ words }) => `search?q=${encodeURIComponent(words)}`,
  ['words'],
)

export const shell = {
  production: (production: string) => productionOf(production, {}),
  glance: (production: string) => glanceOf(production, {}),
  tabs: (production: string, day: string) => tabsOf(production, { day }),
  tasks: (production: string) => tasksOf(production, {}),
  search: (production: string, words: string) => searchOf(production, { words }),
  cancel: (production: string, task: string) => api.post<Task>(below(production, `tasks/${task}/cancel`)),
  again: (production: string, task: string) => api.post<Task>(below(production, `tasks/${task}/again`)),
  undo: (production: string) => api.post<Undone>(below(production, 'undo')),
  redo: (production: string) => api.post<Undone>(below(production, 'redo')),
  open: (production: string) => api.get<Production>(below(production, '')),
  makeProduction: (body: unknown) => api.post<Made>('productions', body),
}
