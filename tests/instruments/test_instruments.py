"""Lines of instruments, whether they stand still, and the simulated ones that ship."""

import socket
import time
from collections.abc import Callable, Iterator

import pytest
from hypothesis import given
from hypothesis import strategies as st

from levelcradle.core.errors import ReadingError, UnknownThing
from levelcradle.core.quantity import read
from levelcradle.core.survey import Sample, Steadiness, steadiness
from levelcradle.core.survey.steady import BAND
from levelcradle.instruments import Instruments, listener, read_line
from levelcradle.instruments.simulated import devices, start


@pytest.mark.parametrize(
    ("line", "means"),
    [
        ("268.4 kg lf", (268.4, "kg", "lf")),
        ("-3;mm;tape 2", (-3.0, "mm", "tape 2")),
        ("44,62 V", (44.62, "V", "")),
        ("1284,mm,distance", (1284.0, "mm", "distance")),
        ("+0.5lbs", (0.5, "lb", "")),
        ("12", (12.0, "", "")),
        ("OVERLOAD", None),
        ("nan kg lf", None),
        ("9" * 400 + " kg", None),
        ("", None),
        ("5 furlongs", None),
    ],
)
def test_what_a_line_says(line: str, means: tuple[float, str, str] | None) -> None:
    assert read_line(line) == means


def stands(values: list[float], unit: str = "kg", now: float | None = None) -> Steadiness:
    """Readings ten a second."""
    samples = [Sample(n / 10, v, unit) for n, v in enumerate(values)]
    found = steadiness(samples, samples[-1].at_s if now is None else now)
    assert found
    return found


def test_steady_settling_silent_and_drifting() -> None:
    assert steadiness([], 0.0) is None
    still = stands([268.0, 268.2] * 10)
    assert (still.steady, still.message, still.text) == (True, "steady", "268.1 kg")
    assert stands([200.0 + n for n in range(20)]).message == "settling"
    assert stands([268.0] * 5).message == "waiting for more"
    silent = stands([268.0] * 20, now=5.0)
    assert (silent.steady, silent.message) == (False, "silent for 3 s")
    assert stands([268 + n * 0.01 for n in range(60)]).message == "steady, drifts +6 kg a minute"


def test_a_change_of_unit_begins_anew() -> None:
    samples = [Sample(n / 10, 268.0, "kg") for n in range(20)] + [Sample(2 + n / 10, 590.8, "lb") for n in range(3)]
    found = steadiness(samples, 2.2)
    assert found
    assert (found.unit, found.message) == ("lb", "waiting for more")


@pytest.mark.parametrize("address", ["8.8.8.8:4701", "127.0.0.1:22", "127.0.0.1", "scale:4701", "127.0.0.1:99999", ""])
def test_only_the_workshops_own_network(address: str) -> None:
    with pytest.raises(ReadingError):
        Instruments().listen(address)
    with pytest.raises(UnknownThing):
        Instruments().leave(address)


@pytest.fixture
def scales() -> Iterator[tuple[Instruments, socket.socket]]:
    """The four simulated scales, listened to, and a line to tell them things."""
    server, port = start(devices()[4701])
    heard = Instruments()
    heard.listen(f"127.0.0.1:{port}")
    with socket.create_connection(("127.0.0.1", port)) as told:
        yield heard, told
    heard.leave(f"127.0.0.1:{port}")
    server.shutdown()
    server.server_close()


def until(heard: Instruments, holds: Callable[[dict[str, Steadiness]], bool]) -> dict[str, Steadiness]:
    for _ in range(200):
        channels = {c.name: c.reading for c in heard.all()[0].channels()}
        if channels and holds(channels):
            return channels
        time.sleep(0.05)
    pytest.fail(f"never; the scales say {channels}")


def test_the_simulated_scales(scales: tuple[Instruments, socket.socket]) -> None:
    heard, told = scales
    until(heard, lambda c: len(c) == 4 and c["lf"].message == "settling")
    still = until(heard, lambda c: all(r.steady for r in c.values()))
    assert still["lf"].value == pytest.approx(268.0, abs=0.5)
    assert sum(r.value for r in still.values()) == pytest.approx(985.0, abs=2.0)
    told.sendall(b"unit rf lb\nsilent lr 60\nload lf 300\nnonsense\nload lf x\nunit zz kg\n")
    after = until(
        heard,
        lambda c: c["rf"].unit == "lb" and c["rf"].steady and c["lr"].message.startswith("silent") and c["lf"].steady,
    )
    assert read(after["rf"].text, "mass", "kg") == pytest.approx(
        264.0, abs=0.5
    )  # the blank reads the unit that is said
    assert after["lf"].value == pytest.approx(300.0, abs=0.5)


@given(st.lists(st.floats(-1000, 1000), min_size=12, max_size=40), st.sampled_from(["kg", "mm", "V", "psi"]))
def test_what_is_held_lies_among_what_was_sent(values: list[float], unit: str) -> None:
    found = stands(values, unit)
    assert min(values) <= found.value <= max(values)
    assert found.spread >= 0
    assert found.steady == found.message.startswith("steady")


@given(st.floats(0.001, 50), st.floats(-500, 500))
def test_noise_within_the_band_is_steady_and_beyond_it_is_not(noise: float, level: float) -> None:
    found = stands([level + noise * (-1) ** n / 2 for n in range(20)])
    assert found.steady is (noise <= BAND["kg"] + 1e-9)


@given(
    st.floats(-9999, 9999),
    st.sampled_from(["kg", "lb", "mm", "in", "V"]),
    st.sampled_from(["", "lf", "tape 2"]),
    st.sampled_from(" ,;\t"),
)
def test_a_line_says_what_was_put_into_it(value: float, unit: str, channel: str, divider: str) -> None:
    assert read_line(f"{value:.3f}{divider}{unit}{divider}{channel}") == (float(f"{value:.3f}"), unit, channel)


def test_a_source_that_ends_is_tried_again_and_left_for_good(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(listener, "AGAIN_S", 0.1)
    server, port = start(devices()[4702])
    heard = Instruments()
    source = heard.listen(f"localhost:{port}")
    assert heard.listen(f"127.0.0.1:{port}") is source
    until(heard, lambda c: c["distance"].steady)
    server.shutdown()
    server.server_close()
    heard.leave(source.address)
    assert heard.all() == []
    assert source.ended.is_set()


def test_nobody_listens_without_end(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(listener, "MOST_SOURCES", 2)
    heard = Instruments()
    for port in (4801, 4802):
        heard.listen(f"127.0.0.1:{port}")
    with pytest.raises(ReadingError, match="leave one first"):
        heard.listen("127.0.0.1:4803")
    for source in heard.all():
        heard.leave(source.address)


def test_a_source_that_is_not_there_says_so() -> None:
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        port = probe.getsockname()[1]
    heard = Instruments()
    source = heard.listen(f"127.0.0.1:{port}")
    for _ in range(100):
        if source.message == "no answer":
            break
        time.sleep(0.02)
    assert source.message == "no answer"
    heard.leave(source.address)
