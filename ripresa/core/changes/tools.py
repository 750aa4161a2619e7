"""Tools that make another drill of one: twice or half as fast, backwards, a note less or more, ending on a beat."""

from dataclasses import replace

from ripresa.core.changes.mirror import feet_turned
from ripresa.core.changes.strums import pattern_moved, pattern_scaled
from ripresa.core.changes.written_out import as_line
from ripresa.core.drill import Drill, Enters, Leg
from ripresa.core.drill.material import Count, Line, LineNote, Strum, own_rhythm, parse_line, without_bars, write_line
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction, label, plural
from ripresa.core.reading import read
from ripresa.core.rhythm import leg_meters


def doubled(drill: Drill) -> Drill:
    """Return a drill whose notes come twice as fast while the beat stays; ``halved`` undoes it.

    Raises:
        OutOfRange: A division would become too fine, or its rhythm is that of chords or strings.
    """
    return _scaled(drill, Fraction(2))


def halved(drill: Drill) -> Drill:
    """Return a drill whose notes come half as fast while the beat stays; ``doubled`` undoes it.

    Raises:
        OutOfRange: A division would become too coarse, or its rhythm is that of chords or strings.
    """
    return _scaled(drill, Fraction(1, 2))


def backwards(drill: Drill) -> Drill:
    """Return a drill whose line runs backwards, each note with its length.

    Raises:
        OutOfRange: It cannot be written out as a line.
    """
    drill = as_line(drill)
    return _with_notes(drill, without_bars(reversed(parse_line(_line(drill).text))))


def trimmed(drill: Drill) -> Drill:
    """Return a drill whose line has its last note cut out; it stays to be seen, and takes no time.

    Raises:
        OutOfRange: It cannot be written out as a line, or one note is left.
    """
    drill = as_line(drill)
    notes = list(parse_line(_line(drill).text))
    kept = [place for place, note in enumerate(notes) if not note.is_cut]
    if len(kept) < 2:
        raise OutOfRange("One note is left of this line: there is nothing more to cut.", field="material.text")
    notes[kept[-1]] = replace(notes[kept[-1]], is_cut=True)
    return _with_notes(drill, without_bars(notes))


def lengthened(drill: Drill) -> Drill:
    """Return a drill whose line is a note longer: the first one that was cut, else its last note once more.

    Raises:
        OutOfRange: It cannot be written out as a line.
    """
    drill = as_line(drill)
    notes = list(parse_line(_line(drill).text))
    # Trimming cuts from the end, so the first that is cut is the one that was cut last.
    cut = next((place for place, note in enumerate(notes) if note.is_cut), None)
    if cut is None:
        notes.append(notes[-1])
    else:
        notes[cut] = replace(notes[cut], is_cut=False)
    return _with_notes(drill, without_bars(notes))


def shifted(drill: Drill, by: int) -> Drill:
    """Return a drill whose notes come so many slots later, earlier below 0, where they stand in their bars.

    A rhythm that is typed and a pattern of strums move on their own grid; whatever has no shift of its own is written
    out as a line.

    Raises:
        OutOfRange: It would be moved too far, or cannot be written out.
    """
    if isinstance(drill.material, Count):
        return replace(drill, material=replace(drill.material, shift=drill.material.shift + by))
    if isinstance(drill.material, Strum):
        return pattern_moved(drill, drill.material, by)
    drill = as_line(drill)
    line = _line(drill)
    step = Fraction(1) if line.rhythm == "legs" else min(note.length for note in line.played)
    first, *later = (shift + by * step for shift in line.shifts)
    return replace(drill, material=replace(line, shift=first, stage_shifts=tuple(later)))


def trimmed_to_neighbour(drill: Drill) -> Drill:
    """Return a drill with a note less in each beat: six becomes five, and the division follows.

    What is cut stays to be seen in the line, and takes no time.

    Raises:
        OutOfRange: Its divisions mix or span beats, or there is one note a beat.
    """
    drill, notes, size = _by_beats(drill)
    if size < 2:
        raise OutOfRange("One note a beat is left: there is no division under it.", field="legs.division")
    number, cut = 0, []
    for note in notes:
        number += not note.is_cut
        cut.append(replace(note, is_cut=note.is_cut or number % size == 0))
    return replace(_with_notes(drill, tuple(cut)), legs=(Leg(Fraction(size - 1)),) * len(drill.legs))


def grown_to_neighbour(drill: Drill) -> Drill:
    """Return a drill with a note more in each beat: five becomes six; what was cut there comes back first.

    Raises:
        OutOfRange: Its divisions mix or span beats, or are too fine.
    """
    drill, notes, size = _by_beats(drill)
    grown: list[LineNote] = []
    number, came_back = 0, 0
    for place, note in enumerate(notes):
        following = notes[place + 1] if place + 1 < len(notes) else None
        if note.is_cut:
            # Of several that were cut from a beat the one that was cut last comes back: a note a beat.
            fits = number % size == 0 and came_back < number
            came_back = number if fits else came_back
            grown.append(replace(note, is_cut=not fits))
            continue
        number += 1
        grown.append(note)
        if number % size == 0 and not (following and following.is_cut):
            grown.append(note)
    return replace(_with_notes(drill, tuple(grown)), legs=(Leg(Fraction(size + 1)),) * len(drill.legs))


def _by_beats(drill: Drill) -> tuple[Drill, tuple[LineNote, ...], int]:
    """Return a drill as a line of the divisions, its notes, and how many make a beat."""
    drill = as_line(drill)
    line = _line(drill)
    divisions = {division for leg in drill.legs for division in leg.divisions}
    one = min(divisions)
    if line.rhythm == "own" or len(divisions) > 1 or one.denominator > 1:
        raise OutOfRange(
            "A note a beat is cut or added where all legs have one whole division. Take one, such as 6.",
            field="legs.division",
        )
    if any(note.length != 1 for note in line.played):
        raise OutOfRange(
            "A note a beat is cut or added where each note lasts one slot. Take lengths out.", field="material.text"
        )
    return drill, without_bars(parse_line(line.text)), int(one)


def other_foot(drill: Drill) -> Drill:
    """Return a drill with the other foot.

    Raises:
        OutOfRange: No foot is written, or both are.
    """
    if drill.foot.which not in {"right", "left"}:
        raise OutOfRange("No one foot is written that could change. Choose the right or the left one.", field="foot")
    return feet_turned(drill)


def arriving(drill: Drill, bar: int, beat: int) -> Drill:
    """Return a drill that starts so late in each leg that it arrives on a beat of the leg (both from 1).

    What arrives is the closing tonic of a scale, and what follows the last note of a line: 35 sixteenths that arrive on
    bar 4, beat 1 start on slot 13 of bar 1.

    Raises:
        OutOfRange: It cannot be written out as a line, the meter has no such beat, or what is played is longer than
            what is before it.
    """
    closing = drill.closing
    whole = drill if isinstance(drill.material, Line) else replace(drill, closing="own")
    closes = whole is not drill and read(whole).legs[0].plays_closing
    line = _line(as_line(whole))
    lasts = line.length - (line.played[-1].length if closes else 0)
    meters = leg_meters(drill.meter)
    shifts = []
    for index, leg in enumerate(drill.legs):
        meter = meters[index % len(meters)]
        beats = len(meter.beats_of(bar)) if 1 <= bar <= 64 else 0
        if not 1 <= beat <= beats:
            raise OutOfRange(
                f"There is no bar {bar}, beat {beat}: take bar 1 to 64, beat 1 to {beats or len(meter.beats_of(1))}.",
                field="tool.bar",
            )
        before = line.units_at(meter.bar_start(bar) + meter.bar(bar).beat_starts()[beat - 1], leg.divisions, meter)
        if before < lasts:
            at = f" of stage {index + 1}" if len(drill.legs) > 1 else ""
            raise OutOfRange(
                f"This line lasts {plural(lasts, line.unit)}, and before bar {bar}, beat {beat}{at} there are "
                f"{label(before)}. Take a later beat.",
                field="tool.bar",
            )
        shifts.append(before - lasts)
    first, *later = shifts
    # What wraps round or goes on after its end would not arrive anywhere.
    moved = replace(line, shift=first, stage_shifts=tuple(later) if {*later} - {first} else (), around=False)
    return replace(as_line(whole), material=replace(moved, after="open"), closing=closing)


#: How layers enter that are offered one by one: our choice.
_ONE_BY_ONE = Enters(foot=1, count=2, hands=3)


def one_by_one(drill: Drill) -> Drill:
    """Return a drill whose layers enter one by one; one that ends before its hands would enter is played again.

    Raises:
        OutOfRange: It cannot be so long.
    """
    bars = read(replace(drill, enters=Enters())).bar_count
    return replace(drill, enters=_ONE_BY_ONE, legs=drill.legs * -(-_ONE_BY_ONE.hands // bars))


def until_home(drill: Drill) -> Drill:
    """Return a drill that is played again and again within a pass, until the bars that take turns have all had theirs.

    Raises:
        OutOfRange: No bars take turns, they are home already, or it takes more legs than a drill has.
    """
    meters = leg_meters(drill.meter)
    bars = len(meters[0].bars)
    if bars == 1 or len(meters) > 1:
        raise OutOfRange("No bars take turns here, so that every pass is home.", field="meter")
    legs, seen = drill.legs, set[int]()
    while (over := read(replace(drill, legs=legs)).bar_count % bars) not in seen:
        if not over:
            break
        seen.add(over)
        legs += drill.legs
    if not seen:
        raise OutOfRange("The bars are home already: the next pass begins with the first one.", field="meter")
    if over:
        raise OutOfRange(
            "Played on and on, it never ends with the last of the bars that take turns. Make it a bar longer.",
            field="meter",
        )
    return replace(drill, legs=legs)


def _scaled(drill: Drill, by: Fraction) -> Drill:
    material = drill.material
    if isinstance(material, Strum):
        return pattern_scaled(drill, material, by)
    if not own_rhythm(material):
        legs = tuple(Leg(leg.division * by, tuple(one * by for one in leg.following)) for leg in drill.legs)
        return replace(drill, legs=legs)
    drill = as_line(drill)
    material = _line(drill)
    notes = without_bars(replace(note, length=note.length / by) for note in parse_line(material.text))
    first, *later = (shift / by for shift in material.shifts)
    return replace(drill, material=replace(material, text=write_line(notes), shift=first, stage_shifts=tuple(later)))


def _line(drill: Drill) -> Line:
    if isinstance(drill.material, Line):
        return drill.material
    raise OutOfRange("This is done with a line. Choose “the line” as material, and type its notes.", field="material")


def _with_notes(drill: Drill, notes: tuple[LineNote, ...]) -> Drill:
    return replace(drill, material=replace(_line(drill), text=write_line(notes)))
