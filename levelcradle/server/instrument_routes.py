"""The routes of instruments: which are listened to, and how each of their channels stands."""

from typing import Annotated

from fastapi import APIRouter, Depends, Query, Request, Response

from levelcradle.instruments import Instruments, Source
from levelcradle.server.bodies import ListenBody, json_body
from levelcradle.server.routes import takes
from levelcradle.server.views import ChannelOut, ProblemOut, SourceOut

__all__ = ["router"]

router = APIRouter(responses={code: {"model": ProblemOut} for code in (400, 404, 413, 422)})


def _instruments(request: Request) -> Instruments:
    found: Instruments = request.app.state.instruments
    return found


Heard = Annotated[Instruments, Depends(_instruments)]


@router.get("/instruments")
def instruments(heard: Heard) -> list[SourceOut]:
    return [_source(source) for source in heard.all()]


@router.post("/instruments", response_model=SourceOut, status_code=201, openapi_extra=takes(ListenBody))
def listen(heard: Heard, body: Annotated[ListenBody, Depends(json_body(ListenBody))]) -> SourceOut:
    """Listens to an instrument that sends lines: value, unit, channel."""
    return _source(heard.listen(body.address))


@router.delete("/instruments", status_code=204)
def leave(heard: Heard, address: Annotated[str, Query(max_length=60)]) -> Response:
    heard.leave(address)
    return Response(status_code=204)


def _source(source: Source) -> SourceOut:
    rows = [(c.name, c.reading) for c in source.channels()]
    channels = [
        ChannelOut(name=n, value=r.value, unit=r.unit, spread=r.spread, steady=r.steady, message=r.message, text=r.text)
        for n, r in rows
    ]
    return SourceOut(address=source.address, message=source.message, channels=channels)
