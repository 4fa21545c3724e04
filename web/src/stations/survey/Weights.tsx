/** What the car weighs as found, and the figures it is drawn from. */
import { useDocument, useLive } from '../../design/live'
import type { Op } from '../../design/types'
import { Blank } from '../../ui/Blank'
import { NameBlank } from '../../ui/NameBlank'
import { Button, Choose, Heading, Link } from '../../ui/parts'

const CORNERS = [
  ['lf_kg', 'Left front'],
  ['rf_kg', 'Right front'],
  ['lr_kg', 'Left rear'],
  ['rr_kg', 'Right rear'],
] as const
const AXLES = [
  ['front_kg', 'Front axle'],
  ['rear_kg', 'Rear axle'],
] as const

export function Weights() {
  const { vehicle } = useDocument()
  return (
    <div className="grid grid-cols-1 gap-x-10 lg:grid-cols-2">
      <section>
        <Heading>As found</Heading>
        <Weighing />
        <CgHeight />
      </section>
      <section>
        <Heading>The vehicle</Heading>
        <NameBlank path="/name" label="Name" />
        <Blank path="/vehicle/wheelbase_mm" label="Wheelbase" list="survey" />
        {vehicle.track_mm ? (
          <>
            <Blank
              path="/vehicle/track_mm/front"
              label="Track, front"
              list="survey"
              neighbours={[vehicle.track_mm.rear]}
            />
            <Blank
              path="/vehicle/track_mm/rear"
              label="Track, rear"
              list="survey"
              neighbours={[vehicle.track_mm.front]}
            />
          </>
        ) : (
          <Set path="/vehicle/track_mm" value={{ front: 1400, rear: 1400 }} says="Give the tracks" />
        )}
        {vehicle.overall ? (
          <>
            <Blank path="/vehicle/overall/overhang_front_mm" label="Front overhang" list="survey" />
            <Blank path="/vehicle/overall/overhang_rear_mm" label="Rear overhang" list="survey" />
            <Blank path="/vehicle/overall/width_mm" label="Width" list="survey" />
            <Blank path="/vehicle/overall/height_mm" label="Height" list="survey" />
            <Blank path="/vehicle/overall/tyre_radius_mm" label="Tyre radius" list="survey" />
          </>
        ) : (
          <Set
            path="/vehicle/overall"
            value={{
              overhang_front_mm: 700,
              overhang_rear_mm: 900,
              width_mm: 1600,
              height_mm: 1400,
              tyre_radius_mm: 300,
            }}
            says="Give its outside sizes (it is drawn from them)"
          />
        )}
      </section>
    </div>
  )
}

function Set({ path, value, says }: { path: string; value: unknown; says: string }) {
  const edit = useLive((s) => s.edit)
  return (
    <p className="my-2">
      <Button plain onClick={() => void edit([{ op: 'replace', path, value }])}>
        {says}
      </Button>
    </p>
  )
}

function Weighing() {
  const { vehicle } = useDocument()
  const edit = useLive((s) => s.edit)
  const weighing = vehicle.weighing
  const put = (value: unknown) => void edit([{ op: 'replace', path: '/vehicle/weighing', value } as Op])
  if (!weighing)
    return (
      <>
        <p className="text-lg">
          Start with what the car weighs. Two axle readings will do; four wheels are better.
        </p>
        <div className="flex gap-2">
          <Button onClick={() => put({ type: 'axles', front_kg: 0, rear_kg: 0, step_kg: 10 })}>
            Two axle readings
          </Button>
          <Button
            plain
            onClick={() => put({ type: 'corners', lf_kg: 0, rf_kg: 0, lr_kg: 0, rr_kg: 0, step_kg: 1 })}
          >
            Four wheels
          </Button>
        </div>
      </>
    )
  return (
    <>
      {(weighing.type === 'corners' ? CORNERS : AXLES).map(([name, label]) => (
        <Blank key={name} path={`/vehicle/weighing/${name}`} label={label} kind="mass" />
      ))}
      <Blank path="/vehicle/weighing/step_kg" label="The scale's step" kind="mass" />
      <p className="my-1">
        <Link onClick={() => put(null)}>Weighed another way</Link>
      </p>
    </>
  )
}

const BASES = [
  ['measured', 'measured'],
  ['axle_lift', 'axle lift'],
  ['assumed', 'assumed'],
] as const

function CgHeight() {
  const { vehicle } = useDocument()
  const edit = useLive((s) => s.edit)
  const path = '/vehicle/cg_height'
  return (
    <>
      <Heading>Height of its CG</Heading>
      {vehicle.cg_height ? (
        <>
          <Blank path={`${path}/up_mm`} label="Up from the ground" list="survey" />
          <Blank path={`${path}/tolerance_mm`} label="±" list="survey" />
          <Choose
            label="It is"
            value={vehicle.cg_height.basis}
            options={BASES}
            onChange={(v) => void edit([{ op: 'replace', path: `${path}/basis`, value: v }])}
          />
        </>
      ) : (
        <Set
          path={path}
          value={{ up_mm: 550, tolerance_mm: 50, basis: 'assumed' }}
          says="Give it, or assume it"
        />
      )}
    </>
  )
}
