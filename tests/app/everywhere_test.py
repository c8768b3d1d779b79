#!/usr/bin/env python3
# SPDX-License-Identifier: MIT
"""The program itself under every two of locale, scale and keyboard layout: started, driven for ten seconds, ended by a signal.

Usage: everywhere_test.py PATH_OF_LAGNIAPPE PATH_OF_LAGNIAPPE_CLI FOLDER_OF_COMMA_LOCALES
The keys are places (X key codes): W, Space, A, Esc. The take that is left must be walked, turned, jumped, and equal in
the window and on the command line, whose locale is the plain one.
"""
import glob
import os
import re
import signal
import subprocess
import sys
import tempfile
import time
import unittest

APP, CLI, LOCALES = (os.path.abspath(path) for path in sys.argv[1:4])
LONGEST = 60.0  # s that anything may take on a busy machine.
W, A, SPACE, RETURN = "25", "38", "65", "Return"


def x(*arguments):
    subprocess.run(["xdotool", *arguments], check=True, timeout=30)


def wait_for(what):
    end = time.monotonic() + LONGEST
    while time.monotonic() < end:
        if found := what():
            return found
        time.sleep(0.05)
    raise AssertionError("it did not come")


class Everywhere(unittest.TestCase):
    def drive(self, home, environment):
        program = subprocess.Popen([APP], env={**os.environ, **environment, "XDG_CONFIG_HOME": home, "XDG_DATA_HOME": home},
                                   stderr=subprocess.PIPE, text=True)
        self.addCleanup(lambda: (program.kill(), program.wait(), program.stderr.close()))
        window = wait_for(lambda: program.poll() is None and subprocess.run(
            ["xdotool", "search", "--name", "works - Lagniappe"], capture_output=True, text=True, check=False).stdout.split())
        size = subprocess.run(["xdotool", "getwindowgeometry", window[-1]], capture_output=True, text=True, check=True).stdout
        width, height = (int(n) for n in re.search(r"(\d+)x(\d+)\s*$", size).groups())
        self.assertLessEqual(width, 1280)
        self.assertLessEqual(height, 800)
        journals = f"{home}/Lagniappe/lagniappe/study/takes/*.journal"
        x("mousemove", "500", "200", "click", "1")
        # Until it drives: a key more would do no harm.
        wait_for(lambda: x("key", RETURN) or x("key", SPACE) or time.sleep(0.6) or glob.glob(journals))
        x("keydown", W)
        for _ in range(4):
            time.sleep(1.6)
            x("mousemove_relative", "--", "40", "0")
            x("key", SPACE)
        x("keyup", W, "keydown", A)
        time.sleep(1.6)
        x("keyup", A, "key", "Escape")
        time.sleep(1.0)
        program.send_signal(signal.SIGTERM)
        _, errors = program.communicate(timeout=LONGEST)
        self.assertEqual(program.returncode, 0, errors)
        takes = glob.glob(f"{home}/Lagniappe/lagniappe/study/takes/*.take")
        self.assertEqual(glob.glob(journals), [])
        return max(takes, key=os.path.getsize)

    def test_everywhere(self):
        comma = {"LC_ALL": "de_DE.UTF-8", "LOCPATH": LOCALES}
        plain = {"LC_ALL": "C.UTF-8"}
        # Each two of locale, scale and layout meet.
        for locale, scale, layout in ((plain, "1", "us"), (comma, "1.5", "us"), (plain, "1.5", "fr"), (comma, "1", "fr"),
                                      (plain, "1", "ru"), (comma, "1.5", "ru")):
            with self.subTest(locale=locale["LC_ALL"], scale=scale, layout=layout), tempfile.TemporaryDirectory() as home:
                subprocess.run(["setxkbmap", layout], check=True, timeout=30)
                take = self.drive(home, {**locale, "QT_SCALE_FACTOR": scale})
                told = subprocess.run([CLI, "retake", take], env={**os.environ, "LC_ALL": "C"}, capture_output=True, text=True,
                                      timeout=LONGEST, check=False)
                self.assertEqual(told.returncode, 0, told.stderr)
                self.assertRegex(told.stdout, r"identical +yes")
                self.assertGreater(float(re.search(r"distance +([\d.]+) m", told.stdout)[1]), 8.0, told.stdout)
                self.assertGreater(float(re.search(r"airtime +([\d.]+) s", told.stdout)[1]), 0.5, told.stdout)
        subprocess.run(["setxkbmap", "us"], check=True, timeout=30)


if __name__ == "__main__":
    unittest.main(argv=sys.argv[:1])
