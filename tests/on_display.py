#!/usr/bin/env python3
# SPDX-License-Identifier: MIT
"""Runs a program on a display of its own, with settings of its own, and ends as it ends.

Usage: on_display.py PROGRAM [ARGUMENTS]
The server picks a free number itself, so any number of these may start at once. LAGNIAPPE_SCREEN is the size of the
screen, 1280x800 if it is not set.
"""
import os
import subprocess
import sys
import tempfile


def main():
    told, telling = os.pipe()
    server = subprocess.Popen(["Xvfb", "-displayfd", str(telling), "-screen", "0", os.environ.get("LAGNIAPPE_SCREEN", "1280x800") + "x24", "-nolisten", "tcp", "-noreset"],
                              pass_fds=[telling], stderr=subprocess.DEVNULL)
    os.close(telling)
    try:
        number = os.read(told, 16).decode().strip()
        if not number:
            sys.exit("error: Xvfb did not start")
        with tempfile.TemporaryDirectory() as home:
            os.chmod(home, 0o700)
            own = {name: home for name in ("XDG_RUNTIME_DIR", "XDG_CONFIG_HOME", "XDG_DATA_HOME", "XDG_CACHE_HOME")}
            result = subprocess.run(sys.argv[1:], env={**os.environ, **own, "DISPLAY": f":{number}"}, check=False)
        sys.exit(result.returncode if result.returncode >= 0 else 128 - result.returncode)
    finally:
        server.terminate()
        server.wait()


if __name__ == "__main__":
    main()
