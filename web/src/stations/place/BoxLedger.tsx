/** The selected box: size, place, mass, its worst gaps, and the block in it. */
import { useChoice } from '../../design/choice'
import { carries } from '../../design/mounts'
import { useAnalysis, useDocument, useLive, useLoaded } from '../../design/live'
import { withoutBox } from '../../design/orders'
import { useAsked } from '../../design/useAsked'
import type { Box } from '../../design/types'
import { Fold } from '../../ui/Fold'
import { axisWord, length, mass, withCommas } from '../../ui/format'
import { Blank } from '../../ui/Blank'
import { NameBlank } from '../../ui/NameBlank'
import { Choose } from '../../ui/Choose'
import { Button, Fact, Heading, Link, Title } from '../../ui/parts'
import { useUnits } from '../../ui/units'
import { GapRows } from '../FindingRows'
import { KeptFaces } from '../KeptFaces'
import { BlockRows } from './BlockRows'
import { OneMore, Remedies } from './Fixes'
import { LayAgainst } from './LayAgainst'
import { Pinned } from './Pinned'
import { StackUp } from './StackUp'
import { nameOf } from './Strings'
import { quarterTurn } from './turns'

export function BoxLedger({ id }: { id: string }) {
  const document = useDocument()
  const analysis = useAnalysis()
  const select = useChoice((s) => s.select)
  const place = useChoice((s) => s.place)
  const selected = useChoice((s) => s.selected)
  const units = useUnits()
  const box = document.boxes[id] as Box
  const figures = analysis.boxes[id]
  const gaps = analysis.findings.filter(
    (f) => (f.code.startsWith('gap') || f.code.startsWith('place.')) && f.subjects.includes(`boxes/${id}`),
  )
  if (!figures) return null
  const [aft, right, up] = figures.outer_mm
  const size = [aft, right, up].map((v) => length(v ?? 0, units.length)).join(' × ')
  const material = document.tables.materials[box.material]?.name ?? box.material
  const module = selected?.includes('#') ? selected.split('#')[1] : null
  return (
    <>
      <Title right={`${length(figures.wall_mm, 'mm')} mm ${material}`}>{figures.name}</Title>
      <Pinned path={`boxes/${id}`} />
      {module && (
        <p className="m-0 text-blue">Module {module} is chosen; Esc goes to its block, then to the box.</p>
      )}
      <Fact name="Outside, aft × across × up">
        {size} <Small>{units.length}</Small>
      </Fact>
      <Corner at={figures.corner_mm} />
      <Fact name="Full">{mass(figures.full_kg, units.mass)}</Fact>
      {figures.hung_kg - figures.full_kg > 0.05 && (
        <Fact name="with brackets and what is fixed to it">{mass(figures.hung_kg, units.mass)}</Fact>
      )}
      {Object.entries(figures.strings).map(([key, string], _, { length: several }) => (
        <Fact
          key={key}
          name={
            several > 1
              ? `${string.modules} in series, ${nameOf(document, key)}`
              : `Module${figures.modules > 1 ? 's' : ''} ${figures.numbers}, in series`
          }
        >
          {string.full_v.toFixed(1)} V full
        </Fact>
      ))}
      <Heading>Worst gaps</Heading>
      <GapRows findings={gaps} />
      {gaps.some((f) => f.state === 'foul') && <Remedies box={id} />}
      <Button plain className="mt-3 w-full" onClick={() => place(true)}>
        Type its place (=)
      </Button>
      <Pose id={id} box={box} />
      <StackUp box={id} />
      <Heading>Blocks</Heading>
      <BlockRows id={id} />
      <OneMore box={id} />
      <KeptFaces path={`/boxes/${id}/keep_clear`} rows={box.keep_clear} />
      <Heading>Name</Heading>
      <NameBlank path={`/boxes/${id}/name`} label="Name" />
      <BaySelect id={id} box={box} />
      <div className="mt-2 flex gap-4">
        <RemoveBox id={id} onDone={() => select(null)} />
      </div>
    </>
  )
}

function Small({ children }: { children: string }) {
  return <span className="text-sm font-normal">{children}</span>
}

function Corner({ at }: { at: number[] }) {
  const units = useUnits()
  const words = at.map((v, axis) => {
    const shown = length(axis < 2 ? Math.abs(v) : v, units.length)
    return axis === 1 || v < 0 ? `${shown} ${axisWord(axis, v)}` : withCommas(shown)
  })
  return <Fact name="Place, front left lower">{words.join(' · ')}</Fact>
}

function Pose({ id, box }: { id: string; box: Box }) {
  const edit = useLive((s) => s.edit)
  return (
    <>
      <div className="flex items-center justify-between">
        <span className="narrow">
          Turned {box.pose.yaw_deg}°{box.pose.pitch_deg ? `, nose raised ${box.pose.pitch_deg}°` : ''}
          {box.pose.roll_deg ? `, right side raised ${box.pose.roll_deg}°` : ''}
        </span>
        <Button plain onClick={() => void edit(quarterTurn(id, box.pose.yaw_deg))}>
          Quarter turn (Q)
        </Button>
      </div>
      <LayAgainst id={id} />
      <Fold words="Turn and lean in degrees">
        <Blank path={`/boxes/${id}/pose/yaw_deg`} label="Turned, nose to the left +" kind="angle" />
        <Blank path={`/boxes/${id}/pose/pitch_deg`} label="Nose raised" kind="angle" />
        <Blank path={`/boxes/${id}/pose/roll_deg`} label="Right side raised" kind="angle" />
      </Fold>
    </>
  )
}

function BaySelect({ id, box }: { id: string; box: Box }) {
  const bays = Object.entries(useDocument().bays)
  const edit = useLive((s) => s.edit)
  return (
    <Choose
      label="Belongs in"
      value={box.bay ?? ''}
      options={[['', 'no measured space'], ...bays.map(([key, bay]) => [key, bay.name] as const)]}
      onChange={(bay) => void edit([{ op: 'replace', path: `/boxes/${id}/bay`, value: bay || null }])}
    />
  )
}

function RemoveBox({ id, onDone }: { id: string; onDone: () => void }) {
  const document = useDocument()
  const { project } = useLoaded()
  const { ask, problem } = useAsked()
  const mounts = Object.values(document.mounts).filter((m) => carries(m, id))
  const remove = () => ask(() => withoutBox(project, id)).then((done) => done && onDone())
  return (
    <>
      <Link onClick={() => void remove()}>
        Remove this box{mounts.length ? ` and its ${mounts.length} mounts` : ''}
      </Link>
      {problem && (
        <p role="alert" className="m-0 font-semibold text-foul">
          {problem}
        </p>
      )}
    </>
  )
}
