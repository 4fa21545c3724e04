/** Where something sits on a face of a box: from two of its edges. */
import { useLive } from '../../design/live'
import rules from '../../design/rules.json'
import { Blank } from '../../ui/Blank'
import { Choose } from '../../ui/Choose'

export const FACES = [
  ['front', 'front'],
  ['aft', 'aft'],
  ['left', 'left'],
  ['right', 'right'],
  ['base', 'base'],
  ['top', 'top'],
] as const
export type FaceName = (typeof FACES)[number][0]
export const EDGES = rules.face_edges as Record<FaceName, FaceName[][]>

export function OnFace({
  path,
  thing,
}: {
  path: string
  thing: { name: string; face: string; from: readonly unknown[] }
}) {
  const edit = useLive((s) => s.edit)
  const [one, other] = thing.from as [FaceName, FaceName]
  const [first = [], second = []] = EDGES[thing.face as FaceName]
  const turn = (i: number, edge: string) => {
    const from = i ? [one, edge] : [edge, other]
    void edit([{ op: 'replace', path: `${path}/from`, value: from }])
  }
  return (
    [
      ['u_mm', one, first],
      ['v_mm', other, second],
    ] as const
  ).map(([name, edge, options], i) => (
    <span key={name} className="grid grid-cols-2 gap-2">
      <Choose
        label="from the"
        value={edge}
        options={options.map((o) => [o, o] as const)}
        onChange={(v) => turn(i, v)}
      />
      <Blank path={`${path}/${name}`} label={`${thing.name} from the ${edge}`} hideLabel />
    </span>
  ))
}
