/** Gaps on the drawing: a pill with mark, figure and name, tied to the two nearest points. */
import type { Finding } from '../design/types'
import { gap, inWords } from '../ui/format'
import { colourOf, MarkShape } from '../ui/Mark'
import type { Units } from '../ui/format'
import { type Scale, spotOf, tallOf, type ViewName } from './scale'

export interface Placed {
  finding: Finding
  text: string
  from: [number, number]
  to: [number, number]
  x: number
  y: number
  width: number
}

const HIGH = 24

/** A gap upward is seen from the side; all others in plan. */
export function viewOf(finding: Finding): ViewName {
  const [here, there] = finding.points_mm
  if (!here || !there) return 'plan'
  return Math.abs(here[2] - there[2]) > Math.abs(here[1] - there[1]) ? 'side' : 'plan'
}

export interface Area {
  x0: number
  x1: number
  y0: number
  y1: number
}

export function meet(a: Area, b: Area): boolean {
  return a.x0 < b.x1 && a.x1 > b.x0 && a.y0 < b.y1 && a.y1 > b.y0
}

/** Pills beside their gaps, clear of each other and, where there is room, of the boxes. */
export function arrangeFlags(
  findings: Finding[],
  view: ViewName,
  scale: Scale,
  units: Units,
  boxes: Area[],
): Placed[] {
  const out: Placed[] = []
  const tall = tallOf(view, scale)
  for (const finding of findings) {
    const [here, there] = finding.points_mm
    if (!here || !there || viewOf(finding) !== view) continue
    const [from, to] = [spotOf(here, view, scale), spotOf(there, view, scale)]
    const text = inWords(finding.label, 24)
    const width = 40 + gap(finding.value ?? 0, units.length).length * 9 + text.length * 6.4
    const area = ([x, y]: [number, number]): Area => ({
      x0: x - 3,
      x1: x + width + 3,
      y0: y - 2,
      y1: y + HIGH + 2,
    })
    const open = tries(from, width, scale.width, tall).filter(
      (at) => !out.some((o) => meet(area(at), areaOf(o))),
    )
    const [x, y] = open.find((at) => !boxes.some((box) => meet(area(at), box))) ?? open[0] ?? from
    out.push({ finding, text, from, to, x, y, width })
  }
  return out
}

export function areaOf({ x, y, width }: Placed): Area {
  return { x0: x, x1: x + width, y0: y, y1: y + HIGH }
}

/** Places to try for a pill, nearest to its gap first, all inside the view. */
function tries([px, py]: [number, number], width: number, wide: number, tall: number): [number, number][] {
  const steps: [number, number][] = []
  for (const far of [34, 60, 90, 130, 170, 220])
    for (const angle of [-60, -120, -90, 60, 120, 90, 0, 180, -30, -150])
      steps.push([
        px + far * 1.4 * Math.cos((angle * Math.PI) / 180) - width / 2,
        py + far * Math.sin((angle * Math.PI) / 180) - HIGH / 2,
      ])
  return steps.filter(([x, y]) => x > 4 && x + width < wide - 4 && y > 4 && y + HIGH < tall - 4)
}

export function Flags({
  placed,
  units,
  onChoose,
}: {
  placed: Placed[]
  units: Units
  onChoose: (finding: Finding) => void
}) {
  return (
    <g>
      {placed.map(({ finding, text, from, to, x, y, width }) => {
        const colour = colourOf(finding.state)
        return (
          <g
            key={finding.id}
            data-flag={finding.id}
            className="pointer-events-auto cursor-pointer"
            onPointerDown={(e) => (e.stopPropagation(), onChoose(finding))}
          >
            <line
              x1={from[0]}
              y1={from[1]}
              x2={x + width / 2}
              y2={y + HIGH / 2}
              stroke="var(--color-ink)"
              strokeWidth={0.9}
            />
            <line x1={from[0]} y1={from[1]} x2={to[0]} y2={to[1]} stroke={colour} strokeWidth={3} />
            <circle cx={from[0]} cy={from[1]} r={2.4} fill={colour} />
            <circle cx={to[0]} cy={to[1]} r={2.4} fill={colour} />
            <rect
              x={x}
              y={y}
              width={width}
              height={HIGH}
              rx={12}
              fill="#fff"
              stroke={colour}
              strokeWidth={1.8}
            />
            <g transform={`translate(${x + 14},${y + HIGH / 2})`}>
              <MarkShape state={finding.state} />
            </g>
            <text x={x + 26} y={y + 17} fontSize={15} fontWeight={700}>
              {gap(finding.value ?? 0, units.length)}
              <tspan dx={6} fontSize={12.5} fontWeight={500}>
                {text}
              </tspan>
            </text>
          </g>
        )
      })}
    </g>
  )
}
