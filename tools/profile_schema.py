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
