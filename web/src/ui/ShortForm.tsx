/** A few words asked in place: labelled blanks, a way to leave it, and the button that does it. */
import { type ReactNode, useId, useState } from 'react'

import { wordsOf } from '../design/api'
import { Button, Link } from './parts'

export function ShortForm({
  does,
  onSubmit,
  onLeave,
  children,
}: {
  /** What the button says. */
  does: string
  /** What goes wrong in it is told under the blanks. */
  onSubmit: () => Promise<void>
  onLeave: () => void
  children: ReactNode
}) {
  const [problem, setProblem] = useState('')
  async function submit() {
    setProblem('')
    await onSubmit().catch((error: unknown) => setProblem(wordsOf(error)))
  }
  return (
    <form
      className="my-2 flex flex-col gap-1.5 rounded border border-blue bg-white p-3"
      onSubmit={(e) => (e.preventDefault(), void submit())}
    >
      {children}
      {problem && (
        <p role="alert" className="m-0 font-semibold text-foul">
          {problem}
        </p>
      )}
      <span className="flex justify-end gap-3">
        <Link type="button" onClick={onLeave}>
          leave it
        </Link>
        <Button type="submit">{does}</Button>
      </span>
    </form>
  )
}

export function ShortBlank({
  label,
  value,
  onChange,
  number = false,
  problem,
  ...rest
}: {
  label: string
  value: string
  onChange: (value: string) => void
  number?: boolean
  autoFocus?: boolean
  required?: boolean
  inputMode?: 'decimal'
  /** What is wrong with it, told below it. */
  problem?: string | undefined
}) {
  const id = useId()
  return (
    <div>
      <label className="flex items-center justify-between gap-2">
        <span className="narrow">{label}</span>
        <input
          {...rest}
          value={value}
          onChange={(e) => onChange(e.target.value)}
          aria-invalid={problem !== undefined}
          aria-describedby={problem && id}
          className={`h-9 rounded border-[1.5px] border-edge bg-white px-2 font-semibold aria-invalid:border-foul ${number ? 'w-[72px] text-right' : 'w-48'}`}
        />
      </label>
      {problem && (
        <p id={id} role="alert" className="m-0 text-sm font-semibold text-foul">
          {problem}
        </p>
      )}
    </div>
  )
}
