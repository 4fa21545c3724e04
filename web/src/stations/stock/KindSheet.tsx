/** One module kind: a drawing of it, and the figures of its sheet. */
import { useDocument, useLive } from '../../design/live'
import type { ModuleKind } from '../../design/types'
import { Blank } from '../../ui/Blank'
import { NameBlank } from '../../ui/NameBlank'
import { Choose, Heading, Link } from '../../ui/parts'
import { KindDrawing } from './KindDrawing'

export const FACES = [
  ['end_a', 'end A'],
  ['end_b', 'end B'],
  ['side_a', 'side A'],
  ['side_b', 'side B'],
  ['base', 'base'],
  ['top', 'top'],
] as const
type Face = (typeof FACES)[number][0]

export const NEW_KIND = {
  name: 'New module kind',
  size_mm: [400, 200, 100],
  mass_kg: 15,
  cells: { series: 6, parallel: 1 },
  nominal_v: 22.2,
  full_v: 25.2,
  may_rest_on: ['base'],
  face_gap_mm: { end_a: 60 },
  neighbour_gap_mm: 4,
}

export function KindSheet({ id }: { id: string }) {
  const document = useDocument()
  const edit = useLive((s) => s.edit)
  const kind = document.module_kinds[id] as ModuleKind
  const path = `/module_kinds/${id}`
  const used =
    Object.values(document.modules).some((m) => m.kind === id) ||
    Object.values(document.boxes).some((b) => Object.values(b.blocks).some((k) => k.kind === id))
  const rest = kind.may_rest_on as Face[]
  function turnRest(face: Face) {
    const next = rest.includes(face) ? rest.filter((f) => f !== face) : [...rest, face]
    if (next.length) void edit([{ op: 'replace', path: `${path}/may_rest_on`, value: next }])
  }
  return (
    <div className="grid grid-cols-1 gap-x-8 lg:grid-cols-2">
      <div>
        <KindDrawing kind={kind} />
        <Heading>It may rest on</Heading>
        <div className="flex flex-wrap gap-x-5">
          {FACES.map(([face, words]) => (
            <label key={face} className="inline-flex min-h-9 items-center gap-2">
              <input
                type="checkbox"
                checked={rest.includes(face)}
                onChange={() => turnRest(face)}
                className="h-[18px] w-[18px] accent-blue"
              />
              {words}
            </label>
          ))}
        </div>
        <Heading>On its faces</Heading>
        <Choose
          label="Terminals"
          value={kind.terminals as Face}
          options={FACES}
          onChange={(v) => void edit([{ op: 'replace', path: `${path}/terminals`, value: v }])}
        />
        {(['taps', 'coolant'] as const).map((what) => (
          <Choose
            key={what}
            label={what === 'taps' ? 'Cell-tap plug' : 'Coolant ports'}
            value={(kind[what] ?? '') as Face | ''}
            options={[['', 'none'], ...FACES]}
            onChange={(v) => void edit([{ op: 'replace', path: `${path}/${what}`, value: v || null }])}
          />
        ))}
      </div>
      <div>
        <Heading>Sheet</Heading>
        <NameBlank path={`${path}/name`} label="Name" />
        {['Length (end A to end B)', 'Width (side A to side B)', 'Height (base to top)'].map((label, i) => (
          <Blank
            key={label}
            path={`${path}/size_mm/${i}`}
            label={label}
            list="stock"
            neighbours={(kind.size_mm as number[]).filter((_, n) => n !== i)}
          />
        ))}
        <Blank path={`${path}/mass_kg`} label="Mass" kind="mass" />
        <Blank path={`${path}/tol_kg`} label="Mass, ±" kind="mass" />
        <Blank path={`${path}/cells/series`} label="Cells in series" kind="number" whole />
        <Blank path={`${path}/cells/parallel`} label="Cells in parallel" kind="number" whole />
        <Blank path={`${path}/nominal_v`} label="Nominal" kind="voltage" />
        <Blank path={`${path}/full_v`} label="Full" kind="voltage" />
        <Blank path={`${path}/capacity_ah`} label="Capacity (Ah)" kind="number" optional />
        <Heading>Space it asks for</Heading>
        {FACES.map(([face, words]) => (
          <Blank
            key={face}
            path={`${path}/face_gap_mm/${face}`}
            label={`Before ${words}`}
            list="stock"
            optional
            patchFor={(value) => {
              const there = face in kind.face_gap_mm
              if (value === null) return there ? [{ op: 'remove', path: `${path}/face_gap_mm/${face}` }] : []
              return [{ op: there ? 'replace' : 'add', path: `${path}/face_gap_mm/${face}`, value }]
            }}
          />
        ))}
        <Blank path={`${path}/above_mm`} label="Above whatever is up" list="stock" />
        <Blank path={`${path}/neighbour_gap_mm`} label="To a neighbour" list="stock" />
        {(['length', 'width', 'height'] as const).map((way) => (
          <Blank key={way} path={`${path}/growth_mm/${way}`} label={`Growth in ${way}`} list="stock" />
        ))}
        <p className="mt-3">
          {!used && <Link onClick={() => void edit([{ op: 'remove', path }])}>Remove this kind</Link>}
        </p>
      </div>
    </div>
  )
}
