/** "Put a box in this bay": the core says what stands clear there in a turn chosen by hand. */
import { useState } from 'react'

import { useChoice } from '../../design/choice'
import { useDocument, useLive, useLoaded } from '../../design/live'
import { firstBox } from '../../design/orders'
import type { FirstBox as Found, Op } from '../../design/types'
import { Choose } from '../../ui/Choose'
import { Button, Heading } from '../../ui/parts'
import { turnsOf } from './turns'

export function FirstBox() {
  const { project } = useLoaded()
  const document = useDocument()
  const edit = useLive((s) => s.edit)
  const select = useChoice((s) => s.select)
  const bays = Object.entries(document.bays)
  const kinds = Object.entries(document.module_kinds)
  const [bay, setBay] = useState(bays[0]?.[0] ?? '')
  const [kind, setKind] = useState(kinds[0]?.[0] ?? '')
  const [turn, setTurn] = useState('')
  const [found, setFound] = useState<Found | null>(null)
  const [problem, setProblem] = useState('')
  const chosen = document.module_kinds[kind]
  if (!chosen || bays.length === 0) return null
  const turns = turnsOf(chosen)
  const turned = turns.find((t) => `${t.down} ${t.aft}` === turn) ?? turns[0]

  async function ask() {
    setProblem('')
    try {
      if (!turned) return
      const body = { bay, kind, turn: { down: turned.down, aft: turned.aft } }
      setFound(await firstBox(project, body))
    } catch (error) {
      setProblem((error as Error).message)
    }
  }

  async function put() {
    const patch = found?.patch as Op[] | undefined
    if (!patch?.[0] || !(await edit(patch))) return
    setFound(null)
    select(patch[0].path.slice(1))
  }

  return (
    <section aria-label="Put a box in a bay">
      <Heading>Put a box in a bay</Heading>
      <Choose
        label="Bay"
        value={bay}
        options={bays.map(([key, b]) => [key, b.name] as const)}
        onChange={(v) => (setBay(v), setFound(null))}
      />
      <Choose
        label="Module kind"
        value={kind}
        options={kinds.map(([key, k]) => [key, k.name] as const)}
        onChange={(v) => (setKind(v), setFound(null))}
      />
      <Choose
        label="Stands"
        value={turned ? `${turned.down} ${turned.aft}` : ''}
        options={turns.map((t) => [`${t.down} ${t.aft}`, t.words] as const)}
        onChange={(v) => (setTurn(v), setFound(null))}
      />
      {!found && (
        <Button className="mt-2 w-full" onClick={() => void ask()}>
          What fits?
        </Button>
      )}
      {problem && <p role="alert">{problem}</p>}
      {found && (
        <div className="mt-2 rounded border border-blue bg-wash p-3" role="status">
          <p className="m-0 text-lg font-bold">{found.message}</p>
          {!found.fits && (
            <p className="m-0">One can be put there all the same: it is foul, and says what it would take.</p>
          )}
          <Button className="mt-2 w-full" onClick={() => void put()}>
            {found.fits ? 'Put it there' : 'Put one there'}
          </Button>
        </div>
      )}
    </section>
  )
}
