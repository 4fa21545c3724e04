/** What is taken away: the whole pack, or one file of it. */
import { useLoaded } from '../../design/live'
import type { MadePack } from '../../design/types'
import { Fold } from '../../ui/Fold'
import { Button, Heading } from '../../ui/parts'

const FIRST = [
  ['drawings.pdf', 'All sheets, PDF'],
  ['tables/tables.xlsx', 'Tables, XLSX'],
  ['templates.pdf', 'Templates, true size'],
  ['dummies.pdf', 'Dummies to fold'],
  ['solids/whole.step', 'Solids, STEP'],
] as const

export function TakeAway({ base, pack }: { base: string; pack: MadePack }) {
  const { project } = useLoaded()
  const there = FIRST.filter(([name]) => pack.files.includes(name))
  return (
    <>
      <Heading>Take away</Heading>
      {!pack.released && <p className="m-0 mb-1">Every sheet of it says that it is not released.</p>}
      <div className="grid grid-cols-2 gap-2">
        <Download href={`${base}/whole.zip`}>Whole pack, ZIP</Download>
        {there.map(([name, words]) => (
          <Download key={name} href={`${base}/files/${name}`}>
            {words}
          </Download>
        ))}
        <Download href={`/api/projects/${project}/export`}>Design file</Download>
      </div>
      <Fold words={`All ${pack.files.length} files`} className="mt-1">
        <ul className="m-0 list-none p-0">
          {pack.files.map((name) => (
            <li key={name} className="border-b border-hair">
              <a
                href={`${base}/files/${name}`}
                download
                className="flex min-h-8 items-center text-blue [overflow-wrap:anywhere]"
              >
                {name}
              </a>
            </li>
          ))}
        </ul>
      </Fold>
    </>
  )
}

function Download({ href, children }: { href: string; children: string }) {
  return (
    <Button plain asChild>
      <a href={href} download data-goes="/drawings">
        {children}
      </a>
    </Button>
  )
}
