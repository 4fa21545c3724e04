/** The steel rule at the top: the car, what undo would do, the stations with how they stand, and the vial. */
import { Link as To } from 'react-router'

import { useGoTo } from '../design/address'
import { useChoice } from '../design/choice'
import { useAnalysis, useLoaded, useWaiting } from '../design/live'
import type { StationState } from '../design/types'
import { Hint } from '../ui/Hint'
import { Mark } from '../ui/Mark'
import { useTouch } from '../ui/touch'
import { UnitSwitch } from '../ui/UnitSwitch'
import { Find } from './Find'
import { Saved } from './Saved'
import { STATIONS, type Station } from './stations'
import { useSteps } from './useSteps'
import { Vial } from './Vial'

export function StationRule({ here }: { here: Station }) {
  const { project, document } = useLoaded()
  const touch = useTouch()
  return (
    <header className="steel relative z-10 flex h-[76px] print:hidden shrink-0 items-stretch border-b border-[#8c9196] pr-2">
      <div className="flex w-[112px] flex-col pt-2.5 pl-4">
        <To to="/" className="text-ink no-underline" aria-label="Level Cradle, to the list of cars">
          <span className="block text-[17px] leading-[18px] font-extrabold" style={{ fontStretch: '112%' }}>
            LEVEL
            <br />
            CRADLE
          </span>
        </To>
        <Saved />
      </div>
      <div className="flex w-[172px] shrink-0 flex-col gap-0.5 pt-2">
        <Hint words={document.name}>
          <h1 className="m-0 truncate text-[length:inherit] leading-[inherit] font-bold">{document.name}</h1>
        </Hint>
        <Steps />
        {!touch && <UnitSwitch />}
      </div>
      <nav aria-label="Stations" className="flex min-w-0 flex-1 items-stretch">
        {STATIONS.map(([key, word, number]) => (
          <Tab key={key} project={project} name={key} word={word} number={number} here={here === key} />
        ))}
      </nav>
      <Find />
      <Vial />
    </header>
  )
}

function Steps() {
  const { undo, redo, project } = useLoaded()
  const step = useSteps(project)
  const last = useWaiting().at(-1) // what is not saved yet is taken back first
  return (
    <span className="flex items-center gap-2">
      <StepButton word="Undo" message={last?.message ?? undo} onStep={() => void step('undo')} />
      <StepButton word="Redo" message={redo} onStep={() => void step('redo')} />
    </span>
  )
}

function StepButton({ word, message, onStep }: { word: string; message: string | null; onStep: () => void }) {
  if (!message && word === 'Redo') return null
  return (
    <Hint words={message ? `${word}: ${message}` : 'Nothing to undo'}>
      <button
        type="button"
        disabled={!message}
        onClick={onStep}
        className="narrow max-w-[150px] min-w-0 truncate text-left text-xs underline decoration-steel underline-offset-2 disabled:no-underline disabled:opacity-60"
      >
        {message ? `${word}: ${message}` : 'Nothing to undo'}
      </button>
    </Hint>
  )
}

function Tab({
  project,
  name,
  word,
  number,
  here,
}: {
  project: string
  name: Station
  word: string
  number: number
  here: boolean
}) {
  const state = useAnalysis().stations[name]
  const goTo = useGoTo(project)
  return (
    <Hint words={`${word} (key ${number})`}>
      <To
        to={`/car/${project}/${name}`}
        onClick={(event) => {
          if (event.ctrlKey || event.metaKey || event.shiftKey) return // another tab opens by itself
          event.preventDefault()
          goTo(name, useChoice.getState().selected)
        }}
        aria-current={here ? 'page' : undefined}
        className={`relative flex min-w-0 flex-1 flex-col gap-1 px-1.5 pt-3 no-underline max-[1100px]:px-1 max-[900px]:px-0.5 ${here ? 'bg-blue text-white' : 'text-ink hover:bg-white/50'}`}
      >
        <span className="truncate text-[15px] leading-5 font-semibold max-[1100px]:text-[13px] max-[1100px]:[font-stretch:75%] max-[900px]:text-[12px] max-[900px]:tracking-tight max-[900px]:[font-stretch:62%]">
          {word}
        </span>
        <Standing state={state} here={here} />
        {here ? (
          <svg
            aria-hidden="true"
            className="absolute top-full left-0 w-full"
            height="8"
            preserveAspectRatio="none"
            viewBox="0 0 10 8"
          >
            <path d="M0,0 H10 L5,8Z" fill="var(--color-blue)" />
          </svg>
        ) : (
          <Graduations />
        )}
      </To>
    </Hint>
  )
}

function Standing({ state, here }: { state: StationState | undefined; here: boolean }) {
  if (!state?.begun) return <span className={`narrow text-xs ${here ? '' : 'text-soft'}`}>not begun</span>
  const counts = (['foul', 'unknown', 'tight'] as const).filter((k) => state[k] > 0)
  if (counts.length === 0)
    return (
      <span className="narrow flex items-center gap-1 text-xs">
        <Mark state="clear" inverse={here} silent /> clear
      </span>
    )
  return (
    <span
      className={`flex w-fit max-w-full items-center gap-1 overflow-hidden rounded-full pr-1.5 pl-0.5 ${here ? '' : 'bg-white'}`}
    >
      {counts.map((key) => (
        // in a narrow window the worst alone: half a mark would say something else
        <span key={key} className="flex items-center text-sm font-semibold max-[1100px]:not-first:hidden">
          <Mark state={key} inverse={here} />
          {state[key]}
        </span>
      ))}
    </span>
  )
}

function Graduations() {
  return (
    <svg aria-hidden="true" className="absolute bottom-0 left-0 w-full" height="9">
      <defs>
        <pattern id="graduations" width="50" height="9" patternUnits="userSpaceOnUse">
          <path d="M0.5,0 V9" stroke="#6c7176" strokeWidth="0.9" />
          <path
            d="M5.5,5 V9 M10.5,5 V9 M15.5,5 V9 M20.5,5 V9 M30.5,5 V9 M35.5,5 V9 M40.5,5 V9 M45.5,5 V9"
            stroke="#6c7176"
            strokeWidth="0.8"
          />
          <path d="M25.5,3 V9" stroke="#6c7176" strokeWidth="0.8" />
        </pattern>
      </defs>
      <rect width="100%" height="9" fill="url(#graduations)" />
    </svg>
  )
}
