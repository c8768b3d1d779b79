#!/usr/bin/env python3
# SPDX-License-Identifier: MIT
"""Writes the schema of profiles from the table of values that the core has.

Usage: profile_schema.py PATH_OF_LAGNIAPPE_CLI > docs/formats/profile.schema.json
"""
import json
import os
import subprocess
import sys
import tempfile

UNITS = {"m/s2": "m/s2", "deg": "degrees", "deg/s": "degrees/s"}


def sheet(cli):
    """Every value with its default, as `show --json` tells it of a profile that names nothing."""
    with tempfile.NamedTemporaryFile("w", suffix=".profile.json") as file:
        file.write('{"lagniappe": "profile", "version": 1}')
        file.flush()
        return json.loads(subprocess.run([cli, "show", file.name, "--json"], check=True, capture_output=True, text=True).stdout)


def schema_of(value):
    """The schema of one value: a curve, a choice, or a number."""
    if "x" in value:
        number = lambda low, high: {"type": "number", "minimum": low, "maximum": high}
        return {"type": "array", "maxItems": 8, "items": {
            "type": "array", "prefixItems": [number(*value["x"]), number(*value["y"])], "minItems": 2, "maxItems": 2, "items": False}}
    if "words" in value:
        return {"enum": value["words"]} if value["words"] else {"type": "boolean"}
    return {"type": "integer" if value["whole"] else "number", "minimum": value["range"][0], "maximum": value["range"][1]}


def section():
    return {"type": "object", "additionalProperties": False, "properties": {}}


def one_of(*words):
    return {"enum": list(words)}


def text_value(description, least=0):
    return {"type": "string", "minLength": least, "description": description}


def closed(properties, required):
    return {"type": "object", "additionalProperties": False, "properties": properties, "required": required}


def state_schemas(values):
    """The table of states; see include/lagniappe/states.h for how a tick goes through it."""
    other = [closed({"times": {"type": "number", "minimum": 0, "maximum": 1000}}, ["times"]),
             closed({"same": text_value("Another value of the same kind, as ground.sprint_speed.", 1)}, ["same"])]
    overrides = {value["path"]: {"anyOf": [schema_of(value), *other]} for value in values}
    state = closed({
        "name": text_value("", 1), "is": text_value("The state that this one is like, save for what it says itself."),
        "in": text_value("Its group."), "behaviour": one_of("ground", "air", "skid", "fly", "script", "mantle", "hang", "climb", "float"),
        "stance": one_of("standing", "crouched", "lying"), "pose": text_value("A word for the figure and for animation."),
        "set": {**section(), "properties": overrides, "description": "What it has differently from the profile."},
        "enter": text_value("Lua, done on entry."), "exit": text_value("Lua, done on leaving."),
        "script": text_value("Lua of the behaviour script, once a tick."),
        "forgets": {"type": "array", "items": text_value("A memory slot that entering sets to 0.", 1)}}, ["name"])
    transition = closed({
        "from": text_value("A state, a group, or any.", 1), "to": text_value("A state.", 1),
        "when": text_value("A Lua expression over signals."),
        "priority": {"type": "integer", "minimum": -1000, "maximum": 1000, "default": 0},
        "stay": {"type": "number", "minimum": 0, "maximum": 3600, "default": 0, "description": "Shortest stay in s."},
        "do": text_value("Lua, done on the way.")}, ["from", "to", "when"])
    return {
        "states": {"type": "array", "minItems": 1, "maxItems": 48, "items": state},
        "transitions": {"type": "array", "maxItems": 2000, "items": transition},
        "memory": {"type": "array", "maxItems": 6, "items": {"type": "string", "pattern": "^[A-Za-z_][A-Za-z0-9_]{0,31}$"}},
        "based_on": one_of("built-in", "nothing"),
        "complete": {"type": "boolean", "description": "All of the table is here nevertheless, as in takes."},
        "remove": {"type": "array", "items": {"anyOf": [
            closed({"state": text_value("A state of the built-in table that goes, with its rows.", 1)}, ["state"]),
            closed({"from": text_value("", 1), "to": text_value("", 1), "priority": {"type": "integer", "minimum": -1000, "maximum": 1000}},
                   ["from", "to"])]}},
        "order": {"type": "array", "items": text_value("A state; of a table that is based on another.", 1)},
        "fallback": text_value("The state to begin in, and to go to when a script fails.")}


def profile_schema(cli):
    values = sheet(cli)["values"]
    root = section()
    root["properties"] = {"lagniappe": {"const": "profile"}, "version": {"const": 1}, "name": {"type": "string", "minLength": 1}}
    for value in values:
        at = root
        *folders, key = value["path"].split(".")
        for folder in folders:
            at = at["properties"].setdefault(folder, section())
        unit = value.get("unit", value.get("y_unit", ""))
        description = value["help"] + (f" {UNITS.get(unit, unit)}." if unit else "")
        at["properties"][key] = {**schema_of(value), "description": description, "default": value["default"]}
    root["properties"]["notes"] = {
        **section(), "properties": {value["path"]: {"type": "string"} for value in values}, "description": "What people write about a value."}
    root["properties"] |= state_schemas(values)
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "$id": "https://lagniappe.example/formats/profile.schema.json",
        "title": "Profile",
        "description": "All values that make one way of moving. Every key but the heading has a default, so a profile may name only what differs.",
        **root,
        "required": ["lagniappe", "version"],
    }


def text(cli):
    return json.dumps(profile_schema(cli), indent=2) + "\n"


if __name__ == "__main__":
    sys.stdout.write(text(sys.argv[1]))
