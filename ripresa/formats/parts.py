"""Parts of a file that others wrote, and the drill that some bars of one become: a line in its own rhythm."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from itertools import pairwise
from math import lcm

from ripresa.core.drill import Drill, Leg
from ripresa.core.drill.accents import NoAccents
from ripresa.core.drill.hands import LONGEST_CYCLE, ByOrder, NoHands
from ripresa.core.drill.material import FINEST, Line, LineNote, without_bars, write_line
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction, label, plural
from ripresa.core.pitch import INSTRUMENTS, Pitch, above
from ripresa.core.rhythm import FASTEST_BPM, METERS, SLOWEST_BPM, Level, Meter, Swing, meter_named
from ripresa.formats.bounds import MOST_SCORE_BARS, bar_lines

MOST_BARS = 64
#: Divisions that played notes are drawn to, the plainest first, and how far off (in beats) still is that division.
_GRIDS = (1, 2, 4, 3, 6, 8)
_NEAR = Fraction(1, 24)
_LAST_GRID = 12
#: The coarsest grid that the end of a note is drawn to.
_COARSE = 2
STRAIGHT = Swing()


@dataclass(frozen=True, slots=True)
class Sounded:
    """A note of a part: onset and length in quarters; pitch as written, None for percussion; how it is struck."""

    onset: Fraction
    length: Fraction
    pitch: Pitch | None
    accent: Level = "plain"
    stroke: str = ""

    @property
    def end(self) -> Fraction:
        """Where it is over."""
        return self.onset + self.length


@dataclass(frozen=True, slots=True)
class Part:
    """A part of a file.

    Args:
        name: What the file calls it.
        notes: In order of their onsets; one voice or several.
        meters: (onset in quarters, beats, beat type) of each time signature, the first at 0.
        quarters_a_minute: Its first tempo.
        transposes: From the written to the heard note: steps of the staff and semitones. swing: How its pairs swing.
        told: What was left out or changed while it was read, in sentences.
    """

    name: str
    notes: tuple[Sounded, ...]
    meters: tuple[tuple[Fraction, int, int], ...]
    quarters_a_minute: Fraction
    told: tuple[str, ...] = ()
    transposes: tuple[int, int] = (0, 0)
    swing: Swing = STRAIGHT

    @property
    def bars(self) -> int:
        """Bars, the one with the last note in."""
        last = max((note.onset for note in self.notes), default=Fraction(0))
        lines = bar_lines(self.meters)
        return next((number for number, start, length in lines if start + length > last), MOST_SCORE_BARS)

    def bar_lines(self) -> Iterator[tuple[int, Fraction, Fraction]]:
        """Yield number, start and length (quarters) of each bar, up to the last that can be read."""
        yield from bar_lines(self.meters)

    def signature_at(self, quarters: Fraction) -> tuple[int, int]:
        """Return the time signature in force."""
        return next((above, below) for at, above, below in reversed(self.meters) if at <= quarters)


@dataclass(frozen=True, slots=True)
class Taken:
    """The drill that bars of a part became, and what had to be changed, in sentences."""

    drill: Drill
    said: tuple[str, ...]


def drill_of(part: Part, first_bar: int, last_bar: int, title: str) -> Taken:
    """Return bars of a part as a drill: its highest voice, each note at its place.

    Raises:
        OutOfRange: There are no such bars or no notes in them, or a meter that Ripresa does not know or that changes.
    """
    if not 1 <= first_bar <= last_bar <= part.bars or last_bar - first_bar >= MOST_BARS:
        raise OutOfRange(
            f"Choose bars from 1 to {part.bars}, up to {MOST_BARS} of them; not {first_bar} to {last_bar}.",
            field="first_bar",
        )
    bars = [(start, start + length) for number, start, length in _until(part, last_bar) if number >= first_bar]
    meters = _meters(part, [start for start, _ in bars], first_bar)
    begin, end = bars[0][0], bars[-1][1]
    instrument = _written_for(part)
    inside = [note for note in part.notes if begin <= note.onset < end]
    if not inside:
        raise OutOfRange(f"Bars {first_bar} to {last_bar} of {part.name} have no notes.", field="first_bar")
    voice = _highest([replace(note, onset=note.onset - begin) for note in inside])
    if instrument is None:
        voice = [replace(note, pitch=note.pitch and above(note.pitch, *part.transposes)) for note in voice]
    # A signature does not say how the beats of a bar lie: they are taken as they need least to be moved.
    meter, drawn, moved = min(
        ((meter, *_drawn(_in_beats(voice, meter), meter)) for meter in meters), key=lambda found: found[2]
    )
    beat = meter.counted * 4
    notes = tuple(_spelt(drawn, (end - begin) / beat, meter))
    said = [*part.told, *_transposition(part, instrument)]
    bpm = Fraction(round(part.quarters_a_minute / beat * 4), 4)
    if not SLOWEST_BPM <= bpm <= FASTEST_BPM:
        said.append(f"Its tempo, {label(bpm)} bpm, cannot be played: set to the nearest that can.")
        bpm = min(max(bpm, SLOWEST_BPM), FASTEST_BPM)
    if len(voice) < len(inside):
        said.append(f"{plural(len(inside) - len(voice), 'note')} under another left out: a line has one voice.")
    if moved:
        said.append(f"{plural(moved, 'note')} moved to the nearest place that can be counted.")
    hands = _hands(voice)
    if hands is None:
        said.append("Its hand letters follow no order that can be read, and are left out.")
    drill = Drill(
        title=title,
        material=Line(text=write_line(notes), rhythm="own"),
        legs=(Leg(Fraction(1)),),
        bpm=bpm,
        meter=meter.name,
        accents=NoAccents(),
        swing=part.swing,
        hands=hands or NoHands(),
    )
    return Taken(replace(drill, instrument=instrument) if instrument else drill, tuple(said))


def _hands(voice: Sequence[Sounded]) -> ByOrder | NoHands | None:
    """Return the order in which the strokes of notes come, the shortest that there is; None where there is none.

    Few strokes are none.
    """
    strokes = [note.stroke for note in voice]
    if 2 * sum(map(bool, strokes)) <= len(strokes):
        # A bow mark here and there, or a word that only looks like a letter, is no order of hands.
        return NoHands()
    if not all(strokes):
        return None
    for size in range(1, min(len(strokes), LONGEST_CYCLE) + 1):
        if all(one == strokes[place % size] for place, one in enumerate(strokes)):
            return ByOrder(cycle=tuple(strokes[:size]))
    return None


def later_tempi(count: int) -> str:
    """Return what is said of tempi after the first, as many as they are."""
    return f"{count} later {'tempo' if count == 1 else 'tempi'} left out: a drill has one."


def _written_for(part: Part) -> str | None:
    """Return the instrument that a part is written for, by its name if it can; None where none transposes as it does.

    Empty where it does not transpose: then it is for whoever plays it.
    """
    steps, semitones = part.transposes
    if not steps and not semitones:
        return ""
    fits = [key for key, one in INSTRUMENTS.items() if one.sounds == semitones]
    name = part.name.lower()
    called = [key for key in fits if INSTRUMENTS[key].name.lower() in name]
    # “Horn 1” is a horn in F, if it transposes as one; a stranger that does so is none.
    called += [key for key in fits if INSTRUMENTS[key].name.split()[0].lower() in name]
    return next(iter(called), fits[0] if fits and not semitones % 12 else None)


def _transposition(part: Part, instrument: str | None) -> Iterator[str]:
    """Yield what is to be said of a part whose notes are not heard as they are written."""
    semitones = part.transposes[1]
    far = f"{plural(abs(semitones), 'semitone')} {'lower' if semitones < 0 else 'higher'}"
    if instrument:
        yield f"It is heard {far} than it is written: taken for {INSTRUMENTS[instrument].name}, as it is written."
    elif instrument is None:
        yield f"It is heard {far} than it is written: its notes stand as they are heard."


def _until(part: Part, last: int) -> Iterator[tuple[int, Fraction, Fraction]]:
    for bar in part.bar_lines():
        if bar[0] > last:
            return
        yield bar


def _in_beats(voice: Sequence[Sounded], meter: Meter) -> list[Sounded]:
    beat = meter.counted * 4
    return [replace(note, onset=note.onset / beat, length=note.length / beat) for note in voice]


def _meters(part: Part, starts: Sequence[Fraction], first_bar: int) -> list[Meter]:
    signature = part.signature_at(starts[0])
    for number, start in enumerate(starts, start=first_bar):
        if part.signature_at(start) != signature:
            raise OutOfRange(
                f"The meter changes at bar {number}. Choose bars before it, or from it on.", field="last_bar"
            )
    found = [meter for meter in METERS.values() if meter.signature == signature]
    if found:
        return found
    try:
        return [meter_named(f"{signature[0]}/{signature[1]}")]
    except OutOfRange as error:
        raise OutOfRange(
            f"This part is in {signature[0]}/{signature[1]}, and that cannot be laid out. {error.message}", field="part"
        ) from error


def _highest(notes: Sequence[Sounded]) -> list[Sounded]:
    """Return the highest note of each onset, none longer than to the next."""
    best: dict[Fraction, Sounded] = {}
    for note in notes:
        other = best.get(note.onset)
        if other is None or _height(note) > _height(other):
            best[note.onset] = note
    ordered = [best[onset] for onset in sorted(best)]
    ends = [*(after.onset for after in ordered[1:]), None]
    return [
        replace(note, length=end - note.onset) if end is not None and note.end > end else note
        for note, end in zip(ordered, ends, strict=True)
    ]


def _height(note: Sounded) -> int:
    return note.pitch.midi if note.pitch else 0


def _drawn(voice: Sequence[Sounded], meter: Meter) -> tuple[list[Sounded], int]:
    """Return notes whose places can be counted, and how many had to be moved.

    Onsets that share up to 16 slots a beat stay where they are; else all in the beat are drawn to the plainest
    division near them. An end that would need a finer grid than the onsets do is drawn to theirs.
    """
    onsets = _by_beat([note.onset for note in voice], meter)
    both = _by_beat([edge for note in voice for edge in (note.onset, note.end)], meter)
    grids = {beat: None if _fits(shares) else _grid(shares) for beat, shares in onsets.items()}

    def begin(position: Fraction) -> Fraction:
        beat, share, length = _in_beat(position, meter)
        grid = grids[beat]
        return position if grid is None else beat + length * Fraction(round(share * grid), grid)

    def finish(position: Fraction) -> Fraction:
        beat, share, length = _in_beat(position, meter)
        grid = grids.get(beat)
        if grid is None and _fits(both[beat]):
            return position
        shares = onsets.get(beat, [Fraction(0)])
        grid = grid or max(_COARSE, lcm(*(one.denominator for one in shares)))
        return beat + length * Fraction(round(share * grid), grid)

    found = [replace(note, onset=begin(note.onset), length=finish(note.end) - begin(note.onset)) for note in voice]
    moved = sum(before.onset != after.onset for before, after in zip(voice, found, strict=True))
    kept = [note for note, after in pairwise([*found, None]) if after is None or (note and note.onset < after.onset)]
    return [_lasting(note, after) for note, after in pairwise([*kept, None]) if note], moved


def _by_beat(positions: Sequence[Fraction], meter: Meter) -> dict[Fraction, list[Fraction]]:
    """Return the shares of each beat at which something happens, by the start of the beat."""
    found: dict[Fraction, list[Fraction]] = {}
    for position in positions:
        start, share, _ = _in_beat(position, meter)
        found.setdefault(start, []).append(share)
    return found


def _fits(shares: Sequence[Fraction]) -> bool:
    return lcm(*(share.denominator for share in shares)) <= FINEST


def _lasting(note: Sounded, after: Sounded | None) -> Sounded:
    """Return a note that lasts: one that was drawn to nothing goes on to the next."""
    if note.length > 0 and (after is None or note.end <= after.onset):
        return note
    return replace(note, length=after.onset - note.onset if after else Fraction(1, 4))


def _in_beat(position: Fraction, meter: Meter) -> tuple[Fraction, Fraction, Fraction]:
    """Return where the beat of a position starts, the share of it that is gone, and its length."""
    _, _, inside = meter.place(position)
    length = meter.beat_at(position)
    return position - inside, inside / length, length


def _grid(shares: Sequence[Fraction]) -> int:
    for grid in _GRIDS:
        if all(abs(share - Fraction(round(share * grid), grid)) <= _NEAR for share in shares):
            return grid
    return _LAST_GRID


def _spelt(notes: Sequence[Sounded], end: Fraction, meter: Meter) -> Iterator[LineNote]:
    """Yield the words of the line, rests between; with bar lines if nothing goes over one."""
    words: list[tuple[Fraction, LineNote]] = []
    at = Fraction(0)
    for note in notes:
        words += _rests(at, note.onset, meter)
        length = min(note.length, end - note.onset)
        if length <= 0:
            # Drawn over the last bar line: it belongs to what was not asked for.
            continue
        words.append((note.onset, LineNote(note.pitch, length, note.accent)))
        at = note.onset + length
    words += _rests(at, end, meter)
    over = any(
        meter.place(onset)[0] != meter.place(onset + word.length - Fraction(1, 10**9))[0] for onset, word in words
    )
    placed = [replace(word, bar=meter.place(onset)[0]) for onset, word in words]
    yield from without_bars(placed) if over else placed


def _rests(start: Fraction, end: Fraction, meter: Meter) -> Iterator[tuple[Fraction, LineNote]]:
    while start < end:
        piece = min(end - start, meter.to_bar_line(start) or meter.bar(1).length)
        yield start, LineNote(None, piece, silent=True)
        start += piece
