/** What came out that did a job, and the faults found on the way. */
import { useState } from 'react'

import { wordsOf } from '../../design/api'
import { useDocument, useLive, useLoaded } from '../../design/live'
import { keepPicture } from '../../design/queries'
import type { Duty, Snag } from '../../design/types'
import { FileButton } from '../../ui/FileButton'
import { RowList } from '../fields'

const DUTIES = [
  ['structure', 'carried load'],
  ['heat', 'gave heat'],
  ['vacuum', 'gave brake vacuum'],
  ['holding', 'held the car on a slope'],
  ['gauge', 'fed a gauge'],
  ['other', 'did something else'],
] as const
const SNAGS = [
  ['found', 'found'],
  ['mended', 'mended'],
  ['left', 'left on purpose'],
] as const

export function DutyRows() {
  const { items } = useDocument()
  const out = Object.entries(items).filter(([, i]) => i.state === 'out')
  const rest = Object.entries(items).filter(([, i]) => i.state !== 'out')
  const names = (rows: typeof out) => rows.map(([id, i]) => [id, i.name] as const)
  return (
    <>
      <RowList
        collection="duties"
        title="Duties"
        teach="The engine braced a crossmember, gave heat and brake vacuum, held the car on a slope, fed a gauge. What does it now?"
        add="Another duty"
        fresh={() => ({ name: 'new duty', kind: 'other' })}
        fields={[
          { kind: 'choose', at: 'kind', label: 'It', options: DUTIES },
          {
            kind: 'choose',
            at: 'was',
            label: 'Done before by',
            options: names(out),
            empty: 'nothing listed',
          },
          {
            kind: 'choose',
            at: 'done_by',
            label: 'Done now by',
            options: names(rest),
            empty: 'nothing listed',
          },
          { kind: 'text', at: 'now', label: 'How it is done now' },
        ]}
        summary={(d: Duty) => (d.now || d.done_by ? 'done' : 'nothing yet')}
      />
      <RowList
        pick
        collection="snags"
        title="Faults found"
        add="Another fault"
        fresh={() => ({ name: 'new fault' })}
        fields={[
          { kind: 'choose', at: 'state', label: 'It is', options: SNAGS },
          { kind: 'text', at: 'note', label: 'Note' },
          { kind: 'place', at: 'at_mm', label: 'Say where' },
        ]}
        summary={(s: Snag) => s.state}
        extra={(id) => <Photo id={id} />}
      />
    </>
  )
}

function Photo({ id }: { id: string }) {
  const { project } = useLoaded()
  const edit = useLive((s) => s.edit)
  const { snags } = useDocument()
  const [message, setMessage] = useState('')
  const snag = snags[id]
  async function keep(file: File) {
    try {
      const kept = await keepPicture(project, file)
      setMessage('')
      await edit([{ op: 'replace', path: `/snags/${id}/photo`, value: kept.file }])
    } catch (error) {
      setMessage(wordsOf(error))
    }
  }
  return (
    <div className="mt-2">
      {snag?.photo && (
        <img
          src={`/api/pictures/${snag.photo}`}
          alt={snag.name}
          className="max-h-52 rounded border border-edge"
        />
      )}
      <FileButton
        message={snag?.photo ? 'Another picture' : 'Add a picture'}
        name="Picture of the fault"
        accept="image/png,image/jpeg,image/webp"
        onFile={(f) => void keep(f)}
      />
      {message && (
        <p role="alert" className="text-foul">
          {message}
        </p>
      )}
    </div>
  )
}
