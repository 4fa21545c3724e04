/** What holds the modules of a box, and what a crash does to it, six ways. */
import { useState } from 'react'

import { useAnalysis, useDocument, useLive, useLoaded } from '../../design/live'
import { heldBy } from '../../design/orders'
import type { Box } from '../../design/types'
import { useAsked } from '../../design/useAsked'
import { Blank } from '../../ui/Blank'
import { Choose } from '../../ui/Choose'
import { Fold } from '../../ui/Fold'
import { Button, Heading, Link } from '../../ui/parts'
import { Tick } from '../../ui/Tick'
import { SentenceRows, UseRows } from '../FindingRows'

type Holder = Box['holders'][string]

const KINDS = [
  ['any', 'whatever holds them'],
  ['own-holes', 'bolts through their own holes'],
  ['rods', 'rods on feet'],
  ['straps', 'straps, stops and hard boards'],
  ['ledges', 'ledges, each tier on its own'],
] as const
const CALLED: Record<Holder['type'], string> = {
  own_holes: 'Bolts through their own holes',
  rods: 'Rods on feet',
  straps: 'Straps',
  stops: 'Stops',
  ledges: 'Ledges',
  pressed: 'Pressed between plates',
  fit: 'Pure fit',
}
const INTO = [
  ['nut', 'nuts outside'],
  ['stud', 'studs welded inside'],
  ['rivet nut', 'rivet nuts'],
  ['thread', 'threads cut in it'],
  ['insert', 'threaded inserts in it'],
] as const
/** Of these a shop's own pull test is all that counts. */
const TESTED: readonly string[] = ['rivet nut', 'thread', 'insert']

export function Held({ id, box }: { id: string; box: Box }) {
  const here = useAnalysis().findings.filter(
    (f) => f.subjects.includes(`boxes/${id}`) && /^inside\.(held|hold_down|opened)$/.test(f.code),
  )
  const ways = here.filter((f) => f.unit === 'use')
  return (
    <section aria-label="Held, six ways" data-goes={`/boxes/${id}/holders`}>
      <Heading>Held, six ways</Heading>
      <SentenceRows findings={here.filter((f) => f.unit !== 'use')} />
      {ways.length > 0 && <UseRows findings={ways} />}
      <HoldThem id={id} />
      <PressThem id={id} box={box} />
      {Object.entries(box.holders).map(([key, holder]) => (
        <OneHolder key={key} path={`/boxes/${id}/holders/${key}`} holder={holder} box={box} />
      ))}
    </section>
  )
}

/** Sized by the core, run through every check; where nothing does, it says what stands against it. */
function HoldThem({ id }: { id: string }) {
  const { project } = useLoaded()
  const { ask, problem } = useAsked()
  const [kind, setKind] = useState('any')
  return (
    <div className="mt-2 flex flex-wrap items-center gap-2">
      <Choose label="What is to hold them" hideLabel value={kind} options={KINDS} onChange={setKind} />
      <Button plain onClick={() => void ask(() => heldBy(project, id, kind))}>
        Size it
      </Button>
      {problem && (
        <span role="alert" className="text-foul">
          {problem}
        </span>
      )}
    </div>
  )
}

/** How much they are pressed, and how wide they are before it, only people know: the core asks for it. */
function PressThem({ id, box }: { id: string; box: Box }) {
  const edit = useLive((s) => s.edit)
  const pressed = Object.values(box.holders).filter((h) => h.type === 'pressed')
  const blocks = Object.keys(box.blocks).filter((b) => !pressed.some((h) => h.block === b))
  return blocks.map((block) => (
    <div key={block} className="mt-1">
      <Link
        onClick={() =>
          void edit([
            {
              op: 'add',
              path: `/boxes/${id}/holders/pressed-${block}`.slice(0, 120),
              value: { type: 'pressed', block, plates: {} },
            },
          ])
        }
      >
        {`press ${Object.keys(box.blocks).length > 1 ? `block ${block}` : 'the stack'} between plates`}
      </Link>
    </div>
  ))
}

function OneHolder({ path, holder, box }: { path: string; holder: Holder; box: Box }) {
  const edit = useLive((s) => s.edit)
  const where = Object.keys(box.blocks).length > 1 ? `, block ${holder.block}` : ''
  const name = `${CALLED[holder.type]}${holder.type === 'stops' ? ` before its ${holder.against}` : ''}${where}`
  return (
    <Fold words={name}>
      <Figures path={path} holder={holder} />
      <Link onClick={() => void edit([{ op: 'remove', path }])}>take them out</Link>
    </Fold>
  )
}

function Figures({ path, holder }: { path: string; holder: Holder }) {
  switch (holder.type) {
    case 'own_holes':
      return (
        holder.bolts && (
          <>
            <Blank
              path={`${path}/used`}
              label="Bolts of a module; empty for all its holes"
              kind="number"
              whole
            />
            <BoltBlanks path={`${path}/bolts`} bolts={holder.bolts} />
          </>
        )
      )
    case 'rods':
      return <RodBlanks path={path} rods={holder} />
    case 'straps':
      return holder.strap && <StrapBlanks path={`${path}/strap`} strap={holder.strap} />
    case 'stops':
      return holder.stop && <StopBlanks path={`${path}/stop`} stop={holder.stop} />
    case 'ledges':
      return holder.ledge && <LedgeBlanks path={path} ledges={holder} />
    case 'pressed':
      return <PressedBlanks path={path} pressed={holder} />
    case 'fit':
      return <Between path={`${path}/between`} between={holder.between ?? ''} />
  }
}

type Of<T extends Holder['type']> = Extract<Holder, { type: T }>
type Bolts = NonNullable<Of<'own_holes'>['bolts']>

function BoltBlanks({ path, bolts }: { path: string; bolts: Bolts }) {
  const { tables } = useDocument()
  const edit = useLive((s) => s.edit)
  const put = (field: string) => (value: string) =>
    void edit([{ op: 'replace', path: `${path}/${field}`, value }])
  return (
    <>
      <Choose label="Bolts" value={bolts.size} options={names(tables.bolts)} onChange={put('size')} />
      <Choose
        label="Property class"
        value={bolts.property_class}
        options={names(tables.bolt_classes)}
        onChange={put('property_class')}
      />
      <Choose label="Into" value={bolts.into} options={INTO} onChange={put('into')} />
      {TESTED.includes(bolts.into) && (
        <Blank path={`${path}/tested_n`} label="Held in our pull test, N" kind="number" />
      )}
    </>
  )
}

function RodBlanks({ path, rods }: { path: string; rods: Of<'rods'> }) {
  const { tables } = useDocument()
  const edit = useLive((s) => s.edit)
  const put = (field: string) => (value: string) =>
    void edit([{ op: 'replace', path: `${path}/${field}`, value }])
  const feet = `${path}/feet`
  return (
    <>
      <Choose
        label="Rods"
        value={rods.size ?? ''}
        options={[['', 'nobody has said'], ...names(tables.bolts)]}
        onChange={(v) => void edit([{ op: 'replace', path: `${path}/size`, value: v || null }])}
      />
      {rods.feet && (
        <>
          <Choose
            label="Feet stand"
            value={rods.feet.at}
            options={[
              ['gaps', 'in gaps between modules'],
              ['ends', 'before and behind the stack'],
            ]}
            onChange={put('feet/at')}
          />
          <Choose
            label="Through them pass"
            value={rods.feet.up_to}
            options={[
              ['lowest', 'the lowest rods'],
              ['all', 'all rods'],
            ]}
            onChange={put('feet/up_to')}
          />
          <Blank path={`${feet}/pairs`} label="In so many places" kind="number" whole />
          <Metal path={feet} material={rods.feet.material} />
          <Blank path={`${feet}/wide_mm`} label="Along the module" />
          <Blank path={`${feet}/tab_mm`} label="Tab before its end" />
          <Blank path={`${feet}/leg_mm`} label="Leg on the floor" />
          <Blank path={`${feet}/each`} label="Bolts of each" kind="number" whole />
          <BoltBlanks path={`${feet}/bolts`} bolts={rods.feet.bolts} />
        </>
      )}
    </>
  )
}

function StrapBlanks({ path, strap }: { path: string; strap: NonNullable<Of<'straps'>['strap']> }) {
  const edit = useLive((s) => s.edit)
  return (
    <>
      <Blank path={`${path}/count`} label="Straps" kind="number" whole />
      <Choose
        label="They run"
        value={strap.along}
        options={[
          ['aft', 'lengthwise'],
          ['across', 'across'],
        ]}
        onChange={(value) => void edit([{ op: 'replace', path: `${path}/along`, value }])}
      />
      <Metal path={path} material={strap.material} bent={false} />
      <Blank path={`${path}/wide_mm`} label="Wide" />
      <Tick
        label="welded to the box at one end"
        value={strap.welded}
        onChange={(value) => void edit([{ op: 'replace', path: `${path}/welded`, value }])}
      />
      <Blank path={`${path}/each`} label="Bolts of a foot" kind="number" whole />
      <BoltBlanks path={`${path}/bolts`} bolts={strap.bolts} />
    </>
  )
}

function StopBlanks({ path, stop }: { path: string; stop: NonNullable<Of<'stops'>['stop']> }) {
  const edit = useLive((s) => s.edit)
  return (
    <>
      <Blank path={`${path}/count`} label="Stops" kind="number" whole />
      <Metal path={path} material={stop.material} />
      <Blank path={`${path}/high_mm`} label="High" />
      <Blank path={`${path}/wide_mm`} label="Wide" />
      <Blank path={`${path}/leg_mm`} label="Leg on the floor" />
      <Tick
        label="welded to the floor"
        value={stop.welded}
        onChange={(value) => void edit([{ op: 'replace', path: `${path}/welded`, value }])}
      />
      {!stop.welded && (
        <>
          <Blank path={`${path}/each`} label="Bolts of each" kind="number" whole />
          <BoltBlanks path={`${path}/bolts`} bolts={stop.bolts} />
        </>
      )}
    </>
  )
}

const ALONG = [
  ['aft', 'lengthwise'],
  ['across', 'across'],
] as const

function LedgeBlanks({ path, ledges }: { path: string; ledges: Of<'ledges'> }) {
  const edit = useLive((s) => s.edit)
  const ledge = `${path}/ledge`
  const put = (field: string, value: unknown) =>
    void edit([{ op: 'replace', path: `${path}/${field}`, value }])
  if (!ledges.ledge) return null
  return (
    <>
      <Choose label="They run" value={ledges.along} options={ALONG} onChange={(v) => put('along', v)} />
      <Metal path={ledge} material={ledges.ledge.material} />
      <Blank path={`${ledge}/leg_mm`} label="Leg under the tier" />
      <Blank path={`${ledge}/up_mm`} label="Leg up the wall" />
      <Blank path={`${ledge}/slide_mm`} label="Slide strip on it; 0 for none" />
      <Tick
        label="under the lowest tier too"
        value={ledges.ledge.lowest}
        onChange={(v) => put('ledge/lowest', v)}
      />
      <Tick
        label="bolted through the modules’ own holes"
        value={ledges.ledge.bolts !== null}
        onChange={(v) => put('ledge/bolts', v ? {} : null)}
      />
      {ledges.ledge.bolts && <BoltBlanks path={`${ledge}/bolts`} bolts={ledges.ledge.bolts} />}
    </>
  )
}

function PressedBlanks({ path, pressed }: { path: string; pressed: Of<'pressed'> }) {
  const edit = useLive((s) => s.edit)
  const put = (field: string, value: unknown) =>
    void edit([{ op: 'replace', path: `${path}/${field}`, value }])
  const plates = `${path}/plates`
  return (
    <>
      <Choose
        label="They are pressed"
        value={pressed.along}
        options={ALONG}
        onChange={(v) => put('along', v)}
      />
      <Choose
        label="By"
        value={pressed.by}
        options={[
          ['wedges', 'wedges before the wall'],
          ['screws', 'screws through the wall'],
        ]}
        onChange={(v) => put('by', v)}
      />
      <Blank path={`${path}/force_n`} label="Pressed with, N, as its maker says" kind="number" />
      <Blank path={`${path}/widths/strap_mm`} label="Before that, wide at a strap" />
      <Blank path={`${path}/widths/between_mm`} label="Between straps" />
      <Blank path={`${path}/widths/edge_mm`} label="At its edge" />
      {pressed.plates && (
        <>
          <Metal path={plates} material={pressed.plates.material} bent={false} />
          {pressed.by === 'screws' && (
            <>
              <Blank path={`${plates}/each`} label="Screws" kind="number" whole />
              <BoltBlanks path={`${plates}/screws`} bolts={pressed.plates.screws} />
            </>
          )}
        </>
      )}
    </>
  )
}

function Metal({ path, material, bent = true }: { path: string; material: string; bent?: boolean }) {
  const { tables } = useDocument()
  const edit = useLive((s) => s.edit)
  return (
    <>
      <Choose
        label="Of"
        value={material}
        options={Object.entries(tables.materials).map(([key, metal]) => [key, metal.name] as const)}
        onChange={(value) => void edit([{ op: 'replace', path: `${path}/material`, value }])}
      />
      <Blank path={`${path}/thickness_mm`} label="Thick" />
      {bent && <Blank path={`${path}/bend_radius_mm`} label="Inside radius" />}
    </>
  )
}

function Between({ path, between }: { path: string; between: string }) {
  const liners = useDocument().tables.liners ?? {}
  const edit = useLive((s) => s.edit)
  return (
    <Choose
      label="Between neighbours"
      value={between}
      options={[['', 'nothing'], ...Object.entries(liners).map(([key, row]) => [key, row.name] as const)]}
      onChange={(v) => void edit([{ op: 'replace', path, value: v || null }])}
    />
  )
}

const names = (table: Record<string, unknown>) => Object.keys(table).map((key) => [key, key] as const)
