import { Link } from 'react-router'

export function Lost({ what = 'There is nothing at this address.' }: { what?: string }) {
  return (
    <div className="m-auto max-w-md p-8 text-center">
      <h1 className="text-lg font-semibold">{what}</h1>
      <p className="mt-2 text-muted">It may have been removed, or the address was cut short.</p>
      <Link to="/bench" className="mt-4 inline-block text-lantern-ink underline">
        Go to the bench
      </Link>
    </div>
  )
}
