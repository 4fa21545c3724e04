/** The card of keys. */
import { Dialog } from 'radix-ui'
import { create } from 'zustand'

export const useCard = create<{ open: boolean }>(() => ({ open: false }))

const KEYS = [
  ['1 – 6, 9', 'the stations, in order'],
  ['arrows', 'nudge the selected box in the view with the heavy frame; Shift: ten steps'],
  ['=', 'type its place'],
  ['Q', 'quarter turn about its peg'],
  ['T', 'tape between two things'],
  ['P', 'pin the selected box where it is, or unpin it'],
  ['F', 'find a name, a finding or a station'],
  ['N', 'next worst finding'],
  ['W', 'the working of the chosen finding'],
  ['U, Ctrl Z', 'undo; Ctrl Shift Z, Ctrl Y: redo'],
  ['Esc', 'back: what was typed or dragged; then module, block, box, nothing'],
  ['Enter, Tab', 'take what was typed; in a list, on to the next blank'],
  ['Alt Enter', 'in a blank: hold what the instrument shows, once more'],
  ['wheel', 'closer and further; a drag on nothing moves the view'],
]

export function KeyCard() {
  const open = useCard((s) => s.open)
  return (
    <Dialog.Root open={open} onOpenChange={(next) => useCard.setState({ open: next })}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-ink/30" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed top-1/2 left-1/2 z-50 w-[460px] -translate-x-1/2 -translate-y-1/2 rounded border-2 border-ink bg-sheet p-5"
        >
          <Dialog.Title className="m-0 mb-2 text-[22px] font-bold text-blue">Keys</Dialog.Title>
          <dl className="m-0 grid grid-cols-[110px_1fr] gap-y-1.5">
            {KEYS.map(([key, words]) => (
              <div key={key} className="contents">
                <dt className="font-bold">{key}</dt>
                <dd className="m-0">{words}</dd>
              </div>
            ))}
          </dl>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  )
}
