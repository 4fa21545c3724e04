/** Reference points: a seam, hole or edge that the tape is hooked on, each placed once. */
import { useDocument, useLive } from '../../design/live'
import { freeId } from '../../design/pointer'
import { Button, Heading } from '../../ui/parts'
import { PointBlanks, RowHead } from './rows'

export function References() {
  const { references } = useDocument()
  const edit = useLive((s) => s.edit)
  const add = () =>
    void edit([
      {
        op: 'add',
        path: `/references/${freeId('reference', references)}`,
        value: { name: 'new reference point', at_mm: [1500, 0, 400] },
      },
    ])
  return (
    <>
      <Heading>Reference points</Heading>
      <p className="mt-1">
        A seam, hole or edge that the tape reaches. Place each once; when one moves, every figure taken from
        it moves along.
      </p>
      {Object.keys(references).map((id) => (
        <div key={id} className="border-b border-hair py-2">
          <RowHead path={`/references/${id}`} />
          <PointBlanks path={`/references/${id}/at_mm`} />
        </div>
      ))}
      <Button className="mt-3" onClick={add}>
        Another reference point
      </Button>
    </>
  )
}
