/**
 * Which way every section is looked at. Who stands behind it looks forward and has the car's left at his left hand; who stands
 * before the bonnet looks aft and has it at his right: mirrored, the words with it.
 */
import { create } from 'zustand'

interface Facing {
  aft: boolean
  turn: () => void
}

export const useFacing = create<Facing>((set) => ({
  aft: false,
  turn: () => set((s) => ({ aft: !s.aft })),
}))

export const lookingWords = (aft: boolean): string => (aft ? 'looking aft' : 'looking forward')

/** The words at the left and the right side of a section. */
export const sidesOf = (aft: boolean): [string, string] => (aft ? ['RIGHT', 'LEFT'] : ['LEFT', 'RIGHT'])

/** From how far right of the centreline to how far right on the page, and back. */
export const across = (aft: boolean, low: number, high: number) => ({
  out: (right: number): number => (aft ? high - right : right - low),
  back: (page: number): number => (aft ? high - page : page + low),
  sign: aft ? -1 : 1,
})
