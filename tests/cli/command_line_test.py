#!/usr/bin/env python3
# SPDX-License-Identifier: MIT
"""The command line's contract: outputs, exit codes, one-line errors, equal bytes.

Usage: command_line_test.py PATH_OF_LAGNIAPPE_CLI SOURCE_FOLDER
"""
import csv
import json
import math
import os
import re
import subprocess
import sys
import tempfile
import unittest
import xml.etree.ElementTree

CLI, SOURCE = os.path.abspath(sys.argv[1]), os.path.abspath(sys.argv[2])
COURSE = f"{SOURCE}/courses/tidewheel.course.json"
PROFILE = f"{SOURCE}/profiles/warden.profile.json"
HEADER = ("tick,time_s,state,foot_x,foot_y,foot_z,vel_x,vel_y,vel_z,up_x,up_y,up_z,yaw_deg,pitch_deg,grounded,ground_angle_deg,"
          "ground_piece,capsule_height_m,slides,stepped,snapped_m,penetration_m,gravity_x,gravity_y,gravity_z,zones,hold,intent_x,intent_y,intent_z").split(",")


def call(*arguments):
    return subprocess.run([CLI, *arguments], capture_output=True, text=True, timeout=120, check=False)


class CommandLine(unittest.TestCase):
    def setUp(self):
        self.folder = tempfile.TemporaryDirectory()
        self.addCleanup(self.folder.cleanup)

    def path(self, name):
        return os.path.join(self.folder.name, name)

    def write(self, name, document):
        with open(self.path(name), "w", encoding="utf-8") as file:
            file.write(document if isinstance(document, str) else json.dumps(document))
        return self.path(name)

    def inputs(self, *steps):
        return self.write("i.inputs.json", {"lagniappe": "inputs", "version": 1, "steps": list(steps)})

    def drive(self, inputs, *more):
        return call("drive", "--course", COURSE, "--profile", PROFILE, "--inputs", inputs, *more)

    def rows(self, name):
        with open(self.path(name), newline="", encoding="utf-8") as file:
            return list(csv.DictReader(file))

    def test_help_and_version(self):
        for arguments in (["--help"], ["drive", "--help"], ["explain", "--help"], ["check", "--help"],
                          ["retake", "--help"], ["diff", "--help"], ["convert", "--help"], ["states", "--help"]):
            self.assertEqual(call(*arguments).returncode, 0)
        self.assertIn("Examples:", call("drive", "--help").stdout)
        self.assertRegex(call("--version").stdout, r"lagniappe-cli \d+\.\d+\.\d+")

    def test_wrong_usage_is_64(self):
        for arguments in ([], ["fly"], ["drive"], ["explain"], ["explain", "--course", COURSE, "--tick", "0"], ["drive", "--course", COURSE], ["check"], ["check", "--deep", COURSE], ["retake"], ["retake", "x.take", "--hz", "5"],
                          ["diff", "a.take"], ["convert", "a.take"]):
            self.assertEqual(call(*arguments).returncode, 64, arguments)
        i = self.inputs()
        for extra in (["--hz", "5"], ["--hz", "481"], ["--hz", "fast"], ["--seconds", "-1"]):
            self.assertEqual(self.drive(i, *extra).returncode, 64, extra)

    def test_trace_has_the_agreed_columns_and_rows(self):
        done = self.drive(self.inputs({"at": 0.5, "move": [0, 1]}), "--seconds", "2", "--hz", "30", "--trace", self.path("t.csv"))
        self.assertEqual(done.returncode, 0, done.stderr)
        rows = self.rows("t.csv")
        self.assertEqual(list(rows[0]), HEADER)
        self.assertEqual([int(r["tick"]) for r in rows], list(range(61)))
        self.assertEqual(float(rows[45]["time_s"]), 1.5)
        self.assertEqual([float(rows[0][k]) for k in ("foot_x", "foot_y", "foot_z")], [0, 0, 14])
        self.assertEqual(rows[60]["state"], "Walk")
        self.assertEqual(rows[60]["ground_piece"], "Quay")
        for word in ("distance", "top speed", "highest point", "airtime", "ticks ", "ticks per second"):
            self.assertIn(word, done.stdout)

    def test_timing_measures_every_rate_and_way_to_draw(self):
        i = self.inputs({"at": 0.5, "move": [0, 1]}, {"at": 1.0, "press": ["jump"]}, {"at": 1.1, "release": ["jump"]})
        profile = f"{SOURCE}/profiles/warden.profile.json"
        done = call("timing", "--course", COURSE, "--profile", profile, "--inputs", i, "--seconds", "3", "--hz", "30,60", "--draw", "60,144",
                    "--drawing", "ticked,interpolated,chase:10,in-frame", "--hitch", "0.5@2", "--csv", self.path("t.csv"))
        self.assertEqual(done.returncode, 0, done.stderr)
        rows = self.rows("t.csv")
        self.assertEqual(list(rows[0]), "hz,draw_hz,drawing,lag_ms,lag_m,jitter_m,pop_m,inside_m,apart_m,dropped_s,step_us".split(","))
        self.assertEqual([(r["hz"], r["draw_hz"], r["drawing"]) for r in rows],
                         [(hz, draw, how) for hz in ("30", "60") for draw in ("60", "144") for how in ("ticked", "interpolated", "chase:10", "in-frame")])
        of = {(r["hz"], r["draw_hz"], r["drawing"]): r for r in rows}
        self.assertAlmostEqual(float(of["60", "144", "interpolated"]["lag_ms"]), 1000 / 60, delta=0.2)
        self.assertGreater(float(of["60", "144", "ticked"]["jitter_m"]), 10 * float(of["60", "144", "interpolated"]["jitter_m"]))
        for r in rows:
            self.assertAlmostEqual(float(r["dropped_s"]), 0.25, delta=1e-6)
            self.assertLess(float(r["apart_m"]), 0.01)
            self.assertLess(float(r["inside_m"]), 0.001 if r["drawing"] == "interpolated" else 0.2)
        again = call("timing", "--course", COURSE, "--profile", profile, "--inputs", i, "--seconds", "3", "--hz", "30,60", "--draw", "60,144",
                     "--drawing", "ticked,interpolated,chase:10,in-frame", "--hitch", "0.5@2", "--csv", self.path("u.csv"))
        self.assertEqual(again.returncode, 0)
        for a, b in zip(rows, self.rows("u.csv")):  # All but how long it took.
            self.assertEqual({**a, "step_us": ""}, {**b, "step_us": ""})
        # Of a take the same; measured frames in place of rates.
        self.assertEqual(self.drive(i, "--seconds", "3", "--take", self.path("a.take")).returncode, 0)
        with open(self.path("ms.txt"), "w") as f:
            f.write("# two frames\n10\n20\n")
        done = call("timing", self.path("a.take"), "--frames", self.path("ms.txt"), "--csv", self.path("t.csv"))
        self.assertEqual(done.returncode, 0, done.stderr)
        self.assertEqual(len(self.rows("t.csv")), 4 * 5)
        with open(self.path("ms.txt"), "w") as f:
            f.write("10\nsoon\n")
        done = call("timing", self.path("a.take"), "--frames", self.path("ms.txt"))
        self.assertEqual((done.returncode, done.stderr.count("\n")), (2, 1))
        self.assertIn("ms.txt: line 2: a frame's length", done.stderr)
        for wrong in (["--hz", "5"], ["--draw", "0"], ["--drawing", "smooth"], ["--drawing", "chase:-1"], ["--hitch", "1"], ["--hitch", "0@1"], ["--uneven", "1"]):
            self.assertEqual(call("timing", self.path("a.take"), *wrong).returncode, 64, wrong)
        self.assertEqual(call("timing").returncode, 64)

    def test_crates_are_mantled_and_rails_vaulted_alike_at_any_rate(self):
        for name, end, held in (("crates", (1.86, 0.8, 46.66), "Crate 180"), ("rails", (19.0, -1.0, 45.83), "Vault rail 90")):
            for hz in ("20", "60", "144", "240"):
                done = self.drive(f"{SOURCE}/takes/{name}.inputs.json", "--from", name, "--hz", hz, "--trace", self.path("t.csv"), "--ledger", self.path("why.jsonl"))
                self.assertEqual(done.returncode, 0, done.stderr)
                rows = self.rows("t.csv")
                for key, value in zip(("foot_x", "foot_y", "foot_z"), end):
                    self.assertAlmostEqual(float(rows[-1][key]), value, delta=0.02)
                self.assertEqual({r["state"] for r in rows if r["hold"]}, {"Mantle"})
                self.assertEqual([r["hold"] for r in rows if r["hold"]][-1], held)
                entries = [e for line in open(self.path("why.jsonl")) for e in json.loads(line)["entries"]]
                begun = [e for e in entries if e["kind"] == "mantle_begun"]
                self.assertEqual(begun[-1]["vaults"], name == "rails")
                self.assertEqual([e for e in entries if e["kind"] == "mantle_blocked"], [])

    def test_the_ivy_is_climbed_over_its_top_and_down_again_alike_at_any_rate(self):
        ends = []
        for hz in ("20", "60", "144", "240"):
            done = self.drive(f"{SOURCE}/takes/ivy.inputs.json", "--from", "ivy", "--hz", hz, "--trace", self.path("t.csv"), "--ledger", self.path("why.jsonl"))
            self.assertEqual(done.returncode, 0, done.stderr)
            rows = self.rows("t.csv")
            states = [r["state"] for r in rows]
            changes = [s for i, s in enumerate(states) if i == 0 or s != states[i - 1]]
            self.assertEqual(changes[:5], ["Stand", "Climb", "Mantle", "Stand", "Climb"])
            self.assertEqual(list(dict.fromkeys(r["hold"] for r in rows if r["state"] == "Climb")), ["Ivy wall", "Ivy column"])
            self.assertAlmostEqual(max(float(r["foot_y"]) for r in rows), 3.5, delta=5e-3)
            self.assertAlmostEqual(float(rows[-1]["foot_y"]), -1.0, delta=1e-3)
            entries = [e for line in open(self.path("why.jsonl")) for e in json.loads(line)["entries"]]
            self.assertEqual([e["from_above"] for e in entries if e["kind"] == "gripped"], [False, True])
            ends.append(next(float(r["foot_z"]) for r in rows if r["state"] == "Mantle"))
        self.assertLess(max(ends) - min(ends), 0.01)

    def test_the_tower_ladder_leads_to_the_lookout_and_back_alike_at_any_rate(self):
        ends = []
        for hz in ("20", "60", "144", "240"):
            done = self.drive(f"{SOURCE}/takes/ladder.inputs.json", "--from", "ladder", "--hz", hz, "--trace", self.path("t.csv"), "--ledger", self.path("why.jsonl"))
            self.assertEqual(done.returncode, 0, done.stderr)
            rows = self.rows("t.csv")
            states = [r["state"] for r in rows]
            changes = [s for i, s in enumerate(states) if i == 0 or s != states[i - 1]]
            self.assertEqual([s for s in changes if s not in ("Walk", "Stand")], ["Climb", "Mantle", "Climb"])
            self.assertEqual({r["hold"] for r in rows if r["state"] == "Climb"}, {"Tower ladder"})
            self.assertAlmostEqual(max(float(r["foot_y"]) for r in rows), 9.9, delta=0.1)
            entries = [e for line in open(self.path("why.jsonl")) for e in json.loads(line)["entries"]]
            self.assertEqual([e["from_above"] for e in entries if e["kind"] == "gripped"], [False, True])
            ends.append([float(rows[-1][axis]) for axis in ("foot_x", "foot_y", "foot_z")])
        for end in ends:
            for mine, other in zip(end, ends[0]):
                self.assertAlmostEqual(mine, other, delta=0.01)

    def test_along_the_sluice_one_hangs_alike_at_any_rate(self):
        for hz in ("20", "60", "144", "240"):
            done = self.drive(f"{SOURCE}/takes/sluice.inputs.json", "--from", "sluice", "--hz", hz, "--trace", self.path("t.csv"), "--ledger", self.path("why.jsonl"))
            self.assertEqual(done.returncode, 0, done.stderr)
            rows = self.rows("t.csv")
            held = [r["hold"] for r in rows if r["state"] == "Hang"]
            self.assertEqual(list(dict.fromkeys(held)), ["Sluice gate", "Sluice sill", "Sluice pier"])
            self.assertEqual(rows[-1]["state"], "Stand")
            self.assertEqual(rows[-1]["ground_piece"], "Sluice pier")
            entries = [e for line in open(self.path("why.jsonl")) for e in json.loads(line)["entries"]]
            self.assertEqual([e["kind"] for e in entries if e["kind"] in ("caught", "let_go", "mantle_begun", "mantle_refused")], ["caught", "mantle_refused", "mantle_begun"])

    def test_the_same_call_gives_the_same_bytes(self):
        inputs = f"{SOURCE}/takes/tour.inputs.json"
        outputs = []
        for n in (1, 2):
            names = [self.path(f"{n}.{kind}") for kind in ("csv", "jsonl", "take")]
            done = self.drive(inputs, "--trace", names[0], "--ledger", names[1], "--take", names[2])
            self.assertEqual(done.returncode, 0, done.stderr)
            outputs.append([done.stdout] + [open(name, "rb").read() for name in names])
        self.assertEqual(outputs[0], outputs[1])
        self.assertEqual(call("check", self.path("1.take")).stdout.strip(), self.path("1.take") + ": ok (take)")

    def test_the_inputs_of_a_take_are_written_and_lead_the_same_way(self):
        inputs = f"{SOURCE}/takes/tour.inputs.json"
        self.drive(inputs, "--take", self.path("t.take"), "--trace", self.path("1.csv"))
        done = call("export", self.path("t.take"), "--inputs", self.path("again.inputs.json"))
        self.assertEqual(done.returncode, 0, done.stderr)
        self.drive(self.path("again.inputs.json"), "--trace", self.path("2.csv"))
        first, again = self.rows("1.csv"), self.rows("2.csv")
        for a, b in zip(first, again):
            for key in ("foot_x", "foot_y", "foot_z"):
                self.assertAlmostEqual(float(a[key]), float(b[key]), delta=1e-9)
        self.assertGreaterEqual(len(again), len(first))
        self.assertEqual(call("export", self.path("t.take"), "--inputs", "x", "--json", "y").returncode, 64)
        self.assertEqual(call("export", inputs, "--inputs", self.path("x")).returncode, 2)

    def test_a_jump_is_the_parabola_at_every_rate(self):
        gravity, height = 20.0, 1.2
        speed = math.sqrt(2 * gravity * height)
        for hz in (20, 30, 60, 144, 240):
            self.drive(self.inputs({"at": 1.0, "press": ["jump"]}), "--hz", str(hz), "--seconds", "2", "--trace", self.path("t.csv"))
            for row in self.rows("t.csv"):
                t = float(row["time_s"]) - 1.0
                expected = max(speed * t - 0.5 * gravity * t * t, 0.0) if t > 0 else 0.0
                self.assertAlmostEqual(float(row["foot_y"]), expected, delta=1e-6)

    def test_the_ledger_has_a_line_per_tick_with_kinds(self):
        self.drive(self.inputs({"at": 0, "move": [0, 1]}), "--seconds", "1", "--ledger", self.path("l.jsonl"))
        with open(self.path("l.jsonl"), encoding="utf-8") as file:
            lines = [json.loads(line) for line in file]
        self.assertEqual([line["tick"] for line in lines], list(range(1, 61)))
        self.assertTrue(all(entry["kind"] for line in lines for entry in line["entries"]))
        self.assertIn("intent", [entry["kind"] for entry in lines[30]["entries"]])

    def test_bad_input_is_one_line_and_2_and_writes_nothing(self):
        good = self.inputs()
        cases = {
            "nowhere": self.path("nowhere.json"),
            "folder": self.folder.name,
            "cut": self.write("cut.json", "{\"lagniappe\": \"inputs\", "),
            "kind": PROFILE,
            "order": self.write("o.json", {"lagniappe": "inputs", "version": 1, "steps": [{"at": 2}, {"at": 1}]}),
        }
        for name, path in cases.items():
            done = self.drive(path, "--trace", self.path("never.csv"))
            self.assertEqual(done.returncode, 2, name)
            self.assertEqual(len(done.stderr.splitlines()), 1, done.stderr)
            self.assertTrue(done.stderr.startswith(f"error: {path}: "), done.stderr)
            self.assertFalse(os.path.exists(self.path("never.csv")))
        self.assertEqual(self.drive(good, "--trace", "/nowhere/t.csv").returncode, 2)

    def test_explain_tells_a_tick_in_sentences_and_marks_what_was_refused(self):
        course = self.write("wall.course.json", {
            "lagniappe": "course", "version": 1, "name": "Wall", "marks": [{"id": "start", "at": [0, 0, 0]}],
            "pieces": [{"id": "floor", "kind": "block", "at": [0, -1, 0], "size": [60, 1, 60]},
                       {"id": "kerb", "kind": "block", "at": [0, 0, -2], "size": [6, 0.36, 2]}]})
        inputs = self.inputs({"at": 0, "move": [0, 1]})
        done = call("explain", "--course", course, "--profile", PROFILE, "--inputs", inputs, "--tick", "60", "--count", "2")
        self.assertEqual(done.returncode, 0)
        lines = done.stdout.splitlines()
        self.assertEqual([line.split(",")[0] for line in lines if line.startswith("tick")], ["tick 60", "tick 61"])
        refused = [line for line in lines if line.startswith("  ! ")]
        self.assertEqual(len(refused), 2)
        self.assertIn("rise 0.360 m > 0.340 m allowed, refused", refused[0])
        self.assertTrue(any(line.startswith("  - intent: ") for line in lines))
        # The same tick as in the ledger.
        call("drive", "--course", course, "--profile", PROFILE, "--inputs", inputs, "--seconds", "1", "--ledger", self.path("l.jsonl"))
        with open(self.path("l.jsonl"), encoding="utf-8") as file:
            entries = json.loads(file.readlines()[-1])["entries"]
        self.assertEqual(len(entries), len([line for line in lines[:lines.index(next(l for l in lines if l.startswith("tick 61")))] if line.startswith(("  - ", "  ! "))]))
        self.assertTrue(any(line.startswith("  = velocity (") for line in lines))

    def take(self, name="t.take", *more):
        done = self.drive(f"{SOURCE}/takes/stairs.inputs.json", "--take", self.path(name), *more)
        self.assertEqual(done.returncode, 0, done.stderr)
        return self.path(name)

    def test_explain_names_the_value_that_refused_and_what_would_have_been_enough(self):
        told = call("explain", "--course", COURSE, "--profile", PROFILE, "--inputs", f"{SOURCE}/takes/kerb.inputs.json",
                    "--from", "kerbs", "--tick", "100")
        self.assertIn("rise 0.360 m > 0.340 m allowed, refused", told.stdout)
        enough = re.search(r"ground.highest_step: ([0-9.]+) m would have been enough", told.stdout)
        self.assertIsNotNone(enough, told.stdout)
        self.assertAlmostEqual(float(enough[1]), 0.36, delta=1.5e-3)
        # And it is: the run ends on the kerb.
        taken = call("explain", "--course", COURSE, "--profile", PROFILE, "--inputs", f"{SOURCE}/takes/kerb.inputs.json",
                     "--from", "kerbs", "--tick", "80", "--count", "40", "--set", f"ground.highest_step={enough[1]}")
        self.assertIn("m/s in the course, on \u201cKerb 36\u201d", taken.stdout)

    def test_a_run_begins_at_a_mark_or_a_place_and_a_take_is_explained(self):
        i = self.inputs({"at": 0.5, "move": [0, 1]})
        marks = {m["id"]: m for m in json.load(open(COURSE, encoding="utf-8"))["marks"]}
        done = self.drive(i, "--from", "culvert", "--seconds", "1", "--trace", self.path("t.csv"), "--take", self.path("t.take"))
        self.assertEqual(done.returncode, 0, done.stderr)
        first = self.rows("t.csv")[0]
        for axis, at in zip("xz", (marks["culvert"]["at"][0], marks["culvert"]["at"][2])):
            self.assertEqual(float(first[f"foot_{axis}"]), at)
        done = self.drive(i, "--at", "1,0,2,90", "--seconds", "1", "--trace", self.path("t.csv"))
        self.assertEqual(done.returncode, 0, done.stderr)
        first = self.rows("t.csv")[0]
        self.assertEqual((float(first["foot_x"]), float(first["foot_z"])), (1, 2))
        self.assertAlmostEqual(float(first["yaw_deg"]), 90)

        told = call("explain", self.path("t.take"), "--tick", "45")
        self.assertEqual(told.returncode, 0, told.stderr)
        self.assertIn("tick 45, ", told.stdout)
        self.assertIn("intent: ", told.stdout)
        for arguments, what in ((["drive", "--from", "clvert"], "there is no mark"), (["drive", "--at", "1e9,0,0"], "outside")):
            done = call(arguments[0], "--course", COURSE, "--profile", PROFILE, "--inputs", i, *arguments[1:])
            self.assertEqual(done.returncode, 2)
            self.assertEqual(done.stderr.count("\n"), 1)
            self.assertIn(what, done.stderr)
        done = call("explain", self.path("t.take"), "--tick", "4500")
        self.assertEqual(done.returncode, 2)
        self.assertIn("60 ticks", done.stderr)
        self.assertEqual(self.drive(i, "--from", "culvert", "--at", "0,0,0").returncode, 64)

    def test_a_retake_with_nothing_changed_is_identical_and_needs_no_other_file(self):
        done = call("retake", self.take(), "--trace", self.path("again.csv"))
        self.assertEqual(done.returncode, 0, done.stderr)
        self.assertIn("identical         yes, in all 480 ticks", done.stdout)
        self.drive(f"{SOURCE}/takes/stairs.inputs.json", "--trace", self.path("first.csv"))
        self.assertEqual(self.rows("again.csv"), self.rows("first.csv"))

    def test_a_retake_with_other_values_says_where_it_parts_and_why(self):
        done = call("retake", self.take(), "--set", "ground.highest_step=0.1", "--set", "jump.height=2", "--take", self.path("low.take"))
        self.assertEqual(done.returncode, 0, done.stderr)
        self.assertIn("changed           ground.highest_step 0.34 -> 0.1 m", done.stdout)
        self.assertIn("changed           jump.height 1.2 -> 2 m", done.stdout)
        self.assertRegex(done.stdout, r"part +at tick \d+")
        self.assertIn("rise 0.180 m > 0.100 m allowed, refused", done.stdout)
        self.assertIn("drifted", done.stdout)
        both = call("diff", self.path("t.take"), self.path("low.take"))
        self.assertEqual(both.returncode, 1)
        self.assertIn("furthest apart", both.stdout)
        self.assertEqual(call("diff", self.path("t.take"), self.path("t.take")).returncode, 0)

    def test_a_retake_through_another_profile_rate_and_course(self):
        take = self.take()
        heron = call("retake", take, "--profile", f"{SOURCE}/profiles/heron.profile.json", "--hz", "144", "--trace", self.path("h.csv"))
        self.assertEqual(heron.returncode, 0, heron.stderr)
        self.assertEqual(len(self.rows("h.csv")), 8 * 144 + 1)
        floor = self.write("f.course.json", {"lagniappe": "course", "version": 1, "name": "Floor", "marks": [{"id": "start", "at": [0, 0, 0]}],
                                             "pieces": [{"id": "f", "kind": "block", "at": [0, -1, 0], "size": [200, 1, 200]}]})
        flat = call("retake", take, "--course", floor, "--trace", self.path("f.csv"))
        self.assertEqual(flat.returncode, 0, flat.stderr)
        self.assertLess(abs(float(self.rows("f.csv")[-1]["foot_y"])), 1e-9)

    def test_bad_values_and_takes_are_one_line_and_2(self):
        take = self.take()
        for arguments, says in ((["retake", take, "--set", "ground.sped=3"], 'nearest known key is "speed"'),
                                (["retake", take, "--set", "ground.speed=fast"], "/ground/speed"),
                                (["retake", take, "--set", "ground.speed"], "NAME=VALUE"),
                                (["retake", self.path("none.take")], "cannot be opened"),
                                (["retake", COURSE], "take"),
                                (["diff", take, PROFILE], "take")):
            done = call(*arguments)
            self.assertEqual(done.returncode, 2, arguments)
            self.assertEqual(done.stderr.count("\n"), 1, done.stderr)
            self.assertIn(says, done.stderr)

    def test_convert_goes_to_json_and_back_to_the_same_bytes(self):
        take = self.take()
        self.assertEqual(call("convert", take, self.path("t.json")).returncode, 0)
        with open(self.path("t.json"), encoding="utf-8") as file:
            document = json.load(file)
        self.assertEqual(document["lagniappe"], "take")
        self.assertEqual(document["head"]["course"]["name"], "Tidewheel pump works")
        self.assertEqual(document["parts"][-1], {"end": 480})
        self.assertIn("ok (take)", call("check", self.path("t.json")).stdout)
        self.assertEqual(call("convert", self.path("t.json"), self.path("back.take")).returncode, 0)
        with open(take, "rb") as a, open(self.path("back.take"), "rb") as b:
            self.assertEqual(a.read(), b.read())

    def test_what_can_be_read_of_a_cut_take_is_recovered(self):
        long = self.take("long.take", "--seconds", "120")
        with open(long, "rb") as file:
            whole = file.read()
        with open(self.path("cut.take"), "wb") as file:
            file.write(whole[:-30])
        done = call("check", self.path("cut.take"))
        self.assertEqual(done.returncode, 2)
        self.assertRegex(done.stderr, r"after tick 4096: .* the 68\.27 s before it can be recovered")
        self.assertEqual(call("convert", "--recover", self.path("cut.take"), self.path("rest.take")).returncode, 0)
        self.assertIn("yes, in all 4096 ticks", call("retake", self.path("rest.take")).stdout)

    def one_error(self, result, *words):
        self.assertEqual(result.returncode, 2, result)
        self.assertRegex(result.stderr, r"\Aerror: .+: .+: .+\n\Z")
        for word in words:
            self.assertIn(word, result.stderr)

    def test_a_full_disk_is_told_wherever_it_is_met(self):
        take = self.take()
        with open("/dev/full", "w", encoding="utf-8") as full:
            printed = subprocess.run([CLI, "retake", take], stdout=full, stderr=subprocess.PIPE, text=True, timeout=120, check=False)
        self.one_error(printed, "standard output", "No space left on device")
        self.one_error(self.drive(self.inputs(), "--seconds", "1", "--trace", "/dev/full"), "/dev/full", "No space left on device")

    def test_a_folder_that_is_gone_is_told(self):
        gone = self.path("gone")
        os.mkdir(gone)
        script = f'cd "{gone}" && rmdir "{gone}" && exec "$@"'
        for arguments in (["check", "x.json"], ["drive", "--course", "c.json", "--profile", PROFILE, "--inputs", self.inputs()]):
            self.one_error(subprocess.run(["/bin/sh", "-c", script, "sh", CLI, *arguments], capture_output=True, text=True, timeout=60, check=False))
            os.mkdir(gone)

    def test_no_command_is_asked_for_more_ticks_than_can_be_held(self):
        document = json.loads(self.convert_to_json(self.take()))
        document["parts"][0]["inputs"] = [[1_900_000, document["parts"][0]["inputs"][0][1]]]
        document["parts"][0].pop("hashes", None)
        document["parts"][1]["end"] = 1_900_000
        long = self.write("long.json", document)
        self.one_error(call("retake", long, "--hz", "480"), "long.json", "at most 2000000 ticks")
        document["parts"][0]["inputs"][0][0] = 41_000_000
        longer = self.write("longer.json", document)
        for arguments in (["retake", longer], ["diff", longer, longer], ["states", PROFILE, "--take", longer], ["check", longer]):
            result = call(*arguments)
            self.assertEqual(result.returncode, 2)
            self.assertIn("more than 2000000 ticks", result.stderr + result.stdout)

    def convert_to_json(self, take):
        self.assertEqual(call("convert", take, self.path("converted.json")).returncode, 0)
        with open(self.path("converted.json"), encoding="utf-8") as file:
            return file.read()

    def test_a_name_that_is_no_utf8_stops_no_command(self):
        odd = os.fsencode(self.path("caf")) + b"\xe9.obj"
        with open(odd, "wb") as file:
            file.write(b"v -9 0 -9\nv -9 0 9\nv 9 0 9\nv 9 0 -9\nf 1 2 3 4\n")
        drive = [CLI, "drive", "--course", odd, "--profile", PROFILE, "--inputs", self.inputs(), "--seconds", "1", "--take", self.path("odd.take")]
        self.assertEqual(subprocess.run(drive, capture_output=True, timeout=60, check=False).returncode, 0)
        self.assertEqual(call("convert", self.path("odd.take"), self.path("odd.json")).returncode, 0)
        self.assertEqual(call("check", self.path("odd.json")).returncode, 0)

    def test_check_names_each_file(self):
        bad = self.write("bad.json", "{}")
        done = call("check", COURSE, bad, PROFILE)
        self.assertEqual(done.returncode, 2)
        self.assertEqual(done.stdout.splitlines(), [f"{COURSE}: ok (course)", f"{PROFILE}: ok (profile)"])
        self.assertTrue(done.stderr.startswith(f"error: {bad}: line 1, column 1: "))

    def test_a_model_can_be_driven_over(self):
        floor = self.write("floor.obj", "v -9 0 -9\nv -9 0 9\nv 9 0 9\nv 9 0 -9\nf 1 2 3 4\n")
        done = call("drive", "--course", floor, "--profile", PROFILE, "--inputs", self.inputs(), "--seconds", "1", "--trace", self.path("t.csv"))
        self.assertEqual(done.returncode, 0, done.stderr)
        self.assertEqual(self.rows("t.csv")[-1]["state"], "Stand")

    def test_show_prints_every_value_and_what_they_come_to(self):
        heron = f"{SOURCE}/profiles/heron.profile.json"
        shown = call("show", heron, "--set", "jump.height=2")
        self.assertEqual(shown.returncode, 0, shown.stderr)
        sheet = json.loads(call("show", heron, "--json").stdout)
        for value in sheet["values"]:
            self.assertIn(value["path"], shown.stdout)
        for figure in sheet["figures"]:
            self.assertIn(f"{figure['group']}.{figure['figure']}", shown.stdout)
        lines = {line[1:].split()[0]: line for line in shown.stdout.splitlines() if len(line) > 1 and line[1:].split()}
        self.assertIn(" 2 m ", lines["jump.height"])
        self.assertIn("default 1.2", lines["jump.height"])
        self.assertTrue(lines["jump.height"].startswith("*"))
        self.assertTrue(lines["air.wind_share"].startswith(" "))
        self.assertIn("pick a landing", lines["jump.apex_speed"])
        self.assertIn("below: most players miss the jump", call("show", heron, "--set", "jump.coyote_time=0.01").stdout)
        wrong = call("show", heron, "--set", "jump.hight=2")
        self.assertEqual((wrong.returncode, wrong.stderr.count("\n")), (2, 1))
        self.assertIn("jump.hight=2", wrong.stderr)
        self.assertEqual(call("show").returncode, 64)

    def test_states_are_shown_checked_and_counted(self):
        shown = call("states", PROFILE)
        self.assertEqual(shown.returncode, 0, shown.stderr)
        self.assertIn("nothing to remark", shown.stdout)
        glide = os.path.join(os.path.dirname(PROFILE), "ways", "glide.profile.json")
        with open(glide, encoding="utf-8") as file:
            profile = json.load(file)
        # It names what differs; the rest is there all the same.
        shown_glide = call("states", glide).stdout
        for state in [s["name"] for s in profile["states"]] + ["Stand", "Walk", "Skid", "Lie", "Soar"]:
            self.assertRegex(shown_glide, rf"(?m)^  {state} ")
        for row in profile["transitions"]:
            self.assertIn(row["when"], shown_glide)
        self.assertIn("crouch.pressed and ground_speed > 3.5", shown_glide)
        with open(PROFILE, encoding="utf-8") as file:
            profile = json.load(file)
        driven = call("states", PROFILE, "--course", COURSE, "--ticks", "30000")
        self.assertEqual(driven.stdout, call("states", PROFILE, "--course", COURSE, "--ticks", "30000").stdout)
        self.assertIn("in 30000 ticks", driven.stdout)
        counted = sum(int(n) for n in re.findall(r"(?m)^ +(\d+)x ", driven.stdout))
        self.assertEqual(counted, int(re.search(r"(\d+) changes of state", driven.stdout)[1]))
        profile["based_on"] = "built-in"
        profile["transitions"] = [{"from": "Walk", "to": "Lie", "when": "sprint.held and grounded"}]
        self.assertIn("Walk to Lie is never taken", call("states", self.write("p.profile.json", profile)).stdout)

    def test_charts_go_to_scxml_and_back(self):
        chart, back = self.path("w.scxml"), self.path("back.profile.json")
        self.assertEqual(call("convert", PROFILE, chart).returncode, 0)
        self.assertEqual(call("check", chart).stdout, f"{chart}: ok (chart)\n")
        self.assertEqual(call("convert", chart, back, "--onto", PROFILE).returncode, 0)
        with open(back, encoding="utf-8") as file:
            before = json.load(file)
        again = self.path("again.scxml")
        self.assertEqual(call("convert", back, again).returncode, 0)
        with open(chart, encoding="utf-8") as a, open(again, encoding="utf-8") as b:
            self.assertEqual(a.read(), b.read())
        rows = lambda file: [line for line in call("states", file).stdout.splitlines() if line.startswith("  ")]
        self.assertEqual(rows(PROFILE), rows(back))
        # Another parser sees a chart: every state once, every transition with a target that is there.
        scxml = "{http://www.w3.org/2005/07/scxml}"
        root = xml.etree.ElementTree.parse(chart).getroot()
        self.assertEqual(root.tag, scxml + "scxml")
        ids = [state.get("id") for state in root.iter(scxml + "state")]
        self.assertEqual(len(ids), len(set(ids)))
        targets = [t.get("target") for t in root.iter(scxml + "transition")]
        self.assertEqual(len(targets), len(before["transitions"]))
        self.assertTrue(set(targets) <= set(ids))
        foreign = self.write("foreign.scxml", '<scxml xmlns="http://www.w3.org/2005/07/scxml" version="1.0">'
                             '<state id="a"><transition event="go" target="b"/></state><state id="b"/></scxml>')
        done = call("convert", foreign, self.path("f.profile.json"))
        self.assertEqual(done.returncode, 0, done.stderr)
        self.assertIn("fill in a guard", done.stdout)
        self.assertEqual(call("check", self.path("f.profile.json")).returncode, 0)
        broken = self.write("broken.scxml", "<scxml>\n<state></scxml>")
        done = call("convert", broken, self.path("g.profile.json"))
        self.assertEqual((done.returncode, done.stderr.count("\n")), (2, 1))
        self.assertIn("line 2", done.stderr)
        self.assertFalse(os.path.exists(self.path("g.profile.json")))

    def test_poses_go_on_with_the_way(self):
        inputs = self.inputs({"at": 0, "move": [0, 1]}, {"at": 1.5, "press": ["crouch"]})
        poses = self.path("poses.csv")
        done = self.drive(inputs, "--seconds", "2.5", "--poses", poses, "--trace", self.path("t.csv"))
        self.assertEqual(done.returncode, 0, done.stderr)
        rows, trace = self.rows("poses.csv"), self.rows("t.csv")
        self.assertEqual(len(rows), len(trace))
        self.assertEqual([r["state"] for r in rows], [r["state"] for r in trace])
        self.assertEqual(rows[60]["pose"], "walk")
        self.assertEqual(rows[-1]["pose"], "crouch")
        self.assertGreater(float(rows[-1]["crouch"]), 0.99)
        for before, after in zip(rows[40:80], rows[41:81]):
            way = (float(after["stride_phase"]) - float(before["stride_phase"])) % 1.0 * 2 * float(after["stride_length_m"])
            self.assertAlmostEqual(way, float(after["speed"]) / 60, delta=2e-3)

    def test_set_holds_for_every_command_with_a_profile(self):
        inputs = self.inputs({"at": 0.5, "press": ["jump"]})
        trace = self.path("trace.csv")
        done = call("drive", "--course", COURSE, "--profile", PROFILE, "--inputs", inputs, "--seconds", "2", "--trace", trace,
                    "--set", "jump.height=0.7", "--set", "jump.lowest_share=1")
        self.assertEqual(done.returncode, 0, done.stderr)
        with open(trace, encoding="utf-8") as file:
            heights = [float(row["foot_y"]) for row in csv.DictReader(file)]
        self.assertAlmostEqual(max(heights) - heights[0], 0.7, delta=0.003)
        explained = call("explain", "--course", COURSE, "--profile", PROFILE, "--inputs", inputs, "--tick", "31", "--set", "jump.height=0.7")
        self.assertIn("for 0.700 m", explained.stdout)

    def test_curves_are_written_as_tables_and_pictures(self):
        table, picture = self.path("walk.csv"), self.path("walk.svg")
        done = call("show", PROFILE, "--set", "ground.response.model=exponential", "--curve", "walk", "--csv", table, "--svg", picture)
        self.assertEqual(done.returncode, 0, done.stderr)
        with open(table, encoding="utf-8") as file:
            rows = [[float(x) for x in row] for row in list(csv.reader(file))[1:]]
        for time, speed in rows:
            if time <= 1.0:
                self.assertAlmostEqual(speed, 4.0 * (1.0 - math.exp(-time / 0.1)), places=6)
        root = xml.etree.ElementTree.parse(picture).getroot()
        self.assertTrue(root.tag.endswith("svg"))
        points = [p for p in root.iter() if p.tag.endswith("polyline")][0].attrib["points"].split()
        self.assertEqual(len(points), len(rows))
        self.assertEqual(call("show", PROFILE, "--curve", "hop").returncode, 64)

    def test_constants_compile_and_reproduce_the_arc(self):
        heron = f"{SOURCE}/profiles/heron.profile.json"
        header, constants, program = self.path("h.h"), self.path("h.json"), self.path("p")
        done = call("export", heron, "--header", header, "--json", constants)
        self.assertEqual(done.returncode, 0, done.stderr)
        self.write("p.cpp", '#include "h.h"\n#include <cstdio>\nint main() { std::printf("%.17g", handling::derived_jump_take_off_speed_m_per_s); }\n')
        subprocess.run(["g++", "-std=c++17", "-Wall", "-Werror", self.path("p.cpp"), "-o", program], check=True)
        with open(constants, encoding="utf-8") as file:
            values = json.load(file)
        take_off = values["figures"]["jump_take_off_speed_m_per_s"]["value"]
        self.assertEqual(float(subprocess.run([program], capture_output=True, text=True, check=True).stdout), take_off)
        # The motion as the constants describe it, in small steps of our own, against the solver.
        v = values["values"]
        g, hang, weak, fall = v["gravity_m_per_s2"], v["jump_apex_speed_m_per_s"], v["jump_apex_factor"], v["jump_fall_factor"]
        height, speed, arc, dt = 0.0, take_off, [0.0], 1e-5
        while height >= 0.0:
            pull = g * (weak if abs(speed) <= hang else 1.0 if speed > 0.0 else fall)
            height += speed * dt - 0.5 * pull * dt * dt
            speed -= pull * dt
            arc.append(height)
        inputs = self.inputs({"at": 0.5, "press": ["jump"]}, {"at": 3, "release": ["jump"]})
        trace = self.path("trace.csv")
        call("drive", "--course", COURSE, "--profile", heron, "--inputs", inputs, "--seconds", "1.7", "--hz", "100", "--trace", trace)
        with open(trace, encoding="utf-8") as file:
            heights = [float(row["foot_y"]) for row in csv.DictReader(file)]
        for tick in range(50, 50 + int(100 * len(arc) * dt)):
            self.assertAlmostEqual(heights[tick] - heights[49], arc[round((tick - 50) / 100 / dt)], delta=1e-3)
        self.assertEqual(call("export", heron).returncode, 64)


unittest.main(argv=[sys.argv[0]])
