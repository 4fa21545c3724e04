"""Which sheets of a pack a later change touches."""

from collections.abc import Iterable

__all__ = ["touched"]

# what a change there does to sheets: of the whole, the lists and everything that lands on it, but to no box's own shape
ROUND_ABOUT = (
    *("accepted", "agreed_gaps", "bays", "duties", "items", "keepouts", "load_states", "modules", "openings"),
    *("snags", "tapes", "units", "vehicle", "weighings"),
)
DRAWN_NOWHERE = ("cut_parts", "pins", "readings")
LANDED_ON = ("hardpoints", "members", "crossmembers", "references")


def touched(about: Iterable[str], path: str) -> bool:
    """Whether a change of a path may change a sheet that is about these things (nothing: about all of them). Where it
    is not known what a change does, it may.

    >>> touched(("boxes/tank",), "/boxes/bonnet/pose"), touched(("boxes/tank", "mounts/lf"), "/mounts/lf/shape")
    (False, True)
    """
    collection, _, rest = path.strip("/").partition("/")
    if collection in DRAWN_NOWHERE:
        return False
    things = [thing for thing in about if thing.startswith(("boxes/", "mounts/"))]
    if not things:
        return True
    if collection in ("boxes", "mounts"):
        return not rest or f"{collection}/{rest.split('/')[0]}" in things
    if collection in LANDED_ON:
        return any(thing.startswith("mounts/") for thing in things)
    return collection not in ROUND_ABOUT
