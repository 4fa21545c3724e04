/** A mount's peg on the bar that it stands on: slid along it by hand or by keys, while its uses follow. */
import { useRef } from 'react'

import { useDocument } from '../../../design/live'
import type { Document } from '../../../design/types'
import { length } from '../../../ui/format'
import { useUnits } from '../../../ui/units'
import { useSlid } from '../../../views/useSlid'

const [WIDE, TALL, END, STILL_PX] = [300, 76, 16, 6]

interface Bar {
  /** Which collection it is in, and its id. */
  kind: 'member' | 'crossmember'
  id: string
}

/** `path`: of the mount; `at`: how far from the bar's first end it stands. */
export function AlongTheBar({ path, bar, at }: { path: string; bar: Bar; at: number }) {
  const document = useDocument()
  const units = useUnits()
  const long = longOf(document, bar)
  const { slid, follow, release, cancel, nudge } = useSlid(`${path}/lands_on/along_mm`, long)
  const from = useRef<{ x: number; at: number; drags: boolean } | null>(null)
  const now = slid ?? at
  const x = (mm: number) => END + (mm / (long || 1)) * (WIDE - 2 * END)
  const name = bar.kind === 'member' ? document.members[bar.id]?.name : document.crossmembers[bar.id]?.name
  const [near, far] = [length(now, units.length), length(long - now, units.length)]
  return (
    <svg
      viewBox={`0 0 ${WIDE} ${TALL}`}
      role="slider"
      tabIndex={0}
      aria-label={`Along ${name}`}
      aria-valuemin={0}
      aria-valuemax={long}
      aria-valuenow={now}
      aria-valuetext={`${near} from its first end, ${far} from the other`}
      className="my-1 block w-full cursor-ew-resize touch-none select-none"
      onPointerDown={(event) => {
        from.current = { x: event.clientX, at: now, drags: false }
        event.currentTarget.setPointerCapture(event.pointerId)
        event.currentTarget.focus()
      }}
      onPointerMove={(event) => {
        const held = from.current
        if (!held) return
        const px = event.clientX - held.x
        held.drags ||= Math.abs(px) >= STILL_PX
        const k = ((event.currentTarget.getScreenCTM()?.a ?? 1) * (WIDE - 2 * END)) / (long || 1)
        if (held.drags) follow(held.at + px / k)
      }}
      onPointerUp={() => {
        const dragged = from.current?.drags
        from.current = null
        if (dragged) void release()
      }}
      onPointerCancel={() => {
        from.current = null
        cancel()
      }}
      onKeyDown={(event) => {
        const way = { ArrowLeft: -1, ArrowDown: -1, ArrowRight: 1, ArrowUp: 1 }[event.key]
        if (event.key === 'Escape' && slid !== null) {
          from.current = null
          event.stopPropagation()
          cancel()
        }
        if (!way) return
        event.preventDefault()
        event.stopPropagation()
        nudge(way * (event.shiftKey ? 10 : 1))
      }}
    >
      <rect
        x={END}
        y={34}
        width={WIDE - 2 * END}
        height={12}
        className="fill-white stroke-copper"
        strokeWidth={1.5}
      />
      {[0, long].map((end) => (
        <path key={end} d={`M${x(end)},30 V50`} className="stroke-ink" strokeWidth={1.5} />
      ))}
      {others(document, bar, path).map((mm, n) => (
        <path key={n} d={`M${x(mm) - 4},24 h8 l-4,10 Z`} className="fill-white stroke-soft" />
      ))}
      <path d={`M${x(now)},34 V46`} className="stroke-blue" strokeWidth={3} />
      <path d={`M${x(now) - 7},18 h14 l-7,16 Z`} className="fill-blue" />
      <g className="narrow fill-ink text-[13px] font-semibold">
        <text x={(x(0) + x(now)) / 2} y={64} textAnchor="middle">
          {near}
        </text>
        <text x={(x(now) + x(long)) / 2} y={64} textAnchor="middle">
          {far}
        </text>
      </g>
    </svg>
  )
}

/** To be drawn to: between its two ends. */
function longOf({ members, crossmembers, hardpoints }: Document, { kind, id }: Bar): number {
  const member = members[id]
  const points = crossmembers[id]?.hardpoints.map((key) => hardpoints[key]?.at_mm) ?? []
  const [start, end] = kind === 'member' ? [member?.start_mm, member?.end_mm] : points
  return Math.hypot(...[0, 1, 2].map((i) => Number(end?.[i] ?? 0) - Number(start?.[i] ?? 0)))
}

/** Where other mounts stand on it. */
function others({ mounts }: Document, { kind, id }: Bar, path: string): number[] {
  return Object.entries(mounts).flatMap(([key, { lands_on: on }]) => {
    if (`/mounts/${key}` === path) return []
    if (on.type === 'member' && kind === 'member' && on.member === id) return [on.along_mm]
    if (on.type === 'crossmember' && kind === 'crossmember' && on.crossmember === id) return [on.along_mm]
    return []
  })
}
