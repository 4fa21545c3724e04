/** The dimension to take, lit in a view: in a space's section, along an axis of the car, or at a wheel on its scale. */
import { useLayoutEffect, useRef, useState } from 'react'

import { useAnalysis, useDocument } from '../../../design/live'
import { at } from '../../../design/pointer'
import type { BayResult, Shape } from '../../../design/types'
import { Car } from '../../../views/Car'
import { across, lookingWords, sidesOf, useFacing } from '../../../views/facing'
import { carWindow, makeScale, type Scale, tallOf, type ViewName } from '../../../views/scale'

type Spot = [number, number]

export function Lit({ path, base }: { path: string; base: [number, number, number] | null }) {
  const steps = path.split('/').slice(1)
  const figures = useAnalysis().bays[steps[1] ?? '']
  if (steps[0] === 'bays' && steps[2] === 'stations' && figures)
    return <LitSection figures={figures} station={steps[3] ?? ''} name={steps.slice(4)} path={path} />
  return <LitCar path={path} base={base} />
}

const EDGE = 46

/** Which line of a section a figure is: between two of its corners, or up from the lowest. */
function LitSection({
  figures,
  station,
  name,
  path,
}: {
  figures: BayResult
  station: string
  name: string[]
  path: string
}) {
  const document = useDocument()
  const { aft } = useFacing()
  const section = figures.sections.find((s) => s.key === station)
  if (!section) return null
  const ring = section.ring as Spot[]
  const [xs, zs] = [ring.map((p) => p[0]), ring.map((p) => p[1])]
  const [x0, x1, z0, z1] = [Math.min(...xs), Math.max(...xs), Math.min(...zs), Math.max(...zs)]
  const k = Math.min(520 / Math.max(x1 - x0, 1), 330 / Math.max(z1 - z0, 1))
  const x = (v: number) => EDGE + across(aft, x0, x1).out(v) * k
  const [leftWord, rightWord] = sidesOf(aft)
  const y = (v: number) => EDGE + (z1 - v) * k
  const [width, height] = [(x1 - x0) * k + 2 * EDGE, (z1 - z0) * k + 2 * EDGE]
  const parent = at(document, path.split('/').slice(0, -1).join('/')) as Record<string, number>
  const line = litLine(name, ring, [x0, x1, z0, z1], parent)
  return (
    <svg viewBox={`0 0 ${width} ${height}`} className="h-full max-h-[460px] w-full" aria-hidden="true">
      <polygon
        points={ring.map(([a, b]) => `${x(a)},${y(b)}`).join(' ')}
        fill="#fff"
        stroke="var(--color-ink)"
        strokeWidth={2.5}
      />
      {x0 < 0 && x1 > 0 && (
        <line
          x1={x(0)}
          x2={x(0)}
          y1={8}
          y2={height - 8}
          stroke="#9a958a"
          strokeWidth={0.9}
          strokeDasharray="9 4 2 4"
        />
      )}
      {line && <Heavy from={[x(line[0][0]), y(line[0][1])]} to={[x(line[1][0]), y(line[1][1])]} />}
      <text x={width / 2} y={20} textAnchor="middle" fontSize={14}>
        {name[0] === 'aft_mm' ? 'how far aft this section is taken' : lookingWords(aft)}
      </text>
      {[leftWord, rightWord].map((word, i) => (
        <text
          key={word}
          x={i ? width - 6 : 6}
          y={height - 8}
          textAnchor={i ? 'end' : 'start'}
          fontSize={13}
          fontWeight={700}
        >
          {word}
        </text>
      ))}
    </svg>
  )
}

function litLine(
  name: string[],
  ring: Spot[],
  [x0, x1, z0, z1]: [number, number, number, number],
  parent: Record<string, number>,
): [Spot, Spot] | null {
  const word = name[0] ?? ''
  const mid = (x0 + x1) / 2
  const near = (wantX: number, wantZ: number) =>
    [...ring].sort(
      (a, b) => Math.hypot(a[0] - wantX, a[1] - wantZ) - Math.hypot(b[0] - wantX, b[1] - wantZ),
    )[0] as Spot
  const [lowLeft, lowRight] = [near(x0, z0), near(x1, z0)]
  const [topLeft, topRight] = [near(x0, z1), near(x1, z1)]
  const fromMiddle = (corner: Spot): [Spot, Spot] => [[x0 < 0 && x1 > 0 ? 0 : mid, corner[1]], corner]
  const lines: Record<string, [Spot, Spot]> = {
    floor_mm: [
      [mid, z0 - (z1 - z0) * 0.12],
      [mid, z0],
    ],
    up_mm: [
      [mid, z0],
      [mid, z1],
    ],
    top_left_mm: [[topLeft[0], z0], topLeft],
    top_right_mm: [[topRight[0], z0], topRight],
    left_floor_mm: fromMiddle(lowLeft),
    right_floor_mm: fromMiddle(lowRight),
    left_top_mm: fromMiddle(topLeft),
    right_top_mm: fromMiddle(topRight),
    width_floor_mm: [lowLeft, lowRight],
    width_top_mm: [topLeft, topRight],
    offset_mm: [
      [0, z0],
      [mid, z0],
    ],
    left_lean_deg: [lowLeft, topLeft],
    right_lean_deg: [lowRight, topRight],
  }
  if (word === 'points' && parent.across_mm !== undefined && parent.up_mm !== undefined)
    return name[2] === 'up_mm'
      ? [
          [parent.across_mm, z0],
          [parent.across_mm, parent.up_mm],
        ]
      : [
          [x0 < 0 && x1 > 0 ? 0 : x0, parent.up_mm],
          [parent.across_mm, parent.up_mm],
        ]
  if (word === 'depths' && parent.across_mm !== undefined && parent.depth_mm !== undefined)
    return [
      [parent.across_mm, z1],
      [parent.across_mm, z1 - parent.depth_mm],
    ]
  return lines[word] ?? null
}

function Heavy({ from, to }: { from: Spot; to: Spot }) {
  return (
    <g stroke="var(--color-blue)" fill="var(--color-blue)">
      <line x1={from[0]} y1={from[1]} x2={to[0]} y2={to[1]} strokeWidth={6} strokeLinecap="round" />
      {[from, to].map(([cx, cy], i) => (
        <circle key={i} cx={cx} cy={cy} r={i ? 9 : 5} />
      ))}
    </g>
  )
}

function LitCar({ path, base }: { path: string; base: [number, number, number] | null }) {
  const document = useDocument()
  const { shapes } = useAnalysis()
  const frame = useRef<HTMLDivElement>(null)
  const [size, setSize] = useState({ width: 600, height: 420 })
  useLayoutEffect(() => {
    const box = frame.current as HTMLDivElement
    const watch = new ResizeObserver(
      () => box.clientWidth > 0 && setSize({ width: box.clientWidth, height: box.clientHeight }),
    )
    watch.observe(box)
    return () => watch.disconnect()
  }, [])
  const scale = makeScale(carWindow(document, shapes), size.width, size.height)
  const lit = litPlace(path, base, document)
  return (
    <div ref={frame} className="h-full min-h-[240px] overflow-hidden" aria-hidden="true">
      {(['plan', 'side'] as const).map((view) => (
        <svg key={view} width={scale.width} height={tallOf(view, scale)} className="block">
          <Car vehicle={document.vehicle} scale={scale} view={view} />
          <Faint shapes={shapes} scale={scale} view={view} />
          {lit && <LitIn lit={lit} scale={scale} view={view} />}
        </svg>
      ))}
    </div>
  )
}

function Faint({ shapes, scale, view }: { shapes: readonly Shape[]; scale: Scale; view: ViewName }) {
  return shapes
    .filter((s) => s.kind === 'bay' || s.kind === 'item')
    .map((s, i) => (
      <polygon
        key={i}
        points={(view === 'plan' ? s.plan : s.side)
          .map(([a = 0, b = 0]) => `${scale.x(a)},${view === 'plan' ? scale.y(b) : scale.z(b)}`)
          .join(' ')}
        fill="none"
        stroke="#b9b4a6"
      />
    ))
}

type Place = [number, number, number]

/** From where to where a figure of a place counts; a wheel or an axle for a weight. */
function litPlace(
  path: string,
  base: Place | null,
  { vehicle, ...document }: ReturnType<typeof useDocument>,
): { from: Place; to: Place } | null {
  const steps = path.split('/').slice(1)
  const last = steps.at(-1) ?? ''
  if (/^[012]$/.test(last)) {
    const spot = at({ vehicle, ...document }, path.slice(0, -2)) as Place | null
    if (!spot) return null
    const axis = Number(last)
    const from = spot.map((v, i) => (i === axis ? (base?.[axis] ?? 0) : v)) as Place
    return { from, to: spot }
  }
  const half = (vehicle.track_mm?.front ?? 1400) / 2
  const aft = vehicle.wheelbase_mm
  const radius = vehicle.overall?.tyre_radius_mm ?? 300
  const wheel = (x: number, y: number): { from: Place; to: Place } => ({
    from: [x, y, radius],
    to: [x, y, 0],
  })
  const axle = (x: number): { from: Place; to: Place } => ({ from: [x, -half, 0], to: [x, half, 0] })
  const found: Record<string, { from: Place; to: Place }> = {
    lf_kg: wheel(0, -half),
    rf_kg: wheel(0, half),
    lr_kg: wheel(aft, -half),
    rr_kg: wheel(aft, half),
    lf_mm: wheel(0, -half),
    rf_mm: wheel(0, half),
    lr_mm: wheel(aft, -half),
    rr_mm: wheel(aft, half),
    front_kg: axle(0),
    rear_kg: axle(aft),
    front: axle(0),
    rear: axle(aft),
    wheelbase_mm: { from: [0, -half, radius], to: [aft, -half, radius] },
  }
  return found[last] ?? null
}

function LitIn({ lit, scale, view }: { lit: { from: Place; to: Place }; scale: Scale; view: ViewName }) {
  const spot = ([aft, right, up]: Place): Spot => [
    scale.x(aft),
    view === 'plan' ? scale.y(right) : scale.z(up),
  ]
  return <Heavy from={spot(lit.from)} to={spot(lit.to)} />
}
