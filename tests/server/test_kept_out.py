"""What keeps strangers out: the name one calls it by, who may undo, what an instrument may be, and files that unfold
without end."""

import io
import json
import struct
from typing import Any

import ezdxf
import pytest
from fastapi.testclient import TestClient

from levelcradle.core.errors import ReadingError
from levelcradle.exchange import FileRefused, read_outlines, read_scan
from levelcradle.instruments import Instruments

PATCH = {"patch": [{"op": "replace", "path": "/name", "value": "other"}]}


@pytest.mark.parametrize("host", ["evil.example:8460", "evil.example", "127.0.0.1.evil.example", "169.254.1.1", ""])
def test_a_page_that_calls_it_by_another_name_gets_nothing(client: TestClient, car: str, host: str) -> None:
    """Rebinding: the foreign page's own name leads here, so that Host and Origin agree."""
    for method, path, more in (
        ("GET", f"/api/projects/{car}", {}),
        ("PATCH", f"/api/projects/{car}", {"json": PATCH}),
        ("GET", "/", {}),
    ):
        answer = client.request(
            method, path, headers={"Host": host, "Origin": f"http://{host}", "If-Match": "1"}, **more
        )  # type: ignore[arg-type]
        assert answer.status_code in (400, 421), path
    assert client.get(f"/api/projects/{car}").json()["revision"] == 1


@pytest.mark.parametrize("host", ["127.0.0.1:8460", "localhost:8460", "[::1]:8460"])
def test_its_own_names_are_answered(client: TestClient, car: str, host: str) -> None:
    assert client.get(f"/api/projects/{car}", headers={"Host": host}).status_code == 200


@pytest.mark.parametrize(
    "address",
    ["169.254.169.254:8080", "[fe80::1]:8080", "0.0.0.0:8080", "8.8.8.8:8080", "127.0.0.1:80", "127.0.0.1:8460"],
)
def test_an_instrument_lies_in_the_workshops_network_and_is_not_the_application(address: str) -> None:
    with pytest.raises(ReadingError):
        Instruments(own_ports=(8460,)).listen(address)


def nested(levels: int, each: int) -> bytes:
    """A drawing of a line in a block, so many of which are in the next, and so on."""
    document = ezdxf.new()
    document.blocks.new("b0").add_line((0, 0), (1, 1))
    for n in range(1, levels + 1):
        block = document.blocks.new(f"b{n}")
        for k in range(each):
            block.add_blockref(f"b{n - 1}", (k, 0))
    document.modelspace().add_blockref(f"b{levels}", (0, 0))
    stream = io.StringIO()
    document.write(stream)
    return stream.getvalue().encode()


@pytest.mark.parametrize("levels", [7, 12, 30])
def test_blocks_in_blocks_are_counted_before_they_are_opened(levels: int) -> None:
    data = nested(levels, 6)
    with pytest.raises(FileRefused, match="more than"):
        read_outlines(data, "mm")


def instances(levels: int, each: int) -> bytes:
    """A GLB of one triangle, its node named so often by the next, and so on; the file is small."""
    points = struct.pack("<9f", 0, 0, 0, 1, 0, 0, 0, 1, 0)
    nodes: list[dict[str, Any]] = [{"mesh": 0}, *({"children": [n] * each} for n in range(levels))]
    tree = {
        "asset": {"version": "2.0"}, "scene": 0, "scenes": [{"nodes": [levels]}], "nodes": nodes,
        "meshes": [{"primitives": [{"attributes": {"POSITION": 0}}]}], "buffers": [{"byteLength": len(points)}],
        "accessors": [{"bufferView": 0, "componentType": 5126, "count": 3, "type": "VEC3", "min": [0, 0, 0], "max": [1,
        1, 0]}],
        "bufferViews": [{"buffer": 0, "byteLength": len(points)}],
    }  # fmt: skip
    text = json.dumps(tree).encode()
    text += b" " * (-len(text) % 4)
    body = struct.pack("<II", len(text), 0x4E4F534A) + text + struct.pack("<II", len(points), 0x004E4942) + points
    return struct.pack("<III", 0x46546C67, 2, 12 + len(body)) + body


def test_instances_are_counted_before_they_are_unfolded() -> None:

    with pytest.raises(FileRefused, match="more than"):
        read_scan(instances(9, 10), "m", 1.0)
