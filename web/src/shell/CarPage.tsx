/** One car: the frame with the rule of stations, the station's screen, the vial and the watch strip. */
import { Suspense, useEffect } from 'react'
import { useNavigate, useParams } from 'react-router'

import { isGone, useChoice } from '../design/choice'
import { useLive } from '../design/live'
import { useNews } from '../design/news'
import { Button, Teach } from '../ui/parts'
import { AwayNote } from './AwayNote'
import { Instruments } from './Instruments'
import { KeyCard } from './KeyCard'
import { NextLine } from './NextLine'
import { PrintSheet } from './PrintSheet'
import { Refusal } from './Refusal'
import { isStation, loadAll, SCREENS, STATIONS } from './stations'
import { StationRule } from './StationRule'
import { useAddress } from './useAddress'
import { useFocusKept } from './useFocusKept'
import { useGoes } from './useGoes'
import { useKeys } from './useKeys'
import { WatchStrip } from './WatchStrip'

const AT_LEISURE_MS = 1000

export function CarPage() {
  const { project = '', station } = useParams()
  const loaded = useLive((s) => s.loaded)
  const problem = useLive((s) => s.problem)
  const open = useLive((s) => s.open)
  const go = useNavigate()
  useEffect(() => void open(project), [open, project])
  useEffect(() => {
    const timer = setTimeout(loadAll, AT_LEISURE_MS) // after what is on the screen
    return () => clearTimeout(timer)
  }, [])
  useKeys(project)
  useNews(project)
  useEffect(
    () =>
      useLive.subscribe(({ loaded: now }) => {
        const { selected, select } = useChoice.getState()
        if (now && selected && isGone(selected, now.document)) select(null)
      }),
    [],
  )
  const here = isStation(station) ? station : 'place'
  useAddress(here)
  useGoes()
  useFocusKept()
  if (!loaded || loaded.project !== project) {
    return problem ? (
      <Teach action={<Button onClick={() => void go('/')}>To the cars</Button>}>{problem.detail}</Teach>
    ) : (
      <Teach>Opening the car …</Teach>
    )
  }
  const Screen = SCREENS[here]
  return (
    <div className="flex h-full min-h-0 flex-col">
      <StationRule here={here} />
      <NextLine />
      <main className="flex min-h-0 flex-1 flex-col print:hidden">
        <h2 className="sr-only">{STATIONS.find(([key]) => key === here)?.[1]}</h2>
        <Suspense fallback={<Teach>One moment …</Teach>}>
          <Screen key={here} />
        </Suspense>
      </main>
      <Instruments />
      <WatchStrip />
      <Refusal />
      <AwayNote />
      <KeyCard />
      <PrintSheet here={here} />
    </div>
  )
}
