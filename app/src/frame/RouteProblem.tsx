import { isRouteErrorResponse, Link, useRouteError } from 'react-router';

/** Shown when an address leads nowhere or a sheet broke; what was saved is untouched either way. */
export function RouteProblem() {
  const error = useRouteError();
  const nowhere = error === undefined || error === null || isRouteErrorResponse(error);
  return (
    <main className="mx-auto flex max-w-[680px] flex-col items-start gap-4 px-5 py-16">
      <h1>{nowhere ? 'There is no sheet at this address' : 'This sheet broke'}</h1>
      <p>
        {nowhere
          ? 'The address may be mistyped, or it belongs to a sheet that does not exist.'
          : `Nothing that was saved is lost. Load the page again; if it breaks once more, go to another sheet and export the garden from the menu behind its name. (${error instanceof Error ? error.message : 'unknown'})`}
      </p>
      <Link to="/" className="underline underline-offset-4">
        To the start
      </Link>
    </main>
  );
}
