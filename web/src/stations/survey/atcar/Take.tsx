/** Take measurements: one blank at a time in large figures, what to take lit in the view, the next by one press. */
import { useQuery } from '@tanstack/react-query'
import { useEffect, useMemo, useRef, useState } from 'react'

import { isAway, wordsOf } from '../../../design/api'
import { type Figure, type QuantityKind } from '../../../design/figure'
import { holdAgain, useHeld } from '../../../design/instruments'
import { toldBy, useDocument, useLive, useLoaded } from '../../../design/live'
import { type Row, useOutbox, waitingAt } from '../../../design/outbox'
import { blanksQuery, readText } from '../../../design/queries'
import { keepTyped, typedAt } from '../../../design/typed'
import type { Reading, SurveyBlank } from '../../../design/types'
import { howTaken } from '../../../ui/useBlank'
import { length } from '../../../ui/format'
import { Choose } from '../../../ui/Choose'
import { Button } from '../../../ui/parts'
import { useUnits } from '../../../ui/units'
import { Lit } from './Lit'
import { Pad } from './Pad'

export function Take({ onEnd, first }: { onEnd: () => void; first: string | null }) {
  const { project, revision } = useLoaded()
  const { data } = useQuery({ ...blanksQuery(project, revision), placeholderData: (old) => old })
  const [group, setGroup] = useState(first ?? '')
  const [path, setPath] = useState<string | null>(null)
  const [refused, setRefused] = useState<{ path: string; message: string } | null>(null)
  const rows = useMemo(() => (data ?? []).filter((b) => group === '' || b.group === group), [data, group])
  const index = Math.max(
    0,
    rows.findIndex((b) => b.path === path),
  )
  const blank = rows[index]
  const groups = [...new Set((data ?? []).map((b) => b.group))]
  if (!blank)
    return (
      <div className="m-auto max-w-md text-center">
        <p className="text-figure">
          {data ? 'There is nothing to take yet. List a reference point or a space first.' : 'One moment …'}
        </p>
        <Button onClick={onEnd}>Back to the survey</Button>
      </div>
    )
  const go = (by: number) => setPath(rows[Math.min(Math.max(index + by, 0), rows.length - 1)]?.path ?? null)
  return (
    <div className="flex min-h-0 flex-1 flex-col" role="group" aria-label="Take measurements">
      <div className="flex flex-wrap items-center justify-between gap-3 border-b border-hair px-4 py-0.5">
        <Choose
          label="Taking"
          value={group}
          options={[['', 'everything'], ...groups.map((g) => [g, g] as const)]}
          onChange={(g) => {
            setGroup(g)
            setPath(null)
          }}
        />
        <Jump rows={data ?? []} onGo={(b) => (setGroup(''), setPath(b.path))} />
        <span className="narrow">
          {index + 1} of {rows.length}
        </span>
        <Button plain className="min-h-12" onClick={onEnd}>
          Done for now
        </Button>
      </div>
      <One
        key={blank.path}
        blank={blank}
        last={index === rows.length - 1}
        refused={refused?.path === blank.path ? refused.message : ''}
        onRefused={(message) => (setRefused({ path: blank.path, message }), setPath(blank.path))}
        onBack={index ? () => go(-1) : null}
        onNext={() => (index === rows.length - 1 ? onEnd() : go(1))}
      />
    </div>
  )
}

/** What was filled in on the printed sheet is typed in by its numbers. */
function Jump({ rows, onGo }: { rows: readonly SurveyBlank[]; onGo: (blank: SurveyBlank) => void }) {
  const [text, setText] = useState('')
  return (
    <form
      className="flex items-center gap-2"
      onSubmit={(event) => {
        event.preventDefault()
        const found = rows.find((b) => b.number === Number(text))
        if (found) onGo(found)
        setText('')
      }}
    >
      <label htmlFor="sheet-number" className="narrow">
        Number on the sheet
      </label>
      <input
        id="sheet-number"
        value={text}
        inputMode="numeric"
        onChange={(e) => setText(e.target.value)}
        className="min-h-12 w-16 rounded border-[1.5px] border-edge bg-white px-1.5 text-right text-lg font-semibold"
      />
    </form>
  )
}

/** What was taken before, and whether that is stored. */
function taken(row: Row | undefined, reading: Reading | undefined, blank: SurveyBlank): string {
  if (row?.figure) return `taken: ${row.figure.text}, not saved${row.refused ? `: ${row.refused}` : ' yet'}`
  const text = reading ? reading.basis !== 'not taken' && reading.text : blank.value !== null && blank.text
  return text ? `taken: ${text}` : 'not taken yet'
}

function One({
  blank,
  last,
  refused,
  onRefused,
  onBack,
  onNext,
}: {
  blank: SurveyBlank
  last: boolean
  /** What was said of it when it was taken before. */
  refused: string
  /** It was not taken after all: one comes back to it. */
  onRefused: (message: string) => void
  onBack: (() => void) | null
  onNext: () => void
}) {
  const document = useDocument()
  const { project, revision } = useLoaded()
  const enter = useLive((s) => s.enter)
  const row = useOutbox((s) => waitingAt(project, blank.path, s.rows))
  const units = useUnits('survey')
  const input = useRef<HTMLInputElement>(null)
  const [text, setText] = useState(() => typedAt(project, blank.path)?.text ?? '')
  const [message, setMessage] = useState({ text: refused, wrong: refused !== '' })
  const latest = useRef(0)
  const held = useRef<{ text: string; source: string } | null>(null)
  const kind = blank.kind as QuantityKind
  const unit = kind === 'length' ? units.length : kind === 'mass' ? units.mass : ''
  const reading = document.readings[blank.path]
  const hook = blank.hooked ? document.references[blank.hooked] : undefined
  const base = hook?.at_mm as [number, number, number] | undefined
  useEffect(() => input.current?.focus(), [])

  async function understand(next: string) {
    setText(next)
    keepTyped(project, blank.path, next ? { text: next, seen: revision, stood: blank.text } : null)
    const turn = ++latest.current
    if (!next.trim()) return setMessage({ text: '', wrong: false })
    try {
      const found = await readText({ text: next, path: blank.path, unit, base })
      const shown = kind === 'length' ? `${length(found, 'mm')} mm in the vehicle` : `${found} ${unit}`
      if (turn === latest.current) setMessage({ text: shown, wrong: false })
    } catch (error) {
      if (turn !== latest.current) return
      if (isAway(error))
        setMessage({ text: 'Kept as typed; it is read when the server answers.', wrong: false })
      else setMessage({ text: wordsOf(error), wrong: true })
    }
  }

  const understandRef = useRef(understand)
  useEffect(() => {
    understandRef.current = understand
  })

  useEffect(() => {
    const put = (next: string, source: string) => {
      held.current = { text: next, source }
      void understandRef.current(next)
    }
    useHeld.setState({ put })
    return () => useHeld.setState((s) => (s.put === put ? { put: null } : s))
  }, [])

  /** Takes the figure and goes on at once, as fast as a thumb; an empty blank is left as it is. */
  async function take() {
    if (!last || !text.trim()) onNext()
    if (!text.trim()) return
    const figure: Figure = {
      ...{ reads: 'figure', path: blank.path, text, label: blank.label, unit, kind, now: null },
      hook: hook ? { id: blank.hooked, at: hook.at_mm as [number, number, number] } : null,
      ...{ whole: false, most: 0, into: null },
      how: { ...howTaken(held.current, text), basis: 'measured' },
    }
    try {
      await enter(figure, revision)
      keepTyped(project, blank.path, null)
      if (last) onNext()
    } catch (error) {
      onRefused(toldBy(error, figure))
    }
  }

  return (
    <div className="flex min-h-0 flex-1">
      <div className="flex min-h-0 min-w-0 flex-1 flex-col px-5 py-3">
        <p className="narrow m-0 text-lg text-soft">
          No. {blank.number} · {blank.group}
          {hook && ` · hook the tape on the ${hook.name}`}
        </p>
        <h2 className="m-0 text-[30px] leading-tight font-bold text-blue">{blank.label}</h2>
        <p className="m-0">{taken(row, reading, blank)}</p>
        <div className="min-h-0 flex-1">
          <Lit path={blank.path} base={base ?? null} />
        </div>
      </div>
      <div className="flex w-[372px] shrink-0 flex-col gap-1.5 overflow-y-auto border-l border-edge bg-sheet p-2.5">
        <label className="sr-only" htmlFor="taken">
          {blank.label}
        </label>
        <span className="flex items-baseline gap-2">
          <input
            ref={input}
            id="taken"
            value={text}
            placeholder={blank.text}
            autoComplete="off"
            inputMode="none"
            aria-invalid={message.wrong}
            onChange={(e) => void understand(e.target.value)}
            onKeyDown={(e) => {
              e.stopPropagation()
              if (e.key === 'Enter' && e.altKey) return holdAgain()
              if (e.key === 'Enter') void take()
              if (e.key === 'Escape') void understand('')
            }}
            className={`h-16 w-full rounded border-2 bg-white px-3 text-right text-[40px] font-bold placeholder:font-normal placeholder:text-steel ${message.wrong ? 'border-foul' : 'border-edge'}`}
          />
          <span className="w-8 text-figure">{unit || (kind === 'angle' ? '°' : '')}</span>
        </span>
        <p
          role={message.wrong ? 'alert' : 'status'}
          className={`m-0 min-h-5 ${message.wrong ? 'text-foul' : ''}`}
        >
          {message.text}
        </p>
        <Pad inches={unit === 'in'} text={text} onText={(next) => void understand(next)} />
        <div className="grid grid-cols-[1fr_2fr] gap-2">
          <Button plain className="min-h-14" disabled={!onBack} onClick={() => onBack?.()}>
            Back
          </Button>
          <Button className="min-h-14 text-figure" onClick={() => void take()}>
            {text.trim() ? 'Take it' : 'Leave it'}
            {last ? ', done' : ', next'}
          </Button>
        </div>
      </div>
    </div>
  )
}
