"""Triangle meshes for viewing (glTF) and printing (STL)."""

from collections.abc import Iterable

import numpy as np

from levelcradle.core.fold import FoldedPart
from levelcradle.core.solids import joined
from levelcradle.drawings.solids.bodies import Named

__all__ = ["glb_bytes", "stl_bytes"]

TO_METRES = 0.001
# glTF looks with y up and at +z: the car's up becomes y, its nose looks at the reader
TURNED = np.array([[0.0, -1.0, 0.0, 0.0], [0.0, 0.0, 1.0, 0.0], [-1.0, 0.0, 0.0, 0.0], [0.0, 0.0, 0.0, 1.0]])


def glb_bytes(bodies: Iterable[Named]) -> bytes:
    """Every body as a node with its name, in metres and with y up, as the format asks (glTF 2.0, 3.4 units)."""
    import trimesh

    scene = trimesh.Scene()
    for number, body in enumerate(bodies):
        mesh = _mesh(body)
        mesh.apply_scale(TO_METRES)
        mesh.apply_transform(TURNED)
        scene.add_geometry(mesh, node_name=f"{body.group} / {body.name}", geom_name=f"{number} {body.name}")
    return bytes(scene.export(file_type="glb"))


def stl_bytes(bodies: Iterable[Named]) -> bytes:
    """All bodies in one, in the vehicle's axes, in millimetres."""
    import trimesh

    return bytes(trimesh.util.concatenate([_mesh(body) for body in bodies]).export(file_type="stl"))


def _mesh(body: Named):  # type: ignore[no-untyped-def]
    import trimesh

    points, triangles = body.shape.mesh() if isinstance(body.shape, FoldedPart) else joined(body.shape)
    return trimesh.Trimesh(body.placement.points(points), triangles, process=False)
