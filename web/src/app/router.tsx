import { createBrowserRouter, Navigate } from "react-router";
import { Clock } from "../stations/clock/Clock";
import { Cold } from "../stations/cold/Cold";
import { ColdStation } from "../stations/cold/ColdNav";
import { GoesWrong } from "../stations/cold/GoesWrong";
import { InTheCold } from "../stations/cold/InTheCold";
import { Learnt } from "../stations/cold/Learnt";
import { Ways } from "../stations/cold/Ways";
import { PantryPage } from "../pantry/PantryPage";
import { ReadPage } from "../recipe/ReadPage";
import { Change } from "../stations/dough/Change";
import { Dough, DoughStation } from "../stations/dough/Dough";
import { LabelView } from "../stations/dough/LabelView";
import { Mix } from "../stations/dough/Mix";
import { Size } from "../stations/dough/Size";
import { Versions } from "../stations/dough/Versions";
import { Ledger } from "../stations/ledger/Ledger";
import { Order } from "../stations/order/Order";
import { BakeSheet } from "../stations/oven/BakeSheet";
import { FinishPage } from "../stations/oven/Finish";
import { Levers } from "../stations/oven/Levers";
import { Oven } from "../stations/oven/Oven";
import { OvenStation } from "../stations/oven/OvenNav";
import { TrayPage } from "../stations/oven/TrayPage";
import { EvenView } from "../stations/shape/EvenView";
import { LogView } from "../stations/shape/LogView";
import { MixedView } from "../stations/shape/MixedView";
import { NestView, TrayView } from "../stations/shape/NestView";
import { PatternView } from "../stations/shape/PatternView";
import { PortionView } from "../stations/shape/PortionView";
import { Shape } from "../stations/shape/Shape";
import { ShapeStation } from "../stations/shape/ShapeNav";
import { OvenPage } from "../kitchen/OvenPage";
import { KitchenPage } from "./KitchenPage";
import { Shelf } from "./Shelf";
import { Failed } from "./Failed";
import { Frame } from "./Frame";
import { JobFrame } from "./JobFrame";
import { LivePage } from "./LivePage";
import { Missing } from "./Missing";

/** All views in one script: apart they would save little and cost one more way to the server before the first is drawn. */
export const router = createBrowserRouter([
  {
    path: "/",
    element: <Frame />,
    errorElement: <Failed />,
    children: [
      { index: true, element: <Shelf /> },
      { path: "kitchen", element: <KitchenPage /> },
      { path: "kitchen/oven", element: <OvenPage /> },
      { path: "pantry", element: <PantryPage /> },
      { path: "read", element: <ReadPage /> },
      { path: "live", element: <LivePage /> },
      {
        path: "jobs/:jobId",
        element: <JobFrame />,
        children: [
          { index: true, element: <Navigate to="order" replace /> },
          { path: "order", element: <Order /> },
          {
            path: "dough",
            element: <DoughStation />,
            children: [
              { index: true, element: <Dough /> },
              { path: "mix", element: <Mix /> },
              { path: "size", element: <Size /> },
              { path: "change", element: <Change /> },
              { path: "label", element: <LabelView /> },
              { path: "versions", element: <Versions /> },
            ],
          },
          {
            path: "cold",
            element: <ColdStation />,
            children: [
              { index: true, element: <Cold /> },
              { path: "ways", element: <Ways /> },
              { path: "now", element: <InTheCold /> },
              { path: "trouble", element: <GoesWrong /> },
              { path: "learnt", element: <Learnt /> },
            ],
          },
          {
            path: "shape",
            element: <ShapeStation />,
            children: [
              { index: true, element: <Shape /> },
              { path: "nest", element: <NestView /> },
              { path: "mixed", element: <MixedView /> },
              { path: "even", element: <EvenView /> },
              { path: "log", element: <LogView /> },
              { path: "pattern", element: <PatternView /> },
              { path: "trays", element: <TrayView /> },
              { path: "portion", element: <PortionView /> },
            ],
          },
          {
            path: "oven",
            element: <OvenStation />,
            children: [
              { index: true, element: <Oven /> },
              { path: "levers", element: <Levers /> },
              { path: "tray", element: <TrayPage /> },
              { path: "sheet", element: <BakeSheet /> },
              { path: "finish", element: <FinishPage /> },
            ],
          },
          { path: "clock", element: <Clock /> },
          { path: "ledger", element: <Ledger /> },
        ],
      },
      { path: "*", element: <Missing /> },
    ],
  },
]);
