"""Ten years of a busy bakery, made up from the demo, and what it answers beside a small one. `make bench-scale` runs it on the release build.

Usage: scale.py BINARY [--jobs N] [--records N] [--readings N] [--recipes N] [--versions N] [--keep FILE]
"""

import argparse
import datetime
import json
import math
import os
import random
import re
import shutil
import sqlite3
import statistics
import subprocess
import tempfile
import threading
import time
import urllib.request

FOLLOWED = 6
"""Pieces that are in the cold while it is measured."""


def serve(binary, db, demo=False):
    child = subprocess.Popen([binary, "serve", "--db", db, "--listen", "127.0.0.1:0", *(["--demo"] if demo else [])],
                             stdout=subprocess.PIPE, stderr=subprocess.DEVNULL, text=True)
    return child, re.search(r"http://\S+(?=/)", child.stdout.readline())[0]


def stop(child):
    child.terminate()
    child.wait()


def seeded(binary, db):
    child, _ = serve(binary, db, demo=True)
    stop(child)


def rows(db, table):
    found = db.execute(f'SELECT * FROM "{table}"')
    names = [c[0] for c in found.description]
    return [dict(zip(names, r)) for r in found]


def put(db, table, all_rows):
    first, rest = None, []
    for row in all_rows:
        first = first or list(row)
        rest.append([row[c] for c in first])
        if len(rest) == 20_000:
            db.executemany(f'INSERT INTO "{table}" ({",".join(first)}) VALUES ({",".join("?" * len(first))})', rest)
            rest = []
    if rest:
        db.executemany(f'INSERT INTO "{table}" ({",".join(first)}) VALUES ({",".join("?" * len(first))})', rest)


def stamp(t):
    return t.strftime("%Y-%m-%dT%H:%M:%S.000Z")


def grow(path, a):
    """Fills a seeded bakery up: each further job, record, recipe and piece is one of the demo's at another time."""
    r = random.Random(1)
    db = sqlite3.connect(path)
    now = datetime.datetime.now(datetime.timezone.utc).replace(microsecond=0, tzinfo=None)
    jobs, records, formulas = rows(db, "job"), rows(db, "bake_record"), rows(db, "formula")
    lines, versions = rows(db, "formula_line"), rows(db, "formula_version")
    minutes = 10 * 365 * 24 * 60
    # Recipes and their versions.
    for n in range(len(formulas) + 1, a.recipes + 1):
        like = r.choice(formulas)
        put(db, "formula", [like | {"id": n, "name": f"{like['name']} {n}"}])
        put(db, "formula_line", [line | {"formula_id": n} for line in lines if line["formula_id"] == like["id"]])
    number = len(versions)
    more = []
    for n in range(1, a.recipes + 1):
        have = sum(v["formula_id"] == n for v in versions)
        like = versions[(n - 1) % len(versions)]
        for v in range(have + 1, a.versions + 1):
            number += 1
            more.append(like | {"id": number, "formula_id": n, "number": v})
        db.execute("INSERT OR REPLACE INTO counter (thing, last) VALUES (?, ?)", (f"version of formula {n}", max(have, a.versions)))
    put(db, "formula_version", more)
    # Jobs, every tenth with a lot of its own.
    alone = [j for j in jobs if j["lot_of"] is None and j["dough_with"] is None]
    more, lead = [], None
    for n in range(len(jobs) + 1, a.jobs + 1):
        like = r.choice(alone)
        when = now - datetime.timedelta(minutes=r.randrange(minutes)) + datetime.timedelta(days=30)
        lot = lead if lead is not None and n % 10 == 1 else None
        more.append(like | {"id": n, "name": f"{like['name']} {n}", "ready_by": lot["ready_by"] if lot else when.strftime("%Y-%m-%dT%H:%M"),
                            "lot_of": lot["id"] if lot else None})
        lead = more[-1] if lot is None else None
    put(db, "job", more)
    # Records.
    more = []
    for n in range(len(records) + 1, a.records + 1):
        like = r.choice(records)
        when = now - datetime.timedelta(minutes=r.randrange(minutes))
        more.append(like | {"id": n, "job_id": r.randrange(1, a.jobs + 1), "recorded_at": when.strftime("%Y-%m-%dT%H:%M:%S")[: len(like["recorded_at"])]})
    put(db, "bake_record", more)
    # Pieces in the cold, 600 readings each, a few of them still there.
    pieces = max(1, a.readings // 600)
    chills, stays, readings = [], [], []
    reading = 0
    for n in range(1, pieces + 1):
        there = n > pieces - FOLLOWED
        began = now - datetime.timedelta(minutes=61 if there else 200 + r.randrange(minutes))
        chills.append({"id": n, "job_id": 1 + (pieces - n) % 7 if there else 1 if n == 1 else r.randrange(2, a.jobs + 1), "name": f"Disc {n}",
                       "piece": json.dumps({"kind": "disc", "thickness_mm": 22.0, "diameter_mm": 180.0}), "purpose": "rolling", "start_c": 21.0,
                       "clock_speed": 1.0, "put_in_at": stamp(began), "ended_at": None if there else stamp(began + datetime.timedelta(minutes=100)), "taught": 0})
        stays.append({"chill_id": n, "position": 0, "place": "fridge", "busy": 0, "from_at": stamp(began)})
        for k in range(600):
            reading += 1
            m = 1 + k / 10
            readings.append({"id": reading, "chill_id": n, "read_at": stamp(began + datetime.timedelta(minutes=m)),
                             "shows_c": round(4 + 17 * math.exp(-m / 35) + r.gauss(0, 0.1), 2), "spot": "core", "simulated": 0})
        if len(readings) > 100_000:
            put(db, "reading", readings)
            readings = []
    put(db, "chill", chills)
    put(db, "stay", stays)
    put(db, "reading", readings)
    for thing, last in [("formula", a.recipes), ("formula version", number), ("job", a.jobs), ("bake record", a.records),
                        ("piece in the cold", pieces), ("reading", reading)]:
        db.execute("INSERT OR REPLACE INTO counter (thing, last) VALUES (?, ?)", (thing, last))
    db.commit()
    db.execute("PRAGMA wal_checkpoint(TRUNCATE)")
    db.execute("ANALYZE")
    db.commit()
    db.close()


def ask(base, path, body=None, method=None, headers=None):
    data = None if body is None else json.dumps(body).encode()
    request = urllib.request.Request(base + path, data=data, method=method or ("POST" if data is not None else "GET"),
                                     headers={"content-type": "application/json"} | (headers or {}))
    with urllib.request.urlopen(request, timeout=120) as answer:
        return answer.read()


def took(work, times=9):
    found, last = [], b""
    for _ in range(times):
        began = time.perf_counter()
        last = work()
        found.append(1000 * (time.perf_counter() - began))
    return statistics.median(found), last


def live_after_edit(base):
    """From an edit to the moment the live board tells its pieces anew, ms."""
    found = []
    with urllib.request.urlopen(base + "/api/cold/live", timeout=60) as stream:
        told = threading.Event()

        def listen():
            try:
                for line in stream:
                    if line.startswith(b"event: pieces"):
                        told.set()
            except (AttributeError, ValueError):
                pass  # it was closed

        threading.Thread(target=listen, daemon=True).start()
        told.wait(30)
        for n in range(5):
            time.sleep(0.7)
            told.clear()
            began = time.perf_counter()
            ask(base, "/api/jobs/1", {"pieces": 40 + n}, "PATCH")
            told.wait(30)
            found.append(1000 * (time.perf_counter() - began))
    return statistics.median(found)


def measure(binary, path, lots):
    child, base = serve(binary, path)
    try:
        list_ms, listed = took(lambda: ask(base, "/api/jobs"))
        table = {"list of jobs, first page": list_ms, "  its size, kB": len(listed) / 1000}
        table["plan"] = took(lambda: ask(base, "/api/jobs/1/plan"))[0]
        table["plan of a job with lots"] = took(lambda: ask(base, f"/api/jobs/{lots}/plan"))[0]
        table["pieces of a job"] = took(lambda: ask(base, "/api/jobs/1/chills"))[0]
        jobs = iter(range(20, 28))
        table["pieces of a job, not asked before"] = took(lambda: ask(base, f"/api/jobs/{next(jobs)}/chills"), 8)[0]
        table["book by part of a name"] = took(lambda: ask(base, "/api/book?named=gull"))[0]
        table["archive, s"] = took(lambda: ask(base, "/api/backups/archive"), 1)[0] / 1000
        numbers = iter(range(50, 1000))
        table["edit"] = took(lambda: ask(base, "/api/jobs/1", {"pieces": next(numbers)}, "PATCH"))[0]
        table["undo"] = took(lambda: ask(base, "/api/undo", method="POST"), 5)[0]
        table["records of a job"] = took(lambda: ask(base, "/api/jobs/1/records"))[0]
        table["what bakes teach"] = took(lambda: ask(base, "/api/jobs/1/bakes-teach"), 3)[0]
        table["live board after an edit"] = live_after_edit(base)
        with open(f"/proc/{child.pid}/status") as status:
            table["memory, MB"] = int(re.search(r"VmRSS:\s+(\d+)", status.read())[1]) / 1000
        return table
    finally:
        stop(child)


def main():
    p = argparse.ArgumentParser()
    p.add_argument("binary")
    p.add_argument("--jobs", type=int, default=5_000)
    p.add_argument("--records", type=int, default=50_000)
    p.add_argument("--readings", type=int, default=3_000_000)
    p.add_argument("--recipes", type=int, default=300)
    p.add_argument("--versions", type=int, default=50)
    p.add_argument("--keep", help="where the large bakery is to stay")
    a = p.parse_args()
    with tempfile.TemporaryDirectory() as folder:
        small, large = os.path.join(folder, "small.db"), os.path.join(folder, "large.db")
        seeded(a.binary, small)
        subprocess.run([a.binary, "backup", large, "--db", small], check=True, stdout=subprocess.DEVNULL)
        few = argparse.Namespace(jobs=30, records=20, readings=(FOLLOWED + 1) * 600, recipes=6, versions=2)
        grow(small, few)
        began = time.perf_counter()
        grow(large, a)
        print(f"made in {time.perf_counter() - began:.0f} s, {os.path.getsize(large) / 1e6:.0f} MB")
        if a.keep:
            shutil.copy(large, a.keep)
        one, other = (measure(a.binary, path, 10 if path == small else 1010) for path in (small, large))
        print(f"{'':34} {'small':>9} {'large':>9}  times")
        for name in one:
            print(f"{name:34} {one[name]:9.1f} {other[name]:9.1f}  {other[name] / one[name]:.1f}")


main()
