"""What wind players are told: articulation patterns in turn, the break, and what is heard of what is written."""

from collections.abc import Iterator

from ripresa.core.drill.hands import ARTICULATION_PATTERNS, Articulated
from ripresa.core.exact import Fraction, decimal, plural
from ripresa.core.reading import Reading
from ripresa.core.reports.registers import breaks, sounding_key
from ripresa.core.reports.told.paragraph import Paragraph
from ripresa.core.rhythm import span_seconds


def tongue_told(reading: Reading, bpm: Fraction) -> Iterator[Paragraph]:
    """Yield the articulation patterns that take turns, with their time; nothing where one is all."""
    hands = reading.drill.hands
    if not isinstance(hands, Articulated) or len(hands.circuit) < 2:
        return
    sentences = []
    for leg in reading.legs[: len(hands.circuit)]:
        name = ARTICULATION_PATTERNS[hands.of_leg(leg.index)][1]
        seconds = decimal(span_seconds(leg.beats, bpm), 1)
        sentences.append(f"{leg.index + 1}. {name}: {plural(leg.beats, 'beat')}, {seconds} s.")
    left = len(hands.circuit) - len(reading.legs)
    if left > 0:
        sentences.append(f"{plural(left, 'pattern')} are not reached: give it a leg for each.")
    total = decimal(span_seconds(reading.beats, bpm), 1)
    yield Paragraph("Circuit", (*sentences, f"All of it lasts {total} s."))


def registers_told(reading: Reading) -> Iterator[Paragraph]:
    """Yield where the register breaks, and which key is heard; nothing where neither matters."""
    found = breaks(reading)
    if found:
        sentences = []
        for one in found:
            over = f"over the break {one.below.shown} to {one.above.shown}"
            sentences.append(
                f"{plural(one.crossings, 'crossing')} a pass {over}, the first at {one.first.place_name}."
                if one.first
                else f"It lies on both sides of the break {one.below.shown} to {one.above.shown}."
            )
        yield Paragraph("The break", tuple(sentences))
    key = sounding_key(reading)
    if key:
        written, heard = key
        yield Paragraph(
            "Written and sounding", (f"Written {written} is heard as {heard} on {reading.instrument.name}.",)
        )
