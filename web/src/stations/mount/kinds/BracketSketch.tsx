/** An angle seen along its bend, on the body's metal and against the box: the dimension whose blank has the focus is lit. */

const DIMENSIONS = {
  thickness: { d: 'M60,92 H52 M60,100 H52 M56,84 V92 M56,108 V100', word: [18, 88] },
  radius: { d: 'M112,80 L100,92', word: [120, 78] },
  width: { d: 'M190,84 l22,-14 M190,84 l-2,-6 M190,84 l6,0', word: [178, 62] },
  toe: { d: 'M146,112 H196 M146,108 V118 M196,108 V118', word: [150, 130] },
  leg: { d: 'M76,6 V100 M72,6 H80 M72,100 H80', word: [4, 46] },
  start: { d: 'M106,78 V100 M102,78 H110', word: [112, 68] },
  weld: { d: 'M106,24 V78 M102,24 H110 M102,78 H110', word: [112, 50] },
} as const
export type Dimension = keyof typeof DIMENSIONS

const WORDS: Record<Dimension, string> = {
  thickness: 'thick',
  radius: 'radius',
  width: 'width',
  toe: 'to the toe',
  leg: 'leg on the box',
  start: 'weld starts',
  weld: 'weld',
}

export function BracketSketch({ lit }: { lit: Dimension | null }) {
  const metal = { fill: 'var(--color-wash)', stroke: 'var(--color-ink)', strokeWidth: 1.5 }
  return (
    <svg
      viewBox="0 0 240 140"
      className="sticky top-0 z-10 my-1 h-[116px] w-full bg-sheet"
      role="img"
      aria-label="The bracket, seen along its bend"
    >
      <rect
        x="14"
        y="0"
        width="66"
        height="96"
        fill="var(--color-sheet)"
        stroke="var(--color-copper)"
        strokeWidth="2"
      />
      <rect x="80" y="12" width="6" height="80" {...metal} />
      <path d="M86,6 H94 V84 Q94,92 102,92 H196 V100 H94 Q86,100 86,92 Z" {...metal} />
      <path d="M94,24 l7,0 l-7,7 Z M94,78 l7,0 l-7,-7 Z" fill="var(--color-ink)" />
      <path d="M146,78 v36 M138,88 h16 v-6 h-16 Z" fill="none" stroke="var(--color-ink)" strokeWidth="1.5" />
      <path d="M92,101 H226" stroke="var(--color-ink)" strokeWidth="2.5" />
      <path
        d="M96,106 l-5,7 M120,104 l-6,9 M176,104 l-6,9 M214,104 l-6,9"
        stroke="var(--color-edge)"
        strokeWidth="1"
      />
      <text x="20" y="60" fontSize="15" fill="var(--color-soft)">
        box
      </text>
      <text x="202" y="120" fontSize="15" fill="var(--color-soft)">
        body
      </text>
      {lit && (
        <g stroke="var(--color-blue)" fill="none" strokeWidth="2.5">
          <path d={DIMENSIONS[lit].d} />
          <text
            x={DIMENSIONS[lit].word[0]}
            y={DIMENSIONS[lit].word[1]}
            fontSize="16"
            fontWeight="700"
            fill="var(--color-blue)"
            stroke="none"
          >
            {WORDS[lit]}
          </text>
        </g>
      )}
    </svg>
  )
}
