/** The steel rule between plan and side, with the reference points as pegs on it. */
import type { Document } from '../design/types'
import { length, withCommas } from '../ui/format'
import type { LengthUnit } from '../design/types'
import type { Scale } from './scale'

const STEPS_MM = [10, 50, 100, 500, 1000]
const STEPS_IN = [12.7, 25.4, 152.4, 304.8, 609.6]

export function Rule({ document, scale, unit }: { document: Document; scale: Scale; unit: LengthUnit }) {
  const steps = unit === 'mm' ? STEPS_MM : STEPS_IN
  const fine = steps.find((s) => s * scale.k >= 4) ?? 500
  const named = steps.find((s) => s * scale.k >= 62 && s > fine) ?? 1000
  const [first, last] = [scale.aft(8), scale.aft(scale.width - 8)]
  const ticks: number[] = []
  for (let n = Math.ceil(first / fine); n * fine <= last; n += 1) ticks.push(n * fine)
  return (
    <svg width={scale.width} height={30} className="block" aria-hidden="true">
      <defs>
        <linearGradient id="rule-steel" x1="0" y1="0" x2="0" y2="1">
          <stop offset="0" stopColor="#e9eae9" />
          <stop offset="1" stopColor="#c9cdcf" />
        </linearGradient>
      </defs>
      <rect x={4} y={1} width={scale.width - 8} height={28} rx={2} fill="url(#rule-steel)" stroke="#8c9196" />
      {ticks.map((aft) => {
        const whole = Math.abs(aft / named - Math.round(aft / named)) < 1e-6
        return (
          <g key={aft}>
            <line
              x1={scale.x(aft)}
              x2={scale.x(aft)}
              y1={29}
              y2={whole ? 19 : 24}
              stroke="#3a404a"
              strokeWidth={0.8}
            />
            {whole && (
              <text x={scale.x(aft)} y={15} textAnchor="middle" fontSize={12} fontWeight={600}>
                {unit === 'mm' ? withCommas(length(aft, 'mm')) : length(aft, 'in')}
              </text>
            )}
          </g>
        )
      })}
      {Object.entries(document.references).map(([id, reference]) => {
        const x = scale.x((reference.at_mm as number[])[0] ?? 0)
        return (
          <g key={id}>
            <path d={`M${x - 5},1 H${x + 5} L${x},15 Z`} fill="var(--color-blue)">
              <title>{reference.name}</title>
            </path>
            <text
              x={x + 8}
              y={14}
              fontSize={12}
              fill="var(--color-blue)"
              stroke="#dfe1e0"
              strokeWidth={4}
              paintOrder="stroke"
            >
              {reference.name}
            </text>
          </g>
        )
      })}
    </svg>
  )
}
