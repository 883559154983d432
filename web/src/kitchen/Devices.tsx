/** Who reaches the bakery: devices that were let in with a code, and thermometers with a token. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState, type FormEvent } from "react";
import { api, settled, type Schemas } from "../api/client";
import { clock, longDay, now, sameDay } from "../drawing/time";
import { Choice } from "../kit/Choice";
import { Fault, faultOf, otherFault } from "../kit/Fault";
import { TextField } from "../kit/TextField";
import { Unread } from "../kit/Unread";

type Device = Schemas["DeviceView"];
type Role = Device["role"];

const ACCESS = ["access"];
const DEVICES = ["devices"];
/** While a code is shown, it is looked whether somebody came in with it, so often. */
const LOOKS_MS = 3000;

const MAY: Record<Role, string> = {
  full: "may do everything",
  bench: "for the bench",
  thermometer: "thermometer, writes readings only",
};

const when = (time: string): string =>
  sameDay(time, now()) ? `today, ${clock(time)}` : `${longDay(time)}, ${clock(time)}`;

export function Devices() {
  const access = useQuery({ queryKey: ACCESS, queryFn: () => settled(api.GET("/api/access")) });
  const seen = access.data;
  const here = "rounded-xl border border-rule bg-raised p-4 md:col-span-2 xl:col-span-3";
  return (
    <section className={here} aria-labelledby="devices">
      <h2 id="devices" className="h-part">
        Devices
      </h2>
      {!seen ? (
        <Unread of={[access]} />
      ) : seen.open && seen.address === null ? (
        <p className="mt-1">
          Only this computer can reach the bakery. For a phone or tablet, start it with{" "}
          <code className="num">--listen 0.0.0.0:8420</code>. Each device then connects with a code.
        </p>
      ) : seen.open ? (
        <p className="mt-1">
          It was started with <code className="num">--open</code>: everybody on this network can read, change
          and delete all of the bakery, at <span className="break-all font-semibold">{seen.address}</span>.
        </p>
      ) : seen.this?.role === "full" ? (
        <LetIn />
      ) : (
        <p className="mt-1">
          “{seen.this?.name}” has bench access. It can read plans and note runs, chilling and bakes. Change
          plans on a device with full access.
        </p>
      )}
    </section>
  );
}

function LetIn() {
  const [code, setCode] = useState<Schemas["CodeView"]>();
  const all = useQuery({
    queryKey: DEVICES,
    queryFn: () => settled(api.GET("/api/devices")),
    refetchInterval: code ? LOOKS_MS : false,
  });
  const [known, setKnown] = useState<number>();
  // Thermometers come in without one.
  const inside = all.data?.filter((d) => d.role !== "thermometer").length;
  // Somebody came in with it: it is used up.
  if (code && known !== undefined && inside !== undefined && inside > known) setCode(undefined);
  return (
    <>
      {all.data ? (
        <ul className="mt-2">
          {all.data.map((d) => (
            <Row key={d.id} device={d} />
          ))}
        </ul>
      ) : (
        <Unread of={[all]} />
      )}
      <div className="mt-4 grid gap-6 md:grid-cols-2">
        <NewCode
          code={code}
          onCode={(made) => {
            setKnown(inside);
            setCode(made);
          }}
        />
        <NewThermometer />
      </div>
    </>
  );
}

function Row({ device }: { device: Device }) {
  const client = useQueryClient();
  const again = () => client.invalidateQueries({ queryKey: DEVICES });
  const out = useMutation({
    mutationFn: () => settled(api.DELETE("/api/devices/{id}", { params: { path: { id: device.id } } })),
    onSuccess: again,
  });
  const name = async (wanted: string) => {
    await settled(
      api.PATCH("/api/devices/{id}", { params: { path: { id: device.id } }, body: { name: wanted } }),
    );
    await again();
  };
  return (
    <li className="flex flex-wrap items-end gap-x-4 gap-y-2 border-t border-rule py-2">
      <div className="w-56">
        <TextField
          label={device.this ? "This device" : "Device name"}
          value={device.name}
          field={`name of ${device.id}`}
          onSave={name}
        />
      </div>
      <p className="min-w-48 flex-1 pb-2 text-fine text-soft">
        {MAY[device.role]}; {device.seen_at ? <>last seen {when(device.seen_at)}</> : "not seen yet"}
      </p>
      <button
        type="button"
        className="btn"
        disabled={out.isPending}
        onClick={() => out.mutate()}
        aria-label={`Disconnect ${device.name}`}
      >
        Shut out
      </button>
      <Fault text={otherFault(out.error, [])} />
    </li>
  );
}

function NewCode({
  code,
  onCode,
}: {
  code: Schemas["CodeView"] | undefined;
  onCode(code: Schemas["CodeView"] | undefined): void;
}) {
  const [role, setRole] = useState<"bench" | "full">("bench");
  const make = useMutation({
    mutationFn: () => settled(api.POST("/api/devices/code", { body: { role } })),
    onSuccess: onCode,
  });
  const drop = useMutation({
    mutationFn: () => settled(api.DELETE("/api/devices/code")),
    onSuccess: () => onCode(undefined),
  });
  return (
    <div>
      <h3 className="font-semibold">Connect a device</h3>
      {code ? (
        <div role="status" className="mt-2">
          <p>
            On the device, point its camera here, or open{" "}
            <span className="break-all font-semibold">{code.address}</span> and type
          </p>
          <p className="num my-2 text-3xl font-semibold tracking-wide">{code.code}</p>
          <img
            src={`data:image/svg+xml,${encodeURIComponent(code.picture)}`}
            alt="The address with the code, for a camera"
            className="size-48 rounded-lg bg-white"
          />
          <p className="mt-2 text-fine text-soft">
            Good for one device, for {Math.round(code.good_for_s / 60)} minutes and five tries.
          </p>
          <button type="button" className="btn mt-2" onClick={() => drop.mutate()}>
            Cancel
          </button>
        </div>
      ) : (
        <div className="mt-2 grid justify-items-start gap-2">
          <Choice<"bench" | "full">
            label="What it may do"
            value={role}
            options={[
              { value: "bench", label: "For the bench" },
              { value: "full", label: "Everything" },
            ]}
            onChange={setRole}
          />
          <button type="button" className="btn" disabled={make.isPending} onClick={() => make.mutate()}>
            Get a code
          </button>
        </div>
      )}
      <Fault text={otherFault(make.error ?? drop.error, [])} />
    </div>
  );
}

function NewThermometer() {
  const client = useQueryClient();
  const [name, setName] = useState("");
  const make = useMutation({
    mutationFn: () => settled(api.POST("/api/devices/thermometer", { body: { name } })),
    onSuccess: () => {
      setName("");
      return client.invalidateQueries({ queryKey: DEVICES });
    },
  });
  const send = (e: FormEvent) => {
    e.preventDefault();
    make.mutate();
  };
  return (
    <form onSubmit={send}>
      <h3 className="font-semibold">Connect a thermometer</h3>
      <label className="mt-2 block">
        <span className="mb-1 block text-fine text-soft">Thermometer name</span>
        <input className="field" value={name} autoComplete="off" onChange={(e) => setName(e.target.value)} />
      </label>
      <Fault text={faultOf(make.error, "name") ?? otherFault(make.error, ["name"])} />
      <button type="submit" className="btn mt-2" disabled={make.isPending}>
        Get a token
      </button>
      {make.data ? (
        <div role="status" className="mt-2">
          <p>
            It sends this with each reading, as <code className="num">Authorization: Bearer</code>. It is
            shown this once:
          </p>
          <p className="num mt-1 break-all font-semibold">{make.data.token}</p>
        </div>
      ) : null}
    </form>
  );
}
