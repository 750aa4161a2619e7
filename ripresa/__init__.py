"""Ripresa: builds, plays, measures and plans drills for guitar, keyboard and wind."""

__version__ = "0.1.0"
