/** Whole numbers and sixteenths under a dirty thumb. */
const KEYS = ['7', '8', '9', 'rub out', '4', '5', '6', '−', '1', '2', '3', '.', '0', '+'] as const
const SIXTEENTHS = Array.from({ length: 15 }, (_, i) => reduced(i + 1))

function reduced(sixteenths: number): string {
  let [part, under] = [sixteenths, 16]
  while (part % 2 === 0) [part, under] = [part / 2, under / 2]
  return `${part}/${under}`
}

/** The text after a key was pressed. */
function pressed(text: string, key: (typeof KEYS)[number]): string {
  if (key === 'rub out') return text.slice(0, -1).trimEnd()
  if (key === '−') return text.startsWith('-') ? text.slice(1) : `-${text}`
  return text + key
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
      <div className="grid grid-cols-4 gap-1.5">
        {KEYS.map((k) => (
          <button
            key={k}
            type="button"
            className={`${key} ${k === '0' ? 'col-span-3' : ''} ${k === 'rub out' ? 'narrow text-[15px]' : ''}`}
            onClick={() => onText(pressed(text, k))}
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
    </div>
  )
}
