/** A mass, or a liquid by volume and density. */
import { useQuery } from '@tanstack/react-query'

import { useLive } from '../../design/live'
import { startersQuery } from '../../design/queries'
import { Blank } from '../../ui/Blank'
import { Choose } from '../../ui/Choose'
import { Link } from '../../ui/parts'

export function Fluid({
  path,
  fluid,
}: {
  path: string
  fluid: { volume_l: number; density_kg_l: number } | null | undefined
}) {
  const edit = useLive((s) => s.edit)
  const { data } = useQuery(startersQuery('fluids'))
  if (!fluid)
    return (
      <>
        <Blank path={`${path}/mass_kg`} label="Mass" kind="mass" optional />
        <Link
          onClick={() =>
            void edit([
              { op: 'replace', path: `${path}/mass_kg`, value: null },
              { op: 'replace', path: `${path}/fluid`, value: { volume_l: 10, density_kg_l: 0.745 } },
            ])
          }
        >
          it is a liquid
        </Link>
      </>
    )
  const known = data?.find((row) => row.density_kg_l === fluid.density_kg_l)
  return (
    <>
      <Blank path={`${path}/fluid/volume_l`} label="Volume (L)" kind="number" />
      <Choose
        label="Of"
        value={String(known?.id ?? '')}
        options={[
          ...(known ? [] : [['', 'another liquid'] as const]),
          ...(data ?? []).map((row) => [String(row.id), `${row.name}, ${row.density_kg_l} kg/L`] as const),
        ]}
        onChange={(id) => {
          const value = data?.find((row) => row.id === id)?.density_kg_l
          if (value) void edit([{ op: 'replace', path: `${path}/fluid/density_kg_l`, value }])
        }}
      />
      <Blank path={`${path}/fluid/density_kg_l`} label="Density (kg/L)" kind="number" />
      <Link onClick={() => void edit([{ op: 'replace', path: `${path}/fluid`, value: null }])}>
        it is no liquid
      </Link>
    </>
  )
}
