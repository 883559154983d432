"""Plans made-up days with `ready-slab compute schedule` and with a general constraint solver (OR-tools CP-SAT, Apache 2.0) that is given the
same rules and a minute, and prints both. `make bench-plan` runs it.

Usage: plan_against_reference.py BINARY [TRAYS ...] [--days N] [--solver-seconds S] [--seconds S]
"""

import argparse
import json
import random
import subprocess
import time

from ortools.sat.python import cp_model


def made_up(trays, seed):
    """A day in the ranges of common practice."""
    r = random.Random(seed)
    big = trays > 10
    kitchen = {
        "hands": 2 if big else 1,
        "mixers": 1,
        "fridge_slots": 8 if big else r.randint(2, 4),
        "freezer_slots": 6 if big else r.randint(0, 2),
        "trays": 10 if big else 4,
        "ovens": r.randint(1, 2) if big else 1,
        "racks_per_oven": r.randint(1, 2),
        "preheat_min": 20,
        "temp_change_min": 10,
        "rechill_min": 15,
        "cooling_slots": 6,
    }
    batches, left = [], trays
    while left > 0:
        n = min(r.randint(1, 6), left)
        left -= n
        chill, cut = r.randint(15, 75), r.randint(5, 12)
        batches.append({
            "id": f"b{len(batches) + 1}", "n_trays": n, "mix_min": r.randint(8, 18), "form_min": r.randint(2, 8),
            "chill_min": chill, "chill_max": chill + r.randint(30, 90), "temper_min": r.randint(5, 20),
            "roll_cut_min": cut, "work_window_min": r.randint(cut + 2, cut + 25),
            "tray_chill_min": r.randint(5, 20), "tray_chill_max": r.randint(60, 180),
            "bake_temp_c": r.choice([165, 175, 175, 190]), "bake_min": r.randint(9, 18), "cool_on_tray_min": r.randint(3, 10),
        })
    return {"kitchen": kitchen, "batches": batches, "finish_by_min": None}


def reference(day, seconds, upper):
    """The same rules as a constraint model: best length and proved bound."""
    k, m = day["kitchen"], cp_model.CpModel()
    horizon = max(upper + 1, 1)
    end = m.new_int_var(0, horizon, "end")
    hands, mixers, fridge, freezer, trays, cooling = [], [], [], [], [], []
    bakes = []
    for b in day["batches"]:
        mix, form = m.new_int_var(0, horizon, ""), m.new_int_var(0, horizon, "")
        i = m.new_fixed_size_interval_var(mix, b["mix_min"], "")
        hands.append(i)
        mixers.append(i)
        hands.append(m.new_fixed_size_interval_var(form, b["form_min"], ""))
        m.add(form >= mix + b["mix_min"])
        cut_end, usable, bake_before = None, None, None
        for t in range(b["n_trays"]):
            new = m.new_bool_var("") if t else m.new_constant(1)
            into = form + b["form_min"] if t == 0 else cut_end
            out, size, u = m.new_int_var(0, horizon, ""), m.new_int_var(0, horizon, ""), m.new_int_var(0, horizon, "")
            least = b["chill_min"] if t == 0 else k["rechill_min"]
            hard = m.new_bool_var("")
            fridge.append(m.new_optional_interval_var(into, size, out, new, ""))
            m.add(size >= least).only_enforce_if(new)
            m.add(size <= b["chill_max"]).only_enforce_if(new, hard.Not())
            m.add(size > b["chill_max"]).only_enforce_if(new, hard)
            m.add(u == out).only_enforce_if(new, hard.Not())
            m.add(u == out + b["temper_min"]).only_enforce_if(new, hard)
            if t:
                m.add(u == usable).only_enforce_if(new.Not())
            usable = u
            cut = m.new_int_var(0, horizon, "")
            hands.append(m.new_fixed_size_interval_var(cut, b["roll_cut_min"], ""))
            m.add(cut >= u)
            m.add(cut + b["roll_cut_min"] <= u + b["work_window_min"])
            if t:
                m.add(cut >= cut_end)
            cut_end = cut + b["roll_cut_min"]
            bake = m.new_int_var(k["preheat_min"], horizon, "")
            chill = m.new_int_var(b["tray_chill_min"], b["tray_chill_max"], "")
            m.add(bake == cut_end + chill)
            freezes = m.new_bool_var("")
            fridge.append(m.new_optional_interval_var(cut_end, chill, bake, freezes.Not(), ""))
            freezer.append(m.new_optional_interval_var(cut_end, chill, bake, freezes, ""))
            if bake_before is not None:
                m.add(bake >= bake_before)
            bake_before = bake
            out_of_oven = bake + b["bake_min"]
            cooling.append(m.new_fixed_size_interval_var(out_of_oven, b["cool_on_tray_min"], ""))
            done = out_of_oven + b["cool_on_tray_min"]
            held = m.new_int_var(0, horizon, "")
            trays.append(m.new_interval_var(cut, held, done, ""))
            m.add(end >= done)
            oven = m.new_int_var(0, k["ovens"] - 1, "")
            bakes.append((bake, oven, b))
    for i, (s, o, b) in enumerate(bakes):
        for s2, o2, b2 in bakes[i + 1:]:
            same = b["bake_temp_c"] == b2["bake_temp_c"]
            gap = 0 if same else k["temp_change_min"]
            first, second, apart = m.new_bool_var(""), m.new_bool_var(""), m.new_bool_var("")
            m.add(s2 >= s + b["bake_min"] + gap).only_enforce_if(first)
            m.add(s >= s2 + b2["bake_min"] + gap).only_enforce_if(second)
            ways = [first, second]
            if k["ovens"] > 1:
                m.add(o != o2).only_enforce_if(apart)
                ways.append(apart)
            if same and b["bake_min"] == b2["bake_min"] and k["racks_per_oven"] > 1:
                together = m.new_bool_var("")
                m.add(s == s2).only_enforce_if(together)
                m.add(o == o2).only_enforce_if(together)
                ways.append(together)
            m.add_bool_or(ways)
    for o in range(k["ovens"]):
        here = []
        for s, oven, b in bakes:
            is_here = m.new_bool_var("")
            m.add(oven == o).only_enforce_if(is_here)
            m.add(oven != o).only_enforce_if(is_here.Not())
            here.append(m.new_optional_fixed_size_interval_var(s, b["bake_min"], is_here, ""))
        m.add_cumulative(here, [1] * len(here), k["racks_per_oven"])
    for intervals, places in [(hands, k["hands"]), (mixers, k["mixers"]), (fridge, k["fridge_slots"]),
                              (freezer, k["freezer_slots"]), (trays, k["trays"]), (cooling, k["cooling_slots"])]:
        m.add_cumulative(intervals, [1] * len(intervals), places)
    m.minimize(end)
    solver = cp_model.CpSolver()
    solver.parameters.max_time_in_seconds = seconds
    solver.parameters.num_workers = 8
    status = solver.solve(m)
    best = int(solver.objective_value) if status in (cp_model.OPTIMAL, cp_model.FEASIBLE) else None
    return best, int(solver.best_objective_bound), status == cp_model.OPTIMAL


def main():
    p = argparse.ArgumentParser()
    p.add_argument("binary")
    p.add_argument("trays", nargs="*", type=int, default=[3, 8, 24])
    p.add_argument("--days", type=int, default=8)
    p.add_argument("--solver-seconds", type=float, default=60)
    p.add_argument("--seconds", type=float, default=1.0)
    a = p.parse_args()
    print("trays seed  ours  (ms)  our bound  reference  its bound  over the best known")
    for trays in a.trays or [3, 8, 24]:
        over = []
        for seed in range(a.days):
            day = made_up(trays, 1000 * trays + seed)
            start = time.perf_counter()
            said = subprocess.run([a.binary, "compute", "schedule"], input=json.dumps(day | {"seconds": a.seconds}),
                                  capture_output=True, text=True, check=True).stdout
            ms = 1000 * (time.perf_counter() - start)
            ours = json.loads(said)
            length = ours["makespan_min"]
            if length is None:
                print(f"{trays:5} {seed:4}  forbidden: {[f['why'] for f in ours['forbidden']]}  reference {reference(day, a.solver_seconds, 2000)}", flush=True)
                continue
            best, bound, proved = reference(day, a.solver_seconds, length)
            known = min(length, best) if best is not None else length
            over.append(100 * (length / known - 1))
            print(f"{trays:5} {seed:4} {length:5} {ms:6.0f} {ours['bound_min']:9} {best if best is not None else '-':>9}"
                  f"{'*' if proved else ' '} {bound:9}    {over[-1]:.1f} %", flush=True)
        print(f"{trays} trays: {sum(over) / len(over):.1f} % over the best known on the mean, {max(over):.1f} % at most", flush=True)


main()
