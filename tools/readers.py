"""Reads what was written with other programs' eyes: ezdxf, librsvg, ADMesh, poppler,
Python's own csv, zip and XML, and jsonschema against the schemas in docs.

usage: readers.py FOLDER DOCS
"""

import csv
import json
import pathlib
import re
import struct
import subprocess
import sys
import warnings
import xml.etree.ElementTree as xml
import zipfile

warnings.simplefilter("ignore")
import ezdxf  # noqa: E402
import icalendar  # noqa: E402
import jsonschema  # noqa: E402

folder, docs = map(pathlib.Path, sys.argv[1:3])
patterns = json.loads((docs / "pattern.schema.json").read_text())
shop = json.loads((docs / "shop.schema.json").read_text())
sessions = json.loads((docs / "session.schema.json").read_text())


# what the forged solid is drawn as, and a finished one whose blade is bent flatwise
FORGED = ("forged", "ricasso", "tang")
BENT = ("bent", "ricasso", "tang")


def layers(names):
    """Which layers to measure, and the solid that is as long."""
    return (BENT, "finished") if "bent" in names else (FORGED, "forged")


def run(*args):
    return subprocess.run(args, check=True, capture_output=True, text=True).stdout


def want(holds, file, what):
    if not holds:
        sys.exit(f"{file.name}: {what}")


def mesh_is_whole(file, stl):
    """ADMesh finds nothing to mend, and answers the volume and the length."""
    said = run("admesh", str(stl))
    for name in ("Total disconnected facets", "Degenerate facets", "Edges fixed", "Facets removed", "Facets added", "Facets reversed", "Backwards edges"):
        found = re.search(rf"{name}\s*:\s*(\d+)", said)
        want(found and found.group(1) == "0", file, f"{name}: {found and found.group(1)}")
    low, high = (float(re.search(rf"{side} X\s*=\s*(-?[\d.]+)", said).group(1)) for side in ("Min", "Max"))
    return float(re.search(r"Volume\s*:\s*([\d.]+)", said).group(1)), high - low


def long_in_svg(file):
    root = xml.parse(file).getroot()
    want(root.get("width").endswith("mm"), file, "no unit")
    run("rsvg-convert", str(file), "-o", str(file) + ".png")
    paths = list(root.iter("{http://www.w3.org/2000/svg}path"))
    drawn, solid = layers([path.get("id") for path in paths])
    xs = []
    for path in paths:
        if path.get("id") in drawn:
            xs += [float(x) for x in re.findall(r"[ML](-?[\d.]+) ", path.get("d"))]
    return max(xs) - min(xs), solid


def long_in_dxf(file):
    drawing = ezdxf.readfile(file)
    audit = drawing.audit()
    want(not audit.errors and not audit.fixes, file, f"{audit.errors} {audit.fixes}")
    want(drawing.units == ezdxf.units.MM, file, "not in millimetres")
    drawn, solid = layers([e.dxf.layer.lower() for e in drawing.modelspace()])
    lines = [e for e in drawing.modelspace() if e.dxf.layer.lower() in drawn]
    want(lines and all(e.is_closed for e in lines), file, "no closed lines in it")
    xs = [p[0] for e in lines for p in e.points()]
    return max(xs) - min(xs), solid


def meshes_of_3mf(file):
    with zipfile.ZipFile(file) as z:
        want(z.testzip() is None, file, "not whole")
        root = xml.fromstring(z.read("3D/3dmodel.model"))
    ns = "{http://schemas.microsoft.com/3dmanufacturing/core/2015/02}"
    want(root.get("unit") == "millimeter", file, "not in millimetres")
    for thing in root.iter(ns + "object"):
        v = [tuple(float(p.get(k)) for k in "xyz") for p in thing.iter(ns + "vertex")]
        with open(f"{file}.{thing.get('name')}.stl", "wb") as out:
            faces = [tuple(int(t.get(k)) for k in ("v1", "v2", "v3")) for t in thing.iter(ns + "triangle")]
            out.write(b" " * 80 + struct.pack("<I", len(faces)))
            for f in faces:
                a, b, c = (v[i] for i in f)
                n = [
                    (b[1] - a[1]) * (c[2] - a[2]) - (b[2] - a[2]) * (c[1] - a[1]),
                    (b[2] - a[2]) * (c[0] - a[0]) - (b[0] - a[0]) * (c[2] - a[2]),
                    (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]),
                ]
                size = sum(x * x for x in n) ** 0.5 or 1
                out.write(struct.pack("<12fH", *(x / size for x in n), *a, *b, *c, 0))
        yield thing.get("name"), mesh_is_whole(file, f"{file}.{thing.get('name')}.stl")


for file in sorted(folder.glob("*.stl")):
    volume, length = mesh_is_whole(file, file)
    solids = dict(meshes_of_3mf(file.with_suffix(".3mf")))
    want(abs(solids["forged"][0] / volume - 1) < 1e-4, file, f"{volume} mm³, and in 3MF {solids['forged']}")
    want(0 < solids["finished"][0] < volume, file, "the finished blade is not within the forged one")
    for named, (found, solid) in (("SVG", long_in_svg(file.with_suffix(".svg"))), ("DXF", long_in_dxf(file.with_suffix(".dxf")))):
        want(abs(found - solids[solid][1]) < 0.1, file, f"{solids[solid][1]} mm long, and in {named} {found}")
    want(abs(length - solids["forged"][1]) < 1e-3, file, "as long in both solids")
for file in sorted(folder.glob("*.json")):
    jsonschema.validate(json.loads(file.read_text()), patterns, jsonschema.Draft202012Validator)
    spoilt = json.loads(file.read_text())
    spoilt["lenght"] = 1
    try:
        jsonschema.validate(spoilt, patterns, jsonschema.Draft202012Validator)
    except jsonschema.ValidationError:
        continue
    sys.exit("the schema of patterns takes anything")
with zipfile.ZipFile(folder / "shop.zip") as z:
    jsonschema.validate(json.loads(z.read("shop.json")), shop, jsonschema.Draft202012Validator)
day = icalendar.Calendar.from_ical((folder / "day.ics").read_bytes())
events = [e for e in day.walk("VEVENT")]
want(len(events) == 9 and all(e["DTEND"].dt > e["DTSTART"].dt and e["SUMMARY"] for e in events), folder / "day.ics", "not nine appointments")
want(all(not e.errors for e in day.walk()), folder / "day.ics", "errors in it")
fires = sorted(folder.glob("*.session"))
want(len(fires) == 3, folder, "sessions of three pieces")
for file in fires:
    told = json.loads(file.read_text())
    jsonschema.validate(told, sessions, jsonschema.Draft202012Validator)
    # one that goes on from a piece as it was measured has been weighed, and no more
    want(told["events"] and (told["book"]["heats"] or told["course"].get("before")), file, "nothing happened")
for kind, words in (("pdf", "mm"), ("card", "heats"), ("bench", "Harden"), ("gauges", "50 mm"), ("made", "as made"), ("fittings", "50 mm"), ("customer", "steel"), ("page", "mm")):
    for file in sorted(folder.glob("*." + kind)):
        want(words.lower() in run("pdftotext", str(file), "-").lower(), file, f"{words!r} is not on it")
        want("Pages" in run("pdfinfo", str(file)), file, "no pages")
for file in sorted(folder.glob("*.fittingsSvg")):
    want(len(list(xml.parse(file).getroot().iter("{http://www.w3.org/2000/svg}path"))) > 1, file, "nothing is drawn")
    run("rsvg-convert", str(file), "-o", str(file) + ".png")
for file in sorted(folder.glob("*.fittingsDxf")):
    drawing = ezdxf.readfile(file)
    audit = drawing.audit()
    want(not audit.errors and not audit.fixes and len(drawing.modelspace()) > 0, file, f"{audit.errors} {audit.fixes}")
want(len(list(folder.glob("*.fittingsDxf"))) >= 2, folder, "fittings of two pieces at the least")
for file in sorted(folder.glob("*.share")):
    with zipfile.ZipFile(file) as z:
        want(z.testzip() is None and any(n.endswith(".json") for n in z.namelist()), file, "not a whole share")
for file in [folder / "rack.csv", *sorted(folder.glob("*.heats")), *sorted(folder.glob("*.log"))]:
    rows = list(csv.reader(file.open(encoding="utf-8", newline="")))
    want(len(rows) > 1 and len({len(r) for r in rows}) == 1, file, "not a table")
print(f"{sum(1 for f in folder.iterdir() if f.suffix != '.png')} files read by others")
