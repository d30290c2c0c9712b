"""Tide gauges of the Quillhaven ferries."""

__version__ = "2.4.1"
