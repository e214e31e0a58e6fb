// Written by scripts/answer-types.php from the answer classes of app/Http; './cartella format' writes it anew.

/** A shoot day. */
export interface Day {
  ulid: string
  number: number
  date: string
  unit: string
}

/** A camera or recorder of the production. */
export interface Device {
  ulid: string
  letter: string
  kind: 'camera' | 'recorder' | 'phone' | 'other'
  note: string
  lane: number
  colour: number | null
  is_retired: boolean
}

/** What whoever asks may do in a production. */
export interface May {
  work: boolean
  organise: boolean
  review: boolean
  accept: boolean
  manage: boolean
}

/** A field that a production added, as its set-up shows it. */
export interface OwnField {
  ulid: string
  name: string
  label: string
  type: 'text' | 'number' | 'choice' | 'yes_no'
  choices: string[]
  is_retired: boolean
}

/** What the frame around the stages knows of a production. */
export interface Production {
  ulid: string
  name: string
  slate_style: 'letter' | 'number'
  rate: Rate
  days: Day[]
  devices: Device[]
  marks: Record<string, [string, string | boolean]>
  fields: TakeField[]
  your_role: 'assistant' | 'editor' | 'reviewer' | 'admin' | null
  may: May
}

/** A frame rate: exact fraction, whole frames that are counted, drop frame, name. */
export interface Rate {
  num: number
  den: number
  nominal: number
  drop: boolean
  name: string
}

/** Counts for the tabs of the spine. */
export interface Tabs {
  open: number
  by_stage: Record<string, number>
  cards: { safe: number; all: number }
  takes: number
  placed: number
  to_place: number
}

/** One entry of the list of what is known of a take. */
export interface TakeField {
  key: string
  name: string
  type: 'text' | 'number' | 'choice' | 'yes_no' | 'lines' | 'status' | 'slate' | 'devices'
  label: string
  limit: number
  choices: string[]
}

/** A task as the tray shows it. */
export interface Task {
  ulid: string
  kind: string
  title: string
  state: 'waiting' | 'running' | 'done' | 'failed' | 'cancelled'
  done: number
  total: number
  done_bytes: number
  total_bytes: number
  copied_bytes: number
  by_store: Record<string, number> | null
  bytes_per_second: number
  now: string
  message: string | null
  fix: string | null
  card: number | null
  cancelling: boolean
  tries: number
  by: string | null
  started_at: string | null
  ended_at: string | null
  problems: number
}
