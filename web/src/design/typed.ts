/** What is being typed into a blank, kept in this browser until it is taken or given up: a reload or the way back loses nothing. */
import { useState } from 'react'

import { useLoaded } from './live'

export interface Typed {
  text: string
  /** The revision at which it was begun, and what stood in the blank then. */
  seen: number
  stood: string
}

const keyOf = (project: string, path: string) => `level-cradle-typed/${project}${path}`

export function keepTyped(project: string, path: string, typed: Typed | null) {
  try {
    if (typed) localStorage.setItem(keyOf(project, path), JSON.stringify(typed))
    else localStorage.removeItem(keyOf(project, path))
  } catch {
    // the browser keeps nothing more
  }
}

export function typedAt(project: string, path: string): Typed | null {
  try {
    return JSON.parse(localStorage.getItem(keyOf(project, path)) ?? 'null') as Typed | null
  } catch {
    return null
  }
}

/** A text of a form, kept like that of a blank; set to what it starts with it is given up. */
export function useTyped(slot: string, start = ''): [string, (text: string) => void] {
  const { project } = useLoaded()
  const [text, setText] = useState(() => typedAt(project, slot)?.text ?? start)
  return [
    text,
    (next) => {
      setText(next)
      keepTyped(project, slot, next === start ? null : { text: next, seen: 0, stood: start })
    },
  ]
}
