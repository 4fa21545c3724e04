/** Which part of a station is on the screen: it stands in the address. What was chosen elsewhere opens the part where it is mended. */
import { useEffect, useRef } from 'react'
import { useSearchParams } from 'react-router'

import { useSaid } from '../design/address'
import { useChoice } from '../design/choice'

export function useParts<P extends string>(
  parts: readonly (readonly [P, string])[],
  /** By the collection that a path begins with. */
  ofPath: Readonly<Record<string, P>>,
  first: P,
  /** A part that shows everything and is not left for what is pressed in it. */
  stays?: P,
): { part: P; open: (part: P) => void; key: string } {
  const selected = useChoice((s) => s.selected)
  const [search] = useSearchParams()
  const say = useSaid()
  const to = search.get('goes')?.slice(1) ?? selected
  const wanted = ofPath[to?.split('/')[0] ?? '']
  const named = parts.find(([name]) => name === search.get('part'))?.[0]
  const part = named ?? wanted ?? first
  const before = useRef(selected)
  useEffect(() => {
    if (selected === before.current) return
    before.current = selected
    if (wanted && part !== stays && part !== wanted) say({ part: wanted }, true)
  }, [selected, wanted, part, stays, say])
  return { part, open: (next) => say({ part: next }, false), key: `${part} ${selected}` }
}

/** The thing of a collection that is selected, to open its row at once. */
export function selectedIn(collection: string): string | null {
  const { selected } = useChoice.getState()
  return selected?.startsWith(`${collection}/`) ? (selected.split('/')[1] ?? null) : null
}
