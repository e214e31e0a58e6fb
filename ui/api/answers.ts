// Written by scripts/answer-types.php from the answer classes of app/Http; './cartella format' writes it anew.

/** Somebody new; the password is told once. */
export interface AddedPerson {
  ulid: string
  name: string
  password: string | null
}

/** Another event of the same folder, and the clip that it means. */
export interface AlsoLinkable {
  track: number
  index: number
  name: string
  clip: string
  clip_name: string
  reason: string
}

/** What could be linked in the same way. */
export interface AlsoLinkables {
  others: AlsoLinkable[]
}

/** A clip inside a take: one of its angles, or a recorder's file. Ticks. */
export interface Angle {
  clip: string
  device: string | null
  name: string
  kind: string
  duration_ticks: number | null
  ready: boolean
}

/** A token with which a program reads the production. */
export interface ApiToken {
  ulid: string
  name: string
  made_at: string | null
  used_at: string | null
}

/** What was written down for good, newest first. */
export interface Audit {
  rows: AuditRow[]
}

/** Something that was written down for good. */
export interface AuditRow {
  at: string
  what: string
  who: string
  address: string | null
  facts: Record<string, string | number | boolean | null>
}

/** A card that was taken away, with the clips that went with it. */
export interface AwayCard {
  ulid: string
  roll: string
  clips: number
  at: string
}

/**
 * What lies under the playhead; nothing where nothing does. Ticks of the source that are left before and after it.
 */
export interface Beneath {
  name: string | null
  take: CutTake | null
  clip: CutClip | null
  from: string
  before_ticks: number
  after_ticks: number
  instead: Instead[]
}

/** How one person looks at a bin. */
export interface BinArrangement {
  show: 'rows' | 'pictures' | 'scenes'
  order: string
  down: boolean
  takes: boolean
  days: string[]
  devices: string[]
  columns: { key: string; width: number; shown: boolean }[]
}

/** How much lies in the rule bins of a production. */
export interface BinCounts {
  counts: Record<string, number>
}

/** A bin in the tree. */
export interface BinEntry {
  key: string
  name: string
  note: string
  items: number | null
  parent: string | null
  depth: number
  colour: string | null
  is_rule: boolean
}

/** A group of bins that fill themselves. */
export interface BinGroup {
  key: string
  name: string
  bins: BinEntry[]
}

/** A bin, by its key. */
export interface BinMade {
  key: string
}

/** A page of what lies in a bin. */
export interface BinPage {
  total: number
  ticks: number | null
  from: number
  rows: BinRow[]
  rule: unknown[] | null
  sentence: string | null
}

/** The references of all that lies in a bin. */
export interface BinRefs {
  refs: string[]
}

/** What lies in a bin: a reference, and what is shown of the clip behind it. Ticks. */
export interface BinRow {
  ref: string
  what: 'clip' | 'take' | 'subclip' | 'sequence'
  clip: string | null
  name: string
  file: string | null
  kind: string | null
  import_kind: string | null
  device: string | null
  day: number | null
  in_ticks: number | null
  duration_ticks: number | null
  start_ticks: number | null
  recorded_at: string | null
  channels: number
  sequence: { ulid: string; kind: string } | null
  take: RowTake | null
  ready: boolean
  is_away: boolean
  colour: string | null
  angles: Angle[]
  used: { ulid: string; kind: string; name: string; times: number }[]
}

/**
 * Every bin of a production: those that fill themselves, and those that people made; and how one person looks at
 * them.
 */
export interface BinTree {
  groups: BinGroup[]
  own: BinEntry[]
  known_groups: Record<string, string>
  views: Record<string, BinArrangement>
}

/** What the floor calls out in a recording; ticks from its start, null for what was not heard. */
export interface Calls {
  slate: string | null
  slate_ticks: number | null
  slate_confidence: number | null
  action_ticks: number | null
  cut_ticks: number | null
}

/** A list that came back, with all of its events. */
export interface CameBack {
  ulid: string
  name: string
  file: string
  format: 'edl' | 'otio' | 'aaf'
  rate: string
  start: string
  length: string
  events: ReceivedEvent[]
  problems: ListProblem[]
  problem_count: number
  linked: number
  total: number
  others: CutName[]
}

/** An offloaded card. Bytes and ticks. */
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
  faults: { path: string; reason: string; byte?: number; destination?: string }[]
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
  is_dropped: boolean
  upload: string | null
  copies: CardCopy[]
  task: Task | null
}

/** A copy of a card on a store. */
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

/** An offloaded card, with its files and releases. */
export interface CardDetail {
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
  faults: { path: string; reason: string; byte?: number; destination?: string }[]
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
  is_dropped: boolean
  upload: string | null
  copies: CardCopy[]
  task: Task | null
  list: {
    path: string
    size_bytes: number
    algorithm: string | null
    hash: string | null
    copies: number
    fault: string | null
  }[]
  releases: CardRelease[]
  found: FoundClip[]
}

/** That a card was released, and what was looked at. */
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

/** The cards of a day, what lies in the readers, and where copies go. */
export interface CardsStage {
  volumes: Volume[]
  cards: Card[]
  stores: Store[]
  away: AwayCard[]
  check: ClipCheck
  template: string
  panel: string | null
}

/** How many things were changed. */
export interface Changed {
  changed: number
}

/** What changed in a production since the last time it was asked. */
export interface Changes {
  last: number
  events: { id: number; topic: string; facts: unknown; origin: string | null }[]
}

/** A clip beside the one it was placed against. */
export interface CheckPair {
  own: CheckSide
  against: CheckSide | null
  beside: CheckSide | null
  moments: { ticks: number; what: 'clap' | 'onset' }[]
}

/** One of the two clips that are looked at together. */
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

/** The status of a take now. */
export interface Circled {
  ulid: string
  status: 'none' | 'circled' | 'hold' | 'ng'
}

/** What the devices of a day have in common, and what they have not. */
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

/** Where something is heard or seen in a clip. Ticks and frames. */
export interface ClipPoints {
  claps: { ticks: number; strength: number }[]
  onsets: number[]
  flashes: { frame: number; strength: number }[]
  pending: boolean | null
}

/**
 * Everything about one clip, and one person's marks on it. Ticks from its first frame, but for what is on a clock.
 */
export interface ClipSheet {
  ulid: string
  name: string
  file: string
  kind: 'picture' | 'sound' | 'still' | 'other'
  import_kind: string | null
  device: string | null
  roll: string | null
  path: string
  parts: string[]
  sidecars: string[]
  day: string
  duration_ticks: number | null
  frames: number | null
  start_ticks: number | null
  start_timecode: string | null
  corrected_timecode: string | null
  placed_ticks: number | null
  rate: Rate
  sample_rate: number | null
  channels: { index: number; name: string; function: string | null }[]
  width: number | null
  height: number | null
  recorded_at: string | null
  problems: string[]
  ready: boolean
  synced: boolean
  has_sound: boolean
  media_version: string
  look: ClipLook | null
  sound: {
    clip: string
    name: string
    is_default: boolean
    channels: { index: number; name: string; on: boolean; gain_db: number }[]
  } | null
  head_frames: number | null
  take: {
    ulid: string
    setup: string
    take: number
    part: string
    status: 'none' | 'circled' | 'hold' | 'ng'
    description: string
  } | null
  fields: Record<string, string>
  screening: string
  sources: Record<string, { by: string | null; place: string | null }>
  takes: { ulid: string; label: string; in_ticks: number | null; out_ticks: number | null }[]
  marks: { in_ticks: number | null; out_ticks: number | null }
  subclips: Subclip[]
  markers: Marker[]
  bins: { key: string; name: string; as: 'clip' | 'take' | 'subclip' }[]
  files: {
    path: string
    size_bytes: number
    algorithm: string | null
    hash: string | null
    copies: number
    verified_at: string | null
  }[]
  away_at: string | null
  found: { by: string; words: string; was: string; at: string } | null
  library: string | null
}

/** A reel or cut that shows a clip. */
export interface ClipUse {
  sequence: string
  kind: 'reel' | 'string_out' | 'cut' | 'angle_cut' | 'received'
  name: string
  times: number
}

/** The reels and cuts that show a clip. */
export interface ClipUses {
  uses: ClipUse[]
}

/** What is said in a clip, and what can be done to find it. */
export interface ClipWords {
  sources: WordSource[]
  heard_in: string[]
  languages: string[]
  service: string | null
  task: string | null
}

/** By how much a clock is corrected. */
export interface Clock {
  correction_ticks: number
}

/** The columns of the sheet as a person keeps them; none where they never chose. */
export interface Columns {
  columns: { key: string; width: number; shown: boolean }[] | null
}

/** What became of a cut. */
export interface Compared {
  same: number
  changes: CutChange[]
}

/** What of other programs is connected with a production. */
export interface Connections {
  hooks: WebHook[]
  tokens: ApiToken[]
  words_service: string | null
  languages: string[]
}

/** A cut that pieces can be added to. */
export interface Cut {
  ulid: string
  name: string
  kind: string
  duration_ticks: number
  step: number
}

/** One difference of two cuts. */
export interface CutChange {
  kind: 'new' | 'gone' | 'moved' | 'longer' | 'shorter' | 'slipped' | 'speed'
  name: string
  was_at: string | null
  is_at: string | null
  at_ticks: number
  clip: string | null
  words: string
}

/** A clip that items of a cut are of, with all that a player needs of it; ticks. */
export interface CutClip {
  ulid: string
  name: string
  kind: 'picture' | 'sound' | 'still' | 'other'
  device: string | null
  day: string
  duration_ticks: number
  ready: boolean
  has_sound: boolean
  media_version: string
  start_ticks: number | null
  frames: number | null
  rate: Rate
  look: ClipLook | null
  heard: { index: number; gain_db: number }[]
}

/** A cut or reel by its name. */
export interface CutName {
  ulid: string
  name: string
  kind: 'reel' | 'string_out' | 'cut' | 'angle_cut' | 'received'
}

/** Which takes the line-up makes of the clips. */
export interface CutPlan {
  rows: CutRow[]
  patterns: string[]
  pattern: string | null
}

/** A clip, and the take it would be of. */
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

/** The rate of a cut, and the clips and takes that its items are of. */
export interface CutSources {
  rate: Rate
  clips: CutClip[]
  takes: CutTake[]
}

/** A take that items of a cut are of. */
export interface CutTake {
  ulid: string
  label: string
  scene: string
  description: string
  status: 'none' | 'circled' | 'hold' | 'ng'
}

/** The cuts of a production, the one that was changed last first. */
export interface Cuts {
  cuts: Cut[]
}

/** A shoot day. */
export interface Day {
  ulid: string
  number: number
  date: string
  unit: string
}

/** The day at a glance. Ticks and bytes. */
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
  rolled: {
    device: string
    kind: string
    spans: [number, number, string, string | null, boolean][]
    holes: [number, number][]
  }[]
  points: OpenPoint[]
  wrap: { done: boolean; title: string; note: string; stage: string; is_running: boolean }[]
  running: string[]
}

/** What depends on some clips; `total` is how much that is, to be said again when they are taken away. */
export interface Dependents {
  clips: number
  takes: number
  subclips: number
  markers: number
  marks: number
  notes: number
  placed: number
  bins: string[]
  sequences: { name: string; times: number }[]
  total: number
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

/** A device as the set-up lists it. */
export interface DeviceRow {
  ulid: string
  letter: string
  kind: 'camera' | 'recorder' | 'phone' | 'other'
  note: string
  lane: number
  colour: number | null
  is_retired: boolean
  clips: number
}

/** The devices of a production. */
export interface Devices {
  devices: DeviceRow[]
}

/** A field about which sources disagree. */
export interface Dispute {
  field: string
  now: string | boolean
  by: string | null
  place: string | null
  at: number | null
  said: { id: string; source: string; place: string; value: string | boolean; at: number }[]
}

/** It is done, and there is nothing more to say. */
export type Done = Record<string, never>

/** How many takes were changed. */
export interface Edited {
  takes: number
}

/** How many sessions were ended. */
export interface Ended {
  ended: number
}

/** What several cameras saw at once; ticks of the line-up's clock. */
export interface Event {
  key: string
  label: string
  description: string
  group: number
  from: number
  to: number
  letters: string[]
  clips: number
}

/** The events of a day, and the cuts that were begun of them. */
export interface Events {
  events: Event[]
  cuts: Cut[]
}

/** The fields that a production added. */
export interface Fields {
  fields: OwnField[]
}

/** A clip whose media went and came back: by what they were known, and the roll they were of before. */
export interface FoundClip {
  clip: string
  name: string
  by: 'hash' | 'timecode' | 'name'
  words: string
  was: string
  at: string
}

/** An open point about what is to go. */
export interface GatePoint {
  day: string
  number: number
  key: string
  weight: 'fault' | 'warning'
  title: string
  evidence: string
  place: { stage: string; take?: string; clip?: string; card?: string }
  fixes: { name: string; label: string }[]
}

/** A name that a pattern would give. */
export interface GivenName {
  ulid: string
  original: string
  was: string
  name: string
  problems: string[]
}

/** A production as it is seen before it is opened. */
export interface Glance {
  rate: string
  days: GlanceDay[]
  days_count: number
  waiting: string[]
  here: GlancePerson[]
  may_add_day: boolean
}

/** A shoot day as the page of productions shows it. */
export interface GlanceDay {
  ulid: string
  number: number
  date: string
  takes: number
  cards: number
  open: number
}

/** Somebody who has a page of a production open. */
export interface GlancePerson {
  name: string
  initials: string
}

/** What somebody with a link is told before they watch, and whether they are let in. */
export interface Guest {
  reel: string
  production: string
  for_name: string
  needs_password: boolean
  is_open: boolean
  expires_at: string | null
}

/** A package for the editing team. */
export interface Handoff {
  ulid: string
  number: number
  title: string
  folder: string
  state: 'packing' | 'delivered' | 'accepted' | 'queried' | 'failed' | 'stopped'
  summary: { files: number; bytes: number; clips: number; missing: string[]; unmixed?: string[] } | null
  made_by: string | null
  made_at: string | null
  delivered_at: string | null
  answered_by: string | null
  answered_at: string | null
  query: string | null
  waived: Waived[]
  questions: HandoffQuestion[]
  newest: boolean
}

/** What the editing team asks, what it is about, and the answer if there is one. */
export interface HandoffQuestion {
  ulid: string
  question: string
  about: string | null
  take: string | null
  clip: string | null
  path: string | null
  by: string | null
  at: string | null
  answer: string | null
  answered_by: string | null
}

/** How a package stands. */
export interface HandoffState {
  state: string
}

/** The packages of a production, and the bins that can be handed off. */
export interface Handoffs {
  handoffs: Handoff[]
  bins: BinTree
  cuts: CutName[]
  folders: 'flat' | 'day' | 'scene' | 'device'
  pattern: string
}

/** From which frame on a clip is watched. */
export interface Head {
  frames: number | null
}

/** How many clips begin elsewhere now, and on how many no slate was heard or seen. */
export interface Heads {
  changed: number
  none: number
}

/** What is up, how full the disks are, how long the queues: for the machine itself. */
export interface Health {
  ok: boolean
  problems: string[]
  parts: Record<string, string>
  disks: { what: string; free_bytes: number | null; total_bytes: number | null }[]
  queues: { name: string; waiting: number; oldest_seconds: number }[]
  tasks: { running: number; waiting: number; failed_today: number }
}

/** Whether all is up, for whoever asks from elsewhere. */
export interface HealthState {
  ok: boolean
}

/** Files on their way in; bytes. `files` are given where they are to be sent. */
export interface Import {
  ulid: string
  roll: string | null
  import_kind: string | null
  by: string
  begun_at: string
  count: number
  size_bytes: number
  received_bytes: number
  piece_bytes: number
  is_mine: boolean
  files: ImportFile[]
  refused: { path: string; reason: string }[]
  passed: number
}

/** A file of an import: its place in the list that was sent, its number in the import, and its bytes. */
export interface ImportFile {
  place: number
  number: number
  size_bytes: number
  received_bytes: number
}

/** What of a list of files would come in, by the places in the list; what would not, and why. */
export interface ImportLook {
  places: number[]
  refused: { path: string; reason: string }[]
  passed: number
  known: KnownFile[]
}

/** What is on its way in. */
export interface Imports {
  imports: Import[]
}

/** What could stand in place of an item: the same moment from another camera, or of another take. */
export interface Instead {
  kind: 'angle' | 'take'
  label: string
  take: CutTake | null
  device: string | null
  clip: string
  in_ticks: number
  out_ticks: number
  how: 'words' | 'action' | 'start' | 'whole' | 'clock'
  picture: PicturePiece
  sounds: SoundPiece[]
}

/** A file of a list, by its place, of which an import has the same name and size already. */
export interface KnownFile {
  place: number
  roll: string
}

/** A take that a reel's recipe chooses and somebody left out. */
export interface LeftOut {
  ulid: string
  label: string
  description: string
}

/** Of one scene: lines of its script, those that were said, and reads of all of them. */
export interface LineSum {
  lines: number
  said: number
  reads: number
}

/** How much of each scene's script has been said, by scene; empty where nobody has listened to anything. */
export interface LineSums {
  scenes: Record<string, LineSum>
}

/** The line-up of a day. */
export interface Lineup {
  placements: Placed[]
  strays: Stray[]
  clocks: { device: string; learned_ticks: number | null; applied_ticks: number | null; votes: number }[]
  holes: { device: string; from_ticks: number; to_ticks: number }[]
  task: Task | null
}

/** A run of the line-up. */
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

/** A link by which somebody from outside watches a reel; the secret in it is told once, when it is made. */
export interface Link {
  ulid: string
  for_name: string
  by: string
  has_password: boolean
  expires_at: string | null
  ended: boolean
  opens: number
  last_opened_at: string | null
  secret: string | null
}

/** How many more events were linked. */
export interface Linked {
  count: number
}

/** The links of a reel, the newest first. */
export interface Links {
  links: Link[]
}

/** What of a list could not be read, and where. */
export interface ListProblem {
  where: string
  reason: string
}

/** Whether a place stays whatever a run finds. */
export interface Locked {
  locked: boolean
}

/**
 * A clip of a take, or of none, in the sheet. Where a stretch of it belongs to the take, times are that stretch's.
 */
export interface LogClip {
  ulid: string
  kind: 'picture' | 'sound' | 'other'
  name: string
  file: string
  device: string | null
  slate_from: string | null
  in_ticks: number | null
  duration_ticks: number | null
  start_ticks: number | null
  placed_ticks: number | null
  clock: number | null
  way: string | null
  sure: boolean
  stray: string | null
  is_wild: boolean
  is_false_start: boolean
  problems: string[]
  ready: boolean
}

/** A look of the production; numbers as the ASC CDL has them. */
export interface Look {
  slope: [number, number, number]
  offset: [number, number, number]
  power: [number, number, number]
  saturation: number
  ulid: string
  name: string
  source: string | null
  devices: string[] | null
}

/** The looks of the production. */
export interface Looks {
  looks: Look[]
}

/** Something that was made, by its ULID. */
export interface Made {
  ulid: string
}

/** A named place of a clip, or a stretch of it. Ticks from its first frame. */
export interface Marker {
  ulid: string
  kind: 'file' | 'person'
  in_ticks: number
  out_ticks: number | null
  name: string
  note: string
  by: string | null
  about: 'picture' | 'sound' | 'acting' | 'continuity' | 'effects' | 'music' | null
}

/** One person's in and out on a clip. */
export interface Marks {
  in_ticks: number | null
  out_ticks: number | null
}

/** What whoever asks may do in a production. */
export interface May {
  work: boolean
  organise: boolean
  review: boolean
  accept: boolean
  manage: boolean
}

/** Somebody of a production. */
export interface Member {
  ulid: string
  name: string
  email: string
  role: 'assistant' | 'editor' | 'reviewer' | 'admin'
  is_desk_admin: boolean
  has_second_factor: boolean
  must_use_second_factor: boolean
  must_change_password: boolean
  sessions: number
  is_you: boolean
}

/** The server's clock, milliseconds since 1970. */
export interface Moment {
  now_ms: number
}

/** How many were not in the bin yet. */
export interface Moved {
  moved: number
}

/** Names that a pattern would give. */
export interface Names {
  names: GivenName[]
  total: number
  changes: number
  bad: number
}

/** A new password, told once. */
export interface NewPassword {
  password: string
}

/** More of the cells that a file of notes left out. */
export interface NoteFaults {
  faults: { row: number; column: string; what: string; why: string }[]
}

/** A file of notes on its way into the log. */
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
  sheets: string[]
  sheet: number
  others: string[]
}

/** What a file of notes would do. */
export interface NoteReport {
  rows: number
  made: number
  joined: number
  counts: Record<'new' | 'same' | 'different' | 'unmatched', number>
  samples: Record<'new' | 'same' | 'different' | 'unmatched', NoteSample[]>
  fault_count: number
  faults: { row: number; column: string; what: string; why: string }[]
  corrects: string | null
  left: number
}

/** A row of a file of notes, and what it would change. */
export interface NoteSample {
  row: number
  slate: string
  take: string | null
  why: string
  fields: { field: string; was: string | boolean; said: string | boolean; becomes: string | boolean | null }[]
}

/** The cards that are copied now, and those of which something has to be asked. */
export interface OffloadAll {
  started: string[]
  asked: { name: string; why: string }[]
}

/** Something that wants a person, where it is, and what mends it. */
export interface OpenPoint {
  key: string
  weight: 'fault' | 'warning'
  title: string
  evidence: string
  place: { stage: string; take?: string; clip?: string; card?: string }
  fixes: { name: string; label: string }[]
}

/** An event of a list that was opened. */
export interface OpenedEvent {
  on: string
  name: string
  reel: string | null
  source_in: string
  source_out: string
  record_in: string
  record_out: string
}

/** A list of a package, opened. */
export interface OpenedList {
  title: string
  rate: string
  events: OpenedEvent[]
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

/** A delivered package with all of its files. */
export interface Package {
  handoff: Handoff
  files: PackageFile[]
}

/** A file of a delivered package, and which clip or take it is about. */
export interface PackageFile {
  path: string
  bytes: number
  clip: string | null
  take: string | null
  label: string | null
}

/** A packing list: what would go, and what stands open about it. */
export interface PackingPlan {
  since: number | null
  clips: number
  takes: number
  bytes: number
  free_bytes: number | null
  rows: PackingRow[]
  points: GatePoint[]
  columns: string[]
}

/** A folder of a package that is planned: what, how much, and what of it is new since what was accepted. */
export interface PackingRow {
  folder: string
  what: string
  new: number
  changed: number
  moved: number
  count: number
  bytes: number
  names: string[]
}

/** A paragraph of what is said. Ticks from the recording's start. */
export interface Passage {
  ulid: string
  start_ticks: number
  end_ticks: number
  speaker: string | null
  draft: boolean
  words: (string | number | null)[][]
  by: string | null
  edited_at: string | null
}

/** Patterns, in their order. */
export interface Patterns {
  patterns: string[]
}

/** Where nobody speaks in a clip, and what lies between; ticks of the clip that is looked at. */
export interface Pauses {
  pauses: Stretch[]
  speech: Stretch[]
  floor_db: number
}

/** The people of a production. */
export interface People {
  people: Member[]
}

/** Whoever is signed in. */
export interface Person {
  ulid: string
  name: string
  email: string
  initials: string
  role: 'assistant' | 'editor' | 'reviewer' | 'admin'
  needs: 'password' | 'second_factor' | null
  has_second_factor: boolean
  recovery_codes_left: number
  own_keys: Record<string, string[]>
  panels: Record<string, number>
}

/**
 * A stretch of picture that plays. Ticks: `at` on the playlist's clock, `in` from the clip's first frame; `clip` is
 * its whole length.
 */
export interface PicturePiece {
  clip: string
  take: string | null
  name: string
  at_ticks: number
  duration_ticks: number
  in_ticks: number
  start_ticks: number | null
  clip_ticks: number
  frames: number | null
  rate: Rate
  media_version: string
  look: ClipLook | null
}

/** Where in a cut the last of some new pieces ends, and the step that put them there. */
export interface PiecesAdded {
  end_ticks: number
  step: SequenceStep | null
  rate: string
  other_rates: string[]
}

/** Where a card would land below each store. */
export interface Place {
  path: string
}

/** Where a clip lies now, on the clock of the day. */
export interface PlaceMade {
  start_ticks: number | null
}

/** A clip on the clock of the day. Ticks. */
export interface Placed {
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
  second_against: string | null
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
  laid_by: 'timecode' | 'date' | 'order' | null
}

/**
 * What of a sequence or a clip plays when: pieces of picture and pieces of sound on one clock, and the recordings
 * that the sound lies
in, so that any of their channels can be heard. Ticks; `start_ticks` is the first label.
 */
export interface Playlist {
  sequence: string | null
  step: number
  name: string
  rate: Rate
  start_ticks: number
  duration_ticks: number
  pictures: PicturePiece[]
  sounds: SoundPiece[]
  own_sounds: SoundPiece[]
  beside_sounds: SoundPiece[]
  recordings: Recording[]
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
  is_library: boolean
}

/** A frame rate: exact fraction, whole frames that are counted, drop frame, name. */
export interface Rate {
  num: number
  den: number
  nominal: number
  drop: boolean
  name: string
}

/** A line as it was said in one take, or words that nobody wrote. Ticks of the clip. */
export interface Read {
  take: string
  label: string
  status: string | null
  day: string
  clip: string
  start_ticks: number
  end_ticks: number
  text: string
  order: number | null
  share: number | null
}

/** A day of the shoot, for programs of others. */
export interface ReadDay {
  ulid: string
  number: number
  date: string
}

/** What lies in a package. */
export interface ReadFiles {
  files: PackageFile[]
}

/** Hand-offs, the newest first, for programs of others. */
export interface ReadHandoffs {
  handoffs: Handoff[]
}

/** A production, for programs of others. */
export interface ReadProduction {
  ulid: string
  name: string
  rate: string
  days: ReadDay[]
}

/** What was read as the slate of a clip. */
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

/** A take, for programs of others. */
export interface ReadTake {
  ulid: string
  slate: string
  scene: string
  setup: string
  take: number
  part: string
  status: string
  description: string
  notes: string | null
  marks: string[]
  clips: string[]
}

/** Takes of a day in slate order, so many from one on. */
export interface ReadTakes {
  total: number
  from: number
  takes: ReadTake[]
}

/** What was otherwise when a reel was built again. */
export interface Rebuilt {
  changed: string | null
}

/** How much of a file is here; bytes. */
export interface Received {
  received_bytes: number
}

/** An event of a list that came back: what it shows, where, and what it was linked to and why, or why not. */
export interface ReceivedEvent {
  track: number
  index: number
  on: string
  kind: 'picture' | 'sound'
  name: string
  reel: string | null
  source_in: string
  source_out: string
  record_in: string
  record_out: string
  at_ticks: number
  way: 'own' | 'hash' | 'timecode' | 'name' | 'hand' | 'none'
  reason: string
  place: string
  clip: string | null
  clip_name: string | null
  slates: string | null
  in_ticks: number | null
}

/** A list that came back from the editing team, in a list of such. */
export interface ReceivedList {
  ulid: string
  name: string
  file: string
  format: 'edl' | 'otio' | 'aaf'
  linked: number
  total: number
  by: string | null
  at: string | null
}

/** The lists that came back, newest first. */
export interface ReceivedLists {
  lists: ReceivedList[]
}

/** A recording whose channels can be heard, each by itself. */
export interface Recording {
  clip: string
  name: string
  kind: 'picture' | 'sound'
  channels: { index: number; name: string }[]
}

/** Codes that get somebody in who lost their second factor; each once. */
export interface RecoveryCodes {
  recovery_codes: string[]
}

/** A reel as the dark room shows it. */
export interface Reel {
  ulid: string
  name: string
  words: string
  together: boolean
  day: string | null
  step: number
  items: ReelItem[]
  left_out: LeftOut[]
}

/** A picture of a piece of a reel: from where to where it shows the take. Ticks from its first frame. */
export interface ReelAngle {
  clip: string
  name: string
  device: string | null
  device_note: string | null
  start_ticks: number | null
  at_ticks: number
  in_ticks: number
  out_ticks: number
  duration_ticks: number
  frames: number | null
  media_version: string
  rate: Rate
  look: ClipLook | null
}

/** A reel as a file: being written, or there. Bytes. */
export interface ReelExport {
  task: string
  state: 'waiting' | 'running' | 'done' | 'failed' | 'cancelled'
  done: number
  total: number
  now: string
  message: string
  bytes: number
  proxies: string[]
  tracks: { part: string; name: string }[]
  ended_at: string | null
}

/** The files of a reel, the newest first. */
export interface ReelExports {
  exports: ReelExport[]
}

/**
 * One piece of a reel: a take, the pictures that show it, and what was said of it. Ticks from the first
frame of
 * `clip`, but for `at`, which is of the reel's clock.
 */
export interface ReelItem {
  position: number
  clip: string
  at_ticks: number
  in_ticks: number
  out_ticks: number
  slate_ticks: number | null
  action_ticks: number
  take: ReelTake
  angles: ReelAngle[]
  notes: ReelNote[]
  markers: ReelMarker[]
}

/** What a recipe would make now. */
export interface ReelLook {
  takes: number
  running_ticks: number
  slates: string[]
}

/** A marker that a piece of a reel carries with it, on one of its pictures. Ticks from that clip's first frame. */
export interface ReelMarker {
  ulid: string
  clip: string
  in_ticks: number
  out_ticks: number | null
  name: string
}

/**
 * What somebody said while watching a take, at the frame they saw or over a stretch. Ticks from the clip's first
 * frame.
 */
export interface ReelNote {
  ulid: string
  by: string
  mine: boolean
  text: string
  at_ticks: number
  out_ticks: number | null
  clip: string | null
  timecode: string | null
  at: string | null
}

/** How much one person said of the takes of a reel; stars on the mean. */
export interface ReelPerson {
  name: string
  notes: number
  rated: number
  stars: number | null
}

/** The stars of one person. */
export interface ReelRating {
  by: string
  mine: boolean
  stars: number
}

/** A note that came with a take: from the script supervisor's notes, or from the recorder. */
export interface ReelSaid {
  by: string
  place: string
  text: string
}

/** A reel in the list of its day. */
export interface ReelSummary {
  ulid: string
  name: string
  words: string
  of: string
  shows: string
  running_ticks: number
  made_at: string | null
  first_clip: string | null
  changed: string | null
  changed_at: string | null
  links: number
}

/** What was said of the takes of a reel: summed up by person, and take by take in the reel's order. */
export interface ReelSummaryOfNotes {
  people: ReelPerson[]
  takes: SaidTake[]
}

/** The take that a piece of a reel shows, and what is known of it beside the notes of screenings. */
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
  said: ReelSaid[]
  ratings: ReelRating[]
}

/** The reels of a day, newest first. */
export interface Reels {
  reels: ReelSummary[]
}

/** What was looked at of a copy before its card was released. */
export interface ReleasedCopy {
  store: string
  path: string
  manifest: string | null
  c4: string | null
  checked_at: string | null
  device: number | null
  files: number | null
  size_bytes: number | null
  sample: { path: string; bytes: number; from: 'medium' | 'cache' }[] | null
}

/** Where a room is that others follow; `epoch_ms` and `now_ms` are of the server's clock. */
export interface Room {
  open: boolean
  number: number
  at_ticks: number
  speed: number
  epoch_ms: number
  now_ms: number
  shows: string
}

/** The take that a row belongs to, as lists show it. */
export interface RowTake {
  ulid: string
  scene: string
  setup: string
  take: number
  part: string
  status: 'none' | 'circled' | 'hold' | 'ng'
  description: string
  size: string
  fields: Record<string, string>
}

/** Something that a rule can ask about, and how each question is said. */
export interface RuleSubject {
  key: string
  label: string
  type: 'choice' | 'slate' | 'text' | 'number' | 'length' | 'date' | 'yes_no' | 'holder'
  tests: { test: string; phrase: string; values: boolean; several: boolean }[]
  choices: { value: string; word: string }[]
}

/** Everything that a rule can ask about. */
export interface RuleSubjects {
  subjects: RuleSubject[]
}

/** Where a run left a clip. */
export interface RunPlace {
  start_ticks: number | null
  way: string | null
  sure: boolean
  locked: boolean
  reason: string | null
}

/** A clip that one run placed otherwise than another. */
export interface RunRow {
  clip: string
  name: string
  device: string | null
  before: RunPlace | null
  after: RunPlace | null
  moved_ticks: number | null
}

/** What two runs placed otherwise. */
export interface RunRows {
  rows: RunRow[]
}

/** The runs of a day, newest first. */
export interface Runs {
  runs: LineupRun[]
}

/** What was said of one take. */
export interface SaidTake {
  ulid: string
  label: string
  status: 'none' | 'circled' | 'hold' | 'ng'
  description: string
  ratings: ReelRating[]
  notes: ReelNote[]
}

/** A scene's script joined to its takes. */
export interface SceneReads {
  scene: string
  heading: string
  scenes: string[]
  lines: ScriptLine[]
  unwritten: Read[]
  takes: number
  unheard: string[]
}

/** A scene as the script has it. */
export interface SceneText {
  scene: string
  heading: string
  text: string | null
}

/** The scenes of the day, by name. */
export interface Scenes {
  scenes: Record<string, SheetScene>
}

/** A line of the script with all its reads, in the order of slates. */
export interface ScriptLine {
  number: number
  character: string
  text: string
  reads: Read[]
}

/** What a script would change. */
export interface ScriptReport {
  scenes: number
  new: string[]
  gone: string[]
  changed: string[]
  pages: string
}

/**
 * Something that was found, and where it is: the clip that is shown for it and the moment in it, in ticks from its
 * first frame.
 */
export interface SearchHit {
  what: 'take' | 'clip' | 'marker' | 'spoken' | 'subclip' | 'sequence' | 'bin'
  ulid: string
  name: string
  note: string
  at_ticks: number | null
  take: { setup: string; take: number; part: string; status: 'none' | 'circled' | 'hold' | 'ng' } | null
  clip: string | null
  kind: string | null
  ready: boolean
  device: string | null
  day: string | null
  number: number | null
}

/** What was found by some words. */
export interface SearchResult {
  meant: string | null
  hits: SearchHit[]
}

/** A new second factor, to be set up in an authenticator. */
export interface SecondFactor {
  secret: string
  address: string
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

/** The step that an edit made; none where it changed nothing. */
export interface SequenceEdited {
  step: SequenceStep | null
}

/** Who did what to a cut, the newest first. */
export interface SequenceHistory {
  steps: SequenceHistoryStep[]
}

/** One step of a cut, and whether it was taken back. */
export interface SequenceHistoryStep {
  number: number
  label: string
  by: string | null
  at: string | null
  undone: boolean
}

/** A change of a cut: what it is called, and what it made otherwise, as the operation `restore` says it. */
export interface SequenceStep {
  number: number
  label: string
  change: Record<string, unknown>
}

/** Steps one after the other; null where there are more than a page follows, which then reads the whole anew. */
export interface SequenceSteps {
  steps: SequenceStep[] | null
}

/** A state of a cut that somebody gave a name. */
export interface SequenceVersion {
  ulid: string
  name: string
  step: number
  by: string | null
  made_at: string | null
}

/** A browser in which a person is signed in. */
export interface SessionRow {
  id: string
  address: string | null
  browser: string
  last_at: string
  is_this: boolean
}

/** Who is signed in, if anybody, and the productions they belong to. */
export interface SessionState {
  user: Person | null
  productions: { ulid: string; name: string }[]
}

/** Where a person is signed in. */
export interface Sessions {
  sessions: SessionRow[]
}

/** How many disagreements were settled. */
export interface Settled {
  settled: number
}

/** A scene of the day: what the script says of it, and what was shot. */
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

/** A secret that is shown this once. */
export interface ShownSecret {
  secret: string
}

/** What would be read as slates, and by which patterns. */
export interface SlatePreview {
  clips: ReadSlate[]
  patterns: string[] | null
}

/** The take that a clip is of now. */
export interface SlateSet {
  take: string | null
}

/** The takes of a day, and the clips of none. */
export interface SlateSheet {
  takes: TakeRow[]
  unslated: LogClip[]
}

/** What came of reading the slates: clips by where their slate was read, those that say none, and new takes. */
export interface SlatesRead {
  read: number
  from_recorder: number
  from_names: number
  silent: number
  takes: number
}

/**
 * A stretch of sound that is heard under the pictures. Ticks: `at` on the playlist's clock, `in` from the
 * recording's start.
 */
export interface SoundPiece {
  clip: string
  take: string | null
  name: string
  at_ticks: number
  duration_ticks: number
  in_ticks: number
  channels: { index: number; gain_db: number }[]
  drift_ppm: number
  fade_in_ticks: number
  fade_out_ticks: number
  track: number | null
  gain_db: number
  media_version: string
}

/** How many channels got a name of their own. */
export interface Split {
  made: number
}

/** Where a long recording would be split. */
export interface SplitPlan {
  spans: SplitSpan[]
}

/** A stretch of a long recording, ticks from its first frame. */
export interface SplitSpan {
  from: number
  to: number
  slate: string | null
}

/** The takes that a recording was split into, by their ULIDs. */
export interface SplitTakes {
  takes: string[]
}

/** What was found in all that is said. */
export interface SpokenFound {
  meant: string | null
  speakers: string[]
  is_any: boolean
  more: boolean
  hits: SpokenHit[]
}

/** A passage in which something was found. Ticks from the clip's start. */
export interface SpokenHit {
  passage: string
  clip: string
  name: string
  kind: string
  device: string | null
  ready: boolean
  day: string
  day_number: number
  take: { ulid: string; setup: string; take: number; part: string; status: 'none' | 'circled' | 'hold' | 'ng' } | null
  start_ticks: number
  end_ticks: number
  at_ticks: number
  speaker: string | null
  draft: boolean
  words: string[]
  found: number[]
}

/** A place for copies, as it is now. */
export interface Store {
  key: string
  name: string
  free_bytes: number | null
  is_there: boolean
  device: number | null
}

/** A place for copies, as the set-up shows it. */
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

/** The places for copies. */
export interface Stores {
  stores: StoreSetting[]
}

/** A clip without a place, why, and what can be done. */
export interface Stray {
  clip: string
  name: string
  device: string | null
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
  reason: string
  is_false_start: boolean
  steps: ('back' | 'lineup' | 'clap' | 'hand' | 'false_start' | 'out' | 'wild')[]
}

/** A stretch of a clip; ticks from its first frame, the end exclusive. */
export interface Stretch {
  in_ticks: number
  out_ticks: number
}

/** A string-out that was laid, and what could not be laid in it. */
export interface StringOut {
  ulid: string
  name: string
  left: string[]
}

/**
 * A stretch of a clip, some of its channels, or both, that has a name. Ticks from its first frame; null is all of
 * it.
 */
export interface Subclip {
  ulid: string
  name: string
  in_ticks: number | null
  out_ticks: number | null
  channels: number[] | null
  handle_ticks: number
}

/** Counts for the tabs of the spine. */
export interface Tabs {
  open: number
  by_stage: Record<string, number>
  cards: { safe: number; all: number }
  takes: number
  placed: number
  to_place: number
  handoff: string | null
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

/** The steps of a take, newest first. */
export interface TakeHistory {
  steps: TakeStep[]
}

/** A marker of one of a take's clips. Ticks from the clip's first frame. */
export interface TakeMarker {
  ulid: string
  clip: string
  clip_name: string
  device: string | null
  in_ticks: number
  out_ticks: number | null
  timecode: string | null
  name: string
  note: string
  by: string | null
}

/** The markers that a take carries. */
export interface TakeMarkers {
  markers: TakeMarker[]
}

/** A take as the sheet shows it; fields that the production added stand beside the others under their own keys. */
export interface TakeRow {
  ulid: string
  scene: string
  setup: string
  take: number
  part: string
  name: string
  description: string
  size: string
  width: number
  status: 'none' | 'circled' | 'hold' | 'ng'
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
  said_by: string | null
  screening: string
  clips: LogClip[]
  sync: string
  [own: `own:${string}`]: string | boolean | undefined
}

/** A step in the history of a take. */
export interface TakeStep {
  at: string
  by: string
  label: string
  undone: boolean
  fields: { field: string; from: string; to: string }[]
}

/** Some rows of the sheet. */
export interface Takes {
  takes: TakeRow[]
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
  done_per_minute: number | null
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

/** What runs, waits, failed, and ended today. */
export interface Tasks {
  tasks: Task[]
}

/** By what template cards land. */
export interface Template {
  template: string
}

/** The tracks of new cuts, and what a track can be for. */
export interface TrackPlan {
  tracks: { kind: 'picture' | 'sound'; name: string; role: string }[]
  is_own: boolean
  roles: Record<string, string>
}

/** What the log line did. */
export interface Typed {
  take: string
  slate: string
  made: boolean
}

/** What the log line would do. */
export interface Understood {
  pieces: { is: 'slate' | 'size' | 'status' | 'mark' | 'keyword' | 'note' | 'happens'; says: string }[]
  problems: string[]
  hints: string[]
  slate: string | null
  does: 'nothing' | 'joins' | 'joins-new' | 'makes' | 'edits'
}

/** What was taken back or done again, and what of it stayed as others left it. */
export interface Undone {
  label: string | null
  stayed: string[]
  stayed_count: number
  topics: string[]
  sequence: string | null
  step: SequenceStep | null
}

/** A volume in a reader: what is on it, and what is known of it. */
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

/** The first or last clip of a volume. */
export interface VolumeClip {
  name: string
  at: string | null
}

/** A volume in a reader, with its files. */
export interface VolumeDetail {
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
  list: { path: string; size_bytes: number; kind: string | null; is_new: boolean }[]
}

/** An open point that went along as it is, and why. */
export interface Waived {
  day: string
  point: string
  title: string
  reason: string
  by: string
  at: string
}

/** The cameras of an event as the wall shows them, by their lanes; ticks from the event's first frame. */
export interface Wall {
  ulid: string
  name: string
  start_ticks: number
  length_ticks: number
  rate: Rate
  angles: WallAngle[]
  sounds: string[]
}

/** One camera on the wall: its clips on the event's clock. */
export interface WallAngle {
  letter: string
  note: string
  has_sound: boolean
  pictures: PicturePiece[]
}

/** An address that is told what becomes of hand-offs. */
export interface WebHook {
  ulid: string
  url: string
  events: ('delivered' | 'accepted' | 'asked')[]
  told_at: string | null
  trouble: string | null
}

/** How many clips went back to a run, and how many a person's decision holds. */
export interface WentBack {
  moved: number
  kept: number
}

/**
 * Words that are heard in a clip: of the clip itself, or of a recording under it. Ticks are the recording's own.
 */
export interface WordSource {
  clip: string
  name: string
  offset_ticks: number
  from_ticks: number
  to_ticks: number
  language: string
  source: 'recognised' | 'service' | 'cues' | 'text'
  engine: string
  model: string
  by: string | null
  at: string | null
  calls: Calls
  passages: Passage[]
}

/** What was done to the words of a clip, newest first. */
export interface WordsHistory {
  steps: WordsStep[]
}

/** A text that was brought, or a task that finds words. */
export interface WordsStarted {
  task: string | null
  words: number
  problems: string[]
}

/** A step that somebody took on the words of a clip. */
export interface WordsStep {
  label: string
  by: string
  at: string | null
  undone: boolean
}

/** What an open page is told has changed. */
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
  | 'spoken'
  | 'patterns'
  | 'looks'
  | 'here'
  | 'settings'
