/** One mount: its uses, its shape's demands, the bracket's blanks, tightening, and what its hard point must carry. */
import { useChoice } from '../../design/choice'
import { useAnalysis, useDocument, useLive } from '../../design/live'
import type { Mount } from '../../design/types'
import { Blank } from '../../ui/Blank'
import { use, withCommas } from '../../ui/format'
import { Mark } from '../../ui/Mark'
import { NameBlank } from '../../ui/NameBlank'
import { Button, Choose, Fact, Heading, Link, Title } from '../../ui/parts'
import { SentenceRows } from '../FindingRows'

export function MountSheet({ id }: { id: string }) {
  const document = useDocument()
  const { supports, findings } = useAnalysis()
  const select = useChoice((s) => s.select)
  const edit = useLive((s) => s.edit)
  const mount = document.mounts[id] as Mount
  const figures = supports.flatMap((s) => s.mounts).find((m) => m.id === id)
  const path = `/mounts/${id}`
  const here = findings.filter((f) => f.station === 'mount' && f.subjects.includes(`mounts/${id}`))
  async function remove() {
    if (await edit([{ op: 'remove', path }])) select(null)
  }
  return (
    <>
      <Title right={<Link onClick={() => select(null)}>all mounts</Link>}>{mount.name}</Title>
      <SentenceRows findings={here} />
      {figures && (
        <>
          <Heading right="over all cases and the envelope">Uses, weakest first</Heading>
          {figures.unchecked && (
            <p className="m-0 text-sm font-semibold">Not checked: {figures.unchecked}.</p>
          )}
          {figures.rows.map((row) => (
            <Fact key={row.check} name={`${row.check} · ${row.case}`}>
              <span className="inline-flex items-center gap-2">
                {use(row.use)} <Mark state={row.state} />
              </span>
            </Fact>
          ))}
          <Heading>Its shape</Heading>
          {figures.geometry.map((g) => (
            <p key={g.says} className="m-0 flex items-start gap-2 py-0.5 text-sm">
              <Mark state={g.fits ? 'clear' : 'foul'} /> {g.says}
            </p>
          ))}
          {figures.remarks.length > 0 && (
            <p className="m-0 text-sm">Outside the standard’s range: {figures.remarks.join('; ')}.</p>
          )}
          <Fact name="Tighten to">{figures.torque_nm.toFixed(1)} N·m</Fact>
        </>
      )}
      <Heading>Bracket</Heading>
      <Blank path={`${path}/bracket/thickness_mm`} label="Thickness" />
      <Blank path={`${path}/bracket/bend_radius_mm`} label="Inside bend radius" />
      <Blank path={`${path}/bracket/width_mm`} label="Width along the bend" />
      <Blank path={`${path}/bracket/toe_mm`} label="Bolt to toe, e" />
      <Blank path={`${path}/bracket/leg_b_mm`} label="Leg on the box, B" />
      <Blank path={`${path}/bracket/weld_from_mm`} label="Welds start, zs" />
      <Blank path={`${path}/bracket/weld_length_mm`} label="Weld length, l" />
      <Blank path={`${path}/bracket/weld_leg_mm`} label="Weld leg" />
      <Choose
        label="Material"
        value={mount.bracket.material}
        options={Object.entries(document.tables.materials).map(([key, m]) => [key, m.name] as const)}
        onChange={(v) => void edit([{ op: 'replace', path: `${path}/bracket/material`, value: v }])}
      />
      <Heading>Bolt</Heading>
      <Choose
        label="Size"
        value={mount.bolt.size}
        options={Object.keys(document.tables.bolts).map((s) => [s, s] as const)}
        onChange={(v) => void edit([{ op: 'replace', path: `${path}/bolt/size`, value: v }])}
      />
      <Choose
        label="Property class"
        value={mount.bolt.property_class}
        options={Object.keys(document.tables.bolt_classes).map((s) => [s, s] as const)}
        onChange={(v) => void edit([{ op: 'replace', path: `${path}/bolt/property_class`, value: v }])}
      />
      <Heading>Doubler on the wall</Heading>
      {mount.doubler ? (
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
        <Button
          plain
          onClick={() =>
            void edit([
              {
                op: 'replace',
                path: `${path}/doubler`,
                value: {
                  thickness_mm: 4,
                  along_w_mm: mount.bracket.width_mm + 60,
                  along_n_mm: mount.bracket.weld_length_mm + 60,
                  from_contact_mm: mount.bracket.weld_from_mm - 12,
                  weld_leg_mm: 4,
                },
              },
            ])
          }
        >
          Weld a doubler under it
        </Button>
      )}
      {figures && (
        <>
          <Heading right="pull · shear">Its hard point must carry</Heading>
          {figures.demands.map((d) => (
            <Fact key={d.case} name={d.case}>
              {withCommas(String(Math.ceil(d.pull_n)))} · {withCommas(String(Math.ceil(d.shear_n)))} N
            </Fact>
          ))}
          <p className="m-0 text-sm">
            From different solves, never to be combined. No margin is claimed for the vehicle’s own metal.
          </p>
        </>
      )}
      <Heading>Name</Heading>
      <NameBlank path={`${path}/name`} label="Name" />
      <p>
        <Link onClick={() => void remove()}>Remove this mount</Link>
      </p>
    </>
  )
}
