/** A bent angle: its bracket, its bolt, what holds it on the box. */
import { useState } from 'react'

import { useDocument, useLive } from '../../../design/live'
import type { Mount } from '../../../design/types'
import { Blank } from '../../../ui/Blank'
import { Choose } from '../../../ui/Choose'
import { Heading } from '../../../ui/parts'
import { BoltForm } from './BoltForm'
import { BracketSketch, type Dimension } from './BracketSketch'
import { Joined } from './Joined'

const BLANKS: readonly (readonly [string, string, Dimension])[] = [
  ['shape/thickness_mm', 'Thickness', 'thickness'],
  ['shape/bend_radius_mm', 'Inside bend radius', 'radius'],
  ['shape/width_mm', 'Width along the bend', 'width'],
  ['shape/toe_mm', 'Bolt to toe', 'toe'],
  ['shape/leg_b_mm', 'Leg on the box', 'leg'],
]

const GUSSETS = [
  ['0', 'none'],
  ['1', 'one in the middle'],
  ['2', 'one at either edge'],
] as const

type Angle = Extract<Mount['shape'], { type: 'angle' }>

/** Triangles in the corner of the angle. */
function Gussets({ path, gussets }: { path: string; gussets: Angle['gussets'] }) {
  const edit = useLive((s) => s.edit)
  function choose(count: string) {
    if (count === '0') void edit([{ op: 'replace', path, value: null }])
    else if (gussets) void edit([{ op: 'replace', path: `${path}/count`, value: Number(count) }])
    else void edit([{ op: 'replace', path, value: { count: Number(count) } }])
  }
  return (
    <>
      <Choose
        label="Gussets in its corner"
        value={String(gussets?.count ?? 0)}
        options={GUSSETS}
        onChange={choose}
      />
      {gussets && (
        <>
          <Blank path={`${path}/thickness_mm`} label="Gusset, thick" />
          <Blank path={`${path}/along_mm`} label="Along the leg on the car" />
          <Blank path={`${path}/up_mm`} label="Along the leg on the box" />
          <Blank path={`${path}/weld_leg_mm`} label="Leg of its welds" />
        </>
      )}
    </>
  )
}

export function AngleForm({ path, mount }: { path: string; mount: Mount }) {
  const { tables } = useDocument()
  const edit = useLive((s) => s.edit)
  const [lit, setLit] = useState<Dimension | null>(null)
  const { shape } = mount
  if (shape.type !== 'angle') return null
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
      <Blank path={`${path}/shape/packing_mm`} label="Packing under it, on the vehicle" />
      <Gussets path={`${path}/shape/gussets`} gussets={shape.gussets} />
      <BoltForm path={path} hole={shape.hole ?? 'round'} on={mount.lands_on} angle />
      <Joined path={path} mount={mount} onLit={setLit} />
    </>
  )
}
