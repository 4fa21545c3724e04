"""Problem details (RFC 9457): one table from our errors to answers. Input is never echoed."""

from collections.abc import Callable
from typing import Any

from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse, Response
from starlette.exceptions import HTTPException

from levelcradle.core.errors import CradleError, DesignError, OutOfRange, PatchError, ReadingError, UnknownThing
from levelcradle.exchange import FileRefused
from levelcradle.store import Stale, StoreAway

__all__ = ["ANSWERS", "TooLarge", "WrongBody", "install", "problem"]


class WrongBody(CradleError):
    """The body is no JSON of the form asked for."""

    def __init__(self, errors: list[dict[str, str]]) -> None:
        self.errors = errors
        super().__init__("The request's body is not what this address takes.")


class TooLarge(CradleError):
    def __init__(self, most: int) -> None:
        super().__init__(f"The request is larger than {most // 1000:,} kB.")


def problem(status: int, title: str, detail: str, **more: Any) -> Response:
    body = {"type": "about:blank", "title": title, "status": status, "detail": detail, **more}
    return JSONResponse(body, status_code=status, media_type="application/problem+json")


def _later(answer: Response) -> Response:
    answer.headers["Retry-After"] = "1"
    return answer


def _design(error: CradleError) -> Response:
    assert isinstance(error, DesignError)
    errors = [{"path": p.path, "message": p.message} for p in error.problems]
    return problem(422, "The design would not hold", f"{len(errors)} thing(s) are wrong.", errors=errors)


def _reading(error: CradleError) -> Response:
    return problem(422, "Not understood", str(error), errors=[{"path": "", "message": str(error)}])


def _stale(error: CradleError) -> Response:
    assert isinstance(error, Stale)
    both = [{"path": c.path, "theirs": c.theirs, "yours": c.yours, "who": c.who, "at": c.at} for c in error.clashes]
    return problem(412, "Changed since", str(error), revision=error.revision, clashes=both)


def _body(error: CradleError) -> Response:
    assert isinstance(error, WrongBody)
    return problem(422, "Wrong form", str(error), errors=error.errors)


ANSWERS: dict[type[CradleError], Callable[[CradleError], Response]] = {
    DesignError: _design,
    PatchError: _design,
    ReadingError: _reading,
    OutOfRange: _reading,
    FileRefused: lambda error: problem(422, "Not taken", str(error), errors=[{"path": "", "message": str(error)}]),
    UnknownThing: lambda error: problem(404, "Not there", str(error)),
    Stale: _stale,
    StoreAway: lambda error: _later(problem(503, "Away for a moment", str(error))),
    WrongBody: _body,
    TooLarge: lambda error: problem(413, "Too large", str(error)),
}


def install(app: FastAPI) -> None:
    async def ours(_: Request, error: Exception) -> Response:
        kind = next(k for k in type(error).__mro__ if k in ANSWERS)
        assert isinstance(error, CradleError)
        return ANSWERS[kind](error)

    async def asked(_: Request, error: Exception) -> Response:
        assert isinstance(error, RequestValidationError)
        errors = [{"path": "/".join(map(str, e["loc"])), "message": e["msg"][:200]} for e in error.errors()]
        return problem(422, "Wrong form", "The request is not what this address takes.", errors=errors)

    async def http(_: Request, error: Exception) -> Response:
        assert isinstance(error, HTTPException)
        answer = problem(error.status_code, str(error.detail), str(error.detail))
        answer.headers.update(error.headers or {})
        return answer

    app.add_exception_handler(CradleError, ours)
    app.add_exception_handler(RequestValidationError, asked)
    app.add_exception_handler(HTTPException, http)
