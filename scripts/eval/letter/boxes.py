# Boxes around what is drawn, as independent readers see it: DXF by ezdxf, HPGL by the few orders that a plotter knows, pictures by their
# dark pixels. Arguments: a folder with 0.dxf, 0.plt, 0.svg.png, 0.pdf.png …, how many, pixels per mm. Writes JSON lines.
import json
import re
import sys

import ezdxf
from ezdxf.addons import drawing  # noqa: F401  (the reader's own curves)

folder, count, px_per_mm = sys.argv[1], int(sys.argv[2]), float(sys.argv[3])


def of_points(points, height):
    xs = [p[0] for p in points]
    ys = [height - p[1] for p in points]
    return [min(xs), min(ys), max(xs), max(ys)]


def dxf(path, height):
    doc = ezdxf.readfile(path)
    assert doc.header["$INSUNITS"] == 4
    points = []

    def add(entity):
        if entity.dxftype() == "SPLINE":
            assert entity.closed
            points.extend((p[0], p[1]) for p in entity.flattening(0.002))
        elif entity.dxftype() == "LWPOLYLINE":
            assert entity.closed
            points.extend((p[0], p[1]) for p in entity.get_points())
        elif entity.dxftype() == "INSERT":
            for child in entity.virtual_entities():
                add(child)

    for entity in doc.modelspace():
        add(entity)
    return of_points(points, height), len(doc.audit().errors)


def hpgl(path, height):
    points = []
    down = False
    at = (0, 0)
    for order, arguments in re.findall(r"(CO|[A-Z]{2})\s*([^;]*);", open(path).read()):
        if order in ("PU", "PD"):
            numbers = [int(n) for n in re.findall(r"-?\d+", arguments)]
            for i in range(0, len(numbers), 2):
                was, at = at, (numbers[i] / 40, numbers[i + 1] / 40)
                if order == "PD":
                    points.extend([was, at])
            down = order == "PD"
    assert not down
    return of_points(points, height)


def picture(path):
    from PIL import Image

    image = Image.open(path).convert("RGBA")
    white = Image.new("RGBA", image.size, "white")
    white.alpha_composite(image)
    box = white.convert("L").point(lambda v: 255 if v < 128 else 0).getbbox()
    return [v / px_per_mm for v in box]


sheets = json.load(open(f"{folder}/sheets.json"))
for i in range(count):
    height = sheets[i]
    box, errors = dxf(f"{folder}/{i}.dxf", height)
    print(json.dumps({"dxf": box, "errors": errors, "hpgl": hpgl(f"{folder}/{i}.plt", height), "svg": picture(f"{folder}/{i}.svg.png"), "pdf": picture(f"{folder}/{i}.pdf.png")}))
