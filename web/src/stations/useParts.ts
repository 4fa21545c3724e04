/** Which part of a station is on the screen. What was chosen elsewhere opens the part where it is mended. */
import { useState } from 'react'

import { useChoice } from '../design/choice'

export function useParts<P extends string>(
  /** By the collection that a path begins with. */
  ofPath: Readonly<Record<string, P>>,
  first: P,
  /** A part that shows everything and is not left for what is pressed in it. */
  stays?: P,
): { part: P; open: (part: P) => void; key: string } {
  const selected = useChoice((s) => s.selected)
  const wanted = ofPath[selected?.split('/')[0] ?? '']
  const [part, open] = useState<P>(wanted ?? first)
  const [shownFor, setShownFor] = useState(selected)
  if (selected !== shownFor) {
    setShownFor(selected)
    if (wanted && part !== stays) open(wanted)
  }
  return { part, open, key: `${part} ${shownFor}` }
}

/** The thing of a collection that is selected, to open its row at once. */
export function selectedIn(collection: string): string | null {
  const { selected } = useChoice.getState()
  return selected?.startsWith(`${collection}/`) ? (selected.split('/')[1] ?? null) : null
}
