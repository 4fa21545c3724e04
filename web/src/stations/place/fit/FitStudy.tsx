/** The fit study: the question at the right, what was found at the left. */
import { useQuery } from '@tanstack/react-query'
import { useEffect } from 'react'

import { useLoaded } from '../../../design/live'
import { isRunning, stopStudy, studiesQuery, studyQuery } from '../../../design/queries'
import type { Study } from '../../../design/types'
import { Button, Teach } from '../../../ui/parts'
import { Bench, Ledger } from '../../Ledger'
import { Views } from '../Views'
import { Proposals } from './Proposals'
import { Question } from './Question'
import { useAsking } from './wishes'

export function FitStudy() {
  const { project, revision } = useLoaded()
  const { study: key, set } = useAsking()
  const { data } = useQuery(studyQuery(key))
  const { data: earlier } = useQuery(studiesQuery(project))
  const newest = earlier?.[0]
  useEffect(() => {
    if (!key && newest) set({ study: newest.id })
  }, [key, newest, set])
  return (
    <>
      <Bench>
        <Views />
        {data ? (
          <>
            <Standing study={data} />
            {data.revision !== revision && data.proposals.length > 0 && (
              <p className="m-0 mb-2 text-sm">
                Asked of revision {data.revision}; the car has been changed since. Ask again to be sure.
              </p>
            )}
            <Proposals study={data} />
          </>
        ) : (
          <Teach>
            Ask the spaces how many modules they take. Every answer is a box that can be built, with all its
            gaps kept.
          </Teach>
        )}
      </Bench>
      <Ledger label="Question">
        <Question running={isRunning(data?.state)} />
      </Ledger>
    </>
  )
}

/** What is being tried and the best so far; stopped, it keeps what it has. */
function Standing({ study }: { study: Study }) {
  const set = useAsking((s) => s.set)
  if (isRunning(study.state))
    return (
      <div
        role="status"
        className="mb-3 flex items-center gap-4 rounded border border-blue bg-wash px-4 py-2"
      >
        <span className="flex-1 text-lg">
          <strong>{study.state === 'waiting' ? 'Waiting for a worker' : study.message}</strong>
          {study.tried > 0 && ` · tried ${study.tried}`}
          {study.best > 0 && ` · best so far ${study.best} modules`}
        </span>
        <Button plain onClick={() => void stopStudy(study.id).then((s) => set({ study: s.id }))}>
          Stop with what it has
        </Button>
      </div>
    )
  const words =
    study.proposals.length === 0
      ? study.message
      : `${study.proposals.length} arrangement${study.proposals.length > 1 ? 's' : ''}, none beaten by another on all counts. Each keeps every gap; mounts come after.`
  return (
    <div role="status" className="mb-3">
      <p className="m-0 text-lg font-semibold">
        {study.state === 'stopped' && 'Stopped. '}
        {words}
      </p>
      {study.proposals.length > 0 && study.message.includes('left out') && (
        <p className="m-0 text-sm">{study.message}</p>
      )}
    </div>
  )
}
