/** Under the tape: make it read what is wanted, by moving the first thing; or keep it as a live row. */
import { useState } from 'react'

import { wordsOf } from '../../design/api'
import { boxOf } from '../../design/choice'
import { useDocument, useLive, useLoaded } from '../../design/live'
import { tapedTo } from '../../design/orders'
import { at, freeId } from '../../design/pointer'
import { readText } from '../../design/queries'
import { useTyped } from '../../design/typed'
import { Button, Link } from '../../ui/parts'
import { useUnits } from '../../ui/units'

export function MakeIt({ one, other }: { one: string; other: string }) {
  const { project } = useLoaded()
  const document = useDocument()
  const edit = useLive((s) => s.edit)
  const unit = useUnits().length
  const [text, setText] = useTyped(`/tapes/${one}/${other}/want`)
  const [problem, setProblem] = useState('')
  const box = boxOf(one)
  const kept = Object.values(document.tapes).some((t) => t.one === one && t.other === other)

  async function make() {
    setProblem('')
    try {
      const want = await readText({ text, path: '/tapes/a/want_mm', unit })
      const answer = await tapedTo(project, one, other, want)
      const now = at(document, `/boxes/${box}/pose/at_mm`) as number[]
      const spot = now.map((v, i) => Math.round((v + (answer.move_mm?.[i] ?? 0)) * 100) / 100)
      await edit([{ op: 'replace', path: `/boxes/${box}/pose/at_mm`, value: spot }])
    } catch (error) {
      setProblem(wordsOf(error))
    }
  }

  function keep() {
    const path = `/tapes/${freeId('tape', document.tapes)}`
    void edit([{ op: 'add', path, value: { one, other } }])
  }

  return (
    <form
      className="mt-1 flex flex-wrap items-center gap-3"
      onSubmit={(e) => (e.preventDefault(), void make())}
    >
      {box && (
        <label className="flex items-center gap-2">
          make it
          <input
            value={text}
            onChange={(e) => setText(e.target.value)}
            className="h-9 w-20 rounded border-[1.5px] border-edge bg-white px-2 text-right font-semibold"
          />
          <Button type="submit" disabled={text.trim() === ''}>
            Move
          </Button>
        </label>
      )}
      {!kept && <Link onClick={keep}>keep this tape</Link>}
      {problem && <p role="alert">{problem}</p>}
    </form>
  )
}
