/** The first screen: the cars on the bench, a new one, or one from a file. */
import { useQuery } from '@tanstack/react-query'
import { Link as To } from 'react-router'

import { carsQuery, deletedQuery } from '../design/queries'
import { Heading, Teach } from '../ui/parts'
import { CarRow } from './CarRow'
import { Deleted } from './Deleted'
import { FromFile } from './FromFile'
import { NewCarForm } from './NewCar'

export function CarsPage() {
  const { data: cars, isPending, error } = useQuery(carsQuery)
  const { data: deleted } = useQuery(deletedQuery)
  return (
    <div className="flex h-full flex-col">
      <header className="steel flex h-[76px] shrink-0 items-center border-b border-[#8c9196] px-6">
        <h1 className="m-0 text-[22px] leading-6 font-extrabold" style={{ fontStretch: '112%' }}>
          LEVEL CRADLE
        </h1>
        <p className="m-0 ml-6">Battery modules into boxes, boxes into the car.</p>
      </header>
      <main className="mx-auto grid w-full max-w-6xl flex-1 grid-cols-1 gap-10 overflow-auto px-6 py-8 md:grid-cols-[1fr_400px]">
        <section aria-label="Cars">
          <Heading as="h2">Cars on the bench</Heading>
          {isPending && <p>Looking …</p>}
          {error && <p role="alert">{error.message}</p>}
          {cars?.length === 0 && (
            <Teach>No car yet. Start with its name, its wheelbase and what its axles weigh.</Teach>
          )}
          <ul className="m-0 list-none p-0">
            {cars?.map((car) => (
              <CarRow key={car.id} car={car} cars={cars} />
            ))}
          </ul>
          <FromFile />
          {deleted && deleted.length > 0 && <Deleted cars={deleted} />}
        </section>
        <NewCarForm />
      </main>
      <footer className="flex gap-6 border-t border-edge bg-strip px-6 py-2 text-sm">
        <span className="flex-1">
          Results are engineering estimates to prepare for, never to replace, a licensed engineer’s,
          electrician’s or inspector’s judgement; local codes prevail.
        </span>
        <To to="/notices" className="shrink-0 text-blue">
          Licences of others
        </To>
      </footer>
    </div>
  )
}
