/** "Make 11 of the kind." */
import { useId, useState } from 'react'

import { useDocument, useLive } from '../../design/live'
import { freeId } from '../../design/pointer'
import type { Module, ModuleKind, Op } from '../../design/types'
import { Choose } from '../../ui/Choose'
import { Button } from '../../ui/parts'

export function MakeMany() {
  const document = useDocument()
  const edit = useLive((s) => s.edit)
  const kinds = Object.entries(document.module_kinds)
  const [chosen, setChosen] = useState('')
  const [count, setCount] = useState('1')
  const id = useId()
  const kind = chosen in document.module_kinds ? chosen : (kinds[0]?.[0] ?? '')
  const number = /^\d{1,3}$/.test(count) ? Number(count) : 0
  async function make() {
    const { name } = document.module_kinds[kind] as ModuleKind
    const taken: Record<string, unknown> = { ...document.modules }
    const start = Object.values(document.modules).filter((m) => m.kind === kind).length
    const order = Math.max(0, ...Object.values(document.modules).map((m) => m.order))
    const patch: Op[] = []
    for (let n = 1; n <= number; n += 1) {
      const key = freeId(`${kind}-${start + n}`.slice(0, 50), taken)
      const value: Partial<Module> = { name: `${name.split(' ')[0]} ${start + n}`, kind, order: order + n }
      taken[key] = value
      patch.push({ op: 'add', path: `/modules/${key}`, value })
    }
    if (await edit(patch)) setCount('1')
  }
  return (
    <form
      className="flex items-center gap-2"
      onSubmit={(e) => {
        e.preventDefault()
        void make()
      }}
    >
      <label htmlFor={id}>Make</label>
      <input
        id={id}
        data-goes="/modules"
        value={count}
        onFocus={(e) => e.currentTarget.select()}
        onChange={(e) => setCount(e.target.value)}
        inputMode="numeric"
        className="min-h-9 w-14 rounded border-[1.5px] border-edge bg-white px-1.5 text-right text-lg font-semibold"
      />
      <Choose
        hideLabel
        label="of the kind"
        value={kind}
        options={kinds.map(([key, k]) => [key, k.name] as const)}
        onChange={setChosen}
      />
      <Button plain type="submit" disabled={number < 1}>
        Add
      </Button>
    </form>
  )
}
