import { isRouteErrorResponse, useRouteError } from "react-router";
import { Missing } from "./Missing";

/** A view that could not be shown: a fault of ours, or a program that was renewed meanwhile. Nothing is lost by it. */
export function Failed() {
  const error = useRouteError();
  if (isRouteErrorResponse(error) && error.status === 404) return <Missing />;
  return (
    <main className="mx-auto max-w-xl p-8">
      <h1 className="h-station mb-2">This page didn’t load</h1>
      <p className="mb-4 text-soft">
        Nothing is lost. Reload the page. If it happens again, the program has a fault: {String(error)}
      </p>
      <button type="button" className="btn btn-main" onClick={() => location.reload()}>
        Reload
      </button>
    </main>
  );
}
