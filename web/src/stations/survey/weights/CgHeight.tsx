/** Height of the CG: given, by lifting an axle, or assumed from a table of vehicle types. */
import { useQuery } from '@tanstack/react-query'
import { useAnalysis, useDocument, useLive } from '../../../design/live'
import { startersQuery } from '../../../design/queries'
import { begin, isTaken } from '../../../design/taken'
import type { Vehicle } from '../../../design/types'
import { asFound } from '../../../design/weighings'
import { useTyped } from '../../../design/typed'
import { Blank } from '../../../ui/Blank'
import { Choose } from '../../../ui/Choose'
import { Caution, Link } from '../../../ui/parts'
import { ShortBlank, ShortForm } from '../../../ui/ShortForm'
import { SentenceRows } from '../../FindingRows'

const AT = '/vehicle/cg_height'
type Basis = NonNullable<Vehicle['cg_height']>['basis'] | ''
const BASES: readonly (readonly [Basis, string])[] = [
  ['', 'not known'],
  ['measured', 'measured elsewhere'],
  ['lifted', 'by lifting an axle'],
  ['assumed', 'assumed from its type'],
]

export function CgHeight() {
  const document = useDocument()
  const { vehicle } = document
  const weighing = asFound(document)
  const edit = useLive((s) => s.edit)
  const height = vehicle.cg_height
  const basis = height?.basis ?? ''
  function turn(next: Basis) {
    const radius = vehicle.overall?.tyre_radius_mm ?? 300
    const rear = weighing?.type === 'axles' ? weighing.rear_kg : 500
    const up = height && 'up_mm' in height ? height.up_mm : 540
    const lifted = {
      basis: 'lifted',
      raised: 'front',
      rise_mm: 500,
      level_kg: rear,
      raised_kg: rear,
      step_kg: 1,
      radius_front_mm: radius,
      radius_rear_mm: radius,
    }
    const given = { basis: next, up_mm: up, tolerance_mm: next === 'measured' ? 20 : 60 }
    const value = next === '' ? null : next === 'lifted' ? lifted : given
    void edit(value ? begin(document, 'replace', AT, value) : [{ op: 'replace', path: AT, value }])
  }
  const bases: typeof BASES =
    basis === 'axle_lift' ? [...BASES, ['axle_lift', 'a lift worked out elsewhere']] : BASES
  return (
    <>
      <Choose label="It is" goes={AT} value={basis} options={bases} onChange={turn} />
      {height?.basis === 'lifted' ? <Lift raised={height.raised} /> : height && <Given />}
    </>
  )
}

function Given() {
  const document = useDocument()
  const { vehicle } = document
  const edit = useLive((s) => s.edit)
  const { data } = useQuery(startersQuery('cg-heights'))
  const height = vehicle.cg_height
  if (!height || height.basis === 'lifted') return null
  return (
    <>
      {height.basis === 'assumed' && (
        <Choose
          label="As of a"
          value={String(data?.find((row) => height.note?.startsWith(String(row.name)))?.id ?? '')}
          options={[
            ['', 'type not chosen'],
            ...(data ?? []).map((row) => [String(row.id), String(row.name)] as const),
          ]}
          onChange={(id) => {
            const row = data?.find((r) => r.id === id)
            if (row)
              void edit([
                ...(isTaken(document, READING) ? [] : [{ op: 'remove' as const, path: AS_KEY }]),
                {
                  op: 'replace',
                  path: AT,
                  value: {
                    basis: 'assumed',
                    up_mm: row.up_mm,
                    tolerance_mm: row.tolerance_mm,
                    note: `${row.name}: ${row.source}`,
                  },
                },
              ])
          }}
        />
      )}
      <Blank path={`${AT}/up_mm`} label="Up from the ground" list="survey" />
      <Blank path={`${AT}/tolerance_mm`} label="±" list="survey" />
      {height.note && <p className="m-0 text-sm">{height.note}</p>}
      {height.basis === 'assumed' && <Answered upMm={height.up_mm} toleranceMm={height.tolerance_mm} />}
    </>
  )
}

const READING = `${AT}/up_mm`
const AS_KEY = `/readings/${READING.replaceAll('/', '~1')}`

/** A guess counts as not known until somebody answers for it. */
function Answered({ upMm, toleranceMm }: { upMm: number; toleranceMm: number }) {
  const reading = useDocument().readings[READING]
  const edit = useLive((s) => s.edit)
  const [by, setBy] = useTyped(`${AT}/by`)
  if (reading?.accepted)
    return (
      <p className="m-0 flex items-center gap-3 text-sm">
        {reading.accepted.by} answers for it, ± {reading.accepted.plus_minus} mm.
        <Link onClick={() => void edit([{ op: 'replace', path: `${AS_KEY}/accepted`, value: null }])}>
          take that back
        </Link>
      </p>
    )
  const value = {
    text: String(upMm),
    unit: 'mm',
    basis: 'assumed',
    accepted: { by: by.trim() || 'the workshop', plus_minus: toleranceMm },
  }
  return (
    <ShortForm
      does="I answer for it"
      onSubmit={async () => void (await edit([{ op: reading ? 'replace' : 'add', path: AS_KEY, value }]))}
      onLeave={() => setBy('')}
    >
      <p className="m-0 text-sm">A guess is not known until somebody answers for it.</p>
      <ShortBlank label="Who" value={by} onChange={setBy} />
    </ShortForm>
  )
}

function Lift({ raised }: { raised: 'front' | 'rear' }) {
  const edit = useLive((s) => s.edit)
  const { findings } = useAnalysis()
  const down = raised === 'front' ? 'Rear' : 'Front'
  return (
    <>
      <Caution>
        Block the suspension at its ride height, brakes off, the lowered wheels free to roll, chocked before
        and behind. Rated stands; nobody under or in the car.
      </Caution>
      <Choose
        label="Raised"
        value={raised}
        options={[
          ['front', 'the front axle'],
          ['rear', 'the rear axle'],
        ]}
        onChange={(v) => void edit([{ op: 'replace', path: `${AT}/raised`, value: v }])}
      />
      <Blank path={`${AT}/rise_mm`} label="Wheel centres raised by" list="survey" />
      <Blank path={`${AT}/rise_tol_mm`} label="Raised, ±" list="survey" />
      <Blank path={`${AT}/level_kg`} label={`${down} axle reads, level`} kind="mass" />
      <Blank path={`${AT}/raised_kg`} label={`${down} axle reads, raised`} kind="mass" />
      <Blank path={`${AT}/step_kg`} label="The scale's step" kind="mass" name="lift, the scale's step" />
      <Blank path={`${AT}/radius_front_mm`} label="Loaded radius, front" list="survey" />
      <Blank path={`${AT}/radius_rear_mm`} label="Loaded radius, rear" list="survey" />
      <SentenceRows findings={findings.filter((f) => f.code === 'level.lift')} />
    </>
  )
}
