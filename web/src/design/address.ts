/** Figures of what is looked at, in the address. */
import { useCallback } from 'react'
import { useNavigate } from 'react-router'

type Change = Readonly<Record<string, string | null>>

/** Puts figures into the address, beside what stands there. Replaced is what Back need not return to. */
export function useSaid(): (change: Change, replace: boolean) => void {
  const go = useNavigate()
  return useCallback(
    (change, replace) => {
      const said = new URLSearchParams(window.location.search)
      for (const [name, value] of Object.entries(change)) {
        if (value === null) said.delete(name)
        else said.set(name, value)
      }
      const search = said.toString()
      if (`?${search}` !== window.location.search && search !== window.location.search)
        void go({ pathname: window.location.pathname, search }, { replace }) // the screen may be on its way still
    },
    [go],
  )
}

/** To a station with what is selected there, in one step: were it said after the screen has come, a reload before that would lose it. */
export function useGoTo(project: string): (station: string, selected: string | null, goes?: string) => void {
  const go = useNavigate()
  return useCallback(
    (station, selected, goes) => {
      const search = new URLSearchParams({
        ...(selected !== null && { at: selected }),
        ...(goes && { goes }),
      })
      void go({ pathname: `/car/${project}/${station}`, search: search.toString() })
    },
    [go, project],
  )
}
