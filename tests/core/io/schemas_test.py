#!/usr/bin/env python3
# SPDX-License-Identifier: MIT
"""Our examples satisfy the published schemas, and reader and schema agree on a list of bad documents.

The oracle is the jsonschema package; the reader is asked through `lagniappe-cli check`.
Usage: schemas_test.py PATH_OF_LAGNIAPPE_CLI SOURCE_FOLDER
"""
import copy
import glob
import json
import os
import subprocess
import sys
import tempfile

import jsonschema

CLI, SOURCE = sys.argv[1], sys.argv[2]
sys.path.insert(0, f"{SOURCE}/tools")
import course_schema  # noqa: E402
import profile_schema  # noqa: E402

SCHEMAS = {}
for kind in ("course", "profile", "inputs", "take"):
    with open(f"{SOURCE}/docs/formats/{kind}.schema.json", encoding="utf-8") as file:
        SCHEMAS[kind] = jsonschema.Draft202012Validator(json.load(file))

COURSE = {
    "lagniappe": "course", "version": 1, "name": "Yard",
    "marks": [{"id": "start", "at": [0, 0, 0], "facing": 0}, {"id": "side", "at": [9, 9, 9], "up": [1, 0, 0]}],
    "gravity": "none",
    "fields": [
        {"id": "a", "kind": "ball", "at": [0, 0, 0], "radius": 2, "strength": -1, "reach": 0},
        {"id": "b", "kind": "pill", "at": [0, 0, 0], "turn": [10, 20, 30], "radius": 2, "length": 0, "falloff": "inverse-square", "on": "e"},
        {"id": "c", "kind": "ring", "at": [0, 0, 0], "radius": 2, "thickness": 1, "acceleration": 3, "falloff": "linear", "reach": 4, "fade": 1},
        {"id": "d", "kind": "slab", "at": [0, 0, 0], "size": [3, 1, 3], "falloff": [[0, 1], [5, 0.5]], "combine": "adds", "priority": 2},
        {"id": "e", "kind": "path", "at": [0, 0, 0], "points": [[0, 0, 0], [4, 0, 0], [4, 1, 4]], "closed": True, "radius": 1},
        {"id": "f", "kind": "uniform", "at": [0, 0, 0], "size": [3, 1, 3], "direction": [0, 0, 1]},
    ],
    "zones": [
        {"id": "a", "shape": {"kind": "box", "size": [1, 0.1, 1]}, "at": [0, 0, 0], "effect": {"kind": "launch", "velocity": [0, 9, 1], "frame": "view", "pitch": True, "sets": ["up"], "again_after": 2}},
        {"id": "b", "shape": {"kind": "cylinder", "radius": 1, "height": 2}, "at": [0, 0, 0], "turn": [0, 90, 0], "effect": {"kind": "launch", "to": "side", "apex": 1}},
        {"id": "c", "shape": {"kind": "ball", "radius": 1}, "at": [0, 0, 0], "on": "e", "effect": {"kind": "wind", "velocity": [0, 5, 0], "frame": "course", "fade": 1, "gust": {"period": 3, "share": 0.5}}},
        {"id": "d", "shape": {"kind": "pill", "radius": 1, "length": 0}, "at": [0, 0, 0], "effect": {"kind": "pace", "times": 0.5}},
        {"id": "e", "shape": {"kind": "ball", "radius": 1}, "at": [0, 0, 0], "effect": {"kind": "surface", "surface": "silt"}},
        {"id": "f", "shape": {"kind": "ball", "radius": 1}, "at": [0, 0, 0], "effect": {"kind": "barred", "states": ["Sprint"]}},
        {"id": "g", "shape": {"kind": "ball", "radius": 1}, "at": [0, 0, 0], "effect": {"kind": "checkpoint"}},
        {"id": "h", "shape": {"kind": "ball", "radius": 1}, "at": [0, 0, 0], "effect": {"kind": "home"}},
        {"id": "i", "shape": {"kind": "ball", "radius": 1}, "at": [0, 0, 0], "effect": {"kind": "signal"}},
    ],
    "surfaces": [{"id": "silt", "walk": "never", "friction": 0.3}, {"id": "ivy", "climbable": True, "ground": False}],
    "pieces": [
        {"id": "a", "kind": "block", "at": [0, 0, 0], "size": [1, 1, 1], "drift": [0, 0, -2]},
        {"id": "b", "kind": "stairs", "at": [3, 0, 0], "width": 1, "rise": 0.2, "run": 0.3, "count": 4},
        {"id": "c", "kind": "spiral-stairs", "at": [9, 0, 0], "inner": 0, "outer": 2, "rise": 0.2, "angle": -20, "count": 4},
        {"id": "e", "kind": "block", "at": [0, 0, 9], "size": [1, 1, 1], "surface": "silt", "motion": {
            "period": 8, "phase": 0.5, "repeat": "loop", "path": "curved", "pivot": [0, 0, 1],
            "keys": [{"at": 0, "move": [0, 0, 0], "turn": [0, 0, 0], "ease": "smooth"}, {"at": 0.5, "move": [0, 3, 0]}, {"at": 1, "turn": [360, 0, 0]}]}},
        {"id": "d", "kind": "triangles", "at": [9, 0, 9], "vertices": [[0, 0, 0], [1, 0, 0], [0, 0, 1]], "triangles": [[0, 1, 2]],
         "surfaces": ["silt", {"walk": "always"}], "surface_of": [2]},
        {"id": "f", "kind": "ball", "at": [20, 0, 0], "radius": 1}, {"id": "g", "kind": "pill", "at": [20, 0, 5], "radius": 1, "length": 0, "sag": 0.1},
        {"id": "h", "kind": "ring", "at": [20, 0, 9], "radius": 2, "thickness": 0.5, "sag": 0.1},
        {"id": "i", "kind": "tube", "at": [20, 0, 19], "points": [[0, 0, 0], [4, 0, 0], [4, 1, 4], [0, 0, 4]], "radius": 0.5, "closed": True, "sag": 0.1},
    ],
}
PROFILE = {"lagniappe": "profile", "version": 1, "ground": {"speed": 4, "response": {"model": "smooth"}}, "jump": {"air_jumps": 1}}
INPUTS = {"lagniappe": "inputs", "version": 1, "steps": [{"at": 0, "move": [0, 1], "press": ["jump"]}, {"at": 1, "look": [90, 0]}]}



def made_take():
    """A take as the command line makes it, in its JSON form."""
    with tempfile.TemporaryDirectory() as folder:
        paths = {}
        for name, document in (("c.course.json", COURSE), ("p.profile.json", PROFILE), ("i.inputs.json", INPUTS)):
            paths[name[0]] = os.path.join(folder, name)
            with open(paths[name[0]], "w", encoding="utf-8") as file:
                json.dump(document, file)
        take, text = os.path.join(folder, "t.take"), os.path.join(folder, "t.json")
        subprocess.run([CLI, "drive", "--course", paths["c"], "--profile", paths["p"], "--inputs", paths["i"], "--take", take],
                       check=True, capture_output=True)
        subprocess.run([CLI, "convert", take, text], check=True)
        with open(text, encoding="utf-8") as file:
            return json.load(file)


TAKE = made_take()
REMOVE = object()
# Path of the change, new value. Each must be refused by both.
BAD = {
    "course": (COURSE, [
        (["lagniappe"], "profile"), (["version"], 2), (["name"], REMOVE), (["name"], ""), (["pieces"], []), (["pieces"], {}),
        (["marks"], []), (["marks", 0, "id"], "begin"), (["marks", 0, "at"], [0, 0]), (["extra"], 1), (["pieces", 0, "extra"], 1),
        (["pieces", 0, "size"], REMOVE), (["pieces", 0, "size"], [1, 1]), (["pieces", 0, "size"], [1, -1, 1]),
        (["pieces", 0, "size"], [1, 0, 1]), (["pieces", 0, "size"], [1, "1", 1]), (["pieces", 0, "at"], [1e308, 0, 0]),
        (["pieces", 0, "kind"], "sphere"), (["pieces", 0, "width"], 1), (["pieces", 0, "turn"], [1, 2]), (["pieces", 0, "surface"], 3),
        (["pieces", 1, "count"], 0), (["pieces", 1, "count"], 2.5), (["pieces", 1, "count"], 10000000), (["pieces", 2, "angle"], 0),
        (["pieces", 2, "angle"], 91), (["pieces", 2, "inner"], -1), (["pieces", 4, "triangles"], []),
        (["pieces", 4, "triangles", 0], [0, 1]), (["pieces", 4, "triangles", 0], [0, 1, -1]), (["pieces", 4, "vertices", 0], [0, 0]),
        (["pieces", 4, "surface_of"], [-1]), (["pieces", 4, "surfaces", 1, "walk"], "often"), (["pieces", 4, "surfaces", 0], 3),
        (["limits"], {"low": [0, 0, 0]}), (["wind"], [0, 1]), (["wind"], "west"), (["surfaces", 0, "walk"], "sometimes"), (["surfaces", 0, "friction"], 1.1), (["surfaces", 0, "id"], REMOVE),
        (["surfaces", 1, "ground"], 1), (["surfaces", 0, "grip"], 1), (["pieces", 3, "motion", "period"], 0), (["pieces", 3, "motion", "period"], REMOVE),
        (["pieces", 3, "motion", "keys"], []), (["pieces", 3, "motion", "keys", 0, "at"], 0.1), (["pieces", 3, "motion", "keys", 1, "at"], 1.5),
        (["pieces", 3, "motion", "keys", 1, "ease"], "bouncy"), (["pieces", 3, "motion", "repeat"], "twice"), (["pieces", 3, "motion", "pivot"], [0, 0]),
        (["pieces", 5, "radius"], 0), (["pieces", 5, "sag"], 0), (["pieces", 5, "sag"], 2), (["pieces", 6, "length"], REMOVE), (["pieces", 6, "length"], -1),
        (["pieces", 7, "thickness"], 0), (["pieces", 8, "points"], [[0, 0, 0]]), (["pieces", 8, "points", 1], [0, 0]), (["pieces", 8, "closed"], 1),
        (["pieces", 8, "points"], REMOVE), (["pieces", 3, "motion", "phase"], 2), (["pieces", 3, "motion", "speed"], 2),
        (["fields", 0, "radius"], 0), (["fields", 0, "radius"], REMOVE), (["fields", 0, "kind"], "cube"), (["fields", 0, "acceleration"], 2),
        (["fields", 0, "extra"], 1), (["fields", 1, "length"], -1), (["fields", 1, "strength"], 2000), (["fields", 1, "on"], ""),
        (["fields", 2, "falloff"], "cubic"), (["fields", 2, "reach"], -1), (["fields", 2, "thickness"], REMOVE), (["fields", 3, "falloff"], []),
        (["fields", 3, "falloff"], [[0]]), (["fields", 3, "combine"], "mixes"), (["fields", 3, "priority"], 1.5), (["fields", 4, "points", 1], [0, 0]),
        (["fields", 5, "direction"], [0, 1]), (["fields", 5, "size"], [0, 1, 1]), (["fields"], {}), (["gravity"], "down"),
        (["zones", 0, "shape", "size"], [0, 1, 1]), (["zones", 0, "shape", "kind"], "cone"), (["zones", 0, "effect", "velocity"], REMOVE), (["zones", 0, "effect", "to"], "side"),
        (["zones", 0, "effect", "frame"], "world"), (["zones", 0, "effect", "sets"], ["down"]), (["zones", 0, "effect", "apex"], 1), (["zones", 0, "effect", "again_after"], -1),
        (["zones", 0, "extra"], 1), (["zones", 0, "effect", "extra"], 1), (["zones", 0, "on"], ""), (["zones", 1, "effect", "apex"], 0), (["zones", 1, "effect", "apex"], REMOVE),
        (["zones", 2, "effect", "frame"], "view"), (["zones", 2, "effect", "gust", "period"], 0), (["zones", 2, "effect", "gust", "share"], REMOVE), (["zones", 3, "effect", "times"], -1),
        (["zones", 4, "effect", "surface"], REMOVE), (["zones", 5, "effect", "states"], []), (["zones", 6, "effect", "kind"], "save"), (["zones"], {}), (["pieces", 0, "drift"], [0, 1]), (["marks", 1, "up"], [0, 1]),
    ]),
    "take": (TAKE, [
        (["version"], 2), (["about"], REMOVE), (["about", "star"], 1), (["about", "path"], [[1]]), (["head", "tick_rate"], 5),
        (["head", "profile_identity"], "xyz"), (["head", "course", "lagniappe"], "profile"), (["head", "start"], []), (["head", "extra"], 1),
        (["parts"], []), (["parts", 0, "inputs", 0], [0, [0] * 8]), (["parts", 0, "inputs", 0], [1, [0] * 7]), (["parts", 0, "hashes"], "g"),
        (["parts", 0, "dropped"], [[1]]), (["parts", 0, "speed"], 1), (["parts", 1, "end"], -1),
    ]),
    "profile": (PROFILE, [
        (["lagniappe"], REMOVE), (["version"], "1"), (["ground", "speed"], -1), (["ground", "speed"], "fast"), (["ground", "sped"], 1),
        (["ground", "response", "model"], "springy"), (["ground", "response", "time"], 61), (["gravity"], None), (["gravity"], 1e308),
        (["capsule"], []), (["capsule"], {"radius": 0}), (["jump", "air_jumps"], 1.5), (["jump", "air_jumps"], -1), (["look"], {"dead_zone": 1}),
        (["name"], ""), (["smoothing"], {"time": -0.1}), (["ground", "steepest_walkable"], 90),
        (["walls"], {"kept": [[0, 1.5]]}), (["walls"], {"kept": [[0]]}), (["walls"], {"kept": [[i, 1] for i in range(9)]}), (["walls"], {"lost": []}),
        (["ground", "slope_speed"], [["steep", 1]]), (["ground", "speed_on_slopes"], "down"), (["skid"], {"friction": -1}), (["skid"], {"grip": 1}),
        (["jump", "from_skid"], 1), (["jump", "inherits"], "some"), (["ground", "response", "turn_time"], -1),
        (["ground", "gather"], {"growth": -1}), (["ground", "gather"], {"graze": 1}), (["ground", "facing"], "back"), (["jump", "held_repeats"], "yes"),
        (["jump", "lowest_share"], 0), (["jump", "air_jump_height"], [[0, 1]]), (["notes"], {"jump.hight": ""}), (["notes"], {"jump.height": 3}),
        (["camera"], {"field_of_view": 180}), (["camera"], {"zoom": 2}), (["look"], {"invert_yaw": 1}), (["capsule"], {"centre_of_mass": -1}),
    ]),
    "inputs": (INPUTS, [
        (["steps"], REMOVE), (["steps", 0, "at"], REMOVE), (["steps", 0, "at"], -1), (["steps", 0, "move"], [0, 2]), (["steps", 0, "move"], [0]),
        (["steps", 0, "press"], ["hop"]), (["steps", 0, "press"], "jump"), (["steps", 0, "hold"], 1), (["steps", 1, "look"], [1e4, 0]), (["steps"], {}),
    ]),
}


def changed(document, path, value):
    result = copy.deepcopy(document)
    at = result
    for key in path[:-1]:
        at = at[key]
    if value is REMOVE:
        del at[path[-1]]
    else:
        at[path[-1]] = value
    return result


def reader_takes(path):
    done = subprocess.run([CLI, "check", path], capture_output=True, text=True, timeout=60, check=False)
    assert done.returncode in (0, 2), f"{path}: exit {done.returncode}"
    if done.returncode == 2:
        lines = done.stderr.splitlines()
        assert len(lines) == 1 and lines[0].startswith(f"error: {path}: "), done.stderr
    return done.returncode == 0


def main():
    failures = []
    checked = 0

    def expect(name, kind, document, path, fine):
        nonlocal checked
        checked += 1
        schema, reader = SCHEMAS[kind].is_valid(document), reader_takes(path)
        if schema != fine or reader != fine:
            failures.append(f"{name}: wanted {fine}, schema says {schema}, reader says {reader}")

    for pattern, kind in (("courses/*.course.json", "course"), ("profiles/**/*.profile.json", "profile"), ("takes/*.inputs.json", "inputs"),
                          ("examples/**/*.profile.json", "profile")):
        for path in glob.glob(f"{SOURCE}/{pattern}", recursive=True):
            with open(path, encoding="utf-8") as file:
                expect(path, kind, json.load(file), path, True)
    assert checked >= 5, "the examples are missing"

    with tempfile.TemporaryDirectory() as folder:
        path = os.path.join(folder, "document.json")
        for kind, (good, bad) in BAD.items():
            for where, value in [([], None)] + bad:
                document = changed(good, where, value) if where else good
                with open(path, "w", encoding="utf-8") as file:
                    json.dump(document, file)
                shown = "removed" if value is REMOVE else json.dumps(value)
                expect(f"{kind} with {'/'.join(map(str, where))} = {shown}", kind, document, path, not where)
    with open(f"{SOURCE}/docs/formats/profile.schema.json", encoding="utf-8") as file:
        if file.read() != profile_schema.text(CLI):
            failures.append("docs/formats/profile.schema.json is not what tools/profile_schema.py makes")
    with open(f"{SOURCE}/docs/formats/course.schema.json", encoding="utf-8") as file:
        if file.read() != course_schema.text(CLI):
            failures.append("docs/formats/course.schema.json is not what tools/course_schema.py makes")
    print("\n".join(failures) or f"{checked} documents: schema and reader agree")
    sys.exit(1 if failures else 0)


main()
