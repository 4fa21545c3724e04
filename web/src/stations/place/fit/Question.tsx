/** The question to the bays: what, where, how built, what matters. */
import { type ReactNode, useState } from 'react'

import { Refused, wordsOf } from '../../../design/api'
import { useDocument, useLoaded } from '../../../design/live'
import { askStudy } from '../../../design/queries'
import { Fold } from '../../../ui/Fold'
import { Choose } from '../../../ui/Choose'
import { WELDS } from '../../welds'
import { Tick } from '../../../ui/Tick'
import { Button, Heading, Title } from '../../../ui/parts'
import { Slide } from '../../../ui/Slide'
import { ShortBlank } from '../../../ui/ShortForm'
import { baysOf, type Goal, kindsOf, TOWARDS, useAsking, WEIGHTS, wishesOf } from './wishes'

const GOALS = [
  ['most', 'as many as go in'],
  ['exactly', 'exactly so many'],
  ['window', 'what the gear’s voltage allows'],
] as const

export function Question({ running }: { running: boolean }) {
  const { project } = useLoaded()
  const document = useDocument()
  const asking = useAsking()
  const [wrong, setWrong] = useState<Wrong>([])
  const bays = Object.entries(document.bays)
  const kinds = Object.entries(document.module_kinds)
  const chosenKinds = kindsOf(asking, document)
  const faces = [...new Set(chosenKinds.flatMap((k) => document.module_kinds[k]?.may_rest_on ?? []))]
  const chosenBays = baysOf(asking, document)
  const lacks =
    bays.length === 0
      ? 'Survey a space first.'
      : chosenBays.length === 0
        ? 'Tick a space to ask.'
        : chosenKinds.length === 0
          ? 'Tick a kind of modules.'
          : ''

  async function ask() {
    setWrong([])
    try {
      const study = await askStudy(project, wishesOf(asking, document))
      asking.set({ study: study.id, kept: [] })
    } catch (error) {
      const told = error instanceof Refused ? error.problem.errors : undefined
      setWrong(told ?? [{ path: '', message: wordsOf(error) }])
    }
  }

  const blank = (name: BlankName) => (
    <ShortBlank
      key={name}
      label={BLANKS[name][0]}
      value={asking[name]}
      onChange={(text) => asking.set({ [name]: text })}
      problem={saidOf(wrong, name)}
      number
      inputMode="decimal"
    />
  )
  const elsewhere = wrong.filter(({ path }) => !Object.values(BLANKS).some(([, at]) => isAt(path, at)))
  return (
    <>
      <Title>How many fit?</Title>
      <Heading>In which spaces</Heading>
      {bays.map(([key, bay]) => (
        <Tick
          key={key}
          label={bay.name}
          value={chosenBays.includes(key)}
          onChange={() => asking.set({ bays: flipped(chosenBays, key) })}
        />
      ))}
      <Heading>Which modules, how many</Heading>
      {kinds.length > 1 &&
        kinds.map(([key, kind]) => (
          <Tick
            key={key}
            label={kind.name}
            value={chosenKinds.includes(key)}
            onChange={() => asking.set({ kinds: flipped(chosenKinds, key) })}
          />
        ))}
      <Choose
        label="Wanted"
        value={asking.goal}
        options={GOALS}
        onChange={(goal: Goal) => asking.set({ goal })}
      />
      {asking.goal === 'exactly' && (
        <Two>
          {blank('series')}
          {blank('parallel')}
        </Two>
      )}
      {asking.goal === 'window' && (
        <>
          <Two>
            {blank('lowV')}
            {blank('highV')}
          </Two>
          <p className="m-0 text-sm text-soft">
            Empty cells to full cells must lie within it. Left empty: what all gear that goes in states.
          </p>
        </>
      )}
      <Tick
        label="more than stand on the shelf"
        value={asking.anyNumber}
        onChange={(anyNumber) => asking.set({ anyNumber })}
      />
      {elsewhere.map(({ path, message }) => (
        <p key={path + message} role="alert" className="my-1 font-semibold text-foul">
          {message}
        </p>
      ))}
      {lacks && <p className="my-1 font-semibold">{lacks}</p>}
      <Button
        className="mt-2 w-full"
        data-goes="/boxes"
        disabled={running || lacks !== ''}
        onClick={() => void ask()}
      >
        {running ? 'Asking …' : 'Ask'}
      </Button>
      <Fold
        words="How it may be built"
        look="heading"
        className="mt-3"
        open={BUILT.some((name) => saidOf(wrong, name))}
      >
        <fieldset className="m-0 border-0 p-0">
          <legend className="narrow">Terminals reached from (none: any side)</legend>
          <span className="flex flex-wrap gap-x-3">
            {TOWARDS.map(([key, words]) => (
              <Tick
                key={key}
                label={words}
                value={asking.towards.includes(key)}
                onChange={() => asking.set({ towards: flipped(asking.towards, key) })}
              />
            ))}
          </span>
        </fieldset>
        <fieldset className="m-0 border-0 p-0">
          <legend className="narrow">Standing on (none: any face they may rest on)</legend>
          <span className="flex flex-wrap gap-x-3">
            {faces.map((face) => (
              <Tick
                key={face}
                label={face.replace('_', ' ')}
                value={asking.restOn.includes(face)}
                onChange={() => asking.set({ restOn: flipped(asking.restOn, face) })}
              />
            ))}
          </span>
        </fieldset>
        <Choose
          label="Left empty"
          value={asking.empty}
          options={[
            ['', 'no side'],
            ['left', 'left of the centreline'],
            ['right', 'right of the centreline'],
          ]}
          onChange={(empty) => asking.set({ empty })}
        />
        <Two>{BUILT.map(blank)}</Two>
        <Choose
          label="Sheet of"
          value={asking.material}
          options={Object.entries(document.tables.materials).map(([key, m]) => [key, m.name] as const)}
          onChange={(material) => asking.set({ material })}
        />
        <Choose
          label="Welded true to (ISO 13920)"
          value={asking.welds}
          options={WELDS}
          onChange={(welds) => asking.set({ welds })}
        />
        <Tick label="turns mixed in a box" value={asking.mixed} onChange={(mixed) => asking.set({ mixed })} />
        <Tick
          label="edges cut off where it pays"
          value={asking.chamfers}
          onChange={(chamfers) => asking.set({ chamfers })}
        />
        <Tick
          label="all boxes of one size"
          value={asking.oneSize}
          onChange={(oneSize) => asking.set({ oneSize })}
        />
      </Fold>
      <Fold words="What matters more" look="heading" className="mt-2">
        {WEIGHTS.map(([key, words]) => (
          <label key={key} className="flex items-center justify-between gap-3 py-1">
            <span className="narrow">{words}</span>
            <Slide
              from={0}
              to={30}
              value={asking.weights[key]}
              onChange={(weight) => asking.set({ weights: { ...asking.weights, [key]: weight } })}
              className="w-36"
            />
          </label>
        ))}
      </Fold>
    </>
  )
}

const flipped = (list: string[], key: string) =>
  list.includes(key) ? list.filter((k) => k !== key) : [...list, key]

function Two({ children }: { children: ReactNode }) {
  return <div className="grid grid-cols-2 gap-x-3 gap-y-1.5 py-1">{children}</div>
}

type Wrong = readonly { path: string; message: string }[]

/** The blanks by the name of what is typed in each: its words, and where in the question it goes. */
const BLANKS = {
  series: ['in series', '/modules'],
  parallel: ['strings', '/parallel'],
  lowV: ['from V', '/window_v/0'],
  highV: ['to V', '/window_v/1'],
  tiers: ['tiers at most', '/most_tiers'],
  boxes: ['boxes each', '/boxes_per_bay'],
  sheet: ['sheet mm', '/making/construction/thickness_mm'],
  tilt: ['also raked, °', '/tilts_deg'],
  liner: ['wall liner mm', '/making/liners/wall_mm'],
  runner: ['runners mm', '/making/liners/floor_mm'],
} as const
type BlankName = keyof typeof BLANKS
const BUILT = ['tiers', 'boxes', 'sheet', 'tilt', 'liner', 'runner'] as const

const isAt = (path: string, blank: string) => path === blank || path.startsWith(`${blank}/`)
const saidOf = (wrong: Wrong, name: BlankName) =>
  wrong.find(({ path }) => isAt(path, BLANKS[name][1]))?.message
