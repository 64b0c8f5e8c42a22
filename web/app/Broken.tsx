import { useRouteError } from 'react-router'
import { asRefusal } from '../api/asRefusal'
import { Button } from '../ui/Button'

/** Shown in the place of a screen that met an error it does not know: what it said, and that nothing is lost. */
export function Broken() {
  const { message } = asRefusal(useRouteError())
  return (
    <div role="alert" className="m-auto max-w-md p-10 text-center">
      <h1 className="text-[15px] font-semibold">This screen has met an error</h1>
      <p className="mt-2 text-muted">{message}</p>
      <p className="mt-2 text-muted">What you typed is kept: it is saved, or waits in this browser.</p>
      <Button tone="main" className="mt-5" onClick={() => window.location.reload()}>
        Reload the page
      </Button>
    </div>
  )
}
