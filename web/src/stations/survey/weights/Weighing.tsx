/** The scales: four wheels, two axles or the whole car, who and what was aboard, and the bare car that is left. */
import { useAnalysis, useDocument, useLive, useLoaded } from '../../../design/live'
import { weighedBy } from '../../../design/orders'
import { freeId } from '../../../design/pointer'
import { begin } from '../../../design/taken'
import type { Op, Read } from '../../../design/types'
import { AS_FOUND, asFound } from '../../../design/weighings'
import { Blank } from '../../../ui/Blank'
import { mass, massUp } from '../../../ui/format'
import { NameBlank } from '../../../ui/NameBlank'
import { AddFrom } from '../../../ui/AddFrom'
import { Choose } from '../../../ui/Choose'
import { Button, Fact, Heading, Link } from '../../../ui/parts'
import { useUnits } from '../../../ui/units'
import { Fluid } from '../Fluid'
import { Removable } from '../../fields'
import { PointBlanks, useBase } from '../../rows'
import { READINGS, WAYS } from './readings'

const AT = `${AS_FOUND}/read`

export function Weighing() {
  const weighing = asFound(useDocument())
  const edit = useLive((s) => s.edit)
  const { project } = useLoaded()
  const by = (way: Read['type']) => void weighedBy(project, way).then(({ patch }) => edit(patch as Op[]))
  if (!weighing)
    return (
      <>
        <p className="text-lg">
          Start with what the car weighs. Two axle readings will do; four wheels are better.
        </p>
        <div className="flex flex-wrap gap-2">
          <Button data-goes="/weighings" onClick={() => by('axles')}>
            Two axle readings
          </Button>
          <Button plain onClick={() => by('corners')}>
            Four wheels
          </Button>
          <Button plain onClick={() => by('total')}>
            Only the whole car
          </Button>
        </div>
      </>
    )
  return (
    <>
      <Choose label="Weighed by" value={weighing.type} options={WAYS} onChange={by} />
      {READINGS[weighing.type].map(([name, label]) => (
        <Blank key={name} path={`${AT}/${name}`} label={label} kind="mass" />
      ))}
      <Blank path={`${AT}/step_kg`} label="The scale's step" kind="mass" />
      {weighing.type === 'axles' && (
        <Blank path={`${AT}/left_kg`} label="Both left wheels (empty: not weighed)" kind="mass" optional />
      )}
      {weighing.type === 'total' && (
        <>
          <Blank path={`${AT}/front_percent`} label="On the front axle, assumed (%)" kind="number" />
          <Blank path={`${AT}/front_tol_percent`} label="Assumed to ± (%)" kind="number" />
        </>
      )}
      {weighing.type === 'corners' && <AxleCheck check={weighing.check} />}
      <Aboard rows={weighing.aboard} />
      <Bare />
      <p className="mt-2 mb-0 text-sm">
        Weighed stripped, on the way or finished, or a box alone? It stands in Level, beside what was
        expected.
      </p>
    </>
  )
}

function AxleCheck({ check }: { check: unknown }) {
  const edit = useLive((s) => s.edit)
  const document = useDocument()
  const put = (value: unknown) => void edit(begin(document, 'replace', `${AT}/check`, value))
  if (!check)
    return (
      <p className="my-1">
        <Link onClick={() => put({ front_kg: 0, rear_kg: 0, step_kg: 10 })}>
          Hold the sums against an axle scale
        </Link>
      </p>
    )
  return (
    <>
      <Blank path={`${AT}/check/front_kg`} label="Axle scale, front" kind="mass" />
      <Blank path={`${AT}/check/rear_kg`} label="Axle scale, rear" kind="mass" />
      <Blank path={`${AT}/check/step_kg`} label="Axle scale's step" kind="mass" />
      <Link onClick={() => put(null)}>No axle scale</Link>
    </>
  )
}

const RIDERS = [
  ['', 'Somebody or something else'],
  ['driver', 'driver'],
  ['fuel', 'fuel in the tank'],
  ['load', 'loose load'],
] as const

/** Fuel, people and loose load that were weighed along; taken off again. */
function Aboard({ rows }: { rows: Read['aboard'] }) {
  const edit = useLive((s) => s.edit)
  const { base, pick } = useBase()
  const add = (kind: string) => {
    const name = RIDERS.find(([k]) => k === kind)?.[1] ?? 'something'
    const fluid = kind === 'fuel' ? { volume_l: 20, density_kg_l: 0.745 } : null
    const value = { name: kind ? name : 'something aboard', fluid, at_mm: base?.at ?? null }
    void edit([{ op: 'add', path: `${AT}/aboard/${freeId(kind || 'aboard', rows ?? {})}`, value }])
  }
  return (
    <section aria-label="Aboard on the scales" className="mt-4">
      <Heading>Aboard while it was weighed</Heading>
      <p className="my-1 text-sm">Fuel, people, loose load: they are taken off again.</p>
      {Object.keys(rows ?? {}).length > 0 && pick}
      {Object.entries(rows ?? {}).map(([id, rider]) => (
        <Removable
          key={id}
          message={`Remove ${rider.name}`}
          onRemove={() => void edit([{ op: 'remove', path: `${AT}/aboard/${id}` }])}
        >
          <NameBlank path={`${AT}/aboard/${id}/name`} label="Name" />
          <Fluid path={`${AT}/aboard/${id}`} fluid={rider.fluid} />
          <Blank path={`${AT}/aboard/${id}/tol_kg`} label="±" name={`${rider.name}, ±`} kind="mass" />
          {rider.at_mm ? (
            <PointBlanks path={`${AT}/aboard/${id}/at_mm`} base={base} />
          ) : (
            <Link
              onClick={() =>
                void edit([
                  {
                    op: 'replace',
                    path: `${AT}/aboard/${id}/at_mm`,
                    value: base?.at ?? [1500, 0, 500],
                  },
                ])
              }
            >
              say where
            </Link>
          )}
        </Removable>
      ))}
      <AddFrom label="Something aboard" options={RIDERS} onAdd={add} />
    </section>
  )
}

/** The car without what was aboard; and the list that balances: what comes out and what is kept make what was found. */
function Bare() {
  const { level } = useAnalysis()
  const { mass: unit } = useUnits('survey')
  const { found, sums_kg: sums } = level
  if (!found) return null
  return (
    <section aria-label="The bare car" className="mt-4">
      <Heading>The bare car</Heading>
      <Fact name="Front axle">
        {mass(found.front_kg, unit)}{' '}
        <span className="text-sm font-normal">± {massUp(found.off.front_kg, unit)}</span>
      </Fact>
      <Fact name="Rear axle">
        {mass(found.rear_kg, unit)}{' '}
        <span className="text-sm font-normal">± {massUp(found.off.rear_kg, unit)}</span>
      </Fact>
      <Fact name="Found in all">{mass(found.total_kg, unit)}</Fact>
      {sums.out !== undefined && sums.kept !== undefined && (
        <p className="m-0 text-sm">
          {mass(sums.out, unit)} comes out, {mass(sums.kept, unit)} is kept.
        </p>
      )}
      {found.assumed && <p className="m-0 text-sm">{found.assumed}</p>}
    </section>
  )
}
