/**
 * What was done here and is not at the server yet. It is kept in the browser under a name of its own, each thing by itself, so that two windows
 * never write over each other's; sent in order; and given up only where the server names it as wrong.
 */
import { Refusal, type FieldProblem } from "../api/client";
import { BASE } from "../api/base";
import { pauseAfter } from "../api/pauses";

/** So many are sent at once. */
const AT_ONCE = 100;

let count = 0;

/** Things in the browser's store, in the order in which they came. */
export class Box<T> {
  readonly #prefix: string;
  readonly #here = new Map<string, T>();

  constructor(name: string) {
    this.#prefix = `${BASE}${name}/`;
    try {
      const found = Object.keys(localStorage)
        .filter((key) => key.startsWith(this.#prefix))
        .toSorted();
      for (const key of found) {
        try {
          this.#here.set(key, JSON.parse(localStorage.getItem(key) ?? "") as T);
        } catch {
          localStorage.removeItem(key);
        }
      }
    } catch {
      // A browser that keeps nothing still sends; it only forgets when it is closed.
    }
  }

  all(): [string, T][] {
    return [...this.#here];
  }

  add(thing: T): void {
    count += 1;
    const key = `${this.#prefix}${String(Date.now()).padStart(15, "0")}-${String(count).padStart(6, "0")}`;
    this.#here.set(key, thing);
    try {
      localStorage.setItem(key, JSON.stringify(thing));
    } catch {
      // As above.
    }
  }

  remove(keys: readonly string[]): void {
    for (const key of keys) {
      this.#here.delete(key);
      try {
        localStorage.removeItem(key);
      } catch {
        // As above.
      }
    }
  }
}

/** What is told of an outbox. */
export interface Told<T> {
  /** What waits, in order. */
  waiting: readonly T[];
  /** Why it is not taken yet, where it is not. */
  held: Refusal | undefined;
  /** What the server would not have, with what it said of it. */
  refused: readonly { thing: T; why: FieldProblem }[];
}

/** Sends what a box holds, one request at a time, until it is empty. */
export class Outbox<T> {
  readonly #box: Box<T>;
  readonly #send: (things: readonly T[]) => Promise<void>;
  readonly #tell: (told: Told<T>) => void;
  #failures = 0;
  #busy = false;
  #over = false;
  #again: ReturnType<typeof setTimeout> | undefined;
  #held: Refusal | undefined;
  #refused: Told<T>["refused"] = [];

  constructor(name: string, send: (things: readonly T[]) => Promise<void>, tell: (told: Told<T>) => void) {
    this.#box = new Box(name);
    this.#send = send;
    this.#tell = tell;
  }

  waiting(): T[] {
    return this.#box.all().map(([, thing]) => thing);
  }

  add(things: readonly T[]): void {
    things.forEach((thing) => this.#box.add(thing));
    this.#refused = [];
    this.#says();
    this.go();
  }

  /** Sends now, also where it would wait. */
  go(): void {
    clearTimeout(this.#again);
    if (!this.#over) void this.#next();
  }

  /** Goes on another time; what waits is kept. */
  stop(): void {
    this.#over = true;
    clearTimeout(this.#again);
  }

  /** Goes on after `stop`. */
  start(): void {
    this.#over = false;
    this.go();
  }

  async #next(): Promise<void> {
    if (this.#busy) return;
    const batch = this.#box.all().slice(0, AT_ONCE);
    if (batch.length === 0) return;
    this.#busy = true;
    try {
      await this.#send(batch.map(([, thing]) => thing));
      this.#box.remove(batch.map(([key]) => key));
      this.#failures = 0;
      this.#held = undefined;
    } catch (error) {
      this.#fails(error, batch);
    }
    this.#busy = false;
    this.#says();
    if (this.#over) return;
    if (this.#failures === 0) void this.#next();
    else this.#again = setTimeout(() => void this.#next(), pauseAfter(this.#failures));
  }

  #fails(error: unknown, batch: readonly [string, T][]): void {
    const why = error instanceof Refusal ? error : undefined;
    const wrong = why?.problem.status === 422 ? named(why.problem.errors, batch) : [];
    if (wrong.length > 0) {
      // What is named as wrong will be wrong again; the others go on without it.
      this.#box.remove(wrong.map(({ key }) => key));
      this.#refused = [...this.#refused, ...wrong.map(({ thing, why: said }) => ({ thing, why: said }))];
      return;
    }
    this.#failures += 1;
    this.#held = why ?? new Refusal({ title: "failed", status: 0, detail: String(error), errors: [] });
  }

  #says(): void {
    this.#tell({ waiting: this.waiting(), held: this.#held, refused: this.#refused });
  }
}

/** What of a batch a refusal names by its place in the list, such as `events[2].what.task`. */
function named<T>(
  errors: readonly FieldProblem[],
  batch: readonly [string, T][],
): { key: string; thing: T; why: FieldProblem }[] {
  const found = new Map<number, FieldProblem>();
  for (const e of errors) {
    const place = /^\w*\[(\d+)\]/.exec(e.field)?.[1];
    if (place !== undefined && !found.has(Number(place))) found.set(Number(place), e);
  }
  return [...found].flatMap(([place, why]) => {
    const one = batch[place];
    return one ? [{ key: one[0], thing: one[1], why }] : [];
  });
}
