"""Every part that is given out as a drawing, read by another program's reader (ezdxf): the layers of cuts hold closed cuts and nothing
else, and enclose what the part encloses, to a thousandth."""
import json
import math
import re
import subprocess
import sys
import tempfile

import ezdxf
from ezdxf import path as ezpath

PROGRAM = sys.argv[1]
CUT, MARK, CONSTRUCTION = 7, 5, 8
CLOCK = {"wheel": 83, "pinion": 9, "module_mm": 0.73}
ASKED = [
    ("tooth.profile", {**CLOCK, "part": "wheel"}),
    ("tooth.profile", {**CLOCK, "part": "pinion"}),
    ("tooth.profile", {"wheel": 64, "pinion": 8, "module_mm": 1.1, "school": "lantern", "part": "pinion"}),
    ("tooth.profile", {"wheel": 97, "pinion": 31, "module_mm": 0.4, "school": "involute-20", "part": "wheel"}),
    ("cut.blank", CLOCK),
    ("cut.blank", {"wheel": 96, "pinion": 8, "module_mm": 0.85, "arms": 5}),
    ("part.flat", {"shape": "panel", "width_mm": 83, "height_mm": 121, "rise_mm": 17, "frame_mm": 13, "corner_mm": 4}),
    ("part.flat", {"shape": "washer", "width_mm": 19, "hole_mm": 5.5}),
    ("part.flat", {"shape": "hand", "length_mm": 61, "boss_mm": 8, "hole_mm": 2, "square": True, "tail_mm": 12}),
    ("part.flat", {"shape": "bracket", "width_mm": 14, "height_mm": 18, "bend_at_mm": 21}),
    ("part.flat", {"shape": "cock", "width_mm": 24, "height_mm": 14, "length_mm": 40, "tongue_mm": 10, "slit_mm": 0.6, "slit_depth_mm": 9}),
    ("part.turned", {"material": "engraving brass", "bore_mm": 2.2,
                     "lands": [{"name": "a", "length_mm": 7, "diameter_mm": 5}, {"name": "b", "length_mm": 3, "diameter_mm": 8, "to_mm": 6}]}),
    ("escapement.wheel", {"kind": "deadbeat", "teeth": 30, "tip_diameter_mm": 41}),
    ("escapement.wheel", {"kind": "recoil", "teeth": 34, "tip_diameter_mm": 33}),
    ("strike.countwheel", {"scheme": "hours", "diameter_mm": 71, "slot_width_mm": 2, "depth_mm": 4}),
    ("strike.piece", {"hub_mm": 9, "bore_mm": 2, "thickness_mm": 2, "arms": [{"deg": 200, "length_mm": 43, "pin_mm": 1.5}]}),
]


def ask(verb, question):
    ran = subprocess.run([PROGRAM, verb, "--input", "-"], input=json.dumps(question), capture_output=True, text=True)
    return json.loads(ran.stdout) if ran.returncode == 0 else ran.stderr


def sizes(points):
    around = list(zip(points, points[1:] + points[:1]))
    area = abs(sum(a[0] * b[1] - b[0] * a[1] for a, b in around)) / 2
    return area, sum(math.dist(a, b) for a, b in around)


def of_svg(text):
    """Area and length of each layer's outlines, and whether it is a layer of cuts."""
    layers = {}
    for name, colour, body in re.findall(r'<g id="([^"]*)"[^>]*stroke="(\w+)"[^>]*>(.*?)</g>', text, re.S):
        area = length = 0.0
        for way in re.findall(r'<path d="M([^"]*) Z"', body):
            points = [tuple(map(float, pair.split(","))) for pair in way.replace("L", "").split()]
            one = sizes(points)
            area, length = area + one[0], length + one[1]
        for radius in re.findall(r' r="([^"]*)"', body):
            area, length = area + math.pi * float(radius) ** 2, length + 2 * math.pi * float(radius)
        layers[name] = (area, length, colour == "black")
    return layers


def of_dxf(text):
    with tempfile.NamedTemporaryFile("w", suffix=".dxf", encoding="utf-8") as file:
        file.write(text)
        file.flush()
        drawing = ezdxf.readfile(file.name)
    if drawing.header["$INSUNITS"] != 4:
        sys.exit("not millimetres")
    layers = {layer.dxf.name: {"colour": layer.dxf.color, "area": 0.0, "length": 0.0, "corners": 0} for layer in drawing.layers}
    for entity in drawing.modelspace():
        layer = layers[entity.dxf.layer]
        if layer["colour"] != CUT:
            continue
        if entity.dxftype() == "CIRCLE":
            layer["area"] += math.pi * entity.dxf.radius**2
            layer["length"] += 2 * math.pi * entity.dxf.radius
            continue
        if entity.dxftype() not in ("LWPOLYLINE", "POLYLINE") or not (entity.closed if entity.dxftype() == "LWPOLYLINE" else entity.is_closed):
            sys.exit(f"{entity.dxftype()} on the layer of cuts {entity.dxf.layer}")
        points = [(p.x, p.y) for p in ezpath.make_path(entity).flattening(1e-4)]
        if points[0] == points[-1]:
            points.pop()
        one = sizes(points)
        layer["area"], layer["length"] = layer["area"] + one[0], layer["length"] + one[1]
        layer["corners"] += len(entity)
    return layers


def main():
    read = 0
    for verb, question in ASKED:
        drawn, cut = (ask(verb, {**question, "format": form}) for form in ("svg", "dxf"))
        if isinstance(drawn, str) or isinstance(cut, str):
            sys.exit(f"{verb} {question}: {drawn if isinstance(drawn, str) else cut}")
        svg, dxf = of_svg(drawn["svg"]), of_dxf(cut["dxf"])
        for name, (area, length, is_cut) in svg.items():
            layer = dxf[name]
            if is_cut != (layer["colour"] == CUT):
                sys.exit(f"{verb}: {name} is a cut in one file and not in the other")
            if not is_cut:
                continue
            for what, ours, theirs in (("area", area, layer["area"]), ("length", length, layer["length"])):
                if abs(ours - theirs) > 1e-3 * max(ours, theirs):
                    sys.exit(f"{verb}, {name}: {what} {theirs:.5f} read, {ours:.5f} drawn")
            read += 1
            print(f"{verb:18} {name:12} {layer['area']:10.3f} mm2 {layer['length']:9.3f} mm, {layer['corners']} corners")
    print(f"{read} layers of cuts, as another program reads them")


main()
