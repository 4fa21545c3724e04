/** A block rearranged by hand; the core does it and says why where it cannot. */
import { useState } from 'react'

import { useDocument, useLoaded } from '../../design/live'
import { rearranged, type Order } from '../../design/orders'
import type { Block } from '../../design/types'
import { useAsked } from '../../design/useAsked'
import { Fold } from '../../ui/Fold'
import { Choose } from '../../ui/Choose'
import { Link } from '../../ui/parts'
import { Compartments } from './Compartments'
import { Pinned } from './Pinned'

const WAYS = [
  ['aft', 'along'],
  ['across', 'across'],
  ['up', 'up'],
] as const
type Arrangement = (typeof WAYS)[number][0]

export function Rearrange({ box, name, block }: { box: string; name: string; block: Block }) {
  const { project } = useLoaded()
  const document = useDocument()
  const [way, setWay] = useState<Arrangement>('across')
  const [other, setOther] = useState('')
  const [at, setAt] = useState('1')
  const { ask, problem } = useAsked()
  const others = Object.keys(document.boxes[box]?.blocks ?? {}).filter((k) => k !== name)
  const chosen = others.includes(other) ? other : (others[0] ?? '')
  const kinds = Object.entries(document.module_kinds)

  const order = (what: Order['do'], more: Partial<Order> = {}) =>
    ask(() => rearranged(project, box, { do: what, block: name, way, ...more }))

  return (
    <Fold words={`Rearrange block ${name}`} className="mt-1">
      <Pinned path={`boxes/${box}/blocks/${name}`} words="pin this block" />
      <Choose label="Which way" value={way} options={WAYS} onChange={setWay} />
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
        <span className="flex items-center gap-1.5">
          <Link onClick={() => void order('split', { at: Number(at) })}>split after</Link>
          <input
            aria-label="modules in the first part"
            inputMode="numeric"
            value={at}
            onChange={(e) => setAt(e.target.value.replace(/\D/g, ''))}
            className="h-8 w-11 rounded border-[1.5px] border-edge bg-white text-center font-semibold"
          />
        </span>
        <Link onClick={() => void order('copy')}>copy beside</Link>
        <Link onClick={() => void order('mirror')}>mirror</Link>
        {others.length > 1 && <Link onClick={() => void order('spread')}>spread all evenly</Link>}
      </div>
      {kinds.length > 0 && (
        <Choose
          label="One module beside it"
          value=""
          options={[['', 'which kind'], ...kinds.map(([key, kind]) => [key, kind.name] as const)]}
          onChange={(kind) => kind && void order('new', { kind })}
        />
      )}
      {chosen && (
        <>
          <Choose
            label="With block"
            value={chosen}
            options={others.map((k) => [k, k] as const)}
            onChange={setOther}
          />
          <div className="flex flex-wrap gap-x-4 gap-y-1">
            <Link onClick={() => void order('join', { other: chosen })}>join</Link>
            <Link onClick={() => void order('put beside', { other: chosen, end: 'low' })}>put before it</Link>
            <Link onClick={() => void order('put beside', { other: chosen, end: 'high' })}>put after it</Link>
            {(['low', 'middle', 'high'] as const).map((end) => (
              <Link key={end} onClick={() => void order('line up', { other: chosen, end })}>
                line up {END[end]}
              </Link>
            ))}
          </div>
        </>
      )}
      <Compartments box={box} name={name} block={block} />
      {problem && (
        <p role="alert" className="m-0 mt-1 font-semibold text-foul">
          {problem}
        </p>
      )}
    </Fold>
  )
}

const END = { low: 'first edges', middle: 'middles', high: 'last edges' } as const
