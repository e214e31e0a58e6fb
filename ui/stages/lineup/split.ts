/**
 * The slates of stretches: what is known of them, else counted up from the first that a person wrote (`12A/1`,
 * `12A/2`); empty where neither says anything.
 */
export function countUp(known: (string | null)[], first: string): string[] {
  const match = /^(.*?)(\d+)([a-z]?)$/.exec(first)
  let next = match === null ? 0 : Number(match[2])
  return known.map((slate) => {
    if (first === '') return slate ?? ''
    if (match === null) return ''
    return `${match[1]}${next++}${match[3]}`
  })
}
