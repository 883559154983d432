/** For tests: what stands on a page, with all it needs around it. */
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { render } from "@testing-library/react";
import type { ReactElement } from "react";
import { createMemoryRouter, Outlet, RouterProvider } from "react-router";
import { keys } from "../api/queries";
import type { JobContext } from "../app/JobFrame";
import { SettingsProvider } from "./settings";

/** A part of a page with nothing around it but what is asked and how figures are written. */
export function showPart(part: ReactElement): void {
  render(
    <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
      <SettingsProvider>{part}</SettingsProvider>
    </QueryClientProvider>,
  );
}

/** A view as it stands at its job's stations. */
export function showView(
  view: ReactElement,
  { job, plan, at = "/" }: Pick<JobContext, "job" | "plan"> & { at?: string },
): void {
  const context: JobContext = { job, plan, day: plan.clock, dim: false };
  const client = new QueryClient({ defaultOptions: { queries: { retry: false, staleTime: Infinity } } });
  client.setQueryData(keys.job(job.id), job);
  const router = createMemoryRouter(
    [{ element: <Outlet context={context} />, children: [{ path: "*", element: view }] }],
    { initialEntries: [at] },
  );
  render(
    <QueryClientProvider client={client}>
      <SettingsProvider>
        <RouterProvider router={router} />
      </SettingsProvider>
    </QueryClientProvider>,
  );
}
