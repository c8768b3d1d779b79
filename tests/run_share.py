#!/usr/bin/env python3
# SPDX-License-Identifier: MIT
"""Runs one of N shares of a test program's cases, every N-th of them, and fails if there are none.

Usage: run_share.py PROGRAM SHARE N
"""
import subprocess
import sys
import tempfile


def main():
    program, share, count = sys.argv[1], int(sys.argv[2]), int(sys.argv[3])
    listed = subprocess.run([program, "--list-test-names-only"], capture_output=True, text=True, check=False).stdout
    names = [line for line in listed.splitlines() if line.strip()][share::count]
    if not names:
        sys.exit(f"error: {program} has no tests")
    with tempfile.NamedTemporaryFile("w", suffix=".txt") as file:
        file.write("\n".join(names) + "\n")
        file.flush()
        sys.exit(subprocess.run([program, "--input-file", file.name], check=False).returncode)


if __name__ == "__main__":
    main()
