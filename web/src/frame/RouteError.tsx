import { isRouteErrorResponse, useRouteError } from 'react-router'
import { Button, ButtonLink } from './Button.tsx'
import { Whole } from './Whole.tsx'

/** What is shown when a screen itself breaks: what was kept and what to do. */
export function RouteError() {
  const error = useRouteError()
  const detail = isRouteErrorResponse(error)
    ? error.statusText
    : error instanceof Error
      ? error.message
      : String(error)
  return (
    <Whole title="This screen stopped working">
      <p>
        Everything you saved is safe on the server. Load the page again; if it happens again, pass on the line
        below.
      </p>
      <p>
        <small>{detail}</small>
      </p>
      <div className="row">
        <Button look="primary" onClick={() => location.reload()}>
          Load again
        </Button>
        <ButtonLink href="/">Go to the start</ButtonLink>
      </div>
    </Whole>
  )
}
