"""Hits and fills, and the layers that enter one after the other, in sentences."""

from collections import Counter
from collections.abc import Iterator
from itertools import groupby

from ripresa.core.drill import ENTERING, is_hit
from ripresa.core.exact import capital, listed, plural
from ripresa.core.reading import Reading, unreduced
from ripresa.core.reports.told.paragraph import Paragraph

_MOST_SECTIONS = 12


def hits_told(reading: Reading) -> Iterator[Paragraph]:
    """Yield what is a hit and how much of the rest is played; nothing where no hits or fills are written."""
    hits = reading.drill.hits
    if not (hits.is_written or hits.fills) or reading.is_left:
        return
    whole = unreduced(reading)
    weights = Counter(event.hit or "full" for event in whole.notes if is_hit(event, hits))
    named = [plural(weights[one], f"{one} hit") for one in ("full", "light") if weights[one]]
    sentences = [f"{listed(named) or 'No hit'} in {plural(len(whole.notes), 'note')}."]
    missed = len(reading.hits) - sum(weights.values())
    if missed > 0:
        sentences.append(f"{plural(missed, 'hit')} {'falls' if missed == 1 else 'fall'} where no note begins.")
    if hits.fills:
        sentences.append(_fills(reading, whole))
    yield Paragraph("Hits and fills", tuple(sentences))


def _fills(reading: Reading, whole: Reading) -> str:
    hits = reading.drill.hits
    sections: dict[int, list[int]] = {}
    for row, place in ((whole, 1), (reading, 0)):
        for event in row.notes:
            if not is_hit(event, hits):
                sections.setdefault((event.bar - 1) // hits.bars, [0, 0])[place] += 1
    shown = [f"{played} of {there}" for played, there in list(sections.values())[:_MOST_SECTIONS]]
    more = " …" if len(sections) > _MOST_SECTIONS else ""
    played, there = (sum(one[place] for one in sections.values()) for place in (0, 1))
    return f"Between them, section by section: {', '.join(shown)}{more}; {played} of {there} in all."


def enters_told(reading: Reading) -> Iterator[Paragraph]:
    """Yield in which order the layers enter; nothing where all are there from the start."""
    order = reading.drill.enters.order
    if all(bar == 1 for _, bar in order):
        return
    there = {"foot": bool(reading.foot), "movement": bool(reading.body), "hands": True, "count": True}
    present = [(name, bar) for name, bar in order if there[name]]
    said = [
        f"{listed([ENTERING[name][0] for name, _ in inside])} in bar {bar}"
        for bar, inside in groupby(present, key=lambda pair: pair[1])
    ]
    told = ", then ".join(said)
    yield Paragraph("They enter", (f"{capital(told)}. What is not there yet keeps its time in silence.",))
