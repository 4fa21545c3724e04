/** A box laid against what it stands nearest to: turned to lie along it, with the needed gap just kept. */
import { useAnalysis, useLoaded } from '../../design/live'
import { aligned } from '../../design/orders'
import { useAsked } from '../../design/useAsked'
import { Choose } from '../../ui/Choose'

export function LayAgainst({ id }: { id: string }) {
  const { project } = useLoaded()
  const own = `boxes/${id}`
  const { ask, problem } = useAsked()
  const near = useAnalysis().findings.filter((f) => f.code === 'gap' && f.subjects.includes(own))
  if (near.length === 0) return null

  const lay = (other: string) => ask(() => aligned(project, id, other))

  return (
    <>
      <Choose
        label="Lay it against"
        value=""
        options={[
          ['', 'choose what'],
          ...near.map((f) => [f.subjects.find((s) => s !== own) ?? '', f.label] as const),
        ]}
        onChange={(other) => other && void lay(other)}
      />
      {problem && (
        <p role="alert" className="m-0 font-semibold text-foul">
          {problem}
        </p>
      )}
    </>
  )
}
