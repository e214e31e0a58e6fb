/**
 * Shapes that the server answers with; those in answers.ts are written from the server's own classes. All `…_ticks`
 * count 705 600 000 to the second.
 */

import type { ClipLook, Rate, Task } from './answers'

export type {
  ClipLook,
  Day,
  Device,
  May,
  OwnField,
  Production,
  Rate,
  Reel,
  ReelAngle,
  ReelItem,
  ReelSummary,
  Tabs,
  TakeField,
  Task,
} from './answers'

/** What an open page is told has changed: `App\Support\Topic`. */
export type Topic =
  | 'tasks'
  | 'cards'
  | 'takes'
  | 'lineup'
  | 'lanes'
  | 'bins'
  | 'sequences'
  | 'notes'
  | 'handoffs'
  | 'clips'
  | 'patterns'
  | 'looks'
  | 'here'
  | 'settings'

export type Role = 'assistant' | 'editor' | 'reviewer' | 'admin'

export interface Person {
  ulid: string
  name: string
  email: string
  initials: string
  role: Role
  needs: 'password' | 'second_factor' | null
  has_second_factor: boolean
  recovery_codes_left: number
}
export interface SessionAnswer {
  user: Person | null
  productions: { ulid: string; name: string }[]
}

export type DeviceKind = 'camera' | 'recorder' | 'phone' | 'other'
export type MarkWords = Record<string, [field: string, value: string | boolean]>

export interface Fix {
  name: string
  label: string
}
export interface OpenPoint {
  key: string
  weight: 'fault' | 'warning'
  title: string
  evidence: string
  place: { stage: string; take?: string; clip?: string; card?: string }
  fixes: Fix[]
}
export interface DaySheet {
  counts: {
    cards: number
    cards_safe: number
    cards_unsafe: string[]
    bytes_verified: number
    takes: number
    setups: number
    scenes: number
    circled: number
    handed_off: number
    circled_ticks: number
    running_ticks: number
    synced: number
    to_sync: number
    unsure: number
    strays: number
  }
  rolled: { device: string; kind: string; spans: [number, number, string, string | null, boolean][] }[]
  points: OpenPoint[]
  wrap: { done: boolean; title: string; note: string; stage: string; is_running: boolean }[]
  /** Unfinished tasks that the sheet depends on. */
  running: string[]
}

export interface VolumeClip {
  name: string
  at: string | null
}
export interface Volume {
  name: string
  files: number
  size_bytes: number
  clips: number
  roll: string
  device: string | null
  kind: 'camera' | 'recorder' | 'folder'
  why: string
  first: VolumeClip | null
  last: VolumeClip | null
  problems: string[]
  problem_count: number
  date: string | null
  day: number | null
  state: 'new' | 'seen' | 'grown' | 'reused'
  known_roll: string | null
  known_card: string | null
  known_files: number
  new_files: number
  is_ours: boolean
  ours_why: string | null
  ask: string | null
  in_all: boolean
  project: string | null
}
export interface VolumeDetail extends Volume {
  list: { path: string; size_bytes: number; kind: string | null; is_new: boolean }[]
}
export interface CardCopy {
  store: string
  path: string
  manifest: string | null
  is_whole: boolean
  checked_at: string | null
  read_from: 'medium' | 'cache' | null
  differences: {
    missing: string[]
    altered: string[]
    new: string[]
    renamed: { from: string; to: string }[]
    problems: string[]
  } | null
}
export interface Fault {
  path: string
  reason: string
  byte?: number
  destination?: string
}
export interface Card {
  ulid: string
  roll: string
  volume: string
  device: string | null
  device_note: string | null
  kind: string | null
  state: 'copying' | 'verified' | 'fault' | 'stopped'
  files: number
  verified_files: number
  size_bytes: number
  faults: Fault[]
  is_safe: boolean
  is_one_disk: boolean
  matched_files: number
  chosen_stores: string[] | null
  on_bench: boolean
  verified_at: string | null
  released_at: string | null
  released_by: string | null
  clips: number
  running_ticks: number
  use_number: number
  first_at: string | null
  last_at: string | null
  clock_ticks: number | null
  copies: CardCopy[]
  task: Task | null
}
export interface CardRelease {
  at: string
  by: string | null
  evidence: {
    files: number
    size_bytes: number
    algorithm: string | null
    verified_at: string | null
    looked_at?: string
    one_disk?: boolean
    words?: string | null
    copies: ReleasedCopy[]
  }
}
export interface ReleasedCopy {
  store: string
  path: string
  manifest: string | null
  c4: string | null
  checked_at: string | null
  device?: number
  files?: number
  sample?: { path: string; bytes: number; from: 'medium' | 'cache' }[]
}
export interface CardDetail extends Card {
  list: {
    path: string
    size_bytes: number
    algorithm: string | null
    hash: string | null
    copies: number
    fault: string | null
  }[]
  releases: CardRelease[]
}
export interface ClipCheck {
  devices: {
    device: string
    kind: string
    clips: number
    running_ticks: number
    first_ticks: number | null
    last_ticks: number | null
  }[]
  differences: { device: string; against: string; title: string; evidence: string }[]
}
export interface Store {
  key: string
  name: string
  free_bytes: number | null
  is_there: boolean
  device: number | null
}
export interface StoreSetting {
  ulid: string
  key: string
  name: string
  path: string
  is_there: boolean
  is_other: boolean
  is_retired: boolean
  device: number | null
  free_bytes: number | null
  total_bytes: number | null
  cards: number
}
export interface Member {
  ulid: string
  name: string
  email: string
  role: Role
  is_desk_admin: boolean
  has_second_factor: boolean
  must_use_second_factor: boolean
  must_change_password: boolean
  sessions: number
  is_you: boolean
}
export interface AuditRow {
  at: string
  what: string
  who: string
  address: string | null
  facts: Record<string, string | number | boolean | null>
}
export interface SessionRow {
  id: string
  address: string | null
  browser: string
  last_at: string
  is_this: boolean
}
export interface CardsAnswer {
  volumes: Volume[]
  cards: Card[]
  stores: Store[]
  check: ClipCheck
  template: string
  panel: string | null
}

export type TakeStatus = 'none' | 'circled' | 'hold' | 'ng'
export interface LogClip {
  ulid: string
  kind: 'picture' | 'sound' | 'other'
  name: string
  file: string
  device: string | null
  slate_from: string | null
  /** Where the stretch begins that belongs to the take; null where all of the clip does. Times are the stretch's. */
  in_ticks: number | null
  duration_ticks: number | null
  start_ticks: number | null
  placed_ticks: number | null
  way: string | null
  sure: boolean
  stray: string | null
  is_wild: boolean
  is_false_start: boolean
  problems: string[]
  ready: boolean
}
export type Said = string | boolean
export interface Dispute {
  field: string
  now: Said
  by: string | null
  at: number | null
  said: { source: string; place: string; value: Said; at: number }[]
}
export interface Take {
  /** Fields that the production added. */
  [own: `own:${string}`]: Said | undefined
  ulid: string
  scene: string
  setup: string
  take: number
  part: string
  name: string
  description: string
  size: string
  width: number
  status: TakeStatus
  notes: string
  keywords: string
  is_mos: boolean
  is_tail_slate: boolean
  is_wild: boolean
  is_guide_only: boolean
  is_pickup: boolean
  is_false_start: boolean
  absent_devices: string[]
  missed: string[]
  claims: { from: string; where: string; setup: string; take: number; part: string }[]
  disputes: Dispute[]
  screening: string
  clips: LogClip[]
  sync: string
}
export interface TakeStep {
  at: string
  by: string
  label: string
  undone: boolean
  fields: { field: string; from: string; to: string }[]
}
export interface SheetScene {
  heading: string
  characters: string[]
  pages: string | null
  in_script: boolean
  setups: number
  takes: number
  circled: number
  running_ticks: number
  days: number
}
export interface SlateSheet {
  takes: Take[]
  unslated: LogClip[]
}
export interface Column {
  key: string
  width: number
  shown: boolean
}
export interface Understood {
  pieces: { is: 'slate' | 'size' | 'status' | 'mark' | 'keyword' | 'note' | 'happens'; says: string }[]
  problems: string[]
  hints: string[]
  slate: string | null
  does: 'nothing' | 'joins' | 'joins-new' | 'makes' | 'edits'
}
export interface ReadSlate {
  clip: string
  name: string
  device: string | null
  slate: string | null
  from: 'ixml' | 'name' | null
  pattern: string | null
  has: string | null
  is_new: boolean
}
export interface GivenName {
  ulid: string
  original: string
  was: string
  name: string
  problems: string[]
}
export type Verdict = 'new' | 'same' | 'different' | 'unmatched'
export interface NoteSample {
  row: number
  slate: string
  take: string | null
  why: string
  fields: { field: string; was: Said; said: Said; taken: boolean }[]
}
export interface NoteReport {
  rows: number
  made: number
  joined: number
  counts: Record<Verdict, number>
  samples: Record<Verdict, NoteSample[]>
  fault_count: number
  faults: { row: number; column: string; what: string; why: string }[]
}
export interface NoteFile {
  ulid: string
  name: string
  heading: number
  columns: Record<string, string>
  is_known: boolean
  rows: string[][]
  report: NoteReport | null
  applied: boolean
  task: Task | null
  targets: string[]
}
export interface ScriptReport {
  scenes: number
  new: string[]
  gone: string[]
  changed: string[]
  pages: string
}

interface LineupClip {
  clip: string
  name: string
  device: string
  kind: 'picture' | 'sound'
  duration_ticks: number
  own_ticks: number | null
  take: string | null
  take_ulid: string | null
  ready: boolean
  has_sound: boolean
  roll: string | null
  scene: string | null
  left_out: boolean
  what: string
  alone: boolean
}
export interface Placed extends LineupClip {
  start_ticks: number
  group: number
  way: string
  confidence: number
  sure: boolean
  drift_ppm: number | null
  drift_applied: boolean
  is_anchor: boolean
  locked: boolean
  second_ticks: number | null
  agreeing: number | null
  windows: number | null
  against: string | null
  height: number | null
  runner_up: number | null
  residual_ticks: number | null
  clock_disagrees_ticks: number | null
  point: string | null
  weakest_link: [string, string] | null
  miss_ticks: number | null
}
export type StrayStep = 'back' | 'lineup' | 'clap' | 'hand' | 'false_start' | 'out' | 'wild'
export interface Stray extends LineupClip {
  reason: string
  is_false_start: boolean
  steps: StrayStep[]
}
export interface Lineup {
  placements: Placed[]
  strays: Stray[]
  clocks: { device: string; learned_ticks: number | null; applied_ticks: number | null; votes: number }[]
  task: Task | null
}
export interface CheckSide {
  clip: string
  name: string
  device: string | null
  kind: string
  start_ticks: number | null
  drift_ppm: number | null
  duration_ticks: number
  rate: Rate
  media_version: string
  has_sound: boolean
  frames: number | null
  look: ClipLook | null
}
export interface CheckAnswer {
  own: CheckSide
  against: CheckSide | null
  beside: CheckSide | null
  moments: { ticks: number; what: 'clap' | 'onset' }[]
}
export interface ClipPoints {
  pending?: boolean
  claps: { ticks: number; strength: number }[]
  onsets: number[]
  flashes: { frame: number; strength: number }[]
}
export interface LineupRun {
  ulid: string
  number: number
  scope: string
  ways: string[]
  placed: number
  sure: number
  strays: number
  by: string | null
  at: string
}
interface RunPlace {
  start_ticks: number | null
  way: string | null
  sure: boolean
  locked: boolean
  reason: string | null
}
export interface RunRow {
  clip: string
  name: string
  device: string | null
  before: RunPlace | null
  after: RunPlace | null
  moved_ticks: number | null
}

export interface CutRow {
  clip: string
  name: string
  device: string | null
  kind: string
  what: 'take' | 'false_start' | 'wild' | 'room_tone' | 'mos'
  was: string | null
  now: string | null
  is_new: boolean
  why: string
}
/** A stretch of a long recording, ticks from its first frame. */
export interface SplitSpan {
  from: number
  to: number
  slate: string | null
}
export interface CutPlan {
  rows: CutRow[]
  patterns: string[]
  pattern: string | null
}

export interface BinEntry {
  key: string
  name: string
  note: string
  clips: number
  parent?: string | null
}
export interface BinTree {
  scenes: BinEntry[]
  imports: BinEntry[]
  own: BinEntry[]
}
export interface BinClip {
  ulid: string
  name: string
  file: string
  kind: string
  import_kind: string | null
  device: string | null
  duration_ticks: number | null
  start_ticks: number | null
  take: {
    ulid: string
    setup: string
    take: number
    part: string
    status: TakeStatus
    description: string
    size: string
  } | null
  ready: boolean
}
export interface BinPage {
  total: number
  from: number
  clips: BinClip[]
}

/** What of a recording is heard under a take; gains in dB. */
export interface TakeChannel {
  index: number
  name: string
  on: boolean
  gain_db: number
}
export interface TakeSound {
  clip: string
  name: string
  is_default: boolean
  channels: TakeChannel[]
}
export interface LookValues {
  slope: [number, number, number]
  offset: [number, number, number]
  power: [number, number, number]
  saturation: number
}
export interface Look extends LookValues {
  ulid: string
  name: string
  source: string
  devices?: string[]
}

/** What a player needs to know of a clip. */
export interface PlayableClip {
  look?: ClipLook | null
  sound?: TakeSound | null
  head_frames?: number | null
  ulid: string
  kind: string
  rate: Rate
  frames: number | null
  start_ticks: number | null
  duration_ticks: number | null
  synced: boolean
  media_version: string
  has_sound: boolean
}
export interface ClipSheet extends PlayableClip {
  name: string
  file: string
  import_kind: string | null
  device: string | null
  roll: string | null
  path: string
  parts: string[]
  sidecars: string[]
  day: string
  start_timecode: string | null
  corrected_timecode: string | null
  placed_ticks: number | null
  sample_rate: number | null
  channels: { index: number; name: string; function: string | null }[]
  width: number | null
  height: number | null
  recorded_at: string | null
  problems: string[]
  ready: boolean
  take: { ulid: string; setup: string; take: number; part: string; status: TakeStatus; description: string } | null
  takes: { ulid: string; label: string; in_ticks: number | null; out_ticks: number | null }[]
  marks: { in_ticks: number | null; out_ticks: number | null }
  subclips: { ulid: string; name: string; in_ticks: number; out_ticks: number }[]
}

export interface Handoff {
  ulid: string
  number: number
  title: string
  folder: string
  state: 'packing' | 'delivered' | 'accepted' | 'queried' | 'failed'
  summary: { files: number; bytes: number; clips: number; reel: string | null; missing: string[] } | null
  made_by: string | null
  made_at: string | null
  delivered_at: string | null
  answered_by: string | null
  answered_at: string | null
  query: string | null
}
export interface SearchAnswer {
  takes: {
    ulid: string
    setup: string
    take: number
    part: string
    description: string
    status: TakeStatus
    day: string
    number: number
  }[]
  clips: {
    ulid: string
    name: string
    label: string | null
    kind: string
    letter: string | null
    day: string
    number: number
  }[]
}
