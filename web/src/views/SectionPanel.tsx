/**
 * The section at the cut line, looking forward or aft: on the scale of plan and side. A box is dragged in it across and up, never along.
 */
import { useQuery, keepPreviousData } from '@tanstack/react-query'
import { type PointerEvent, useId, useRef } from 'react'

import { boxOf, useChoice } from '../design/choice'
import { useLoaded } from '../design/live'
import { sectionQuery } from '../design/queries'
import type { Cut } from '../design/types'
import { length, withCommas } from '../ui/format'
import { Link } from '../ui/parts'
import { useUnits } from '../ui/units'
import { useCut } from './cut'
import { across, lookingWords, sidesOf, useFacing } from './facing'
import { Patterns, patternOf } from './Patterns'
import type { Scale } from './scale'
import { caught, useMove } from './useMove'

const STILL_PX = 6

export function SectionPanel({ scale, step }: { scale: Scale; step: number }) {
  const { aft, set } = useCut()
  const { project, revision } = useLoaded()
  const unit = useUnits('place').length
  const facing = useFacing()
  const { data } = useQuery({
    ...sectionQuery(project, revision, aft ?? 0),
    enabled: aft !== null,
    placeholderData: keepPreviousData,
  })
  if (aft === null) return null
  const cuts = (data?.cuts ?? []) as Cut[]
  return (
    <section
      aria-label="Section"
      className={`absolute bottom-2 z-10 rounded border-[1.5px] border-ink bg-sheet shadow-md print:hidden ${scale.x(aft) > scale.width / 2 ? 'left-2' : 'right-2'}`}
    >
      <header className="flex items-center justify-between gap-4 border-b border-hair px-2 py-0.5 text-sm">
        <span>
          <strong className="heading">Section</strong> {lookingWords(facing.aft)} at{' '}
          {unit === 'mm' ? withCommas(length(aft, unit)) : length(aft, unit)}
        </span>
        <span className="flex gap-4">
          <Link onClick={facing.turn}>{lookingWords(!facing.aft)}</Link>
          <Link onClick={() => set(null)}>close</Link>
        </span>
      </header>
      <Drawing cuts={cuts} scale={scale} step={step} aft={facing.aft} />
    </section>
  )
}

function Drawing({ cuts, scale, step, aft }: { cuts: Cut[]; scale: Scale; step: number; aft: boolean }) {
  const patterns = useId()
  const selected = useChoice((s) => s.selected)
  const select = useChoice((s) => s.select)
  const offset = useChoice((s) => s.offset)
  const move = useMove()
  const press = useRef<{ x: number; y: number; box: string | null; moved: boolean } | null>(null)
  const last = useRef<{ x: number; y: number; turn: number } | null>(null)
  const { low, high } = around(cuts)
  const k = Math.min(
    scale.k,
    430 / (high[0] - low[0]),
    Math.max(scale.sideHeight - 60, 150) / (high[1] - low[1]),
  )
  const page = across(aft, low[0], high[0])
  const [leftWord, rightWord] = sidesOf(aft)
  const x = (right: number) => page.out(right) * k
  const z = (up: number) => (high[1] - up) * k
  const [wide, tall] = [(high[0] - low[0]) * k, (high[1] - low[1]) * k]

  const spot = (event: PointerEvent<SVGSVGElement>) => {
    const edge = event.currentTarget.getBoundingClientRect()
    return { x: event.clientX - edge.left, y: event.clientY - edge.top }
  }
  const under = (at: { x: number; y: number }) => {
    const [right, up] = [page.back(at.x / k), high[1] - at.y / k]
    const paths = [...cuts]
      .reverse()
      .filter((c) => c.kind !== 'bay' && inside(c.outline, right, up))
      .map((c) => c.path)
    return [...new Set(paths)]
  }

  function down(event: PointerEvent<SVGSVGElement>) {
    event.currentTarget.setPointerCapture(event.pointerId)
    const at = spot(event)
    const box = boxOf(selected)
    press.current = { ...at, box: box && under(at).some((p) => boxOf(p) === box) ? box : null, moved: false }
  }

  function drag(event: PointerEvent<SVGSVGElement>) {
    const from = press.current
    if (!from?.box) return
    const at = spot(event)
    if (!from.moved && Math.hypot(at.x - from.x, at.y - from.y) < STILL_PX) return
    from.moved = true
    const by = (px: number) => Math.round(px / k / step) * step
    const box = `boxes/${from.box}`
    move.follow(box, caught(box, [0, page.sign * by(at.x - from.x), by(from.y - at.y)], k))
  }

  function up(event: PointerEvent<SVGSVGElement>) {
    const from = press.current
    press.current = null
    if (from?.moved) return void move.release()
    const at = spot(event)
    const hits = under(at)
    if (hits.length === 0) return
    const again = last.current && Math.hypot(last.current.x - at.x, last.current.y - at.y) < STILL_PX
    const turn = again ? ((last.current?.turn ?? 0) + 1) % hits.length : 0
    last.current = { ...at, turn }
    select(hits[turn] ?? null, hits.length > 1 ? `${turn + 1} of ${hits.length} here` : '')
  }

  return (
    <svg
      data-view="section"
      width={wide}
      height={tall}
      className="block touch-none"
      role="img"
      aria-label={`Section, ${lookingWords(aft)}: ${leftWord.toLowerCase()} at the left`}
      onPointerDown={down}
      onPointerMove={drag}
      onPointerUp={up}
      onPointerCancel={() => {
        press.current = null
        move.cancel()
      }}
    >
      <Patterns id={patterns} />
      {z(0) < tall && <line x1={0} x2={wide} y1={z(0)} y2={z(0)} stroke="var(--color-ink)" strokeWidth={2} />}
      <line
        x1={x(0)}
        x2={x(0)}
        y1={0}
        y2={tall}
        stroke="#9a9486"
        strokeDasharray="10 3 2 3"
        strokeWidth={0.9}
      />
      {cuts.map((cut, i) => {
        const moves = offset && cut.owner === offset.path
        const points = cut.outline
          .map(
            ([r = 0, u = 0]) =>
              `${(x(r) + (moves ? page.sign * offset.by[1] * k : 0)).toFixed(1)},${(z(u) - (moves ? offset.by[2] * k : 0)).toFixed(1)}`,
          )
          .join(' ')
        return <One key={i} cut={cut} points={points} chosen={chosenOf(cut, selected)} patterns={patterns} />
      })}
      <text x={6} y={tall - 6} fontSize={12} fontWeight={700} fill="var(--color-soft)">
        {leftWord}
      </text>
      <text
        x={wide - 6}
        y={tall - 6}
        textAnchor="end"
        fontSize={12}
        fontWeight={700}
        fill="var(--color-soft)"
      >
        {rightWord}
      </text>
    </svg>
  )
}

function chosenOf(cut: Cut, selected: string | null): boolean {
  return selected !== null && (cut.path === selected || cut.owner === selected)
}

function One({
  cut,
  points,
  chosen,
  patterns,
}: {
  cut: Cut
  points: string
  chosen: boolean
  patterns: string
}) {
  const stroke = chosen ? 'var(--color-blue)' : (STROKE[cut.kind] ?? '#3a404a')
  if (cut.outline.length === 2)
    return <polyline points={points} fill="none" stroke={stroke} strokeWidth={1} />
  if (cut.kind === 'bay')
    return (
      <polygon
        points={points}
        fill="none"
        stroke="var(--color-ink)"
        strokeWidth={1.4}
        strokeDasharray="7 4"
      />
    )
  if (cut.owner)
    return (
      <g data-path={cut.path}>
        <polygon
          points={points}
          fill={FILLS[cut.kind] ?? '#fff'}
          stroke={stroke}
          strokeWidth={chosen ? 1.8 : 1}
        />
        {cut.label && <Label points={points} text={cut.label} />}
      </g>
    )
  return (
    <g data-path={cut.path}>
      <polygon points={points} fill="#fff" fillOpacity={0.6} />
      <polygon
        points={points}
        fill={`url(#${patterns}-${patternOf(cut.gap_class === 'crush' ? 'crush' : cut.kind, cut.gap_class)})`}
        stroke={stroke}
        strokeWidth={chosen ? 2.4 : 0.9}
      />
    </g>
  )
}

const FILLS: Record<string, string> = { metal: 'var(--color-copper)', module: '#dfe9e6', bracket: '#cfc6b4' }
const STROKE: Record<string, string> = { metal: 'var(--color-copper)', module: 'var(--color-slate)' }

function Label({ points, text }: { points: string; text: string }) {
  const all = points.split(' ').map((p) => p.split(',').map(Number))
  const middle = (i: number) => all.reduce((sum, p) => sum + (p[i] ?? 0), 0) / all.length
  return (
    <text
      x={middle(0)}
      y={middle(1) + 5}
      textAnchor="middle"
      fontSize={13}
      fontWeight={700}
      fill="var(--color-slate-ink)"
      stroke={FILLS['module']}
      strokeWidth={4}
      paintOrder="stroke"
    >
      {text}
    </text>
  )
}

/** The corners of what is shown: everything cut, with a margin; at least a metre wide and the ground. */
function around(cuts: Cut[]): { low: [number, number]; high: [number, number] } {
  const rights = cuts.flatMap((c) => c.outline.map(([r = 0]) => r))
  const ups = cuts.flatMap((c) => c.outline.map(([, u = 0]) => u))
  const half = Math.max(500, ...rights.map(Math.abs)) + 30
  return { low: [-half, Math.min(0, ...ups) - 15], high: [half, Math.max(600, ...ups) + 30] }
}

function inside(outline: Cut['outline'], a: number, b: number): boolean {
  let odd = false
  for (let i = 0, j = outline.length - 1; i < outline.length; j = i++) {
    const [xi = 0, yi = 0] = outline[i] ?? []
    const [xj = 0, yj = 0] = outline[j] ?? []
    if (yi > b !== yj > b && a < ((xj - xi) * (b - yi)) / (yj - yi) + xi) odd = !odd
  }
  return odd
}
