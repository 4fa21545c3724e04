/**
 * Three blanks for the box's peg, in the order aft, across, up, from the chosen reference point. The first takes a
 * whole place ("840 aft, 120 R, 310 up"); a sign moves: "+12", "-5", "+12 aft".
 */
import { type KeyboardEvent, useId, useState } from 'react'

import { useChoice } from '../design/choice'
import { note } from '../design/figure'
import { useDocument, useLive, useLoaded } from '../design/live'
import { readPlace } from '../design/queries'
import { keepTyped, typedAt } from '../design/typed'
import type { Box, Op } from '../design/types'
import { along, length } from '../ui/format'
import { Choose } from '../ui/Choose'
import { Heading, Link } from '../ui/parts'
import { Message } from '../ui/Message'
import { kept } from '../ui/useTakenOnce'
import { useUnits } from '../ui/units'

const AXES = ['aft', 'across', 'up'] as const

/** Opened by "=" beside the selected box. */
export function PlaceBlanks({ id, at: spot }: { id: string; at: { left: number; top: number } }) {
  const document = useDocument()
  const close = useChoice((s) => s.place)
  const box = document.boxes[id] as Box
  const [reference, setReference] = useState('')
  const base = (document.references[reference]?.at_mm ?? [0, 0, 0]) as number[]
  const at = box.pose.at_mm as number[]
  return (
    <div
      role="dialog"
      aria-label={`Place of ${box.name}`}
      className="absolute z-20 w-[340px] rounded border-2 border-blue bg-sheet p-3 shadow-lg"
      style={spot}
    >
      <Heading right={<Link onClick={() => close(false)}>close</Link>}>
        Its peg, {box.pose.anchor.replaceAll('-', ' ')}
      </Heading>
      <Choose
        label="From"
        value={reference}
        options={[
          ['', 'the car’s own axes'],
          ...Object.entries(document.references).map(([key, r]) => [key, r.name] as const),
        ]}
        onChange={setReference}
      />
      <div className="grid grid-cols-3 gap-2">
        {AXES.map((axis, i) => (
          <AxisBlank
            key={`${axis}${reference}`}
            id={id}
            axis={axis}
            first={i === 0}
            value={(at[i] ?? 0) - (base[i] ?? 0)}
            base={base}
            reference={reference}
          />
        ))}
      </div>
      {reference && (
        <p className="narrow m-0 text-sm text-soft">
          in the vehicle {at.map((v) => length(v, 'mm')).join(', ')} mm
        </p>
      )}
    </div>
  )
}

function AxisBlank({
  id,
  axis,
  first,
  value,
  base,
  reference,
}: {
  id: string
  axis: (typeof AXES)[number]
  first: boolean
  value: number
  base: number[]
  /** Counted from a reference point: a box that stands does not move with it, so its text is not kept in the document. */
  reference: string
}) {
  const document = useDocument()
  const { project, revision } = useLoaded()
  const edit = useLive((s) => s.edit)
  const close = useChoice((s) => s.place)
  const units = useUnits()
  const hooked = reference !== ''
  const slot = `/boxes/${id}/place/${axis}/${reference}`
  const [draft, setDraft] = useState(() => {
    const text = typedAt(project, slot)?.text
    return text === undefined ? null : { text, message: 'Not saved yet.', wrong: false }
  })
  const key = useId()
  const shown = along(value, axis, units.length)
  const reading = document.readings[`/boxes/${id}/pose/at_mm/${AXES.indexOf(axis)}`]

  async function ops(text: string): Promise<{ patch: Op[]; message: string }> {
    const place = await readPlace(text, axis, units.length)
    const now = useLive.getState().loaded?.document.boxes[id]?.pose.at_mm as number[]
    const said = AXES.flatMap((name, i) => {
      const move = place[name]
      if (!move) return []
      const to = move.by ? (now[i] ?? 0) + move.value_mm : move.value_mm + (base[i] ?? 0)
      return [
        {
          name,
          by: move.by,
          value: move.value_mm,
          ops: [
            { op: 'replace' as const, path: `/boxes/${id}/pose/at_mm/${i}`, value: to },
            ...(move.by || hooked
              ? []
              : note(document.readings, `/boxes/${id}/pose/at_mm/${i}`, {
                  text: move.text,
                  unit: move.unit,
                })),
          ],
        },
      ]
    })
    return {
      patch: said.flatMap((s) => s.ops),
      message: said
        .map(
          (s) =>
            `${s.by ? 'moved by ' : ''}${along(s.value, s.name, units.length)} ${s.value > 0 ? s.name : ''}`,
        )
        .join(', '),
    }
  }

  function giveUp() {
    setDraft(null)
    keepTyped(project, slot, null)
  }

  async function understand(text: string) {
    setDraft({ text, message: '', wrong: false })
    keepTyped(project, slot, { text, seen: revision, stood: shown })
    try {
      const { message } = await ops(text)
      setDraft((d) => (d?.text === text ? { text, message, wrong: false } : d))
    } catch (error) {
      setDraft((d) => (d?.text === text ? { text, message: (error as Error).message, wrong: true } : d))
    }
  }

  /** Whether what was typed stands. */
  async function commit() {
    if (!draft || draft.text === shown) {
      giveUp()
      return true
    }
    try {
      const { patch } = await ops(draft.text)
      if (!(await edit(patch))) return false
      giveUp()
      return true
    } catch (error) {
      const message = (error as Error).message
      setDraft((d) => (d?.text === draft.text ? { text: draft.text, message, wrong: true } : d))
      return false
    }
  }

  function keys(event: KeyboardEvent<HTMLInputElement>) {
    kept(event, draft !== null)
    if (event.key === 'Enter') void commit().then((done) => done && close(false))
    if (event.key === 'Escape') {
      if (draft) giveUp()
      else close(false)
    }
  }

  return (
    <span className="relative block">
      <label htmlFor={key} className="narrow block text-sm">
        {axis} ({units.length})
      </label>
      <input
        id={key}
        value={draft?.text ?? shown}
        data-stored={draft ? undefined : ''}
        autoComplete="off"
        autoFocus={first}
        onFocus={(e) => e.currentTarget.select()}
        onChange={(e) => void understand(e.target.value)}
        onKeyDown={keys}
        onBlur={() => void commit()}
        aria-invalid={draft?.wrong ?? false}
        className={`min-h-9 w-full rounded border-[1.5px] bg-white px-1.5 text-right text-lg font-semibold ${draft?.wrong ? 'border-foul' : 'border-edge'}`}
      />
      {reading && reading.unit !== units.length && (
        <span className="narrow block text-right text-xs text-soft">
          typed {reading.text} {reading.unit}
        </span>
      )}
      <Message text={draft?.message ?? ''} wrong={draft?.wrong ?? false} />
    </span>
  )
}
