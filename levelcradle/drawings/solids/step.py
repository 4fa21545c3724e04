"""STEP (AP242): named solids in their places, bends round and holes true, for other design programs."""

import math
import tempfile
from collections.abc import Mapping, Sequence
from pathlib import Path
from typing import Any

from shapely.geometry import Point
from shapely.geometry.polygon import orient

from levelcradle.core.axes import Placement
from levelcradle.core.fold import FoldedFlat, FoldedPart, TurnedStrip
from levelcradle.core.solids import Solid, surface_of
from levelcradle.drawings.solids.bodies import Named

__all__ = ["step_files"]


def step_files(wanted: Mapping[str, tuple[Sequence[Named], str]]) -> dict[str, bytes]:
    """By its name each file of the bodies in it and its title; a shape that is in several is made once."""
    from OCP.Interface import Interface_Static
    from OCP.Message import Message
    from OCP.STEPCAFControl import STEPCAFControl_Controller

    Message.DefaultMessenger_s().ChangePrinters().Clear()  # it tells of its work on the terminal
    STEPCAFControl_Controller.Init_s()
    Interface_Static.SetCVal_s("write.step.schema", "AP242DIS")
    Interface_Static.SetCVal_s("write.step.unit", "MM")
    made = dict[str, Any]()
    return {name: _written(_document(bodies, title, made)) for name, (bodies, title) in wanted.items()}


def _written(document: Any) -> bytes:
    from OCP.IFSelect import IFSelect_ReturnStatus
    from OCP.STEPCAFControl import STEPCAFControl_Writer

    writer = STEPCAFControl_Writer()
    writer.SetNameMode(True)
    writer.Transfer(document)
    with tempfile.TemporaryDirectory() as folder:  # the library writes to files only
        path = Path(folder) / "a.step"
        if writer.Write(str(path)) != IFSelect_ReturnStatus.IFSelect_RetDone:
            raise RuntimeError("the solid kernel could not write the file")
        return path.read_bytes()


def _document(bodies: Sequence[Named], title: str, made: dict[str, Any]) -> Any:
    """One assembly, in millimetres: under the title a node for each group, under it each body by its name. Bodies that
    are alike are one shape, shown at several places."""
    from OCP.TCollection import TCollection_ExtendedString
    from OCP.TDocStd import TDocStd_Document
    from OCP.XCAFDoc import XCAFDoc_DocumentTool

    document = TDocStd_Document(TCollection_ExtendedString("XmlXCAF"))
    tool = XCAFDoc_DocumentTool.ShapeTool_s(document.Main())
    tool.SetAutoNaming_s(False)
    top = _assembly(tool, title)
    groups, shapes = dict[str, Any](), dict[str, Any]()
    for body in bodies:
        if body.group not in groups:
            groups[body.group] = _assembly(tool, body.group)
            _component(tool, top, groups[body.group], _location(None), body.group)
        if body.key not in shapes:
            if body.key not in made:
                made[body.key] = _shape(body)
            shapes[body.key] = tool.AddShape(made[body.key], False)
            _named(shapes[body.key], body.name)
        _component(tool, groups[body.group], shapes[body.key], _location(body.placement), body.name)
    tool.UpdateAssemblies()
    return document


def _assembly(tool: Any, name: str) -> Any:
    from OCP.BRep import BRep_Builder
    from OCP.TopoDS import TopoDS_Compound

    compound = TopoDS_Compound()
    BRep_Builder().MakeCompound(compound)
    label = tool.AddShape(compound, True)
    _named(label, name)
    return label


def _component(tool: Any, assembly: Any, shape: Any, location: Any, name: str) -> None:
    _named(tool.AddComponent(assembly, shape, location), name)


def _named(label: Any, name: str) -> None:
    from OCP.TCollection import TCollection_ExtendedString
    from OCP.TDataStd import TDataStd_Name

    TDataStd_Name.Set_s(label, TCollection_ExtendedString(name, True))


def _location(placement: Placement | None) -> Any:
    from OCP.TopLoc import TopLoc_Location

    return TopLoc_Location(_transform(placement)) if placement else TopLoc_Location()


def _transform(placement: Placement) -> Any:
    from OCP.gp import gp_Trsf

    found = gp_Trsf()
    rows = [(*map(float, row), float(at)) for row, at in zip(placement.turn, placement.origin, strict=True)]
    found.SetValues(*rows[0], *rows[1], *rows[2])
    return found


def _shape(body: Named) -> Any:
    """The body in its own frame."""
    if isinstance(body.shape, FoldedPart):
        thick = body.shape.part.thickness_mm
        flats = [_flat(flat, body.shape) for flat in body.shape.flats]
        return _joined([*flats, *(_bend(strip, thick) for strip in body.shape.strips)])
    return _joined([_solid(solid) for solid in body.shape])


def _joined(shapes: Sequence[Any]) -> Any:
    """One solid of several that touch, their common faces gone."""
    from OCP.BRepAlgoAPI import BRepAlgoAPI_Fuse
    from OCP.collections import List_TopoDS_Shape
    from OCP.ShapeUpgrade import ShapeUpgrade_UnifySameDomain

    if len(shapes) == 1:
        return shapes[0]
    arguments, tools = List_TopoDS_Shape(), List_TopoDS_Shape()
    arguments.Append(shapes[0])
    for shape in shapes[1:]:
        tools.Append(shape)
    fuse = BRepAlgoAPI_Fuse()
    fuse.SetArguments(arguments)
    fuse.SetTools(tools)
    fuse.Build()
    united = ShapeUpgrade_UnifySameDomain(fuse.Shape(), True, True, False)
    united.Build()
    return united.Shape()


def _flat(flat: FoldedFlat, folded: FoldedPart) -> Any:
    """A piece of sheet with its round holes."""
    from OCP.BRepBuilderAPI import BRepBuilderAPI_MakeEdge, BRepBuilderAPI_MakeFace, BRepBuilderAPI_MakeWire
    from OCP.BRepPrimAPI import BRepPrimAPI_MakePrism
    from OCP.gp import gp_Ax2, gp_Circ, gp_Dir, gp_Pnt, gp_Vec

    corners = list(orient(flat.ring).exterior.coords)[:-1]  # round holes run the other way
    face = BRepBuilderAPI_MakeFace(_wire([(x, y, 0.0) for x, y in corners]))
    for hole in folded.part.holes:
        if flat.ring.contains(Point(hole.at)):
            circle = gp_Circ(gp_Ax2(gp_Pnt(*hole.at, 0.0), gp_Dir(0, 0, -1)), hole.diameter_mm / 2)
            face.Add(BRepBuilderAPI_MakeWire(BRepBuilderAPI_MakeEdge(circle).Edge()).Wire())
    for cutout in folded.part.cutouts:
        if flat.ring.contains(Point(cutout.middle)):
            face.Add(_wire([(x, y, 0.0) for x, y in reversed(cutout.outline)]))
    sheet = BRepPrimAPI_MakePrism(face.Face(), gp_Vec(0, 0, folded.part.thickness_mm)).Shape()
    return _moved(sheet, flat.placement)


def _bend(strip: TurnedStrip, thickness_mm: float) -> Any:
    """A part of a round tube: the end of the sheet turned about the bend's axis."""
    from OCP.BRepBuilderAPI import BRepBuilderAPI_MakeFace
    from OCP.BRepPrimAPI import BRepPrimAPI_MakeRevol
    from OCP.gp import gp_Ax1, gp_Dir, gp_Pnt

    corners = [(0.0, 0.0), (strip.length_mm, 0.0), (strip.length_mm, thickness_mm), (0.0, thickness_mm)]
    face = BRepBuilderAPI_MakeFace(_wire([(x, 0.0, z) for x, z in corners])).Face()
    axis = gp_Ax1(gp_Pnt(0.0, 0.0, strip.axis_mm), gp_Dir(1, 0, 0))
    turned = BRepPrimAPI_MakeRevol(face, axis, math.radians(strip.angle_deg)).Shape()
    return _moved(turned, strip.placement)


def _solid(solid: Solid) -> Any:
    """A convex solid by its flat faces; a rod as a round bar."""
    if solid.radius_mm:
        return _bar(solid)
    from OCP.BRepBuilderAPI import BRepBuilderAPI_MakeFace, BRepBuilderAPI_MakeSolid, BRepBuilderAPI_Sewing
    from OCP.ShapeUpgrade import ShapeUpgrade_UnifySameDomain
    from OCP.TopAbs import TopAbs_ShapeEnum
    from OCP.TopExp import TopExp_Explorer
    from OCP.TopoDS import TopoDS

    points, triangles = surface_of(solid)
    sewing = BRepBuilderAPI_Sewing(1e-4)
    for triangle in triangles:
        sewing.Add(BRepBuilderAPI_MakeFace(_wire([tuple(map(float, points[n])) for n in triangle])).Face())
    sewing.Perform()
    united = ShapeUpgrade_UnifySameDomain(sewing.SewedShape(), True, True, False)
    united.Build()
    shell = TopoDS.Shell(TopExp_Explorer(united.Shape(), TopAbs_ShapeEnum.TopAbs_SHELL).Current())
    return BRepBuilderAPI_MakeSolid(shell).Solid()


def _bar(solid: Solid) -> Any:
    from OCP.BRepPrimAPI import BRepPrimAPI_MakeCylinder
    from OCP.gp import gp_Ax2, gp_Dir, gp_Pnt

    start, end = (tuple(map(float, point)) for point in solid.points)
    way = tuple(b - a for a, b in zip(start, end, strict=True))
    long = sum(v * v for v in way) ** 0.5
    return BRepPrimAPI_MakeCylinder(gp_Ax2(gp_Pnt(*start), gp_Dir(*way)), solid.radius_mm, long).Shape()


def _wire(points: Sequence[tuple[float, ...]]) -> Any:
    from OCP.BRepBuilderAPI import BRepBuilderAPI_MakePolygon
    from OCP.gp import gp_Pnt

    polygon = BRepBuilderAPI_MakePolygon()
    for point in points:
        polygon.Add(gp_Pnt(*point))
    polygon.Close()
    return polygon.Wire()


def _moved(shape: Any, placement: Placement) -> Any:
    from OCP.BRepBuilderAPI import BRepBuilderAPI_Transform

    return BRepBuilderAPI_Transform(shape, _transform(placement), True).Shape()
