"""Listens to instruments: one thread a source, the newest readings of each of its channels kept."""

import ipaddress
import socket
import threading
import time
from collections import deque
from collections.abc import Collection
from dataclasses import dataclass, field

from levelcradle.core.errors import ReadingError, UnknownThing
from levelcradle.core.survey import Sample, Steadiness, steadiness
from levelcradle.instruments.lines import LONGEST, read_line

__all__ = ["Channel", "Instruments", "Source"]

MOST_SOURCES = 12
MOST_CHANNELS = 32
KEPT = 400
AGAIN_S = 2.0
PATIENCE_S = 3.0


@dataclass(frozen=True, slots=True)
class Channel:
    """One channel as it stands."""

    name: str
    reading: Steadiness


@dataclass(slots=True)
class Source:
    """One address that sends lines."""

    address: str
    message: str = "connecting"
    samples: dict[str, deque[Sample]] = field(default_factory=dict)
    ended: threading.Event = field(default_factory=threading.Event)

    def channels(self) -> list[Channel]:
        now = time.monotonic()
        found = ((name, steadiness(list(kept), now)) for name, kept in sorted(self.samples.items()))
        return [Channel(name, reading) for name, reading in found if reading is not None]


class Instruments:
    """The sources that are listened to, by address."""

    def __init__(self, own_ports: Collection[int] = ()) -> None:
        self.own_ports = own_ports
        self._sources: dict[str, Source] = {}
        self._lock = threading.Lock()

    def all(self) -> list[Source]:
        with self._lock:
            return list(self._sources.values())

    def listen(self, address: str) -> Source:
        """Begins to listen to ``host:port``. Raises ReadingError where that is no address of the workshop's own
        network."""
        host, port = _own_network(address)
        if port in self.own_ports and ipaddress.ip_address(host).is_loopback:
            raise ReadingError(address, "That is this application itself, no instrument.")
        with self._lock:
            known = self._sources.get(f"{host}:{port}")
            if known:
                return known
            if len(self._sources) >= MOST_SOURCES:
                raise ReadingError(address, f"{MOST_SOURCES} instruments are listened to already; leave one first.")
            source = self._sources[f"{host}:{port}"] = Source(f"{host}:{port}")
        threading.Thread(target=_hear, args=(source, host, port), daemon=True).start()
        return source

    def leave(self, address: str) -> None:
        """Raises UnknownThing."""
        with self._lock:
            source = self._sources.pop(address, None)
        if source is None:
            raise UnknownThing("instrument", address[:60])
        source.ended.set()


def _own_network(address: str) -> tuple[str, int]:
    """An instrument stands in the workshop: this machine or a private network, never the world outside."""
    host, _, port = address.strip().rpartition(":")
    try:
        place = ipaddress.ip_address("127.0.0.1" if host == "localhost" else host)
        number = int(port)
    except ValueError:
        raise ReadingError(address, "An address is host and port, like 127.0.0.1:4701.") from None
    if (
        not (place.is_private or place.is_loopback)
        or place.is_link_local
        or place.is_unspecified
        or not 1024 <= number <= 65535
    ):
        raise ReadingError(address, "It must lie in the workshop's own network, its port from 1024 to 65535.")
    return str(place), number


def _hear(source: Source, host: str, port: int) -> None:
    """Reads lines until it is ended; a line that breaks off is tried again."""
    while not source.ended.is_set():
        try:
            with socket.create_connection((host, port), timeout=PATIENCE_S) as line:
                source.message = "connected"
                _read(source, line)
                source.message = "ended the line"
        except OSError as error:
            source.message = (
                "no answer" if isinstance(error, TimeoutError | ConnectionRefusedError) else "the line broke off"
            )
        source.ended.wait(AGAIN_S)


def _read(source: Source, line: socket.socket) -> None:
    rest = b""
    line.settimeout(0.5)
    while not source.ended.is_set():
        try:
            got = line.recv(4096)
        except TimeoutError:
            continue
        if not got:
            return
        *whole, rest = (rest + got).split(b"\n")
        rest = rest[-LONGEST:]
        for raw in whole:
            _keep(source, raw.decode("utf-8", "replace").strip())


def _keep(source: Source, text: str) -> None:
    found = read_line(text)
    if found is None:
        return
    value, unit, channel = found
    name = channel or "reading"
    if name in source.samples or len(source.samples) < MOST_CHANNELS:
        source.samples.setdefault(name, deque(maxlen=KEPT)).append(Sample(time.monotonic(), value, unit))
