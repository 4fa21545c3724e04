/** Survey: everything that is known about the vehicle, as a tape and a scale find it. */
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import { useChoice } from '../../design/choice'
import { useAnalysis, useDocument, useLoaded } from '../../design/live'
import { blanksQuery } from '../../design/queries'
import { asFound } from '../../design/weighings'
import { OneOf } from '../../ui/Toggles'
import { Button, Caution, Title } from '../../ui/parts'
import { PlanSide } from '../../views/PlanSide'
import { SentenceRows } from '../FindingRows'
import { Bench, Ledger, StationFrame } from '../Ledger'
import { selectedIn, useParts } from '../useParts'
import { Bays } from './spaces/Bays'
import { DutyRows } from './DutyRows'
import { Files } from './files/Files'
import { HardPointRows } from './HardPointRows'
import { KeepoutRows } from './KeepoutRows'
import { Picking } from './Picking'
import { References } from './References'
import { Take } from './atcar/Take'
import { ThingRows } from './things/ThingRows'
import { ToMeasure } from './ToMeasure'
import { Weights } from './weights/Weights'

const PARTS = [
  ['weights', 'Weights'],
  ['things', 'Things'],
  ['references', 'Reference points'],
  ['spaces', 'Spaces'],
  ['keepouts', 'Keep-outs'],
  ['hardpoints', 'Hard points'],
  ['duties', 'Duties, faults'],
  ['files', 'Files'],
  ['missing', 'Still to measure'],
  ['drawing', 'Drawing'],
] as const
type PartName = (typeof PARTS)[number][0]

const OF_PATH: Record<string, PartName> = {
  items: 'things',
  bays: 'spaces',
  keepouts: 'keepouts',
  hardpoints: 'hardpoints',
  members: 'hardpoints',
  openings: 'hardpoints',
  references: 'references',
  duties: 'duties',
  snags: 'duties',
  vehicle: 'weights',
  weighings: 'weights',
}

export function Survey() {
  const select = useChoice((s) => s.select)
  const picking = useChoice((s) => s.picking)
  const { bays } = useDocument()
  const { project, revision } = useLoaded()
  useQuery(blanksQuery(project, revision)) // at hand where the measurements are taken: there the net may be away
  const { part, open, key } = useParts<PartName>(PARTS, OF_PATH, 'weights', 'drawing')
  const [taking, setTaking] = useState(false)
  const [space, setSpace] = useState(selectedIn('bays'))
  const [shownFor, setShownFor] = useState(key)
  if (key !== shownFor) {
    // a finding that speaks of another space shows that one
    setShownFor(key)
    setSpace(selectedIn('bays') ?? space)
  }
  const shown = bays[space ?? ''] ?? Object.values(bays)[0]
  if (taking)
    return (
      <StationFrame>
        <Take onEnd={() => setTaking(false)} first={part === 'spaces' ? (shown?.name ?? null) : null} />
      </StationFrame>
    )
  return (
    <StationFrame>
      <div className="flex min-h-0 min-w-0 flex-1 flex-col">
        <div className="shrink-0 border-b border-hair px-3 py-1">
          <OneOf
            bare
            label="Parts of the survey"
            value={part}
            options={PARTS}
            onChange={(next) => open(next as PartName)}
          />
        </div>
        {picking ? (
          <Picking picking={picking} />
        ) : part === 'drawing' ? (
          <PlanSide flags={false} />
        ) : part === 'missing' ? (
          <Bench>
            <ToMeasure
              onGo={(path) => {
                select(path.split('/').slice(0, 2).join('/'))
                open(OF_PATH[path.split('/')[0] ?? ''] ?? 'missing')
              }}
            />
          </Bench>
        ) : part === 'spaces' ? (
          <Bench key={key}>
            <Bays chosen={space} onChoose={setSpace} />
          </Bench>
        ) : (
          <Bench key={key}>{SCREENS[part]}</Bench>
        )}
      </div>
      <Side onTake={() => setTaking(true)} />
    </StationFrame>
  )
}

const SCREENS = {
  weights: <Weights />,
  things: <ThingRows />,
  references: <References />,
  keepouts: <KeepoutRows />,
  hardpoints: <HardPointRows />,
  duties: <DutyRows />,
  files: <Files />,
}

function Side({ onTake }: { onTake: () => void }) {
  const document = useDocument()
  const { items, bays } = document
  const weighed = asFound(document)
  const { project } = useLoaded()
  const { findings } = useAnalysis()
  const fuel = Object.values(items).some((i) => i.fuel && i.state === 'out')
  const said = findings.filter(
    (f) =>
      (f.station === 'survey' && f.state !== 'clear') ||
      ['level.missing', 'level.weigh', 'level.height', 'level.across'].includes(f.code),
  )
  return (
    <Ledger label="Ledger">
      <Title>Survey</Title>
      <div className="flex flex-wrap gap-2">
        <Button onClick={onTake}>Take measurements</Button>
        <Button plain asChild>
          <a href={`/api/projects/${project}/survey-sheet.pdf`} target="_blank" rel="noreferrer">
            Print a sheet to fill
          </a>
        </Button>
      </div>
      {!weighed && (
        <p className="text-lg">
          Start with what the car weighs. Two axle readings will do; four wheels are better. Then measure the
          first space.
        </p>
      )}
      {weighed && Object.keys(bays).length === 0 && (
        <p className="text-lg">
          Now measure the first space: hook the tape on a reference point and take it at two or more stations.
        </p>
      )}
      {fuel && (
        <Caution>
          Fuel first: drain, purge and cap. No drill, spark or weld near a tank or line that held fuel.
        </Caution>
      )}
      <h3 className="heading mt-4 mb-1">To look at</h3>
      {said.length ? (
        <SentenceRows findings={said} />
      ) : (
        <p className="m-0">Nothing disagrees or is missing.</p>
      )}
      <h3 className="heading mt-4 mb-1">How to type</h3>
      <p className="m-0 text-sm">
        As the tape shows it: 372, 37.2 cm, 14 5/8, 2′ 3 1/2″, 3/16″ + 6 mm. A fraction alone is of inches.
        Aft of the front axle line; left and right as 120 L or 120 R; up from the ground.
      </p>
    </Ledger>
  )
}
