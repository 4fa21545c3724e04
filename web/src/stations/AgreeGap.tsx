/** A gap that somebody answers for, in place of the rule's: how much, and why. */
import { useState } from 'react'

import { useDocument, useLive } from '../design/live'
import { freeId } from '../design/pointer'
import { readText } from '../design/queries'
import type { Finding } from '../design/types'
import { useTyped } from '../design/typed'
import { Link } from '../ui/parts'
import { ShortBlank, ShortForm } from '../ui/ShortForm'
import { useUnits } from '../ui/units'

export function AgreeGap({ finding }: { finding: Finding }) {
  const { agreed_gaps } = useDocument()
  const edit = useLive((s) => s.edit)
  const [open, setOpen] = useState(false)
  const [one, other] = finding.subjects
  if (!one || !other) return null
  const found = Object.entries(agreed_gaps).find(
    ([, g]) => [g.one, g.other].includes(one) && [g.one, g.other].includes(other),
  )
  if (found)
    return (
      <Link onClick={() => void edit([{ op: 'remove', path: `/agreed_gaps/${found[0]}` }])}>
        back to the rule’s gap
      </Link>
    )
  if (!open) return <Link onClick={() => setOpen(true)}>agree on another gap</Link>
  return <Asked one={one} other={other} taken={agreed_gaps} onDone={() => setOpen(false)} />
}

function Asked({
  one,
  other,
  taken,
  onDone,
}: {
  one: string
  other: string
  taken: object
  onDone: () => void
}) {
  const edit = useLive((s) => s.edit)
  const unit = useUnits().length
  const [need, setNeed] = useTyped(`/agreed_gaps/${one}/${other}/need`)
  const [reason, setReason] = useTyped(`/agreed_gaps/${one}/${other}/reason`)

  function leave() {
    setNeed('')
    setReason('')
    onDone()
  }

  async function agree() {
    const need_mm = await readText({ text: need, path: '/agreed_gaps/a/need_mm', unit })
    const value = { one, other, need_mm, reason: reason.trim() }
    if (await edit([{ op: 'add', path: `/agreed_gaps/${freeId('gap', taken)}`, value }])) leave()
  }

  return (
    <ShortForm does="Agree" onSubmit={agree} onLeave={leave}>
      <ShortBlank label="gap agreed on" value={need} onChange={setNeed} number autoFocus required />
      <ShortBlank label="because" value={reason} onChange={setReason} required />
    </ShortForm>
  )
}
