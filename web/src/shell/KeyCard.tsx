/** The card of keys. */
import { create } from 'zustand'

import { Dialog } from '../ui/Dialog'

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
    <Dialog
      title="Keys"
      open={open}
      onOpen={(next) => useCard.setState({ open: next })}
      className="top-1/2 left-1/2 w-[460px] -translate-x-1/2 -translate-y-1/2 p-5"
    >
      <dl className="m-0 grid grid-cols-[110px_1fr] gap-y-1.5">
        {KEYS.map(([key, words]) => (
          <div key={key} className="contents">
            <dt className="font-bold">{key}</dt>
            <dd className="m-0">{words}</dd>
          </div>
        ))}
      </dl>
    </Dialog>
  )
}
