/** Lists of things described by fields: one line each, opened for its figures. */
import { type ReactNode, useState } from 'react'

import { useDocument, useLive } from '../design/live'
import { at, freeId } from '../design/pointer'
import { begin } from '../design/taken'
import type { Document, Op } from '../design/types'
import { type QuantityKind, TYPED } from '../design/figure'
import { TickBox } from '../ui/Tick'
import { Blank } from '../ui/Blank'
import { NameBlank } from '../ui/NameBlank'
import { Choose } from '../ui/Choose'
import { Tick } from '../ui/Tick'
import { Button, Heading, Link, RowOpener } from '../ui/parts'
import { InOneLine } from './InOneLine'
import { selectedIn } from './useParts'
import { type Base, PointBlanks, RowHead, useBase } from './rows'

type Words = readonly (readonly [string, string])[]
export type Field =
  | { kind: QuantityKind; at: string; label: string; optional?: boolean; whole?: boolean }
  | { kind: 'place'; at: string; label: string; start?: boolean }
  | { kind: 'choose'; at: string; label: string; options: Words; empty?: string }
  | { kind: 'text'; at: string; label: string }
  | { kind: 'tick'; at: string; label: string }
  | { kind: 'way'; at: string; label: string }

const WAYS: Record<string, [number, number, number]> = {
  up: [0, 0, 1],
  down: [0, 0, -1],
  forward: [-1, 0, 0],
  aft: [1, 0, 0],
  left: [0, -1, 0],
  right: [0, 1, 0],
}

function wordOf(direction: readonly number[]): string {
  return Object.keys(WAYS).find((word) => WAYS[word]?.every((v, i) => v === direction[i])) ?? 'as given'
}

export function FieldRow({
  path,
  field,
  base,
  also = [],
}: {
  path: string
  field: Field
  base: Base | null
  /** Rows that take the same. */
  also?: readonly string[]
}) {
  const edit = useLive((s) => s.edit)
  const document = useDocument()
  const here = `${path}/${field.at}`
  const value = at(document, here)
  const all = [path, ...also].map((row) => `${row}/${field.at}`)
  const start = (spot: unknown) => void edit(begin(document, 'replace', here, spot))
  const set = (next: unknown): Op[] => all.map((one) => ({ op: 'replace', path: one, value: next }))
  const put = (next: unknown) => void edit(set(next))
  switch (field.kind) {
    case 'place':
      if (!value)
        return (
          <Button plain className="my-1" onClick={() => start(base?.at ?? [1000, 0, 400])}>
            {field.label}
          </Button>
        )
      return (
        <>
          <span className="narrow text-sm">{field.label}</span>
          <PointBlanks path={here} base={base} />
        </>
      )
    case 'choose':
      return (
        <Choose
          label={field.label}
          value={String(value ?? '')}
          options={field.empty === undefined ? field.options : [['', field.empty], ...field.options]}
          onChange={(v) => put(v === '' ? null : v)}
        />
      )
    case 'text':
      return <NameBlank path={here} label={field.label} long />
    case 'tick':
      return <Tick label={field.label} value={Boolean(value)} onChange={put} />
    case 'way': {
      const word = wordOf(value as number[])
      const words = [...Object.keys(WAYS), ...(word === 'as given' ? ['as given'] : [])]
      return (
        <Choose
          label={field.label}
          value={word}
          options={words.map((w) => [w, w] as const)}
          onChange={(w) => WAYS[w] && put(WAYS[w])}
        />
      )
    }
    default:
      return (
        <Blank
          path={here}
          label={field.label}
          kind={field.kind}
          list="survey"
          optional={field.optional ?? false}
          whole={field.whole ?? false}
          {...(also.length > 0 && { into: { ops: set(TYPED), none: set(null) } })}
          from={field.kind === 'length' && /\/[012]$/.test(here) ? base : null}
        />
      )
  }
}

export type Collection = 'hardpoints' | 'members' | 'openings' | 'duties' | 'snags' | 'stacks' | 'hardware'

type RowOf<C extends Collection> = Document[C][string] & { name: string }

export function RowList<C extends Collection>({
  collection,
  title,
  teach,
  add,
  fresh,
  fields,
  summary,
  pick = false,
  line = false,
  extra,
}: {
  collection: C
  title: string
  teach?: string
  add: string
  fresh: (base: Base | null, document: Document) => object
  fields: readonly Field[]
  summary?: (row: RowOf<C>) => string
  /** Whether the tape's reference point is chosen for the list. */
  pick?: boolean
  /** Whether a name and a place in one line make another. */
  line?: boolean
  extra?: (id: string) => ReactNode
}) {
  const document = useDocument()
  const edit = useLive((s) => s.edit)
  const rows = at(document, `/${collection}`) as Record<string, RowOf<C>>
  const [open, setOpen] = useState<string | null>(selectedIn(collection))
  const { base, pick: picker } = useBase()
  const [ticked, setTicked] = useState<readonly string[] | null>(null)
  const flip = (id: string) =>
    ticked && setTicked(ticked.includes(id) ? ticked.filter((one) => one !== id) : [...ticked, id])
  async function another() {
    const id = freeId(title.replace(/s$/, ''), rows)
    if (await edit(begin(document, 'add', `/${collection}/${id}`, fresh(base, document)))) setOpen(id)
  }
  return (
    <section aria-label={title} className="mb-4">
      <Heading right={Object.keys(rows).length || ''}>{title}</Heading>
      {Object.keys(rows).length > 1 && (
        <p className="m-0 text-right text-sm">
          <Link onClick={() => setTicked(ticked ? null : [])}>
            {ticked ? 'done with several' : 'change several at once'}
          </Link>
        </p>
      )}
      {ticked && ticked.length > 0 && (
        <Several
          paths={ticked.filter((id) => id in rows).map((id) => `/${collection}/${id}`)}
          fields={fields}
        />
      )}
      {teach && <p className="my-1 text-sm">{teach}</p>}
      {pick && Object.keys(rows).length > 0 && picker}
      {Object.entries(rows).map(([id, row]) => (
        <div key={id} className="border-b border-hair">
          <div className="flex items-center gap-2">
            {ticked && <TickBox name={row.name} value={ticked.includes(id)} onChange={() => flip(id)} />}
            <RowOpener open={open === id} onOpen={() => setOpen(open === id ? null : id)}>
              <span>{row.name}</span>
              <span className="narrow text-sm text-soft">{summary?.(row)}</span>
            </RowOpener>
          </div>
          {open === id && (
            <div className="mb-3 max-w-[560px] rounded border border-edge bg-white p-3">
              <RowHead path={`/${collection}/${id}`} onRemoved={() => setOpen(null)} />
              {fields.map((field) => (
                <FieldRow key={field.at} path={`/${collection}/${id}`} field={field} base={base} />
              ))}
              {extra?.(id)}
            </div>
          )}
        </div>
      ))}
      {line && <InOneLine collection={collection} base={base} fresh={fresh} />}
      <Button
        plain
        className="my-2"
        data-goes={line ? undefined : `/${collection}`}
        onClick={() => void another()}
      >
        {add}
      </Button>
    </section>
  )
}

/** What can be alike of several rows: everything but their places and names. */
function Several({ paths, fields }: { paths: readonly string[]; fields: readonly Field[] }) {
  const [first, ...also] = paths
  if (!first) return null
  return (
    <div
      role="group"
      aria-label={`For all ${paths.length} ticked`}
      className="mb-2 max-w-[560px] rounded border border-blue bg-wash p-3"
    >
      <strong>For all {paths.length} ticked</strong>
      {fields
        .filter(({ kind }) => kind !== 'place' && kind !== 'text')
        .map((field) => (
          <FieldRow key={`${field.at} ${first}`} path={first} also={also} field={field} base={null} />
        ))}
    </div>
  )
}

export function Removable({
  children,
  onRemove,
  message,
}: {
  children: ReactNode
  onRemove: () => void
  message: string
}) {
  return (
    <div className="flex items-start gap-2 border-b border-hair py-1">
      <div className="min-w-0 flex-1">{children}</div>
      <Link aria-label={message} onClick={onRemove}>
        ×
      </Link>
    </div>
  )
}
