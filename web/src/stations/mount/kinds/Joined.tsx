/** How a bracket is held on its box: welded, with or without plugs and a doubler, or bolted through the wall. */
import { useDocument, useLive, useLoaded } from '../../../design/live'
import { doublerUnder, joinedBy } from '../../../design/orders'
import type { Mount, Op } from '../../../design/types'
import { Blank } from '../../../ui/Blank'
import { Choose } from '../../../ui/Choose'
import { Button, Heading } from '../../../ui/parts'
import { Tick } from '../../../ui/Tick'
import { WeldsCompared } from '../WeldsCompared'
import type { Dimension } from './BracketSketch'

type Hold = Mount['to_box']
type Bolted = Extract<Hold, { type: 'bolted' }>
type Welded = Extract<Hold, { type: 'welded' }>

const WAYS = [
  ['welded', 'welds'],
  ['bolted', 'bolts through the wall'],
] as const

type Light = (dimension: Dimension | null) => void

/** `onLit`: which dimension of the bracket's sketch the blank with the focus is. */
export function Joined({ path, mount, onLit }: { path: string; mount: Mount; onLit?: Light }) {
  const edit = useLive((s) => s.edit)
  const { project } = useLoaded()
  const hold = mount.to_box
  if (hold.type === 'loose') return null
  const id = path.slice('/mounts/'.length)
  const underneath = mount.face === 'base'
  return (
    <>
      <Heading>On the box</Heading>
      {!underneath && (
        <Choose
          label="Held by"
          value={hold.type}
          options={WAYS}
          onChange={(how) =>
            void joinedBy(project, id, how as (typeof WAYS)[number][0]).then((ops) => edit(ops as Op[]))
          }
        />
      )}
      {hold.type === 'welded' ? (
        <Welds path={`${path}/to_box`} id={id} hold={hold} underneath={underneath} onLit={onLit} />
      ) : (
        <Bolts path={`${path}/to_box`} hold={hold} />
      )}
    </>
  )
}

const WELD_BLANKS: readonly (readonly [string, string, Dimension])[] = [
  ['from_mm', 'Welds start off the body', 'start'],
  ['length_mm', 'Weld length', 'weld'],
  ['leg_mm', 'Weld leg', 'weld'],
]

interface WeldsProps {
  path: string
  id: string
  hold: Welded
  underneath: boolean // on a tube of the box's frame
  onLit: Light | undefined
}

function Welds({ path, id, hold, underneath, onLit }: WeldsProps) {
  const edit = useLive((s) => s.edit)
  const put = (field: string, value: unknown) =>
    void edit([{ op: 'replace', path: `${path}/${field}`, value }])
  return (
    <>
      {WELD_BLANKS.map(([at, label, dimension]) => (
        <div key={at} onFocus={() => onLit?.(dimension)} onBlur={() => onLit?.(null)}>
          <Blank path={`${path}/${at}`} label={label} />
        </div>
      ))}
      <Tick
        label="A weld across its end too"
        value={hold.across_end ?? false}
        onChange={(on) => put('across_end', on)}
      />
      {underneath && (
        <Tick
          label="A weld where it comes over the tube’s edge"
          value={hold.across_start ?? false}
          onChange={(on) => put('across_start', on)}
        />
      )}
      {hold.plugs && (
        <>
          <Blank path={`${path}/plugs/hole_mm`} label="Plug hole" />
          <Blank path={`${path}/plugs/count`} label="Plugs" kind="number" />
          <Button plain onClick={() => put('plugs', null)}>
            No plugs
          </Button>
        </>
      )}
      <WeldsCompared id={id} />
      {!underneath && <DoublerForm path={path} id={id} hold={hold} />}
    </>
  )
}

function DoublerForm({ path, id, hold }: { path: string; id: string; hold: Welded }) {
  const edit = useLive((s) => s.edit)
  const { project } = useLoaded()
  return (
    <>
      <Heading>Doubler on the wall</Heading>
      {hold.doubler ? (
        <>
          <Blank path={`${path}/doubler/thickness_mm`} label="Thickness" />
          <Blank path={`${path}/doubler/along_w_mm`} label="Along the bend" />
          <Blank path={`${path}/doubler/along_n_mm`} label="Along the bolt" />
          <Blank path={`${path}/doubler/from_contact_mm`} label="First edge off the contact plane" />
          <Blank path={`${path}/doubler/weld_leg_mm`} label="Its weld leg, all round" />
          <Button plain onClick={() => void edit([{ op: 'replace', path: `${path}/doubler`, value: null }])}>
            No doubler
          </Button>
        </>
      ) : (
        <Button plain onClick={() => void doublerUnder(project, id).then((ops) => edit(ops))}>
          Weld a doubler under it
        </Button>
      )}
    </>
  )
}

function Bolts({ path, hold }: { path: string; hold: Bolted }) {
  const { tables } = useDocument()
  const edit = useLive((s) => s.edit)
  const put = (field: string, value: unknown) =>
    void edit([{ op: 'replace', path: `${path}/${field}`, value }])
  return (
    <>
      <Choose
        label="Bolts on the box"
        value={hold.bolt?.size ?? ''}
        options={Object.keys(tables.bolts).map((s) => [s, s] as const)}
        onChange={(v) => put('bolt/size', v)}
      />
      <Choose
        label="Their property class"
        value={hold.bolt?.property_class ?? ''}
        options={Object.keys(tables.bolt_classes).map((s) => [s, s] as const)}
        onChange={(v) => put('bolt/property_class', v)}
      />
      <Blank path={`${path}/from_mm`} label="First row off the body" />
      <Blank path={`${path}/rows`} label="Rows" kind="number" />
      <Blank path={`${path}/pitch_mm`} label="Rows apart" />
      <Blank path={`${path}/across`} label="Bolts in a row" kind="number" />
      <Blank path={`${path}/apart_mm`} label="Those apart" />
      <Heading>Plate behind the wall</Heading>
      {hold.behind ? (
        <>
          <Blank path={`${path}/behind/thickness_mm`} label="Thickness" />
          <Blank path={`${path}/behind/size_mm/0`} label="Across the bracket" />
          <Blank path={`${path}/behind/size_mm/1`} label="Along it" />
          <Choose
            label="Of"
            value={hold.behind.material ?? ''}
            options={Object.entries(tables.materials).map(([key, m]) => [key, m.name] as const)}
            onChange={(v) => put('behind/material', v)}
          />
          <Button plain onClick={() => put('behind', null)}>
            No plate behind the wall
          </Button>
        </>
      ) : (
        <Button plain onClick={() => put('behind', {})}>
          A plate behind the wall
        </Button>
      )}
    </>
  )
}
