#!/usr/bin/env python3
# SPDX-License-Identifier: MIT
"""Fails on an include that points back: each folder may use only those before it, and no files include in a circle.

The order is that of docs/architecture.md. Run from the project's folder.
"""
import pathlib
import re
import sys

# Each folder and what it may include besides itself and the public headers.
MAY_USE = {
    "src/core/math": [],
    "src/core/geometry": ["math"],
    "src/core/fields": ["math", "geometry"],
    "src/core/world": ["math", "geometry", "fields"],
    "src/core/ledges": ["math", "geometry", "fields", "world"],
    "src/core/motion": ["math", "geometry", "fields", "world", "ledges"],
    "src/core/states": ["math", "geometry", "fields", "world", "ledges", "motion"],
    "src/core/camera": ["math", "geometry", "fields", "world", "motion"],
    "src/core/sim": ["math", "geometry", "fields", "world", "motion", "states"],
    "src/core/course": ["math", "geometry", "fields", "world", "motion", "states", "sim"],
    "src/core/recipes": ["math", "geometry", "fields", "world", "motion", "states", "sim", "course"],
    "src/core/io": ["math", "geometry", "fields", "world", "motion", "states", "sim", "course"],
}
# Which folder implements a public header, and so what including it comes to. What is only types belongs to the first that needs it.
IMPLEMENTED_IN = {
    "math": ["vector.h", "result.h", "blocks.h", "curve.h", "rigid_pose.h", "smooth_path.h", "turns.h", "gravity.h", "document_key.h"],
    "fields": ["surface.h", "field.h", "field_kinds.h", "zone.h", "zone_kinds.h"],
    "geometry": ["shapes.h", "capsule_queries.h"],
    "world": ["piece_motion.h", "world.h", "triangle_world.h"],
    "ledges": ["ledge.h"],
    "motion": ["behaviour.h", "profile.h", "profile_fields.h", "handling.h", "input_frame.h", "character_state.h", "launch.h", "ledger.h", "pose.h"],
    "states": ["states.h", "ledger_facts.h", "signals.h", "guard.h", "table_check.h", "step.h", "pose_feed.h"],
    "camera": ["camera.h"],
    "course": ["course.h", "piece_kinds.h"],
    "sim": ["fixed_step_clock.h", "drive.h", "drawn_frames.h", "timing.h", "timing_advice.h", "tick_phases.h", "state_parts.h", "take.h", "run.h", "run_signals.h", "remedy.h", "table_use.h", "compare.h"],
    "recipes": ["recipes.h", "ground_probes.h"],
    "io": ["files.h", "course_rows.h", "handling_files.h", "scxml.h", "lagniappe.h"],
}
OWNER = {name: folder for folder, names in IMPLEMENTED_IN.items() for name in names}
APP_MAY_USE = {
    "theme": [],
    "session": [],
    "keys": [],
    "devices": ["theme", "session", "keys"],
    "tape": ["theme", "session"],
    "viewport": ["theme", "session", "keys", "devices"],
    "widgets": ["theme", "devices", "viewport"],
    "cards": ["theme", "session"],
    "fields": ["theme", "session", "cards", "viewport"],
    "panels": ["theme", "session", "widgets"],
    "states": ["theme", "session", "cards"],
    "timing": ["theme", "session", "viewport", "widgets"],
    "pages": ["theme", "session", "devices", "tape", "viewport", "widgets", "panels", "cards", "states", "fields", "timing"],
}
INCLUDE = re.compile(r'^\s*#include\s+([<"])([^>"]+)[>"]', re.M)


def may_use(folder, owner):
    """Whether a folder of the core may use what another implements; a course's description is data that all of sim may hold."""
    return owner == folder or owner in MAY_USE["src/core/" + folder] or (folder, owner) == ("sim", "course")


def includes(path):
    return [(quote, name) for quote, name in INCLUDE.findall(path.read_text(encoding="utf-8"))]


def main():
    wrong = []
    graph = {}
    for path in sorted(pathlib.Path(".").glob("include/lagniappe/*.h")):
        graph[path.name] = [n.split("/")[1] for _, n in includes(path) if n.startswith("lagniappe/")]
        for quote, name in includes(path):
            if quote == '"' and not name.startswith("lagniappe/"):
                wrong.append(f"{path}: a public header includes the private {name}")
            if re.match(r"Q[A-Z]|nlohmann|fmt/|tiny", name):
                wrong.append(f"{path}: a public header includes {name}")
    for name in sorted(graph):
        if name not in OWNER:
            wrong.append(f"include/lagniappe/{name}: tools/check_includes.py does not say which folder implements it")
    for name in sorted(set(graph) & set(OWNER)):
        for used in graph[name]:
            if used in OWNER and name != "lagniappe.h" and not may_use(OWNER[name], OWNER[used]):
                wrong.append(f"include/lagniappe/{name} ({OWNER[name]}) must not include {used} ({OWNER[used]})")
    for path in sorted(pathlib.Path("src/core").rglob("*.[hc]*")):
        if path.suffix not in (".h", ".cpp"):
            continue
        folder = "/".join(path.parts[:3])
        for quote, name in includes(path):
            if re.match(r"Q[A-Z]|Qt", name):
                wrong.append(f"{path}: the core includes {name}")
            target = name.split("/")[0]
            owner = OWNER.get(name.split("/")[-1]) if target == "lagniappe" else None
            if owner and not may_use(path.parts[2], owner):
                wrong.append(f"{path}: {folder} must not include {name}, which {owner} implements")
            if quote == '"' and target != "lagniappe" and f"src/core/{target}" != folder and target not in MAY_USE[folder]:
                wrong.append(f"{path}: {folder} must not include {name}")
    for path in sorted(pathlib.Path("src/app").rglob("*.[hc]*")):
        folder = path.parent.name
        for quote, name in includes(path):
            target = name.split("/")[0] if "/" in name else ""
            known = folder in APP_MAY_USE and quote == '"' and target != "lagniappe"
            if known and target != folder and target not in APP_MAY_USE[folder] and name not in ("actions.h", "doors.h"):
                wrong.append(f"{path}: src/app/{folder} must not include {name}")
    wrong += circles(graph)
    print("\n".join(wrong) or "includes point one way")
    return 1 if wrong else 0


def circles(graph):
    """Names a circle among the public headers, if there is one."""
    done = set()

    def walk(name, trail):
        if name in trail:
            return [" -> ".join(trail[trail.index(name):] + [name]) + ": these include each other"]
        if name in done:
            return []
        done.add(name)
        return [c for n in graph.get(name, []) for c in walk(n, trail + [name])]

    return [c for name in graph for c in walk(name, [])]


sys.exit(main())
