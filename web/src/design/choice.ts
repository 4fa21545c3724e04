/**
 * What is selected and what the hand is doing: kept in the browser, never in the document.
 *
 * A selected thing is its document path without the first slash; one module adds "#number".
 */
import { create } from 'zustand'

/** A place that is being picked: in plan aft and across, in side aft and up. */
export interface Picking {
  path: string
  name: string
  at: [number | null, number | null, number | null]
}

export interface Offset {
  path: string
  by: [number, number, number]
}

export type Shows = 'drawing' | 'fit' | 'walk'

interface Choice {
  selected: string | null
  /** How it was found under the pointer: "2 of 3 here: module 5". */
  found: string
  finding: string | null
  offset: Offset | null
  taping: string[] | null
  /** The three blanks for its place stand open at the selected box. */
  placing: boolean
  /** The working of the chosen finding is shown. */
  working: boolean
  picking: Picking | null
  /** What the Place station shows: the drawing, the fit study, or a walk round the car. */
  shows: Shows
  show: (shows: Shows) => void
  select: (path: string | null, found?: string) => void
  choose: (finding: string, path: string | null) => void
  climb: () => void
  move: (offset: Offset | null) => void
  tape: (ends: string[] | null) => void
  place: (open: boolean) => void
  showWorking: (open: boolean) => void
  pick: (picking: Picking | null) => void
}

export const useChoice = create<Choice>((set, get) => ({
  selected: null,
  found: '',
  finding: null,
  offset: null,
  taping: null,
  placing: false,
  working: false,
  picking: null,
  shows: 'drawing',
  show: (shows) => set({ shows }),
  select: (path, found = '') => set({ selected: path, found, finding: null, placing: false }),
  choose: (finding, path) => set({ finding, selected: path, found: '', placing: false, working: false }),
  climb: () => {
    const { selected, taping, placing, picking } = get()
    if (picking) set({ picking: null })
    else if (placing) set({ placing: false })
    else if (taping) set({ taping: null })
    else set({ selected: selected ? above(selected) : null, finding: null, found: '' })
  },
  move: (offset) => set({ offset }),
  tape: (ends) => set({ taping: ends }),
  place: (open) => set({ placing: open }),
  showWorking: (open) => set({ working: open }),
  pick: (picking) => set({ picking }),
}))

/** Module, block, box, nothing. */
export function above(path: string): string | null {
  if (path.includes('#')) return path.slice(0, path.indexOf('#'))
  const steps = path.split('/')
  return steps.length > 2 ? steps.slice(0, -2).join('/') : null
}

/** Whether what a path names was there and is no more: a thing that was removed is no longer selected. */
export function isGone(path: string, document: object): boolean {
  const [collection = '', id] = path.split('#')[0]?.split('/') ?? []
  const things = (document as Record<string, unknown>)[collection]
  return id !== undefined && typeof things === 'object' && things !== null && !(id in things)
}

/** The box a path lies in, if it is one. */
export function boxOf(path: string | null): string | null {
  return path?.startsWith('boxes/') ? (path.split('/')[1]?.split('#')[0] ?? null) : null
}
