"""What the hands do, and where they stand on the neck, in sentences."""

from collections import Counter
from collections.abc import Iterator
from dataclasses import replace

from ripresa.core.drill import NOTES_A_STRING
from ripresa.core.exact import Fraction, division_label, listed, plural, short
from ripresa.core.grid import ORNAMENTS, roman
from ripresa.core.reading import Reading, read
from ripresa.core.reports.motion import beat_starts, finer_by, flips, loads, notes_a_string, positions, same_way
from ripresa.core.reports.sums import Sums
from ripresa.core.reports.told.paragraph import Paragraph
from ripresa.core.rhythm import span_seconds

_MOST_POSITIONS = 6
_LEAST = "By least movement: the hand stays where four frets reach, and goes the short way."
_WAY = {"D": "down", "U": "up"}


def hands_told(reading: Reading, found: Sums, bpm: Fraction) -> Iterator[Paragraph]:
    """Yield what the hands do; nothing where none are written."""
    if not found.loads:
        return
    shares = ", ".join(
        f"{load.symbol} {load.strikes}" + (f" of {load.motions} motions" if load.motions > load.strikes else "")
        for load in found.loads
    )
    # One symbol on every note says nothing that the notes do not.
    is_alone = not found.motions and [load.strikes for load in found.loads] == [found.notes]
    sentences = [] if is_alone else [f"Notes each plays: {shares}."]
    if found.limiting and not is_alone:
        sentences.append(
            f"The motion that limits: {found.limiting.symbol}, {short(found.limiting.peak_nps)} times a second."
        )
    if found.motions:
        moves, strikes, peak = (
            short(one) for one in (found.motions.motions_nps, found.motions.strikes_nps, found.motions.peak_nps)
        )
        sentences.append(
            f"The arm moves {moves} times a second and strikes {strikes}; at its fastest it moves {peak}, "
            "the way back counted."
        )
    sentences += _ornaments_cost(reading, found, bpm)
    sentences += _thumb_moved(reading)
    starts = beat_starts(reading)
    # Where each starts alike there is nothing to look out for.
    if len(set(starts)) > 1:
        sentences.append(f"Beats start with {' '.join(starts)} …")
    sentences += [
        f"{before.count} and the next {after.count} both go {_WAY[before.stroke or 'D']}, with no air stroke between."
        for before, after in same_way(reading)
    ]
    sentences += [
        f"From {division_label(one)} to {division_label(double)} a beat the & turns round."
        for one, double in flips(reading)
    ]
    finer = finer_by(reading)
    if finer:
        way, other = ("down", "up") if _lead(reading) == "down" else ("up", "down")
        sentences.append(
            f"For the sake of {finer.place_name} the arm goes four to the beat, and every & turns round: {way}, where "
            f"it goes {other} with two to the beat."
        )
    if sentences:
        yield Paragraph("Hands", tuple(sentences))


def _lead(reading: Reading) -> str:
    return str(getattr(reading.drill.hands, "lead", "down"))


def _thumb_moved(reading: Reading) -> Iterator[str]:
    """Yield where the thumb plays now that the fingers are mirrored with it."""
    places = dict.fromkeys(event.count for event in reading.notes if event.stroke == "p′" and event.leg == 0)
    if places:
        yield f"Mirrored: the thumb, marked p′, plays where the ring finger did: {', '.join(list(places)[:6])}."


def _ornaments_cost(reading: Reading, found: Sums, bpm: Fraction) -> Iterator[str]:
    """Yield what the notes that are not struck spare the busiest hand, and ask of the other one."""
    kinds = Counter(event.how.ornament for event in reading.notes if event.how.ornament)
    unstruck = sum(kinds.values())
    if not reading.drill.ornaments or not unstruck or not found.limiting:
        return
    struck = loads(read(replace(reading.drill, ornaments=())), bpm)
    before, after = short(struck[0].peak_nps), short(found.limiting.peak_nps)
    spared = (
        f"the busiest motion goes from {before} to {after} a second"
        if before != after
        else (f"the busiest motion stays at {after} a second: they lie where it was not busy")
    )
    rate = short(unstruck / span_seconds(reading.beats, bpm))
    named = listed([f"{count} {ORNAMENTS[kind][0]}" for kind, count in kinds.items()])
    yield f"{plural(unstruck, 'note')} not struck ({named}): {spared}; the other hand makes {rate} of them a second."


def neck_told(reading: Reading) -> Iterator[Paragraph]:
    """Yield the positions on the neck; nothing where none are worked out."""
    found = positions(reading)
    if not found:
        return
    changes = [f"{roman(position)} from {event.place_name}" for event, position in found[1:]]
    said = "; ".join([f"Position {roman(found[0][1])}", *changes[:_MOST_POSITIONS]])
    more = len(changes) - _MOST_POSITIONS
    yield Paragraph(
        "On the neck",
        (
            said + (f"; and {more} more changes." if more > 0 else "."),
            _why(reading, len(found)),
        ),
    )


def _why(reading: Reading, count: int) -> str:
    """Return why the hand stands where it does; where a layout was asked for and the neck has none, that it has not."""
    fingering = reading.drill.fingering
    if fingering == "position":
        return "All of it lies in one position." if count == 1 else f"No one position holds all of it. {_LEAST}"
    wanted = NOTES_A_STRING.get(fingering)
    if wanted is None:
        return _LEAST
    counts = sorted(notes_a_string(reading).values(), reverse=True)
    fits = counts[0] <= wanted and all(one == wanted for one in counts[:-1])
    return f"{wanted} notes a string." if fits else f"{wanted} notes a string do not fit here. {_LEAST}"
