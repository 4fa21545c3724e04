/** A gap that somebody answers for, in place of the rule's: how much, and why. */
import { useState } from 'react'

import { wordsOf } from '../design/api'
import { useDocument, useLive } from '../design/live'
import { readText } from '../design/queries'
import type { Finding } from '../design/types'
import { Button, Link } from '../ui/parts'
import { useUnits } from '../ui/units'

export function AgreeGap({ finding }: { finding: Finding }) {
  const agreed = Object.entries(useDocument().agreed_gaps)
  const edit = useLive((s) => s.edit)
  const [open, setOpen] = useState(false)
  const [one, other] = finding.subjects
  if (!one || !other) return null
  const found = agreed.find(([, g]) => [g.one, g.other].includes(one) && [g.one, g.other].includes(other))
  if (found)
    return (
      <Link onClick={() => void edit([{ op: 'remove', path: `/agreed_gaps/${found[0]}` }])}>
        back to the rule’s gap
      </Link>
    )
  if (!open) return <Link onClick={() => setOpen(true)}>agree on another gap</Link>
  return <Asked one={one} other={other} taken={agreed.map(([key]) => key)} onDone={() => setOpen(false)} />
}

function Asked({
  one,
  other,
  taken,
  onDone,
}: {
  one: string
  other: string
  taken: string[]
  onDone: () => void
}) {
  const edit = useLive((s) => s.edit)
  const unit = useUnits().length
  const [need, setNeed] = useState('')
  const [reason, setReason] = useState('')
  const [problem, setProblem] = useState('')

  async function agree() {
    try {
      const need_mm = await readText({ text: need, path: '/agreed_gaps/a/need_mm', unit })
      const key = Array.from({ length: 500 }, (_, n) => `g${n + 1}`).find((k) => !taken.includes(k))
      const value = { one, other, need_mm, reason: reason.trim() }
      if (await edit([{ op: 'add', path: `/agreed_gaps/${key}`, value }])) onDone()
    } catch (error) {
      setProblem(wordsOf(error))
    }
  }

  return (
    <form className="mt-1 flex flex-col gap-1" onSubmit={(e) => (e.preventDefault(), void agree())}>
      <label className="flex items-center justify-between gap-2">
        gap agreed on
        <input
          autoFocus
          required
          value={need}
          onChange={(e) => setNeed(e.target.value)}
          className={`${BLANK} w-20 text-right`}
        />
      </label>
      <label className="flex items-center justify-between gap-2">
        because
        <input
          required
          value={reason}
          onChange={(e) => setReason(e.target.value)}
          className={`${BLANK} w-52`}
        />
      </label>
      {problem && (
        <p role="alert" className="m-0 font-semibold text-foul">
          {problem}
        </p>
      )}
      <span className="flex justify-end gap-3">
        <Link type="button" onClick={onDone}>
          leave it
        </Link>
        <Button type="submit">Agree</Button>
      </span>
    </form>
  )
}

const BLANK = 'h-9 rounded border-[1.5px] border-edge bg-white px-2 font-semibold'
