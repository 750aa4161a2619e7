"""What is written at a note besides pitch and length: ties, slurs, strokes, fingers, accents, breaths, counts."""

from collections.abc import Iterator
from dataclasses import dataclass
from xml.sax.saxutils import escape

from ripresa.core.exact import Fraction
from ripresa.core.grid import Event
from ripresa.core.reading import Reading
from ripresa.core.reports import breath_plan
from ripresa.formats.notation.values import Written

_BOWS = {"D": "<down-bow/>", "U": "<up-bow/>"}
_FINGERS = set("pimac")
#: Syllables of the tongue; where both come it is double or triple tongueing.
_TONGUED = ("T", "K")
#: Share of its length that a note sounds → its sign.
_SHORTENED = {
    Fraction(3, 4): "<detached-legato/>",
    Fraction(1, 2): "<staccato/>",
    Fraction(1, 4): "<staccatissimo/>",
}
#: A note that is not struck → its element, and what stands over it.
_ORNAMENTS = {"hammer": ("hammer-on", "H"), "pull": ("pull-off", "P")}


@dataclass(frozen=True)
class Marks:
    """Where slurs begin and end and breath is taken, by the numbers of events."""

    reading: Reading
    slurs_from: frozenset[int]
    slurs_to: frozenset[int]
    ornaments_from: dict[int, str]
    breaths_after: frozenset[int]

    def notations(self, note: Written) -> str:
        """Return the notations of the first tone of a note, empty where there are none."""
        event = note.span.event
        parts = [*_ties(note), *_tuplet_ends(note)]
        if event and note.begins:
            number = note.span.number
            # Slurs of two hands sound together, and are told apart by their numbers.
            slur = 2 if event.hand == "L" else 1
            parts += [f'<slur type="stop" number="{slur}"/>'] * (number in self.slurs_to)
            parts += [f'<slur type="start" number="{slur}"/>'] * (number in self.slurs_from)
            technical = "".join(self._technical(event, number))
            parts += [f"<technical>{technical}</technical>"] * bool(technical)
            signs = "".join(self._articulations(event))
            parts += [f"<articulations>{signs}</articulations>"] * bool(signs)
            parts += ["<arpeggiate/>"] * event.how.rolled
        if event and not note.goes_on and note.span.number in self.breaths_after:
            parts.append("<articulations><breath-mark/></articulations>")
        return f"<notations>{''.join(parts)}</notations>" if parts else ""

    @staticmethod
    def bare(note: Written, *, is_first: bool, is_hidden: bool) -> str:
        """Return the ties of a tone, and the ends of its tuplet if it is the first; hidden under its notes."""
        parts = [*_ties(note), *(_tuplet_ends(note, is_hidden=is_hidden) if is_first else ())]
        return f"<notations>{''.join(parts)}</notations>" if parts else ""

    def lyrics(self, note: Written, *, with_letter: bool) -> str:
        """Return the word that is counted on a note, and under it, if asked for, the letter of its hand."""
        event = note.span.event
        if event is None or not note.begins:
            return ""
        letter = self._letter(event) if with_letter else ""
        # Under two hands that count alike the words stand once.
        count = event.count if event.hand != "L" or self.reading.drill.second.legs else ""
        return "".join(_lyric(line, text) for line, text in ((1, count), (2, letter)) if text.strip())

    def words(self, note: Written, staff: str) -> str:
        """Return the letter of a hand as words above its note, where it has no sign of its own."""
        event = note.span.event
        letter = self._letter(event) if event and note.begins else ""
        if not letter.strip():
            return ""
        shown = f"<direction-type><words>{printable(letter)}</words></direction-type>"
        return f'<direction placement="above">{shown}{staff}</direction>'

    def _letter(self, event: Event) -> str:
        """Return the hand or syllable of a note where that has no sign of its own; empty where it has one."""
        return event.stroke if event.stroke and not self._is_signed(event.stroke) else ""

    def _technical(self, event: Event, number: int) -> Iterator[str]:
        if event.stroke and self._is_signed(event.stroke):
            yield _BOWS.get(event.stroke) or f"<pluck>{escape(event.stroke)}</pluck>"
        if event.stroke in _TONGUED and self.reading.instrument.breathes:
            order = getattr(self.reading.drill.hands, "cycle", ())
            if "K" in order:
                yield "<double-tongue/>" if len(order) % 3 else "<triple-tongue/>"
        if event.touch and event.touch.finger:
            yield f"<fingering>{event.touch.finger}</fingering>"
        if number in self.ornaments_from:
            name, sign = _ORNAMENTS[self.ornaments_from[number]]
            yield f'<{name} type="start" number="1">{sign}</{name}>'
        if event.how.ornament in _ORNAMENTS:
            yield f'<{_ORNAMENTS[event.how.ornament][0]} type="stop" number="1"/>'

    def _articulations(self, event: Event) -> Iterator[str]:
        if event.accent == "accent":
            yield "<accent/>"
        if event.hit:
            # A hit weighs, whatever its accent.
            yield '<strong-accent type="up"/>' if event.hit == "full" else "<soft-accent/>"
        share = self.reading.lasts(event, Fraction(1))
        yield _SHORTENED.get(share, "")

    def _is_signed(self, stroke: str) -> bool:
        """Return whether a stroke has a sign that every player knows: bow marks, the fingers that pluck."""
        if self.reading.instrument.voice == "pluck":
            return stroke in _BOWS or set(stroke) - {"+"} <= _FINGERS
        return False


def marks_of(reading: Reading, bpm: Fraction) -> Marks:
    """Return what is written at the notes of a reading at a tempo, by which breaths are planned."""
    slurs_from, slurs_to, ornaments = set[int](), set[int](), dict[int, str]()
    breaths_after = set[int]()
    breathing = {breath.first.onset for breath in breath_plan(reading, bpm)}
    first = 0
    for row in reading.hands:
        before = -1
        for number, event in enumerate(row, start=first):
            if event.kind != "note":
                continue
            if before >= 0:
                if event.slurred and before not in slurs_to:
                    slurs_from.add(before)
                elif event.slurred:
                    # It goes on: what was its end is in the middle of it.
                    slurs_to.discard(before)
                if event.slurred:
                    slurs_to.add(number)
                if event.how.ornament in _ORNAMENTS:
                    ornaments[before] = event.how.ornament
                if event.onset in breathing:
                    breaths_after.add(before)
            before = number
        first += len(row)
    return Marks(reading, frozenset(slurs_from), frozenset(slurs_to), ornaments, frozenset(breaths_after))


def _ties(note: Written) -> Iterator[str]:
    """Yield the ties of a note as they are drawn."""
    if note.sounds and not note.begins:
        yield '<tied type="stop"/>'
    if note.goes_on:
        yield '<tied type="start"/>'


def _tuplet_ends(note: Written, *, is_hidden: bool = False) -> Iterator[str]:
    """Yield where a bracket begins and ends."""
    opens, closes = note.ends
    if opens:
        yield (
            '<tuplet type="start" bracket="no" show-number="none"/>'
            if is_hidden
            else '<tuplet type="start" bracket="yes"/>'
        )
    if closes:
        yield '<tuplet type="stop"/>'


def _lyric(line: int, text: str) -> str:
    return f'<lyric number="{line}"><syllabic>single</syllabic><text>{printable(text)}</text></lyric>'


def printable(text: str) -> str:
    """Return a text as XML takes it, without the signs that it forbids."""
    return escape("".join(sign for sign in text if sign.isprintable()))
