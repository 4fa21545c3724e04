/** An open rack for dry places: angles round a snug insert of thin sheet, and no lid. */
import { useDocument, useLive } from '../../../design/live'
import type { Box } from '../../../design/types'
import { Blank } from '../../../ui/Blank'
import { Choose } from '../../../ui/Choose'
import { Heading } from '../../../ui/parts'
import { Welds } from './Welds'

export function RackedForm({ path, box }: { path: string; box: Box }) {
  const { tables } = useDocument()
  const edit = useLive((s) => s.edit)
  const its = `${path}/construction`
  return (
    <>
      <Heading>Open rack</Heading>
      <p className="narrow m-0 text-sm text-soft">
        Only where it is dry and nobody sits. It has no lid: what holds the modules holds them upward too.
      </p>
      <Choose
        label="Material"
        value={box.material}
        options={Object.entries(tables.materials).map(([key, m]) => [key, m.name] as const)}
        onChange={(v) => void edit([{ op: 'replace', path: `${path}/material`, value: v }])}
      />
      <Blank path={`${its}/angle_mm`} label="Angles, each leg" />
      <Blank path={`${its}/angle_wall_mm`} label="Thick" />
      <Blank path={`${its}/insert_mm`} label="Sheet of the insert" />
      <Blank path={`${its}/bend_radius_mm`} label="Inside bend radius" />
      <Welds path={path} box={box} />
    </>
  )
}
