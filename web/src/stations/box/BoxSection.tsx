/** The box cut across through one of its modules, to scale, with every layer on the cut dimensioned. */
import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import { useLoaded } from '../../design/live'
import { boxSectionQuery } from '../../design/queries'
import type { BoxSection as Section } from '../../design/types'
import { useSettled } from '../../design/useSettled'
import { length } from '../../ui/format'
import { Choose } from '../../ui/Choose'
import { Heading } from '../../ui/parts'
import { useUnits } from '../../ui/units'

const WIDE_PX = 560
const TALL_PX = 300
const ROOM_PX = 30 // for a line of dimensions
const LEAST_PX = 26 // of a layer that its figure stands beside
const METAL = 'fill-copper/40 stroke-copper'
const LOOKS: Record<string, string> = {
  module: 'fill-slate/15 stroke-slate',
  liner: 'fill-ink/25 stroke-none',
  holder: 'fill-ink/10 stroke-ink',
  gear: 'fill-white stroke-ink',
  divider: 'fill-ink/40 stroke-ink',
}
type Layer = Section['across'][number]
type Same = Section['across_sum'][number]

export function BoxSection({ id, name }: { id: string; name: string }) {
  const { project } = useLoaded()
  const revision = useSettled()
  const [through, cut] = useState<number | null>(null)
  const { data } = useQuery({
    ...boxSectionQuery(project, revision ?? 0, id, through),
    enabled: revision !== null,
    placeholderData: keepPreviousData,
  })
  if (!data) return null
  return (
    <section aria-label={`${name}, cut across`}>
      <Heading>{`${name}, cut across, looking forward`}</Heading>
      {data.choices.length > 1 && (
        <Choose
          label="Cut through module"
          value={String(data.through)}
          options={data.choices.map((n) => [String(n), String(n)] as const)}
          onChange={(n) => cut(Number(n))}
        />
      )}
      <Drawing section={data} name={name} />
      <Sum words="Across" layers={data.across} rows={data.across_sum} />
      <Sum words="Up" layers={data.up} rows={data.up_sum} />
    </section>
  )
}

function Drawing({ section, name }: { section: Section; name: string }) {
  const units = useUnits()
  const points = section.pieces.flatMap((piece) => piece.ring)
  const [left, right] = [Math.min(...points.map((p) => p[0])), Math.max(...points.map((p) => p[0]))]
  const [foot, head] = [Math.min(...points.map((p) => p[1])), Math.max(...points.map((p) => p[1]))]
  const scale = Math.min((WIDE_PX - 2 * ROOM_PX) / (right - left), (TALL_PX - 2 * ROOM_PX) / (head - foot))
  const x = (mm: number) => 2 * ROOM_PX + (mm - left) * scale
  const y = (mm: number) => 2 * ROOM_PX + (head - mm) * scale
  const figure = (mm: number) => length(mm, units.length)
  return (
    <svg
      role="img"
      aria-label={`${name} cut across, looking forward`}
      viewBox={`0 0 ${x(right) + 10} ${y(foot) + 24}`}
      className="mb-1 w-full"
      style={{ maxWidth: 1.6 * WIDE_PX, maxHeight: TALL_PX + 40 }}
    >
      {section.pieces.map((piece, n) => (
        <polygon
          key={n}
          points={piece.ring.map(([a, b]) => `${x(a)},${y(b)}`).join(' ')}
          className={LOOKS[piece.role] ?? METAL}
          strokeWidth={piece.role === 'module' ? 1.5 : 0.75}
        >
          <title>{piece.role === 'module' ? `module ${piece.name}` : piece.name}</title>
        </polygon>
      ))}
      {section.pieces
        .filter((piece) => piece.role === 'module')
        .map(({ name: number, ring }) => (
          <text
            key={number}
            x={x(ring.reduce((sum, p) => sum + p[0], 0) / ring.length)}
            y={y(ring.reduce((sum, p) => sum + p[1], 0) / ring.length) + 5}
            textAnchor="middle"
            className="fill-ink"
            fontSize={14}
            fontWeight={600}
          >
            {number}
          </text>
        ))}
      <Dimensions layers={section.across} at={x} line={2 * ROOM_PX - 12} figure={figure} scale={scale} />
      <g transform="rotate(-90)">
        <Dimensions
          layers={section.up}
          at={(mm) => -y(mm)}
          line={2 * ROOM_PX - 12}
          figure={figure}
          scale={scale}
        />
      </g>
      <text x={x(left)} y={y(foot) + 18} className="fill-soft" fontSize={12} letterSpacing={1}>
        LEFT
      </text>
      <text
        x={x(right)}
        y={y(foot) + 18}
        textAnchor="end"
        className="fill-soft"
        fontSize={12}
        letterSpacing={1}
      >
        RIGHT
      </text>
    </svg>
  )
}

/** A line with a tick where each layer ends: the figures that have room on it, and the whole over it. */
function Dimensions(props: {
  layers: readonly Layer[]
  at: (mm: number) => number
  line: number
  figure: (mm: number) => string
  scale: number
}) {
  const { layers, at, line, figure, scale } = props
  const whole = wholeOf(layers)
  return (
    <g className="fill-ink stroke-ink">
      <line x1={at(0)} x2={at(whole)} y1={line} y2={line} strokeWidth={0.75} />
      {[...layers.map((layer) => layer.start_mm), whole].map((mm) => (
        <line key={mm} x1={at(mm)} x2={at(mm)} y1={line - 4} y2={line + 4} strokeWidth={0.75} />
      ))}
      {layers
        .filter((layer) => layer.mm * scale >= LEAST_PX)
        .map((layer) => (
          <Figure key={layer.start_mm} x={at(layer.start_mm + layer.mm / 2)} y={line - 5}>
            {figure(layer.mm)}
          </Figure>
        ))}
      <Figure x={at(whole / 2)} y={line - ROOM_PX + 6} heavy>
        {figure(whole)}
      </Figure>
    </g>
  )
}

function wholeOf(layers: readonly Layer[]): number {
  const last = layers.at(-1)
  return last ? last.start_mm + last.mm : 0
}

function Figure({ x, y, heavy, children }: { x: number; y: number; heavy?: boolean; children: string }) {
  return (
    <text
      x={x}
      y={y}
      textAnchor="middle"
      className="narrow stroke-none"
      fontSize={12}
      fontWeight={heavy ? 700 : 500}
    >
      {children}
    </text>
  )
}

function Sum({ words, layers, rows }: { words: string; layers: readonly Layer[]; rows: readonly Same[] }) {
  const units = useUnits()
  const each = rows.map(
    ({ count, name, mm }) => `${count > 1 ? `${count} × ` : ''}${length(mm, units.length)} ${name}`,
  )
  return (
    <p className="narrow m-0 text-sm">
      <b>
        {words} {length(wholeOf(layers), units.length)}
      </b>{' '}
      = {each.join(' + ')}
    </p>
  )
}
