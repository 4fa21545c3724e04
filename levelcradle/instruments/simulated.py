"""Small simulated instruments: four wheel scales, a distance meter, a voltmeter. They settle, drift, drop out and speak
wrong units on demand: a client sends ``load lf 268``, ``drift lf 2``, ``noise lf 0.5``, ``silent lf 3``, ``unit lf
lb``."""

import math
import random
import socketserver
import threading
import time
from dataclasses import dataclass, field

__all__ = ["Device", "Gauge", "devices", "start"]

EVERY_S = 0.1
SETTLES_S = 0.6  # time constant of a scale's platform, made up
PER_UNIT = {"kg": 1.0, "lb": 0.45359237, "mm": 1.0, "in": 25.4, "cm": 10.0, "m": 1000.0, "V": 1.0, "mV": 0.001}


@dataclass(slots=True)
class Gauge:
    """One channel. ``value`` is what truly lies on it, in its own unit; what it shows comes after it."""

    value: float
    unit: str
    noise: float
    digits: int
    settles_s: float = 0.0
    drift_per_min: float = 0.0
    speaks: str = ""
    silent_until: float = 0.0
    _was: float = 0.0
    _since: float = field(default_factory=time.monotonic)

    def load(self, value: float, now: float) -> None:
        self._was, self._since, self.value = self.shows(now), now, value

    def shows(self, now: float) -> float:
        """Where the pointer stands without its noise."""
        took = now - self._since
        left = math.exp(-took / self.settles_s) if self.settles_s else 0.0
        return self.value + (self._was - self.value) * left + self.drift_per_min * took / 60

    def line(self, name: str, now: float, chance: random.Random) -> str | None:
        if now < self.silent_until:
            return None
        unit = self.speaks or self.unit
        shown = (self.shows(now) + chance.gauss(0.0, self.noise)) * PER_UNIT[self.unit] / PER_UNIT[unit]
        return f"{shown:.{self.digits}f} {unit} {name}\n"


@dataclass(slots=True)
class Device:
    """Gauges that share one line."""

    name: str
    gauges: dict[str, Gauge]
    lock: threading.Lock = field(default_factory=threading.Lock)
    chance: random.Random = field(default_factory=lambda: random.Random(1))

    def lines(self) -> str:
        now = time.monotonic()
        with self.lock:
            return "".join(text for name, gauge in self.gauges.items() if (text := gauge.line(name, now, self.chance)))

    def told(self, text: str) -> None:
        """Obeys one line; what it does not understand it ignores, like an instrument."""
        words = text.split()
        if len(words) != 3 or words[1] not in self.gauges:
            return
        with self.lock:
            _obey(self.gauges[words[1]], words[0], words[2])


def _obey(gauge: Gauge, what: str, argument: str) -> None:
    now = time.monotonic()
    if what == "unit":
        gauge.speaks = argument if argument in PER_UNIT else ""
        return
    try:
        value = float(argument)
    except ValueError:
        return
    if what == "load":
        gauge.load(value, now)
    elif what == "noise":
        gauge.noise = abs(value)
    elif what == "drift":
        gauge.load(gauge.value, now)
        gauge.drift_per_min = value
    elif what == "silent":
        gauge.silent_until = now + value


def devices() -> dict[int, Device]:
    """The instruments that ship, by port: figures made up, near those of the demo car."""
    scales = {
        name: Gauge(kg, "kg", 0.05, 1, SETTLES_S)
        for name, kg in (("lf", 268.0), ("rf", 264.0), ("lr", 228.0), ("rr", 225.0))
    }
    return {
        4701: Device("wheel scales", scales),
        4702: Device("distance meter", {"distance": Gauge(1284.0, "mm", 0.2, 1)}),
        4703: Device("voltmeter", {"volts": Gauge(44.62, "V", 0.002, 3)}),
    }


class _Line(socketserver.StreamRequestHandler):
    server: "_Server"

    def handle(self) -> None:
        threading.Thread(target=self._listen, daemon=True).start()
        try:
            while True:
                self.wfile.write(self.server.device.lines().encode())
                time.sleep(EVERY_S)
        except OSError:
            return

    def _listen(self) -> None:
        try:
            for raw in self.rfile:
                self.server.device.told(raw[:200].decode("ascii", "ignore"))
        except (OSError, ValueError):
            return


class _Server(socketserver.ThreadingTCPServer):
    daemon_threads = True
    allow_reuse_address = True

    def __init__(self, port: int, device: Device) -> None:
        super().__init__(("127.0.0.1", port), _Line)
        self.device = device


def start(device: Device, port: int = 0) -> tuple[_Server, int]:
    """Serves a device on loopback, in a thread of its own; port 0 takes a free one. Raises OSError for a taken port."""
    server = _Server(port, device)
    threading.Thread(target=server.serve_forever, daemon=True).start()
    return server, int(server.server_address[1])
