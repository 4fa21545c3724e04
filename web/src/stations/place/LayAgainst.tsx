/** A box laid against what it stands nearest to: turned to lie along it, with the needed gap just kept. */
import { useState } from 'react'

import { api, taken, wordsOf } from '../../design/api'
import { useAnalysis, useLive, useLoaded } from '../../design/live'
import type { Op } from '../../design/types'
import { Choose } from '../../ui/parts'

export function LayAgainst({ id }: { id: string }) {
  const { project, revision } = useLoaded()
  const edit = useLive((s) => s.edit)
  const own = `boxes/${id}`
  const [problem, setProblem] = useState('')
  const near = useAnalysis().findings.filter((f) => f.code === 'gap' && f.subjects.includes(own))
  if (near.length === 0) return null

  async function lay(other: string) {
    setProblem('')
    try {
      const body = { base: revision, patch: [], box: id, other, turn: true }
      const answer = taken(
        await api.POST('/api/projects/{project}/lay-against', {
          params: { path: { project } },
          body: body as never,
        }),
      )
      await edit(answer.patch as Op[])
    } catch (error) {
      setProblem(wordsOf(error))
    }
  }

  return (
    <>
      <Choose
        label="Lay it against"
        value=""
        options={[
          ['', 'choose what'],
          ...near.map((f) => [f.subjects.find((s) => s !== own) ?? '', f.shows] as const),
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
