/** The state of a finding: a shape of its own and a word, never colour alone. */
import type { State } from '../design/types'

export const WORD: Record<State, string> = {
  clear: 'clear',
  tight: 'tight',
  foul: 'foul',
  unknown: 'not known',
  note: 'note',
}

const COLOUR: Record<State, string> = {
  clear: 'var(--color-clear)',
  tight: 'var(--color-tight)',
  foul: 'var(--color-foul)',
  unknown: 'var(--color-soft)',
  note: 'var(--color-soft)',
}

export function colourOf(state: State): string {
  return COLOUR[state]
}

/** The bare shape, for use inside another SVG. */
export function MarkShape({ state, inverse = false }: { state: State; inverse?: boolean }) {
  const colour = inverse ? '#fff' : COLOUR[state]
  const paper = inverse ? 'var(--color-blue)' : '#fff'
  if (state === 'foul') return <path d="M0,-6 L6.5,5.5 L-6.5,5.5Z" fill={colour} />
  if (state === 'tight')
    return <path d="M0,-5.6 L5.6,0 L0,5.6 L-5.6,0Z" fill={paper} stroke={colour} strokeWidth="2.2" />
  if (state === 'clear') return <circle r="5" fill={paper} stroke={colour} strokeWidth="2.2" />
  if (state === 'unknown')
    return (
      <path d="M-5,-5 H5 V5 H-5Z" fill={paper} stroke={colour} strokeWidth="1.8" strokeDasharray="2.4 1.8" />
    )
  return <path d="M-6,0 H6" stroke={colour} strokeWidth="2.2" />
}

export function Mark({
  state,
  inverse = false,
  silent = false,
}: {
  state: State
  inverse?: boolean
  silent?: boolean
}) {
  return (
    <svg
      width="16"
      height="16"
      viewBox="-8 -8 16 16"
      className="inline-block shrink-0"
      role={silent ? 'presentation' : 'img'}
      aria-label={silent ? undefined : WORD[state]}
    >
      <MarkShape state={state} inverse={inverse} />
    </svg>
  )
}
