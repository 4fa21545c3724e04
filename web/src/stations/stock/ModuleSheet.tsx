/** One module opened: its tests over time, damage, as altered, tested in the donor, a stand-in for trial. */
import { useDocument, useLive } from '../../design/live'
import type { Module, ModuleKind } from '../../design/types'
import { Blank } from '../../ui/Blank'
import { NameBlank } from '../../ui/NameBlank'
import { Choose } from '../../ui/Choose'
import { Tick } from '../../ui/Tick'
import { Heading, Link } from '../../ui/parts'

const TESTED = [
  ['', 'not known'],
  ['yes', 'tested in the donor'],
  ['no', 'not tested in the donor'],
] as const

export function ModuleSheet({ id, module }: { id: string; module: Module }) {
  const edit = useLive((s) => s.edit)
  const { module_kinds } = useDocument()
  const kind = module_kinds[module.kind] as ModuleKind
  const path = `/modules/${id}`
  const put = (name: string, value: unknown) => void edit([{ op: 'replace', path: `${path}/${name}`, value }])
  return (
    <div className="mb-3 grid grid-cols-1 gap-x-8 rounded border border-edge bg-white p-3 lg:grid-cols-2">
      <div>
        <span className="flex items-center justify-between gap-3">
          <NameBlank path={`${path}/name`} label="Name" />
          <Link aria-label={`Remove ${module.name}`} onClick={() => void edit([{ op: 'remove', path }])}>
            remove
          </Link>
        </span>
        <NameBlank path={`${path}/damage`} label="Damage" long />
        <NameBlank path={`${path}/note`} label="Note" long />
        <Choose
          label="It was"
          value={module.tested_in_donor === null ? '' : module.tested_in_donor ? 'yes' : 'no'}
          options={TESTED}
          onChange={(v) => put('tested_in_donor', v === '' ? null : v === 'yes')}
        />
        <Tick
          label="A stand-in for trial, to be swapped"
          value={module.stand_in}
          onChange={(on) => put('stand_in', on)}
        />
        <Altered path={path} module={module} kind={kind} />
      </div>
      <Tests path={path} module={module} />
    </div>
  )
}

function Altered({ path, module, kind }: { path: string; module: Module; kind: ModuleKind }) {
  const edit = useLive((s) => s.edit)
  const put = (value: unknown) => void edit([{ op: 'replace', path: `${path}/altered`, value }])
  if (!module.altered)
    return (
      <Link onClick={() => put({ what: 'terminals shortened', size_mm: kind.size_mm })}>It was altered</Link>
    )
  return (
    <section aria-label="As altered">
      <Heading>As altered</Heading>
      <NameBlank path={`${path}/altered/what`} label="What was done" />
      {(['Length', 'Width', 'Height'] as const).map((label, i) => (
        <Blank
          key={label}
          path={`${path}/altered/size_mm/${i}`}
          label={`${label} now (was ${(kind.size_mm as number[])[i]})`}
          list="stock"
        />
      ))}
      <Link onClick={() => put(null)}>It is as found</Link>
    </section>
  )
}

function Tests({ path, module }: { path: string; module: Module }) {
  const edit = useLive((s) => s.edit)
  const rows = Object.entries(module.tests).sort(([, a], [, b]) => (a.on < b.on ? 1 : -1))
  return (
    <section aria-label={`Tests of ${module.name}`}>
      <Heading right={rows.length || ''}>Tests</Heading>
      {rows.length === 0 && (
        <p className="m-0 text-sm">None dated. Choose a day above the table and type down the column.</p>
      )}
      <ul className="m-0 list-none p-0">
        {rows.map(([key, test]) => (
          <li key={key} className="flex items-baseline justify-between gap-3 border-b border-hair py-1">
            <strong>{test.on}</strong>
            <span className="flex-1">
              {[
                test.open_circuit_v !== null &&
                  test.open_circuit_v !== undefined &&
                  `${test.open_circuit_v} V`,
                test.resistance_mohm !== null &&
                  test.resistance_mohm !== undefined &&
                  `${test.resistance_mohm} mΩ`,
                test.temperature_c !== null && test.temperature_c !== undefined && `${test.temperature_c} °C`,
                test.mass_kg !== null && test.mass_kg !== undefined && `${test.mass_kg} kg`,
              ]
                .filter(Boolean)
                .join(', ')}
            </span>
            <Link
              aria-label={`Remove the test of ${test.on}`}
              onClick={() => void edit([{ op: 'remove', path: `${path}/tests/${key}` }])}
            >
              ×
            </Link>
          </li>
        ))}
      </ul>
    </section>
  )
}
