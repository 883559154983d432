/** For tests: a view as it stands at its job's stations, with all it asks of the page around it. */
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { render } from "@testing-library/react";
import type { ReactElement } from "react";
import { MemoryRouter, Outlet, Route, Routes } from "react-router";
import type { JobContext } from "../app/JobFrame";
import { SettingsProvider } from "./settings";

export function showView(view: ReactElement, { job, plan, at = "/" }: Pick<JobContext, "job" | "plan"> & { at?: string }): void {
  const context: JobContext = { job, plan, day: plan.clock, dim: false };
  render(
    <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
      <SettingsProvider>
        <MemoryRouter initialEntries={[at]}>
          <Routes>
            <Route element={<Outlet context={context} />}>
              <Route path="*" element={view} />
            </Route>
          </Routes>
        </MemoryRouter>
      </SettingsProvider>
    </QueryClientProvider>,
  );
}
