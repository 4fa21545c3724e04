/**
 * A space's sections, looking forward (or aft, as one turns them), to one scale: metal heavy, open sides not drawn, unmeasured ones dotted. Pressing a
 * wall picks it; corners and points are dragged or moved by the arrow keys.
 */
import { type KeyboardEvent, type PointerEvent, useRef, useState } from 'react'

import { useAnalysis, useLive } from '../../../design/live'
import type { Bay, BayResult, BayStation, Op } from '../../../design/types'
import { Link } from '../../../ui/parts'
import { useTouch } from '../../../ui/touch'
import { across, lookingWords, sidesOf, useFacing } from '../../../views/facing'

type Spot = [number, number]
interface Handle {
  name: string
  at: Spot
  /** Paths of its two figures under the station. */
  across: string[]
  up: string[]
}

const WIDE = 250
const HIGH = 150
const EDGE = 24
const FINGER_PX = 48

export function SectionView({
  id,
  bay,
  wall,
  onWall,
}: {
  id: string
  bay: Bay
  wall: string | null
  onWall: (side: string) => void
}) {
  const figures = useAnalysis().bays[id]
  const facing = useFacing()
  if (!figures) return null
  const scale = scaleOf(figures, facing.aft)
  return (
    <>
      <div
        className="my-2 flex gap-3 overflow-x-auto"
        role="group"
        aria-label={`Sections, ${lookingWords(facing.aft)}`}
      >
        {figures.sections.map((section, i) => (
          <Section
            key={`${section.key}-${i}`}
            path={`/bays/${id}/stations/${section.key}`}
            number={i + 1}
            ring={section.ring as Spot[]}
            sides={section.sides}
            station={bay.stations[section.key] as BayStation}
            bay={bay}
            scale={scale}
            wall={wall}
            onWall={onWall}
            fixed={i > 0 && Object.keys(bay.stations).length === 1}
          />
        ))}
      </div>
      <Link onClick={facing.turn}>Draw them {lookingWords(!facing.aft)}</Link>
    </>
  )
}

type Scale = ReturnType<typeof scaleOf>

function scaleOf(figures: BayResult, aft: boolean) {
  const spots = figures.sections.flatMap((s) => s.ring as Spot[])
  const [xs, zs] = [spots.map((p) => p[0]), spots.map((p) => p[1])]
  const [x0, x1, z0, z1] = [Math.min(...xs), Math.max(...xs), Math.min(...zs), Math.max(...zs)]
  const k = Math.min(WIDE / Math.max(x1 - x0, 1), HIGH / Math.max(z1 - z0, 1))
  const page = across(aft, x0, x1)
  return {
    k,
    aft,
    sign: page.sign,
    width: (x1 - x0) * k + 2 * EDGE,
    height: (z1 - z0) * k + 2 * EDGE + 14,
    x: (v: number) => EDGE + page.out(v) * k,
    y: (v: number) => EDGE + (z1 - v) * k,
  }
}

function Section(props: {
  path: string
  number: number
  ring: Spot[]
  sides: string[]
  station: BayStation
  bay: Bay
  scale: Scale
  wall: string | null
  onWall: (side: string) => void
  fixed: boolean
}) {
  const { ring, sides, bay, scale, wall, onWall, number } = props
  const [leftWord, rightWord] = sidesOf(scale.aft)
  const edges = ring.map((from, i) => ({
    from,
    to: ring[(i + 1) % ring.length] as Spot,
    side: sides[i] as keyof Bay['sides'],
  }))
  return (
    <svg width={scale.width} height={scale.height} className="shrink-0 overflow-visible">
      <polygon
        points={ring.map(([x, z]) => `${scale.x(x)},${scale.y(z)}`).join(' ')}
        fill="#fff"
        stroke="none"
      />
      {edges.map(({ from, to, side }, i) => (
        <Wall
          key={i}
          from={from}
          to={to}
          is={bay.sides[side].is}
          scale={scale}
          picked={wall === side}
          onPick={() => onWall(side)}
        />
      ))}
      {!props.fixed &&
        handlesOf(props.station).map((handle) => (
          <Grip key={handle.name} {...props} handle={handle} label={`station ${number}, ${handle.name}`} />
        ))}
      <text x={scale.width / 2} y={scale.height - 4} textAnchor="middle" fontSize="12">
        station {number}, {lookingWords(scale.aft)}
      </text>
      <text
        x={8}
        y={scale.height / 2}
        fontSize="12"
        fontWeight={700}
        fill="var(--color-soft)"
        writingMode="vertical-rl"
      >
        {leftWord}
      </text>
      <text
        x={scale.width - 8}
        y={scale.height / 2}
        fontSize="12"
        fontWeight={700}
        fill="var(--color-soft)"
        writingMode="vertical-rl"
      >
        {rightWord}
      </text>
    </svg>
  )
}

function Wall({
  from,
  to,
  is,
  scale,
  picked,
  onPick,
}: {
  from: Spot
  to: Spot
  is: string
  scale: Scale
  picked: boolean
  onPick: () => void
}) {
  const d = `M${scale.x(from[0])},${scale.y(from[1])} L${scale.x(to[0])},${scale.y(to[1])}`
  return (
    <g onClick={onPick} className="cursor-pointer">
      <path d={d} stroke="transparent" strokeWidth={16} fill="none" />
      <path
        d={d}
        fill="none"
        stroke={picked ? 'var(--color-blue)' : 'var(--color-ink)'}
        strokeWidth={picked ? 5 : is === 'metal' ? 3 : 1}
        strokeDasharray={is === 'metal' ? undefined : is === 'open' ? '2 7' : '2 3'}
      />
    </g>
  )
}

function Grip({ path, scale, handle, label }: { path: string; scale: Scale; handle: Handle; label: string }) {
  const edit = useLive((s) => s.edit)
  const [by, setBy] = useState<Spot>([0, 0])
  const touch = useTouch()
  const start = useRef<Spot | null>(null)
  const latest = useRef<Spot>([0, 0])
  const put = ([dx, dz]: Spot) => {
    const patch: Op[] = [
      ...handle.across.map((p) => ({
        op: 'replace' as const,
        path: `${path}/${p}`,
        value: Math.round(handle.at[0] + dx),
      })),
      ...handle.up.map((p) => ({
        op: 'replace' as const,
        path: `${path}/${p}`,
        value: Math.round(handle.at[1] + dz),
      })),
    ].filter((op) => (handle.across.some((p) => op.path.endsWith(p)) ? dx !== 0 : dz !== 0))
    if (patch.length) void edit(patch).then(() => setBy([0, 0]))
  }
  function follow(event: PointerEvent) {
    if (!start.current) return
    latest.current = [
      Math.round((scale.sign * (event.clientX - start.current[0])) / scale.k),
      Math.round((start.current[1] - event.clientY) / scale.k),
    ]
    setBy(latest.current)
  }
  function keys(event: KeyboardEvent) {
    const way = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] }[event.key]
    if (!way) return
    event.preventDefault()
    event.stopPropagation()
    const step = event.shiftKey ? 10 : 1
    put([(way[0] ?? 0) * scale.sign * step, (way[1] ?? 0) * step])
  }
  return (
    <g
      ref={holdsFinger}
      role="button"
      tabIndex={0}
      aria-label={`${label}: drag it, or arrow keys`}
      transform={`translate(${scale.x(handle.at[0] + by[0])},${scale.y(handle.at[1] + by[1])})`}
      className="cursor-move touch-none"
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId)
        start.current = [event.clientX, event.clientY]
      }}
      onPointerMove={follow}
      onPointerUp={() => {
        start.current = null
        if (latest.current[0] || latest.current[1]) put(latest.current)
        latest.current = [0, 0]
      }}
      onPointerCancel={() => {
        start.current = null
        latest.current = [0, 0]
        setBy([0, 0])
      }}
      onKeyDown={keys}
    >
      <title>{label}</title>
      {touch && <circle r={FINGER_PX / 2} fill="transparent" />}
      <circle r={touch ? 11 : 7} fill="var(--color-sheet)" stroke="var(--color-blue)" strokeWidth={2} />
    </g>
  )
}

/** A finger on it drags it and does not scroll the sections. */
function holdsFinger(element: SVGGElement | null) {
  const still = (event: TouchEvent) => event.preventDefault()
  element?.addEventListener('touchstart', still, { passive: false })
  return () => element?.removeEventListener('touchstart', still)
}

/** What of a station can be moved by hand, where it stands and which figures it is. */
function handlesOf(station: BayStation): Handle[] {
  if (station.type === 'sides')
    return [
      ['left floor', station.left_floor_mm, station.floor_mm, 'left_floor_mm', 'floor_mm'],
      ['right floor', station.right_floor_mm, station.floor_mm, 'right_floor_mm', 'floor_mm'],
      ['right top', station.right_top_mm, station.top_right_mm, 'right_top_mm', 'top_right_mm'],
      ['left top', station.left_top_mm, station.top_left_mm, 'left_top_mm', 'top_left_mm'],
    ].map(([name, x, z, across, up]) => ({
      name: String(name),
      at: [Number(x), Number(z)],
      across: [String(across)],
      up: [String(up)],
    }))
  if (station.type === 'points')
    return Object.entries(station.points).map(([key, p]) => ({
      name: `point ${p.order + 1}`,
      at: [p.across_mm, p.up_mm],
      across: [`points/${key}/across_mm`],
      up: [`points/${key}/up_mm`],
    }))
  return []
}
