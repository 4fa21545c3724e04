/** A row of buttons of which one is pressed: one stop for the Tab key, arrows go along it. */
import { ToggleGroup } from 'radix-ui'
import type { ReactNode } from 'react'

export type Option = readonly [key: string, words: ReactNode, name?: string]

export function Toggles({
  label,
  value,
  options,
  onChange,
  look,
  className,
  children,
}: {
  label: string
  value: string | null
  options: readonly Option[]
  onChange: (value: string) => void
  look: (pressed: boolean) => string
  className: string
  children?: ReactNode
}) {
  // of the kind that may press several: each stays a button that is pressed or not, and the pressed one can be pressed again
  return (
    <ToggleGroup.Root
      type="multiple"
      role="group"
      aria-label={label}
      value={value === null ? [] : [value]}
      onValueChange={(next) => onChange(next.find((key) => key !== value) ?? value ?? '')}
      className={className}
    >
      {options.map(([key, words, name]) => (
        <ToggleGroup.Item key={key} value={key} aria-label={name} className={look(key === value)}>
          {words}
        </ToggleGroup.Item>
      ))}
      {children}
    </ToggleGroup.Root>
  )
}

/** A row of things of which one is on the screen. */
export function OneOf({
  bare = false,
  ...rest
}: {
  label: string
  value: string | null
  options: readonly (readonly [string, string])[]
  onChange: (value: string) => void
  bare?: boolean
  children?: ReactNode
}) {
  const idle = bare ? 'border-transparent' : 'border-edge bg-sheet'
  return (
    <Toggles
      {...rest}
      className={`flex flex-wrap items-center ${bare ? 'gap-0.5' : 'gap-2'}`}
      look={(pressed) =>
        `min-h-10 rounded border-2 font-semibold ${bare ? 'px-2' : 'px-3'} ${pressed ? 'border-blue bg-white text-blue' : idle}`
      }
    />
  )
}
