/** What sits on a face of the opened box: dragged, or moved by the arrows; its distances from its edges stand beside it
 * meanwhile. */
import { type ReactNode, useRef, useState } from 'react'

import type { BoxOpened } from '../../design/types'
import { length } from '../../ui/format'
import { useUnits } from '../../ui/units'
import { movedTo } from './faceMoves'
import { here, type useOnFace } from './useOnFace'

type Face = BoxOpened['faces'][number]
type OpenedHole = Face['holes'][number]
type OpenedThing = Face['things'][number]
type At = readonly [number, number]
const STILL_PX = 6
const ARROWS: Record<string, At> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
}

interface Drawn {
  at: (p: At) => At
  scale: number
  /** Where its face ends at the right, in the drawing: its name stays within that. */
  edge: number
  hand: ReturnType<typeof useOnFace>
}

export function Hole({ hole, ...drawn }: Drawn & { hole: OpenedHole }) {
  const radius = radiusOf(hole, drawn.scale)
  if (!hole.path || !hole.place) return <Ring at={drawn.at(hole.at)} radius={radius} />
  return (
    <OnWall thing={{ ...hole, path: hole.path, place: hole.place }} nameOff={radius + 4} {...drawn}>
      {([x, y]) => (
        <>
          <circle cx={x} cy={y} r={24} className="fill-transparent stroke-none" />
          <Ring at={[x, y]} radius={radius} />
        </>
      )}
    </OnWall>
  )
}

/** A service panel, a chamber or gear. */
export function Thing({ thing, ...drawn }: Drawn & { thing: OpenedThing }) {
  const { at } = drawn
  const [x0, y0] = at(thing.at)
  return (
    <OnWall thing={thing} nameOff={0} {...drawn}>
      {([x, y]) =>
        thing.rects.map((rect, n) => {
          const [left, foot] = at(rect.low)
          const [right, head] = at(rect.high)
          return (
            <rect
              key={n}
              x={left + x - x0}
              y={head + y - y0}
              width={right - left}
              height={foot - head}
              className="fill-white/60 stroke-ink"
              strokeDasharray={n ? '2 3' : undefined}
            />
          )
        })
      }
    </OnWall>
  )
}

function OnWall(
  props: Drawn & {
    thing: Pick<OpenedThing, 'name' | 'path' | 'at' | 'place'>
    nameOff: number
    children: (at: At) => ReactNode
  },
) {
  const { thing, at, scale, edge, hand } = props
  const units = useUnits()
  const from = useRef<{ x: number; y: number; drags: boolean; mm: At } | null>(null)
  const [looked, look] = useState(false)
  const { place } = thing
  const mm = hand.moved?.path === thing.path ? hand.moved.mm : place.mm
  const off = (axis: 0 | 1) =>
    [0, 1].reduce((sum, i) => sum + ((mm[i] ?? 0) - (place.mm[i] ?? 0)) * (place.ways[i]?.[axis] ?? 0), 0)
  const middle: At = [thing.at[0] + off(0), thing.at[1] + off(1)]
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
      aria-label={`${thing.name}, ${figure(0)}, ${figure(1)}: arrows move it`}
      className="cursor-move touch-none select-none outline-none focus-visible:[&>circle]:stroke-[3] focus-visible:[&>rect]:stroke-[3]"
      onPointerDown={(event) => {
        from.current = { x: event.clientX, y: event.clientY, drags: false, mm: here(thing.path) }
        event.currentTarget.setPointerCapture(event.pointerId)
      }}
      onPointerMove={(event) => {
        const held = from.current
        if (!held) return
        const [dx, dy] = [event.clientX - held.x, event.clientY - held.y]
        held.drags ||= Math.hypot(dx, dy) >= STILL_PX
        if (held.drags) hand.follow(thing, movedTo(place.ways, held.mm, byPx(event.currentTarget, dx, dy)))
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
        hand.nudge(thing, [way[0] * step, way[1] * step])
      }}
      onFocus={() => look(true)}
      onBlur={() => {
        look(false)
        void hand.release()
      }}
    >
      {(looked || hand.moved?.path === thing.path) &&
        ([0, 1] as const).map((i) => (
          <Distance
            key={i}
            from={[x, y]}
            to={at(edgeOf(middle, place.ways[i], mm[i]))}
            words={length(mm[i], units.length)}
          />
        ))}
      {props.children([x, y])}
      <Name at={[x, y]} off={props.nameOff} edge={edge}>
        {thing.name}
      </Name>
    </g>
  )
}

const radiusOf = (hole: OpenedHole, scale: number) => Math.max((hole.diameter_mm * scale) / 2, 2.5)
const edgeOf = (middle: At, way: At, mm: number): At => [middle[0] - way[0] * mm, middle[1] - way[1] * mm]

const LETTER_PX = 6.2 // about as wide as one is

/** Beside what it names; across its middle where there is nothing to stand beside. */
function Name({ at, off, edge, children }: { at: At; off: number; edge: number; children: string }) {
  const left = off > 0 && at[0] + off + LETTER_PX * children.length > edge
  return (
    <text
      x={left ? at[0] - off : at[0] + off}
      y={at[1] + 4}
      textAnchor={off ? (left ? 'end' : 'start') : 'middle'}
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
