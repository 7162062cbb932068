"""The saturation line of water after IAPWS-IF97, from 0 to 373.9 degrees Celsius, as a fixture for the tests.

Made once with Debian's python3-iapws 1.5.2: `python3 saturation-line.py > saturation-line.json`. Up to 350 degrees the
densities come from regions 1 and 2; above, region 3 is solved for the density with scipy's brentq, on either side of the
critical density, where the isotherm rises.
"""
import json
import warnings

import numpy
from iapws.iapws97 import _PSat_T, _Region1, _Region2, _Region3
from scipy.optimize import brentq

CRITICAL_DENSITY = 322.0


def pressure(density, temperature):
    with warnings.catch_warnings():
        warnings.simplefilter("ignore")
        return _Region3(density, temperature)["P"]


def outermost(temperature, saturated, densities):
    """The first density, coming from outside, at which the pressure passes the saturated one."""
    before = densities[0]
    for density in densities[1:]:
        if (pressure(before, temperature) - saturated) * (pressure(density, temperature) - saturated) <= 0:
            return brentq(lambda rho: pressure(rho, temperature) - saturated, before, density, xtol=1e-12)
        before = density
    raise ValueError(temperature)


rows = []
for celsius in [*range(0, 373, 3), 373, 373.5, 373.9]:
    temperature = celsius + 273.15
    saturated = _PSat_T(temperature)
    if temperature <= 623.15:
        water = 1 / _Region1(temperature, saturated)["v"]
        steam = 1 / _Region2(temperature, saturated)["v"]
    else:
        water = outermost(temperature, saturated, numpy.arange(600, CRITICAL_DENSITY, -0.25))
        steam = outermost(temperature, saturated, numpy.arange(90, CRITICAL_DENSITY, 0.25))
    rows.append([celsius, float(saturated), float(water), float(steam)])

print(
    json.dumps(
        {
            "about": "Saturation line after IAPWS-IF97, made by saturation-line.py with python3-iapws 1.5.2",
            "columns": ["degrees Celsius", "MPa", "water, kg/m3", "steam, kg/m3"],
            "rows": rows,
        },
        indent=1,
    )
)
