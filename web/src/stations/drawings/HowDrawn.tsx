/** How the sheets are laid out, and for which cutter the files are. */
import { useLive, useLoaded } from '../../design/live'
import { Blank } from '../../ui/Blank'
import { NameBlank } from '../../ui/NameBlank'
import { Choose } from '../../ui/Choose'
import { Fold } from '../../ui/Fold'

const PAPERS = (['A4', 'A3', 'Letter', 'Tabloid'] as const).map((paper) => [paper, paper] as const)
const PROJECTIONS = [
  ['third angle', 'third angle: plan above'],
  ['first angle', 'first angle: plan below'],
] as const
const LENGTHS = [
  ['mm', 'millimetres'],
  ['in', 'inches'],
  ['both', 'millimetres [inches]'],
] as const
const VERSIONS = [
  ['R2010', 'newer cutters, R2010'],
  ['R12', 'older ones, R12'],
] as const

export function HowDrawn() {
  const { sheets } = useLoaded().document
  const edit = useLive((s) => s.edit)
  const put = (field: keyof typeof sheets) => (value: string) =>
    void edit([{ op: 'replace', path: `/sheets/${field}`, value }])
  return (
    <Fold
      words={`How it is drawn: ${sheets.paper}, ${sheets.projection}, ${sheets.lengths}`}
      className="mt-2"
    >
      <Choose label="Paper" value={sheets.paper} options={PAPERS} onChange={put('paper')} />
      <Choose
        label="Views stand in"
        value={sheets.projection}
        options={PROJECTIONS}
        onChange={put('projection')}
      />
      <Choose label="Lengths in" value={sheets.lengths} options={LENGTHS} onChange={put('lengths')} />
      <Choose label="DXF for" value={sheets.dxf} options={VERSIONS} onChange={put('dxf')} />
      <Blank label="Sheet stock, long" path="/sheets/stock_mm/0" list="stock" />
      <Blank label="Sheet stock, wide" path="/sheets/stock_mm/1" list="stock" />
      <Blank label="Bar stock, long" path="/sheets/bar_mm" list="stock" />
      <Blank label="A saw cut takes" path="/sheets/saw_mm" list="stock" />
      <Blank label="Roll of liner, wide" path="/sheets/roll_mm" list="stock" />
      <NameBlank label="Currency of the prices" path="/sheets/currency" />
      <Blank label="For how many cars" path="/sheets/kits" kind="number" whole />
    </Fold>
  )
}
