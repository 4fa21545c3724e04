/** What is looked at stands in the address, so that a reload, Back and a link that was sent return there. */
import { useEffect, useLayoutEffect } from 'react'
import { useLocation, useNavigationType } from 'react-router'

import { useSaid } from '../design/address'
import { type Shows, useChoice } from '../design/choice'
import type { Station } from './stations'

/** The selected thing and what the Place station shows. Back and reload take them from the address; to another station they are
 * taken along. */
export function useAddress(here: Station) {
  const { key } = useLocation()
  const kind = useNavigationType()
  const say = useSaid()
  useLayoutEffect(() => {
    if (kind !== 'POP') return
    const said = new URLSearchParams(window.location.search)
    const { selected, select, show } = useChoice.getState()
    if (said.get('at') !== selected) select(said.get('at'))
    if (here === 'place') show((said.get('shows') as Shows | null) ?? 'drawing')
  }, [key, kind, here])
  useEffect(() => {
    const tell = (replace: boolean) => {
      const { selected, shows } = useChoice.getState()
      say({ at: selected, shows: here === 'place' && shows !== 'drawing' ? shows : null }, replace)
    }
    tell(true)
    return useChoice.subscribe((now, before) => {
      if (now.selected !== before.selected || now.shows !== before.shows) tell(now.shows === before.shows)
    })
  }, [say, here, key])
}
