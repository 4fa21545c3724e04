/** Lumps and hollows of a space, each on the wall it was picked on. */
import { useAnalysis, useDocument, useLive } from '../../../design/live'
import { begin } from '../../../design/taken'
import { freeId } from '../../../design/pointer'
import type { Bay } from '../../../design/types'
import { Blank } from '../../../ui/Blank'
import { Choose } from '../../../ui/Choose'
import { Button, Heading } from '../../../ui/parts'
import { type Base, RowHead } from '../../rows'

const SPANS = {
  left: ['fore', 'aft', 'low', 'high'],
  right: ['fore', 'aft', 'low', 'high'],
  floor: ['fore', 'aft', 'left', 'right'],
  top: ['fore', 'aft', 'left', 'right'],
  fore: ['left', 'right', 'low', 'high'],
  aft: ['left', 'right', 'low', 'high'],
} as const
const WORDS = {
  fore: 'from, aft',
  aft: 'to, aft',
  left: 'left edge',
  right: 'right edge',
  low: 'lower edge, up',
  high: 'upper edge, up',
}
type SideName = keyof typeof SPANS

export function Lumps({
  path,
  bay,
  wall,
  base,
  onWall,
}: {
  path: string
  bay: Bay
  wall: string | null
  base: Base | null
  onWall: (side: string) => void
}) {
  const document = useDocument()
  const edit = useLive((s) => s.edit)
  const id = path.split('/')[2] ?? ''
  const sections = useAnalysis().bays[id]?.sections ?? []
  const side = (wall ?? 'floor') as SideName
  function add(hollow: boolean) {
    const spots = sections.flatMap((s) => s.ring as [number, number][])
    const span = (values: number[]) => [Math.min(...values), Math.max(...values)] as const
    const ranges = {
      aft: span(sections.map((s) => s.aft_mm)),
      across: span(spots.map((p) => p[0])),
      up: span(spots.map((p) => p[1])),
    }
    const third = ([low, high]: readonly [number, number], part: number) =>
      Math.round(low + ((high - low) * part) / 3)
    const all = {
      fore_mm: third(ranges.aft, 1),
      aft_mm: third(ranges.aft, 2),
      left_mm: third(ranges.across, 1),
      right_mm: third(ranges.across, 2),
      low_mm: third(ranges.up, 1),
      high_mm: third(ranges.up, 2),
    }
    const value = {
      name: hollow ? 'new hollow' : 'new lump',
      side,
      hollow,
      proud_mm: 20,
      ...Object.fromEntries(SPANS[side].map((name) => [`${name}_mm`, all[`${name}_mm`]])),
    }
    const name = freeId(hollow ? 'hollow' : 'lump', bay.lumps)
    void edit(begin(document, 'add', `${path}/lumps/${name}`, value))
  }
  return (
    <section aria-label="Lumps and hollows">
      <Heading>Lumps and hollows</Heading>
      <p className="my-1 text-sm">Press the wall it sits on in a section above, or choose it here.</p>
      <Choose
        label="It sits on the"
        value={side}
        options={(Object.keys(SPANS) as (keyof typeof SPANS)[]).map((s) => [s, `${s} side`] as const)}
        onChange={onWall}
      />
      {Object.entries(bay.lumps).map(([key, lump]) => (
        <div key={key} className="mb-2 rounded border border-edge bg-white p-2">
          <RowHead path={`${path}/lumps/${key}`} />
          <span className="narrow text-sm">
            on the {lump.side} side, {lump.hollow ? 'goes in' : 'stands out'}
          </span>
          {SPANS[lump.side].map((name) => (
            <Blank
              key={name}
              path={`${path}/lumps/${key}/${name}_mm`}
              label={WORDS[name]}
              name={`${lump.name}, ${WORDS[name]}`}
              list="survey"
              from={base}
            />
          ))}
          <Blank
            path={`${path}/lumps/${key}/proud_mm`}
            label={lump.hollow ? 'Depth' : 'Stands proud'}
            name={`${lump.name}, ${lump.hollow ? 'depth' : 'stands proud'}`}
            list="survey"
          />
        </div>
      ))}
      <div className="flex flex-wrap items-center gap-2">
        <Button plain onClick={() => add(false)}>
          A lump on the {side} side
        </Button>
        <Button plain onClick={() => add(true)}>
          A hollow in it
        </Button>
      </div>
    </section>
  )
}
