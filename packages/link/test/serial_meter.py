"""A loop meter at a serial port: a pseudo terminal that answers lines. Prints its name, then serves until it is killed."""

import os
import pty
import sys
import time
import tty

main, far = pty.openpty()
tty.setraw(far)
print(os.ttyname(far), flush=True)
late_once = len(sys.argv) > 1 and sys.argv[1] == "late"
pending = b""
asked = 0
while True:
    pending += os.read(main, 1024)
    while b"\n" in pending:
        line, pending = pending.split(b"\n", 1)
        if line == b"*IDN?":
            os.write(main, b"Barys,simulated serial meter,SER-1,1\r\n")
        elif line == b"MEAS:CURR:DC?":
            asked += 1
            if late_once and asked == 1:
                time.sleep(0.6)
            os.write(main, f"{asked / 1000:.6E}\r\n".encode())
        elif line.endswith(b"?"):
            os.write(main, b'0,"No error"\r\n')
