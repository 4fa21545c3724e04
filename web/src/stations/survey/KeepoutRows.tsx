/** Spaces that are no thing: crush zones, a hand, airflow, a sight line, a corridor. */
import { useDocument, useLive } from '../../design/live'
import { freeId } from '../../design/pointer'
import { Button, Choose, Heading } from '../../ui/parts'
import { GapClass, RowHead, SolidBlanks, useBase } from './rows'

const KINDS = [
  ['crush', 'crush zone'],
  ['hand', 'room for a hand or tool'],
  ['airflow', 'airflow'],
  ['sight', 'sight line'],
  ['corridor', 'corridor for cables and pipes'],
  ['other', 'other'],
] as const

export function KeepoutRows() {
  const { keepouts } = useDocument()
  const edit = useLive((s) => s.edit)
  const { base, pick } = useBase()
  const add = () =>
    void edit([
      {
        op: 'add',
        path: `/keepouts/${freeId('keep-out', keepouts)}`,
        value: {
          name: 'new keep-out',
          kind: 'other',
          solid: { type: 'block', low_mm: [1000, -100, 300], high_mm: [1200, 100, 500] },
        },
      },
    ])
  return (
    <>
      {pick}
      <Heading>Keep-outs</Heading>
      {Object.entries(keepouts).map(([id, space]) => (
        <div key={id} className="border-b border-hair py-2">
          <RowHead path={`/keepouts/${id}`} />
          <Choose
            label="It is a"
            value={space.kind}
            options={KINDS}
            onChange={(v) => void edit([{ op: 'replace', path: `/keepouts/${id}/kind`, value: v }])}
          />
          <SolidBlanks path={`/keepouts/${id}/solid`} base={base} />
          {space.kind !== 'crush' && <GapClass path={`/keepouts/${id}/gap_class`} />}
        </div>
      ))}
      <Button className="mt-3" onClick={add}>
        Another keep-out
      </Button>
    </>
  )
}
