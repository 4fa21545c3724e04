/** A table read in: which column is what, what each row will become, and which rows are refused and why. */
import { useRef, useState } from 'react'

import { wordsOf } from '../../design/api'
import { useDocument, useLive, useLoaded } from '../../design/live'
import { previewShelf } from '../../design/queries'
import type { Op, ShelfPreview } from '../../design/types'
import { FileButton } from '../../ui/FileButton'
import { Choose } from '../../ui/Choose'
import { Button, Heading, Link } from '../../ui/parts'

const FIELD_WORDS: Record<string, string> = {
  name: 'name',
  serial: 'serial',
  kind: 'module kind',
  on: 'date',
  open_circuit_v: 'volts',
  resistance_mohm: 'inner resistance, mΩ',
  temperature_c: 'temperature, °C',
  mass_kg: 'mass, kg',
  verdict: 'verdict',
  damage: 'damage',
}

export function ShelfFile({ onDone }: { onDone: () => void }) {
  const { project } = useLoaded()
  const { module_kinds } = useDocument()
  const edit = useLive((s) => s.edit)
  const [file, setFile] = useState<File | null>(null)
  const [kind, setKind] = useState(Object.keys(module_kinds)[0] ?? '')
  const [mapping, setMapping] = useState<Record<string, string> | null>(null)
  const [found, setFound] = useState<ShelfPreview | null>(null)
  const [message, setMessage] = useState('')
  const [asking, setAsking] = useState(false)
  const latest = useRef(0) // only the newest answer counts

  async function ask(next: { file: File; kind: string; mapping: Record<string, string> | null }) {
    const turn = ++latest.current
    setAsking(true)
    setFile(next.file)
    setKind(next.kind)
    setMapping(next.mapping)
    try {
      const answer = await previewShelf(project, next.file, next.kind, next.mapping)
      if (turn !== latest.current) return
      setFound(answer)
      setMessage('')
    } catch (error) {
      if (turn !== latest.current) return
      setFound(null)
      setMessage(wordsOf(error))
    }
    setAsking(false)
  }
  const good = found?.rows.filter((r) => !r.refused).length ?? 0
  const bad = (found?.rows.length ?? 0) - good
  return (
    <section aria-label="Read a table in" className="mb-3 rounded border border-edge bg-white p-3">
      <Heading right={<Link onClick={onDone}>close</Link>}>A table of modules (CSV)</Heading>
      <div className="flex flex-wrap items-center gap-4">
        <FileButton
          message="Choose a file"
          name="Table file"
          accept=".csv,.txt,.tsv"
          onFile={(chosen) => void ask({ file: chosen, kind, mapping: null })}
        />
        <Choose
          label="Rows without a kind are"
          value={kind}
          options={Object.entries(module_kinds).map(([key, k]) => [key, k.name] as const)}
          onChange={(next) => (file ? void ask({ file, kind: next, mapping }) : setKind(next))}
        />
      </div>
      {message && (
        <p role="alert" className="my-1 text-foul">
          {message}
        </p>
      )}
      {found && file && (
        <>
          <p className="narrow my-1 text-sm text-soft">
            Read as {found.encoding}, columns parted by{' '}
            {found.divider === '\t' ? 'tabs' : `“${found.divider}”`}.
          </p>
          <div className="grid grid-cols-2 gap-x-6 lg:grid-cols-3">
            {found.columns.map(([head = '', field = '']) => (
              <Choose
                key={head}
                label={`“${head}” is`}
                value={mapping?.[head] ?? field}
                options={[['', 'left out'], ...found.fields.map((f) => [f, FIELD_WORDS[f] ?? f] as const)]}
                onChange={(next) => {
                  const all = Object.fromEntries(found.columns.map(([h = '', f = '']) => [h, f]))
                  void ask({ file, kind, mapping: { ...all, ...mapping, [head]: next } })
                }}
              />
            ))}
          </div>
          <div className="max-h-56 overflow-y-auto">
            <table className="w-full border-collapse text-sm">
              <tbody>
                {found.rows.map((row) => (
                  <tr key={row.line} className="border-b border-hair">
                    <td className="w-16 text-soft">line {row.line}</td>
                    <td className="font-semibold">{row.name || '–'}</td>
                    <td className={row.refused ? 'font-semibold text-foul' : ''}>
                      {row.refused ? `refused: ${row.refused}` : becomes(row.becomes)}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
          <Button
            className="mt-2"
            disabled={good === 0 || asking}
            onClick={() => void edit(found.patch as Op[]).then((ok) => ok && onDone())}
          >
            Put {good} on the shelf{bad > 0 && `, leave ${bad} out`}
          </Button>
        </>
      )}
    </section>
  )
}

function becomes(row: Record<string, string | number>): string {
  return Object.entries(row)
    .filter(([field]) => field !== 'name')
    .map(([field, value]) => `${FIELD_WORDS[field] ?? field} ${value}`)
    .join(', ')
}
