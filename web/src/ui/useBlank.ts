/**
 * One figure of the document as it is typed: what stands there, what the core understands of the draft, how it is taken, kept and
 * refused. Enter or Tab take it, Esc restores. How it looks is Blank's.
 */
import { type KeyboardEvent, useEffect, useRef, useState } from 'react'

import { isAway, Refused, wordsOf } from '../design/api'
import {
  asText,
  type Figure,
  type Hook,
  type Into,
  type QuantityKind,
  Unusual,
  wayOf,
} from '../design/figure'
import { holdAgain, useHeld } from '../design/instruments'
import { toldBy, useDocument, useLive, useLoaded } from '../design/live'
import { isOnItsWay, useOutbox, waitingAt } from '../design/outbox'
import { at, pointer } from '../design/pointer'
import { readFigure } from '../design/queries'
import { keepTyped, type Typed, typedAt } from '../design/typed'
import type { Op, Reading } from '../design/types'
import { length } from './format'
import { goOn, kept, unlessTyped, useTakenOnce } from './useTakenOnce'
import { useUnits } from './units'

interface Draft extends Typed {
  value: number | null
  problem: string
  moves?: boolean
  /** Typed before the page was loaded anew. */
  found?: boolean
}

export interface Asked {
  path: string
  label: string
  kind?: QuantityKind
  /** Reference point the tape is hooked on: its id and place. */
  from?: Hook
  /** Figures beside this one: a value over three times the largest asks once. */
  neighbours?: number[]
  /** May be emptied. */
  optional?: boolean
  /** What a screen reader says, where the label alone would not tell it from others. */
  name?: string
  /** Where it goes, if it is no figure of its own in the document. */
  into?: Into
  whole?: boolean
  /** The figure to show where it does not stand at the path. */
  figure?: number | null
  /** Where Enter goes next. */
  onTaken?: (input: HTMLInputElement) => void
  list?: 'survey' | 'stock' | 'place'
}

export function useBlank(props: Asked) {
  const { path, label, kind = 'length', from = null, neighbours = [], optional = false } = props
  const document = useDocument()
  const { project, revision } = useLoaded()
  const edit = useLive((s) => s.edit)
  const enter = useLive((s) => s.enter)
  const again = useLive((s) => s.again)
  const units = useUnits(props.list)
  const row = useOutbox((s) => waitingAt(project, path, s.rows))
  const [draft, setDraft] = useState<Draft | null>(() => foundAt(project, path))
  const asked = useRef('')
  const held = useRef<{ text: string; source: string } | null>(null)
  const latest = useRef(0)
  const own = props.figure === undefined
  const value = own ? (at(document, path) as number | null | undefined) : props.figure
  const noted = document.readings[path] as Reading | undefined
  const reading = own ? noted : undefined
  const unit = kind === 'length' ? units.length : kind === 'mass' ? units.mass : ''
  const way = kind === 'length' ? wayOf(path) : null
  const taken = noted?.basis !== 'not taken' // of a diameter: whether the radius was
  const hook = reading && taken ? hookOf(document.references, reading.from) : from
  const asTyped = reading && (!reading.unit || !unit || reading.unit === unit)
  const written = asText(value ?? null, kind, units, way, hook?.at)
  const stored = !taken ? '' : asTyped ? reading.text : written
  const shown = row?.figure ? row.figure.text : stored

  // an edit from elsewhere ends what was typed only when nothing is being typed
  useEffect(() => setDraft((d) => (d && d.text === shown ? null : d)), [shown])

  /** What the draft becomes, unless it has been typed over by then. */
  function become(next: Draft | null) {
    setDraft(unlessTyped(draft?.text ?? '', next))
    if (!next) keepTyped(project, path, null)
  }

  function type(text: string) {
    const begun = draft ?? { seen: revision, stood: stored, value: null }
    const typed = { text, seen: begun.seen, stood: begun.stood }
    keepTyped(project, path, typed)
    setDraft({ ...typed, value: begun.value, problem: '' })
    void understand(text)
  }

  async function understand(text: string) {
    const turn = ++latest.current
    const tell = (part: Partial<Draft>) => turn === latest.current && setDraft((d) => d && { ...d, ...part })
    if (text.trim() === '') return tell({ value: null, problem: optional ? '' : 'Type a number.' })
    try {
      const found = await readFigure({ text, path, unit, base: hook?.at, now: now() })
      tell({ value: found.value, problem: '', moves: found.by })
    } catch (error) {
      tell({ value: null, problem: isAway(error) ? '' : wordsOf(error) })
    }
  }

  /** Off a tape a sign is the reading's own: 200 below the seam is -200. Elsewhere it moves what stands. */
  const now = () => (!taken || way === null || props.list === 'survey' ? null : (value ?? null))

  /** Takes what is typed; answers whether nothing is left to mend. */
  async function commit(): Promise<boolean> {
    if (!draft) return true
    const { text } = draft
    if (isOnItsWay(project, path, text) || (text === stored && !row)) {
      become(null)
      return true
    }
    if (text.trim() === '') {
      if (!optional) return false
      become(null)
      return edit(props.into?.none ?? clearing(document.readings, path))
    }
    const figure: Figure = {
      ...{ reads: 'figure', path, text, label: props.name ?? label, unit, hook, kind, now: now() },
      whole: props.whole ?? false,
      most: asked.current === text ? 0 : Math.max(0, ...neighbours.map(Math.abs)),
      into: props.into ?? null,
      how: howTaken(held.current, text),
    }
    try {
      await enter(figure, draft.seen)
      asked.current = ''
      become(null)
      return true
    } catch (error) {
      latest.current += 1 // what was understood while typing may come later than what is wrong with it
      if (error instanceof Unusual) asked.current = text
      const problem = toldBy(error, figure)
      if (error instanceof Refused && error.problem.status === 412) {
        const seen = useLive.getState().loaded?.revision ?? draft.seen // now that it is seen
        become({ ...draft, seen, problem: `${problem} Enter again puts yours.` })
      } else become({ ...draft, problem })
      return false
    }
  }

  const take = useTakenOnce(commit, draft?.text ?? null)

  function keys(event: KeyboardEvent<HTMLInputElement>) {
    kept(event, draft !== null)
    if (event.key === 'Enter' && event.altKey) return holdAgain()
    if (event.key === 'Enter' && !draft && row?.refused) return void again(row)
    if (event.key === 'Enter') {
      const input = event.currentTarget
      goOn(take(), input, () => props.onTaken?.(input))
    }
    if (event.key === 'Escape') {
      latest.current += 1
      if (draft) {
        setDraft(null)
        keepTyped(project, path, null)
      } else event.currentTarget.blur()
    }
  }

  /** What is held by an instrument goes into the blank that has the focus. */
  const hold = () =>
    useHeld.setState({
      put: (text, source) => {
        held.current = { text, source }
        type(text)
      },
    })

  /** What the blank answers to what is typed in it. */
  function answered({ found, moves, problem, stood, value: read }: Draft): string {
    const meanwhile = stood !== stored ? `${stored || 'Nothing'} stands here by now. ` : ''
    const understood = read === null ? '' : `${moves ? 'moved to ' : ''}${echo(read, kind, units)}`
    return problem || `${found ? 'Not saved yet. ' : ''}${meanwhile}${understood}`
  }

  return {
    ...{ text: draft?.text ?? shown, unit, units, value, way, hook, reading, row, take, type, keys, hold },
    /** Whether anybody took the figure; otherwise it only stands so that something can be drawn. */
    taken,
    asTyped,
    wrong: Boolean(draft?.problem),
    answer: draft && answered(draft),
    isStored: !draft && !row,
  }
}

type References = ReturnType<typeof useDocument>['references']

function hookOf(references: References, id: string | null | undefined): Hook {
  const found = id ? references[id] : undefined
  return id && found ? { id, at: found.at_mm as [number, number, number] } : null
}

/** What was being typed here when the page went. */
function foundAt(project: string, path: string): Draft | null {
  const typed = typedAt(project, path)
  return typed && { ...typed, value: null, problem: '', found: true }
}

/** Typed by hand, or held from an instrument, and when. */
export function howTaken(held: { text: string; source: string } | null, text: string): object {
  if (held?.text !== text) return { basis: 'typed' }
  return { basis: 'measured', source: held.source, when: new Date().toISOString().slice(0, 16) }
}

/** What was understood, in both units where that helps. */
function echo(value: number, kind: QuantityKind, units: { length: 'mm' | 'in'; mass: 'kg' | 'lb' }): string {
  if (kind === 'length') return `${length(value, 'mm')} mm · ${length(value, 'in')}`
  if (kind === 'mass') return `${asText(value, kind, units, null)} ${units.mass}`
  return String(Math.round(value * 1000) / 1000)
}

function clearing(readings: Record<string, unknown>, path: string): Op[] {
  const gone: Op[] = path in readings ? [{ op: 'remove', path: pointer('readings', path) }] : []
  return [...gone, { op: 'replace', path, value: null }]
}
