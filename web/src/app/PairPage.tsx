/** Where a device that is not let in yet gives its code. */
import { useMutation } from "@tanstack/react-query";
import { useState, type FormEvent } from "react";
import { api, settled } from "../api/client";
import { Fault, faultOf, otherFault } from "../kit/Fault";

/** Where it was to go; never to another site. */
export function wayBack(search: string): string {
  const to = new URLSearchParams(search).get("to") ?? "/";
  return to.startsWith("/") && !to.startsWith("//") && !to.includes("\\") ? to : "/";
}

/** The code that a picture has brought along. */
export const broughtAlong = (hash: string): string => /^#(\d{8})$/.exec(hash)?.[1] ?? "";

const likely = (): string =>
  matchMedia("(pointer: coarse)").matches ? (innerWidth < 600 ? "Phone" : "Tablet") : "Computer";

export function PairPage() {
  const [code, setCode] = useState(() => broughtAlong(location.hash));
  const [name, setName] = useState(likely);
  const pair = useMutation({
    mutationFn: () => settled(api.POST("/api/pair", { body: { code, name } })),
    // All that was asked for before is asked anew.
    onSuccess: () => location.replace(wayBack(location.search)),
  });
  const send = (e: FormEvent) => {
    e.preventDefault();
    pair.mutate();
  };
  return (
    <main className="mx-auto grid min-h-dvh max-w-md content-center p-4">
      <form onSubmit={send} className="rounded-xl border border-rule bg-raised p-6">
        <p className="text-fine text-soft">Ready Slab</p>
        <h1 className="h-station mt-1">Connect this device</h1>
        <p className="mt-2">
          Enter the 12-digit code. It is shown where the program was started, and under Kitchen, Devices.
        </p>
        <label className="mt-4 block">
          <span className="mb-1 block text-fine text-soft">Code</span>
          <input
            className="field num text-2xl tracking-widest"
            value={code}
            inputMode="numeric"
            autoComplete="one-time-code"
            maxLength={20}
            required
            onChange={(e) => setCode(e.target.value)}
          />
        </label>
        <label className="mt-3 block">
          <span className="mb-1 block text-fine text-soft">Device name</span>
          <input
            className="field"
            value={name}
            autoComplete="off"
            onChange={(e) => setName(e.target.value)}
          />
        </label>
        <Fault text={faultOf(pair.error, "name") ?? otherFault(pair.error, ["name"])} />
        <button type="submit" className="btn btn-main mt-4 w-full" disabled={pair.isPending}>
          Connect
        </button>
        <p className="mt-3 text-fine text-soft">
          Your browser keeps a sign-in only this bakery can read. Disconnect it any time.
        </p>
      </form>
    </main>
  );
}
