"""``python -m levelcradle.instruments``: the simulated instruments, until Ctrl-C."""

import time
from contextlib import suppress

from levelcradle.instruments.simulated import devices, start


def main() -> None:
    for port, device in devices().items():
        try:
            _, at = start(device, port)
        except OSError:
            _, at = start(device)  # somebody has the usual port
        print(f"{device.name} at 127.0.0.1:{at}: {', '.join(device.gauges)}", flush=True)
    print("They take lines too: load lf 268 · drift lf 2 · noise lf 0.5 · silent lf 3 · unit lf lb", flush=True)
    while True:
        time.sleep(3600)


if __name__ == "__main__":
    with suppress(KeyboardInterrupt):
        main()
