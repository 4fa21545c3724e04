/** A strap from one hard point to another: a second restraint, its strip and its bolts. */
import { useDocument, useLive } from '../../../design/live'
import type { Mount } from '../../../design/types'
import { Blank } from '../../../ui/Blank'
import { Choose } from '../../../ui/Choose'
import { Heading } from '../../../ui/parts'

export function StrapForm({ path, mount }: { path: string; mount: Mount }) {
  const { tables, hardpoints } = useDocument()
  const edit = useLive((s) => s.edit)
  const on = mount.lands_on
  if (mount.shape.type !== 'strap' || on.type !== 'two') return null
  const put = (field: string, value: string) =>
    void edit([{ op: 'replace', path: `${path}/${field}`, value }])
  const points = Object.entries(hardpoints).map(([id, p]) => [id, p.name] as const)
  const named = (rows: object) => Object.keys(rows).map((key) => [key, key] as const)
  return (
    <>
      <Heading>Strap</Heading>
      <p className="narrow m-0 text-sm text-soft">
        It only holds what has come off its mounts: in a crash it counts for nothing.
      </p>
      <Blank path={`${path}/shape/width_mm`} label="Wide" />
      <Blank path={`${path}/shape/thickness_mm`} label="Thick" />
      <Blank path={`${path}/shape/tested_n`} label="One like it held in a test (N)" kind="number" optional />
      <Choose
        label="Material"
        value={mount.shape.material ?? ''}
        options={Object.entries(tables.materials).map(([key, m]) => [key, m.name] as const)}
        onChange={(v) => put('shape/material', v)}
      />
      <Heading>Its ends</Heading>
      <Choose
        label="From"
        value={on.hardpoint}
        options={points.filter(([id]) => id !== on.other)}
        onChange={(v) => put('lands_on/hardpoint', v)}
      />
      <Choose
        label="To"
        value={on.other}
        options={points.filter(([id]) => id !== on.hardpoint)}
        onChange={(v) => put('lands_on/other', v)}
      />
      <Choose
        label="Bolts"
        value={on.bolt?.size ?? ''}
        options={named(tables.bolts)}
        onChange={(v) => put('lands_on/bolt/size', v)}
      />
      <Choose
        label="Property class"
        value={on.bolt?.property_class ?? ''}
        options={named(tables.bolt_classes)}
        onChange={(v) => put('lands_on/bolt/property_class', v)}
      />
    </>
  )
}
