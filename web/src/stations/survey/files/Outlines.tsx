/** Closed outlines of a drawing, each offered as a section of a space or as a thing's outline in plan. */
import { useState } from 'react'

import { wordsOf } from '../../../design/api'
import { useDocument, useLive } from '../../../design/live'
import { freeId } from '../../../design/pointer'
import { readOutlines } from '../../../design/queries'
import type { Outline } from '../../../design/types'
import { FileButton } from '../../../ui/FileButton'
import { length } from '../../../ui/format'
import { Choose } from '../../../ui/Choose'
import { Button } from '../../../ui/parts'
import { useUnits } from '../../../ui/units'
import { FILE_UNITS } from './Scans'

type Spot = readonly [number, number]

export function Outlines() {
  const [unit, setUnit] = useState<(typeof FILE_UNITS)[number][0]>('')
  const [found, setFound] = useState<{ outlines: Outline[]; notes: string[] } | null>(null)
  const [message, setMessage] = useState('')
  async function send(file: File) {
    try {
      setFound(await readOutlines(file, unit))
      setMessage('')
    } catch (error) {
      setFound(null)
      setMessage(wordsOf(error))
    }
  }
  return (
    <div className="max-w-[720px]" role="group" aria-label="Read a drawing in">
      <Choose label="It is in" value={unit} options={FILE_UNITS} onChange={setUnit} />
      <FileButton message="Choose a drawing" name="Drawing file" accept=".dxf" onFile={(f) => void send(f)} />
      {message && (
        <p role="alert" className="my-1 text-foul">
          {message}
        </p>
      )}
      {found?.notes.map((line) => (
        <p key={line} className="m-0 text-sm">
          {line}
        </p>
      ))}
      <ul className="m-0 list-none p-0">
        {found?.outlines.map((outline, i) => (
          <OutlineRow key={i} outline={outline} number={i + 1} />
        ))}
      </ul>
    </div>
  )
}

function OutlineRow({ outline, number }: { outline: Outline; number: number }) {
  const { bays, items } = useDocument()
  const edit = useLive((s) => s.edit)
  const units = useUnits('survey')
  const [said, setSaid] = useState('')
  const spots = outline.points_mm as readonly Spot[]
  const wide = size(spots.map((p) => p[0]))
  const high = size(spots.map((p) => p[1]))

  async function asThing() {
    const order = Math.max(0, ...Object.values(items).map((i) => i.order)) + 1
    const solid = { type: 'prism', outline_mm: spots, low_up_mm: 300, high_up_mm: 400 }
    const value = { name: `outline ${number}`, state: 'stays', order, solid }
    if (await edit([{ op: 'add', path: `/items/${freeId(`outline-${number}`, items)}`, value }]))
      setSaid('It stands under Things; give its heights there.')
  }

  async function asSection(choice: string) {
    const points = Object.fromEntries(
      spots.map(([across_mm, up_mm], order) => [`p${order + 1}`, { across_mm, up_mm, order }]),
    )
    const bay = bays[choice]
    const last = bay ? Math.max(...Object.values(bay.stations).map((s) => s.aft_mm)) : 1300
    const station = { type: 'points', aft_mm: last + 200, points }
    if (bay) {
      const key = freeId('drawn', bay.stations)
      if (await edit([{ op: 'add', path: `/bays/${choice}/stations/${key}`, value: station }]))
        setSaid(`It is a station of the ${bay.name}; say how far aft there.`)
      return
    }
    const side = { is: 'not measured', gap_class: 'other' }
    const sides = { fore: side, aft: side, left: side, right: side, floor: side, top: side }
    const value = { name: 'drawn space', stations: { drawn: station }, depth_mm: 300, sides }
    if (await edit([{ op: 'add', path: `/bays/${freeId('drawn-space', bays)}`, value }]))
      setSaid('It stands under Spaces, straight for a depth of 300; say how deep there.')
  }

  return (
    <li className="flex items-center gap-4 border-b border-hair py-2">
      <Sketch spots={spots} />
      <span className="flex-1 text-sm">
        {spots.length} corners, {length(wide, units.length)} × {length(high, units.length)}
        {outline.layer && `, layer ${outline.layer}`}
        {outline.off_mm > 0 && `; curves flattened to ${length(outline.off_mm, 'mm', 'up')} mm`}
        <span role="status" className="block font-semibold">
          {said}
        </span>
      </span>
      <Button plain onClick={() => void asThing()}>
        A thing in plan
      </Button>
      <Choose
        hideLabel
        label={`Outline ${number}, as a section of`}
        value="-"
        options={[
          ['-', 'a section of …'],
          ...Object.entries(bays).map(([id, bay]) => [id, bay.name] as const),
          ['', 'a new space'],
        ]}
        onChange={(choice) => void asSection(choice)}
      />
    </li>
  )
}

const size = (values: number[]) => Math.max(...values) - Math.min(...values)
const SKETCH_PX = 56

function Sketch({ spots }: { spots: readonly Spot[] }) {
  const [xs, ys] = [spots.map((p) => p[0]), spots.map((p) => p[1])]
  const k = SKETCH_PX / Math.max(size(xs), size(ys), 1)
  const [x0, y1] = [Math.min(...xs), Math.max(...ys)]
  return (
    <svg width={SKETCH_PX + 4} height={SKETCH_PX + 4} aria-hidden="true" className="shrink-0">
      <polygon
        points={spots.map(([x, y]) => `${2 + (x - x0) * k},${2 + (y1 - y) * k}`).join(' ')}
        fill="#fff"
        stroke="var(--color-ink)"
        strokeWidth={1.5}
      />
    </svg>
  )
}
