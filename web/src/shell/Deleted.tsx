/** What was deleted: kept 30 days, and brought back by one press. */
import { useQueryClient } from '@tanstack/react-query'

import { bringBack } from '../design/queries'
import type { Car } from '../design/types'
import { when } from '../ui/format'
import { Heading, Link } from '../ui/parts'

export function Deleted({ cars }: { cars: readonly Car[] }) {
  const queries = useQueryClient()
  const back = (id: string) =>
    void bringBack(id).then(() => queries.invalidateQueries({ queryKey: ['cars'] }))
  return (
    <section aria-label="Deleted" className="mt-8">
      <Heading right="kept 30 days">Deleted</Heading>
      <ul className="m-0 list-none p-0">
        {cars.map((car) => (
          <li key={car.id} className="flex min-h-9 items-center justify-between border-b border-hair">
            <span>{car.name}</span>
            <span className="flex gap-4 text-sm">
              <span className="text-soft">{when(car.deleted_at)}</span>
              <Link aria-label={`Bring ${car.name} back`} onClick={() => back(car.id)}>
                bring it back
              </Link>
            </span>
          </li>
        ))}
      </ul>
    </section>
  )
}
