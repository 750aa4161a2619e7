"""What a line does, in sentences: where it ends, when it comes home, how it goes through chords."""

from collections.abc import Iterator

from ripresa.core.drill.material import Line, parse_line
from ripresa.core.drill.second import ChordsBelow
from ripresa.core.exact import label, plural
from ripresa.core.grid import unequal_bars
from ripresa.core.reading import Reading
from ripresa.core.reports.endings import Ending, Landing, Statement, landings, statements
from ripresa.core.reports.groups import Start
from ripresa.core.reports.told.paragraph import Paragraph, a_beat, which


def landings_told(reading: Reading) -> Iterator[Paragraph]:
    """Yield where a line lands on each division, and what was cut off it; nothing for other material."""
    line = reading.drill.material
    if not isinstance(line, Line):
        return
    for landing in landings(reading):
        title = f"Landing, {a_beat(landing.leg)}{which(landing.leg, reading)}"
        yield Paragraph(title, tuple(_landing(landing, line)))
    cut = sum(note.is_cut for note in parse_line(line.text))
    if cut:
        said = f"{plural(cut, 'note')} cut, {plural(len(line.played), 'note')} left: what follows comes earlier."
        yield Paragraph("Cut short", (said,))


def _landing(landing: Landing, line: Line) -> Iterator[str]:
    slots = plural(landing.slots, "slot")
    if landing.leg.start != landing.enters.at:
        yield f"It enters on {_named(landing.enters)}."
    again = ", again and again," if line.after != "open" else ""
    yield _ends(f"{slots}{again} end on" if not line.through else "It is over on", landing.ending)
    if landing.entries:
        entries = landing.entries
        if entries.statements > 1:
            yield (
                f"Played again and again it comes home after {plural(entries.bars, 'bar')}, "
                f"{plural(entries.statements, 'statement')}; the second enters on {_named(entries.second)}."
            )
        if entries.on_beats:
            yield "It comes home on a beat each time: nothing is displaced against it."
    if landing.doubled:
        yield _ends("Twice as fast it ends on", landing.doubled)


def _ends(start: str, ending: Ending) -> str:
    missing = f"{ending.missing} more to the next 1" if ending.missing else "nothing missing to the 1"
    return f"{start} {_named(ending.end)}; {missing}."


def _named(start: Start) -> str:
    return f"bar {start.bar}, beat {start.beat}" + (f", {start.name}" if start.name else "")


def shared_told(reading: Reading) -> Iterator[Paragraph]:
    """Yield how chords share a bar that they cannot part alike; nothing where they can, or say it."""
    material = reading.drill.material
    written = [getattr(material, name) for name in ("chords", "through") if getattr(material, name, "")]
    if isinstance(reading.drill.second.plays, ChordsBelow):
        written.append(reading.drill.second.plays.chords)
    sentences = []
    for text in written:
        for number, chords in unequal_bars(text, reading.meter):
            parted = ", ".join(f"{chord} {label(beats)}" for chord, beats in chords)
            other = " ".join(
                f"{chord}*{label(beats)}" for (chord, _), (_, beats) in zip(chords, chords[::-1], strict=True)
            )
            sentences.append(f"Bar {number} shares its beats: {parted}. For another share write it: {other}.")
    if sentences:
        yield Paragraph("Chords in a bar", tuple(dict.fromkeys(sentences)))


def statements_told(reading: Reading) -> Iterator[Paragraph]:
    """Yield how a line goes through its chords; nothing for other material."""
    found = statements(reading)
    if found:
        sentences = [_through(one, after) for one, after in zip(found, [*found[1:], None], strict=True)]
        yield Paragraph("Through the chords", tuple(dict.fromkeys(sentences)))


def _through(one: Statement, after: Statement | None) -> str:
    root = "starts on the root" if one.on_root else f"starts on {one.first}, not the root"
    if one.cut:
        root += f", {plural(one.cut, 'note')} cut off at its end"
    if one.leads is None or after is None:
        return f"{one.chord}: {root}, ends on {one.last}."
    leads = "leads by step into" if one.leads else "does not lead by step into a tone of the chord:"
    return f"{one.chord}: {root}; {one.last} {leads} {after.first} of {after.chord}."
