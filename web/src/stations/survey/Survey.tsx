/** Survey: weights as found, reference points, what comes out, stays and goes in, spaces, keep-outs, hard points. */
import { useState } from 'react'

import { useChoice } from '../../design/choice'
import { useAnalysis, useDocument } from '../../design/live'
import { Caution, OneOf, Title } from '../../ui/parts'
import { PlanSide } from '../../views/PlanSide'
import { SentenceRows } from '../FindingRows'
import { Bench, Ledger, StationFrame } from '../Ledger'
import { Bays } from './Bays'
import { HardPointRows } from './HardPointRows'
import { KeepoutRows } from './KeepoutRows'
import { References } from './References'
import { ThingRows } from './ThingRows'
import { Weights } from './Weights'

const PARTS = [
  ['weights', 'Weights'],
  ['things', 'Things'],
  ['references', 'Reference points'],
  ['spaces', 'Spaces'],
  ['keepouts', 'Keep-outs'],
  ['hardpoints', 'Hard points'],
  ['drawing', 'Drawing'],
] as const
type PartName = (typeof PARTS)[number][0]

const OF_PATH: Record<string, PartName> = {
  items: 'things',
  bays: 'spaces',
  keepouts: 'keepouts',
  hardpoints: 'hardpoints',
  references: 'references',
}

export function Survey() {
  const selected = useChoice((s) => s.selected)
  const [part, setPart] = useState<PartName>(OF_PATH[selected?.split('/')[0] ?? ''] ?? 'weights')
  return (
    <StationFrame>
      <div className="flex min-h-0 min-w-0 flex-1 flex-col">
        <div className="shrink-0 border-b border-hair px-3 py-2">
          <OneOf
            bare
            label="Parts of the survey"
            value={part}
            options={PARTS}
            onChange={(key) => setPart(key as PartName)}
          />
        </div>
        {part === 'drawing' ? <PlanSide flags={false} /> : <Bench>{SCREENS[part]}</Bench>}
      </div>
      <Side />
    </StationFrame>
  )
}

const SCREENS = {
  weights: <Weights />,
  things: <ThingRows />,
  references: <References />,
  spaces: <Bays />,
  keepouts: <KeepoutRows />,
  hardpoints: <HardPointRows />,
}

function Side() {
  const { items, vehicle, bays } = useDocument()
  const { findings } = useAnalysis()
  const fuel = Object.values(items).some((i) => i.fuel && i.state === 'out')
  const missing = findings.filter(
    (f) =>
      f.code === 'level.missing' ||
      f.code === 'level.weigh' ||
      f.code === 'level.height' ||
      f.code === 'level.across',
  )
  return (
    <Ledger label="Ledger">
      <Title>Survey</Title>
      {!vehicle.weighing && (
        <p className="text-lg">
          Start with what the car weighs. Two axle readings will do; four wheels are better. Then measure the
          first space.
        </p>
      )}
      {vehicle.weighing && Object.keys(bays).length === 0 && (
        <p className="text-lg">
          Now measure the first space: hook the tape on a reference point and take it at two or more stations.
        </p>
      )}
      {fuel && (
        <Caution>
          Fuel first: drain, purge and cap. No drill, spark or weld near a tank or line that held fuel.
        </Caution>
      )}
      <h3 className="heading mt-4 mb-1">Still missing</h3>
      {missing.length ? (
        <SentenceRows findings={missing} />
      ) : (
        <p className="m-0">Nothing that the loads rest on.</p>
      )}
      <h3 className="heading mt-4 mb-1">How to type</h3>
      <p className="m-0 text-sm">
        As the tape shows it: 372, 37.2 cm, 14 5/8, 2′ 3 1/2″, 3/16″ + 6 mm. Aft of the front axle line; left
        and right as 120 L or 120 R; up from the ground.
      </p>
    </Ledger>
  )
}
