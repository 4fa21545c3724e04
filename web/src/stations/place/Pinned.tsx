/** A pinned box stays where it is: who pinned it and why, and the way to pin or unpin. */
import { useState } from 'react'

import { useDocument, useLive } from '../../design/live'
import { Button, Link } from '../../ui/parts'

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
  const [why, setWhy] = useState('')
  const [by, setBy] = useState('')
  async function pin() {
    const key = Array.from({ length: 300 }, (_, n) => `p${n + 1}`).find((k) => !(k in pins))
    if (
      await edit([{ op: 'add', path: `/pins/${key}`, value: { what: path, why: why.trim(), by: by.trim() } }])
    )
      onDone()
  }
  return (
    <form
      className="my-2 flex flex-col gap-1.5 rounded border border-blue bg-wash p-3"
      onSubmit={(e) => (e.preventDefault(), void pin())}
    >
      <label className="flex items-center justify-between gap-2">
        Why it stays
        <input autoFocus required value={why} onChange={(e) => setWhy(e.target.value)} className={BLANK} />
      </label>
      <label className="flex items-center justify-between gap-2">
        Who says so
        <input value={by} onChange={(e) => setBy(e.target.value)} className={BLANK} />
      </label>
      <span className="flex justify-end gap-3">
        <Link type="button" onClick={onDone}>
          leave it
        </Link>
        <Button type="submit">Pin</Button>
      </span>
    </form>
  )
}

const BLANK = 'h-9 w-48 rounded border-[1.5px] border-edge bg-white px-2 font-semibold'

/** The key P: pins with the plainest reason, or unpins. */
export function pinByKey(path: string) {
  const { loaded, edit } = useLive.getState()
  const pins = Object.entries(loaded?.document.pins ?? {})
  const found = pins.find(([, pin]) => pin.what === path)
  if (found) return void edit([{ op: 'remove', path: `/pins/${found[0]}` }])
  const key = Array.from({ length: 300 }, (_, n) => `p${n + 1}`).find((k) => !pins.some(([p]) => p === k))
  void edit([{ op: 'add', path: `/pins/${key}`, value: { what: path, why: 'it stays here' } }])
}
