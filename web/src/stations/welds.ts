/** The classes that welds are kept to, by the core’s names. */
export const WELDS = [
  ['', 'nobody has said'],
  ['A', 'class A, the truest'],
  ['B', 'class B'],
  ['C', 'class C'],
  ['D', 'class D'],
] as const
