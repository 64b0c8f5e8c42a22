import { RequestError } from '../api/client'

/** Shown while something is fetched; says so when the server does not answer. */
export function Loading({ what, failed }: { what: string; failed?: Error | null }) {
  const away = failed instanceof RequestError ? failed.problem : undefined
  return (
    <div role="status" className="m-auto max-w-md p-8 text-center text-muted">
      {away ? (
        <>
          <p className="text-[15px] font-medium text-ink">{away.detail}</p>
          <p className="mt-1">{away.remedy}</p>
        </>
      ) : (
        <p>Opening {what} …</p>
      )}
    </div>
  )
}
