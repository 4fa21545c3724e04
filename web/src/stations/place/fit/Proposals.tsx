/** Proposals side by side: a column each, the same figures in the same rows. */
import { useState } from 'react'

import { useChoice } from '../../../design/choice'
import { useDocument, useLive } from '../../../design/live'
import { isDone } from '../../../design/pointer'
import type { Proposal, Study } from '../../../design/types'
import { gap, length, mass, withCommas } from '../../../ui/format'
import { Mark } from '../../../ui/Mark'
import { Tick } from '../../../ui/Tick'
import { Button, Link } from '../../../ui/parts'
import { useUnits } from '../../../ui/units'
import { InSight } from '../../../ui/InSight'
import { OneMore } from '../Fixes'
import { Sketch } from './Sketch'
import { useAsking } from './wishes'

type Row = [name: string, of: (p: Proposal, units: ReturnType<typeof useUnits>) => string]

const ROWS: Row[] = [
  ['Modules', (p) => String(p.modules)],
  ['Full', (p) => `${p.string.full_v.toFixed(1)} V${p.parallel > 1 ? ` × ${p.parallel}` : ''}`],
  ['Energy', (p) => (p.string.energy_kwh === null ? '–' : `${p.string.energy_kwh.toFixed(1)} kWh`)],
  ['Boxes', (p) => String(p.boxes.length)],
  ['Front axle', (p, u) => (p.front_kg === null ? 'not weighed' : mass(p.front_kg, u.mass))],
  ['Rear axle', (p, u) => (p.rear_kg === null ? 'not weighed' : mass(p.rear_kg, u.mass))],
  ['On the front', (p) => (p.front_percent === null ? '–' : `${p.front_percent.toFixed(1)} %`)],
  ['CG up', (p, u) => heightOf(p, u)],
  [
    'Cables, about',
    (p, u) => `${withCommas(length(Math.round(p.cable_mm / 10) * 10, u.length))} ${u.length}`,
  ],
  [
    'Luggage left',
    (p) =>
      p.luggage_l === null ? 'no space marked' : `${withCommas(p.luggage_l.toFixed(0))} litres, ${p.case}`,
  ],
  ['New mounting points', (p) => (p.to_make ? String(p.to_make) : 'none')],
]

function heightOf(p: Proposal, units: ReturnType<typeof useUnits>): string {
  const up = p.cg_mm[2] as number | null
  return up === null ? 'not known' : `${length(up, units.length)} ${units.length}`
}

export function Proposals({ study }: { study: Study }) {
  const { kept, set } = useAsking()
  const [only, setOnly] = useState(false)
  const [more, setMore] = useState<{ of: number; box: string } | null>(null)
  const units = useUnits()
  const document = useDocument()
  const shown = study.proposals.map((p, i) => ({ p, i })).filter(({ i }) => !only || kept.includes(i))
  if (study.proposals.length === 0) return null
  const asked = more && study.proposals[more.of]
  const keep = (i: number) => set({ kept: kept.includes(i) ? kept.filter((k) => k !== i) : [...kept, i] })
  return (
    <>
      {kept.length > 1 && (
        <p className="m-0 mb-2">
          <Link onClick={() => setOnly(!only)}>
            {only ? `all ${study.proposals.length}` : `only the ${kept.length} that are kept`}
          </Link>
        </p>
      )}
      <div className="overflow-x-auto">
        <table className="table-fixed border-collapse" aria-label="Proposals">
          <thead>
            <tr>
              <td className="w-[110px]" />
              {shown.map(({ p, i }) => (
                <th
                  key={i}
                  scope="col"
                  className="w-[212px] min-w-[212px] border-l border-hair px-3 pb-1 text-left align-top font-normal"
                >
                  <span className="flex items-center justify-between">
                    <strong className="text-lg">{NAMES[i] ?? i + 1}</strong>
                    <Tick label="keep" value={kept.includes(i)} onChange={() => keep(i)} />
                  </span>
                  <Sketch vehicle={document.vehicle} shapes={p.sketch} />
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {ROWS.map(([name, of]) => (
              <tr key={name} className="border-t border-hair">
                <th scope="row" className="narrow py-1 pr-3 text-left font-normal whitespace-nowrap">
                  {name}
                </th>
                {shown.map(({ p, i }) => (
                  <td key={i} className="border-l border-hair px-3 text-right text-lg font-semibold">
                    {of(p, units)}
                  </td>
                ))}
              </tr>
            ))}
            <tr className="border-t border-hair align-top">
              <th scope="row" className="narrow py-1 pr-3 text-left font-normal">
                Boxes, outside {units.length}
              </th>
              {shown.map(({ p, i }) => (
                <td key={i} className="border-l border-hair px-3 py-1">
                  {p.boxes.map((b) => (
                    <span key={b.id} className="mb-1 block text-sm leading-snug">
                      <strong>{b.name}</strong>: {b.modules} · {mass(b.full_kg, units.mass)}
                      <br />
                      {b.outer_mm.map((v) => length(v, units.length)).join(' × ')}
                      <br />
                      {b.message}
                      {b.limits.length > 0 && (
                        <span className="block text-soft">held by {b.limits.slice(0, 3).join(', ')}</span>
                      )}
                      {b.hangs && <span className="block">{b.hangs}</span>}
                      <Link onClick={() => setMore({ of: i, box: b.id })}>one more?</Link>
                    </span>
                  ))}
                </td>
              ))}
            </tr>
            <tr className="border-t border-hair align-top">
              <th scope="row" className="narrow py-1 pr-3 text-left font-normal">
                Tightest gaps, {units.length}
              </th>
              {shown.map(({ p, i }) => (
                <td key={i} className="border-l border-hair px-3 py-1">
                  {p.gaps.slice(0, 3).map((g) => (
                    <span key={g.name} className="flex items-baseline gap-1.5 text-sm">
                      <Mark state={g.state} />
                      <strong>{gap(g.has_mm, units.length)}</strong>
                      <span className="min-w-0 flex-1">{g.name}</span>
                    </span>
                  ))}
                </td>
              ))}
            </tr>
            <tr className="border-t border-hair">
              <td />
              {shown.map(({ p, i }) => (
                <td key={i} className="border-l border-hair px-3 py-2">
                  <PutInTheCar proposal={p} />
                </td>
              ))}
            </tr>
          </tbody>
        </table>
      </div>
      {more && asked && (
        <InSight key={`${more.of} ${more.box}`}>
          <section aria-label="One more" className="mt-3 max-w-[560px]">
            <p className="m-0 font-semibold">
              {asked.boxes.find((b) => b.id === more.box)?.name}, proposal {NAMES[more.of]}
            </p>
            <OneMore box={more.box} on={asked.patch} />
          </section>
        </InSight>
      )}
    </>
  )
}

const NAMES = ['A', 'B', 'C', 'D', 'E', 'F', 'G', 'H', 'I', 'J', 'K', 'L']

/** One edit: the boxes that stood in these spaces go, the proposal's come. */
function PutInTheCar({ proposal }: { proposal: Proposal }) {
  const edit = useLive((s) => s.edit)
  const show = useChoice((s) => s.show)
  const select = useChoice((s) => s.select)
  async function put() {
    if (!(await edit(proposal.patch))) return
    show('drawing')
    select(`boxes/${proposal.boxes[0]?.id}`)
  }
  if (isDone(useDocument(), proposal.patch))
    return <span className="block text-center font-semibold text-clear">In the car</span>
  return (
    <Button className="w-full" onClick={() => void put()}>
      Put it in the car
    </Button>
  )
}
