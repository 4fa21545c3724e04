/** A pinned box stays where it is: who pinned it and why, and the way to pin or unpin. */
import { useState } from 'react'

import { useDocument, useLive } from '../../design/live'
import { freeId } from '../../design/pointer'
import { useTyped } from '../../design/typed'
import { Link } from '../../ui/parts'
import { ShortBlank, ShortForm } from '../../ui/ShortForm'

export function usePinOf(path: string) {
  const pins = Object.entries(useDocument().pins)
  const found = pins.find(([, pin]) => pin.what === path)
  return found ? { key: found[0], ...found[1] } : null
}

const WORDS = { pinned: 'Pinned', sent: 'At the cutter’s', built: 'Built' } as const

export function Pinned({ path, words = 'Pin it here (P)' }: { path: string; words?: string }) {
  const pin = usePinOf(path)
  const edit = useLive((s) => s.edit)
  const [asking, setAsking] = useState(false)
  if (pin)
    return (
      <p className="my-2 flex items-center justify-between gap-2 border-l-4 border-ink bg-white py-1 pr-2 pl-3">
        <span>
          <strong>{WORDS[pin.state]}</strong>
          {pin.by && ` by ${pin.by}`}: {pin.why}
        </span>
        <Link onClick={() => void edit([{ op: 'remove', path: `/pins/${pin.key}` }])}>unpin</Link>
      </p>
    )
  return asking ? (
    <AskWhy path={path} onDone={() => setAsking(false)} />
  ) : (
    <Link onClick={() => setAsking(true)}>{words}</Link>
  )
}

function AskWhy({ path, onDone }: { path: string; onDone: () => void }) {
  const edit = useLive((s) => s.edit)
  const pins = useDocument().pins
  const [why, setWhy] = useTyped(`/pins/${path}/why`)
  const [by, setBy] = useTyped(`/pins/${path}/by`)
  function leave() {
    setWhy('')
    setBy('')
    onDone()
  }
  async function pin() {
    const value = { what: path, why: why.trim(), by: by.trim() }
    if (await edit([{ op: 'add', path: `/pins/${freeId('pin', pins)}`, value }])) leave()
  }
  return (
    <ShortForm does="Pin" onSubmit={pin} onLeave={leave}>
      <ShortBlank label="Why it stays" value={why} onChange={setWhy} autoFocus required />
      <ShortBlank label="Who says so" value={by} onChange={setBy} />
    </ShortForm>
  )
}

/** The key P: pins with the plainest reason, or unpins. */
export function pinByKey(path: string) {
  const { loaded, edit } = useLive.getState()
  const pins = Object.entries(loaded?.document.pins ?? {})
  const found = pins.find(([, pin]) => pin.what === path)
  if (found) return void edit([{ op: 'remove', path: `/pins/${found[0]}` }])
  const key = freeId('pin', loaded?.document.pins ?? {})
  void edit([{ op: 'add', path: `/pins/${key}`, value: { what: path, why: 'it stays here' } }])
}
