/** Everything with a shape: spaces, things in the way, boxes with their modules, hard points. */
import { memo } from 'react'

import { boxOf } from '../design/choice'
import type { Document, Shape } from '../design/types'
import { useCut } from './cut'
import type { Area } from './Flags'
import { target } from './hits'
import { freeOf, type Spot, strokesOf } from './naming'
import { patternOf } from './Patterns'
import { type Scale, spotOf, type ViewName } from './scale'

interface Props {
  shapes: readonly Shape[]
  view: ViewName
  scale: Scale
  selected: string | null
  /** Paths that a chosen finding speaks of; the rest is faint. Empty: nothing is faint. */
  spoken: readonly string[]
}

/** A shape's outline on the sheet. */
function ringOf(shape: Shape, view: ViewName, { x, y, z }: Scale): Spot[] {
  const polygon = view === 'plan' ? shape.plan : shape.side
  const other = view === 'plan' ? y : z
  return polygon.map(([a, b]) => [x(a), other(b)])
}

export function pointsOf(shape: Shape, view: ViewName, scale: Scale): string {
  return ringOf(shape, view, scale)
    .map(([x, y]) => `${x.toFixed(1)},${y.toFixed(1)}`)
    .join(' ')
}

export function isChosen(shape: Shape, selected: string | null): boolean {
  if (!selected) return false
  if (selected.includes('#')) return target(shape) === selected
  return shape.path === selected || (shape.owner === selected && shape.kind !== 'terminal')
}

function faint(shape: Shape, spoken: readonly string[]): boolean {
  return (
    spoken.length > 0 &&
    !spoken.some((p) => shape.path === p || shape.owner === p || p.startsWith(shape.path))
  )
}

/** Things that stand still: spaces, keep-outs, obstacles. */
export const Surroundings = memo(function Surroundings({
  shapes,
  view,
  scale,
  selected,
  patterns,
  spoken,
}: Props & { patterns: string }) {
  return (
    <g>
      {shapes.map((shape, i) => {
        if (shape.owner.startsWith('boxes/') || shape.kind === 'bay') return null
        const points = pointsOf(shape, view, scale)
        const opacity = faint(shape, spoken) ? 0.3 : 1
        if (shape.kind === 'bay side')
          return <BaySide key={i} shape={shape} points={points} opacity={opacity} />
        const chosen = isChosen(shape, selected)
        const gone = shape.kind === 'gone' || shape.kind === 'payload'
        return (
          <g key={i} opacity={opacity} data-path={shape.path}>
            <polygon points={points} fill={gone ? 'none' : '#fff'} fillOpacity={0.55} />
            <polygon
              points={points}
              fill={gone ? 'none' : `url(#${patterns}-${patternOf(shape.kind, shape.gap_class)})`}
              stroke={chosen ? 'var(--color-blue)' : '#3a404a'}
              strokeWidth={chosen ? 3 : shape.kind === 'crush' ? 0 : 0.9}
              strokeDasharray={gone ? '4 4' : undefined}
            />
          </g>
        )
      })}
    </g>
  )
})

/** A side is metal (heavy dashes), open (not drawn) or not measured (dots). */
function BaySide({ shape, points, opacity }: { shape: Shape; points: string; opacity: number }) {
  if (shape.label === 'open') return null
  const metal = shape.label === 'metal'
  return (
    <polygon
      points={points}
      opacity={opacity}
      fill="none"
      stroke="var(--color-ink)"
      strokeWidth={metal ? 1.6 : 1}
      strokeDasharray={metal ? '7 4' : '1.5 5'}
    />
  )
}

/** What is faint is faint as a whole, or what lies under a module would show through it. */
export const Boxes = memo(function Boxes({ shapes, view, scale, selected, spoken }: Props) {
  const own = shapes.filter((shape) => shape.owner.startsWith('boxes/'))
  const draw = (shape: Shape, i: number) => <BoxShape key={i} {...{ shape, view, scale, selected }} />
  return (
    <g>
      <g opacity={0.35}>{own.filter((shape) => faint(shape, spoken)).map(draw)}</g>
      {own.filter((shape) => !faint(shape, spoken)).map(draw)}
    </g>
  )
})

function BoxShape({
  shape,
  view,
  scale,
  selected,
}: {
  shape: Shape
  view: ViewName
  scale: Scale
  selected: string | null
}) {
  const points = pointsOf(shape, view, scale)
  const chosen = isChosen(shape, selected)
  const look = LOOKS[shape.kind] ?? LOOKS['tray']
  return (
    <g data-path={shape.path} data-kind={shape.kind}>
      <polygon
        points={points}
        {...look}
        {...(chosen && shape.kind !== 'module'
          ? { stroke: 'var(--color-blue)', strokeWidth: shape.kind === 'tray' ? 3.6 : 1.8 }
          : {})}
        {...(chosen && shape.kind === 'module' && selected?.includes('#')
          ? { stroke: 'var(--color-blue)', strokeWidth: 3 }
          : {})}
      />
      {(shape.kind === 'module' || shape.kind === 'terminal') && (
        <Label shape={shape} view={view} scale={scale} />
      )}
    </g>
  )
}

const LOOKS: Record<string, object> = {
  tray: { fill: '#f7ebdd', fillOpacity: 0.85, stroke: 'var(--color-copper)', strokeWidth: 2.6 },
  lid: { fill: 'none', stroke: 'var(--color-copper)', strokeWidth: 1 },
  head: { fill: 'var(--color-copper)', stroke: 'none' },
  bracket: { fill: '#d9d3c4', fillOpacity: 0.9, stroke: 'var(--color-ink)', strokeWidth: 1 },
  module: { fill: '#e2eae7', stroke: 'var(--color-slate)', strokeWidth: 1.1 },
  terminal: { fill: 'var(--color-slate)', stroke: 'none' },
}

function middle(
  shape: Shape,
  view: ViewName,
  scale: Scale,
): { at: [number, number]; wide: number; tall: number } {
  const ring = ringOf(shape, view, scale)
  const [xs, ys] = [ring.map(([x]) => x), ring.map(([, y]) => y)]
  const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)]
  return { at: [(x0 + x1) / 2, (y0 + y1) / 2], wide: x1 - x0, tall: y1 - y0 }
}

/** The number of a module or the sign of a terminal, where there is room for it; it steps aside for the cut line. */
function Label({ shape, view, scale }: { shape: Shape; view: ViewName; scale: Scale }) {
  const cut = useCut((s) => s.aft)
  const { at, wide, tall } = middle(shape, view, scale)
  const module = shape.kind === 'module'
  const past = cut === null || !module ? Infinity : at[0] - scale.x(cut)
  if (tall < (module ? 12 : 9) || (module && wide < 12)) return null
  return (
    <text
      x={Math.abs(past) < BESIDE_PX ? at[0] - past + BESIDE_PX : at[0]}
      y={at[1] + 4.5}
      textAnchor="middle"
      fontSize={module ? 13 : 12}
      fontWeight={700}
      fill={module ? 'var(--color-slate-ink)' : '#fff'}
    >
      {shape.label}
    </text>
  )
}

const BESIDE_PX = 12 // a module's number from the cut line
const BEYOND_PX = 28 // past the legs of a box's mounts
const EDGE_PX = 24 // the words at the views' left edge

/** Names, where there is room for them inside; what is selected is always named. */
export function Names({
  shapes,
  view,
  scale,
  selected,
  weights,
  reserved,
}: Props & { weights: Record<string, string>; reserved: Area[] }) {
  const taken: Area[] = [...reserved]
  const rows: { key: string; x: number; y: number; text: string; strong: boolean; chosen: boolean }[] = []
  const wanted = shapes.filter(
    (s) =>
      ['tray', 'item', 'keepout', 'crush'].includes(s.kind) || (s.label === 'leg A' && s.path === selected),
  )
  const lines = shapes
    .filter((s) => s.kind === 'bay side' && s.label !== 'open')
    .flatMap((s) => strokesOf(ringOf(s, view, scale)))
  const order = (s: Shape) => (isChosen(s, selected) ? 0 : s.kind === 'tray' ? 1 : 2)
  for (const shape of [...wanted].sort((a, b) => order(a) - order(b))) {
    const { at, wide, tall } = middle(shape, view, scale)
    const box = shape.kind === 'tray'
    const chosen = isChosen(shape, selected)
    const text = box ? (weights[boxOf(shape.path) ?? ''] ?? shape.name) : shape.name
    const width = text.length * (box ? 7.2 : 6.2) + 8
    if (!box && shape.path !== selected && (wide < width || tall < 15)) continue
    const low = at[1] + tall / 2 + 16
    const high = at[1] - tall / 2 - (box ? 26 : 6)
    const [x, y] = at
    const inside = [x, x - wide / 4, x + wide / 4].map((v) => [v, y + 4] as const)
    const outside = [low, high, high - 12, low + 10, low + 20, low + BEYOND_PX, high - 24, low + 38].map(
      (v) => [x, v] as const,
    )
    const spots = box ? outside : wide < width ? outside.slice(1, 2) : inside
    const areas = spots.map(([v, w]) => ({ x0: v - width / 2, x1: v + width / 2, y0: w - 12, y1: w + 3 }))
    const seen = areas.filter((a) => a.x0 > EDGE_PX && a.x1 < scale.width)
    const area =
      freeOf(seen, taken, box ? lines : []) ?? (box || shape.path === selected ? areas[0] : undefined)
    if (!area) continue
    taken.push(area)
    const spot = { x: (area.x0 + area.x1) / 2, y: area.y1 - 3 }
    rows.push({ key: shape.path + view, ...spot, text, strong: box, chosen })
  }
  return (
    <g>
      {rows.map((row) => (
        <text
          key={row.key}
          x={row.x}
          y={row.y}
          textAnchor="middle"
          fontSize={row.strong ? 14 : 12}
          fontWeight={row.strong ? 700 : 500}
          fill={row.chosen ? 'var(--color-blue)' : 'var(--color-ink)'}
          stroke="var(--color-paper)"
          strokeWidth={4}
          paintOrder="stroke"
          style={{ fontStretch: '90%' }}
        >
          {row.text}
        </text>
      ))}
    </g>
  )
}

/** Where hard points are drawn, so that names keep off them. */
export function pointAreas({ hardpoints }: Document, view: ViewName, scale: Scale): Area[] {
  return Object.values(hardpoints).map((point) => {
    const [x, y] = spotOf(point.at_mm as [number, number, number], view, scale)
    return { x0: x - 8, x1: x + 8, y0: y - 8, y1: y + 8 }
  })
}

/** Hard points: crosses in small circles. */
export function HardPoints({
  document,
  view,
  scale,
  selected,
}: {
  document: Document
  view: ViewName
  scale: Scale
  selected: string | null
}) {
  return (
    <g>
      {Object.entries(document.hardpoints).map(([id, point]) => {
        const [x, y] = spotOf(point.at_mm as [number, number, number], view, scale)
        const chosen = selected === `hardpoints/${id}`
        return (
          <g
            key={id}
            className="pointer-events-auto" // for its title
            stroke={chosen ? 'var(--color-blue)' : 'var(--color-ink)'}
            strokeWidth={chosen ? 2.6 : 1.2}
            fill="#fff"
          >
            <title>{point.name}</title>
            {chosen && (
              <text
                x={x}
                y={y - 12}
                textAnchor="middle"
                fontSize={13}
                fontWeight={700}
                fill="var(--color-blue)"
                stroke="none"
              >
                {point.name}
              </text>
            )}
            <circle cx={x} cy={y} r={4.5} />
            <path d={`M${x - 7},${y} H${x + 7} M${x},${y - 7} V${y + 7}`} fill="none" />
          </g>
        )
      })}
    </g>
  )
}

/** Where the boxes are drawn, so that words keep off them. */
export function boxAreas(shapes: readonly Shape[], view: ViewName, scale: Scale): Area[] {
  return shapes
    .filter((s) => s.kind === 'tray')
    .map((s) => {
      const { at, wide, tall } = middle(s, view, scale)
      return { x0: at[0] - wide / 2, x1: at[0] + wide / 2, y0: at[1] - tall / 2, y1: at[1] + tall / 2 }
    })
}
