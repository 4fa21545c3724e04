/** Counts, turn and gaps of each block in a box. */
import { useAnalysis, useDocument, useLive } from '../../design/live'
import type { Block, ModuleKind } from '../../design/types'
import { Blank } from '../../ui/Blank'
import { Choose } from '../../ui/Choose'
import { useAhead } from '../../ui/useAhead'
import { Rearrange } from './Rearrange'
import { InString } from './Strings'
import { type Face, turnOf } from './turns'

const WAYS = ['aft', 'across', 'up'] as const

export function BlockRows({ id }: { id: string }) {
  const document = useDocument()
  const box = id
  const blocks = Object.entries(document.boxes[id]?.blocks ?? {})
  return blocks.map(([key, block]) => (
    <BlockRow
      key={key}
      box={box}
      name={key}
      path={`/boxes/${id}/blocks/${key}`}
      block={block}
      kind={document.module_kinds[block.kind]}
    />
  ))
}

function BlockRow({
  box,
  name,
  path,
  block,
  kind,
}: {
  box: string
  name: string
  path: string
  block: Block
  kind: ModuleKind | undefined
}) {
  const edit = useLive((s) => s.edit)
  const allowed = useAnalysis().boxes[box]?.turns[name]
  if (!kind) return null
  const turn = `${block.turn.down} ${block.turn.aft}`
  const turns = [...(allowed ?? [block.turn]).map((t) => turnOf(kind, t.down as Face, t.aft as Face))]
  if (!turns.some((t) => `${t.down} ${t.aft}` === turn))
    turns.push(turnOf(kind, block.turn.down as Face, block.turn.aft as Face))
  return (
    <fieldset className="m-0 mb-3 border-0 p-0">
      <legend className="font-semibold">{kind.name}</legend>
      <Choose
        label="Stands"
        value={turn}
        options={turns.map((t) => [`${t.down} ${t.aft}`, t.words] as const)}
        onChange={(chosen) => {
          const [down, aft] = chosen.split(' ')
          void edit([{ op: 'replace', path: `${path}/turn`, value: { down, aft } }])
        }}
      />
      {WAYS.map((way) => (
        <div key={way} className="grid grid-cols-2 gap-3">
          <Counter path={`${path}/counts/${way}`} way={way} count={block.counts[way]} />
          {block.counts[way] > 1 ? <Blank path={`${path}/gap_mm/${way}`} label="gap" optional /> : <span />}
        </div>
      ))}
      <InString path={path} block={block} />
      <NotAllowed kind={kind} />
      <Rearrange box={box} name={name} block={block} />
    </fieldset>
  )
}

const FACES = ['base', 'top', 'side_a', 'side_b', 'end_a', 'end_b'] as const

/** Turns a module may not rest in are told with the reason. */
function NotAllowed({ kind }: { kind: ModuleKind }) {
  const barred = FACES.filter((face) => !(kind.may_rest_on as readonly string[]).includes(face))
  if (barred.length === 0) return null
  return (
    <p className="m-0 text-sm text-soft">
      Not on {barred.map((f) => f.replace('_', ' ')).join(', ')}, as the box stands: its sheet in Stock does
      not let it rest there.
    </p>
  )
}

function Counter({ path, way, count }: { path: string; way: string; count: number }) {
  const edit = useLive((s) => s.edit)
  const [shown, show] = useAhead(count) // pressed again before the answer is there, it goes on from what it shows
  const set = (value: number) => {
    show(value)
    void edit([{ op: 'replace', path, value }])
  }
  const look = 'h-9 w-9 rounded border-[1.5px] border-edge bg-white text-lg font-bold disabled:opacity-40'
  return (
    <span className="flex items-center justify-between py-[3px]">
      <span className="narrow">{way === 'up' ? 'tiers' : way === 'aft' ? 'along' : way}</span>
      <span className="flex items-center gap-1">
        <button
          type="button"
          aria-label={`one fewer ${way}`}
          disabled={shown <= 1}
          onClick={() => set(shown - 1)}
          className={look}
        >
          −
        </button>
        <output className="w-7 text-center text-lg font-bold" aria-label={`${way}: ${shown}`}>
          {shown}
        </output>
        <button type="button" aria-label={`one more ${way}`} onClick={() => set(shown + 1)} className={look}>
          +
        </button>
      </span>
    </span>
  )
}
