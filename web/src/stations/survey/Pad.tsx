/** Whole numbers and sixteenths under a dirty thumb. */
const KEYS = ['7', '8', '9', '4', '5', '6', '1', '2', '3', '0', '.', '−'] as const
const SIXTEENTHS = Array.from({ length: 15 }, (_, i) => reduced(i + 1))

function reduced(sixteenths: number): string {
  let [part, under] = [sixteenths, 16]
  while (part % 2 === 0) [part, under] = [part / 2, under / 2]
  return `${part}/${under}`
}

export function Pad({
  inches,
  text,
  onText,
}: {
  inches: boolean
  text: string
  onText: (text: string) => void
}) {
  // a fraction stands once, after the whole number: another press replaces it
  const whole = text.replace(/\s*\d+\/\d+$/, '')
  const key =
    'min-h-12 rounded border-[1.5px] border-edge bg-white text-figure font-bold active:bg-wash select-none'
  return (
    <div role="group" aria-label="Pad">
      <div className="grid grid-cols-3 gap-1.5">
        {KEYS.map((k) => (
          <button
            key={k}
            type="button"
            className={key}
            onClick={() => onText(k === '−' ? minus(text) : text + k)}
          >
            {k}
          </button>
        ))}
      </div>
      {inches && (
        <div className="mt-1.5 grid grid-cols-5 gap-1.5" role="group" aria-label="Sixteenths">
          {SIXTEENTHS.map((part) => (
            <button
              key={part}
              type="button"
              className={`${key} narrow text-[15px]`}
              onClick={() => onText(whole ? `${whole} ${part}` : part)}
            >
              {part}
            </button>
          ))}
        </div>
      )}
      <button
        type="button"
        className={`${key} mt-1.5 w-full text-base`}
        onClick={() => onText(text.slice(0, -1).trimEnd())}
      >
        rub out
      </button>
    </div>
  )
}

function minus(text: string): string {
  return text.startsWith('-') ? text.slice(1) : `-${text}`
}
