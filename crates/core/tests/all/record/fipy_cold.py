"""Cooling runs by an independent solver, written to fipy_cold.csv beside this file.

Test of record: run by hand, its table is what `cold_record.rs` compares with. Nothing here is shared with the core: the equations
are solved by FiPy (https://pypi.org/project/fipy/, 4.0.3, finite volumes), and the properties are written anew: the component
equations of Choi and Okos (1986) as in the ASHRAE Handbook, Refrigeration (from memory), butter's solid fraction from memory.

    python3 -m venv v && v/bin/pip install fipy==4.0.3 scipy && v/bin/python fipy_cold.py
"""
import csv
import os

import numpy as np
from fipy import CellVariable, CylindricalGrid1D, CylindricalGrid2D, FaceVariable, Grid1D, Grid2D
from fipy import ImplicitSourceTerm, SphericalGrid1D, DiffusionTerm, TransientTerm

# water, fat, protein, carbohydrate, ash, fibre
A = (0.1287, 0.1666, 0.0642, 0.6223, 0.0038, 0.0144)
B = (0.1457, 0.2018, 0.0575, 0.5799, 0.0035, 0.0116)
AIR_SHARE = 0.05
LATENT_FAT = 110e3

# Coefficients of t^0, t^1, t^2 in degC: water, fat, protein, carbohydrate, ash, fibre.
RHO = ((997.18, 3.1439e-3, -3.7574e-3), (925.59, -0.41757, 0), (1329.9, -0.51840, 0), (1599.1, -0.31046, 0), (2423.8, -0.28063, 0), (1311.5, -0.36589, 0))
K = ((0.57109, 1.7625e-3, -6.7036e-6), (0.18071, -2.7604e-4, -1.7749e-7), (0.17881, 1.1958e-3, -2.7178e-6),
     (0.20141, 1.3874e-3, -4.3312e-6), (0.32962, 1.4011e-3, -2.9069e-6), (0.18331, 1.2497e-3, -3.1683e-6))
CP = ((4176.2, -9.0864e-2, 5.4731e-3), (1984.2, 1.4733, -4.8008e-3), (2008.2, 1.2089, -1.3129e-3),
      (1548.8, 1.9625, -5.9399e-3), (1092.6, 1.8896, -3.6817e-3), (1845.9, 1.8306, -4.6509e-3))
SFC_C = (-20, 0, 5, 10, 15, 20, 25, 30, 35, 38, 40)
SFC = (0.75, 0.58, 0.52, 0.45, 0.33, 0.20, 0.11, 0.05, 0.01, 0.0, 0.0)


def poly(c, t):
    return c[0] + c[1] * t + c[2] * t * t


def properties(x, start):
    """rho (at the start), cp(t), k(t)."""
    inverse = sum(xi / poly(c, start) for xi, c in zip(x, RHO))
    rho = (1 - AIR_SHARE) / inverse

    def cp(t):
        sensible = sum(xi * poly(c, t) for xi, c in zip(x, CP))
        melting = (np.interp(t - 1, SFC_C, SFC) - np.interp(t + 1, SFC_C, SFC)) / 2
        return sensible + x[1] * LATENT_FAT * melting

    def k(t):
        volumes = [xi / poly(c, t) for xi, c in zip(x, RHO)]
        whole = sum(volumes)
        shares = [v / whole for v in volumes]
        ks = [poly(c, t) for c in K]
        parallel = sum(s * ki for s, ki in zip(shares, ks))
        series = 1 / sum(s / ki for s, ki in zip(shares, ks))
        return (1 - AIR_SHARE) * np.sqrt(parallel * series)

    return rho, cp, k


def run(mesh, outside, core, x, start, air, u, wanted, dt=15.0):
    """Minutes until the core reaches each wanted temperature; `outside` are faces with half the width of their cells."""
    rho, cp, k = properties(x, start)
    temperature = CellVariable(mesh=mesh, value=start, hasOld=True)
    mask = FaceVariable(mesh=mesh, value=0.0)
    half_cell = FaceVariable(mesh=mesh, value=1.0)
    for faces_out, half in outside:
        mask.setValue(1.0, where=faces_out)
        half_cell.setValue(half, where=faces_out)
    found, t, before = [], 0.0, start
    while len(found) < len(wanted):
        temperature.updateOld()
        for _ in range(2):
            capacity = CellVariable(mesh=mesh, value=rho * cp((temperature.value + temperature.old.value) / 2))
            faces = k(np.asarray(temperature.faceValue))
            inner = FaceVariable(mesh=mesh, value=faces * (1 - np.asarray(mask.value)))
            film = FaceVariable(mesh=mesh, value=np.asarray(mask.value) / (1 / u + np.asarray(half_cell.value) / faces))
            sink = (film * mesh.faceNormals).divergence
            equation = TransientTerm(coeff=capacity) == DiffusionTerm(coeff=inner) - ImplicitSourceTerm(coeff=sink) + sink * air
            equation.sweep(var=temperature, dt=dt)
        t += dt
        now = float(temperature.value[core])
        while len(found) < len(wanted) and now <= wanted[len(found)]:
            target = wanted[len(found)]
            found.append((t - dt * (target - now) / (before - now)) / 60)
        before = now
    return found


def wrapped(h):
    return 1 / (1 / h + 0.012)


def cases():
    n = 24
    dx = 0.003 / n
    mesh = Grid1D(nx=n, dx=dx)
    yield "A sheet 6", run(mesh, [(mesh.facesRight, dx / 2)], 0, A, 21.0, 4.0, 7.0, (16, 12, 8), 2.0)
    r, z = 24, 12
    dr, dz = 0.09 / r, 0.011 / z
    mesh = CylindricalGrid2D(nr=r, nz=z, dr=dr, dz=dz)
    yield "B disc 22 x 180 wrapped", run(mesh, [(mesh.facesTop, dz / 2), (mesh.facesRight, dr / 2)], 0, B, 20.5, 4.0, wrapped(7.0), (16, 12, 8))
    n = 32
    dr = 0.025 / n
    mesh = CylindricalGrid1D(nr=n, dr=dr)
    yield "A log 50", run(mesh, [(mesh.facesRight, dr / 2)], 0, A, 21.0, 4.0, 7.0, (12, 8, 6))
    dx, dy = 0.030 / 20, 0.0175 / 12
    mesh = Grid2D(nx=20, ny=12, dx=dx, dy=dy)
    yield "B bar 60 x 35", run(mesh, [(mesh.facesTop, dy / 2), (mesh.facesRight, dx / 2)], 0, B, 22.0, 2.0, 14.0, (12, 8, 4))
    n = 32
    dr = 0.020 / n
    mesh = SphericalGrid1D(nr=n, dr=dr)
    yield "A sphere 40", run(mesh, [(mesh.facesRight, dr / 2)], 0, A, 21.0, 4.0, 7.0, (16, 12, 8), 4.0)


if __name__ == "__main__":
    path = os.path.join(os.path.dirname(os.path.abspath(__file__)), "fipy_cold.csv")
    with open(path, "w", newline="") as file:
        table = csv.writer(file, lineterminator="\n")
        table.writerow(("case", "first_min", "second_min", "third_min"))
        for name, minutes in cases():
            row = (name, *(f"{m:.2f}" for m in minutes))
            print(*row)
            table.writerow(row)
