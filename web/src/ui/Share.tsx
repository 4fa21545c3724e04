/** How far something long has come. */
import { Progress } from 'radix-ui'

export function Share({ of, name }: { of: number; name: string }) {
  return (
    <Progress.Root
      value={Math.round(of * 100)}
      aria-label={name}
      className="mr-3 inline-block h-3 w-56 overflow-hidden rounded border border-edge bg-white align-middle"
    >
      <Progress.Indicator className="h-full bg-blue" style={{ width: `${of * 100}%` }} />
    </Progress.Root>
  )
}
