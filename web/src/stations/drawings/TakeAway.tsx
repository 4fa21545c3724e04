/** What is taken away: the whole pack, or one file of it. */
import type { ReactNode } from 'react'

import { useLoaded } from '../../design/live'
import type { MadePack } from '../../design/types'
import { Fold } from '../../ui/Fold'
import { Button, Heading } from '../../ui/parts'

const FIRST = [
  ['drawings.pdf', 'All sheets, PDF'],
  ['templates.pdf', 'Templates, true size'],
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
      </div>
      <Fold words={`All ${pack.files.length} files, and the design`} className="mt-1">
        <ul className="m-0 list-none p-0">
          <File href={`/api/projects/${project}/export`}>{project}.cradle.json</File>
          {pack.files.map((name) => (
            <File key={name} href={`${base}/files/${name}`}>
              {name}
            </File>
          ))}
        </ul>
      </Fold>
    </>
  )
}

function File({ href, children }: { href: string; children: ReactNode }) {
  return (
    <li className="border-b border-hair">
      <a href={href} download className="flex min-h-9 items-center text-blue [overflow-wrap:anywhere]">
        {children}
      </a>
    </li>
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
