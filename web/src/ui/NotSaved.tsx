/** Beside what waits for the server, or was refused when it was sent. */
export function NotSaved({ why }: { why?: string | undefined }) {
  return (
    <span className={`narrow block text-xs font-bold ${why ? 'text-foul' : 'text-tight'}`}>
      {why ? `not saved: ${why}` : 'not saved'}
    </span>
  )
}
