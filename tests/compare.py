"""What a change did to the answers: the same designs through an earlier commit and through this checkout, all that
differs told.

Run: .venv/bin/python -m tests.compare COMMIT [--designs 60] [--seed 1] [--renamed old=new,…]

Exit code 1 where anything differs: a finding's state, figures, words or working; a figure of a box, a mount or a load;
a file of the fabrication pack. The designs (the demo, and random ones made from it, as many as the earlier commit
takes) are made and stored by the earlier commit, so that a later format is compared through its upgrade. Both sides
speak through the commands and the API's form alone.
"""

import argparse
import contextlib
import hashlib
import io
import json
import os
import random
import re
import subprocess
import sys
import tempfile
from collections.abc import Callable, Iterator
from pathlib import Path
from typing import Any

ROOT = Path(__file__).parents[1]
WITHIN = 1e-9  # relative: sums in another order
Tree = dict[str, Any]


# --- in either checkout ---


def make_designs(folder: Path, count: int, seed: int) -> None:
    """Writes the demo and random designs that hold."""
    from levelcradle.core.design import dump, tree_of, validate
    from levelcradle.core.errors import DesignError
    from levelcradle.demo import demo_design

    demo, rng = demo_design(), random.Random(seed)
    (folder / "000.cradle.json").write_text(dump(demo))
    made = 1
    while made < count:
        tree = tree_of(demo)
        for change in rng.sample(CHANGES, rng.randint(2, 6)):
            change(rng, tree)
        with contextlib.suppress(DesignError):
            (folder / f"{made:03}.cradle.json").write_text(dump(validate(tree)))
            made += 1


def tell_answers(designs: Path, folder: Path) -> None:
    """Writes what every design is answered: findings with working, figures, and the pack's files by their content."""
    import ezdxf

    from levelcradle.cli import main
    from levelcradle.core.analysis import analyse
    from levelcradle.core.design import load
    from levelcradle.server.views import analysis_out

    ezdxf.options.write_fixed_meta_data_for_testing = True  # no hour of writing
    for file in sorted(designs.iterdir()):
        with contextlib.redirect_stdout(io.StringIO()) as said:
            main(["check", str(file), "--json"])
        pack = folder / f"{file.name}.pack"
        with contextlib.redirect_stdout(io.StringIO()):
            main(["drawings", str(file), str(pack)])
        files = {f.name: _content(f) for f in sorted(pack.iterdir())}
        figures = json.loads(
            analysis_out(analyse(load(file.read_bytes()), {})).model_dump_json(exclude={"findings", "watch"})
        )
        told = {**json.loads(said.getvalue()), "figures": figures, "files": files}
        told["findings"] = {row["id"]: row for row in told["findings"]}
        (folder / file.name).write_text(json.dumps(told))


def _content(file: Path) -> Any:
    data = file.read_bytes()
    return hashlib.sha256(data).hexdigest() if file.suffix == ".pdf" else data.decode("utf-8-sig").splitlines()


# --- random changes of a design of format 2 ---


def _any(rng: random.Random, rows: Tree) -> Any:
    return rows[rng.choice(sorted(rows))]


def _moved(rng: random.Random, tree: Tree) -> None:
    pose = _any(rng, tree["boxes"])["pose"]
    pose["at_mm"] = [v + rng.uniform(-40, 40) for v in pose["at_mm"]]


def _turned(rng: random.Random, tree: Tree) -> None:
    _any(rng, tree["boxes"])["pose"].update(
        yaw_deg=rng.choice([0, 90, 180, 4]), pitch_deg=rng.choice([0, 3, 90]), roll_deg=rng.choice([0, 0, -5, 90])
    )


def _made_of(rng: random.Random, tree: Tree) -> None:
    box = _any(rng, tree["boxes"])
    box["construction"].update(thickness_mm=rng.choice([1.5, 2, 3, 4]), bend_radius_mm=rng.choice([1, 3, 6]))
    box["material"] = rng.choice(["s235", "s355"])
    wall, floor = rng.choice([0, 2, 6]), rng.choice([0, 8])
    walls = {
        face: {"liner": {"type": "sheet", "thickness_mm": wall}} for face in ("front", "aft", "left", "right") if wall
    }
    box["layers"] = walls | ({"base": {"runner": {"type": "sheet", "thickness_mm": floor}}} if floor else {})


def _filled(rng: random.Random, tree: Tree) -> None:
    block = _any(rng, tree["boxes"])["blocks"]["a"]
    block["counts"] = {way: rng.randint(1, 4) for way in ("aft", "across", "up")}
    block["alternate"] = rng.choice([None, "aft", "up"])
    block["dividers"] = rng.choice([None, {"along": "aft", "every": 2, "thickness_mm": 2.0}])


def _closed(rng: random.Random, tree: Tree) -> None:
    lid = _any(rng, tree["boxes"])["closures"]["lid"]
    lid.update(clearance_mm=rng.uniform(0, 2), edge_mm=rng.uniform(15, 40))
    lid["screws"].update(spacing_mm=rng.uniform(60, 200), head_high_mm=rng.uniform(2, 6))


EDGES = [["front", "base"], ["aft", "base"], ["left", "base"], ["front", "left"], ["aft", "right"]]


def _cut(rng: random.Random, tree: Tree) -> None:
    cuts = rng.sample(EDGES, rng.randint(1, 2))
    _any(rng, tree["boxes"])["chamfers"] = {
        f"c{n}": {"edge": e, "mm": [rng.uniform(12, 40)] * 2} for n, e in enumerate(cuts)
    }


def _pierced(rng: random.Random, tree: Tree) -> None:
    face, from_ = rng.choice([("left", ["front", "base"]), ("aft", ["left", "base"]), ("top", ["front", "left"])])
    place = {"face": face, "from": from_, "u_mm": rng.uniform(30, 120), "v_mm": rng.uniform(30, 120)}
    box = _any(rng, tree["boxes"])
    box["openings"] = {"o": {"name": "hole", **place, "diameter_mm": rng.uniform(6, 40)}}
    kind = rng.choice(["gland", "hose tail", "handle", "lifting eye"])
    box["protrusions"] = {
        "p": {
            "name": "tail",
            "kind": kind,
            **place,
            "across_mm": 20.0,
            "out_mm": rng.uniform(10, 60),
            "bend_radius_mm": rng.choice([0, 40]),
        }
    }


def _said(rng: random.Random, tree: Tree) -> None:
    box = _any(rng, tree["boxes"])
    box.update(
        sealing=rng.choice([None, "gasket", "open"]), vented_outside=rng.choice([None, True]), order=rng.randint(0, 3)
    )
    how = rng.choice([None, "rods", "straps", "own_holes"])
    box["holders"] = {"h": {"type": how, "block": next(iter(box["blocks"]))}} if how and box["blocks"] else {}
    box["construction"]["folder"] = {"name": "he", "deduction_mm": rng.choice([None, 5.2, 9.0])}
    box["finish"] = {"coats": rng.randint(0, 3), "coat_mm": 0.1, "beads_ground": rng.random() < 0.5, "bead_mm": 2.0}


def _hung(rng: random.Random, tree: Tree) -> None:
    mount = _any(rng, tree["mounts"])
    mount["shape"].update(
        thickness_mm=rng.choice([4, 6, 10]), width_mm=rng.uniform(50, 120), toe_mm=rng.uniform(18, 40)
    )
    mount["lands_on"]["bolt"] = {
        "size": rng.choice(["M8", "M10", "M12"]),
        "property_class": rng.choice(["8.8", "10.9"]),
    }
    plate = {"thickness_mm": 3.0, "along_w_mm": 140.0, "along_n_mm": 150.0, "from_contact_mm": 20.0}
    mount["to_box"]["doubler"] = rng.choice([None, plate])


def _dropped(rng: random.Random, tree: Tree) -> None:
    tree["mounts"].pop(rng.choice(sorted(tree["mounts"])))


def _beside(rng: random.Random, tree: Tree) -> None:
    thing = _any(rng, {key: row for key, row in tree["items"].items() if row["solid"]})
    thing.update(
        gap_class=rng.choice(["same", "other", "moving", "axle", "hot"]),
        structure=rng.choice(["body", "frame", "axle"]),
    )


def _fixed(rng: random.Random, tree: Tree) -> None:
    thing, box = (
        _any(rng, {k: r for k, r in tree["items"].items() if r["state"] == "in" and r["solid"]}),
        rng.choice(sorted(tree["boxes"])),
    )
    thing["place"] = {"type": "box", "box": box, "face": rng.choice(["base", "left", "top"]), "from": ["front", "left"],
    "u_mm": 100.0,
                      "v_mm": 100.0, "off_mm": rng.choice([-80.0, 60.0])}  # fmt: skip
    if thing["place"]["face"] == "left":
        thing["place"]["from"] = ["front", "base"]


def _agreed(rng: random.Random, tree: Tree) -> None:
    box, thing = (
        rng.choice(sorted(tree["boxes"])),
        rng.choice(sorted(k for k, row in tree["items"].items() if row["solid"])),
    )
    tree["agreed_gaps"]["g"] = {
        "one": f"boxes/{box}",
        "other": f"items/{thing}",
        "need_mm": rng.uniform(0, 30),
        "reason": "tried",
    }


def _weighed(rng: random.Random, tree: Tree) -> None:
    vehicle = tree["vehicle"]
    read = {"type": "axles", "front_kg": rng.uniform(450, 600), "rear_kg": rng.uniform(400, 500), "step_kg": 20.0}
    tree["weighings"]["as-found"] = {"kind": "as found", "read": read}
    vehicle["bump_mm"] = rng.choice([None, {"front": 60.0, "rear": 70.0}])
    tree["load_states"].pop("four-up", None)


def _spaced(rng: random.Random, tree: Tree) -> None:
    bay = _any(rng, tree["bays"])
    side = rng.choice(["fore", "aft", "left", "right", "floor", "top"])
    bay["sides"][side].update(
        {"is": rng.choice(["metal", "open", "not measured"]), "gap_class": rng.choice(["same", "other"])}
    )
    bay["flags"] = dict.fromkeys(rng.sample(["passenger", "wet", "hot"], rng.randint(0, 1)), True)


CHANGES: list[Callable[[random.Random, Tree], None]] = [
    _moved, _turned, _made_of, _filled, _closed, _cut, _pierced, _said, _hung, _dropped, _beside, _fixed, _agreed,
    _weighed, _spaced,
]  # fmt: skip


# --- comparing ---


def main() -> int:
    parser = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    parser.add_argument("commit")
    parser.add_argument("--designs", type=int, default=60)
    parser.add_argument("--seed", type=int, default=1)
    parser.add_argument(
        "--within", type=float, default=WITHIN, help="figures, also those in words, may move by this share"
    )
    parser.add_argument("--rows", type=int, default=12, help="differences told of one design")
    parser.add_argument(
        "--renamed", default="", help="fields that have another name now, such as says=message,shows=label"
    )
    asked = parser.parse_args()
    renamed = dict(pair.split("=") for pair in asked.renamed.split(",") if pair)
    with tempfile.TemporaryDirectory() as place:
        base = Path(place) / "base"
        subprocess.run(["git", "worktree", "add", "-q", "--detach", str(base), asked.commit], cwd=ROOT, check=True)
        try:
            designs, before, now = (Path(place) / name for name in ("designs", "before", "now"))
            for folder in (designs, before, now):
                folder.mkdir()
            _in(base, f"make_designs(Path({str(designs)!r}), {asked.designs}, {asked.seed})")
            _in(base, f"tell_answers(Path({str(designs)!r}), Path({str(before)!r}))")
            _in(ROOT, f"tell_answers(Path({str(designs)!r}), Path({str(now)!r}))")
            return _compare(before, now, renamed, asked.within, asked.rows)
        finally:
            subprocess.run(["git", "worktree", "remove", "--force", str(base)], cwd=ROOT, check=True)


def _in(checkout: Path, call: str) -> None:
    """Runs a function of this file with another checkout's code."""
    paths = [str(checkout), str(ROOT / "tests")]
    code = f"import sys; sys.path[:0] = {paths!r}\nfrom compare import *\n{call}"
    alike = {**os.environ, "PYTHONHASHSEED": "0"}  # files whose rows lie in a set come out alike
    subprocess.run([sys.executable, "-c", code], cwd=checkout, check=True, env=alike)


def _compare(before: Path, now: Path, renamed: dict[str, str], within: float, most: int) -> int:
    differ = total = 0
    for file in sorted(before.glob("*.json")):
        earlier = json.loads(file.read_text(), object_hook=lambda row: {renamed.get(k, k): v for k, v in row.items()})
        rows = list(_differences(earlier, json.loads((now / file.name).read_text()), "", within))
        total += 1
        differ += bool(rows)
        for row in rows[:most]:
            print(f"{file.name}{row}")
        if len(rows) > most:
            print(f"{file.name}: and {len(rows) - most} more")
    print(f"{differ} of {total} designs are answered otherwise")
    return 1 if differ else 0


NUMBER = re.compile(r"\d+(?:\.\d+)?")


def _differences(a: Any, b: Any, at: str, within: float) -> Iterator[str]:
    if isinstance(a, dict) and isinstance(b, dict):
        for key in sorted({*a, *b}):
            if key not in a or key not in b:
                yield f"{at}/{key}: only {'before' if key in a else 'now'}"
            else:
                yield from _differences(a[key], b[key], f"{at}/{key}", within)
    elif isinstance(a, list) and isinstance(b, list) and len(a) == len(b):
        for n, (one, other) in enumerate(zip(a, b, strict=True)):
            yield from _differences(one, other, f"{at}/{n}", within)
    elif isinstance(a, (int, float)) and isinstance(b, (int, float)):
        if abs(a - b) > within * max(1.0, abs(a), abs(b)):
            yield f"{at}: {a} → {b}"
    elif isinstance(a, str) and isinstance(b, str) and within > WITHIN and NUMBER.sub("", a) == NUMBER.sub("", b):
        pairs = zip(map(float, NUMBER.findall(a)), map(float, NUMBER.findall(b)), strict=True)
        yield from (row for pair in pairs for row in _differences(*pair, at, within))
    elif a != b:
        yield f"{at}: {str(a)[:90]} → {str(b)[:90]}"


if __name__ == "__main__":
    sys.exit(main())
