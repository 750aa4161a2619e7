"""Where the notes of a drill lie: on the neck position by position, on the keys, or by their names on a wind."""

from collections.abc import Iterator
from dataclasses import dataclass

from ripresa.core.drill.material import scale_of
from ripresa.core.grid import Event, roman
from ripresa.core.pitch import Pitch
from ripresa.core.reading import Reading
from ripresa.core.reports.registers import sounding_pitch

#: Frets that a picture of the neck shows at least.
_FEWEST_FRETS = 4
#: Keys of an octave that are white, counted from C.
_WHITE = {0, 2, 4, 5, 7, 9, 11}


@dataclass(frozen=True, slots=True)
class NeckDot:
    """A place on the neck: string (1 the thinnest), fret (0 open), finger, name, and whether it is the tonic."""

    string: int
    fret: int
    finger: int
    name: str
    is_home: bool


@dataclass(frozen=True, slots=True)
class Neck:
    """What lies under the hand in one position, and the frets that its picture shows."""

    name: str
    first: int
    last: int
    dots: tuple[NeckDot, ...]

    @property
    def words(self) -> str:
        """In words, for people who listen, from the thickest string to the thinnest."""
        ordered = sorted(self.dots, key=lambda dot: (-dot.string, dot.fret))
        return f"{self.name}: " + ", ".join(
            f"string {dot.string} " + (f"fret {dot.fret} finger {dot.finger}" if dot.fret else "open") + f" {dot.name}"
            for dot in ordered
        )


@dataclass(frozen=True, slots=True)
class KeyDot:
    """A key that is played: its written note (MIDI), name, and the fingers of each hand that take it."""

    midi: int
    name: str
    right: tuple[int, ...]
    left: tuple[int, ...]
    is_home: bool


@dataclass(frozen=True, slots=True)
class Keys:
    """The keys that a picture shows, from a white one to a white one (MIDI), and those that are played."""

    lowest: int
    highest: int
    dots: tuple[KeyDot, ...]

    @property
    def black(self) -> tuple[bool, ...]:
        """Whether each key that is shown is black, from the lowest."""
        return tuple(midi % 12 not in _WHITE for midi in range(self.lowest, self.highest + 1))

    @property
    def words(self) -> str:
        """In words, for people who listen, from the lowest."""
        return "Keys: " + ", ".join(" ".join(_key_words(dot)) for dot in self.dots)


def _key_words(dot: KeyDot) -> Iterator[str]:
    yield dot.name
    for hand, fingers in (("right", dot.right), ("left", dot.left)):
        if fingers:
            yield f"{hand} " + " or ".join(str(finger) for finger in fingers)


def necks(reading: Reading) -> tuple[Neck, ...]:
    """Return a picture a position, in the order in which the hand comes to them; none where no finger is known."""
    if not reading.instrument.strings:
        return ()
    found: dict[int, dict[tuple[int, int], NeckDot]] = {}
    position = 1
    for event in _notes(reading):
        touch = event.touch
        if not touch or touch.string is None or touch.fret is None or not event.pitch:
            continue
        position = touch.position or position
        dot = NeckDot(touch.string, touch.fret, touch.finger, _letter(event.pitch), _is_home(reading, event.pitch))
        found.setdefault(position, {}).setdefault((touch.string, touch.fret), dot)
    return tuple(_neck(position, tuple(dots.values())) for position, dots in found.items())


def _neck(position: int, dots: tuple[NeckDot, ...]) -> Neck:
    held = [dot.fret for dot in dots if dot.fret]
    first = min(held, default=1)
    last = max([*held, first + _FEWEST_FRETS - 1])
    return Neck(f"position {roman(position)}", first, last, dots)


def keys(reading: Reading) -> Keys | None:
    """Return the keys of a drill on keys; None away from them, or without pitch."""
    if reading.instrument.voice != "keys":
        return None
    right: dict[int, list[int]] = {}
    left: dict[int, list[int]] = {}
    named: dict[int, Pitch] = {}
    for event in _notes(reading):
        is_left = event.hand == "L" or (not event.hand and reading.instrument.hand == "left")
        for tone in event.tones:
            named.setdefault(tone.midi, tone)
            fingers = (left if is_left else right).setdefault(tone.midi, [])
            if event.touch and event.touch.finger and event.touch.finger not in fingers:
                fingers.append(event.touch.finger)
    if not named:
        return None
    lowest, highest = min(named), max(named)
    lowest -= lowest % 12 not in _WHITE
    highest += highest % 12 not in _WHITE
    dots = (
        KeyDot(
            midi,
            _letter(tone),
            tuple(sorted(right.get(midi, ()))),
            tuple(sorted(left.get(midi, ()))),
            _is_home(reading, tone),
        )
        for midi, tone in sorted(named.items())
    )
    return Keys(lowest, highest, tuple(dots))


def names(reading: Reading) -> tuple[tuple[str, str], ...]:
    """Return the written and the sounding name of each note on a wind, from the lowest; none elsewhere."""
    if not reading.instrument.breathes:
        return ()
    tones = {tone.midi: tone for event in _notes(reading) for tone in event.tones}
    return tuple((tone.shown, sounding_pitch(reading, tone).shown) for _, tone in sorted(tones.items()))


def _notes(reading: Reading) -> Iterator[Event]:
    return (event for event in reading.every if event.kind == "note")


def _is_home(reading: Reading, pitch: Pitch) -> bool:
    known = scale_of(reading.drill.material)
    return known is not None and (pitch.midi - known[0].midi) % 12 == 0


def _letter(pitch: Pitch) -> str:
    return pitch.shown.rstrip("0123456789-")
