/** A folded tray with a cap over it: its sheet, who folds it, its lid. */
import { useDocument, useLive } from '../../../design/live'
import type { Box } from '../../../design/types'
import { Blank } from '../../../ui/Blank'
import { NameBlank } from '../../../ui/NameBlank'
import { Choose } from '../../../ui/Choose'
import { Heading } from '../../../ui/parts'
import { Welds } from './Welds'

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
      <Heading>Lid</Heading>
      {Object.keys(box.closures).map((id) => (
        <Cap key={id} path={`${path}/closures/${id}`} />
      ))}
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
