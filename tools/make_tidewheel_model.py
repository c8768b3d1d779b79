#!/usr/bin/env python3
# SPDX-License-Identifier: MIT
"""Makes courses/tidewheel.glb: the wheel of the pump works, with rims, spokes, paddles and an axle.

One box mesh is shown by many nodes, so the file also exercises node transforms and repeated meshes.
Run from the project's folder: tools/make_tidewheel_model.py [OUT.glb]
"""
import json
import math
import struct
import sys

PADDLES = 16
RADIUS = 3.2
WIDTH = 1.4


def unit_box():
    """Corners and counter-clockwise triangles of the box from -0.5 to 0.5."""
    corners = [(x - 0.5, y - 0.5, z - 0.5) for z in (0, 1) for y in (0, 1) for x in (0, 1)]
    quads = [(0, 2, 3, 1), (4, 5, 7, 6), (0, 1, 5, 4), (2, 6, 7, 3), (0, 4, 6, 2), (1, 3, 7, 5)]
    return corners, [i for a, b, c, d in quads for i in (a, b, c, a, c, d)]


def box_node(name, centre, size, turn_z):
    """A node that shows the box with `size`, turned about Z (the axle) by `turn_z` radians."""
    return {
        "name": name,
        "mesh": 0,
        "translation": list(centre),
        "rotation": [0.0, 0.0, math.sin(turn_z / 2), math.cos(turn_z / 2)],
        "scale": list(size),
    }


def wheel_nodes():
    nodes = [box_node("Axle", (0, 0, 0), (0.35, 0.35, WIDTH + 1.0), math.pi / 4)]
    for i in range(PADDLES):
        angle = 2 * math.pi * i / PADDLES
        out = (math.cos(angle), math.sin(angle))
        nodes.append(box_node(f"Paddle {i + 1}", (out[0] * (RADIUS - 0.35), out[1] * (RADIUS - 0.35), 0),
                              (0.7, 0.06, WIDTH), angle))
        between = angle + math.pi / PADDLES
        chord = 2 * (RADIUS - 0.5) * math.tan(math.pi / PADDLES)
        for side in (-1, 1):
            z = side * (WIDTH / 2 - 0.05)
            rim = (math.cos(between) * (RADIUS - 0.5), math.sin(between) * (RADIUS - 0.5), z)
            nodes.append(box_node("Rim", rim, (0.14, chord, 0.1), between))
            if i % 2 == 0:
                nodes.append(box_node("Spoke", (out[0] * RADIUS / 2, out[1] * RADIUS / 2, z),
                                      (RADIUS - 0.6, 0.12, 0.08), angle))
    return nodes


def write_glb(path, nodes):
    corners, indices = unit_box()
    positions = b"".join(struct.pack("<3f", *c) for c in corners)
    order = struct.pack(f"<{len(indices)}H", *indices)
    document = {
        "asset": {"version": "2.0", "generator": "tools/make_tidewheel_model.py"},
        "scene": 0,
        "scenes": [{"nodes": [0]}],
        "nodes": [{"name": "Tidewheel", "children": list(range(1, len(nodes) + 1))}] + nodes,
        "meshes": [{"name": "Box", "primitives": [{"attributes": {"POSITION": 0}, "indices": 1}]}],
        "accessors": [
            {"bufferView": 0, "componentType": 5126, "count": len(corners), "type": "VEC3",
             "min": [-0.5, -0.5, -0.5], "max": [0.5, 0.5, 0.5]},
            {"bufferView": 1, "componentType": 5123, "count": len(indices), "type": "SCALAR"},
        ],
        "bufferViews": [
            {"buffer": 0, "byteOffset": 0, "byteLength": len(positions)},
            {"buffer": 0, "byteOffset": len(positions), "byteLength": len(order)},
        ],
        "buffers": [{"byteLength": len(positions) + len(order)}],
    }
    text = json.dumps(document, separators=(",", ":")).encode()
    text += b" " * (-len(text) % 4)
    data = positions + order
    data += b"\0" * (-len(data) % 4)
    total = 12 + 8 + len(text) + 8 + len(data)
    with open(path, "wb") as file:
        file.write(struct.pack("<4sII", b"glTF", 2, total))
        file.write(struct.pack("<I4s", len(text), b"JSON") + text)
        file.write(struct.pack("<I4s", len(data), b"BIN\0") + data)


if __name__ == "__main__":
    write_glb(sys.argv[1] if len(sys.argv) > 1 else "courses/tidewheel.glb", wheel_nodes())
