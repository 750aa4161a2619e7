"""What fingers and picks do on strings, in sentences."""

from collections.abc import Iterator

from ripresa.core.drill.hands import Economy
from ripresa.core.drill.material import Picked, Strum
from ripresa.core.exact import plural
from ripresa.core.reading import Reading
from ripresa.core.reports.strings import crossings, picking
from ripresa.core.reports.told.paragraph import Paragraph

_MOST_NAMED = 3


def strings_told(reading: Reading) -> Iterator[Paragraph]:
    """Yield how the pick crosses strings and what the fingers do; nothing where strings are not known."""
    crossed = crossings(reading)
    if crossed and crossed.all_of_them:
        economy = isinstance(reading.drill.hands, Economy)
        sentences = [
            f"{plural(crossed.all_of_them, 'change')} of string a pass: {crossed.outside} outside, "
            f"{crossed.inside} inside" + (f", {crossed.swept} in one way." if crossed.swept else ".")
        ]
        if economy:
            saved = plural(crossed.swept, "turn")
            sentences.append(f"Against strict alternation the hand saves {saved} a pass: it goes on the way it goes.")
        if crossed.skipped:
            sentences.append(f"{crossed.skipped} of them pass over a string that does not sound.")
        yield Paragraph("Across the strings", tuple(sentences))
    fingers = picking(reading)
    if fingers:
        sentences = [f"From note to note {plural(fingers.crossed, 'string')} are passed in a turn."]
        for before, after, finger in fingers.twice[:_MOST_NAMED]:
            sentences.append(f"{finger} twice in a row, {before.count} to {after.count}: that is slow for a finger.")
        if not fingers.twice:
            sentences.append("No finger plays twice in a row.")
        sentences += _thumbs(reading)
        yield Paragraph("Fingers", tuple(sentences))


def _thumbs(reading: Reading) -> Iterator[str]:
    """Yield where an alternating bass has no second string."""
    material = reading.drill.material
    if not isinstance(material, Picked) or material.bass != "root_and_fifth":
        return
    strings: dict[str, set[int]] = {}
    for event in reading.notes:
        for pluck in event.how.plucks:
            if pluck.finger == "p" and event.chord:
                strings.setdefault(event.chord.symbol, set()).add(pluck.string)
    alone = [symbol for symbol, found in strings.items() if len(found) == 1]
    if alone and len(alone) < len(strings):
        yield f"{', '.join(alone)}: no second bass string has its fifth, so the thumb stays."


def steps_told(reading: Reading) -> Iterator[Paragraph]:
    """Yield the steps in which a strummed pattern is built up; nothing for other material, or one step alone."""
    material = reading.drill.material
    if not isinstance(material, Strum):
        return
    steps = material.steps
    if len(steps) < 2:
        return
    now = material.step or len(steps)
    sentences = []
    for number, new in enumerate(steps, start=1):
        words = ", ".join(new)
        here = " (played now)" if number == now else ""
        sentences.append(f"Step {number}{here}: {words}." if number == 1 else f"Step {number}{here}: new are {words}.")
    yield Paragraph("Step by step", (*sentences, "The arm goes the same way in all of them."))
