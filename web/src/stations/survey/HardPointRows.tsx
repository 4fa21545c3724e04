/** Hard points: existing holes, captive nuts, studs and strap points that could carry a box. */
import { useDocument, useLive } from '../../design/live'
import { freeId } from '../../design/pointer'
import { Button, Choose, Heading } from '../../ui/parts'
import { PointBlanks, RowHead, useBase } from './rows'

const WAYS: Record<string, [number, number, number]> = {
  up: [0, 0, 1],
  down: [0, 0, -1],
  forward: [-1, 0, 0],
  aft: [1, 0, 0],
  left: [0, -1, 0],
  right: [0, 1, 0],
}

function wordOf(direction: readonly number[]): string {
  return Object.keys(WAYS).find((word) => WAYS[word]?.every((v, i) => v === direction[i])) ?? 'as given'
}

export function HardPointRows() {
  const { hardpoints, tables } = useDocument()
  const edit = useLive((s) => s.edit)
  const { base, pick } = useBase()
  const add = () =>
    void edit([
      {
        op: 'add',
        path: `/hardpoints/${freeId('hard-point', hardpoints)}`,
        value: { name: 'new hard point', at_mm: base?.at ?? [1000, 0, 400], direction: [0, 0, 1] },
      },
    ])
  return (
    <>
      {pick}
      <Heading>Hard points</Heading>
      {Object.entries(hardpoints).map(([id, point]) => (
        <div key={id} className="border-b border-hair py-2">
          <RowHead path={`/hardpoints/${id}`} />
          <PointBlanks path={`/hardpoints/${id}/at_mm`} base={base} />
          <Choose
            label="From the metal, a bracket lies"
            value={wordOf(point.direction as number[])}
            options={[
              ...Object.keys(WAYS),
              ...(wordOf(point.direction as number[]) === 'as given' ? ['as given'] : []),
            ].map((w) => [w, w] as const)}
            onChange={(word) =>
              WAYS[word] &&
              void edit([{ op: 'replace', path: `/hardpoints/${id}/direction`, value: WAYS[word] }])
            }
          />
          <Choose
            label="Thread"
            value={point.thread ?? ''}
            options={[['', 'not known'], ...Object.keys(tables.bolts).map((size) => [size, size] as const)]}
            onChange={(v) =>
              void edit([{ op: 'replace', path: `/hardpoints/${id}/thread`, value: v || null }])
            }
          />
        </div>
      ))}
      <Button className="mt-3" onClick={add}>
        Another hard point
      </Button>
    </>
  )
}
