/** A gap enlarged, true to one scale of its own: the thing, the gap, the box's wall, and where the need ends. */
import type { Finding } from '../design/types'
import { gap, inWords } from '../ui/format'
import { colourOf } from '../ui/Mark'
import { useUnits } from '../ui/units'

const [WIDE, HIGH] = [300, 92]
const LEFT = 76
const LEAST_PX = 60

export function Loupe({ finding }: { finding: Finding }) {
  const units = useUnits()
  const [has, needs] = [finding.value ?? 0, finding.limit ?? 0]
  const most = Math.max(Math.abs(has), needs, 1)
  const scale = Math.max(LEAST_PX / Math.max(Math.abs(has), 0.5), 0)
  // the gap is at least 60 px wide; where the need is far larger, the scale gives way to it
  const k = Math.min(scale, (WIDE - LEFT - 16) / most)
  const wall = LEFT + has * k
  const colour = colourOf(finding.state)
  const digits = gap(Math.abs(has), units.length)
  return (
    <svg
      viewBox={`0 0 ${WIDE} ${HIGH}`}
      className="mt-2 w-full rounded border border-edge bg-white"
      role="img"
      aria-label={`${finding.label}: ${digits}, needs ${gap(needs, units.length, 'up')}`}
      data-loupe={finding.id}
    >
      <defs>
        <pattern id="loupe" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <path d="M0,0 V7" stroke="#5a5f68" strokeWidth="1.1" />
        </pattern>
      </defs>
      <rect x={wall} y={0} width={Math.max(WIDE - wall, 0)} height={HIGH} fill="#f7ebdd" />
      <rect
        x={0}
        y={0}
        width={LEFT}
        height={HIGH}
        fill="url(#loupe)"
        stroke="var(--color-ink)"
        strokeWidth={1.6}
      />
      <rect x={wall} y={0} width={7} height={HIGH} fill="var(--color-copper)" />
      <line
        x1={LEFT + needs * k}
        x2={LEFT + needs * k}
        y1={4}
        y2={HIGH - 4}
        stroke="var(--color-foul)"
        strokeWidth={1.4}
        strokeDasharray="5 4"
      />
      <path
        d={`M${LEFT},26 H${wall} M${LEFT},20 v12 M${wall},20 v12`}
        stroke={colour}
        strokeWidth={2.2}
        fill="none"
        data-gap={Math.abs(has * k).toFixed(1)}
      />
      <circle cx={LEFT} cy={26} r={3} fill={colour} />
      <circle cx={wall} cy={26} r={3} fill={colour} />
      <g transform={`translate(${Math.min(Math.max(LEFT + (has * k) / 2, 40), WIDE - 40)},56)`}>
        <rect x={-30} y={-13} width={60} height={25} rx={5} fill="#fff" stroke={colour} strokeWidth={1.6} />
        <text textAnchor="middle" y={6} fontSize={17} fontWeight={700} fill={colour}>
          {has < 0 ? `−${digits}` : digits}
        </text>
      </g>
      <text x={6} y={HIGH - 8} fontSize={12} stroke="#fff" strokeWidth={4} paintOrder="stroke">
        {inWords(finding.label, 11)}
      </text>
      <text x={Math.min(LEFT + needs * k + 5, WIDE - 90)} y={HIGH - 8} fontSize={12}>
        {gap(needs, units.length, 'up').replace(/\.0$/, '')} wanted
      </text>
    </svg>
  )
}
