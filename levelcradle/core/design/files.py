"""Reading and writing the document as JSON text (``*.cradle.json``)."""

import json
from collections.abc import Mapping
from functools import cache
from typing import Any

from pydantic import BaseModel, ValidationError
from pydantic_core import ErrorDetails

from levelcradle.core.design.design import Design, broken_references
from levelcradle.core.design.lines import line_of
from levelcradle.core.design.upgrade import FORMAT, upgraded
from levelcradle.core.errors import DesignError, Problem

__all__ = ["FORMAT", "LARGEST_BYTES", "document_path", "dump", "load", "problems_of", "schema", "validate"]

LARGEST_BYTES = 10_000_000
DEEPEST = 32
MOST_PROBLEMS = 50


def load(data: bytes | str) -> Design:
    """The design in a file. Raises DesignError with a path and a sentence for everything that is wrong."""
    raw = data.encode("utf-8", "surrogatepass") if isinstance(data, str) else data
    if len(raw) > LARGEST_BYTES:
        raise _refuse("", "the file is larger than 10 MB")
    try:
        text = raw.decode("utf-8")
    except UnicodeDecodeError:
        raise _refuse("", "the file is not UTF-8 text") from None
    if _depth(text) > DEEPEST:
        raise _refuse("", f"the file is nested deeper than {DEEPEST} levels")
    tree = _parse(text)
    try:
        return validate(tree)
    except DesignError as error:
        raise DesignError(tuple(_on_its_line(problem, text) for problem in error.problems)) from None


def _on_its_line(problem: Problem, text: str) -> Problem:
    line = line_of(text, problem.path)
    return problem if line is None else Problem(problem.path, f"{problem.message} (line {line})")


def validate(tree: Any, like: tuple[Mapping[str, Any], Design] | None = None) -> Design:
    """A design from a parsed JSON tree of this format or an earlier one. Raises DesignError.

    ``like``: another tree with the design that it is; what the two trees share is not read again, so what follows from
    it is found where it is kept."""
    if not isinstance(tree, dict):
        raise _refuse("", "a design is a JSON object")
    tree = upgraded(tree)
    if tree.get("format") != FORMAT:
        raise _refuse("/format", f"this version reads formats 1 to {FORMAT}, not {str(tree.get('format'))[:20]}")
    try:
        design = Design.model_validate(_sharing(tree, *like) if like else tree)
    except ValidationError as error:
        raise DesignError(problems_of(error)) from None
    broken = tuple(broken_references(design))[:MOST_PROBLEMS]
    if broken:
        raise DesignError(broken)
    return design


def _sharing(tree: Mapping[str, Any], other: Mapping[str, Any], design: Design) -> dict[str, Any]:
    """By its model whatever is the very same in both trees: a part of the document, or a row of a collection."""
    found: dict[str, Any] = {}
    for name, part in tree.items():
        was, made = other.get(name), getattr(design, name, None)
        if part is was and isinstance(made, BaseModel):
            found[name] = made
        elif isinstance(part, dict) and isinstance(was, dict) and isinstance(made, dict):
            found[name] = {key: made[key] if key in made and row is was.get(key) else row for key, row in part.items()}
        else:
            found[name] = part
    return found


def dump(design: Design) -> str:
    """The document as JSON text; keys in the order they were given."""
    return json.dumps(tree_of(design), ensure_ascii=False, allow_nan=False)


def tree_of(design: Design) -> dict[str, Any]:
    return design.model_dump(mode="json", by_alias=True, exclude_defaults=False)


def schema() -> dict[str, Any]:
    """JSON Schema of the document."""
    return Design.model_json_schema(by_alias=True)


def _refuse(path: str, message: str) -> DesignError:
    return DesignError((Problem(path, message),))


def _parse(text: str) -> Any:
    def constant(name: str) -> None:
        raise _refuse("", f"{name} is no number")

    try:
        return json.loads(text, parse_constant=constant)
    except json.JSONDecodeError as error:
        raise _refuse("", f"the JSON breaks off or is wrong at line {error.lineno}, column {error.colno}") from None
    except (RecursionError, ValueError) as error:
        if isinstance(error, DesignError):
            raise
        raise _refuse("", "the JSON holds a number that cannot be read") from None


def _depth(text: str) -> int:
    """Deepest nesting of brackets outside strings, found without parsing."""
    deepest = depth = 0
    inside = escaped = False
    for char in text:
        if inside:
            if escaped:
                escaped = False
            elif char == "\\":
                escaped = True
            elif char == '"':
                inside = False
        elif char == '"':
            inside = True
        elif char in "[{":
            depth += 1
            deepest = max(deepest, depth)
            if deepest > DEEPEST:
                return deepest
        elif char in "]}":
            depth -= 1
    return deepest


_SAYS = {
    "missing": "is missing",
    "extra_forbidden": "is not part of a design",
    "finite_number": "must be a finite number",
    "float_type": "must be a number",
    "int_type": "must be a whole number",
    "string_type": "must be text",
    "bool_type": "must be true or false",
}


def problems_of(error: ValidationError) -> tuple[Problem, ...]:
    """Pydantic's errors as document paths and sentences; the input is never echoed."""
    return tuple(
        Problem(document_path(e["loc"]), _sentence(e)) for e in error.errors(include_input=False)[:MOST_PROBLEMS]
    )


def document_path(location: tuple[int | str, ...]) -> str:
    """Pydantic's location without its union tags and key markers, as a JSON pointer."""

    fields, kinds = _tags()

    def is_tag(i: int, step: int | str) -> bool:
        if step == "[key]":
            return True
        return (step in kinds and i > 0 and location[i - 1] in fields) or (
            step in _STATION_TAGS and i > 1 and location[i - 2] == "stations"
        )

    keep = [str(step) for i, step in enumerate(location) if not is_tag(i, step)]
    return "".join("/" + step.replace("~", "~0").replace("/", "~1") for step in keep)


_STATION_TAGS = {"sides", "widths", "leans", "points", "edge"}  # these follow a station's own id


@cache
def _tags() -> tuple[frozenset[str], frozenset[str]]:
    """(names of the fields that are one of several kinds, names of the kinds), as the schema has them."""
    fields: set[str] = set()
    kinds: set[str] = set()

    def walk(node: Any, name: str) -> None:
        if isinstance(node, list):
            for part in node:
                walk(part, name)
        elif isinstance(node, dict):
            if "discriminator" in node:
                fields.add(name)
                kinds.update(node["discriminator"]["mapping"])
            for key, part in node.get("properties", {}).items():
                walk(part, key)
            for part in (*node.get("$defs", {}).values(), node.get("anyOf"), node.get("items")):
                walk(part, name)

    walk(schema(), "")
    return frozenset(fields), frozenset(kinds)


def _sentence(error: ErrorDetails) -> str:
    kind, context = error["type"], error.get("ctx", {})
    if kind in _SAYS:
        return _SAYS[kind]
    if kind == "value_error":
        return str(context.get("error", "is wrong"))
    limits = {
        "greater_than": ("gt", "must be more than"),
        "greater_than_equal": ("ge", "must be at least"),
        "less_than": ("lt", "must be less than"),
        "less_than_equal": ("le", "must be at most"),
    }
    if kind in limits:
        key, words = limits[kind]
        return f"{words} {context[key]:g}"
    if kind == "literal_error":
        return f"must be {context['expected']}"
    if kind == "too_short":
        return f"needs at least {context['min_length']}"
    if kind == "too_long":
        return f"holds more than {context['max_length']} entries"
    if kind == "string_pattern_mismatch":
        return (
            "must be lower-case letters, digits and hyphens"
            if "a-z0-9" in str(context.get("pattern"))
            else "has the wrong form"
        )
    return error["msg"][:1].lower() + error["msg"][1:200]
