/** A module as what it is: from above and from the side, terminal end with its plates, tap plug and ports. */
import type { ModuleKind } from '../../design/types'
import { length } from '../../ui/format'
import { useUnits } from '../../ui/units'

export function KindDrawing({ kind }: { kind: ModuleKind }) {
  const units = useUnits('stock')
  const [long = 1, wide = 1, high = 1] = kind.size_mm as number[]
  const k = Math.min(330 / long, 220 / (wide + high))
  const [l, w, h] = [long * k, wide * k, high * k]
  const mark = (face: string | null | undefined) => (face === 'end_a' ? 0 : face === 'end_b' ? l : null)
  const plates = mark(kind.terminals)
  const taps = mark(kind.taps)
  const ports = mark(kind.coolant)
  const shown = (v: number) => `${length(v, units.length)}${units.length === 'mm' ? ' mm' : ''}`
  const skin = { fill: '#e2eae7', stroke: 'var(--color-slate)', strokeWidth: 1.6 }
  return (
    <svg
      viewBox="0 0 420 300"
      className="w-full max-w-[460px]"
      role="img"
      aria-label={`${kind.name}: ${[long, wide, high].map(shown).join(' by ')}`}
    >
      <g transform="translate(40,22)">
        <text x={l / 2} y={-7} textAnchor="middle" fontSize="12">
          from above, {kind.cells.series}s{kind.cells.parallel}p
        </text>
        <rect width={l} height={w} {...skin} />
        {plates !== null &&
          ['−', '+'].map((sign, i) => (
            <g key={sign} transform={`translate(${plates === 0 ? 0 : l - 16},${w * (i ? 0.65 : 0.18)})`}>
              <rect width="16" height="18" fill="var(--color-slate)" />
              <text x="8" y="14" textAnchor="middle" fill="#fff" fontSize="14" fontWeight="800">
                {sign}
              </text>
            </g>
          ))}
        {taps !== null && (
          <rect
            x={taps === 0 ? 0 : l - 10}
            y={w / 2 - 14}
            width="10"
            height="28"
            fill="#fff"
            stroke="var(--color-slate)"
          />
        )}
        {ports !== null &&
          [0.42, 0.5].map((s) => (
            <circle
              key={s}
              cx={ports === 0 ? 5 : l - 5}
              cy={w * s + 4}
              r="4"
              fill="#fff"
              stroke="var(--color-slate)"
            />
          ))}
        <text x={-8} y={w / 2} textAnchor="middle" fontSize="12" transform={`rotate(-90 -8 ${w / 2})`}>
          end A
        </text>
        <text
          x={l + 14}
          y={w / 2}
          textAnchor="middle"
          fontSize="12"
          transform={`rotate(-90 ${l + 14} ${w / 2})`}
        >
          end B
        </text>
        <text
          x={l / 2}
          y={w / 2 + 5}
          textAnchor="middle"
          fontSize="14"
          fontWeight="700"
          fill="var(--color-slate)"
        >
          {shown(long)} × {shown(wide)}
        </text>
        <g transform={`translate(0,${w + 22})`}>
          <rect width={l} height={h} {...skin} />
          <text
            x={l / 2}
            y={h / 2 + 5}
            textAnchor="middle"
            fontSize="14"
            fontWeight="700"
            fill="var(--color-slate)"
          >
            {shown(high)} high
          </text>
          <text x={l / 2} y={h + 16} textAnchor="middle" fontSize="12">
            from side A
          </text>
        </g>
      </g>
    </svg>
  )
}
