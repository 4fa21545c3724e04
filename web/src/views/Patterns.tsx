/** Hatchings: each gap class by its own pattern, so that none rests on colour. */
export function Patterns({ id }: { id: string }) {
  const line = { stroke: '#5a5f68', strokeWidth: 1.1, fill: 'none' }
  return (
    <defs>
      <pattern
        id={`${id}-moving`}
        width="7"
        height="7"
        patternUnits="userSpaceOnUse"
        patternTransform="rotate(45)"
      >
        <path d="M0,0 V7" {...line} />
      </pattern>
      <pattern
        id={`${id}-axle`}
        width="7"
        height="7"
        patternUnits="userSpaceOnUse"
        patternTransform="rotate(-45)"
      >
        <path d="M0,0 V7 M3,0 V7" {...line} strokeWidth={0.9} />
      </pattern>
      <pattern id={`${id}-fixed`} width="6" height="6" patternUnits="userSpaceOnUse">
        <circle cx="1.5" cy="1.5" r="0.9" fill="#5a5f68" />
      </pattern>
      <pattern id={`${id}-hot`} width="8" height="8" patternUnits="userSpaceOnUse">
        <path d="M0,0 L8,8 M8,0 L0,8" {...line} strokeWidth={0.8} />
      </pattern>
      <pattern id={`${id}-crush`} width="10" height="10" patternUnits="userSpaceOnUse">
        <path d="M0,10 L5,4 L10,10" {...line} strokeWidth={0.9} />
      </pattern>
    </defs>
  )
}

export function patternOf(kind: string, gapClass: string): string {
  if (kind === 'crush') return 'crush'
  return { moving: 'moving', axle: 'axle', hot: 'hot', warm: 'hot' }[gapClass] ?? 'fixed'
}
