"""What a breath holds and where to breathe, in sentences."""

from collections.abc import Iterator

from ripresa.core.exact import Fraction, decimal, label, plural, short
from ripresa.core.reading import Reading
from ripresa.core.reports.breath import slowest_of_one_breath
from ripresa.core.reports.sums import Sums
from ripresa.core.reports.told.paragraph import Paragraph, a_beat
from ripresa.core.rhythm import span_seconds

_MOST_NAMED = 6


def breath_told(reading: Reading, found: Sums, bpm: Fraction) -> Iterator[Paragraph]:
    """Yield what a breath holds and where to breathe; nothing where breath does not matter."""
    if not found.breath:
        return
    seconds, sign = label(reading.drill.breath), reading.meter.sign
    sentences = [
        f"{a_beat(one.leg)}: {plural(one.beats, 'beat')} in a breath of {seconds} s need "
        f"{sign} = {short(one.needed_bpm)} or more" + ("." if one.fits else f", and this is {label(bpm)}.")
        for one in found.breath
    ]
    yield Paragraph("Breath", tuple(dict.fromkeys(sentences)))
    plan, marks = found.breaths, found.breath_marks
    held = [f"{one.notes} in {decimal(one.seconds, 1)} s" for one in plan[:_MOST_NAMED]]
    more = " …" if len(plan) > _MOST_NAMED else ""
    told = [f"{plural(len(plan), 'breath')} a pass; notes in each: {', '.join(held)}{more}."]
    if marks:
        named = "; ".join(event.place_name for event in marks[:_MOST_NAMED])
        told.append(f"Breathe before {named}" + (" …" if len(marks) > _MOST_NAMED else "."))
    too_long = [one for one in plan if not one.fits]
    if too_long:
        told.append(
            f"At {too_long[0].first.place_name} a note lasts longer than a breath: take a faster tempo, or a shorter "
            "note."
        )
    slowest = slowest_of_one_breath(reading)
    if slowest is not None:
        told.append(f"Nothing is broken by a breath from {sign} = {short(slowest)} on.")
    rest = decimal(span_seconds(reading.beats, bpm), 1)
    told.append(f"Then rest as long as you played, {rest} s; stop when light-headed.")
    yield Paragraph("Breath plan", tuple(told))
