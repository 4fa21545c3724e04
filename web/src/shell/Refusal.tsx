/** What the server refused, in its own words; nothing is lost by it. */
import { useLive } from '../design/live'
import { Button } from '../ui/parts'

export function Refusal() {
  const problem = useLive((s) => s.problem)
  const dismiss = useLive((s) => s.dismiss)
  if (!problem) return null
  return (
    <div
      role="alert"
      className="fixed bottom-16 left-1/2 z-30 max-w-xl -translate-x-1/2 rounded border-2 border-foul bg-white p-3 shadow-lg"
    >
      <p className="m-0 mb-1 font-bold">{problem.title}</p>
      <p className="m-0">
        {problem.clashes ? 'Somebody else changed the same figure; theirs stands now:' : problem.detail}
      </p>
      <ul className="my-1 max-h-40 overflow-auto pl-5">
        {problem.errors?.map((e) => (
          <li key={e.path + e.message}>
            {e.path.replaceAll('/', ' › ').replace(/^ › /, '')} {e.message}
          </li>
        ))}
        {problem.clashes?.map((c) => (
          <li key={c.path}>
            {c.path}: {JSON.stringify(c.theirs)}, yours was {JSON.stringify(c.yours)}
          </li>
        ))}
      </ul>
      <Button plain onClick={dismiss}>
        Close
      </Button>
    </div>
  )
}
