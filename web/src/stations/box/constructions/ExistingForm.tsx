/** A case that is there: its sizes and mass as measured. It is checked, not made. */
import { useDocument, useLive } from '../../../design/live'
import type { Box } from '../../../design/types'
import { Blank } from '../../../ui/Blank'
import { Choose } from '../../../ui/Choose'
import { Heading } from '../../../ui/parts'

export function ExistingForm({ path, box }: { path: string; box: Box }) {
  const { tables } = useDocument()
  const edit = useLive((s) => s.edit)
  const its = `${path}/construction`
  return (
    <>
      <Heading>The case, its lid closed</Heading>
      <p className="narrow m-0 text-sm text-soft">
        Nothing of it is cut. Measure it over everything but screws.
      </p>
      <Blank path={`${its}/size_mm/0`} label="Along, aft" />
      <Blank path={`${its}/size_mm/1`} label="Across" />
      <Blank path={`${its}/size_mm/2`} label="Up, over the lid" />
      <Blank path={`${its}/wall_mm`} label="Walls are thick" />
      <Blank path={`${its}/base_mm`} label="Its floor" />
      <Blank path={`${its}/top_mm`} label="Its lid" />
      <Blank path={`${its}/tol_mm`} label="Measured to ±" />
      <Blank path={`${its}/mass_kg`} label="Empty, with its lid" kind="mass" />
      <Choose
        label="Material"
        value={box.material}
        options={Object.entries(tables.materials).map(([key, m]) => [key, m.name] as const)}
        onChange={(v) => void edit([{ op: 'replace', path: `${path}/material`, value: v }])}
      />
    </>
  )
}
