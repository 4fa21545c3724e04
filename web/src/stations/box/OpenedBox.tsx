/** The box opened: its walls laid round its base as seen from inside, its top beside; and what the same contents would
 * weigh in another construction. */
import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useEffect } from 'react'

import { useLoaded } from '../../design/live'
import { openedQuery } from '../../design/queries'
import type { BoxOpened } from '../../design/types'
import { useSettled } from '../../design/useSettled'
import { length, mass } from '../../ui/format'
import { Heading } from '../../ui/parts'
import { useUnits } from '../../ui/units'
import { CONSTRUCTIONS } from './constructions'
import { Hole, Thing } from './OnWall'
import { useOnFace } from './useOnFace'

const WIDE_PX = 880
const TALL_PX = 430
const FACE_WORDS: Record<string, string> = {
  base: '',
  front: 'FRONT',
  aft: 'AFT',
  left: 'LEFT',
  right: 'RIGHT',
  top: 'TOP',
}
const OUTWARD: Record<string, readonly [number, number]> = {
  front: [-0.1, 0],
  aft: [0.1, 0],
  left: [0, -0.35],
  right: [0, 0.35],
}
type Face = BoxOpened['faces'][number]
type At = readonly [number, number]

export function OpenedBox({ id, name }: { id: string; name: string }) {
  const { project } = useLoaded()
  const revision = useSettled()
  const { data } = useQuery({
    ...openedQuery(project, revision ?? 0, id),
    enabled: revision !== null,
    placeholderData: keepPreviousData,
  })
  return (
    <>
      <Heading>{`${name}, opened`}</Heading>
      {data && <Drawing opened={data} name={name} />}
      {data && data.made_as.length > 1 && <MadeAs rows={data.made_as} />}
    </>
  )
}

function Drawing({ opened, name }: { opened: BoxOpened; name: string }) {
  const hand = useOnFace()
  const { landed } = hand
  useEffect(() => landed(), [opened, landed])
  const wide = opened.high[0] - opened.low[0]
  const tall = opened.high[1] - opened.low[1]
  const scale = Math.min((WIDE_PX - 20) / wide, (TALL_PX - 20) / tall)
  const at = ([x, y]: At): At => [10 + (x - opened.low[0]) * scale, 10 + (opened.high[1] - y) * scale]
  return (
    <svg
      role="group"
      aria-label={`${name} opened: walls laid round the base, seen from inside`}
      viewBox={`0 0 ${wide * scale + 20} ${tall * scale + 20}`}
      className="mb-2 w-full select-none"
      style={{ maxHeight: TALL_PX }}
    >
      {opened.faces.map((face) => (
        <Wall key={face.face} face={face} at={at} />
      ))}
      {opened.modules.map((module) => (
        <g key={module.name}>
          <Rect rect={module} at={at} className="fill-slate/15 stroke-slate" width={1.5} />
          <Words at={at(middle(module))} className="fill-ink">
            {module.name}
          </Words>
        </g>
      ))}
      {opened.holders.map((holder, n) => (
        <g key={`${holder.name} ${n}`}>
          <Rect rect={holder} at={at} className="fill-none stroke-ink" width={1} dashed />
          <title>{holder.name}</title>
        </g>
      ))}
      {opened.faces.map((face) => {
        const drawn = { at, scale, edge: at(face.high)[0], hand }
        return (
          <g key={face.face}>
            {face.things.map((thing) => (
              <Thing key={thing.path} thing={thing} {...drawn} />
            ))}
            {face.holes.map((hole, n) => (
              <Hole key={hole.path ?? n} hole={hole} {...drawn} />
            ))}
          </g>
        )
      })}
    </svg>
  )
}

function Wall({ face, at }: { face: Face; at: (p: At) => At }) {
  const [right, up] = OUTWARD[face.face] ?? [0, 0]
  const [mx, my] = middle(face)
  // towards the rim, where no bracket stands
  const [x, y] = at([mx + right * (face.high[0] - face.low[0]), my + up * (face.high[1] - face.low[1])])
  return (
    <g>
      <Rect rect={face} at={at} className="fill-copper/8 stroke-copper" width={2} />
      {face.plates.map((plate, n) => (
        <g key={`${plate.name} ${n}`}>
          <Rect rect={plate} at={at} className="fill-none stroke-ink" width={1} dashed />
          <title>{plate.name}</title>
        </g>
      ))}
      <text
        x={x}
        y={y + 4}
        textAnchor="middle"
        className="fill-soft"
        fontSize={13}
        fontWeight={600}
        letterSpacing={1.2}
      >
        {face.comes_off && face.face === 'top' ? 'LID' : FACE_WORDS[face.face]}
      </text>
      {face.comes_off && face.face !== 'top' && (
        <text x={x} y={y + 20} textAnchor="middle" className="fill-soft" fontSize={12}>
          comes off
        </text>
      )}
    </g>
  )
}

function middle(rect: { low: At; high: At }): At {
  return [(rect.low[0] + rect.high[0]) / 2, (rect.low[1] + rect.high[1]) / 2]
}

function Rect(props: {
  rect: { low: At; high: At }
  at: (p: At) => At
  className: string
  width: number
  dashed?: boolean
}) {
  const [left, foot] = props.at(props.rect.low)
  const [right, head] = props.at(props.rect.high)
  return (
    <rect
      x={left}
      y={head}
      width={right - left}
      height={foot - head}
      className={props.className}
      strokeWidth={props.width}
      strokeDasharray={props.dashed ? '2 3' : undefined}
    />
  )
}

function Words({ at, className, children }: { at: At; className: string; children: string }) {
  return (
    <text x={at[0]} y={at[1] + 5} textAnchor="middle" className={className} fontSize={14} fontWeight={600}>
      {children}
    </text>
  )
}

function MadeAs({ rows }: { rows: BoxOpened['made_as'] }) {
  const units = useUnits()
  return (
    <table className="narrow mb-2 text-sm" aria-label="As another construction">
      <thead>
        <tr className="text-left text-soft">
          <th className="pr-6 font-normal">the same contents as</th>
          <th className="pr-6 text-right font-normal">shell</th>
          <th className="pr-6 text-right font-normal">outside</th>
          <th className="pr-6 text-right font-normal">pieces</th>
          <th className="pr-6 text-right font-normal">welded</th>
          <th className="pr-6 text-right font-normal">rivets, screws</th>
          <th className="font-normal">made of</th>
        </tr>
      </thead>
      <tbody>
        {rows.map((row) => (
          <tr key={row.kind} className={row.now ? 'font-semibold text-blue' : ''}>
            <td className="pr-6">
              {CONSTRUCTIONS[row.kind as keyof typeof CONSTRUCTIONS].name}
              {row.now ? ', as it is' : ''}
            </td>
            <td className="pr-6 text-right">{mass(row.shell_kg, units.mass)}</td>
            <td className="pr-6 text-right">
              {row.outer_mm.map((v) => length(v, units.length)).join(' × ')}
            </td>
            <td className="pr-6 text-right">{row.pieces}</td>
            <td className="pr-6 text-right">{length(row.weld_mm, units.length)}</td>
            <td className="pr-6 text-right">{row.fastened}</td>
            <td>{row.how}</td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}
