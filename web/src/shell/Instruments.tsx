/** What the instruments show. Pressing a channel holds it into the blank that has the focus, as soon as it stands still. */
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useState } from 'react'

import {
  type Channel,
  channelKey,
  instrumentsQuery,
  leave,
  listenTo,
  sourceWords,
  useHeld,
} from '../design/instruments'
import { Button, Link } from '../ui/parts'

export function Instruments() {
  const open = useHeld((s) => s.open)
  return open ? <Strip /> : null
}

function Strip() {
  const { data } = useQuery(instrumentsQuery)
  const armed = useHeld((s) => s.armed)
  const put = useHeld((s) => s.put)
  const queries = useQueryClient()
  const [address, setAddress] = useState('127.0.0.1:4701')
  const [message, setMessage] = useState('')

  useEffect(() => {
    if (!armed) return
    const channel = data
      ?.flatMap((s) => s.channels.map((c) => [channelKey(s, c), c] as const))
      .find(([k]) => k === armed)?.[1]
    if (!channel?.steady) return
    useHeld.getState().put?.(channel.text, sourceWords(armed))
    useHeld.setState({ armed: null, last: armed })
  }, [armed, data])

  async function listen() {
    try {
      await listenTo(address)
      setMessage('')
      await queries.invalidateQueries(instrumentsQuery)
    } catch (error) {
      setMessage((error as Error).message)
    }
  }
  return (
    <section
      aria-label="Instruments"
      className="relative z-10 flex shrink-0 flex-wrap items-center gap-2 border-t border-edge bg-sheet px-3 py-1.5 print:hidden"
    >
      {data?.map((source) => (
        <span
          key={source.address}
          className="flex items-center gap-1.5 rounded border border-edge px-1.5 py-1"
        >
          <span className="narrow text-xs text-soft">
            {source.address}
            <span className="block">{source.message}</span>
          </span>
          {source.channels.map((channel) => (
            <Chip
              key={channel.name}
              channel={channel}
              armed={armed === channelKey(source, channel)}
              able={put !== null}
              onHold={() => useHeld.setState({ armed: channelKey(source, channel) })}
            />
          ))}
          <Link
            aria-label={`Leave ${source.address}`}
            onClick={() => void leave(source.address).then(() => queries.invalidateQueries(instrumentsQuery))}
          >
            ×
          </Link>
        </span>
      ))}
      <form
        className="flex items-center gap-2"
        onSubmit={(event) => {
          event.preventDefault()
          void listen()
        }}
      >
        <label htmlFor="instrument" className="narrow text-sm">
          Listen to
        </label>
        <input
          id="instrument"
          value={address}
          onChange={(e) => setAddress(e.target.value)}
          onFocus={() => useHeld.setState({ put: null })}
          className="min-h-9 w-40 rounded border-[1.5px] border-edge bg-white px-1.5 font-semibold"
        />
        <Button plain type="submit">
          Listen
        </Button>
      </form>
      {message && (
        <span role="alert" className="text-foul">
          {message}
        </span>
      )}
      <span role="status" className="narrow text-sm">
        {armed
          ? `Held as soon as it stands still: ${sourceWords(armed)}`
          : put
            ? ''
            : 'Go into a blank, then press a channel.'}
      </span>
      <Link onClick={() => useHeld.setState({ open: false, armed: null })}>put away</Link>
    </section>
  )
}

function Chip({
  channel,
  armed,
  able,
  onHold,
}: {
  channel: Channel
  armed: boolean
  able: boolean
  onHold: () => void
}) {
  return (
    <button
      type="button"
      disabled={!able}
      aria-pressed={armed}
      aria-label={`Hold ${channel.name}: ${channel.text}, ${channel.message}`}
      // the blank keeps the focus
      onPointerDown={(event) => event.preventDefault()}
      onMouseDown={(event) => event.preventDefault()}
      onClick={onHold}
      className={`min-h-10 rounded border-2 px-2 text-left leading-tight ${armed ? 'border-blue bg-wash' : 'border-edge bg-white'}`}
    >
      <span className="narrow text-xs">{channel.name}</span>{' '}
      <strong className="text-lg">{channel.text}</strong>
      <span className="narrow block text-xs">
        <Steady steady={channel.steady} /> {channel.message}
        {channel.steady && ` within ${Number(channel.spread.toPrecision(2))}`}
      </span>
    </button>
  )
}

/** At rest: a level line; else a wave. */
function Steady({ steady }: { steady: boolean }) {
  return (
    <svg width="22" height="9" viewBox="0 0 22 9" aria-hidden="true" className="inline">
      <path
        d={steady ? 'M1,4.5 H21' : 'M1,4.5 Q4,-2 7.5,4.5 T14.5,4.5 T21,4.5'}
        fill="none"
        stroke={steady ? 'var(--color-clear)' : 'var(--color-tight)'}
        strokeWidth="2.2"
      />
    </svg>
  )
}
