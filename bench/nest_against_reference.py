"""Pieces on a sheet: ours after 0.1, 2 and 10 s beside a strip packer's after 60 s, one after the other on the same machine.

The reference (`spyrrow` from PyPI) packs a given number of pieces on a strip of given height as short as it can; so for each
outline it is asked for more and more pieces until they no longer fit the sheet's length. Each try gets the whole 60 s (or
what is given as the second argument). It is set the very same task: outlines grown by half the web, a strip that is the sheet
less the edge. Run by `make bench-nest`; nothing of it is part of the product.

    python bench/nest_against_reference.py path/to/examples/nest [seconds for the reference] [name ...]
"""

import json
import subprocess
import sys

import spyrrow
from shapely.geometry import Polygon


def longest_that_fits(outline, instance, seconds, start):
    """The most pieces the reference packs within the sheet's length, trying upward from `start`, downward if it must."""
    height = instance["width_mm"] - 2 * instance["edge_mm"] + instance["web_mm"]
    length = instance["length_mm"] - 2 * instance["edge_mm"] + instance["web_mm"]

    def fits(count):
        item = spyrrow.Item("piece", outline, count, None)
        strip = spyrrow.StripPackingInstance("bench", height, [item])
        config = spyrrow.StripPackingConfig(
            early_termination=False, total_computation_time=seconds, num_workers=2, seed=1
        )
        width = strip.solve(config).width
        print(f"    reference: {count} on {width:.1f} of {length:.1f} mm", file=sys.stderr, flush=True)
        return width <= length

    count = start
    if fits(count):
        while fits(count + 1):
            count += 1
        return count
    while count > 1:
        count -= 1
        if fits(count):
            return count
    return 0


def main():
    ours = json.loads(subprocess.run([sys.argv[1], "10", *sys.argv[3:]], check=True, capture_output=True, text=True).stdout)
    seconds = int(sys.argv[2]) if len(sys.argv) > 2 else 60
    total = {"reference": 0, "at_0_1_s": 0, "at_2_s": 0, "at_10_s": 0}
    print(f"{'cutter':<12}{'reference ' + str(seconds) + ' s':>16}{'first, ms':>11}{'0.1 s':>8}{'2 s':>8}{'10 s':>8}")
    for name, instance in ours.items():
        grown = Polygon(instance["outline"]).buffer(instance["web_mm"] / 2, quad_segs=8)
        outline = list(grown.exterior.coords)[:-1]
        reference = longest_that_fits(outline, instance, seconds, instance["at_10_s"] - 1)
        total["reference"] += reference
        for key in ("at_0_1_s", "at_2_s", "at_10_s"):
            total[key] += instance[key]
        print(
            f"{name:<12}{reference:>16}{instance['first_s'] * 1000:>11.0f}"
            f"{instance['at_0_1_s']:>8}{instance['at_2_s']:>8}{instance['at_10_s']:>8}",
            flush=True,
        )
    share = {k: 100 * total[k] / total["reference"] for k in ("at_0_1_s", "at_2_s", "at_10_s")}
    print(f"{'all':<12}{total['reference']:>16}{'':>11}{total['at_0_1_s']:>8}{total['at_2_s']:>8}{total['at_10_s']:>8}")
    print("share of the reference's pieces, %: " + ", ".join(f"{v:.1f}" for v in share.values()))


if __name__ == "__main__":
    main()
