/** How a thing moves; it takes the whole space that it sweeps. */
import { useDocument, useLive } from '../../../design/live'
import { begin } from '../../../design/taken'
import type { Sweep } from '../../../design/types'
import { Choose } from '../../../ui/Choose'
import { type Field, FieldRow } from '../../fields'
import type { Base } from '../../rows'

type SweepType = Sweep['type']
const KINDS: readonly (readonly [SweepType | '', string])[] = [
  ['', 'does not move'],
  ['travel', 'slides between two positions'],
  ['axle', 'an axle: bump, droop, articulation'],
  ['wheel', 'a wheel: bump, droop and lock'],
  ['hinge', 'turns on a hinge'],
  ['guard', 'throws and flaps: belt or fan with its guard'],
]

const FIELDS: Record<SweepType, readonly Field[]> = {
  travel: [
    { kind: 'place', at: 'from_by_mm', label: 'from where it is drawn: first position' },
    { kind: 'place', at: 'to_by_mm', label: 'second position' },
  ],
  axle: [
    { kind: 'length', at: 'bump_mm', label: 'Bump, up by' },
    { kind: 'length', at: 'droop_mm', label: 'Droop, down by' },
    { kind: 'angle', at: 'articulation_deg', label: 'Each side alone, leans by' },
  ],
  wheel: [
    { kind: 'length', at: 'bump_mm', label: 'Bump, up by' },
    { kind: 'length', at: 'droop_mm', label: 'Droop, down by' },
    { kind: 'angle', at: 'lock_deg', label: 'Lock, to either side' },
    { kind: 'place', at: 'pivot_mm', label: 'It steers about an upright line through' },
  ],
  hinge: [
    { kind: 'place', at: 'about_mm', label: 'A point of its hinge line' },
    { kind: 'way', at: 'axis', label: 'The hinge line runs' },
    { kind: 'angle', at: 'from_deg', label: 'Turns from' },
    { kind: 'angle', at: 'to_deg', label: 'to' },
  ],
  guard: [{ kind: 'length', at: 'guard_mm', label: 'All round it' }],
}

export function SweepBlanks({ path, sweep, base }: { path: string; sweep: Sweep | null; base: Base | null }) {
  const document = useDocument()
  const edit = useLive((s) => s.edit)
  const at = base?.at ?? [0, 0, 300]
  const starts: Record<SweepType, object> = {
    travel: { type: 'travel', to_by_mm: [0, 0, 80] },
    axle: { type: 'axle', bump_mm: 80, droop_mm: 80, articulation_deg: 8 },
    wheel: { type: 'wheel', bump_mm: 80, droop_mm: 80, lock_deg: 30, pivot_mm: at },
    hinge: { type: 'hinge', about_mm: at, axis: [0, 1, 0], to_deg: 60 },
    guard: { type: 'guard', guard_mm: 30 },
  }
  // a travel is given from where the thing is drawn, so no reference point counts
  const hooked = sweep?.type === 'travel' ? null : base
  return (
    <>
      <Choose
        label="It"
        value={sweep?.type ?? ''}
        options={KINDS}
        onChange={(v) => void edit(begin(document, 'replace', path, v ? starts[v] : null))}
      />
      {sweep && FIELDS[sweep.type].map((f) => <FieldRow key={f.at} path={path} field={f} base={hooked} />)}
    </>
  )
}
