/** Load states: which people and things are aboard in each. */
import { useDocument, useLive } from '../../design/live'
import { freeId } from '../../design/pointer'
import type { Op } from '../../design/types'
import { TickBox } from '../../ui/Tick'
import { NameBlank } from '../../ui/NameBlank'
import { Button, Heading, Link } from '../../ui/parts'

export function LoadStates() {
  const { items, load_states } = useDocument()
  const edit = useLive((s) => s.edit)
  const payload = Object.entries(items).filter(([, item]) => item.state === 'payload')
  const states = Object.entries(load_states).sort(([, a], [, b]) => a.order - b.order)
  function add() {
    const value = { name: 'new load state', aboard: {}, order: states.length + 1 }
    void edit([{ op: 'add', path: `/load_states/${freeId('load-state', load_states)}`, value }])
  }
  function turn(state: string, item: string, aboard: boolean) {
    const path = `/load_states/${state}/aboard/${item}`
    const op: Op = aboard ? { op: 'remove', path } : { op: 'add', path, value: true }
    void edit([op])
  }
  return (
    <>
      <Heading>Load states</Heading>
      {payload.length === 0 && (
        <p className="m-0 text-sm">People and load that ride along are entered in Survey, under Things.</p>
      )}
      {states.map(([id, state]) => (
        <fieldset key={id} className="m-0 mb-2 border-0 border-b border-hair p-0 pb-1">
          <legend className="sr-only">{state.name}</legend>
          <span className="flex items-center justify-between gap-2">
            <NameBlank path={`/load_states/${id}/name`} label="Name" />
            <Link onClick={() => void edit([{ op: 'remove', path: `/load_states/${id}` }])}>remove</Link>
          </span>
          {payload.map(([item, { name }]) => (
            <label key={item} className="mr-4 inline-flex min-h-9 items-center gap-2">
              <TickBox value={item in state.aboard} onChange={(on) => turn(id, item, !on)} />
              {name}
            </label>
          ))}
        </fieldset>
      ))}
      {payload.length > 0 && (
        <Button plain onClick={add}>
          Another load state
        </Button>
      )}
    </>
  )
}
