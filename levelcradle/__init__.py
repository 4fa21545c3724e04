"""Level Cradle: battery modules into boxes, boxes into the car."""

__version__ = "0.1.0"
