/** A bent angle: its bracket, its weld and doubler on the box, its bolt. */
import { useState } from 'react'

import { useDocument, useLive, useLoaded } from '../../../design/live'
import { doublerUnder } from '../../../design/orders'
import type { Mount } from '../../../design/types'
import { Blank } from '../../../ui/Blank'
import { Choose } from '../../../ui/Choose'
import { Button, Heading } from '../../../ui/parts'
import { BehindTheSheet } from './BehindTheSheet'
import { BracketSketch, type Dimension } from './BracketSketch'

const BLANKS: readonly (readonly [string, string, Dimension])[] = [
  ['shape/thickness_mm', 'Thickness', 'thickness'],
  ['shape/bend_radius_mm', 'Inside bend radius', 'radius'],
  ['shape/width_mm', 'Width along the bend', 'width'],
  ['shape/toe_mm', 'Bolt to toe', 'toe'],
  ['shape/leg_b_mm', 'Leg on the box', 'leg'],
  ['to_box/from_mm', 'Welds start off the body', 'start'],
  ['to_box/length_mm', 'Weld length', 'weld'],
  ['to_box/leg_mm', 'Weld leg', 'weld'],
]

export function AngleForm({ path, mount }: { path: string; mount: Mount }) {
  const { tables } = useDocument()
  const edit = useLive((s) => s.edit)
  const { project } = useLoaded()
  const [lit, setLit] = useState<Dimension | null>(null)
  const { shape, to_box: weld, lands_on: on } = mount
  if (shape.type !== 'angle' || weld.type !== 'welded' || on.type !== 'hardpoint') return null
  return (
    <>
      <Heading>Bracket</Heading>
      <BracketSketch lit={lit} />
      {BLANKS.map(([at, label, dimension]) => (
        <div key={at} onFocus={() => setLit(dimension)} onBlur={() => setLit(null)}>
          <Blank path={`${path}/${at}`} label={label} />
        </div>
      ))}
      <Choose
        label="Material"
        value={shape.material}
        options={Object.entries(tables.materials).map(([key, m]) => [key, m.name] as const)}
        onChange={(v) => void edit([{ op: 'replace', path: `${path}/shape/material`, value: v }])}
      />
      <Heading>Bolt</Heading>
      <Choose
        label="Size"
        value={on.bolt.size}
        options={Object.keys(tables.bolts).map((s) => [s, s] as const)}
        onChange={(v) => void edit([{ op: 'replace', path: `${path}/lands_on/bolt/size`, value: v }])}
      />
      <Choose
        label="Property class"
        value={on.bolt.property_class}
        options={Object.keys(tables.bolt_classes).map((s) => [s, s] as const)}
        onChange={(v) =>
          void edit([{ op: 'replace', path: `${path}/lands_on/bolt/property_class`, value: v }])
        }
      />
      <BehindTheSheet path={`${path}/lands_on`} on={on} />
      <Heading>Doubler on the wall</Heading>
      {weld.doubler ? (
        <>
          <Blank path={`${path}/to_box/doubler/thickness_mm`} label="Thickness" />
          <Blank path={`${path}/to_box/doubler/along_w_mm`} label="Along the bend" />
          <Blank path={`${path}/to_box/doubler/along_n_mm`} label="Along the bolt" />
          <Blank path={`${path}/to_box/doubler/from_contact_mm`} label="First edge off the contact plane" />
          <Blank path={`${path}/to_box/doubler/weld_leg_mm`} label="Its weld leg, all round" />
          <Button
            plain
            onClick={() => void edit([{ op: 'replace', path: `${path}/to_box/doubler`, value: null }])}
          >
            No doubler
          </Button>
        </>
      ) : (
        <Button
          plain
          onClick={() => void doublerUnder(project, path.slice('/mounts/'.length)).then((ops) => edit(ops))}
        >
          Weld a doubler under it
        </Button>
      )}
    </>
  )
}
