/** Where a reel or cut is worked on, by what it is for; what comes from one clip begins where that is shown. */
export function whereIs(
  sequence: { ulid: string; kind: string },
  params: Record<string, unknown>,
  clip?: string,
): { name: string; params: Record<string, string>; query: Record<string, string> } {
  const { ulid, kind } = sequence
  const on = params as Record<string, string>
  if (kind === 'received') return { name: 'received', params: { ...on, sequence: ulid }, query: {} }
  const [name, asked] = kind === 'reel' ? ['screening', 'reel'] : ['assembly', kind === 'angle_cut' ? 'wall' : 'cut']
  return { name, params: on, query: { [asked]: ulid, ...(clip === undefined ? {} : { clip }) } }
}
