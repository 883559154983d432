/** The stations in the order of the work. */
export const STATIONS = [
  { key: "order", name: "Order" },
  { key: "dough", name: "Dough" },
  { key: "cold", name: "Cold" },
  { key: "shape", name: "Shape" },
  { key: "oven", name: "Oven" },
  { key: "clock", name: "Clock" },
  { key: "ledger", name: "Ledger" },
] as const;

export type StationKey = (typeof STATIONS)[number]["key"];
