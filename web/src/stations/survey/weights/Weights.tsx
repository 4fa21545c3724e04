/** What the car weighs as found, in which state, how high its CG is, and the figures it is drawn from. */
import { useDocument, useLive } from '../../../design/live'
import { begin } from '../../../design/taken'
import { Blank } from '../../../ui/Blank'
import { NameBlank } from '../../../ui/NameBlank'
import { Choose } from '../../../ui/Choose'
import { Button, Heading } from '../../../ui/parts'
import { CgHeight } from './CgHeight'
import { Weighing } from './Weighing'

export function Weights() {
  const { vehicle } = useDocument()
  return (
    <div className="grid grid-cols-1 gap-x-10 lg:grid-cols-2">
      <section aria-label="As found">
        <Heading>As found</Heading>
        <Weighing />
        <Heading>Height of its CG</Heading>
        <CgHeight />
      </section>
      <section aria-label="The vehicle">
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
          <Give path="/vehicle/track_mm" value={{ front: 1400, rear: 1400 }} message="Give the tracks" />
        )}
        <Overall />
        <Ratings />
        <Stance when="stance" title="How it stood while it was measured" />
        <Stance when="stance_after" title="How it stands when done" />
      </section>
    </div>
  )
}

/** Opens its blanks, which are empty until somebody took the figures. */
export function Give({ path, value, message }: { path: string; value: unknown; message: string }) {
  const edit = useLive((s) => s.edit)
  const document = useDocument()
  return (
    <p className="my-2">
      <Button plain onClick={() => void edit(begin(document, 'replace', path, value))}>
        {message}
      </Button>
    </p>
  )
}

function Overall() {
  const { vehicle } = useDocument()
  if (!vehicle.overall)
    return (
      <Give
        path="/vehicle/overall"
        value={{
          overhang_front_mm: 700,
          overhang_rear_mm: 900,
          width_mm: 1600,
          height_mm: 1400,
          tyre_radius_mm: 300,
        }}
        message="Give its outside sizes (it is drawn from them)"
      />
    )
  return (
    <>
      <Blank path="/vehicle/overall/overhang_front_mm" label="Front overhang" list="survey" />
      <Blank path="/vehicle/overall/overhang_rear_mm" label="Rear overhang" list="survey" />
      <Blank path="/vehicle/overall/width_mm" label="Width" list="survey" />
      <Blank path="/vehicle/overall/height_mm" label="Height" list="survey" />
      <Blank path="/vehicle/overall/tyre_radius_mm" label="Tyre radius" list="survey" />
    </>
  )
}

function Ratings() {
  const { vehicle } = useDocument()
  return (
    <>
      <Heading>What it may weigh</Heading>
      <Blank path="/vehicle/ratings/front_kg" label="Front axle, at most" kind="mass" optional />
      <Blank path="/vehicle/ratings/rear_kg" label="Rear axle, at most" kind="mass" optional />
      <Blank path="/vehicle/ratings/gross_kg" label="Whole car, at most" kind="mass" optional />
      {vehicle.bump_mm ? (
        <>
          <Blank path="/vehicle/bump_mm/front" label="Front axle goes up at full bump" />
          <Blank path="/vehicle/bump_mm/rear" label="Rear axle goes up at full bump" />
        </>
      ) : (
        <Give
          path="/vehicle/bump_mm"
          value={{ front: 80, rear: 80 }}
          message="Give how far the axles go up at full bump (for the ground)"
        />
      )}
      {vehicle.wheel_rates ? (
        <>
          <Blank path="/vehicle/wheel_rates/front_n_per_mm" label="Wheel rate, front (N/mm)" kind="number" />
          <Blank path="/vehicle/wheel_rates/rear_n_per_mm" label="Wheel rate, rear (N/mm)" kind="number" />
        </>
      ) : (
        <Give
          path="/vehicle/wheel_rates"
          value={{ front_n_per_mm: 20, rear_n_per_mm: 20 }}
          message="Give the wheel rates (they split a side moment)"
        />
      )}
      <ToPass />
    </>
  )
}

const ENGINE = [
  ['in', 'engine in'],
  ['out', 'engine out'],
] as const
const STANDS = [
  ['wheels', 'on its wheels'],
  ['stands', 'on stands, wheels hanging'],
  ['hanging', 'hanging on a lift'],
] as const
const ARCHES = [
  ['lf', 'Arch, left front'],
  ['rf', 'Arch, right front'],
  ['lr', 'Arch, left rear'],
  ['rr', 'Arch, right rear'],
] as const

/** Asked once: the nose rises when the engine is out, and with it every height from the ground. */
function Stance({ when, title }: { when: 'stance' | 'stance_after'; title: string }) {
  const { vehicle } = useDocument()
  const edit = useLive((s) => s.edit)
  const stance = vehicle[when]
  const path = `/vehicle/${when}`
  return (
    <section aria-label={title} className="mt-4">
      <Heading>{title}</Heading>
      {stance ? (
        <>
          <Choose
            label="With the"
            value={stance.engine}
            options={ENGINE}
            onChange={(v) => void edit([{ op: 'replace', path: `${path}/engine`, value: v }])}
          />
          <Choose
            label="It stood"
            value={stance.stands}
            options={STANDS}
            onChange={(v) => void edit([{ op: 'replace', path: `${path}/stands`, value: v }])}
          />
          {ARCHES.map(([wheel, label]) => (
            <Blank key={wheel} path={`${path}/arches/${wheel}_mm`} label={label} list="survey" optional />
          ))}
          <Blank
            path={`${path}/sill_deg`}
            label="The sill slopes up aft by (zero the angle finder on it)"
            kind="angle"
          />
        </>
      ) : (
        <Give
          path={path}
          value={{ engine: when === 'stance' ? 'in' : 'out', stands: 'wheels' }}
          message="Say how it stands"
        />
      )}
    </section>
  )
}

/** What the car is to pass over without touching. */
function ToPass() {
  const { vehicle } = useDocument()
  const edit = useLive((s) => s.edit)
  const path = '/vehicle/road/hump'
  return (
    <>
      <Heading>What it is to pass over</Heading>
      <Blank path="/vehicle/road/ramp_percent" label="Ramps as steep as (%)" kind="number" optional />
      {vehicle.road?.hump ? (
        <>
          <Blank path={`${path}/long_mm`} label="A hump, long" />
          <Blank path={`${path}/high_mm`} label="Its height" />
          <Button plain onClick={() => void edit([{ op: 'replace', path, value: null }])}>
            No hump
          </Button>
        </>
      ) : (
        <Button
          plain
          onClick={() => void edit([{ op: 'replace', path, value: { long_mm: 900, high_mm: 75 } }])}
        >
          A hump in the road
        </Button>
      )}
    </>
  )
}
