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
  const labels = pegLabels(document, scale)
  const free = (x0: number, x1: number) => !labels.some((l) => l.x0 < x1 && l.x1 > x0)
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
        const figure = unit === 'mm' ? withCommas(length(aft, 'mm')) : length(aft, 'in')
        const half = figure.length * 3.5 + 8 // with air to the name beside it
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
            {whole && free(scale.x(aft) - half, scale.x(aft) + half) && (
              <text x={scale.x(aft)} y={15} textAnchor="middle" fontSize={12} fontWeight={600}>
                {figure}
              </text>
            )}
          </g>
        )
      })}
      {Object.entries(document.references).map(([id, reference]) => {
        const x = scale.x((reference.at_mm as number[])[0] ?? 0)
        const label = labels.find((l) => l.id === id)
        return (
          <g key={id}>
            <path d={`M${x - 5},1 H${x + 5} L${x},15 Z`} fill="var(--color-blue)">
              <title>{reference.name}</title>
            </path>
            {label && (
              <text
                x={label.x}
                y={14}
                textAnchor={label.anchor}
                fontSize={12}
                fill="var(--color-blue)"
                stroke="#dfe1e0"
                strokeWidth={5}
                paintOrder="stroke"
              >
                {reference.name}
              </text>
            )}
          </g>
        )
      })}
    </svg>
  )
}

interface PegLabel {
  id: string
  x: number
  anchor: 'start' | 'end'
  x0: number
  x1: number
}

/** A name stands right of its peg, or left of it where the next name or peg would be run over; else it is left out. */
function pegLabels(document: Document, scale: Scale): PegLabel[] {
  const pegs = Object.entries(document.references)
    .map(([id, r]) => ({ id, x: scale.x((r.at_mm as number[])[0] ?? 0), width: r.name.length * 6 + 4 }))
    .sort((a, b) => b.x - a.x)
  const out: PegLabel[] = []
  for (const { id, x, width } of pegs) {
    const right: PegLabel = { id, x: x + 8, anchor: 'start', x0: x - 6, x1: x + 8 + width }
    const left: PegLabel = { id, x: x - 8, anchor: 'end', x0: x - 8 - width, x1: x + 6 }
    const label = [right, left].find(
      (l) =>
        l.x0 > 6 &&
        l.x1 < scale.width - 6 &&
        !out.some((o) => o.x0 < l.x1 && o.x1 > l.x0) &&
        !pegs.some((peg) => peg.id !== id && peg.x + 6 > l.x0 && peg.x - 6 < l.x1),
    )
    if (label) out.push(label)
  }
  return out
}
