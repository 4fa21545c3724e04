/** Modules in series, string by string, and in which of them the modules of a block are. */
import { useAnalysis, useDocument, useLive } from '../../design/live'
import type { Block, Document } from '../../design/types'
import { Blank } from '../../ui/Blank'
import { NameBlank } from '../../ui/NameBlank'
import { Choose } from '../../ui/Choose'
import { Fact, Heading, Link } from '../../ui/parts'

export function nameOf(document: Document, key: string): string {
  return document.strings[key]?.name ?? 'in no string yet'
}

/** The whole: one string without a name, or each with its figures. */
export function Strings() {
  const document = useDocument()
  const { string } = useAnalysis()
  const edit = useLive((s) => s.edit)
  const empty = Object.keys(document.strings).filter((key) => !string.strings[key])
  if (string.modules === 0 && empty.length === 0) return null
  const rows = Object.entries(string.strings)
  const only = rows.length === 1 && Object.keys(document.strings).length === 0
  return (
    <>
      <Heading>{only ? 'All in series' : `${rows.length} strings side by side`}</Heading>
      {rows.map(([key, figures]) => (
        <div key={key} className={only ? '' : 'mb-2'}>
          {document.strings[key] ? (
            <NameBlank path={`/strings/${key}/name`} label="Name" />
          ) : (
            !only && <p className="m-0 text-soft">In no string yet: say it at the block.</p>
          )}
          {!only && <Fact name="Modules in series">{figures.modules}</Fact>}
          <Fact name="Nominal">{figures.nominal_v.toFixed(1)} V</Fact>
          <Fact name="Full">{figures.full_v.toFixed(1)} V</Fact>
        </div>
      ))}
      {string.energy_kwh !== null && (
        <Fact name={only ? 'Energy' : 'Energy of all'}>{string.energy_kwh.toFixed(1)} kWh</Fact>
      )}
      {empty.map((key) => (
        <p key={key} className="m-0 flex justify-between">
          <span className="text-soft">{nameOf(document, key)} has no modules</span>
          <Link onClick={() => void edit([{ op: 'remove', path: `/strings/${key}` }])}>remove it</Link>
        </p>
      ))}
    </>
  )
}

const ANOTHER = ' another'

/** In which string a block's modules are, and how many of them stand side by side as one. */
export function InString({ path, block }: { path: string; block: Block }) {
  const document = useDocument()
  const edit = useLive((s) => s.edit)
  const strings = Object.entries(document.strings).sort(([, a], [, b]) => a.order - b.order)
  const choose = (chosen: string) => {
    const key = chosen === ANOTHER ? freeKey(document) : chosen
    const made = { name: `string ${strings.length + 1}`, order: (strings.at(-1)?.[1].order ?? 0) + 1 }
    void edit([
      ...(chosen === ANOTHER ? [{ op: 'add' as const, path: `/strings/${key}`, value: made }] : []),
      { op: 'replace' as const, path: `${path}/string`, value: key || null },
    ])
  }
  return (
    <>
      <Choose
        label="In string"
        value={block.string ?? ''}
        options={[
          ['', strings.length ? 'none yet' : 'the only one'],
          ...strings.map(([key, s]) => [key, s.name] as const),
          [ANOTHER, 'another string'],
        ]}
        onChange={choose}
      />
      <Blank path={`${path}/parallel`} label="side by side as one" kind="number" />
    </>
  )
}

function freeKey(document: Document): string {
  let n = 1
  while (document.strings[`s${n}`]) n += 1
  return `s${n}`
}
