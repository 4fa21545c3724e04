/** A selected thing that is no box: what it is, and which boxes are near it. */
import { useAnalysis, useDocument } from '../../design/live'
import { at, named } from '../../design/pointer'
import { Fact, Heading, Title } from '../../ui/parts'
import { mass } from '../../ui/format'
import { useUnits } from '../../ui/units'
import { GapRows } from '../FindingRows'

const STATE: Record<string, string> = {
  stays: 'stays',
  out: 'comes out',
  in: 'goes in',
  payload: 'rides along',
}

export function ThingLedger({ path }: { path: string }) {
  const document = useDocument()
  const findings = useAnalysis().findings.filter((f) => f.subjects.includes(path))
  const units = useUnits()
  const thing = at(document, `/${path}`) as
    | { name?: string; state?: string; mass_kg?: number | null; gap_class?: string; reason?: string }
    | undefined
  const need = thing?.gap_class ? document.tables.gaps[thing.gap_class as 'same'] : undefined
  return (
    <>
      <Title>{thing?.name ?? named(document, `/${path}`)}</Title>
      {thing?.state && <Fact name="It">{STATE[thing.state]}</Fact>}
      {thing?.mass_kg !== null && thing?.mass_kg !== undefined && (
        <Fact name="Mass">{mass(thing.mass_kg, units.mass)}</Fact>
      )}
      {need && <Fact name={`Gap it needs (${need.reason})`}>{need.need_mm} mm</Fact>}
      <Heading>Boxes near it</Heading>
      <GapRows findings={findings.filter((f) => f.code.startsWith('gap'))} most={9} />
    </>
  )
}
