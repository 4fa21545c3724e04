/**
 * A blank for one figure of the document. The core reads what is typed and says what it understood; the text is kept
 * as typed. Enter or Tab take it, Esc restores.
 */
import rules from '../design/rules.json'
import { type KeyboardEvent, useEffect, useId, useRef, useState } from 'react'

import { wordsOf } from '../design/api'
import { holdAgain, useHeld } from '../design/instruments'
import { refusal, useDocument, useLive } from '../design/live'
import { at, pointer } from '../design/pointer'
import { readFigure } from '../design/queries'
import type { Op, Reading } from '../design/types'
import { along, length, type Way } from './format'
import { Says } from './Says'
import { goOn, kept, unlessTyped, useTakenOnce } from './useTakenOnce'
import { useUnits } from './units'

export type Kind = 'length' | 'mass' | 'number' | 'angle' | 'voltage'

interface Draft {
  text: string
  value: number | null
  problem: string
  moves?: boolean
}

export interface BlankProps {
  path: string
  label: string
  kind?: Kind
  /** Reference point the tape is hooked on: its id and place. */
  from?: { id: string; at: [number, number, number] } | null
  /** Figures beside this one: a value over three times the largest asks once. */
  neighbours?: number[]
  /** May be emptied. */
  optional?: boolean
  hideLabel?: boolean
  /** What a screen reader says, where the label alone would not tell it from others. */
  name?: string
  /** Where the value is not a figure of its own in the patch: builds the patch instead. */
  patchFor?: (value: number | null) => Op[]
  whole?: boolean
  /** The figure to show where it does not stand at the path. */
  figure?: number | null
  /** Where Enter goes next. */
  onTaken?: (input: HTMLInputElement) => void
  list?: 'survey' | 'stock' | 'place'
  /** The unit stands at the head of the column. */
  bare?: boolean
}

const UNIT_WORD: Record<Kind, string> = { length: '', mass: '', number: '', angle: '°', voltage: 'V' }

export function Blank(props: BlankProps) {
  const {
    path,
    label,
    kind = 'length',
    from = null,
    neighbours = [],
    optional = false,
    hideLabel = false,
  } = props
  const document = useDocument()
  const edit = useLive((s) => s.edit)
  const units = useUnits(props.list)
  const [draft, setDraft] = useState<Draft | null>(null)
  const asked = useRef('')
  const held = useRef<{ text: string; source: string } | null>(null)
  const latest = useRef(0)
  const id = useId()
  const own = props.figure === undefined
  const value = own ? (at(document, path) as number | null | undefined) : props.figure
  const reading = own ? (document.readings[path] as Reading | undefined) : undefined
  const unit = kind === 'length' ? units.length : kind === 'mass' ? units.mass : ''
  const way = kind === 'length' ? wayOf(path) : null
  const hook = reading ? hookOf(document.references, reading.from) : from
  const asTyped = reading && (!reading.unit || !unit || reading.unit === unit)
  const written = asText(value ?? null, kind, units, way, hook?.at)
  const shown = asTyped ? reading.text : written

  // an edit from elsewhere ends what was typed only when nothing is being typed
  useEffect(() => setDraft((d) => (d && d.text === shown ? null : d)), [shown])

  async function understand(text: string) {
    const turn = ++latest.current
    if (text.trim() === '') return setDraft({ text, value: null, problem: optional ? '' : 'Type a number.' })
    setDraft((d) => ({ text, value: d?.value ?? null, problem: '' }))
    try {
      // off a tape a sign is the reading's own: 200 below the seam is -200
      const now = way === null || props.list === 'survey' ? null : value
      const found = await readFigure({ text, path, unit, base: hook?.at, now: now ?? null })
      if (turn === latest.current) setDraft({ text, value: found.value, problem: '', moves: found.by })
      return found
    } catch (error) {
      if (turn === latest.current)
        setDraft({
          text,
          value: null,
          problem: wordsOf(error),
        })
      return undefined
    }
  }

  /** Takes what is typed; answers whether nothing is left to mend. */
  async function commit(): Promise<boolean> {
    if (!draft) return true
    const become = (next: Draft | null) => setDraft(unlessTyped(draft.text, next))
    if (draft.text === shown) {
      become(null)
      return true
    }
    if (draft.text.trim() === '' && optional) {
      become(null)
      return edit(props.patchFor?.(null) ?? clearing(document.readings, path))
    }
    const found = await understand(draft.text)
    if (found === undefined) return false
    const most = Math.max(0, ...neighbours.map(Math.abs))
    if (most > 0 && Math.abs(found.value) > 3 * most && asked.current !== draft.text) {
      asked.current = draft.text
      become({
        text: draft.text,
        value: found.value,
        problem: 'Over three times its neighbours. Enter again keeps it.',
      })
      return false
    }
    const exact = props.whole ? Math.round(found.value) : found.value
    const patch = props.patchFor?.(exact) ?? [{ op: 'replace', path, value: exact } as Op]
    const keep = {
      text: found.by ? asText(exact, kind, units, way, hook?.at) : draft.text,
      unit: kind === 'length' && !found.by ? found.unit : unit,
      from: hook?.id ?? null,
      ...howTaken(held.current, draft.text),
    }
    const noted = props.patchFor || props.whole ? [] : note(document.readings, path, keep)
    if (await edit([...patch, ...noted])) {
      asked.current = ''
      become(null)
      return true
    } else {
      become({ text: draft.text, value: found.value, problem: refusal() })
      return false
    }
  }

  const take = useTakenOnce(commit, draft?.text ?? null)

  function keys(event: KeyboardEvent<HTMLInputElement>) {
    kept(event, draft !== null)
    if (event.key === 'Enter' && event.altKey) return holdAgain()
    if (event.key === 'Enter') {
      const input = event.currentTarget
      goOn(take(), input, () => props.onTaken?.(input))
    }
    if (event.key === 'Escape') {
      latest.current += 1
      if (draft) setDraft(null)
      else event.currentTarget.blur()
    }
  }

  const understood =
    draft && draft.value !== null && !draft.problem
      ? `${draft.moves ? 'moved to ' : ''}${echo(draft.value, kind, units)}`
      : ''
  return (
    <span className="relative flex items-center justify-between gap-2 py-[2px]">
      <span>
        <label htmlFor={id} className={hideLabel ? 'sr-only' : 'narrow block leading-tight'}>
          {label}
        </label>
        {!hideLabel && way !== null && typeof value === 'number' && (
          <Datum hook={hook} from={from} inVehicle={along(value, way, units.length)} />
        )}
        {reading && !asTyped && (
          <span className="narrow block text-xs text-soft">
            typed {reading.text} {/mm|cm|in|ft|kg|lb|['"]/i.test(reading.text) ? '' : reading.unit}
          </span>
        )}
      </span>
      <span className="relative inline-flex items-baseline gap-1">
        <input
          id={id}
          aria-label={props.name}
          title={reading?.source ? `held from ${reading.source}` : undefined}
          value={draft?.text ?? shown}
          data-stored={draft ? undefined : ''}
          inputMode="decimal"
          autoComplete="off"
          spellCheck={false}
          aria-invalid={Boolean(draft?.problem)}
          aria-describedby={draft ? `${id}-says` : undefined}
          onFocus={(event) => {
            event.currentTarget.select()
            useHeld.setState({
              put: (text, source) => {
                held.current = { text, source }
                void understand(text)
              },
            })
          }}
          onChange={(event) => void understand(event.target.value)}
          onKeyDown={keys}
          onBlur={() => void take()}
          className={`min-h-9 w-[92px] rounded border-[1.5px] bg-white px-1.5 text-right font-semibold ${(draft?.text ?? shown).length > 8 ? 'text-sm' : 'text-lg'} ${draft?.problem ? 'border-foul' : 'border-edge'}`}
        />
        <span className={props.bare ? 'sr-only' : 'w-6 text-sm text-soft'}>{unit || UNIT_WORD[kind]}</span>
        {draft && (
          <Says
            id={`${id}-says`}
            side="right"
            text={draft.problem || understood}
            wrong={Boolean(draft.problem)}
          />
        )}
      </span>
    </span>
  )
}

/** What a tape was hooked on when a figure was read off: said where it is not what the list says, and what the figure is in the car. */
function Datum({ hook, from, inVehicle }: { hook: Hook; from: Hook; inVehicle: string }) {
  const { references } = useDocument()
  const other = (hook?.id ?? '') !== (from?.id ?? '')
  if (!hook && !other) return null
  return (
    <span className="narrow block text-xs text-soft">
      {other && <b>from {hook ? references[hook.id]?.name : 'the car’s own axes'} · </b>}
      {hook && `${inVehicle} in the vehicle`}
    </span>
  )
}

type Hook = BlankProps['from']
type References = ReturnType<typeof useDocument>['references']

function hookOf(references: References, id: string | null | undefined): Hook {
  const found = id ? references[id] : undefined
  return id && found ? { id, at: found.at_mm as [number, number, number] } : null
}

const AXIS = { aft: 0, across: 1, left: 1, right: 1, up: 2 }

function wayOf(path: string): Way | null {
  const [owner = '', last = ''] = path.split('/').slice(-2)
  if (rules.sizes.includes(owner)) return null
  const ways = rules.ways as Record<string, Way>
  return ways[last] ?? ways[last.split('_')[0] ?? ''] ?? null
}

function asText(
  value: number | null,
  kind: Kind,
  units: { length: 'mm' | 'in'; mass: 'kg' | 'lb' },
  way: Way | null,
  base?: readonly number[],
): string {
  if (value === null) return ''
  if (way) return along(value - (base?.[AXIS[way]] ?? 0), way, units.length)
  if (kind === 'length') return length(value, units.length)
  if (kind === 'mass')
    return String(Math.round((units.mass === 'kg' ? value : value / rules.pound_kg) * 100) / 100)
  return String(Math.round(value * 1000) / 1000)
}

/** Typed by hand, or held from an instrument, and when. */
export function howTaken(held: { text: string; source: string } | null, text: string): object {
  if (held?.text !== text) return { basis: 'typed' }
  return { basis: 'measured', source: held.source, when: new Date().toISOString().slice(0, 16) }
}

/** What was understood, in both units where that helps. */
function echo(value: number, kind: Kind, units: { length: 'mm' | 'in'; mass: 'kg' | 'lb' }): string {
  if (kind === 'length') return `${length(value, 'mm')} mm · ${length(value, 'in')}`
  if (kind === 'mass') return `${asText(value, kind, units, null)} ${units.mass}`
  return String(Math.round(value * 1000) / 1000)
}

/** Puts what was typed beside the figure. */
export function note(readings: Record<string, unknown>, path: string, reading: object): Op[] {
  return [{ op: path in readings ? 'replace' : 'add', path: pointer('readings', path), value: reading }]
}

function clearing(readings: Record<string, unknown>, path: string): Op[] {
  const gone: Op[] = path in readings ? [{ op: 'remove', path: pointer('readings', path) }] : []
  return [...gone, { op: 'replace', path, value: null }]
}
