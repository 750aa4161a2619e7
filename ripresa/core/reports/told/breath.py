"""What a breath holds and where to breathe, in sentences."""

from collections.abc import Iterator, Sequence
from fractions import Fraction

from ripresa.core.exact import label, plural, short
from ripresa.core.grid import Event
from ripresa.core.reading import Reading
from ripresa.core.reports.breath import BreathSums
from ripresa.core.reports.told.paragraph import Paragraph, a_beat

_MOST_NAMED = 6


def breath_told(
    reading: Reading, found: Sequence[BreathSums], bpm: Fraction, marks: Sequence[Event]
) -> Iterator[Paragraph]:
    """Yield what a breath holds and where to breathe; nothing where breath does not matter."""
    if not found:
        return
    seconds, sign = label(reading.drill.breath), reading.meter.sign
    sentences = [
        f"{a_beat(one.leg)}: {plural(one.beats, 'beat')} in a breath of {seconds} s need "
        f"{sign} = {short(one.needed_bpm)} or more" + ("." if one.fits else f", and this is {label(bpm)}.")
        for one in found
    ]
    if marks:
        named = "; ".join(event.place_name for event in marks[:_MOST_NAMED])
        sentences.append(f"Breathe before {named}" + (" …" if len(marks) > _MOST_NAMED else "."))
    yield Paragraph("Breath", tuple(dict.fromkeys(sentences)))
