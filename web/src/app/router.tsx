import { createBrowserRouter, Navigate } from "react-router";
import { Clock } from "../stations/clock/Clock";
import { Cold } from "../stations/cold/Cold";
import { Dough } from "../stations/dough/Dough";
import { Ledger } from "../stations/ledger/Ledger";
import { Order } from "../stations/order/Order";
import { Oven } from "../stations/oven/Oven";
import { Shape } from "../stations/shape/Shape";
import { Frame } from "./Frame";
import { JobFrame } from "./JobFrame";
import { KitchenPage } from "./KitchenPage";
import { Missing } from "./Missing";
import { Shelf } from "./Shelf";

export const router = createBrowserRouter([
  {
    path: "/",
    element: <Frame />,
    errorElement: <Missing />,
    children: [
      { index: true, element: <Shelf /> },
      { path: "kitchen", element: <KitchenPage /> },
      {
        path: "jobs/:jobId",
        element: <JobFrame />,
        children: [
          { index: true, element: <Navigate to="order" replace /> },
          { path: "order", element: <Order /> },
          { path: "dough", element: <Dough /> },
          { path: "cold", element: <Cold /> },
          { path: "shape", element: <Shape /> },
          { path: "oven", element: <Oven /> },
          { path: "clock", element: <Clock /> },
          { path: "ledger", element: <Ledger /> },
        ],
      },
      { path: "*", element: <Missing /> },
    ],
  },
]);
