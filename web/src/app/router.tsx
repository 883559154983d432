import { BASE } from "../api/base";
import { lazy, type ComponentType } from "react";
import { createBrowserRouter, Navigate } from "react-router";
import { cutterForm } from "../stations/order/AddCutter";
import { Failed } from "./Failed";
import { Frame } from "./Frame";
import { JobFrame } from "./JobFrame";
import { Missing } from "./Missing";

/** What is loaded when it is needed, and else as soon as nothing more urgent is done. The server names the one that an address needs (`embed.rs`). */
const shelf = () => import("./Shelf");
const live = () => import("./LivePage");
const order = () => import("../stations/order/Order");
const dough = () => import("../stations/dough/first");
const doughViews = () => import("../stations/dough/views");
const cold = () => import("../stations/cold/first");
const coldViews = () => import("../stations/cold/views");
const shape = () => import("../stations/shape/first");
const shapeViews = () => import("../stations/shape/views");
const oven = () => import("../stations/oven/first");
const ovenViews = () => import("../stations/oven/views");
const clock = () => import("../stations/clock/Clock");
const ledger = () => import("../stations/ledger/Ledger");
const ledgerViews = () => import("../stations/ledger/views");
const pantry = () => import("../pantry/PantryPage");
const reader = () => import("../recipe/ReadPage");
const kitchen = () => import("./KitchenPage");
const kitchenOven = () => import("../kitchen/OvenPage");
const day = () => import("../day/DayPage");
const bench = () => import("../bench/BenchPage");
const pair = () => import("./PairPage");
const begin = () => import("../begin/NewJobPage");
const question = () => import("../kit/Question");
const units = () => import("./UnitsWindow");
const keys = () => import("./KeyWindow");

const REST: (() => Promise<unknown>)[] = [
  order,
  dough,
  cold,
  shape,
  oven,
  clock,
  ledger,
  ledgerViews,
  question,
  doughViews,
  coldViews,
  shapeViews,
  ovenViews,
  cutterForm,
  units,
  keys,
  begin,
  shelf,
  kitchen,
  pantry,
  reader,
  kitchenOven,
  live,
  day,
  bench,
];

/** Loads the rest ahead, one after the other: a change of station waits for nothing, and works while the server is away. */
export async function loadAhead(): Promise<void> {
  for (const load of REST) await load().catch(() => undefined);
}

/** Of React, not of the router: the address changes at the press, whether or not the view is there yet. */
const page = <M, K extends keyof M>(load: () => Promise<M>, name: K) => ({
  Component: lazy(async () => ({ default: (await load())[name] as ComponentType })),
});

export const router = createBrowserRouter(
  [
    // The bench has the whole screen.
    { path: "/bench/:runId", ...page(bench, "BenchPage"), errorElement: <Failed /> },
    { path: "/pair", ...page(pair, "PairPage"), errorElement: <Failed /> },
    {
      path: "/",
      element: <Frame />,
      errorElement: <Failed />,
      children: [
        { index: true, ...page(shelf, "Shelf") },
        { path: "new", ...page(begin, "NewJobPage") },
        { path: "kitchen", ...page(kitchen, "KitchenPage") },
        { path: "kitchen/oven", ...page(kitchenOven, "OvenPage") },
        { path: "pantry", ...page(pantry, "PantryPage") },
        { path: "read", ...page(reader, "ReadPage") },
        { path: "days", ...page(day, "DaysPage") },
        { path: "days/:date", ...page(day, "DayPage") },
        { path: "live", ...page(live, "LivePage") },
        {
          path: "jobs/:jobId",
          element: <JobFrame />,
          children: [
            { index: true, element: <Navigate to="order" replace /> },
            { path: "order", ...page(order, "Order") },
            {
              path: "dough",
              ...page(dough, "DoughStation"),
              children: [
                { index: true, ...page(dough, "Dough") },
                { path: "mix", ...page(doughViews, "Mix") },
                { path: "size", ...page(doughViews, "Size") },
                { path: "change", ...page(doughViews, "Change") },
                { path: "label", ...page(doughViews, "LabelView") },
                { path: "versions", ...page(doughViews, "Versions") },
              ],
            },
            {
              path: "cold",
              ...page(cold, "ColdStation"),
              children: [
                { index: true, ...page(cold, "Cold") },
                { path: "ways", ...page(coldViews, "Ways") },
                { path: "now", ...page(coldViews, "InTheCold") },
                { path: "trouble", ...page(coldViews, "GoesWrong") },
                { path: "learnt", ...page(coldViews, "Learnt") },
              ],
            },
            {
              path: "shape",
              ...page(shape, "ShapeStation"),
              children: [
                { index: true, ...page(shape, "Shape") },
                { path: "nest", ...page(shapeViews, "NestView") },
                { path: "mixed", ...page(shapeViews, "MixedView") },
                { path: "even", ...page(shapeViews, "EvenView") },
                { path: "log", ...page(shapeViews, "LogView") },
                { path: "marbled", ...page(shapeViews, "MarbledView") },
                { path: "pattern", ...page(shapeViews, "PatternView") },
                { path: "trays", ...page(shapeViews, "TrayView") },
                { path: "portion", ...page(shapeViews, "PortionView") },
              ],
            },
            {
              path: "oven",
              ...page(oven, "OvenStation"),
              children: [
                { index: true, ...page(oven, "Oven") },
                { path: "levers", ...page(ovenViews, "Levers") },
                { path: "tray", ...page(ovenViews, "TrayPage") },
                { path: "sheet", ...page(ovenViews, "BakeSheet") },
                { path: "finish", ...page(ovenViews, "FinishPage") },
              ],
            },
            { path: "clock", ...page(clock, "Clock") },
            { path: "ledger", ...page(ledger, "Ledger") },
            { path: "ledger/photo", ...page(ledgerViews, "PhotoPage") },
            { path: "ledger/evenness", ...page(ledgerViews, "EvennessPage") },
            { path: "ledger/trials", ...page(ledgerViews, "TrialsPage") },
            { path: "ledger/all", ...page(ledgerViews, "BookPage") },
            { path: "ledger/why/:record", ...page(ledgerViews, "WhyPage") },
          ],
        },
        { path: "*", element: <Missing /> },
      ],
    },
  ],
  { basename: BASE || "/" },
);
