/** A bakery with the demo is made once; every journey begins with a copy of it, which is made in no time. */
import { newBakery, serve } from "./server.mjs";

export default async function seeded(): Promise<() => void> {
  const { db, clear } = newBakery();
  const server = serve({ db });
  await server.address;
  await server.stop();
  process.env.SEEDED = db;
  return clear;
}
