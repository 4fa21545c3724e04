/** One line at every station: what takes this car furthest now, and the way to the very blank. It can be left and taken up anywhere. */
import { Hint } from '../ui/Hint'
import { create } from 'zustand'
import { persist } from 'zustand/middleware'

import { useGoTo } from '../design/address'
import { useChoice } from '../design/choice'
import { useAnalysis, useLoaded } from '../design/live'
import { at } from '../design/pointer'
import { sentence } from '../ui/format'
import { Button, Link } from '../ui/parts'
import { useUnits } from '../ui/units'
import { STATIONS } from './stations'

const useLed = create(persist<{ led: boolean }>(() => ({ led: true }), { name: 'level-cradle-next' }))

export function NextLine() {
  const { next } = useAnalysis()
  const led = useLed((s) => s.led)
  const units = useUnits()
  const go = useNext()
  if (!led) return null
  const there = STATIONS.find(([key]) => key === next.station)?.[1]
  return (
    <section
      aria-label="Next"
      className="flex min-h-10 shrink-0 items-center gap-3 border-b border-hair bg-sheet px-4 py-1 print:hidden"
    >
      <Hint words={sentence(next, units)}>
        <p className="m-0 line-clamp-2 min-w-0 flex-1 leading-tight">
          <strong className="text-blue">next:</strong> {sentence(next, units)}
        </p>
      </Hint>
      <Button plain onClick={go}>
        Go there, {there}
      </Button>
      <Link onClick={() => useLed.setState({ led: false })}>leave it</Link>
    </section>
  )
}

/** In the watch strip, where the line was left. */
export function NextLink() {
  const led = useLed((s) => s.led)
  if (led) return null
  return <Link onClick={() => useLed.setState({ led: true })}>next</Link>
}

function useNext(): () => void {
  const { next } = useAnalysis()
  const { project, document } = useLoaded()
  const goTo = useGoTo(project)
  return () => {
    const thing = next.goes.split('/').slice(1, 3).join('/')
    const { select, choose, show } = useChoice.getState()
    const selected = thing.includes('/') && at(document, `/${thing}`) ? thing : null
    goTo(next.station, selected, next.goes)
    if (next.finding) choose(next.finding, selected)
    else select(selected)
    if (next.station === 'place') show(next.goes === '/boxes' ? 'fit' : 'drawing')
  }
}
