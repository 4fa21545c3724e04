"""A process that edits one project again and again, for the tests of concurrency: URL, project, name, count."""

import sys

from levelcradle.store import Stale, Store, connect


def main() -> None:
    url, car, name, count = sys.argv[1], sys.argv[2], sys.argv[3], int(sys.argv[4])
    store = Store(connect(url))
    for n in range(count):
        value = {"name": f"{name} {n}", "at_mm": [n, 0, 0]}
        patch = [{"op": "add", "path": f"/references/{name}-{n}", "value": value}]
        while True:
            try:
                store.edit(car, patch, base=store.open(car).revision, session=name)
                break
            except Stale:
                continue
        print(f"{name}-{n}", flush=True)


if __name__ == "__main__":
    main()
