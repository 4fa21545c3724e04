/** Mount: where the car can hold a box, each bracket's uses (weakest first), and what each hard point must carry. */
import { useState } from 'react'

import { useChoice } from '../../design/choice'
import { useAnalysis, useDocument } from '../../design/live'
import { Blank } from '../../ui/Blank'
import { gap, utilisation } from '../../ui/format'
import { colourOf, Mark } from '../../ui/Mark'
import { Caution, Heading, Teach, Title } from '../../ui/parts'
import type { MountResult, State } from '../../design/types'
import rules from '../../design/rules.json'
import { OneOf } from '../../ui/Toggles'
import { useUnits } from '../../ui/units'
import { PlanSide } from '../../views/PlanSide'
import { SentenceRows } from '../FindingRows'
import { Bench, Ledger, StationFrame } from '../Ledger'
import { CrashCases } from './CrashCases'
import { Crossmembers } from './Crossmembers'
import { HowItHangs } from './Hanging'
import { MountDrawn } from './MountDrawn'
import { MountSheet } from './MountSheet'
import { NewMount } from './NewMount'
import { OneLetsGo } from './OneLetsGo'

const SHOWN = [
  ['mount', 'The mount'],
  ['car', 'In the car'],
] as const

export function MountStation() {
  const document = useDocument()
  const { supports, findings } = useAnalysis()
  const selected = useChoice((s) => s.selected)
  const select = useChoice((s) => s.select)
  const [all, setAll] = useState(false)
  const [shown, show] = useState('mount')
  if (Object.keys(document.boxes).length === 0)
    return <Teach>No box yet. Place the modules first; then show where the car can hold them.</Teach>
  const chosen = selected?.startsWith('mounts/') ? (selected.split('/')[1] ?? '') : ''
  const mount = chosen ? document.mounts[chosen] : undefined
  // the core's findings are worst first
  const order = findings.map((f) => f.id)
  const mounts = supports
    .flatMap((s) => s.mounts)
    .sort((a, b) => order.indexOf(`mount:${a.id}`) - order.indexOf(`mount:${b.id}`))
  const words = findings.filter((f) => f.code === 'mount.support' || f.code === 'mount.unfit')
  const spots = findings.filter((f) => f.code === 'mount.spot')
  return (
    <StationFrame>
      {mount && shown === 'mount' && mount.shape.type !== 'strap' ? (
        <Bench>
          <MountDrawn id={chosen} />
        </Bench>
      ) : (
        <PlanSide flags={false} />
      )}
      <Ledger label="Ledger">
        {mount ? (
          <>
            <div className="mb-2">
              <OneOf label="Shown" value={shown} options={SHOWN} onChange={show} />
            </div>
            <MountSheet key={chosen} id={chosen} />
          </>
        ) : (
          <>
            <Title right={`${Object.keys(document.mounts).length} mounts`}>Mounts</Title>
            <SentenceRows findings={words} />
            {mounts.length > 0 && <Heading right="weakest first">Uses</Heading>}
            {mounts.map((m) => (
              <UseRow
                key={m.id}
                figures={m}
                state={findings.find((f) => f.id === `mount:${m.id}`)?.state ?? 'unknown'}
                name={document.mounts[m.id]?.name ?? m.id}
                onChoose={() => select(`mounts/${m.id}`)}
              />
            ))}
            {mounts.length > 0 && <OneLetsGo />}
            <Caution>{rules.not_checked}</Caution>
            <HowItHangs />
            <NewMount />
            <Crossmembers />
            {spots.length > 0 && (
              <>
                <Heading>What each spot must carry</Heading>
                <SentenceRows findings={all ? spots : spots.slice(0, 4)} />
                {spots.length > 4 && (
                  <button
                    type="button"
                    onClick={() => setAll(!all)}
                    className="font-semibold text-blue underline underline-offset-4"
                  >
                    {all ? 'the first four' : `all ${spots.length}`}
                  </button>
                )}
              </>
            )}
            <CrashCases />
            <Blank path="/tables/load_factor" label="Every load case times, our own factor" kind="number" />
            <Blank
              path="/tables/vehicle_stiffness_n_per_mm"
              label="The vehicle gives 1 mm at a mount for, as stated (N)"
              kind="number"
            />
            <SentenceRows findings={findings.filter((f) => f.code === 'mount.shakes')} />
            <Caution>
              Crash loads are many times the weight. Confirm the load cases with the rules where the vehicle
              is registered.
            </Caution>
          </>
        )}
      </Ledger>
    </StationFrame>
  )
}

function UseRow({
  figures,
  name,
  state,
  onChoose,
}: {
  figures: MountResult
  name: string
  state: State
  onChoose: () => void
}) {
  const first = figures.rows[0]
  const units = useUnits()
  if (!first) return null
  const broken = figures.geometry.find((g) => !g.fits)
  return (
    <button
      type="button"
      onClick={onChoose}
      className="block w-full border-b border-hair py-1.5 text-left hover:text-blue"
    >
      <span className="flex items-center justify-between gap-2">
        <span className="leading-tight">{name}</span>
        <span className="flex items-center gap-2 text-figure font-bold">
          {utilisation(first.utilisation)} <Mark state={state} />
        </span>
      </span>
      <UseBar share={first.utilisation} colour={colourOf(state)} />
      <span className="narrow text-sm text-soft">
        {broken ? broken.message : `${first.check}, ${first.case}`}
        {figures.c_mm !== null && ` · ${gap(figures.c_mm, units.length, 'near')} off the wall`}
      </span>
    </button>
  )
}

/** A use as a filled length against its capacity. */
export function UseBar({ share, colour }: { share: number; colour: string }) {
  return (
    <svg viewBox="0 0 200 7" className="block h-[7px] w-full" preserveAspectRatio="none" aria-hidden="true">
      <rect width="160" height="7" fill="#fff" stroke="var(--color-edge)" />
      <rect width={Math.min(share, 1.25) * 160} height="7" fill={colour} opacity="0.75" />
      <path d="M160,0 V7" stroke="var(--color-ink)" strokeWidth="2" />
    </svg>
  )
}
