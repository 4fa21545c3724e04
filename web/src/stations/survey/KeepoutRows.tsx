/** Spaces that are no thing: each kind with its usual gap and the reason for it. */
import { useQuery } from '@tanstack/react-query'

import { useChoice } from '../../design/choice'
import { useDocument, useLive } from '../../design/live'
import { freeId } from '../../design/pointer'
import { startersQuery } from '../../design/queries'
import { begin, isTaken } from '../../design/taken'
import { AddFrom } from '../../ui/AddFrom'
import { NameBlank } from '../../ui/NameBlank'
import { Choose } from '../../ui/Choose'
import { Heading } from '../../ui/parts'
import { GapClass, RowHead, useBase } from '../rows'
import { SolidBlanks } from './SolidBlanks'

type KeepClearKind = 'crush' | 'hand' | 'tool' | 'airflow' | 'sight' | 'lowest' | 'corridor' | 'other'

export function KeepoutRows() {
  const document = useDocument()
  const { keepouts, vehicle } = document
  const edit = useLive((s) => s.edit)
  const selected = useChoice((s) => s.selected)
  const { data } = useQuery(startersQuery('keepouts'))
  const { base, pick } = useBase()
  const kinds = (data ?? []).map((row) => [row.id as KeepClearKind, String(row.name)] as const)
  const usual = (kind: string) => {
    const row = data?.find((r) => r.id === kind)
    return { gap_class: row?.gap_class ?? 'other', reason: row ? `${row.reason} (${row.source})` : '' }
  }
  function add(kind: string) {
    const front = vehicle.overall?.overhang_front_mm ?? 700
    const half = (vehicle.overall?.width_mm ?? 1600) / 2
    const [a = 1000, b = 0, c = 300] = base?.at ?? []
    const block = (x: number, y: number, z: number) => ({
      type: 'block',
      low_mm: [a, b, c],
      high_mm: [a + x, b + y, c + z],
    })
    const shapes: Record<string, object> = {
      crush: { type: 'block', low_mm: [-front, -half, 150], high_mm: [-front + 450, half, 800] },
      hand: block(90, 90, 150),
      tool: block(250, 90, 90),
      corridor: {
        type: 'path',
        points_mm: [
          [a, b, c],
          [a + 800, b, c],
        ],
        width_mm: 60,
        height_mm: 40,
      },
      lowest: {
        type: 'below',
        points_mm: [
          [a, b, c - 100],
          [a + 800, b, c - 100],
        ],
        width_mm: 2 * half,
      },
    }
    const name = kinds.find(([k]) => k === kind)?.[1] ?? 'new keep-out'
    const value = { name, kind, solid: shapes[kind] ?? block(200, 200, 200), ...usual(kind) }
    const path = `/keepouts/${freeId(name, keepouts)}`
    // a crush zone follows from the car's own outline, where that was taken
    const known = kind === 'crush' && vehicle.overall && isTaken(document, '/vehicle/overall')
    void edit(known ? [{ op: 'add', path, value }] : begin(document, 'add', path, value))
  }
  return (
    <>
      {pick}
      <Heading>Keep-outs</Heading>
      <p className="my-1 text-sm">
        Spaces that are no thing. Gaps start from common practice; say where each stands and how large it is.
      </p>
      {Object.entries(keepouts).map(([id, space]) => (
        <div
          key={id}
          className={`max-w-[640px] border-b border-hair py-2 ${selected === `keepouts/${id}` ? 'bg-wash' : ''}`}
        >
          <RowHead path={`/keepouts/${id}`} />
          <Choose
            label="It is a"
            value={space.kind}
            options={kinds.length ? kinds : [[space.kind, space.kind]]}
            onChange={(kind) =>
              void edit([
                { op: 'replace', path: `/keepouts/${id}/kind`, value: kind },
                { op: 'replace', path: `/keepouts/${id}/gap_class`, value: usual(kind).gap_class },
                { op: 'replace', path: `/keepouts/${id}/reason`, value: usual(kind).reason },
              ])
            }
          />
          <SolidBlanks path={`/keepouts/${id}/solid`} base={base} />
          {space.kind !== 'crush' && <GapClass path={`/keepouts/${id}/gap_class`} />}
          <NameBlank path={`/keepouts/${id}/reason`} label="Because" long />
        </div>
      ))}
      <AddFrom label="Another keep-out" options={kinds} onAdd={add} />
    </>
  )
}
