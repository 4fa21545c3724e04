/** Reference points: a seam, hole or edge that the tape is hooked on, each placed once: from an axle, another point, or by swung tapes. */
import { useState } from 'react'

import { wordsOf } from '../../design/api'
import { useChoice } from '../../design/choice'
import { useDocument, useLive, useLoaded } from '../../design/live'
import { freeId } from '../../design/pointer'
import { swingTapes } from '../../design/queries'
import { begin, isTaken } from '../../design/taken'
import type { Reference } from '../../design/types'
import { Blank } from '../../ui/Blank'
import { length, place } from '../../ui/format'
import { NameBlank } from '../../ui/NameBlank'
import { Choose } from '../../ui/Choose'
import { Button, Heading, Link } from '../../ui/parts'
import { useUnits } from '../../ui/units'
import { InOneLine } from '../InOneLine'
import { PointBlanks, RowHead, useBase } from '../rows'

export function References() {
  const document = useDocument()
  const { references } = document
  const edit = useLive((s) => s.edit)
  const selected = useChoice((s) => s.selected)
  const { base, pick } = useBase()
  const { length: unit } = useUnits('survey')
  const add = () =>
    void edit(
      begin(document, 'add', `/references/${freeId('reference', references)}`, {
        name: 'new reference point',
        at_mm: base?.at ?? [1500, 0, 400],
      }),
    )
  return (
    <>
      <Heading>Reference points</Heading>
      <p className="mt-1">
        A seam, hole or edge that the tape reaches; heights from a sill or rail rather than the ground. Place
        each once; when one moves, every figure taken from it moves along.
      </p>
      {Object.keys(references).length > 0 && pick}
      {Object.entries(references).map(([id, point]) => (
        <div
          key={id}
          className={`max-w-[640px] border-b border-hair py-2 ${selected === `references/${id}` ? 'bg-wash' : ''}`}
        >
          <RowHead path={`/references/${id}`} />
          <PointBlanks path={`/references/${id}/at_mm`} base={base?.id === id ? null : base} />
          {!isTaken(document, `/references/${id}/at_mm`) && <NotPlaced />}
          {base && base.id !== id && (
            <p className="narrow m-0 text-sm text-soft">in the vehicle {place(point.at_mm, unit)}</p>
          )}
          <NameBlank path={`/references/${id}/found`} label="How it was found" long />
          <Tapes id={id} point={point} />
        </div>
      ))}
      <InOneLine collection="references" base={base} fresh={() => ({})} />
      <Button plain className="mt-1" onClick={add}>
        Another reference point
      </Button>
    </>
  )
}

function NotPlaced() {
  return (
    <p className="m-0 text-sm text-tight">
      <b>Not placed yet</b>: no tape can be hooked on it before.
    </p>
  )
}

/** Tape lengths swung from points that stand already: two where its height is known, three and more else. */
function Tapes({ id, point }: { id: string; point: Reference }) {
  const document = useDocument()
  const { references } = document
  const { project } = useLoaded()
  const edit = useLive((s) => s.edit)
  const { length: unit } = useUnits('survey')
  const [message, setMessage] = useState<{
    text: string
    wrong: boolean
    misses: Record<string, number>
  } | null>(null)
  const path = `/references/${id}/tapes`
  const others = Object.entries(references)
    .filter(([key, r]) => key !== id && !Object.values(r.tapes).some((t) => t.hooked === id))
    .map(([key, r]) => [key, r.name] as const)
  const rows = Object.entries(point.tapes)
  if (others.length < 2 && rows.length === 0) return null
  async function meet() {
    try {
      const found = await swingTapes(project, point.tapes, point.at_mm as [number, number, number])
      const text = `They meet at ${place(found.at_mm, unit)}, ${length(found.misfit_mm, unit, 'up')} apart.`
      setMessage({ text, wrong: false, misses: found.misses_mm })
      await edit([{ op: 'replace', path: `/references/${id}/at_mm`, value: found.at_mm }])
    } catch (error) {
      setMessage({
        text: wordsOf(error),
        wrong: true,
        misses: {},
      })
    }
  }
  function another() {
    const used = new Set(rows.map(([, t]) => t.hooked))
    const hooked = (others.find(([key]) => !used.has(key)) ?? others[0])?.[0]
    if (hooked)
      void edit(begin(document, 'add', `${path}/${freeId('tape', point.tapes)}`, { hooked, length_mm: 1000 }))
  }
  return (
    <div role="group" aria-label={`Tapes swung to ${point.name}`} className="max-w-[520px]">
      {rows.map(([key, tape], i) => (
        <span key={key} className="flex flex-wrap items-center justify-between gap-2">
          <Choose
            label={`tape ${i + 1} from`}
            value={tape.hooked}
            options={others}
            onChange={(v) => void edit([{ op: 'replace', path: `${path}/${key}/hooked`, value: v }])}
          />
          <Blank
            path={`${path}/${key}/length_mm`}
            label="reads"
            name={`tape ${i + 1}, reads`}
            list="survey"
          />
          {message?.misses[key] !== undefined && (
            <span className="narrow text-sm">misses by {length(message.misses[key] ?? 0, unit)}</span>
          )}
          <Link
            aria-label={`Remove tape ${i + 1}`}
            onClick={() => void edit([{ op: 'remove', path: `${path}/${key}` }])}
          >
            ×
          </Link>
        </span>
      ))}
      <span className="flex flex-wrap items-center gap-4">
        <Link onClick={another}>{rows.length ? 'another tape' : 'place it by swung tapes'}</Link>
        {rows.length >= 2 && (
          <Button plain onClick={() => void meet()}>
            Where do they meet?
          </Button>
        )}
        {message && (
          <span
            role={message.wrong ? 'alert' : 'status'}
            className={message.wrong ? 'text-foul' : 'font-semibold'}
          >
            {message.text}
          </span>
        )}
      </span>
      {rows.length === 2 && (
        <p className="narrow m-0 text-sm text-soft">With two tapes its height, typed above, is kept.</p>
      )}
    </div>
  )
}
