/** Openings of a box and what sits in them: round holes on a face, put there by hand or where they go. */
import { useState } from 'react'

import { useDocument, useLive, useLoaded } from '../../design/live'
import { fittedIn } from '../../design/orders'
import { at, freeId } from '../../design/pointer'
import type { Box, Document, Op } from '../../design/types'
import { useAsked } from '../../design/useAsked'
import { Blank } from '../../ui/Blank'
import { Choose } from '../../ui/Choose'
import { Fold } from '../../ui/Fold'
import { NameBlank } from '../../ui/NameBlank'
import { Button, Heading, Link } from '../../ui/parts'
import { EDGES, type FaceName, FACES, OnFace } from './OnFace'

type Opening = Box['openings'][string]
type Size = NonNullable<Document['tables']['fitted']>[string]

export function Openings({ id, box }: { id: string; box: Box }) {
  const path = `/boxes/${id}/openings`
  return (
    <section aria-label="Openings">
      <Heading>Openings</Heading>
      {Object.entries(box.openings).map(([key, hole]) => (
        <OneOpening key={key} path={`${path}/${key}`} hole={hole} />
      ))}
      <WhereItGoes id={id} />
      <ByHand path={path} box={box} />
    </section>
  )
}

function OneOpening({ path, hole }: { path: string; hole: Opening }) {
  const edit = useLive((s) => s.edit)
  const sizes = useSizes()
  const now = hole.fitted ? sizes.find(([, size]) => isThat(size, hole))?.[0] : ''
  function fit(key: string) {
    const size = sizes.find(([name]) => name === key)?.[1]
    const ops: Op[] = [{ op: 'replace', path: `${path}/fitted`, value: size ? fittedOf(size) : null }]
    if (size) ops.push({ op: 'replace', path: `${path}/diameter_mm`, value: size.hole_mm })
    void edit(ops)
  }
  return (
    <div className="border-b border-hair py-1">
      <span className="flex items-center justify-between gap-2">
        <NameBlank path={`${path}/name`} label={`On the ${hole.face}`} />
        <Link onClick={() => void edit([{ op: 'remove', path }])}>remove</Link>
      </span>
      <OnFace path={path} thing={hole} />
      <Blank path={`${path}/diameter_mm`} label="Diameter" name={`${hole.name}, diameter`} />
      <Choose
        label="In it sits"
        value={now ?? 'own'}
        options={[
          ['', 'nothing, a plain hole'],
          ...(now === undefined ? [['own', `${hole.fitted?.kind}, sizes of its own`] as const] : []),
          ...sizes.map(([key, size]) => [key, wordsOfSize(size)] as const),
        ]}
        onChange={fit}
      />
      {hole.fitted && <Sizes path={`${path}/fitted`} name={hole.name} kind={hole.fitted.kind} />}
    </div>
  )
}

const OWN = [
  ['seat_mm', 'Seat, across'],
  ['out_mm', 'Stands out'],
  ['in_mm', 'Stands in'],
] as const
const OF_ITS_LINE = [
  ['line_mm', 'Cable or hose, thick'],
  ['bend_radius_mm', 'Its least bend radius'],
] as const
const WITHOUT_LINE = ['vent', 'pressure relief', 'drain', 'service disconnect']

function Sizes({ path, name, kind }: { path: string; name: string; kind: string }) {
  const blanks = WITHOUT_LINE.includes(kind) ? OWN : [...OWN, ...OF_ITS_LINE]
  return (
    <Fold words={`Sizes of ${name}`}>
      {blanks.map(([figure, label]) => (
        <Blank key={figure} path={`${path}/${figure}`} label={label} name={`${name}: ${label}`} />
      ))}
      {kind === 'connector' && <Pole path={path} name={name} />}
    </Fold>
  )
}

/** What a connector carries, and what keeps other plugs out of it. */
function Pole({ path, name }: { path: string; name: string }) {
  const edit = useLive((s) => s.edit)
  const value = at(useDocument(), `${path}/pole`) as Pole | null
  return (
    <>
      <Choose
        label={`${name} carries`}
        value={value ?? ''}
        options={POLES}
        onChange={(pole) => void edit([{ op: 'replace', path: `${path}/pole`, value: pole || null }])}
      />
      <NameBlank path={`${path}/key`} label={`Key of ${name}`} />
    </>
  )
}

type Pole = 'plus' | 'minus'
const POLES = [
  ['', 'nobody has said'],
  ['plus', 'plus'],
  ['minus', 'minus'],
] as const

/** Near what it serves, where nothing is foul of it. */
function WhereItGoes({ id }: { id: string }) {
  const { project } = useLoaded()
  const { ask, problem } = useAsked()
  const sizes = useSizes()
  const [chosen, setChosen] = useState('gland-m20')
  return (
    <div className="mt-2 flex flex-wrap items-center gap-2">
      <Choose
        label="What to put in"
        hideLabel
        value={chosen}
        options={sizes.map(([key, size]) => [key, wordsOfSize(size)] as const)}
        onChange={setChosen}
      />
      <Button plain onClick={() => void ask(() => fittedIn(project, id, chosen))}>
        Put it where it goes
      </Button>
      {problem && (
        <span role="alert" className="text-foul">
          {problem}
        </span>
      )}
    </div>
  )
}

function ByHand({ path, box }: { path: string; box: Box }) {
  const edit = useLive((s) => s.edit)
  const [face, setFace] = useState<FaceName>('aft')
  function add() {
    const [[one] = [], [other] = []] = EDGES[face]
    const value = {
      name: 'hole',
      face,
      from: [one, other],
      u_mm: 60,
      v_mm: 60,
      diameter_mm: 20,
      fitted: null,
    }
    void edit([{ op: 'add', path: `${path}/${freeId('hole', box.openings)}`, value }])
  }
  return (
    <div className="mt-2 flex items-center gap-2">
      <Choose label="Face of the new hole" hideLabel value={face} options={FACES} onChange={setFace} />
      <Button plain data-goes={path} onClick={add}>
        Another hole there
      </Button>
    </div>
  )
}

const useSizes = () => Object.entries(useDocument().tables.fitted ?? {})

function wordsOfSize(size: Size): string {
  const line = size.line_mm ? `, line to ${size.line_mm} mm` : ''
  return `${size.kind}${size.size ? ` ${size.size}` : ''}${line}`
}

function fittedOf({ kind, size, seat_mm, out_mm, in_mm, line_mm, bend_radius_mm }: Size) {
  return { kind, size, seat_mm, out_mm, in_mm, line_mm, bend_radius_mm }
}

/** Whether what sits there is still as the table has it. */
function isThat(size: Size, hole: Opening): boolean {
  const is = fittedOf(size)
  return (Object.keys(is) as (keyof typeof is)[]).every((name) => hole.fitted?.[name] === is[name])
}
