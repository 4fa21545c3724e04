/** A folded tray: its sheet, who folds it, its lid. */
import { Fragment } from 'react'

import { useDocument, useLive } from '../../../design/live'
import type { Box } from '../../../design/types'
import { Blank } from '../../../ui/Blank'
import { NameBlank } from '../../../ui/NameBlank'
import { Choose } from '../../../ui/Choose'
import { Heading } from '../../../ui/parts'
import { Tick } from '../../../ui/Tick'
import { SwingsOn, WindowOf } from './lids'
import { Welds } from './Welds'

const LIDS = [
  ['cap', 'a cap, its edges turned down'],
  ['flange', 'a flat lid on a flange'],
] as const
type Flange = Extract<Box['closures'][string], { type: 'flange' }>

export function FoldedForm({ path, box }: { path: string; box: Box }) {
  const { tables } = useDocument()
  const edit = useLive((s) => s.edit)
  const sheet = `${path}/construction`
  return (
    <>
      <Heading>Folded sheet</Heading>
      <Choose
        label="Material"
        value={box.material}
        options={Object.entries(tables.materials).map(([key, m]) => [key, m.name] as const)}
        onChange={(v) => void edit([{ op: 'replace', path: `${path}/material`, value: v }])}
      />
      <Blank path={`${sheet}/thickness_mm`} label="Thickness" />
      <Blank path={`${sheet}/bend_radius_mm`} label="Inside bend radius" />
      <Blank path={`${sheet}/base_mm`} label="A thicker base of its own" optional />
      <Welds path={path} box={box} />
      <Heading>Who folds it</Heading>
      <NameBlank path={`${sheet}/folder/name`} label="Folder" />
      <Blank path={`${sheet}/folder/deduction_mm`} label="His bend deduction" optional />
      <p className="narrow m-0 text-sm text-soft">
        Left empty, the flat follows from K {tables.materials[box.material]?.k_factor} (
        {tables.materials[box.material]?.k_source}).
      </p>
      <Blank path={`${sheet}/folder/longest_bend_mm`} label="His longest bend" optional />
      <Blank path={`${sheet}/folder/deepest_mm`} label="His deepest tray" optional />
      <Blank path={`${sheet}/folder/shortest_mm`} label="His shortest flange" optional />
      <Blank path={`${sheet}/folder/sheet_long_mm`} label="Longer side of his largest sheet" optional />
      <Blank path={`${sheet}/folder/sheet_wide_mm`} label="Shorter side of it" optional />
      <p className="narrow m-0 text-sm text-soft">
        What he does not take in one piece is cut apart and welded on.
      </p>
      <Tick
        label="walls cut apart have tabs, in notches of the base"
        value={'tabs' in box.construction && box.construction.tabs}
        onChange={(value) => void edit([{ op: 'replace', path: `${sheet}/tabs`, value }])}
      />
      <Heading>Lid</Heading>
      {Object.entries(box.closures).map(([id, lid]) => (
        <Fragment key={id}>
          <Choose
            label="Closed by"
            value={lid.type}
            options={LIDS}
            onChange={(type) =>
              void edit([{ op: 'replace', path: `${path}/closures/${id}`, value: { type } }])
            }
          />
          {lid.type === 'flange' ? (
            <OnFlange path={`${path}/closures/${id}`} lid={lid} />
          ) : (
            <Cap path={`${path}/closures/${id}`} />
          )}
        </Fragment>
      ))}
    </>
  )
}

function OnFlange({ path, lid }: { path: string; lid: Flange }) {
  const edit = useLive((s) => s.edit)
  return (
    <>
      <Blank path={`${path}/wide_mm`} label="Flange is wide" />
      <Choose
        label="It goes"
        value={lid.inward ? 'inward' : 'outward'}
        options={[
          ['outward', 'outward, round the walls'],
          ['inward', 'inward, where there is no room outside'],
        ]}
        onChange={(way) => void edit([{ op: 'replace', path: `${path}/inward`, value: way === 'inward' }])}
      />
      <Blank path={`${path}/gasket_mm`} label="Gasket, as pressed" />
      <Blank path={`${path}/thickness_mm`} label="Its sheet, where it is another" optional />
      <WindowOf path={path} window={lid.window} />
      <SwingsOn path={path} face="top" hinge={lid.hinge} />
      <Blank path={`${path}/screws/spacing_mm`} label="Screws apart" />
    </>
  )
}

function Cap({ path }: { path: string }) {
  return (
    <>
      <Blank path={`${path}/thickness_mm`} label="Its sheet, where it is another" optional />
      <Blank path={`${path}/clearance_mm`} label="Clearance over the tray" />
      <Blank path={`${path}/edge_mm`} label="Edge turned down, over all" />
      <Blank path={`${path}/screws/spacing_mm`} label="Screws apart" />
      <Blank path={`${path}/screws/corner_mm`} label="No screw nearer a corner than" />
    </>
  )
}
