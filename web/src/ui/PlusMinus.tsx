/** What a ± means, one press away from wherever one stands. */
import { useState } from 'react'

import { Link } from './parts'

export function PlusMinus() {
  const [open, setOpen] = useState(false)
  return (
    <span className="text-sm font-normal tracking-normal normal-case">
      <Link aria-expanded={open} onClick={() => setOpen(!open)}>
        What ± means
      </Link>
      {open && (
        <span role="note" className="my-1 block max-w-[640px] rounded border border-blue bg-wash px-3 py-2">
          The true figure lies within it about 95 times in 100 (k = 2). A ± that somebody stated is taken as
          that; half a step of a scale is a bound and counts as 2 (d/2) / √3. What one cause does in several
          places is added with its sign first: all modules of a kind, somebody aboard while weighed and riding
          again. Then causes that know nothing of each other are added as the root of their squares, for each
          result with its own levers. Sheet metal ± 3 %, fittings nobody weighed ± 25 % (common practice, no
          source). Clear is only what keeps more than its ±.
        </span>
      )}
    </span>
  )
}
