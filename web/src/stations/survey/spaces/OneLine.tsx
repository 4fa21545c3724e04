/** A square space in one line: how long, wide and high, and where the middle of its fore edge stands on its floor. */
import { type FormEvent, useId, useState } from 'react'

import { wordsOf } from '../../../design/api'
import { readSpot, readThree } from '../../../design/figure'
import { useDocument, useLive } from '../../../design/live'
import { freeId } from '../../../design/pointer'
import { Button, Choose } from '../../../ui/parts'
import { useUnits } from '../../../ui/units'
import { useBase } from '../../rows'

const SIDES = ['fore', 'aft', 'left', 'right', 'floor', 'top'] as const
const ROUND = [
  ['top', 'metal all round but the top'],
  ['', 'metal all round'],
  ['fore aft left right floor top', 'open all round'],
] as const

export function OneLine({ onMade }: { onMade: (id: string) => void }) {
  const { bays } = useDocument()
  const edit = useLive((s) => s.edit)
  const { length: unit } = useUnits('survey')
  const { base, pick } = useBase('')
  const [open, setOpen] = useState<string>(ROUND[0][0])
  const [wrong, setWrong] = useState<Record<string, string>>({})

  async function submit(event: FormEvent<HTMLFormElement>) {
    event.preventDefault()
    const form = new FormData(event.currentTarget)
    const [name, size, where] = ['name', 'size', 'where'].map((key) => String(form.get(key) ?? '').trim())
    const told: Record<string, string> = {}
    const read = <T,>(key: string, job: Promise<T>) =>
      job.catch((error: unknown) => {
        told[key] = wordsOf(error)
        return null
      })
    const [sizes, at] = await Promise.all([
      read('size', readThree(size ?? '', unit)),
      read('where', readSpot(where ?? '', base, unit)),
    ])
    setWrong(told)
    if (!sizes || !at) return
    const id = freeId(name || 'space', bays)
    const value = spaceOf(name || 'new space', sizes, at.spot, open.split(' '))
    if (
      await edit([{ op: 'add', path: `/bays/${id}`, value: { ...value, measured_from: base?.id ?? null } }])
    )
      onMade(id)
  }

  return (
    <form
      onSubmit={(e) => void submit(e)}
      aria-label="A square space"
      className="my-2 flex max-w-[820px] flex-wrap items-start gap-x-6 rounded border border-hair bg-sheet p-3"
    >
      <Sketch />
      <div className="min-w-[340px] flex-1">
        <Field name="name" label="Name" hint="tank space" wrong={undefined} />
        <Field name="size" label="Along × across × high" hint="460 x 330 x 310" wrong={wrong['size']} />
        <Field
          name="where"
          label="Peg: middle of its fore edge, on its floor"
          hint="2600 aft, 0, 325 up"
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

function spaceOf(
  name: string,
  [long = 0, wide = 0, high = 0]: number[],
  at: readonly number[],
  open: string[],
) {
  const [aft = 0, across = 0, up = 0] = at
  const station = {
    aft_mm: aft,
    floor_mm: up,
    top_left_mm: up + high,
    top_right_mm: up + high,
    left_floor_mm: across - wide / 2,
    left_top_mm: across - wide / 2,
    right_floor_mm: across + wide / 2,
    right_top_mm: across + wide / 2,
  }
  const side = (key: string) => ({ is: open.includes(key) ? 'open' : 'metal', gap_class: 'other' })
  return {
    name,
    stations: { a: station },
    depth_mm: long,
    sides: Object.fromEntries(SIDES.map((key) => [key, side(key)])),
    tolerance_mm: 1,
  }
}

function Field({
  name,
  label,
  hint,
  wrong,
}: {
  name: string
  label: string
  hint: string
  wrong: string | undefined
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
          name={name}
          placeholder={hint}
          autoComplete="off"
          aria-invalid={Boolean(wrong)}
          aria-describedby={wrong ? `${id}-says` : undefined}
          className={`min-h-9 w-[230px] rounded border-[1.5px] bg-white px-1.5 font-semibold placeholder:font-normal placeholder:text-soft ${wrong ? 'border-foul' : 'border-edge'}`}
        />
      </span>
      {wrong && (
        <span id={`${id}-says`} role="alert" className="block text-right text-sm text-foul">
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
