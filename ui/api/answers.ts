// Written by scripts/answer-types.php from the answer classes of app/Http; './cartella format' writes it anew.

/** The look that a picture is shown with: its own, or its device's; numbers as the ASC CDL has them. */
export interface ClipLook {
  ulid: string
  name: string
  of: 'clip' | 'device'
  slope: [number, number, number]
  offset: [number, number, number]
  power: [number, number, number]
  saturation: number
}

/** A reel or cut that shows a clip. */
export interface ClipUse {
  sequence: string
  kind: 'reel' | 'string_out' | 'cut' | 'angle_cut' | 'received'
  name: string
  times: number
}

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

/** A stretch of picture that plays. Ticks: `at` on the playlist's clock, `in` from the clip's first frame. */
export interface PicturePiece {
  clip: string
  take: string | null
  name: string
  at_ticks: number
  duration_ticks: number
  in_ticks: number
  start_ticks: number | null
  rate: Rate
  media_version: string
  look: ClipLook | null
}

/** What of a sequence plays when: pieces of picture and pieces of sound on one clock. Ticks; `start_ticks` is the first label. */
export interface Playlist {
  sequence: string
  step: number
  name: string
  rate: Rate
  start_ticks: number
  duration_ticks: number
  pictures: PicturePiece[]
  sounds: SoundPiece[]
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

/** A reel as the dark room shows it. */
export interface Reel {
  ulid: string
  name: string
  circled_only: boolean
  day: string | null
  items: ReelItem[]
}

/** A picture of a piece of a reel: from where to where it shows the take. Ticks from its first frame. */
export interface ReelAngle {
  clip: string
  name: string
  device: string | null
  device_note: string | null
  start_ticks: number | null
  in_ticks: number
  out_ticks: number
  duration_ticks: number
  frames: number | null
  synced: boolean
  media_version: string
  rate: Rate
  look: ClipLook | null
}

/** One piece of a reel: a take, the pictures that show it, and what was said of it. Ticks from the first frame of `clip`. */
export interface ReelItem {
  position: number
  clip: string
  in_ticks: number
  out_ticks: number
  take: ReelTake
  angles: ReelAngle[]
  notes: ReelNote[]
}

/** What somebody said while watching a take, at the frame they saw. Ticks from the clip's first frame. */
export interface ReelNote {
  ulid: string
  by: string
  text: string
  at_ticks: number
  clip: string | null
  timecode: string | null
}

/** A reel in the list of its day. */
export interface ReelSummary {
  ulid: string
  name: string
  circled_only: boolean
  items: number
  running_ticks: number
  made_at: string | null
  first_clip: string | null
  changed: string | null
  changed_at: string | null
}

/** The take that a piece of a reel shows. */
export interface ReelTake {
  ulid: string
  setup: string
  take: number
  part: string
  scene: string
  status: 'none' | 'circled' | 'hold' | 'ng'
  description: string
  size: string
  log_note: string | null
}

/** A cut as it is at its newest step. */
export interface Sequence {
  ulid: string
  kind: 'reel' | 'string_out' | 'cut' | 'angle_cut' | 'received'
  name: string
  step: number
  value: Record<string, unknown>
  versions: SequenceVersion[]
}

/** A change of a cut: what it is called, and what it made otherwise, as the operation `restore` says it. */
export interface SequenceStep {
  number: number
  label: string
  change: Record<string, unknown>
}

/** A state of a cut that somebody gave a name. */
export interface SequenceVersion {
  ulid: string
  name: string
  step: number
  by: string | null
  made_at: string | null
}

/** A stretch of sound that is heard under the pictures. Ticks: `at` on the playlist's clock, `in` from the recording's start. */
export interface SoundPiece {
  clip: string
  take: string | null
  name: string
  at_ticks: number
  duration_ticks: number
  in_ticks: number
  channels: { index: number; gain_db: number }[]
  drift_ppm: number
  media_version: string
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
