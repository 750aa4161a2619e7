"""The middle rate of this teacher: what the inner pulse of everything that is heard stays near."""

from dataclasses import replace

from ripresa.core.playing import Pulse
from ripresa.core.rhythm import MIDDLE_RATE
from ripresa.store.settings import studio_settings


def near_the_middle(pulse: Pulse | None) -> Pulse | None:
    """Return a pulse that stays near the rate of the settings, where it says none of its own."""
    if pulse is None or pulse.middle != MIDDLE_RATE:
        return pulse
    return replace(pulse, middle=studio_settings().middle_rate)
