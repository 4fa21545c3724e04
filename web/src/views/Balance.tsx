/** The CG in plan and its plumb bob from the side. */
import type { Analysis, Document } from '../design/types'
import { length, withCommas } from '../ui/format'
import type { LengthUnit } from '../design/types'
import type { Area } from './Flags'
import type { Scale, ViewName } from './scale'

const HALO = { stroke: 'var(--color-paper)', strokeWidth: 4, paintOrder: 'stroke' as const }

export function Balance({
  document,
  analysis,
  scale,
  view,
  unit,
}: {
  document: Document
  analysis: Analysis
  scale: Scale
  view: ViewName
  unit: LengthUnit
}) {
  const loads = analysis.level.ready
  if (!loads) return null
  const x = scale.x(loads.aft_mm)
  const aft = `${withCommas(length(Math.round(loads.aft_mm), unit))} aft`
  if (view === 'side') {
    if (loads.up_mm === null) return null
    const top = scale.z(loads.up_mm)
    return (
      <g>
        <line x1={x} x2={x} y1={top} y2={scale.z(0) - 9} stroke="var(--color-blue)" strokeWidth={1.4} />
        <path d={`M${x - 5},${scale.z(0) - 18} h10 l-2,8 l-3,8 l-3,-8z`} fill="var(--color-blue)" />
        <circle cx={x} cy={top} r={4} fill="var(--color-blue)" />
        <text x={x + 9} y={top + 5} fontSize={13} fontWeight={700} fill="var(--color-blue)" {...HALO}>
          CG {length(Math.round(loads.up_mm), unit)} up
        </text>
      </g>
    )
  }
  const across = loads.across_mm
  const target = document.vehicle.target
  const aim = target ? scale.x((1 - target.front_percent / 100) * document.vehicle.wheelbase_mm) : null
  const y = scale.y(across ?? 0)
  return (
    <g>
      {aim !== null && (
        <g>
          <path
            d={`M${aim},${scale.y(0) - 20} v14 m-4,0 h8`}
            stroke="var(--color-ink)"
            strokeWidth={1.2}
            fill="none"
          />
          <text x={aim} y={scale.y(0) - 24} textAnchor="middle" fontSize={12} {...HALO}>
            target
          </text>
        </g>
      )}
      <circle cx={x} cy={y} r={8} fill="#fff" stroke="var(--color-blue)" strokeWidth={2.2} />
      <circle cx={x} cy={y} r={2.6} fill="var(--color-blue)" />
      <text
        x={x}
        y={y + 26}
        textAnchor="middle"
        fontSize={13}
        fontWeight={700}
        fill="var(--color-blue)"
        {...HALO}
      >
        CG {aft}
        {across === null ? '' : ` · ${length(Math.round(Math.abs(across)), unit)} ${across < 0 ? 'L' : 'R'}`}
      </text>
    </g>
  )
}

/** Where the CG and its words stand. */
export function balanceArea(analysis: Analysis, view: ViewName, scale: Scale): Area[] {
  const loads = analysis.level.ready
  if (!loads) return []
  const x = scale.x(loads.aft_mm)
  const y = view === 'plan' ? scale.y(loads.across_mm ?? 0) : scale.z(loads.up_mm ?? 0)
  return [{ x0: x - 62, x1: x + 80, y0: y - 14, y1: y + 30 }]
}
