"""Solid files, read back by programs that know nothing of ours: volumes and extents agree within 0.1 %."""

import copy
import io
import math
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import numpy as np
import pytest
import trimesh

from levelcradle.core.assembly import resolve
from levelcradle.core.design import validate
from levelcradle.core.fold import FoldedPart
from levelcradle.core.solids import joined
from levelcradle.drawings import subject_of
from levelcradle.drawings.solids import Named, glb_bytes, named_bodies, step_files, stl_bytes
from tests.conftest import DEMO


@pytest.fixture(scope="module")
def bodies() -> list[Named]:
    """The demo, its tank box cut apart for its folder and with a service panel: folds, panels, openings, covers."""
    tree = copy.deepcopy(DEMO)
    tank = tree["boxes"]["tank"]
    tank["construction"]["folder"] = {"deepest_mm": 200.0}
    hatch = {"name": "hatch", "face": "aft", "from": ["left", "base"], "u_mm": 140, "v_mm": 110, "size_mm": [120, 90]}
    tank["service_panels"] = {"hatch": hatch}
    return list(named_bodies(subject_of(resolve(validate(tree), {}))))


def metal(body: Named) -> float:
    """Volume by hand: of a sheet its area and its bends (area of a ring's part times length), of a bar its circle."""
    if isinstance(body.shape, FoldedPart):
        part, t = body.shape.part, body.shape.part.thickness_mm
        bends = sum(
            math.dist(bend.start, bend.end)
            * t
            * (math.radians(bend.angle_deg) * (bend.radius_mm + t / 2) - bend.allowance_mm)
            for bend in part.bends
        )
        return part.area_mm2 * t + bends
    (solid,) = body.shape
    if solid.radius_mm:
        return math.pi * solid.radius_mm**2 * math.dist(*solid.points)
    return meshed(body)[0]


def meshed(body: Named) -> tuple[float, np.ndarray]:  # type: ignore[type-arg]
    """Volume and extent of a body in the vehicle, from the triangles that our own kernel makes of it."""
    points, triangles = body.shape.mesh() if isinstance(body.shape, FoldedPart) else joined(body.shape)
    a, b, c = (points[triangles[:, n]] for n in range(3))
    placed = body.placement.points(points)
    return float(np.einsum("ij,ij->i", a, np.cross(b, c)).sum() / 6), np.array([placed.min(axis=0), placed.max(axis=0)])


def solids_in(path: Path) -> Iterator[tuple[float, np.ndarray]]:  # type: ignore[type-arg]
    from OCP.Bnd import Bnd_Box
    from OCP.BRepBndLib import BRepBndLib
    from OCP.BRepGProp import BRepGProp
    from OCP.GProp import GProp_GProps
    from OCP.IFSelect import IFSelect_ReturnStatus
    from OCP.STEPControl import STEPControl_Reader
    from OCP.TopAbs import TopAbs_ShapeEnum
    from OCP.TopExp import TopExp_Explorer

    reader = STEPControl_Reader()
    assert reader.ReadFile(str(path)) == IFSelect_ReturnStatus.IFSelect_RetDone
    reader.TransferRoots()
    found: Any = TopExp_Explorer(reader.OneShape(), TopAbs_ShapeEnum.TopAbs_SOLID)
    while found.More():
        properties, box = GProp_GProps(), Bnd_Box()
        BRepGProp.VolumeProperties_s(found.Current(), properties)
        BRepBndLib.AddOptimal_s(found.Current(), box)
        corners = [(p.X(), p.Y(), p.Z()) for p in (box.CornerMin(), box.CornerMax())]
        yield properties.Mass(), np.array(corners)
        found.Next()


def test_step_read_by_a_general_kernel_has_every_body_as_one_solid_in_its_place(
    bodies: list[Named], tmp_path: Path
) -> None:
    path = tmp_path / "whole.step"
    path.write_bytes(step_files({"whole": (bodies, "A car <&> 'quoted' Ж")})["whole"])
    read, left = list(solids_in(path)), [(metal(body), meshed(body)[1]) for body in bodies]
    assert len(read) == len(left)
    for volume, extent in read:
        near = min(range(len(left)), key=lambda n: float(np.abs(left[n][1] - extent).sum()))
        mine, there = left.pop(near)
        assert volume == pytest.approx(mine, rel=1e-3)
        assert extent == pytest.approx(there, abs=0.2)


def test_step_names_the_boxes_and_parts(bodies: list[Named]) -> None:
    text = step_files({"a": (bodies, "A car")})["a"].decode("ascii", "replace")
    for name in ("A car", "B Tank box", "B1 Tank box tray"):
        assert f"PRODUCT('{name}'" in text
    assert "AP242" in text
    assert "SI_UNIT(.MILLI.,.METRE.)" in text


def test_gltf_and_stl_hold_the_same_metal(bodies: list[Named]) -> None:
    volume = sum(meshed(body)[0] for body in bodies)
    scene = trimesh.load_scene(io.BytesIO(glb_bytes(bodies)), file_type="glb")
    assert sum(mesh.volume for mesh in scene.geometry.values()) * 1e9 == pytest.approx(volume, rel=1e-3)
    low, high = scene.bounds
    assert 0.2 < low[1] < high[1] < 1.0, "up is y, in metres"
    printed = trimesh.load_mesh(io.BytesIO(stl_bytes(bodies)), file_type="stl")
    assert printed.volume == pytest.approx(volume, rel=1e-3)
    extents = np.array([meshed(body)[1] for body in bodies])
    assert printed.bounds == pytest.approx(np.array([extents[:, 0].min(axis=0), extents[:, 1].max(axis=0)]), abs=0.01)
