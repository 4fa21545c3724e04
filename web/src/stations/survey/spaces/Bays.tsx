/** Spaces by stations, each in the way it was measured; sides, lumps and hollows, check diagonals, how sure. */
import { useState } from 'react'

import { useAnalysis, useDocument, useLive, useLoaded } from '../../../design/live'
import { restate, type Restated } from '../../../design/orders'
import { freeId } from '../../../design/pointer'
import { begin, isTaken } from '../../../design/taken'
import type { Bay } from '../../../design/types'
import { Blank } from '../../../ui/Blank'
import { withCommas } from '../../../ui/format'
import { Choose } from '../../../ui/Choose'
import { OneOf } from '../../../ui/Toggles'
import { Tick } from '../../../ui/Tick'
import { Button, Fact, Heading, Link, Teach } from '../../../ui/parts'
import { Diagonals } from './Diagonals'
import { Lumps } from './Lumps'
import { OneLine } from './OneLine'
import { GapClass, RowHead, useBase } from '../../rows'
import { SectionView } from './SectionView'
import { StationColumn } from './StationColumn'

const SIDES = ['fore', 'aft', 'left', 'right', 'floor', 'top'] as const
const IS = [
  ['metal', 'metal'],
  ['open', 'open'],
  ['not measured', 'not measured'],
] as const
const FLAGS = [
  ['passenger', 'passenger space'],
  ['luggage', 'luggage space'],
  ['crush', 'crush zone'],
  ['wet', 'outside, wet'],
  ['hot', 'near heat'],
] as const

function newBay(at: [number, number, number] | undefined): object {
  const [aft, across, up] = at ?? [1500, 0, 300]
  const station = (x: number) => ({
    aft_mm: x,
    floor_mm: up,
    top_left_mm: up + 300,
    top_right_mm: up + 300,
    left_floor_mm: across - 350,
    left_top_mm: across - 350,
    right_floor_mm: across + 350,
    right_top_mm: across + 350,
  })
  const sides = Object.fromEntries(SIDES.map((side) => [side, { is: 'not measured', gap_class: 'other' }]))
  return { name: 'new space', stations: { a: station(aft), b: station(aft + 500) }, sides, tolerance_mm: 1 }
}

export function Bays({ chosen, onChoose }: { chosen: string | null; onChoose: (id: string) => void }) {
  const document = useDocument()
  const { bays, references } = document
  const edit = useLive((s) => s.edit)
  const ids = Object.keys(bays)
  const id = chosen && bays[chosen] ? chosen : (ids[0] ?? null)
  const [square, setSquare] = useState(false)
  async function add() {
    const first = Object.keys(references).find((key) => isTaken(document, `/references/${key}/at_mm`))
    const from = first ? references[first] : undefined
    const key = freeId('space', bays)
    const value = {
      ...newBay(from?.at_mm as [number, number, number] | undefined),
      measured_from: first ?? null,
    }
    if (await edit(begin(document, 'add', `/bays/${key}`, value))) onChoose(key)
  }
  if (!id)
    return (
      <>
        <Teach
          action={
            <Button data-goes="/bays" onClick={() => void add()}>
              Measure the first space
            </Button>
          }
        >
          Hook the tape on a reference point and take the space at two or more stations; one station and a
          depth will do where it is straight. A square one goes in one line:
        </Teach>
        <OneLine onMade={onChoose} />
      </>
    )
  return (
    <>
      <div className="mb-2">
        <OneOf
          label="Spaces"
          value={id}
          options={ids.map((key) => [key, bays[key]?.name ?? key] as const)}
          onChange={onChoose}
        >
          <Button plain onClick={() => void add()}>
            Another space
          </Button>
          <Link aria-expanded={square} onClick={() => setSquare(!square)}>
            a square one, in one line
          </Link>
        </OneOf>
      </div>
      {square && (
        <OneLine
          onMade={(made) => {
            setSquare(false)
            onChoose(made)
          }}
        />
      )}
      <BaySheet key={id} id={id} bay={bays[id] as Bay} />
    </>
  )
}

function BaySheet({ id, bay }: { id: string; bay: Bay }) {
  const edit = useLive((s) => s.edit)
  const { project } = useLoaded()
  const { base, pick } = useBase(bay.measured_from ?? '')
  const [wall, setWall] = useState<string | null>(null)
  const path = `/bays/${id}`
  const stations = Object.entries(bay.stations).sort(([, a], [, b]) => a.aft_mm - b.aft_mm)
  const alone = stations.length === 1
  async function change(station: string, what: Restated) {
    const { patch } = await restate(project, id, station, what)
    await edit(patch)
  }
  return (
    <>
      <div className="grid grid-cols-1 gap-x-10 lg:grid-cols-2">
        <div>
          <RowHead path={path} />
          {pick}
          <Blank
            path={`${path}/tolerance_mm`}
            label="Sure to ± (tape 1, reached in 3)"
            list="survey"
            optional
          />
        </div>
        <Room id={id} />
      </div>
      <SectionView id={id} bay={bay} wall={wall} onWall={(side) => setWall(side === wall ? null : side)} />
      <Heading>Stations</Heading>
      <div className="flex gap-6 overflow-x-auto pb-1">
        {stations.map(([key, station], i) => (
          <StationColumn
            key={key}
            path={`${path}/stations/${key}`}
            station={station}
            number={i + 1}
            base={base}
            others={stations.filter(([k]) => k !== key).map(([, s]) => s)}
            onChange={(what) => change(key, what)}
            onRemove={
              stations.length > 1 && (stations.length > 2 || bay.depth_mm !== null)
                ? () => void edit([{ op: 'remove', path: `${path}/stations/${key}` }])
                : null
            }
          />
        ))}
      </div>
      <div className="my-2 flex flex-wrap items-center gap-3">
        <Button plain onClick={() => void change((stations.at(-1) as [string, unknown])[0], 'copy')}>
          Another station
        </Button>
        {alone ? (
          <Blank path={`${path}/depth_mm`} label="Straight for a depth of" list="survey" />
        ) : (
          stations.length === 2 && (
            <Link
              onClick={() => {
                const [first, second] = stations as [(typeof stations)[0], (typeof stations)[0]]
                void edit([
                  { op: 'replace', path: `${path}/depth_mm`, value: second[1].aft_mm - first[1].aft_mm },
                  { op: 'remove', path: `${path}/stations/${second[0]}` },
                ])
              }}
            >
              one station and a depth
            </Link>
          )
        )}
      </div>
      <div className="grid grid-cols-1 gap-x-10 lg:grid-cols-2">
        <section aria-label="Its sides">
          <Heading
            right={
              <Link
                onClick={() =>
                  void edit(
                    SIDES.map((side) => ({
                      op: 'replace',
                      path: `${path}/sides/${side}/is`,
                      value: 'metal',
                    })),
                  )
                }
              >
                metal all round
              </Link>
            }
          >
            Its sides
          </Heading>
          <p className="m-0 mb-1 text-sm text-soft">
            Open says that nothing stands there. A box may stand out through it, and how far is said; what is
            beyond was not measured with this space.
          </p>
          {SIDES.map((side) => (
            <div key={side}>
              <Choose
                label={side}
                goes={`${path}/sides/${side}/is`}
                value={bay.sides[side].is}
                options={IS}
                onChange={(v) => void edit([{ op: 'replace', path: `${path}/sides/${side}/is`, value: v }])}
              />
              {bay.sides[side].is === 'metal' && (
                <>
                  <GapClass path={`${path}/sides/${side}/gap_class`} />
                  <Tick
                    label="it opens"
                    value={bay.sides[side].opens}
                    onChange={(v) =>
                      void edit([{ op: 'replace', path: `${path}/sides/${side}/opens`, value: v }])
                    }
                  />
                </>
              )}
            </div>
          ))}
        </section>
        <div>
          <Belongs path={path} bay={bay} />
          <Lumps path={path} bay={bay} wall={wall} base={base} onWall={setWall} />
          <Diagonals id={id} bay={bay} />
        </div>
      </div>
    </>
  )
}

function Room({ id }: { id: string }) {
  const litres = useAnalysis().bays[id]?.litres
  const taken = isTaken(useDocument(), `/bays/${id}/stations`)
  return (
    <div>
      {taken && litres !== undefined && (
        <Fact name="Room between its sections">{withCommas(litres.toFixed(0))} litres</Fact>
      )}
      {!taken && (
        <p className="m-0 text-sm text-tight">
          <b>Not taken yet</b>: drawn with figures that nobody measured. Fill the empty blanks.
        </p>
      )}
    </div>
  )
}

function Belongs({ path, bay }: { path: string; bay: Bay }) {
  const edit = useLive((s) => s.edit)
  return (
    <section aria-label="What it is">
      <Heading>What it is</Heading>
      <Choose
        label="Its walls belong to the"
        value={bay.structure}
        options={(['body', 'frame', 'subframe', 'axle'] as const).map((w) => [w, w] as const)}
        onChange={(v) => void edit([{ op: 'replace', path: `${path}/structure`, value: v }])}
      />
      <div className="flex flex-wrap gap-x-5">
        {FLAGS.map(([flag, words]) => (
          <Tick
            key={flag}
            label={words}
            value={flag in bay.flags}
            onChange={(on) =>
              void edit([
                on
                  ? { op: 'add', path: `${path}/flags/${flag}`, value: true }
                  : { op: 'remove', path: `${path}/flags/${flag}` },
              ])
            }
          />
        ))}
      </div>
    </section>
  )
}
