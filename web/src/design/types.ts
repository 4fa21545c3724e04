/** Names for what the API speaks of. */
import type { components } from './schema'

type Schemas = components['schemas']
export type Document = Schemas['Document']
export type Analysis = Schemas['AnalysisOut']
export type Opened = Schemas['OpenedOut']
export type FoundWeighing = NonNullable<Schemas['NewCar']['weighing']> | null
export type Notice = Schemas['NoticeOut']
export type Pack = Schemas['PackOut']
export type MadePack = NonNullable<Pack['made']>
export type PackSheet = Schemas['SheetOut']
export type KeepClear = Schemas['DocKeepClear']
export type Finding = Schemas['FindingOut']
export type Figure = Schemas['Figure']
export type Shape = Schemas['Shape']
export type Lean = Schemas['Lean']
export type Loads = Schemas['WheelLoadsOut']
export type MountResult = Schemas['MountOut']
export type WatchRow = Schemas['WatchRow']
export type StationState = Schemas['StationState']
export type FirstBox = Schemas['FirstBoxOut']
export type Box = Schemas['DocBox']
export type Block = Schemas['DocBlock']
export type Item = Schemas['DocItem']
export type Bay = Schemas['DocBay']
export type BayStation = Bay['stations'][string]
export type BayResult = Schemas['BayResult']
export type ShelfResult = Schemas['ShelfResult']
export type HardPoint = Schemas['DocHardPoint']
export type Member = Schemas['DocMember']
export type Duty = Schemas['DocDuty']
export type Snag = Schemas['DocSnag']
export type Sweep = NonNullable<Item['sweep']>
export type SurveyBlank = Schemas['BlankOut']
export type ToMeasure = Schemas['ToMeasureOut']
export type Scan = Schemas['ScanOut']
export type Outline = Schemas['OutlineOut']
export type ShelfPreview = Schemas['ShelfOut']
export type Wishes = Schemas['Wishes']
export type Study = Schemas['StudyOut']
export type Proposal = Schemas['Proposal']
export type StackUp = Schemas['StackUp']
export type BoxOpened = Schemas['BoxOpenedOut']
export type BoxSection = Schemas['BoxSectionOut']
export type DrawnMount = Schemas['DrawnMountOut']
export type Cut = Schemas['Cut']
export type SnapPoint = Schemas['SnapPoint']
export type Body = Schemas['Body']
export type Answer = Schemas['AnswerOut']
export type Hanging = Schemas['HangingOut']
export type Fix = Schemas['FixOut']
export type Stack = Schemas['DocStack']
export type Mount = Schemas['DocMount']
export type ModuleKind = Schemas['DocModuleKind']
export type Module = Schemas['DocModule']
export type Reference = Schemas['DocReference']
export type Reading = Schemas['DocReading']
export type Vehicle = Schemas['DocVehicle']
export type Read = Schemas['DocWeighed']['read']
export type NewMount = Schemas['HungBody']
export type WeighedRow = Schemas['WeighedRow']
export type State = Finding['state']
export type LengthUnit = 'mm' | 'in'
export type MassUnit = 'kg' | 'lb'
export interface Op {
  op: 'add' | 'remove' | 'replace' | 'test'
  path: string
  value?: unknown
}
export interface Problem {
  title: string
  status: number
  detail: string
  errors?: { path: string; message: string }[]
  clashes?: Clash[]
}

/** Two meant the same figure: what stands there now, what was asked, who was first ("" where nobody gave a name) and when. */
export interface Clash {
  path: string
  theirs: unknown
  yours: unknown
  who: string
  at: string
}
export type Car = Schemas['ProjectOut']
export type Variant = Schemas['VariantOut']
