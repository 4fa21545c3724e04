/**
 * Three blanks for the box's peg, in the order aft, across, up, from the chosen reference point. The first takes a
 * whole place ("840 aft, 120 R, 310 up"); "+12" or "12 aft" moves by that.
 */
import { type KeyboardEvent, useId, useState } from 'react'

import { useDocument, useLive } from '../../design/live'
import { readPlace } from '../../design/queries'
import type { Box, Op } from '../../design/types'
import { length } from '../../ui/format'
import { Choose, Heading } from '../../ui/parts'
import { useUnits } from '../../ui/units'

const AXES = ['aft', 'across', 'up'] as const

export function PlaceBlanks({ id }: { id: string }) {
  const document = useDocument()
  const box = document.boxes[id] as Box
  const [reference, setReference] = useState('')
  const base = (document.references[reference]?.at_mm ?? [0, 0, 0]) as number[]
  const at = box.pose.at_mm as number[]
  return (
    <>
      <Heading right={box.pose.anchor.replaceAll('-', ' ')}>Its peg stands at (=)</Heading>
      <Choose
        label="From"
        value={reference}
        options={[
          ['', 'the car’s own axes'],
          ...Object.entries(document.references).map(([key, r]) => [key, r.name] as const),
        ]}
        onChange={setReference}
      />
      <div className="grid grid-cols-3 gap-2" data-place-blank>
        {AXES.map((axis, i) => (
          <AxisBlank
            key={`${axis}${reference}`}
            id={id}
            axis={axis}
            value={(at[i] ?? 0) - (base[i] ?? 0)}
            base={base}
          />
        ))}
      </div>
      {reference && (
        <p className="narrow m-0 text-sm text-soft">
          in the vehicle {at.map((v) => length(v, 'mm')).join(', ')} mm
        </p>
      )}
    </>
  )
}

function AxisBlank({
  id,
  axis,
  value,
  base,
}: {
  id: string
  axis: (typeof AXES)[number]
  value: number
  base: number[]
}) {
  const edit = useLive((s) => s.edit)
  const units = useUnits()
  const [draft, setDraft] = useState<{ text: string; says: string; wrong: boolean } | null>(null)
  const key = useId()
  const shown = length(value, units.length)

  async function ops(text: string): Promise<{ patch: Op[]; says: string }> {
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
          op: { op: 'replace' as const, path: `/boxes/${id}/pose/at_mm/${i}`, value: to },
        },
      ]
    })
    return {
      patch: said.map((s) => s.op),
      says: said.map((s) => `${s.by ? 'by ' : ''}${length(s.value, 'mm')} mm ${s.name}`).join(', '),
    }
  }

  async function understand(text: string) {
    setDraft({ text, says: '', wrong: false })
    try {
      const { says } = await ops(text)
      setDraft((d) => (d?.text === text ? { text, says, wrong: false } : d))
    } catch (error) {
      setDraft((d) => (d?.text === text ? { text, says: (error as Error).message, wrong: true } : d))
    }
  }

  async function commit() {
    if (!draft || draft.text === shown) return setDraft(null)
    try {
      const { patch } = await ops(draft.text)
      if (await edit(patch)) setDraft(null)
    } catch (error) {
      setDraft({ text: draft.text, says: (error as Error).message, wrong: true })
    }
  }

  function keys(event: KeyboardEvent<HTMLInputElement>) {
    event.stopPropagation()
    if (event.key === 'Enter') void commit()
    if (event.key === 'Escape') {
      if (draft) setDraft(null)
      else event.currentTarget.blur()
    }
  }

  return (
    <span className="relative block">
      <label htmlFor={key} className="narrow block text-sm">
        {axis === 'across' ? 'across, R +' : axis} ({units.length})
      </label>
      <input
        id={key}
        value={draft?.text ?? shown}
        autoComplete="off"
        onFocus={(e) => e.currentTarget.select()}
        onChange={(e) => void understand(e.target.value)}
        onKeyDown={keys}
        onBlur={() => void commit()}
        aria-invalid={draft?.wrong ?? false}
        className={`min-h-9 w-full rounded border-[1.5px] bg-white px-1.5 text-right text-lg font-semibold ${draft?.wrong ? 'border-foul' : 'border-edge'}`}
      />
      {draft?.says && (
        <span
          role={draft.wrong ? 'alert' : 'status'}
          className={`absolute top-full left-0 z-20 w-max max-w-56 rounded border bg-white px-2 py-1 text-sm shadow ${draft.wrong ? 'border-foul text-foul' : 'border-edge'}`}
        >
          {draft.says}
        </span>
      )}
    </span>
  )
}
