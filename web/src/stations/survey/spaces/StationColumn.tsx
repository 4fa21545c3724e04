/** One station of a space: the way it was measured, and the figures of that way. */
import { useState } from 'react'

import { wordsOf } from '../../../design/api'
import { begin } from '../../../design/taken'
import { useDocument, useLive } from '../../../design/live'
import { freeId } from '../../../design/pointer'
import type { Restated } from '../../../design/orders'
import type { BayStation } from '../../../design/types'
import { Blank } from '../../../ui/Blank'
import { Choose } from '../../../ui/Choose'
import { Link } from '../../../ui/parts'
import type { Base } from '../../rows'

const WAYS = [
  ['sides', 'left and right from the centreline'],
  ['widths', 'widths'],
  ['leans', 'width and wall angles'],
  ['points', 'points'],
  ['edge', 'depths below a straight-edge'],
] as const

const FIGURES: Record<string, readonly (readonly [string, string])[]> = {
  sides: [
    ['aft_mm', 'aft'],
    ['floor_mm', 'floor, up'],
    ['top_left_mm', 'top left, up'],
    ['top_right_mm', 'top right, up'],
    ['left_floor_mm', 'left at floor'],
    ['left_top_mm', 'left at top'],
    ['right_floor_mm', 'right at floor'],
    ['right_top_mm', 'right at top'],
  ],
  widths: [
    ['aft_mm', 'aft'],
    ['floor_mm', 'floor, up'],
    ['width_floor_mm', 'width at floor'],
    ['width_top_mm', 'width at top'],
    ['top_left_mm', 'top left, up'],
    ['top_right_mm', 'top right, up'],
    ['offset_mm', 'middle, right of centreline'],
  ],
  leans: [
    ['aft_mm', 'aft'],
    ['floor_mm', 'floor, up'],
    ['width_floor_mm', 'width at floor'],
    ['left_lean_deg', 'left wall leans out'],
    ['right_lean_deg', 'right wall leans out'],
    ['top_left_mm', 'top left, up'],
    ['top_right_mm', 'top right, up'],
    ['offset_mm', 'middle, right of centreline'],
  ],
  points: [['aft_mm', 'aft']],
  edge: [
    ['aft_mm', 'aft'],
    ['up_mm', 'straight-edge, up'],
  ],
}

export function StationColumn({
  path,
  station,
  number,
  base,
  others,
  onChange,
  onRemove,
}: {
  path: string
  station: BayStation
  number: number
  base: Base | null
  others: BayStation[]
  onChange: (what: Restated) => Promise<void>
  onRemove: (() => void) | null
}) {
  const [message, setMessage] = useState('')
  const change = (what: Restated) =>
    void onChange(what)
      .then(() => setMessage(''))
      .catch((error: unknown) => setMessage(wordsOf(error)))
  const neighbours = (name: string) =>
    name === 'aft_mm'
      ? []
      : others
          .map((s): unknown => Object.entries(s).find(([key]) => key === name)?.[1])
          .filter((v): v is number => typeof v === 'number')
  return (
    <div className="w-[270px] shrink-0" role="group" aria-label={`station ${number}`}>
      <div className="flex items-baseline justify-between gap-2">
        <strong>station {number}</strong>
        <span className="flex gap-3">
          <Link onClick={() => change('mirror')}>mirror</Link>
          <Link onClick={() => change('copy')}>copy</Link>
          {onRemove && (
            <Link aria-label={`Remove station ${number}`} onClick={onRemove}>
              ×
            </Link>
          )}
        </span>
      </div>
      <Choose
        hideLabel
        label={`station ${number}, measured by`}
        value={station.type}
        options={WAYS}
        onChange={change}
      />
      {message && (
        <p role="alert" className="m-0 text-sm text-foul">
          {message}
        </p>
      )}
      {FIGURES[station.type]?.map(([name, words]) => (
        <Blank
          key={name}
          path={`${path}/${name}`}
          label={words}
          name={`station ${number}, ${words}`}
          kind={name.endsWith('_deg') ? 'angle' : 'length'}
          list="survey"
          from={name.startsWith('width') || name === 'offset_mm' ? null : base}
          neighbours={neighbours(name)}
        />
      ))}
      {station.type === 'points' && (
        <Points path={path} points={station.points} number={number} base={base} />
      )}
      {station.type === 'edge' && <Depths path={path} depths={station.depths} number={number} base={base} />}
    </div>
  )
}

function Points({
  path,
  points,
  number,
  base,
}: {
  path: string
  points: Record<string, { across_mm: number; up_mm: number; order: number }>
  number: number
  base: Base | null
}) {
  const document = useDocument()
  const edit = useLive((s) => s.edit)
  const rows = Object.entries(points).sort(([, a], [, b]) => a.order - b.order)
  return (
    <>
      {rows.map(([key, point], i) => (
        <span key={key} className="flex items-center justify-between gap-1">
          <span className="narrow text-sm">{i + 1}</span>
          <Blank
            path={`${path}/points/${key}/across_mm`}
            label="across"
            name={`station ${number}, point ${i + 1}, across`}
            hideLabel
            list="survey"
            from={base}
          />
          <Blank
            path={`${path}/points/${key}/up_mm`}
            label="up"
            name={`station ${number}, point ${i + 1}, up`}
            hideLabel
            list="survey"
            from={base}
          />
          <Link
            aria-label={`Another point after point ${i + 1} of station ${number}`}
            onClick={() => {
              const next = rows[(i + 1) % rows.length]?.[1] ?? point
              const value = {
                across_mm: Math.round((point.across_mm + next.across_mm) / 2),
                up_mm: Math.round((point.up_mm + next.up_mm) / 2),
                order: i + 1,
              }
              void edit([
                ...rows.slice(i + 1).map(([k], n) => ({
                  op: 'replace' as const,
                  path: `${path}/points/${k}/order`,
                  value: i + 2 + n,
                })),
                ...begin(document, 'add', `${path}/points/${freeId('p', points)}`, value),
              ])
            }}
          >
            +
          </Link>
          {rows.length > 3 && (
            <Link
              aria-label={`Remove point ${i + 1} of station ${number}`}
              onClick={() => void edit([{ op: 'remove', path: `${path}/points/${key}` }])}
            >
              ×
            </Link>
          )}
        </span>
      ))}
    </>
  )
}

function Depths({
  path,
  depths,
  number,
  base,
}: {
  path: string
  depths: Record<string, { across_mm: number; depth_mm: number }>
  number: number
  base: Base | null
}) {
  const document = useDocument()
  const edit = useLive((s) => s.edit)
  const rows = Object.entries(depths).sort(([, a], [, b]) => a.across_mm - b.across_mm)
  const last = rows.at(-1)?.[1]
  return (
    <>
      <span className="narrow flex justify-between text-sm text-soft">
        <span>across</span>
        <span className="mr-9">depth</span>
      </span>
      {rows.map(([key], i) => (
        <span key={key} className="flex items-center justify-between gap-1">
          <Blank
            path={`${path}/depths/${key}/across_mm`}
            label="across"
            name={`station ${number}, depth ${i + 1}, across`}
            hideLabel
            list="survey"
            from={base}
          />
          <Blank
            path={`${path}/depths/${key}/depth_mm`}
            label="depth"
            name={`station ${number}, depth ${i + 1}`}
            hideLabel
            list="survey"
          />
          {rows.length > 2 && (
            <Link
              aria-label={`Remove depth ${i + 1} of station ${number}`}
              onClick={() => void edit([{ op: 'remove', path: `${path}/depths/${key}` }])}
            >
              ×
            </Link>
          )}
        </span>
      ))}
      {last && (
        <Link
          onClick={() =>
            void edit(
              begin(document, 'add', `${path}/depths/${freeId('d', depths)}`, {
                across_mm: last.across_mm + 100,
                depth_mm: last.depth_mm,
              }),
            )
          }
        >
          another, 100 further right
        </Link>
      )}
    </>
  )
}
