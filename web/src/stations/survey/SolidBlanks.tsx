/** The shape of a thing or a space: a block between two corners, a rod, an outline in plan, a run, or what lies below a line. */
import { useDocument, useLive, useLoaded } from '../../design/live'
import { reshaped } from '../../design/orders'
import { at } from '../../design/pointer'
import { TYPED } from '../../design/figure'
import { begin } from '../../design/taken'
import type { Item, Op } from '../../design/types'
import { useAsked } from '../../design/useAsked'
import { Blank } from '../../ui/Blank'
import { Choose } from '../../ui/Choose'
import { Link } from '../../ui/parts'
import { type Base, PointBlanks } from '../rows'

type Solid = NonNullable<Item['solid']>
type SolidType = Solid['type']
const WORDS: Record<SolidType, string> = {
  block: 'block',
  rod: 'rod or pipe',
  prism: 'outline in plan, between two heights',
  path: 'a run with a cross-section',
  below: 'all below a line',
  mesh: 'from a file',
}
const BY_FIGURES: Exclude<SolidType, 'mesh'>[] = ['block', 'rod', 'prism', 'path', 'below']

function start(kind: SolidType, [a, b, c]: number[]): object {
  const [x, y, z] = [a ?? 0, b ?? 0, c ?? 300]
  switch (kind) {
    case 'rod':
      return { type: 'rod', start_mm: [x, y, z], end_mm: [x + 300, y, z], radius_mm: 20 }
    case 'prism':
      return {
        type: 'prism',
        outline_mm: [
          [x, y],
          [x + 200, y],
          [x + 200, y + 200],
          [x, y + 200],
        ],
        low_up_mm: z,
        high_up_mm: z + 100,
      }
    case 'path':
      return {
        type: 'path',
        points_mm: [
          [x, y, z],
          [x + 500, y, z],
        ],
        width_mm: 60,
        height_mm: 40,
      }
    case 'below':
      return {
        type: 'below',
        points_mm: [
          [x, y, z],
          [x + 500, y, z],
        ],
        width_mm: 1000,
      }
    default:
      return { type: 'block', low_mm: [x, y, z], high_mm: [x + 100, y + 100, z + 100] }
  }
}

export function SolidBlanks({
  path,
  base,
  optional = false,
}: {
  path: string
  base: Base | null
  optional?: boolean
}) {
  const edit = useLive((s) => s.edit)
  const { project } = useLoaded()
  const { ask, problem } = useAsked()
  const document = useDocument()
  const solid = at(document, path) as Solid | null
  const kinds: SolidType[] = solid?.type === 'mesh' ? [...BY_FIGURES, 'mesh'] : BY_FIGURES
  return (
    <>
      <Choose
        label="Shape"
        value={solid?.type ?? ''}
        options={[
          ...(optional ? [['', 'none'] as const] : []),
          ...kinds.map((kind) => [kind, WORDS[kind]] as const),
        ]}
        onChange={(kind) => {
          if (kind && kind !== 'mesh' && solid && solid.type !== 'mesh')
            return void ask(() => reshaped(project, path, kind))
          void edit(
            kind
              ? begin(document, 'replace', path, start(kind as SolidType, base?.at ?? [0, 0, 300]))
              : [{ op: 'replace', path, value: null }],
          )
        }}
      />
      {problem && (
        <p role="alert" className="m-0 font-semibold text-foul">
          {problem}
        </p>
      )}
      {solid && <Figures path={path} solid={solid} base={base} />}
    </>
  )
}

function Figures({ path, solid, base }: { path: string; solid: Solid; base: Base | null }) {
  switch (solid.type) {
    case 'block':
      return (
        <>
          <span className="narrow text-sm">from (fore, left, lower)</span>
          <PointBlanks path={`${path}/low_mm`} base={base} of="from" />
          <span className="narrow text-sm">to (aft, right, upper)</span>
          <PointBlanks path={`${path}/high_mm`} base={base} of="to" />
        </>
      )
    case 'rod':
      return (
        <>
          <span className="narrow text-sm">from</span>
          <PointBlanks path={`${path}/start_mm`} base={base} of="from" />
          <span className="narrow text-sm">to</span>
          <PointBlanks path={`${path}/end_mm`} base={base} of="to" />
          <Blank
            path={`${path}/radius_mm`}
            label="diameter"
            list="survey"
            figure={2 * solid.radius_mm}
            into={{ ops: [{ op: 'replace', path: `${path}/radius_mm`, value: TYPED }], times: 0.5 }}
          />
        </>
      )
    case 'path':
      return (
        <>
          <Corners path={`${path}/points_mm`} points={solid.points_mm} least={2} base={base} />
          <Blank path={`${path}/width_mm`} label="wide" list="survey" />
          <Blank path={`${path}/height_mm`} label="high" list="survey" />
        </>
      )
    case 'below':
      return (
        <>
          <Corners path={`${path}/points_mm`} points={solid.points_mm} least={2} base={base} />
          <Blank path={`${path}/width_mm`} label="wide, to both sides in all" list="survey" />
        </>
      )
    case 'prism':
      return (
        <>
          {solid.outline_mm.length <= 12 ? (
            <Corners path={`${path}/outline_mm`} points={solid.outline_mm} least={3} base={base} />
          ) : (
            <p className="m-0 text-sm">An outline of {solid.outline_mm.length} corners, from a drawing.</p>
          )}
          <Blank path={`${path}/low_up_mm`} label="from, up" list="survey" />
          <Blank path={`${path}/high_up_mm`} label="to, up" list="survey" />
        </>
      )
    case 'mesh':
      return (
        <p className="m-0 text-sm">
          A scan, true to ± {solid.tolerance_mm} mm, placed by {Object.keys(solid.ties).length || 'no'} points
          (see Files).
        </p>
      )
  }
}

/** Corners in their order, each in two or three figures. */
function Corners({
  path,
  points,
  least,
  base,
}: {
  path: string
  points: readonly (readonly number[])[]
  least: number
  base: Base | null
}) {
  const edit = useLive((s) => s.edit)
  const put = (value: unknown) => void edit([{ op: 'replace', path, value } as Op])
  const words = points[0]?.length === 2 ? ['aft', 'across'] : ['aft', 'across', 'up']
  return (
    <>
      {points.map((point, i) => (
        <span key={i} className="flex items-center gap-1">
          <span className="narrow w-4 text-sm">{i + 1}</span>
          {words.map((word, axis) => (
            <Blank
              key={word}
              path={`${path}/${i}/${axis}`}
              label={word}
              name={`point ${i + 1}, ${word}`}
              hideLabel
              list="survey"
              from={base}
            />
          ))}
          <Link
            aria-label={`Another point after point ${i + 1}`}
            onClick={() => {
              const next = points[i + 1]
              const between = point.map((v, axis) =>
                next ? Math.round((v + (next[axis] ?? v)) / 2) : v + (axis === 0 ? 200 : 0),
              )
              put([...points.slice(0, i + 1), between, ...points.slice(i + 1)])
            }}
          >
            +
          </Link>
          {points.length > least && (
            <Link aria-label={`Remove point ${i + 1}`} onClick={() => put(points.filter((_, n) => n !== i))}>
              ×
            </Link>
          )}
        </span>
      ))}
    </>
  )
}
