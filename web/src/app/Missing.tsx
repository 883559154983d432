import { Link } from "react-router";

/** There is nothing at this address. */
export function Missing() {
  return (
    <main id="work" className="mx-auto max-w-xl p-8">
      <h1 className="h-station mb-2">Nothing here</h1>
      <p className="mb-4 text-soft">It may have been deleted. Undo brings a job back.</p>
      <Link to="/" className="btn btn-main">
        Go to Jobs
      </Link>
    </main>
  );
}
