/**
 * What was done and is not stored yet. Every edit is written down in this browser before it is sent, and struck off once it is answered:
 * a server that is away, a reload or a closed tab lose nothing. Sent again it carries the same key, under which it is stored once.
 */
import { create } from 'zustand'

import type { Figure } from './figure'
import { patched } from './pointer'
import type { Document, Op } from './types'

export interface Row {
  /** Sorted by it they stand in the order in which they were made. */
  key: string
  project: string
  /** The revision that stood before the eyes of whoever made it. */
  seen: number
  message: string
  patch: Op[]
  figure?: Figure
  /** It could not be sent when it was made. */
  waits?: boolean
  /** Why the server did not take it. */
  refused?: string
}

const PREFIX = 'level-cradle-waiting/'

/** Everything that was written down, oldest first; a row that is no JSON was not written by us. */
function written(): Row[] {
  const keys = Object.keys(localStorage).filter((key) => key.startsWith(PREFIX))
  return keys.sort().flatMap((key) => {
    try {
      return [JSON.parse(localStorage.getItem(key) ?? '') as Row]
    } catch {
      return []
    }
  })
}

interface Outbox {
  rows: readonly Row[]
}

/** What an earlier page left has not been answered to this one: it waits. */
export const useOutbox = create<Outbox>(() => ({ rows: written().map((row) => ({ ...row, waits: true })) }))

// what other tabs write down is seen here too
window.addEventListener('storage', (event) => {
  if (event.key?.startsWith(PREFIX)) useOutbox.setState({ rows: written() })
})

let made = 0

/** A key of its own, later than all before. */
export function newKey(): string {
  made += 1
  const count = String(made).padStart(6, '0')
  return `${Date.now()}-${count}-${Math.random().toString(36).slice(2, 10).padEnd(8, '0')}`
}

export function put(row: Row) {
  useOutbox.setState(({ rows }) => ({ rows: [...rows.filter((r) => r.key !== row.key), row].sort(byKey) }))
  try {
    localStorage.setItem(PREFIX + row.key, JSON.stringify(row))
  } catch {
    // the browser keeps nothing more: the row stays with this page
  }
}

const byKey = (a: Row, b: Row) => (a.key < b.key ? -1 : 1)

export function strike(key: string) {
  useOutbox.setState(({ rows }) => ({ rows: rows.filter((row) => row.key !== key) }))
  localStorage.removeItem(PREFIX + key)
}

/** What waits for the server, and what it did not take, of a car. */
export function waitingOf(project: string, rows = useOutbox.getState().rows): Row[] {
  return rows.filter((row) => row.project === project && row.waits)
}

/** The document with what waits: figures that nobody has read yet stand in their blanks alone. */
export function withWaiting(project: string, document: Document): Document {
  return waitingOf(project)
    .filter((row) => !row.refused)
    .reduce((tree, row) => {
      try {
        return patched(tree, row.patch)
      } catch {
        return tree // it speaks of what is not there any more; the server will say so
      }
    }, document)
}

/** Whether just this text is on its way to a figure, or waits to be: it is not sent again by who comes back to its blank. */
export function isOnItsWay(project: string, path: string, text: string): boolean {
  return useOutbox
    .getState()
    .rows.some(
      (row) =>
        row.project === project && !row.refused && row.figure?.path === path && row.figure.text === text,
    )
}

/** What waits for a figure or name of the document. */
export function waitingAt(project: string, path: string, rows: readonly Row[]): Row | undefined {
  return waitingOf(project, [...rows])
    .filter((row) => (row.figure ? row.figure.path === path : row.patch.some((op) => op.path === path)))
    .at(-1)
}
