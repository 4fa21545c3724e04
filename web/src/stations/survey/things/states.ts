/** What becomes of a thing. */
export const STATES = [
  ['out', 'comes out'],
  ['in', 'goes in'],
  ['stays', 'stays, in the way'],
  ['payload', 'rides along'],
] as const
export type State = (typeof STATES)[number][0]
