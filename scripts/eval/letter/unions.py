# Unions of letters by shapely (GEOS): area, contours, islands, against those that were given. Reads JSON lines, writes JSON lines.
import json
import sys

from shapely.geometry import Polygon
from shapely.ops import unary_union
from shapely.validation import explain_validity


def solid(contours):
    """One letter filled by its winding: contours of the letter's turning are joined, the others are cut out."""
    polygons = [Polygon(list(zip(c[0::2], c[1::2]))) for c in contours if len(c) >= 6]
    signed = [sum(c[i] * c[(i + 3) % len(c)] - c[(i + 2) % len(c)] * c[i + 1] for i in range(0, len(c), 2)) for c in contours if len(c) >= 6]
    total = sum(signed)
    outer = unary_union([p.buffer(0) for p, s in zip(polygons, signed) if s * total > 0])
    inner = unary_union([p.buffer(0) for p, s in zip(polygons, signed) if s * total < 0])
    return outer.difference(inner)


def parts(shape):
    return [g for g in (shape.geoms if hasattr(shape, "geoms") else [shape]) if g.area >= 1e-4]


for line in sys.stdin:
    word = json.loads(line)
    union = unary_union([solid(letter) for letter in word["letters"]])
    pieces = parts(union)
    islands = sum(1 for p in pieces for r in p.interiors if Polygon(r).area >= 1e-4)
    given = [Polygon(list(zip(c[0::2], c[1::2]))) for c in word["united"]]
    crossing = [explain_validity(p) for p in given if not p.is_valid]
    print(json.dumps({"area": union.area, "pieces": len(pieces), "islands": islands, "crossing": crossing}))
