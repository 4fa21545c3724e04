/** A blank for one figure of the document. The core reads what is typed and says what it understood; the text is kept as typed. */
import { useId } from 'react'

import type { Hook, QuantityKind } from '../design/figure'
import { useDocument } from '../design/live'
import { along } from './format'
import { NotSaved } from './NotSaved'
import { Message } from './Message'
import { type Asked, useBlank } from './useBlank'

export interface BlankProps extends Asked {
  hideLabel?: boolean
  /** The unit stands at the head of the column. */
  bare?: boolean
}

const UNIT_WORD: Record<QuantityKind, string> = { length: '', mass: '', number: '', angle: '°', voltage: 'V' }

export function Blank(props: BlankProps) {
  const { path, label, kind = 'length', from = null, hideLabel = false } = props
  const id = useId()
  const blank = useBlank(props)
  const { text, unit, units, value, way, hook, reading, row, taken, asTyped, wrong, answer, isStored } = blank
  const { take, type, keys, hold } = blank
  return (
    <span className="relative flex items-center justify-between gap-2 py-[2px]">
      <span>
        <label htmlFor={id} className={hideLabel ? 'sr-only' : 'narrow block leading-tight'}>
          {label}
        </label>
        {!hideLabel && taken && way !== null && typeof value === 'number' && (
          <Datum hook={hook} from={from} inVehicle={along(value, way, units.length)} />
        )}
        {row && <NotSaved why={row.refused} />}
        {reading && taken && !asTyped && (
          <span className="narrow block text-xs text-soft">
            typed {reading.text} {/mm|cm|in|ft|kg|lb|['"]/i.test(reading.text) ? '' : reading.unit}
          </span>
        )}
      </span>
      <span className="relative inline-flex items-baseline gap-1">
        <input
          id={id}
          data-goes={path}
          aria-label={props.name}
          // no Hint: it would come round the input only once a figure is held, and take it out of the hand
          title={reading?.source ? `held from ${reading.source}` : undefined}
          value={text}
          data-stored={isStored ? '' : undefined}
          placeholder={taken ? undefined : 'not known'}
          inputMode="decimal"
          autoComplete="off"
          spellCheck={false}
          aria-invalid={wrong}
          aria-describedby={answer === null ? undefined : `${id}-message`}
          onFocus={(event) => {
            event.currentTarget.select()
            hold()
          }}
          onChange={(event) => type(event.target.value)}
          onKeyDown={keys}
          onBlur={() => void take()}
          className={`min-h-9 w-[92px] rounded border-[1.5px] bg-white px-1.5 text-right font-semibold placeholder:text-xs placeholder:font-normal placeholder:text-soft ${text.length > 8 ? 'text-sm' : 'text-lg'} ${wrong ? 'border-foul' : 'border-edge'}`}
        />
        <span className={props.bare ? 'sr-only' : 'w-6 text-sm text-soft'}>{unit || UNIT_WORD[kind]}</span>
        {answer !== null && <Message id={`${id}-message`} side="right" text={answer} wrong={wrong} />}
      </span>
    </span>
  )
}

/** What a tape was hooked on when a figure was read off: said where it is not what the list says, and what the figure is in the car. */
function Datum({ hook, from, inVehicle }: { hook: Hook; from: Hook; inVehicle: string }) {
  const { references } = useDocument()
  const other = (hook?.id ?? '') !== (from?.id ?? '')
  if (!hook && !other) return null
  return (
    <span className="narrow block text-xs text-soft">
      {other && <b>from {hook ? references[hook.id]?.name : 'the car’s own axes'} · </b>}
      {hook && `${inVehicle} in the vehicle`}
    </span>
  )
}
