/** An opening in the opened box: dragged, or moved by the arrows; its distances from its edges stand beside it meanwhile. */
import { useRef, useState } from 'react'

import type { BoxOpened } from '../../design/types'
import { length } from '../../ui/format'
import { useUnits } from '../../ui/units'
import { movedTo } from './faceMoves'
import { here, type useOnFace } from './useOnFace'

type OpenedHole = BoxOpened['faces'][number]['holes'][number]
type At = readonly [number, number]
const STILL_PX = 6
const ARROWS: Record<string, At> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
}

export function Hole(props: {
  hole: OpenedHole
  at: (p: At) => At
  scale: number
  /** Where its face ends at the right, in the drawing: its name stays within that. */
  edge: number
  hand: ReturnType<typeof useOnFace>
}) {
  const { hole, at, scale, edge, hand } = props
  const units = useUnits()
  const from = useRef<{ x: number; y: number; drags: boolean; mm: At } | null>(null)
  const [looked, look] = useState(false)
  const { place } = hole
  if (!place) return <Ring at={at(hole.at)} radius={radiusOf(hole, scale)} />
  const mm = hand.moved?.path === hole.path ? hand.moved.mm : place.mm
  const off = (axis: 0 | 1) =>
    [0, 1].reduce((sum, i) => sum + ((mm[i] ?? 0) - (place.mm[i] ?? 0)) * (place.ways[i]?.[axis] ?? 0), 0)
  const middle: At = [hole.at[0] + off(0), hole.at[1] + off(1)]
  const [x, y] = at(middle)
  const figure = (i: 0 | 1) => `${length(mm[i], units.length)} from the ${place.edges[i]}`
  const byPx = (svg: SVGGraphicsElement, dx: number, dy: number): At => {
    const px = (svg.getScreenCTM()?.a ?? 1) * scale
    return [dx / px, -dy / px]
  }
  return (
    <g
      role="button"
      tabIndex={0}
      aria-label={`${hole.name}, ${figure(0)}, ${figure(1)}: arrows move it`}
      className="cursor-move touch-none select-none outline-none focus-visible:[&>circle]:stroke-[3]"
      onPointerDown={(event) => {
        from.current = { x: event.clientX, y: event.clientY, drags: false, mm: here(hole.path ?? '') }
        event.currentTarget.setPointerCapture(event.pointerId)
      }}
      onPointerMove={(event) => {
        const held = from.current
        if (!held) return
        const [dx, dy] = [event.clientX - held.x, event.clientY - held.y]
        held.drags ||= Math.hypot(dx, dy) >= STILL_PX
        if (held.drags) hand.follow(hole, movedTo(place.ways, held.mm, byPx(event.currentTarget, dx, dy)))
      }}
      onPointerUp={() => {
        const dragged = from.current?.drags
        from.current = null
        if (dragged) void hand.release()
      }}
      onPointerCancel={() => {
        from.current = null
        hand.cancel()
      }}
      onKeyDown={(event) => {
        const way = ARROWS[event.key]
        if (event.key === 'Escape') {
          from.current = null
          hand.cancel()
        }
        if (!way) return
        event.preventDefault()
        event.stopPropagation()
        const step = event.shiftKey ? 10 : 1
        hand.nudge(hole, [way[0] * step, way[1] * step])
      }}
      onFocus={() => look(true)}
      onBlur={() => {
        look(false)
        void hand.release()
      }}
    >
      {(looked || hand.moved?.path === hole.path) &&
        ([0, 1] as const).map((i) => (
          <Distance
            key={i}
            from={[x, y]}
            to={at(edgeOf(middle, place.ways[i], mm[i]))}
            words={length(mm[i], units.length)}
          />
        ))}
      <circle cx={x} cy={y} r={24} className="fill-transparent stroke-none" />
      <Ring at={[x, y]} radius={radiusOf(hole, scale)} />
      <Name at={[x, y]} off={radiusOf(hole, scale) + 4} edge={edge}>
        {hole.name}
      </Name>
    </g>
  )
}

const radiusOf = (hole: OpenedHole, scale: number) => Math.max((hole.diameter_mm * scale) / 2, 2.5)
const edgeOf = (middle: At, way: At, mm: number): At => [middle[0] - way[0] * mm, middle[1] - way[1] * mm]

const LETTER_PX = 6.2 // about as wide as one is

function Name({ at, off, edge, children }: { at: At; off: number; edge: number; children: string }) {
  const left = at[0] + off + LETTER_PX * children.length > edge
  return (
    <text
      x={left ? at[0] - off : at[0] + off}
      y={at[1] + 4}
      textAnchor={left ? 'end' : 'start'}
      className="fill-ink"
      fontSize={12}
    >
      {children}
    </text>
  )
}

function Ring({ at, radius }: { at: At; radius: number }) {
  return <circle cx={at[0]} cy={at[1]} r={radius} className="fill-white stroke-ink" />
}

function Distance({ from, to, words }: { from: At; to: At; words: string }) {
  return (
    <g>
      <line x1={from[0]} y1={from[1]} x2={to[0]} y2={to[1]} className="stroke-blue" strokeWidth={1} />
      <text
        x={(from[0] + to[0]) / 2 + 4}
        y={(from[1] + to[1]) / 2 - 4}
        className="narrow fill-blue stroke-paper"
        style={{ paintOrder: 'stroke' }}
        strokeWidth={4}
        fontSize={14}
        fontWeight={700}
      >
        {words}
      </text>
    </g>
  )
}
