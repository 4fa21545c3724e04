/** One row a thing: what comes out, stays, goes in and rides along; opened, its shape and gap. */
import { useState } from 'react'

import { useChoice } from '../../design/choice'
import { useAnalysis, useDocument, useLive } from '../../design/live'
import { freeId } from '../../design/pointer'
import type { Item } from '../../design/types'
import { Blank } from '../../ui/Blank'
import { mass } from '../../ui/format'
import { Button, Caution, Choose, Heading, Link } from '../../ui/parts'
import { useUnits } from '../../ui/units'
import { GapClass, PointBlanks, RowHead, SolidBlanks, useBase } from './rows'

const STATES = [
  ['out', 'comes out'],
  ['in', 'goes in'],
  ['stays', 'stays, in the way'],
  ['payload', 'rides along'],
] as const
type State = (typeof STATES)[number][0]

export function ThingRows() {
  const { items } = useDocument()
  const edit = useLive((s) => s.edit)
  const selected = useChoice((s) => s.selected)
  const [open, setOpen] = useState<string | null>(
    selected?.startsWith('items/') ? (selected.split('/')[1] ?? null) : null,
  )
  const { base, pick } = useBase()
  async function add(state: State) {
    const id = freeId(`${state}-thing`, items)
    const value = {
      name: 'new thing',
      state,
      order: Object.keys(items).length,
      ...(state === 'stays' ? {} : { mass_kg: null }),
    }
    if (await edit([{ op: 'add', path: `/items/${id}`, value }])) setOpen(id)
  }
  return (
    <>
      {pick}
      {STATES.map(([state, words]) => (
        <section key={state} aria-label={words}>
          <Heading right={<Sum state={state} />}>{words}</Heading>
          {state === 'out' && Object.values(items).some((i) => i.fuel && i.state === 'out') && (
            <Caution>
              Fuel first: drain, purge and cap. No drill, spark or weld near a tank or line that held fuel.
            </Caution>
          )}
          {Object.entries(items)
            .filter(([, item]) => item.state === state)
            .sort(([, a], [, b]) => a.order - b.order)
            .map(([id, item]) => (
              <Thing
                key={id}
                id={id}
                item={item}
                open={open === id}
                onOpen={() => setOpen(open === id ? null : id)}
                base={base}
              />
            ))}
          <Button plain className="my-1" onClick={() => void add(state)}>
            Another that {words}
          </Button>
        </section>
      ))}
    </>
  )
}

function Sum({ state }: { state: State }) {
  const total = useAnalysis().level.sums_kg[state]
  const units = useUnits('survey')
  return total === undefined ? null : `${mass(total, units.mass)} in all`
}

function Thing({
  id,
  item,
  open,
  onOpen,
  base,
}: {
  id: string
  item: Item
  open: boolean
  onOpen: () => void
  base: ReturnType<typeof useBase>['base']
}) {
  const edit = useLive((s) => s.edit)
  const path = `/items/${id}`
  return (
    <div className="border-b border-hair">
      <div className="flex min-h-10 items-center gap-4">
        <button
          type="button"
          aria-expanded={open}
          onClick={onOpen}
          className={`min-h-10 flex-1 text-left hover:text-blue ${open ? 'font-bold text-blue' : ''}`}
        >
          {item.name}
        </button>
        {item.state !== 'stays' && (
          <Blank path={`${path}/mass_kg`} label={`${item.name}, mass`} hideLabel kind="mass" optional />
        )}
      </div>
      {open && (
        <div className="mb-3 rounded border border-edge bg-white p-3">
          <RowHead path={path} />
          {item.state !== 'stays' && (
            <>
              <Blank path={`${path}/tol_kg`} label="Mass, ±" kind="mass" />
              {item.at_mm ? (
                <>
                  <span className="narrow text-sm">its CG</span>
                  <PointBlanks path={`${path}/at_mm`} base={base} />
                </>
              ) : (
                <Button
                  plain
                  onClick={() =>
                    void edit([{ op: 'replace', path: `${path}/at_mm`, value: base?.at ?? [0, 0, 400] }])
                  }
                >
                  Say where it sits
                </Button>
              )}
            </>
          )}
          <SolidBlanks path={`${path}/solid`} base={base} optional />
          {item.solid && <GapClass path={`${path}/gap_class`} />}
          <Choose
            label="It"
            value={item.state}
            options={STATES}
            onChange={(v) => void edit([{ op: 'replace', path: `${path}/state`, value: v }])}
          />
          {item.state === 'out' && (
            <Link onClick={() => void edit([{ op: 'replace', path: `${path}/fuel`, value: !item.fuel }])}>
              {item.fuel ? 'It never held fuel' : 'It holds or held fuel'}
            </Link>
          )}
        </div>
      )}
    </div>
  )
}
