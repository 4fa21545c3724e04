/** Factory stacks that are kept whole or split, and donor hardware kept for reuse. */
import { useDocument, useLive } from '../../design/live'
import type { Stack } from '../../design/types'
import { Tick } from '../../ui/Tick'
import { RowList } from '../fields'

const WHAT = [
  'rods and plates',
  'links',
  'taps and electronics',
  'coolant parts',
  'contactors and fuses',
  'cables',
  'other',
]

export function Kept() {
  const { modules } = useDocument()
  const first = Object.keys(modules)[0]
  return (
    <>
      {first && (
        <RowList
          collection="stacks"
          title="Factory stacks"
          teach="Modules, end plates and rods as the factory joined them: kept whole, or split, with what the split needs."
          add="Another stack"
          fresh={() => ({ name: 'new stack', modules: { [first]: true }, size_mm: [600, 300, 200] })}
          fields={[
            { kind: 'length', at: 'size_mm/0', label: 'Length over plates' },
            { kind: 'length', at: 'size_mm/1', label: 'Width' },
            { kind: 'length', at: 'size_mm/2', label: 'Height' },
            { kind: 'mass', at: 'mass_kg', label: 'Mass (empty: not weighed)', optional: true },
            { kind: 'tick', at: 'kept', label: 'Kept whole' },
            { kind: 'text', at: 'split_needs', label: 'A split needs' },
          ]}
          summary={(s: Stack) =>
            `${Object.keys(s.modules).length} modules, ${s.kept ? 'kept whole' : 'to be split'}`
          }
          extra={(id) => <Members id={id} />}
        />
      )}
      <RowList
        collection="hardware"
        title="Donor hardware kept"
        add="Another part"
        fresh={() => ({ name: 'new part', count: 1 })}
        fields={[
          { kind: 'number', at: 'count', label: 'How many', whole: true },
          { kind: 'choose', at: 'what', label: 'It is', options: WHAT.map((w) => [w, w] as const) },
          { kind: 'text', at: 'note', label: 'Note' },
        ]}
        summary={(h: { count: number; what: string }) => `${h.count} · ${h.what}`}
      />
    </>
  )
}

function Members({ id }: { id: string }) {
  const { modules, stacks } = useDocument()
  const edit = useLive((s) => s.edit)
  const held = stacks[id]?.modules ?? {}
  return (
    <div role="group" aria-label="Modules in it" className="flex flex-wrap gap-x-5">
      {Object.entries(modules).map(([key, module]) => (
        <Tick
          key={key}
          label={module.name}
          value={key in held}
          onChange={(on) => {
            const path = `/stacks/${id}/modules/${key}`
            if (on || Object.keys(held).length > 1)
              void edit([on ? { op: 'add', path, value: true } : { op: 'remove', path }])
          }}
        />
      ))}
    </div>
  )
}
