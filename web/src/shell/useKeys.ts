/** Keys that work everywhere but in blanks. */
import { useEffect } from 'react'

import { useGoTo } from '../design/address'
import { boxOf, useChoice } from '../design/choice'
import { useLive } from '../design/live'
import { at } from '../design/pointer'
import { pinByKey } from '../stations/place/Pinned'
import { quarterTurn } from '../stations/place/turns'
import { useSteps } from './useSteps'
import { useFind } from './Find'
import { useCard } from './KeyCard'
import { STATIONS } from './stations'

/** Undo or redo, where a key asks for one. */
function stepOf(event: { ctrlKey: boolean; metaKey: boolean; shiftKey: boolean; key: string }) {
  if (!event.ctrlKey && !event.metaKey) return null
  const key = event.key.toLowerCase()
  if (key === 'y') return 'redo'
  return key === 'z' ? (event.shiftKey ? 'redo' : 'undo') : null
}

/** Whether something stands in a blank that is not stored: there a step back is the browser's, over what was typed. */
const isTyped = (blank: HTMLElement) =>
  blank.matches('textarea, input:not([type]), input[type=text]') && !('stored' in blank.dataset)

export function useKeys(project: string) {
  const goTo = useGoTo(project)
  const step = useSteps(project)
  useEffect(() => {
    function nextWorst() {
      const { loaded } = useLive.getState()
      const { finding, choose } = useChoice.getState()
      const ids = (loaded?.analysis.watch ?? []).flatMap((row) => row.ids)
      const next = loaded?.analysis.findings.find(
        (f) => f.id === ids[(ids.indexOf(finding ?? '') + 1) % ids.length],
      )
      if (!next) return
      goTo(next.station, next.subjects[0] ?? null)
      choose(next.id, next.subjects[0] ?? null)
    }

    function press(event: KeyboardEvent) {
      const typing =
        event.target instanceof HTMLElement && /^(INPUT|TEXTAREA|SELECT)$/.test(event.target.tagName)
      const { edit, loaded } = useLive.getState()
      const choice = useChoice.getState()
      const back = stepOf(event)
      if (back && !(typing && isTyped(event.target as HTMLElement))) {
        event.preventDefault()
        return void step(back)
      }
      if (typing) return
      if (event.ctrlKey || event.metaKey || event.altKey) return
      if (/^[0-9]$/.test(event.key)) {
        const station = STATIONS.find(([, , number]) => number === Number(event.key))?.[0]
        return station && goTo(station, choice.selected)
      }
      const box = boxOf(choice.selected)
      if (event.key === 'Escape') return choice.climb()
      if (event.key === '?') return useCard.setState((s) => ({ open: !s.open }))
      if (event.key === 'n') return nextWorst()
      if (event.key === 't') return choice.tape(choice.taping ? null : [])
      if (event.key === 'q' && box)
        return void edit(quarterTurn(box, at(loaded?.document, `/boxes/${box}/pose/yaw_deg`) as number))
      if (event.key === 'p' && box) return pinByKey(`boxes/${box}`)
      if (event.key === '/' || event.key === 'f') {
        event.preventDefault()
        return useFind.setState({ open: true })
      }
      if (event.key === 'u') return void step('undo')
      if (event.key === 'w' && choice.finding) return choice.showWorking(!choice.working)
      if (event.key === '=' && box) {
        event.preventDefault()
        choice.place(true)
      }
    }
    window.addEventListener('keydown', press)
    return () => window.removeEventListener('keydown', press)
  }, [goTo, step])
}
