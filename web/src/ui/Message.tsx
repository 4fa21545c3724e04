/**
 * What a blank understood, hung beneath it; what is wrong with it above, where no blank is still to come. It takes no press. No popover of
 * Radix: that is a dialog, and the focus belongs to the blank; as a part of the blank it goes with it while the list is scrolled.
 */
export function Message({
  text,
  wrong,
  side = 'left',
  id,
}: {
  text: string
  wrong: boolean
  side?: 'left' | 'right'
  id?: string | undefined
}) {
  if (!text) return null
  return (
    <span
      id={id}
      role={wrong ? 'alert' : 'status'}
      className={`pointer-events-none absolute ${wrong ? 'bottom-full' : 'top-full'} z-20 w-max max-w-64 rounded border bg-white px-2 py-1 text-sm shadow ${side === 'left' ? 'left-0' : 'right-0'} ${wrong ? 'border-foul text-foul' : 'border-edge text-ink'}`}
    >
      {text}
    </span>
  )
}
