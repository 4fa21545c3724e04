/** Level: what the axles read before and after, every mass that counts, ratings, and predicted against found. */
import { useAnalysis, useDocument, useLive } from '../../design/live'
import type { Loads } from '../../design/types'
import { Blank } from '../../ui/Blank'
import { along, length, mass, massUp, withCommas } from '../../ui/format'
import { Button, Heading, Teach, Title } from '../../ui/parts'
import { useUnits } from '../../ui/units'
import { PlusMinus } from '../../ui/PlusMinus'
import { SentenceRows } from '../FindingRows'
import { Bench, Ledger, StationFrame } from '../Ledger'
import { LoadStates } from './LoadStates'
import { ScaleDrawing } from './ScaleDrawing'
import { Weighings } from './Weighings'

export function Level() {
  const { level, findings } = useAnalysis()
  const here = findings.filter((f) => f.station === 'level')
  const { found, ready } = level
  return (
    <StationFrame>
      <Bench>
        {!found || !ready ? (
          <Teach>
            Weigh the car first, even on a public scale. Without that nobody can say what the axles will read.
          </Teach>
        ) : (
          <>
            <ScaleDrawing found={found} ready={ready} />
            <LoadTable
              unknown={level.lean?.words ?? ''}
              rows={[
                ['as found', found],
                ['ready', ready],
                ...level.states.map((s) => [s.name, s.loads] as [string, Loads]),
              ]}
            />
            <Masses />
          </>
        )}
      </Bench>
      <Ledger label="Ledger">
        <Title>Level</Title>
        <SentenceRows findings={here} />
        <Targets />
        <Weighings />
        {found && <LoadStates />}
      </Ledger>
    </StationFrame>
  )
}

/** ``unknown``: why nobody knows left from right. */
function LoadTable({ rows, unknown }: { rows: [string, Loads][]; unknown: string }) {
  const units = useUnits()
  const kg = (v: number | undefined) => (v === undefined ? '–' : mass(v, units.mass).replace(/ .*/, ''))
  const off = (v: number) => massUp(v, units.mass).replace(/ .*/, '')
  const mm = (v: number | null) => (v === null ? 'not known' : withCommas(length(v, units.length)))
  return (
    <table className="mt-4 w-full border-collapse text-right">
      <caption className="heading text-left">
        Loads and their ± in {units.mass}, places in {units.length} <PlusMinus />
      </caption>
      <thead>
        <tr className="border-b border-hair text-sm text-soft">
          {[
            'state',
            'total',
            '±',
            'front',
            '±',
            'share',
            'rear',
            '±',
            'LF',
            'RF',
            'LR',
            'RR',
            'CG aft',
            'across',
            'up',
          ].map((h, i) => (
            <th key={i} className="px-1 py-1 font-semibold first:text-left">
              {h}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map(([name, l]) => (
          <tr key={name} className="border-b border-hair">
            <th className="py-1.5 text-left font-semibold">{name}</th>
            <td className="text-lg font-bold">{kg(l.total_kg)}</td>
            <td className="narrow text-sm">{off(l.off.total_kg)}</td>
            <td className="text-lg font-bold">{kg(l.front_kg)}</td>
            <td className="narrow text-sm">{off(l.off.front_kg)}</td>
            <td className="narrow text-sm">{l.front_percent.toFixed(1)} %</td>
            <td className="text-lg font-bold">{kg(l.rear_kg)}</td>
            <td className="narrow text-sm">{off(l.off.rear_kg)}</td>
            {l.corners ? (
              [l.corners.lf_kg, l.corners.rf_kg, l.corners.lr_kg, l.corners.rr_kg].map((v, i) => (
                <td key={i}>{kg(v)}</td>
              ))
            ) : (
              <td colSpan={4} className="text-center text-sm">
                {unknown}
              </td>
            )}
            <td>{mm(l.aft_mm)}</td>
            <td>{l.across_mm === null ? 'not known' : along(l.across_mm, 'across', units.length)}</td>
            <td>{mm(l.up_mm)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}

/** Every mass that changes what the axles read. */
function Masses() {
  const { masses } = useAnalysis().level
  const units = useUnits()
  return (
    <table className="mt-5 w-full border-collapse text-right">
      <caption className="heading text-left">Masses that count</caption>
      <thead>
        <tr className="border-b border-hair text-sm text-soft">
          {[
            'thing',
            `mass (${units.mass})`,
            '±',
            `aft (${units.length})`,
            `across (${units.length})`,
            `up (${units.length})`,
          ].map((h) => (
            <th key={h} className="py-1 font-semibold first:text-left">
              {h}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {masses.map((m) => {
          const [aft = 0, right = 0, up = 0] = m.at
          return (
            <tr key={m.path} className="border-b border-hair">
              <th className="py-0.5 text-left font-normal">{m.name}</th>
              <td className="font-bold">
                {m.mass_kg > 0 ? '+' : '−'}
                {mass(Math.abs(m.mass_kg), units.mass).replace(/ .*/, '')}
              </td>
              <td className="text-sm">{m.tol_kg ? massUp(m.tol_kg, units.mass).replace(/ .*/, '') : ''}</td>
              <td>{withCommas(along(aft, 'aft', units.length))}</td>
              <td>{along(right, 'across', units.length)}</td>
              <td>{along(up, 'up', units.length)}</td>
            </tr>
          )
        })}
      </tbody>
    </table>
  )
}

function Targets() {
  const { vehicle } = useDocument()
  const edit = useLive((s) => s.edit)
  return (
    <>
      <Heading>Ratings and aim</Heading>
      <Blank path="/vehicle/ratings/front_kg" label="Front axle, at most" kind="mass" optional />
      <Blank path="/vehicle/ratings/rear_kg" label="Rear axle, at most" kind="mass" optional />
      <Blank path="/vehicle/ratings/gross_kg" label="Gross, at most" kind="mass" optional />
      {vehicle.target ? (
        <Blank path="/vehicle/target/front_percent" label="Front share aimed at (%)" kind="number" />
      ) : (
        <Button
          plain
          onClick={() =>
            void edit([{ op: 'replace', path: '/vehicle/target', value: { front_percent: 50 } }])
          }
        >
          Aim at a front share
        </Button>
      )}
    </>
  )
}
