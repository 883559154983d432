import { MutationCache, QueryCache, QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { RouterProvider } from "react-router";
import { setNonce } from "get-nonce";
import { BASE } from "./api/base";
import { Refusal } from "./api/client";
import { askAhead } from "./api/queries";
import { notLetIn } from "./app/letin";
import { loadAhead, router } from "./app/router";
import { SettingsProvider } from "./kit/settings";
import "./styles.css";

// Dialogs insert one style element while they are open; the content policy lets it in by this page's number.
const nonce = document.querySelector<HTMLMetaElement>("meta[name=csp-nonce]")?.content;
if (nonce) setNonce(nonce);

const client = new QueryClient({
  queryCache: new QueryCache({ onError: notLetIn }),
  mutationCache: new MutationCache({ onError: notLetIn }),
  defaultOptions: {
    queries: {
      staleTime: 30_000,
      // Whatever the browser thinks of the internet: the server is here.
      networkMode: "always",
      refetchOnWindowFocus: true,
      // A refusal is an answer; only silence is asked again.
      retry: (count, error) => (error instanceof Refusal && error.problem.status > 0 ? false : count < 30),
      retryDelay: (count) => Math.min(500 * 2 ** count, 5000),
    },
    mutations: { retry: false, networkMode: "always" },
  },
});

askAhead(client, location.pathname.slice(BASE.length));

const root = document.getElementById("root");
if (root) {
  createRoot(root).render(
    <StrictMode>
      <QueryClientProvider client={client}>
        <SettingsProvider>
          <RouterProvider router={router} />
        </SettingsProvider>
      </QueryClientProvider>
    </StrictMode>,
  );
  // Safari has no idle time of its own.
  const whenIdle = window.requestIdleCallback ?? ((then: () => void) => setTimeout(then, 1500));
  window.addEventListener("load", () => whenIdle(() => void loadAhead()));
}
