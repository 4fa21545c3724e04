/** Nothing selected: the boxes and the string, and every thing by name, so that all can be reached without a mouse. */
import { useChoice } from '../../design/choice'
import { useAnalysis, useDocument } from '../../design/live'
import { Fold } from '../../ui/Fold'
import { mass } from '../../ui/format'
import { Title } from '../../ui/parts'
import { useUnits } from '../../ui/units'
import { Strings } from './Strings'

export function Overview() {
  const document = useDocument()
  const { boxes, string } = useAnalysis()
  const select = useChoice((s) => s.select)
  const units = useUnits()
  const things = [
    ...Object.entries(document.items)
      .filter(([, i]) => i.solid && i.state !== 'out')
      .map(([id, i]) => [`items/${id}`, i.name] as const),
    ...Object.entries(document.keepouts).map(([id, k]) => [`keepouts/${id}`, k.name] as const),
  ]
  return (
    <>
      <Title right={`${string.modules} modules`}>Everything placed</Title>
      {Object.entries(boxes).map(([id, box]) => (
        <button
          key={id}
          type="button"
          onClick={() => select(`boxes/${id}`, box.name)}
          className="flex min-h-11 w-full items-center justify-between border-b border-hair text-left hover:text-blue"
        >
          <span className="text-lg font-semibold">{box.name}</span>
          <span>
            {box.modules} modules · {mass(box.full_kg, units.mass)}
          </span>
        </button>
      ))}
      <Strings />
      <Fold words={`Things in the way (${things.length})`} look="heading" className="mt-3 mb-5">
        {things.map(([path, name]) => (
          <button
            key={path}
            type="button"
            onClick={() => select(path, name)}
            className="block min-h-8 w-full text-left hover:text-blue"
          >
            {name}
          </button>
        ))}
      </Fold>
    </>
  )
}
