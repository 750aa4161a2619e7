"""What a line does, in words: where it ends, when it comes home, how it goes through chords."""

from collections.abc import Iterator
from fractions import Fraction

from ripresa.core.drill.material import Line, parse_line
from ripresa.core.exact import division_label, plural
from ripresa.core.reading import Reading
from ripresa.core.reports import Statement, ending, realignment, statements
from ripresa.web.shapes.sums import HomeShape


def line_shapes(reading: Reading) -> Iterator[HomeShape]:
    """Yield what there is to say about a line; nothing for other material."""
    line = reading.drill.material
    if not isinstance(line, Line):
        return
    if line.rhythm == "legs":
        divisions = dict.fromkeys(leg.divisions for leg in reading.legs)
        for taken in divisions:
            if len(taken) == 1:
                yield _landing(line, taken[0], reading)
    cut = sum(note.is_cut for note in parse_line(line.text))
    if cut:
        said = f"{plural(cut, 'note')} cut, {plural(len(line.played), 'note')} left: what follows comes earlier."
        yield HomeShape(title="Cut short", sentences=[said], starts="")
    found = statements(reading)
    if found:
        sentences = [_through(one, after) for one, after in zip(found, [*found[1:], None], strict=True)]
        yield HomeShape(title="Through the chords", sentences=list(dict.fromkeys(sentences)), starts="")


def _landing(line: Line, division: Fraction, reading: Reading) -> HomeShape:
    slots = int(line.length)
    sentences = [_ends(f"{plural(slots, 'slot')} end on", slots, division, reading)]
    home = realignment(slots, division, reading.meter)
    if home.groups > 1:
        enters = ending(slots, division, reading.meter)
        sentences.append(
            f"Played again and again it comes home after {plural(home.bars, 'bar')}, "
            f"{plural(home.groups, 'statement')}; the second enters on {enters.place}."
        )
    if slots % division.numerator == 0:
        beats = slots / division
        sentences.append(
            f"It lasts {plural(beats, 'beat')} and comes home on a beat each time: nothing is displaced against it."
        )
    if not line.through:
        sentences.append(_ends("Twice as fast it ends on", slots, 2 * division, reading))
    return HomeShape(title=f"Landing, {division_label(division)} a beat", sentences=sentences, starts="")


def _ends(start: str, slots: int, division: Fraction, reading: Reading) -> str:
    found = ending(slots, division, reading.meter)
    missing = f"{found.missing} more to the next 1" if found.missing else "nothing missing to the 1"
    return f"{start} {found.place}; {missing}."


def _through(one: Statement, after: Statement | None) -> str:
    root = "starts on the root" if one.on_root else f"starts on {one.first}, not the root"
    if one.cut:
        root += f", {plural(one.cut, 'note')} cut off at its end"
    if one.leads is None or after is None:
        return f"{one.chord}: {root}, ends on {one.last}."
    leads = "leads by step into" if one.leads else "does not lead by step into a tone of the chord:"
    return f"{one.chord}: {root}; {one.last} {leads} {after.first} of {after.chord}."
