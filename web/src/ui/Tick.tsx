/** A box to tick, and one with its words. */
import { Checkbox } from 'radix-ui'

import { useAhead } from './useAhead'

export function TickBox({
  value,
  onChange,
  name,
}: {
  value: boolean
  onChange: (value: boolean) => void
  /** What it is called, where no words stand round it. */
  name?: string
}) {
  return (
    <Checkbox.Root
      checked={value}
      onCheckedChange={(next) => onChange(next === true)}
      aria-label={name}
      className="inline-flex h-[18px] w-[18px] shrink-0 items-center justify-center rounded-[3px] border-[1.5px] border-edge bg-white data-[state=checked]:border-blue data-[state=checked]:bg-blue"
    >
      <Checkbox.Indicator asChild>
        <svg viewBox="0 0 12 12" className="h-3 w-3 fill-none stroke-white stroke-[2.2]" aria-hidden="true">
          <path d="M2 6.5 5 9.5 10 3" />
        </svg>
      </Checkbox.Indicator>
    </Checkbox.Root>
  )
}

export function Tick({
  label,
  value,
  onChange,
}: {
  label: string
  value: boolean
  onChange: (value: boolean) => void
}) {
  const [shown, show] = useAhead(value)
  return (
    <label className="flex min-h-9 items-center gap-2">
      <TickBox
        value={shown}
        onChange={(next) => {
          show(next)
          onChange(next)
        }}
      />
      {label}
    </label>
  )
}
