/** A frame of square tube with cladding: its tubes, its sheet, what fixes it, what closes it. */
import { useDocument, useLive } from '../../../design/live'
import type { Box } from '../../../design/types'
import { Blank } from '../../../ui/Blank'
import { Choose } from '../../../ui/Choose'
import { Heading, Link } from '../../../ui/parts'
import type { FaceName } from '../OnFace'
import { SwingsOn, WindowOf } from './lids'
import { Welds } from './Welds'

const FASTENERS = [
  ['rivet', 'blind rivets'],
  ['rivet nut', 'screws in rivet nuts'],
  ['tapped', 'screws tapped into the tube'],
] as const

const CORNERS = [
  ['butt', 'butted, the long tubes through'],
  ['mitre', 'in mitres, no open ends'],
  ['notch', 'of one tube, notched and folded'],
] as const

const FACES = [
  ['top', 'its top, a lid'],
  ['base', 'its base'],
  ['front', 'its front'],
  ['aft', 'its aft end'],
  ['left', 'its left side'],
  ['right', 'its right side'],
] as const

export function FramedForm({ path, box }: { path: string; box: Box }) {
  const { tables } = useDocument()
  const edit = useLive((s) => s.edit)
  const frame = `${path}/construction`
  if (box.construction.type !== 'framed') return null
  return (
    <>
      <Heading>Frame</Heading>
      <Choose
        label="Material"
        value={box.material}
        options={Object.entries(tables.materials).map(([key, m]) => [key, m.name] as const)}
        onChange={(v) => void edit([{ op: 'replace', path: `${path}/material`, value: v }])}
      />
      <Blank path={`${frame}/tube_mm`} label="Square tube, outside" />
      <Blank path={`${frame}/tube_wall_mm`} label="Its wall" />
      <Choose
        label="Its rings meet"
        value={box.construction.corners}
        options={CORNERS}
        onChange={(v) => void edit([{ op: 'replace', path: `${frame}/corners`, value: v }])}
      />
      {box.construction.rails_at_mm.length === 0 ? (
        <Blank path={`${frame}/rails`} label="Rails across, under the modules" kind="number" />
      ) : (
        <>
          {box.construction.rails_at_mm.map((_, n) => (
            <Blank
              key={n}
              path={`${frame}/rails_at_mm/${n}`}
              label={`Rail ${n + 1} under what is bolted, from the frame’s front`}
            />
          ))}
          <Link onClick={() => void edit([{ op: 'replace', path: `${frame}/rails_at_mm`, value: [] }])}>
            rails evenly instead
          </Link>
        </>
      )}
      <Welds path={path} box={box} />
      <Heading>Cladding</Heading>
      <Blank path={`${frame}/cladding_mm`} label="Panels are thick" />
      <Choose
        label="Fixed by"
        value={box.construction.fastener}
        options={FASTENERS}
        onChange={(v) => void edit([{ op: 'replace', path: `${frame}/fastener`, value: v }])}
      />
      <Blank path={`${frame}/fastener_mm`} label="Each is thick" />
      <Blank path={`${frame}/pitch_mm`} label="Apart, at most" />
      <Heading>What comes off</Heading>
      {Object.entries(box.closures).map(([id, lid]) => (
        <Lid
          key={id}
          path={`${path}/closures/${id}`}
          face={lid.face}
          hinge={'hinge' in lid ? lid.hinge : null}
          window={'window' in lid && lid.window}
        />
      ))}
    </>
  )
}

function Lid({
  path,
  face,
  hinge,
  window,
}: {
  path: string
  face: FaceName
  hinge?: string | null
  window: boolean
}) {
  const edit = useLive((s) => s.edit)
  return (
    <>
      <Choose
        label="Filled through"
        value={face}
        options={FACES}
        onChange={(v) =>
          void edit([
            { op: 'replace', path: `${path}/hinge`, value: null },
            { op: 'replace', path: `${path}/face`, value: v },
          ])
        }
      />
      <SwingsOn path={path} face={face} hinge={hinge ?? null} />
      <WindowOf path={path} window={window} />
      <Blank path={`${path}/thickness_mm`} label="Panel is thick" />
      <Blank path={`${path}/gasket_mm`} label="Gasket, as pressed" />
      <Blank path={`${path}/screws/spacing_mm`} label="Screws apart" />
    </>
  )
}
