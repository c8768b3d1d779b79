#!/usr/bin/env python3
# SPDX-License-Identifier: MIT
"""Writes the schema of courses: the kinds of pieces, fields and zones from the rows that the core has, all else as it stands.

Usage: course_schema.py PATH_OF_LAGNIAPPE_CLI > new; mv new docs/formats/course.schema.json
"""
import json
import pathlib
import subprocess
import sys

SCHEMA = pathlib.Path(__file__).parent.parent / "docs/formats/course.schema.json"
COMMON = {"pieces": ["id", "kind", "at", "turn", "surface", "motion", "drift"],
          "fields": ["id", "kind", "at", "turn", "strength", "acceleration", "falloff", "reach", "fade", "combine", "priority", "on"]}


def number(key, kind):
    low = "exclusiveMinimum" if key["above_low"] else "minimum"
    as_json = lambda x: int(x) if x == int(x) else x
    schema = {"type": kind, low: as_json(key["range"][0]), "maximum": as_json(key["range"][1])}
    if "least" in key:
        schema["not"] = {"exclusiveMinimum": -key["least"], "exclusiveMaximum": key["least"]}
    return schema


def schema_of(key, standing):
    """Of one key. What a list holds is written down in the schema itself."""
    if key["type"] == "size":
        schema = {"type": "array", "items": number(key, "number"), "minItems": 3, "maxItems": 3}
    elif key["type"] in ("number", "whole"):
        schema = number(key, "integer" if key["type"] == "whole" else "number")
    elif key["type"] == "flag":
        schema = {"type": "boolean"}
    else:
        schema = {name: value for name, value in standing.items() if name != "description"}
    unit = f" In {key['unit']}." if "unit" in key else ""
    return {**schema, "description": key["help"] + unit}


def kind_schema(row, name, standing, common):
    old = standing.get(name, {}).get("properties", {})
    properties = {key: {"const": row["kind"]} if key == "kind" else schema for key, schema in common.items()}
    for key in row["keys"]:
        properties[key["name"]] = schema_of(key, old.get(key["name"], {}))
    needed = ["id", "kind", "at"] + [key["name"] for key in row["keys"] if key["needed"]]
    schema = {"type": "object", "additionalProperties": False, "required": needed, "description": row["help"], "properties": properties}
    if "acceleration" in properties:
        schema["not"] = {"required": ["strength", "acceleration"]}
    return schema


def write_kinds(document, cli, items_of, prefix, model):
    """What all of a list have is as it stands in the definition `model`."""
    rows = json.loads(subprocess.run([cli, "show", f"--{items_of}", "--json"], check=True, capture_output=True, text=True).stdout)
    definitions = document["$defs"]
    common = {key: definitions[model]["properties"].get(key) for key in COMMON[items_of]}
    for row in rows:
        definitions[prefix + row["kind"]] = kind_schema(row, prefix + row["kind"], definitions, common)
    items = document["properties"][items_of]["items"]
    items["properties"]["kind"] = {"enum": [row["kind"] for row in rows]}
    items["oneOf"] = [{"$ref": f"#/$defs/{prefix}{row['kind']}"} for row in rows]


def part_schema(row, name, standing):
    """Of a zone's shape or effect. Which values go together, where they may be left out, the reader says."""
    old = standing.get(name, {}).get("properties", {})
    properties = {"kind": {"const": row["kind"]}, **{key["name"]: schema_of(key, old.get(key["name"], {})) for key in row["keys"]}}
    needed = ["kind"] + [key["name"] for key in row["keys"] if key["needed"]]
    return {"type": "object", "additionalProperties": False, "required": needed, "description": row["help"], "properties": properties,
            **{key: standing[name][key] for key in ("oneOf", "if", "then") if key in standing.get(name, {})}}


def write_zones(document, cli):
    parts = json.loads(subprocess.run([cli, "show", "--zones", "--json"], check=True, capture_output=True, text=True).stdout)
    definitions = document["$defs"]
    for part in ("shape", "effect"):
        rows, prefix = parts[part + "s"], f"zone-{part}-"
        for row in rows:
            definitions[prefix + row["kind"]] = part_schema(row, prefix + row["kind"], definitions)
        definitions["zone"]["properties"][part] = {
            "type": "object", "required": ["kind"], "properties": {"kind": {"enum": [row["kind"] for row in rows]}},
            "oneOf": [{"$ref": f"#/$defs/{prefix}{row['kind']}"} for row in rows]}


def text(cli):
    document = json.loads(SCHEMA.read_text())
    write_kinds(document, cli, "pieces", "", "block")
    write_kinds(document, cli, "fields", "field-", "field-ball")
    write_zones(document, cli)
    return json.dumps(document, indent=2, ensure_ascii=False) + "\n"


if __name__ == "__main__":
    sys.stdout.write(text(sys.argv[1]))
