/** Place: the box under the hand, its gaps, its place in figures; a first box in a bay; the tape. */
import { lazy, Suspense, useState } from 'react'

import { patiently } from '../../design/away'
import { boxOf, useChoice } from '../../design/choice'
import { useDocument } from '../../design/live'
import { Choose } from '../../ui/Choose'
import { Teach } from '../../ui/parts'
import { useUnits } from '../../ui/units'
import { PlanSide } from '../../views/PlanSide'
import { Ledger, StationFrame } from '../Ledger'
import { BoxLedger } from './BoxLedger'
import { FirstBox } from './FirstBox'
import { FitStudy } from './fit/FitStudy'
import { KeptTapes } from './KeptTapes'
import { Overview } from './Overview'
import { TapeRow } from './TapeRow'
import { ThingLedger } from './ThingLedger'
import { Views } from './Views'

const WalkRound = lazy(() => patiently(() => import('../../views/WalkRound')))
const STEPS = { mm: ['1', '5', '10'], in: ['1/16"', '1/4"', '1/2"'] } as const
const STEPS_MM = { mm: [1, 5, 10], in: [25.4 / 16, 25.4 / 4, 25.4 / 2] }

export function Place() {
  const document = useDocument()
  const selected = useChoice((s) => s.selected)
  const unit = useUnits('place').length
  const [step, setStep] = useState(0)
  const box = boxOf(selected)
  const shows = useChoice((s) => s.shows)
  const empty = Object.keys(document.bays).length === 0 || Object.keys(document.module_kinds).length === 0
  if (shows === 'fit')
    return (
      <StationFrame>
        <FitStudy />
      </StationFrame>
    )
  return (
    <StationFrame>
      {shows === 'walk' ? (
        <Suspense fallback={<Teach>One moment …</Teach>}>
          <WalkRound />
        </Suspense>
      ) : (
        <PlanSide step={STEPS_MM[unit][step] ?? 1} />
      )}
      <Ledger label="Ledger">
        <Views />
        {box && document.boxes[box] ? (
          <BoxLedger key={box} id={box} />
        ) : selected ? (
          <ThingLedger path={selected} />
        ) : empty && Object.keys(document.boxes).length === 0 ? (
          <Teach>Nothing to place yet. It needs one measured space and one module.</Teach>
        ) : (
          <>
            <Overview />
            <FirstBox />
          </>
        )}
        <KeptTapes />
        <TapeRow />
        <div className="mt-4 border-t border-hair pt-2">
          <Choose
            label="Nudge and drag by"
            value={String(step)}
            options={STEPS[unit].map((words, i) => [String(i), words] as const)}
            onChange={(v) => setStep(Number(v))}
          />
        </div>
      </Ledger>
    </StationFrame>
  )
}
