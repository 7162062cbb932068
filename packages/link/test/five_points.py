"""Drives the stand-ins through a five-point check with Debian's PyVISA, which knows nothing of Barys.

Called with the ports of controller, indicator and meter; writes one line of JSON.
"""

import json
import sys
import time

import pyvisa

ports = [int(text) for text in sys.argv[1:4]]
manager = pyvisa.ResourceManager("@py")


def opened(port):
    return manager.open_resource(
        "TCPIP0::127.0.0.1::%d::SOCKET" % port,
        read_termination="\n",
        write_termination="\n",
        timeout=5000,
    )


controller, indicator, meter = [opened(port) for port in ports]


def pressure(instrument):
    value, unit, stable = instrument.query("MEAS:PRES?").split(",")
    return float(value), unit, stable == "1"


def settled(wanted):
    until = time.monotonic() + 20
    while time.monotonic() < until:
        value, unit, stable = pressure(controller)
        if stable and abs(value - wanted) < 0.1:
            return value, unit
        time.sleep(0.02)
    raise SystemExit("not settled at %s" % wanted)


found = {"identities": [one.query("*IDN?") for one in (controller, indicator, meter)], "points": []}
controller.write("*CLS")
controller.write("UNIT:PRES KPA")
found["unit"] = controller.query("UNIT:PRES?")
controller.write("SOUR:PRES:SLEW MAX")
for wanted in (0, 25, 50, 75, 100):
    controller.write("SOUR:PRES %g" % wanted)
    controller.write("OUTP:MODE CONT")
    reference, unit = settled(wanted)
    time.sleep(0.3)
    found["points"].append(
        {
            "wanted": wanted,
            "reference": reference,
            "unit": unit,
            "indicator": pressure(indicator)[0],
            "ampere": float(meter.query("MEAS:CURR:DC?")),
        }
    )
controller.write("OUTP:MODE VENT")
found["complete"] = [one.query("*OPC?") for one in (controller, indicator, meter)]
found["errors"] = [one.query("SYST:ERR?") for one in (controller, indicator, meter)]
controller.write("NO:SUCH:THING")
found["complaint"] = controller.query("SYST:ERR?")
print(json.dumps(found))
