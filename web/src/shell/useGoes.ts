/** The blank that somebody was sent to: its path stands in the address until the hand is there. */
import { useEffect } from 'react'
import { useSearchParams } from 'react-router'

import { useSaid } from '../design/address'

const PATIENCE_MS = 3000

/** The blank of a figure, the first under it, or what its thing or collection is added by. */
function blankOf(path: string): HTMLElement | null {
  for (let here = path; here; here = here.slice(0, here.lastIndexOf('/'))) {
    const found = ['=', '^='].map((is) =>
      document.querySelector<HTMLElement>(
        `main [data-goes${is}"${CSS.escape(here)}${is === '=' ? '' : '/'}"]`,
      ),
    )
    const blank = found[0] ?? found[1]
    if (blank) return blank
  }
  return null
}

export function useGoes() {
  const [search] = useSearchParams()
  const say = useSaid()
  const goes = search.get('goes')
  useEffect(() => {
    if (!goes) return
    const since = performance.now()
    let frame = requestAnimationFrame(function look(now) {
      const blank = blankOf(goes)
      if (!blank && now - since < PATIENCE_MS) return void (frame = requestAnimationFrame(look))
      blank?.scrollIntoView({ block: 'center' })
      blank?.focus()
      say({ goes: null }, true)
    })
    return () => cancelAnimationFrame(frame)
  }, [goes, say])
}
