/** Starts the program on a temporary bakery and stops it again. Used by the journeys, the pictures and the measurements. */
import { chromium } from "@playwright/test";
import { spawn } from "node:child_process";
import { existsSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join, resolve } from "node:path";
import { fileURLToPath } from "node:url";

const HERE = dirname(fileURLToPath(import.meta.url));
export const BINARY = process.env.READY_SLAB_BIN ?? resolve(HERE, "../target/debug/ready-slab");

/** Debian's Chromium: the one without a window, which starts and draws quicker, where it is there. */
const CHROMIUMS = ["/usr/bin/chromium-headless-shell", "/usr/bin/chromium"];

/** How it is started everywhere here: no window, nothing fetched in the background. */
export const LAUNCH = {
  executablePath: process.env.CHROMIUM ?? CHROMIUMS.find((path) => existsSync(path)) ?? CHROMIUMS[1],
  args: [
    "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking",
    "--disable-component-update", "--disable-sync",
    // Letters stand where the fonts put them, as on a screen.
    "--font-render-hinting=none",
  ],
};

export const launch = () => chromium.launch(LAUNCH);

/** A folder of its own for one bakery file, removed by `clear`. */
export function newBakery() {
  const folder = mkdtempSync(join(tmpdir(), "ready-slab-"));
  return { db: join(folder, "bakery.db"), clear: () => rmSync(folder, { recursive: true, force: true }) };
}

/** Serves `db`; resolves with the address once it answers there. `port` 0 takes a free one; `env` stands beside our own. */
export function serve({ db, demo = true, port = 0, host = "127.0.0.1", binary = BINARY, env = {} }) {
  const args = ["serve", "--db", db, "--listen", `${host}:${port}`, ...(demo ? ["--demo"] : [])];
  const child = spawn(binary, args, { stdio: ["ignore", "pipe", "pipe"], env: { ...process.env, ...env } });
  let log = "";
  child.stderr.on("data", (chunk) => {
    log = (log + chunk).slice(-20_000);
  });
  const ended = new Promise((done) => child.once("exit", (code, signal) => done({ code, signal })));
  let said = "";
  const address = new Promise((found, failed) => {
    child.stdout.on("data", (chunk) => {
      said += chunk;
      const match = /http:\/\/[^\s/]+/.exec(said);
      if (match) found(match[0]);
    });
    child.once("exit", (code) => failed(new Error(`the server ended with ${code}: ${log}`)));
  });
  return {
    address,
    log: () => log,
    said: () => said,
    pid: child.pid,
    stop: async (signal = "SIGTERM") => {
      child.kill(signal);
      return ended;
    },
  };
}
