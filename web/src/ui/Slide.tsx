/**
 * A figure that is slid to. The browser's own control: its grip is sized for a finger by the device, and it follows one that strays off it.
 */
export function Slide({
  value,
  from,
  to,
  step = 1,
  onChange,
  className,
}: {
  value: number
  from: number
  to: number
  step?: number
  onChange: (value: number) => void
  className: string
}) {
  return (
    <input
      type="range"
      min={from}
      max={to}
      step={step}
      value={value}
      onChange={(event) => onChange(Number(event.target.value))}
      className={`${className} accent-blue`}
    />
  )
}
