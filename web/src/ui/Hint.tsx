/** More words at what is short: under the mouse, and under the focus of the keys. */
import { Tooltip } from 'radix-ui'
import type { ReactElement } from 'react'

const SOON_MS = 600

export function Hint({ words, children }: { words: string | undefined; children: ReactElement }) {
  if (!words) return children
  return (
    <Tooltip.Provider delayDuration={SOON_MS} disableHoverableContent>
      <Tooltip.Root>
        <Tooltip.Trigger asChild>{children}</Tooltip.Trigger>
        <Tooltip.Portal>
          <Tooltip.Content
            sideOffset={5}
            collisionPadding={8}
            className="z-40 max-w-80 rounded border border-edge bg-white px-2 py-1 text-sm text-ink shadow print:hidden"
          >
            {words}
          </Tooltip.Content>
        </Tooltip.Portal>
      </Tooltip.Root>
    </Tooltip.Provider>
  )
}
