/** A piece of a scene as the script has it. */
export interface ScriptPiece {
  kind: 'speaker' | 'speech' | 'action'
  text: string
}

const SPEAKER = /^(?:@.+|\p{Lu}[\p{Lu}\d '.-]{0,38}(?:\s*\([^)]*\))?\s*\^?)$/u

/** The lines of a scene: who speaks, what they say, and what happens. */
export function scriptPieces(text: string): ScriptPiece[] {
  return text
    .split(/\n{2,}/)
    .map((block) => block.split('\n').map((line) => line.trim()))
    .flatMap((lines): ScriptPiece[] => {
      const [first, ...rest] = lines.filter((line) => line !== '')
      if (first === undefined) return []
      return rest.length > 0 && SPEAKER.test(first)
        ? [
            { kind: 'speaker', text: first.replace(/^@|\s*\^$/g, '') },
            { kind: 'speech', text: rest.join('\n') },
          ]
        : [{ kind: 'action', text: [first, ...rest].join('\n') }]
    })
}
