/** A square space in one line: how long, wide and high, and where the middle of its fore edge stands on its floor. */
import { type FormEvent, useId, useState } from 'react'

import { wordsOf } from '../../../design/api'
import { readSpot, readThree } from '../../../design/figure'
import { useLive, useLoaded } from '../../../design/live'
import { type SpaceAsked, squareSpace } from '../../../design/orders'
import { useTyped } from '../../../design/typed'
import { Choose } from '../../../ui/Choose'
import { Button } from '../../../ui/parts'
import { useUnits } from '../../../ui/units'
import { useBase } from '../../rows'

const ROUND = [
  ['top', 'metal all round but the top'],
  ['', 'metal all round'],
  ['fore aft left right floor top', 'open all round'],
] as const

export function OneLine({ onMade }: { onMade: (id: string) => void }) {
  const { project } = useLoaded()
  const edit = useLive((s) => s.edit)
  const { length: unit } = useUnits('survey')
  const { base, pick } = useBase('')
  const [name, setName] = useTyped('/bays/square/name')
  const [size, setSize] = useTyped('/bays/square/size')
  const [where, setWhere] = useTyped('/bays/square/where')
  const [open, setOpen] = useState<string>(ROUND[0][0])
  const [wrong, setWrong] = useState<Record<string, string>>({})

  async function submit(event: FormEvent) {
    event.preventDefault()
    const told: Record<string, string> = {}
    const asked = <T,>(key: string, job: Promise<T>) =>
      job.catch((error: unknown) => {
        told[key] = wordsOf(error)
        return null
      })
    const [size_mm, at] = await Promise.all([
      asked('size', readThree(size, unit)),
      asked('where', readSpot(where, base, unit)),
    ])
    const sides = open.split(' ').filter(Boolean)
    const body = {
      name: name.trim() || 'space',
      open: sides as SpaceAsked['open'] & object,
      measured_from: base?.id ?? null,
    }
    const made =
      size_mm && at && (await asked('size', squareSpace(project, { ...body, size_mm, at_mm: at.spot })))
    setWrong(told)
    if (!made || !(await edit(made.patch))) return
    for (const give of [setName, setSize, setWhere]) give('')
    onMade(made.id)
  }

  return (
    <form
      onSubmit={(e) => void submit(e)}
      aria-label="A square space"
      className="my-2 flex max-w-[820px] flex-wrap items-start gap-x-6 rounded border border-hair bg-sheet p-3"
    >
      <Sketch />
      <div className="min-w-[340px] flex-1">
        <Field label="Name" hint="tank space" value={name} onType={setName} />
        <Field
          label="Along × across × high"
          hint="460 x 330 x 310"
          value={size}
          onType={setSize}
          wrong={wrong['size']}
        />
        <Field
          label="Peg: middle of its fore edge, on its floor"
          hint="2600 aft, 0, 325 up"
          value={where}
          onType={setWhere}
          wrong={wrong['where']}
        />
        {pick}
        <Choose label="Its sides" value={open} options={ROUND} onChange={setOpen} />
        <Button type="submit" className="mt-1 w-full">
          Make this space
        </Button>
      </div>
    </form>
  )
}

function Field({
  label,
  hint,
  value,
  onType,
  wrong,
}: {
  label: string
  hint: string
  value: string
  onType: (text: string) => void
  wrong?: string | undefined
}) {
  const id = useId()
  return (
    <span className="block py-[2px]">
      <span className="flex items-center justify-between gap-2">
        <label htmlFor={id} className="narrow">
          {label}
        </label>
        <input
          id={id}
          value={value}
          placeholder={hint}
          autoComplete="off"
          onChange={(e) => onType(e.target.value)}
          aria-invalid={Boolean(wrong)}
          aria-describedby={wrong ? `${id}-message` : undefined}
          className={`min-h-9 w-[230px] rounded border-[1.5px] bg-white px-1.5 font-semibold placeholder:font-normal placeholder:text-soft ${wrong ? 'border-foul' : 'border-edge'}`}
        />
      </span>
      {wrong && (
        <span id={`${id}-message`} role="alert" className="block text-right text-sm text-foul">
          {wrong}
        </span>
      )}
    </span>
  )
}

/** Which three figures, and where the peg stands. */
function Sketch() {
  const line = { fill: 'none', stroke: 'var(--color-ink)', strokeWidth: 2 }
  const words = { fontSize: 13, fill: 'var(--color-ink)' }
  return (
    <svg
      viewBox="-16 0 220 150"
      className="w-[220px] shrink-0"
      role="img"
      aria-label="A square space: along, across, high, and its peg"
    >
      <path d="M20,60 v60 l70,22 v-60 Z" {...line} />
      <path d="M20,60 l100,-36 l70,22 v60 l-100,36" {...line} />
      <path d="M90,82 l100,-36" {...line} />
      <path d="M20,120 l100,-36 v-60 M120,84 l70,22" {...line} strokeDasharray="3 4" strokeWidth={1} />
      <circle cx="55" cy="131" r="5" fill="var(--color-blue)" />
      <text x="-14" y="95" {...words}>
        high
      </text>
      <text x="140" y="138" {...words}>
        along
      </text>
      <text x="22" y="147" {...words}>
        across
      </text>
      <text x="62" y="126" {...words} fill="var(--color-blue)" fontWeight={600}>
        peg
      </text>
    </svg>
  )
}
