/** Box: how the shell is made; its sheet as it prints; its masses and openings. */
import { lazy, Suspense, useState } from 'react'

import { boxOf, useChoice } from '../../design/choice'
import { useAnalysis, useLive, useLoaded } from '../../design/live'
import { builtAs } from '../../design/orders'
import type { Box, Op } from '../../design/types'
import { Blank } from '../../ui/Blank'
import { length, mass } from '../../ui/format'
import { Choose } from '../../ui/Choose'
import { OneOf } from '../../ui/Toggles'
import { Tick } from '../../ui/Tick'
import { Fold } from '../../ui/Fold'
import { Fact, Heading, Teach, Title } from '../../ui/parts'
import { useUnits } from '../../ui/units'
import { SentenceRows } from '../FindingRows'
import { Bench, Ledger, StationFrame } from '../Ledger'
import { CONSTRUCTIONS } from './constructions'
import { BoxSection } from './BoxSection'
import { Chambers } from './Chambers'
import { ServicePanels } from './ServicePanels'
import { CutOff } from './CutOff'
import { Held } from './Held'
import { Layers } from './Layers'
import { Lightening } from './Lightening'
import { FACES } from './OnFace'
import { OpenedBox } from './OpenedBox'
import { Openings } from './Openings'
import { Protrusions } from './Protrusions'

const SEALING = [
  ['', 'nobody has said'],
  ['gasket', 'with a gasket'],
  ['sealant', 'with sealant'],
  ['open', 'not sealed'],
] as const
const VENTED = [
  ['', 'nobody has said'],
  ['yes', 'yes'],
  ['no', 'no'],
] as const

const SIDES = [
  ['', 'like the others'],
  ['splash', 'keeps splashes out'],
  ['open', 'open'],
] as const

function sidesSaid(box: Box) {
  const said = Object.entries(box.sides).map(([face, keeps]) => `${face} ${keeps}`)
  return said.length ? `But: ${said.join(', ')}` : 'All sides alike'
}

const sideSaid = (path: string, was: string | undefined, now: string): Op[] =>
  now ? [{ op: was ? 'replace' : 'add', path, value: now }] : was ? [{ op: 'remove', path }] : []

const HELD = /^inside\.(held|hold_down|opened)$/ // told beside what holds

const WalkRound = lazy(() => import('../../views/WalkRound'))
const SHOWN = [
  ['opened', 'Opened'],
  ['walk', 'Walk round, taken apart'],
] as const

export function BoxStation() {
  const [shown, show] = useState('opened')
  const { document } = useLoaded()
  const selected = useChoice((s) => s.selected)
  const select = useChoice((s) => s.select)
  const ids = Object.keys(document.boxes)
  const id = boxOf(selected) ?? ids[0]
  const box = id ? document.boxes[id] : undefined
  if (!id || !box) return <Teach>No box yet. Place the modules first; the box is drawn round them.</Teach>
  return (
    <StationFrame>
      <Bench>
        <div className="mb-2 flex flex-wrap justify-between gap-2">
          <OneOf
            label="Boxes"
            value={id}
            options={ids.map((key) => [key, document.boxes[key]?.name ?? key] as const)}
            onChange={(key) => select(`boxes/${key}`)}
          />
          <OneOf label="How it is shown" value={shown} options={SHOWN} onChange={show} />
        </div>
        {shown === 'opened' ? (
          <>
            <OpenedBox key={id} id={id} name={box.name} />
            <BoxSection key={`${id} cut`} id={id} name={box.name} />
          </>
        ) : (
          <div className="my-2 flex h-[430px] border border-hair">
            <Suspense fallback={<Teach>One moment …</Teach>}>
              <WalkRound key={id} only={id} />
            </Suspense>
          </div>
        )}
        <div className="mt-3 grid grid-cols-1 gap-x-8 gap-y-4 lg:grid-cols-2">
          <Openings id={id} box={box} />
          <Protrusions id={id} box={box} />
          <CutOff id={id} box={box} />
          <Layers id={id} box={box} />
          <Chambers id={id} box={box} />
          <ServicePanels id={id} box={box} />
          <Lightening id={id} box={box} />
          <Masses id={id} />
        </div>
      </Bench>
      <Ledger label="Ledger">
        <Title>{box.name}</Title>
        <Making key={id} id={id} box={box} />
      </Ledger>
    </StationFrame>
  )
}

function Making({ id, box }: { id: string; box: Box }) {
  const { findings } = useAnalysis()
  const { project } = useLoaded()
  const { Form } = CONSTRUCTIONS[box.construction.type]
  const rebuild = (kind: string) => void builtAs(project, id, kind).then((ops) => edit(ops))
  const edit = useLive((s) => s.edit)
  const path = `/boxes/${id}`
  const here = findings.filter(
    (f) => f.station === 'box' && f.subjects.includes(`boxes/${id}`) && !HELD.test(f.code),
  )
  return (
    <>
      <Choose
        label="Sealed"
        value={box.sealing ?? ''}
        options={SEALING}
        onChange={(v) => void edit([{ op: 'replace', path: `${path}/sealing`, value: v || null }])}
      />
      <Fold words={sidesSaid(box)} className="my-1">
        {FACES.map(([face]) => (
          <Choose
            key={face}
            label={`The ${face}`}
            value={box.sides[face] ?? ''}
            options={SIDES}
            onChange={(v) => void edit(sideSaid(`${path}/sides/${face}`, box.sides[face], v))}
          />
        ))}
      </Fold>
      <Choose
        label="Vented outside the car"
        value={box.vented_outside === null ? '' : box.vented_outside ? 'yes' : 'no'}
        options={VENTED}
        onChange={(v) =>
          void edit([{ op: 'replace', path: `${path}/vented_outside`, value: v === '' ? null : v === 'yes' }])
        }
      />
      <Blank
        path={`${path}/bond_ohm`}
        label="Bonding strap to the body, measured, Ω"
        kind="number"
        optional
      />
      <SentenceRows findings={here} />
      <Held id={id} box={box} />
      {Object.keys(CONSTRUCTIONS).length > 1 && (
        <Choose
          label="Made as"
          value={box.construction.type}
          options={Object.entries(CONSTRUCTIONS).map(([kind, { name }]) => [kind, name] as const)}
          onChange={rebuild}
        />
      )}
      <Form path={path} box={box} />
      <Heading>Paint and weld beads</Heading>
      <Choose
        label="Coats on each face"
        value={String(box.finish.coats)}
        options={[0, 1, 2, 3, 4, 5, 6].map((n) => [String(n), String(n)] as const)}
        onChange={(n) => void edit([{ op: 'replace', path: `${path}/finish/coats`, value: Number(n) }])}
      />
      {box.finish.coats > 0 && <Blank path={`${path}/finish/coat_mm`} label="A coat is thick" />}
      <Tick
        label="beads outside ground flush"
        value={box.finish.beads_ground}
        onChange={(value) => void edit([{ op: 'replace', path: `${path}/finish/beads_ground`, value }])}
      />
      {!box.finish.beads_ground && <Blank path={`${path}/finish/bead_mm`} label="A bead stands out" />}
      <Heading>Links, liners and clamps weigh</Heading>
      <Blank path={`${path}/fittings/per_module_kg`} label="A module" kind="mass" />
      <Blank path={`${path}/fittings/box_kg`} label="The box" kind="mass" />
    </>
  )
}

function Masses({ id }: { id: string }) {
  const figures = useAnalysis().boxes[id]
  const units = useUnits()
  if (!figures) return null
  const size = (v: readonly number[]) => v.map((n) => length(n, units.length)).join(' × ')
  return (
    <section aria-label="Sizes and masses">
      <Heading>Sizes and masses</Heading>
      <Fact name="Outside">{size(figures.outer_mm)}</Fact>
      <Fact name="Inside the walls">{size(figures.inner_mm)}</Fact>
      <Fact name="Over the lid">{size(figures.over_lid_mm)}</Fact>
      <Fact name="Shell">{mass(figures.shell_kg, units.mass)}</Fact>
      <Fact name={`Full, ${figures.modules} modules`}>{mass(figures.full_kg, units.mass)}</Fact>
      <Fact name="Hung: with brackets and what is fixed to it">{mass(figures.hung_kg, units.mass)}</Fact>
    </section>
  )
}
