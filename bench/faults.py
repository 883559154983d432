"""What goes wrong around a bakery, made to go wrong on purpose: `python3 bench/faults.py BINARY [NAME ...]`.

swap      1,000 changes of one field by eight hands at once, each made from what it read: none is lost
photos    photos kept while the program is killed again and again: every one that was answered is there
clock     the machine's clock an hour and a day forward and back while a day is worked and a piece is followed (needs libfaketime: Debian's faketime)
readonly  a bakery file that may only be read
recipes   recipe pages below 200 kB made to be slow
back      the night on which clocks go back: a plan that starts, ends or waits in the hour that comes twice
codes     wrong codes from twelve threads while an honest device gives the right one (needs a second address of this machine: none on loopback is counted)

Only this machine is asked; each part ends by itself. It prints what it saw and ends with 1 where something was lost.
"""

import concurrent.futures
import datetime
import glob
import json
import os
import random
import re
import shutil
import signal
import stat
import subprocess
import sys
import tempfile
import time
import urllib.error
import urllib.request

UTC = datetime.timezone.utc


class Bakery:
    def __init__(self, binary, folder, env=None, host="127.0.0.1", user=None):
        self.binary, self.db, self.env, self.host = binary, os.path.join(folder, "bakery.db"), env or {}, host
        self.port, self.user, self.child = 0, user, None

    def start(self):
        command = [self.binary, "serve", "--db", self.db, "--listen", f"{self.host}:{self.port}", "--demo"]
        if self.user:
            command = ["setpriv", f"--reuid={self.user}", f"--regid={self.user}", "--clear-groups", *command]
        self.child = subprocess.Popen(command, stdout=subprocess.PIPE, stderr=subprocess.PIPE, text=True, env={**os.environ, **self.env})
        line = self.child.stdout.readline()
        found = re.search(r"http://\S+:(\d+)/", line)
        if not found:
            raise RuntimeError(self.child.stderr.read()[-400:])
        self.port = int(found[1])
        return self

    def stop(self, how=signal.SIGTERM):
        self.child.send_signal(how)
        self.child.wait()

    def ask(self, method, path, body=None, headers=None, raw=False):
        base = f"http://127.0.0.1:{self.port}"
        data = body if isinstance(body, bytes) else None if body is None else json.dumps(body).encode()
        kind = "image/jpeg" if isinstance(body, bytes) else "application/json"
        request = urllib.request.Request(base + path, data, {"content-type": kind, "origin": base, **(headers or {})}, method=method)
        try:
            with urllib.request.urlopen(request, timeout=60) as answer:
                told = answer.read()
                return answer.status, told if raw else json.loads(told) if told else None, dict(answer.headers)
        except urllib.error.HTTPError as refused:
            told = refused.read()
            try:
                return refused.code, json.loads(told), dict(refused.headers)
            except ValueError:
                return refused.code, told, dict(refused.headers)


faults = []


def check(holds, said):
    print(("   " if holds else " ! ") + said)
    if not holds:
        faults.append(said)


def swap(bakery):
    bakery.start()
    bakery.ask("PATCH", "/api/jobs/1", {"pieces": 1})
    refused = 0

    def one(_):
        tried = 0
        while True:
            _, job, headers = bakery.ask("GET", "/api/jobs/1")
            status, told, _ = bakery.ask("PATCH", "/api/jobs/1", {"pieces": job["pieces"] + 1}, {"If-Match": headers["etag"]})
            if status == 200:
                return tried
            if status != 412:
                raise RuntimeError(f"{status}: {told}")
            tried += 1

    with concurrent.futures.ThreadPoolExecutor(8) as pool:
        refused = sum(pool.map(one, range(1000)))
    _, job, _ = bakery.ask("GET", "/api/jobs/1")
    check(job["pieces"] == 1001, f"1,000 changes by eight hands, {refused} refused and made anew: {job['pieces']} of 1,001")
    bakery.stop()


def photos(bakery):
    r = random.Random(20261201)
    bakery.start()
    kept, kills = {}, 0
    records = []
    for _ in range(12):
        _, record, _ = bakery.ask("POST", "/api/jobs/1/records", {"widths_mm": [96.0], "edge_colour": "golden"})
        assert "id" in record, record
        records.append(record["id"])
    for record in records:
        its = bakery.ask("GET", f"/api/jobs/1/photo/made-up?paper=a4&seed={record}", raw=True)[1]
        with concurrent.futures.ThreadPoolExecutor(1) as pool:
            sent = pool.submit(bakery.ask, "POST", f"/api/records/{record}/photo?paper=a4", its)
            time.sleep(r.uniform(0.0, 1.6))
            bakery.stop(signal.SIGKILL)
            kills += 1
            try:
                status, found, _ = sent.result()
                if status == 200:
                    kept[record] = found
            except (urllib.error.URLError, OSError, ConnectionError):
                pass
        bakery.start()
        # Once more, and it is answered before the next kill.
        if record not in kept and record % 2 == 0:
            status, found, _ = bakery.ask("POST", f"/api/records/{record}/photo?paper=a4", its)
            if status == 200:
                kept[record] = found
            bakery.stop(signal.SIGKILL)
            kills += 1
            bakery.start()
    jpeg = lambda record: bakery.ask("GET", f"/api/records/{record}/photo.jpg", raw=True)[1]
    there = sum(bakery.ask("GET", f"/api/records/{record}/photo")[1] == found and jpeg(record)[-2:] == b"\xff\xd9" for record, found in kept.items())
    check(there == len(kept) and kept, f"{kills} kills: {there} of {len(kept)} photos that were answered are there, whole, with what was found on them")
    bakery.stop()
    whole = subprocess.run([bakery.binary, "check", bakery.db], capture_output=True, text=True)
    check(whole.returncode == 0, f"the file after it: {(whole.stdout or whole.stderr).strip()[:90]}")


def clock(bakery):
    library = glob.glob("/usr/lib/*/faketime/libfaketime.so.1")
    if not library:
        print("   not done: libfaketime is not here (Debian's faketime)")
        return
    stamp = os.path.join(os.path.dirname(bakery.db), "clock")

    def set_clock(offset):
        with open(stamp, "w") as f:
            f.write(offset)

    set_clock("+0s")
    bakery.env = {"LD_PRELOAD": library[0], "FAKETIME_TIMESTAMP_FILE": stamp, "FAKETIME_NO_CACHE": "1", "DONT_FAKE_MONOTONIC": "1"}
    bakery.start()
    for job in (2, 3, 4):
        bakery.ask("DELETE", f"/api/jobs/{job}")
    bakery.ask("PATCH", "/api/kitchen", {"zone": "UTC"})
    plan = bakery.ask("GET", "/api/jobs/1/plan")[1]
    ready = datetime.datetime.now(UTC) + datetime.timedelta(minutes=plan["clock"]["total_min"] - 60)
    bakery.ask("PATCH", "/api/jobs/1", {"ready_by": ready.strftime("%Y-%m-%dT%H:%M")})
    status, run, _ = bakery.ask("POST", "/api/runs", {"date": ready.strftime("%Y-%m-%d")})
    assert status == 200, run
    task = lambda step: next(b["task"] for b in run["bars"] if b["step"] == step)
    press = lambda name, step, at=None: bakery.ask("POST", f"/api/runs/{run['id']}/events", [{"press": name, "what": {"kind": "done", "task": task(step)}, "at_min": at}])
    piece = bakery.ask("POST", "/api/jobs/1/chills", {"name": "Disc 1"})[1]
    press("mix", "mix")
    reading = lambda c: bakery.ask("POST", f"/api/chills/{piece['id']}/readings", [{"shows_c": c, "spot": "core"}])
    done = lambda: sorted(b["step"] for b in bakery.ask("GET", f"/api/runs/{run['id']}")[1]["bars"] if b["state"] == "done")
    readings, before = 0, done()
    for name, offset in [("an hour forward", "+1h"), ("right again", "+0s"), ("an hour back", "-1h"), ("right again", "+0s"), ("a day forward", "+1d"), ("right again", "+0s"), ("a day back", "-1d"), ("right again", "+0s")]:
        set_clock(offset)
        time.sleep(0.2)
        status, told, _ = bakery.ask("GET", f"/api/runs/{run['id']}")
        check(status == 200 and set(before) <= set(done()), f"{name}: what was done stays done ({', '.join(done())})")
        status, told, _ = press(f"form {offset} {name}", "form")
        check(status == 200, f"{name}: a press is taken ({status})")
        before = done()
        status, told, _ = bakery.ask("GET", f"/api/chills/{piece['id']}")
        check(status == 200, f"{name}: the piece is told ({status}, {told.get('now', {}).get('core_c') if status == 200 else told})")
        status, told, _ = reading(20.0 - readings)
        readings += status == 200
        print(f"   {name}: a reading {'is taken' if status == 200 else 'is refused: ' + str(told['errors'][0]['message'])}")
        for path in ["/api/jobs", "/api/jobs/1/plan", "/api/days", "/api/runs", "/api/kitchen", "/api/backups"]:
            status, told, _ = bakery.ask("GET", path)
            check(status == 200, f"{name}: {path} answers {status}") if status != 200 else None
    kept = bakery.ask("GET", f"/api/chills/{piece['id']}")[1]["readings"]
    check(len(kept) == readings, f"{readings} readings were taken, {len(kept)} are there")
    bakery.stop()


def readonly(bakery):
    bakery.start()
    bakery.stop()
    folder = os.path.dirname(bakery.db)
    os.chmod(bakery.db, 0o444)
    for name in os.listdir(folder):
        os.chown(os.path.join(folder, name), 0, 0)
    os.chmod(folder, 0o755)
    bakery.user = 65534 if os.getuid() == 0 else None
    try:
        bakery.start()
        reads = bakery.ask("GET", "/api/jobs/1")[0]
        status, told, _ = bakery.ask("PATCH", "/api/jobs/1", {"pieces": 7})
        check(reads == 200 and status in (500, 503) and "read" in json.dumps(told), f"it is read ({reads}), a change is refused: {status} {told.get('detail')}")
        bakery.stop()
    except RuntimeError as said:
        check("can only be read" in str(said) or "ermission" in str(said), f"it does not start, and says: {str(said).strip()[:160]}")


def recipes(bakery):
    bakery.start()
    many = {
        "nested tags": "<div>" * 15_000 + "1 cup flour" + "</div>" * 15_000,
        "tags that never close": "<li>1 cup flour" * 12_000,
        "attributes without end": "<p " + 'a="1" ' * 28_000 + ">1 cup flour</p>",
        "entities": "&amp;" * 39_000,
        "half entities": "&#x" * 60_000,
        "comments": "<!--" * 45_000,
        "one word": "a" * 199_000,
        "fractions": "1/" * 90_000 + "2 cups flour",
        "amounts in one line": "1 1/2 cups flour, " * 10_000,
        "amounts a line each": "1 1/2 cups flour\n" * 11_000,
        "lines of nothing": "\n" * 199_000,
        "brackets": "(" * 99_000 + ")" * 99_000,
        "or": "1 cup butter or " * 12_000,
        "ranges": "1-2-3-" * 33_000,
        "hyphens": "half-" * 39_000 + "cup flour",
        "spaces": "1 cup" + " " * 190_000 + "flour",
        "json in html": '<script type="application/ld+json">' + '{"@graph":[' * 9_000 + "]}" * 9_000 + "</script>",
        "json list": '<script type="application/ld+json">{"@type":"Recipe","recipeIngredient":[' + '"1 cup flour",' * 12_000 + '"x"]}</script>',
        "unknown words": " ".join(f"1 cup qu{i}x" for i in range(12_000)),
        "strange letters": "１½ cups ﬂour\u202e\n" * 7_000,
    }
    slowest = []
    for name, text in many.items():
        began = time.monotonic()
        status, told, _ = bakery.ask("POST", "/api/recipes/read", {"text": text[:199_000], "way": "spooned", "cups": "us", "eggs": "us_large"})
        took = time.monotonic() - began
        slowest.append((took, name))
        said = f"{len(told['lines'])} lines" if status == 200 else told["detail"]
        check(status in (200, 422) and took < 1.0, f"{name}: {status} after {took * 1000:.0f} ms, {said}")
    bakery.stop()


def back(bakery):
    bakery.start()
    for job in (2, 3, 4):
        bakery.ask("DELETE", f"/api/jobs/{job}")
    import zoneinfo
    zone = zoneinfo.ZoneInfo("Europe/Lisbon")
    bakery.ask("PATCH", "/api/kitchen", {"zone": "Europe/Lisbon"})
    # Clocks go back on 31 October 2027 at 2:00 there, to 1:00.
    for ready in ["2027-10-31T00:30", "2027-10-31T01:30", "2027-10-31T02:30", "2027-10-31T04:00", "2027-10-31T05:00", "2027-10-31T14:00"]:
        status, told, _ = bakery.ask("PATCH", "/api/jobs/1", {"ready_by": ready})
        status, plan, _ = bakery.ask("GET", "/api/jobs/1/plan")
        if status != 200:
            check(False, f"ready by {ready}: {status} {plan}")
            continue
        shown = plan["clock"]
        end = datetime.datetime.fromisoformat(ready).replace(tzinfo=zone)
        start = datetime.datetime.fromisoformat(shown["start_at"])
        real = [(end.astimezone(UTC) - start.replace(tzinfo=zone, fold=fold).astimezone(UTC)).total_seconds() / 60 for fold in (0, 1)]
        check(any(abs(r - shown["total_min"]) < 1.01 for r in real), f"ready by {ready}: starts {shown['start_at']}, {shown['total_min']:.0f} min by the plan, {real[0]:.0f} or {real[1]:.0f} by the clock")
    bakery.stop()


def codes(bakery):
    own = subprocess.run(["hostname", "-I"], capture_output=True, text=True).stdout.split()
    if not own:
        print("   not done: this machine has no address but loopback")
        return
    bakery.host = "0.0.0.0"
    command = [bakery.binary, "serve", "--db", bakery.db, "--listen", "0.0.0.0:0"]
    child = subprocess.Popen(command, stdout=subprocess.PIPE, stderr=subprocess.DEVNULL, text=True)
    port = int(re.search(r":(\d+)/", child.stdout.readline())[1])
    code = re.search(r"code ([\d ]+)\.", child.stdout.readline())[1]

    def give(host, digits):
        base = f"http://{host}:{port}"
        request = urllib.request.Request(base + "/api/pair", json.dumps({"code": digits, "name": "x"}).encode(), {"content-type": "application/json", "origin": base})
        try:
            with urllib.request.urlopen(request, timeout=30) as answer:
                return answer.status
        except urllib.error.HTTPError as refused:
            return refused.code

    until = time.monotonic() + 8
    counted = {}

    def flood(n):
        while time.monotonic() < until:
            status = give(own[0], f"{n:012d}")
            counted[status] = counted.get(status, 0) + 1

    with concurrent.futures.ThreadPoolExecutor(13) as pool:
        floods = [pool.submit(flood, n) for n in range(12)]
        time.sleep(2)
        began = time.monotonic()
        status = give(own[0], code)
        took = time.monotonic() - began
        for f in floods:
            f.result()
    check(status == 200 and took < 1, f"the right code from the very address of the flood: {status} after {took * 1000:.0f} ms; the flood was answered {counted}")
    child.terminate()
    child.wait()


PARTS = [swap, photos, clock, readonly, recipes, back, codes]


def main():
    binary, wanted = os.path.abspath(sys.argv[1]), sys.argv[2:]
    for part in PARTS:
        if wanted and part.__name__ not in wanted:
            continue
        print(part.__name__)
        folder = tempfile.mkdtemp(prefix="ready-slab-")
        bakery = Bakery(binary, folder)
        try:
            part(bakery)
        finally:
            if bakery.child and bakery.child.poll() is None:
                bakery.stop(signal.SIGKILL)
            os.chmod(folder, stat.S_IRWXU)
            shutil.rmtree(folder, ignore_errors=True)
    print(f"{len(faults)} fault(s)")
    sys.exit(1 if faults else 0)


main()
