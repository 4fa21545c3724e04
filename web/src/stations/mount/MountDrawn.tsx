/** One mount, large, in two views to one scale with what it carries in a case, and beside it all mounts of its box. */
import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useId, useState } from 'react'

import { useChoice } from '../../design/choice'
import { useLive, useLoaded } from '../../design/live'
import { drawnMountQuery } from '../../design/queries'
import type { DrawnMount } from '../../design/types'
import { useSettled } from '../../design/useSettled'
import { length, newtons, utilisation } from '../../ui/format'
import { Choose } from '../../ui/Choose'
import { Heading } from '../../ui/parts'
import { useUnits } from '../../ui/units'

type View = DrawnMount['views'][number]
type Carried = DrawnMount['cases'][number]['mounts'][number]
type Spot = readonly [number, number]

const WIDE_PX = 420
const TALL_PX = 315
const ROUND_MM = [72, 38] as const // shown of what is round the mount, to its sides, and above and below
const ROW_PX = 21 // from one line of dimensions to the next
const ARROW_PX = 84 // of the largest force in the case
const HEAD_PX = 16 // of room left beyond an arrow that goes into the metal
const LOOKS: Record<string, string> = {
  box: 'fill-copper/15 stroke-copper',
  mount: 'fill-white stroke-blue',
  weld: 'fill-ink stroke-none',
}

export function MountDrawn({ id }: { id: string }) {
  const { project } = useLoaded()
  const revision = useSettled()
  const patch = useLive((s) => s.previewPatch)
  const [chosen, choose] = useState('')
  const { data } = useQuery({
    ...drawnMountQuery(project, revision ?? 0, id, patch),
    enabled: revision !== null,
    placeholderData: keepPreviousData,
  })
  if (!data) return <p role="status">Drawing it …</p>
  const shown = data.cases.find((one) => one.case === chosen) ?? data.cases[0]
  const own = shown?.mounts.find((row) => row.mount === id)
  return (
    <>
      <div className="flex flex-wrap gap-x-6">
        {data.views.map((view) => (
          <Drawing
            key={view.looking}
            view={view}
            spot={data.spot}
            carried={own}
            scale={scaleOf(data.views)}
          />
        ))}
        {data.views.length === 0 && <p>It cannot stand where it is, so it is not drawn.</p>}
      </div>
      {shown && (
        <>
          <Heading right={own && `${own.case}, ${own.solve}`}>What they carry</Heading>
          <div className="max-w-[420px]">
            <Choose
              label="Case"
              value={shown.case}
              options={data.cases.map((one) => [one.case, one.case] as const)}
              onChange={choose}
            />
          </div>
          <Table rows={shown.mounts} id={id} each={shown === data.cases[0]} />
        </>
      )}
    </>
  )
}

function boundsOf(view: View) {
  const points = view.pieces.filter((piece) => piece.role !== 'box').flatMap((piece) => piece.ring)
  const along = (n: 0 | 1) => points.map((p) => p[n])
  return {
    left: Math.min(0, ...along(0)) - ROUND_MM[0],
    right: Math.max(0, ...along(0)) + ROUND_MM[0],
    foot: Math.min(0, ...along(1)) - ROUND_MM[1],
    head: Math.max(0, ...along(1)) + ROUND_MM[1],
  }
}

/** Pixels a millimetre, of all views alike. */
function scaleOf(views: readonly View[]): number {
  const each = views
    .map(boundsOf)
    .map((b) => Math.min(WIDE_PX / (b.right - b.left), TALL_PX / (b.head - b.foot)))
  return Math.min(...each)
}

function Drawing(props: { view: View; spot: string; carried: Carried | undefined; scale: number }) {
  const { view, spot, carried, scale } = props
  const within = useId()
  const { left, right, foot, head } = boundsOf(view)
  const x = (mm: number) => (mm - left) * scale
  const y = (mm: number) => (head - mm) * scale
  const [wide, tall] = [x(right), y(foot)]
  const metal = metalIn(view, [x(0), y(0)], [wide, tall], ROUND_MM[1] * scale)
  return (
    <figure className="m-0 mb-2" aria-label={`The mount, ${view.looking}`}>
      <figcaption className="narrow text-sm text-soft">{view.looking}</figcaption>
      <svg viewBox={`0 0 ${wide} ${tall + 22}`} style={{ width: wide, maxWidth: '100%' }} role="img">
        <title>{`The mount, ${view.looking}`}</title>
        <defs>
          <pattern id={`${within}dots`} width="7" height="7" patternUnits="userSpaceOnUse">
            <circle cx="2" cy="2" r="0.9" className="fill-ink/60" />
          </pattern>
          <clipPath id={`${within}clip`}>
            <rect width={wide} height={tall} />
          </clipPath>
        </defs>
        <g clipPath={`url(#${within}clip)`}>
          {metal && (
            <>
              <rect {...metal.rect} fill={`url(#${within}dots)`} />
              <path d={metal.edge} className="stroke-ink" />
            </>
          )}
          {view.pieces.map((piece, n) => (
            <polygon
              key={n}
              points={piece.ring.map(([a, b]) => `${x(a)},${y(b)}`).join(' ')}
              className={LOOKS[piece.role] ?? LOOKS.mount}
              strokeWidth={piece.role === 'mount' ? 2 : 1}
              fillOpacity={piece.role === 'mount' ? 0.75 : undefined}
            >
              <title>{piece.name}</title>
            </polygon>
          ))}
          <path
            d={axisIn(view, [x(0), y(0)], [wide, tall])}
            className="stroke-ink/60"
            strokeDasharray="9 3 2 3"
          />
        </g>
        <Measures view={view} x={x} y={y} />
        {carried && <Forces view={view} carried={carried} at={[x(0), y(0)]} metal={ROUND_MM[1] * scale} />}
        <Word at={[4, view.metal === 'below' ? tall - 6 : 14]}>{spot}</Word>
        <text x={0} y={tall + 17} className="fill-soft" fontSize={12} letterSpacing={1}>
          {view.left}
        </text>
        <text x={wide} y={tall + 17} textAnchor="end" className="fill-soft" fontSize={12} letterSpacing={1}>
          {view.right}
        </text>
        <Bar from={[wide / 2 - 25 * scale - 22, tall + 12]} long={50 * scale} />
      </svg>
    </figure>
  )
}

/** The vehicle's metal from the spot on, and the edge that the mount lies on; beside the spot only about it, for the box
 * is there too; nothing where one looks at its face. */
function metalIn(view: View, [x, y]: Spot, [wide, tall]: Spot, round: number) {
  const all = { x: 0, y: 0, width: wide, height: tall }
  const level = `M0,${y} H${wide}`
  const upright = `M${x},${y - round} V${y + round}`
  const about = { ...all, y: y - round, height: 2 * round }
  switch (view.metal) {
    case 'below':
      return { rect: { ...all, y, height: tall - y }, edge: level }
    case 'above':
      return { rect: { ...all, height: y }, edge: level }
    case 'left':
      return { rect: { ...about, width: x }, edge: upright }
    case 'right':
      return { rect: { ...about, x, width: wide - x }, edge: upright }
    case 'behind':
      return null
  }
}

/** The bolt's axis; a cross where one looks along it. */
function axisIn(view: View, [x, y]: Spot, [wide, tall]: Spot): string {
  if (view.metal === 'behind') return `M${x - 14},${y} h28 M${x},${y - 14} v28`
  return view.metal === 'left' || view.metal === 'right' ? `M0,${y} H${wide}` : `M${x},0 V${tall}`
}

/** 50 mm, so that nobody has to trust a ratio. */
function Bar({ from: [x, y], long }: { from: Spot; long: number }) {
  return (
    <g className="stroke-ink" strokeWidth={1.5}>
      <path d={`M${x},${y - 4} v8 M${x},${y} h${long} m0,-4 v8`} fill="none" />
      <text x={x + long + 5} y={y + 5} className="fill-ink stroke-none" fontSize={12}>
        50 mm
      </text>
    </g>
  )
}

function Word(props: { at: Spot; children: string; anchor?: 'start' | 'middle' | 'end'; force?: boolean }) {
  const { at, children, anchor, force = false } = props
  return (
    <text
      x={at[0]}
      y={at[1]}
      textAnchor={anchor}
      className={`narrow stroke-sheet ${force ? 'fill-foul' : 'fill-ink'}`}
      paintOrder="stroke"
      strokeWidth={4}
      fontSize={force ? 13 : 12}
      fontWeight={force ? 700 : 600}
    >
      {children}
    </text>
  )
}

type ToPx = (mm: number) => number

/** What it is dimensioned by: level lengths on rows in the vehicle's metal, or at the head where that is beside or behind
 * it, upright ones on lines at the left edge. */
function Measures({ view, x, y }: { view: View; x: ToPx; y: ToPx }) {
  const units = useUnits()
  const rows = laidOut(view.measures)
  const into = view.metal === 'above' ? -1 : 1
  const first = view.metal === 'below' ? y(0) + 15 : view.metal === 'above' ? y(0) - 15 : 32
  return rows.map(({ row, line, level }, n) => {
    const [from, to] = level ? [x(row.start[0]), x(row.end[0])] : [y(row.start[1]), y(row.end[1])]
    const at = level ? first + into * ROW_PX * line : 16 + ROW_PX * line
    const room = Math.abs(to - from)
    const figure = length(row.mm, units.length)
    const words = room > 7 * (row.words.length + figure.length) ? `${row.words} ${figure}` : figure
    return (
      <g
        key={n}
        className="stroke-ink"
        strokeWidth={0.9}
        fill="none"
        transform={level ? undefined : 'rotate(-90)'}
      >
        <title>{`${row.words} ${figure}`}</title>
        {level ? (
          <path d={`M${from},${at} m0,-4 v8 m0,-4 L${to},${at} m0,-4 v8`} />
        ) : (
          <path d={`M${-from},${at} m0,-4 v8 m0,-4 L${-to},${at} m0,-4 v8`} />
        )}
        <Word at={[level ? (from + to) / 2 : -(from + to) / 2, at - 5]} anchor="middle">
          {words}
        </Word>
      </g>
    )
  })
}

/** Each on the first line on which nothing lies where it does. */
function laidOut(measures: View['measures']) {
  const taken: { level: boolean; line: number; low: number; high: number }[] = []
  return measures.map((row) => {
    const level = Math.abs(row.start[0] - row.end[0]) > Math.abs(row.start[1] - row.end[1])
    const ends = level ? [row.start[0], row.end[0]] : [row.start[1], row.end[1]]
    const [low, high] = [Math.min(...ends), Math.max(...ends)]
    const clash = (line: number) =>
      taken.some((t) => t.level === level && t.line === line && t.low < high && low < t.high)
    let line = 0
    while (clash(line)) line += 1
    taken.push({ level, line, low, high })
    return { row, line, level }
  })
}

/** The force of the box on the mount: what lies in the view, as arrows to one scale with their figures. */
function Forces(props: { view: View; carried: Carried; at: Spot; metal: number }) {
  const { view, carried, at, metal } = props
  const { off_n: off, away_n: away, along_n: along } = carried
  const largest = Math.max(Math.abs(off), Math.abs(away), Math.abs(along), 1)
  const into = off < 0 ? ((metal - HEAD_PX) * largest) / -off : ARROW_PX
  const px = (n: number) => (n / largest) * Math.min(ARROW_PX, into)
  const [offWay, awayWay, alongWay] = view.ways
  const by = (n: number, [right, up]: Spot): Spot => [px(n) * right, -px(n) * up]
  const [first, second] = [by(away, awayWay), by(along, alongWay)]
  const flat: Spot = [first[0] + second[0], first[1] + second[1]]
  const beside = (flat[0] || by(off, offWay)[0]) > 0 ? -1 : 1 // each figure clear of the other arrow
  const seen = (way: Spot) => Math.hypot(...way) > 0.5
  const across = away < 0 ? 'towards' : 'away'
  const words = seen(awayWay) && seen(alongWay) ? 'on the metal' : seen(awayWay) ? across : 'along'
  const force = Math.hypot(seen(awayWay) ? away : 0, seen(alongWay) ? along : 0)
  return (
    <g className="fill-foul stroke-foul">
      <Arrow from={at} by={by(off, offWay)} beside={beside}>
        {`${off < 0 ? 'press' : 'pull'} ${newtons(Math.abs(off))} N`}
      </Arrow>
      <Arrow from={at} by={flat} beside={beside}>
        {`${words} ${newtons(force)} N`}
      </Arrow>
    </g>
  )
}

function Arrow(props: { from: Spot; by: Spot; beside: 1 | -1; children: string }) {
  const { from, by, beside, children } = props
  const long = Math.hypot(...by)
  if (long < 8) return null
  const [u, v] = [by[0] / long, by[1] / long]
  const [x, y] = [from[0] + by[0], from[1] + by[1]]
  const head = `${x},${y} ${x - 9 * u - 4 * v},${y - 9 * v + 4 * u} ${x - 9 * u + 4 * v},${y - 9 * v - 4 * u}`
  const lies = Math.abs(by[0]) > Math.abs(by[1])
  const at: Spot = lies ? [from[0] + by[0] / 2, y - 7] : [x + 7 * beside, y + (by[1] < 0 ? 2 : 6)]
  return (
    <g>
      <line x1={from[0]} y1={from[1]} x2={x - 6 * u} y2={y - 6 * v} strokeWidth={2.5} />
      <polygon points={head} className="stroke-none" />
      <Word at={at} anchor={lies ? 'middle' : beside < 0 ? 'end' : 'start'} force>
        {children}
      </Word>
    </g>
  )
}

function Table({ rows, id, each }: { rows: readonly Carried[]; id: string; each: boolean }) {
  const select = useChoice((s) => s.select)
  return (
    <table
      aria-label="All mounts of the box"
      className="mt-2 w-full max-w-[860px] border-collapse text-right"
    >
      <thead className="text-sm text-soft">
        <tr>
          <th className="text-left font-normal">mount</th>
          <th className="font-normal">off the metal, N</th>
          <th className="font-normal">away from the box, N</th>
          <th className="font-normal">along it, N</th>
          <th className="text-left font-normal">
            <span className="pl-4">worst use</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {rows.map((row) => (
          <tr key={row.mount} className={row.mount === id ? 'font-semibold text-blue' : ''}>
            <td className="text-left">
              <button
                type="button"
                className="py-1 hover:text-blue"
                onClick={() => select(`mounts/${row.mount}`)}
              >
                {row.name}
              </button>
            </td>
            {[row.off_n, row.away_n, row.along_n].map((n, k) => (
              <td key={k}>{newtons(n)}</td>
            ))}
            <td className="pl-4 text-left">
              {row.utilisation === null ? 'not checked' : `${utilisation(row.utilisation)} ${row.check}`}
              {each && `, ${row.case}`}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}
