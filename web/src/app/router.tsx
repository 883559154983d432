import { createBrowserRouter, Navigate } from "react-router";
import { Failed } from "./Failed";
import { Frame } from "./Frame";
import { JobFrame } from "./JobFrame";
import { Missing } from "./Missing";

/** The frame is there at once; each view comes as its own script. */
export const router = createBrowserRouter([
  {
    path: "/",
    element: <Frame />,
    errorElement: <Failed />,
    hydrateFallbackElement: <></>,
    children: [
      { index: true, lazy: async () => ({ Component: (await import("./Shelf")).Shelf }) },
      { path: "kitchen", lazy: async () => ({ Component: (await import("./KitchenPage")).KitchenPage }) },
      {
        path: "jobs/:jobId",
        element: <JobFrame />,
        children: [
          { index: true, element: <Navigate to="order" replace /> },
          { path: "order", lazy: async () => ({ Component: (await import("../stations/order/Order")).Order }) },
          { path: "dough", lazy: async () => ({ Component: (await import("../stations/dough/Dough")).Dough }) },
          { path: "cold", lazy: async () => ({ Component: (await import("../stations/cold/Cold")).Cold }) },
          { path: "shape", lazy: async () => ({ Component: (await import("../stations/shape/Shape")).Shape }) },
          { path: "oven", lazy: async () => ({ Component: (await import("../stations/oven/Oven")).Oven }) },
          { path: "clock", lazy: async () => ({ Component: (await import("../stations/clock/Clock")).Clock }) },
          { path: "ledger", lazy: async () => ({ Component: (await import("../stations/ledger/Ledger")).Ledger }) },
        ],
      },
      { path: "*", element: <Missing /> },
    ],
  },
]);
