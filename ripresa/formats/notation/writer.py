"""The bars of a score, voice by voice and note by note: what MusicXML says of each."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field
from math import gcd

from ripresa.core.drill.material import Strum
from ripresa.core.exact import Fraction
from ripresa.core.grid import Event
from ripresa.core.pitch import LETTERS, Key, Pitch
from ripresa.core.reading import Reading
from ripresa.formats.drums import SECOND, Drum, drum_of
from ripresa.formats.notation import heads
from ripresa.formats.notation.beams import beam
from ripresa.formats.notation.heads import Staff
from ripresa.formats.notation.marks import Marks, marks_of
from ripresa.formats.notation.strings import Form, on_strings
from ripresa.formats.notation.ticks import Span, Ticks, by_bar
from ripresa.formats.notation.values import WHOLE_BAR, Written, written_bar

_ACCIDENTALS = {-2: "flat-flat", -1: "flat", 0: "natural", 1: "sharp", 2: "double-sharp"}
#: MusicXML numbers the voices of a second staff on from those of the first.
_VOICES_A_STAFF = 4


@dataclass(frozen=True, slots=True)
class _Voice:
    """What is written on a staff from left to right: its number, and its notes bar by bar."""

    number: int
    staff: Staff
    bars: tuple[tuple[Written, ...], ...]
    is_second: bool = False


@dataclass
class Writer:
    """Writes the bars of one reading."""

    reading: Reading
    bpm: Fraction
    form: Form
    for_drawing: bool
    ticks: Ticks = field(init=False)
    marks: Marks = field(init=False)
    key: Key = field(init=False)
    drums: list[Drum] = field(init=False)
    staves: list[Staff] = field(init=False)
    voices: list[_Voice] = field(init=False)

    def __post_init__(self) -> None:
        reading = self.reading
        self.ticks = Ticks(reading)
        self.marks = marks_of(reading, self.bpm)
        self.key = heads.key_of_reading(reading)
        self.drums = heads.drums_in(reading)
        self.staves, self.voices = [], []
        self._slashed = isinstance(reading.drill.material, Strum)
        first = 0
        for number, row in enumerate(reading.hands, start=1):
            spans, cells = self.ticks.row(row, first)
            staff = Staff(number, row, is_tab=self.form == "tab")
            bars = self._written(spans, cells)
            self._add(staff, bars)
            first += len(row)
        if reading.second:
            bars = self._written(self.ticks.strokes(reading.second), [])
            self.voices.append(_Voice(2, self.staves[0], bars, is_second=True))
        if self.form == "both":
            self._add(Staff(2, reading.events, is_tab=True), self.voices[0].bars)
        self._unit = gcd(*(note.length for voice in self.voices for bar in voice.bars for note in bar))
        self._unit = gcd(self._unit, self.ticks.quarter)
        self._said: dict[int, str] = dict(self._directions())

    def _add(self, staff: Staff, bars: tuple[tuple[Written, ...], ...]) -> None:
        self.staves.append(staff)
        self.voices.append(_Voice(1 + (staff.number - 1) * _VOICES_A_STAFF, staff, bars))

    def _written(self, spans: Sequence[Span], cells: Sequence[tuple[int, int]]) -> tuple[tuple[Written, ...], ...]:
        found, place = [], 0
        for bar, inside in by_bar(self.ticks.bars, spans):
            while place < len(cells) and cells[place][1] <= bar.start:
                place += 1
            until = place
            while until < len(cells) and cells[until][0] < bar.end:
                until += 1
            notes = written_bar(bar, inside, cells[place:until], self.ticks.quarter)
            beam(bar, notes)
            found.append(tuple(notes))
        return tuple(found)

    def head(self) -> str:
        """Return what stands before the first bar."""
        divisions = self.ticks.quarter // self._unit
        slashed = self._slashed and not self.for_drawing
        begin = heads.attributes(self.reading, self.staves, self.key, divisions, slashed)
        # Beside a picture the tempo stands in figures, and changes with each rung.
        tempo = "" if self.for_drawing else heads.metronome(self.reading, self.bpm)
        return begin + tempo + heads.swung(self.reading)

    def change_of_meter(self, place: int) -> str:
        """Return the meter of a bar where it is another than that of the bar before."""
        before, now = self.ticks.bars[max(0, place - 1)].bar, self.ticks.bars[place].bar
        counted = self.reading.meter.counted
        told = heads.time(now, counted)
        return f"<attributes>{told}</attributes>" if told != heads.time(before, counted) else ""

    def bar(self, place: int) -> str:
        """Return the notes of a bar, voice by voice."""
        bar = self.ticks.bars[place]
        back = f"<backup><duration>{(bar.end - bar.start) // self._unit}</duration></backup>"
        return back.join(self._voice(voice, voice.bars[place]) for voice in self.voices)

    def _voice(self, voice: _Voice, notes: Sequence[Written]) -> str:
        altered: dict[tuple[int, int], int] = {}
        parts = []
        for note in notes:
            if voice is self.voices[0] and note.start in self._said:
                parts.append(self._said[note.start])
            parts.append("".join(self._note(voice, note, altered)))
        return "".join(parts)

    def _directions(self) -> Iterator[tuple[int, str]]:
        """Yield what stands over the staff at each tick: where a leg begins, where a chord changes."""
        said: dict[int, str] = {}
        if len(self.reading.legs) > 1:
            for leg in self.reading.legs:
                said[self.ticks.at(leg.start)] = heads.rehearsal(leg)
        symbol = ""
        for event in self.reading.events:
            if event.kind == "note" and event.chord and event.chord.symbol != symbol:
                symbol = event.chord.symbol
                # Chords change at places that no swing moves, or begin with the note that it moved.
                at = self.ticks.written_at(event)
                said[at] = said.get(at, "") + heads.harmony(symbol)
        yield from said.items()

    def _note(self, voice: _Voice, note: Written, altered: dict[tuple[int, int], int]) -> Iterator[str]:
        event = note.span.event
        staff = f"<staff>{voice.staff.number}</staff>" if len(self.staves) > 1 else ""
        fills = note.value == WHOLE_BAR
        shape = "" if fills else f"<type>{note.value}</type>" + "<dot/>" * note.dotted
        timing = f"<duration>{note.length // self._unit}</duration>"
        number = f"<voice>{voice.number}</voice>"
        changed = (
            f"<time-modification><actual-notes>{note.tuplet.actual}</actual-notes>"
            f"<normal-notes>{note.tuplet.normal}</normal-notes></time-modification>"
            if note.tuplet
            else ""
        )
        beams = "".join(f'<beam number="{level}">{does}</beam>' for level, does in enumerate(note.beams, start=1))
        if event is None:
            hidden = ' print-object="no"' if voice.is_second or (voice.staff.is_tab and self.form == "both") else ""
            rest = '<rest measure="yes"/>' if fills else "<rest/>"
            yield f"<note{hidden}>{rest}{timing}{number}{shape}{changed}{staff}{self._brackets(voice, note)}</note>"
            return
        under_notes = voice.staff.is_tab and self.form == "both"
        stem = "<stem>none</stem>" if under_notes else ""
        tie = '<tie type="stop"/>' * (not note.begins) + '<tie type="start"/>' * note.goes_on
        tones = list(self._tones(voice, event))
        for place, tone in enumerate(tones):
            accidental = self._accidental(tone.pitch, note, altered) if tone.pitch and not voice.staff.is_tab else ""
            head = self._head(event, tone)
            used = f'<instrument id="{heads.instrument_id(tone.drum)}"/>' if self.drums else ""
            marks = self._brackets(voice, note, tone.technical, is_first=not place)
            is_worded = not place and voice.number in {1, 5} and not under_notes and not voice.is_second
            words = self.marks.lyrics(note, with_letter=self.for_drawing) if is_worded else ""
            # Our own engraver writes no cross on a string: it is drawn in its place afterwards, by this name.
            cross = "x" if event.how.dead and voice.staff.is_tab else ""
            named = f"e{note.span.number}-{voice.number}-{note.start}-{place}{cross}"
            name = f' id="{named}"' if not voice.is_second else ""
            yield self.marks.words(note, staff) if is_worded and not self.for_drawing else ""
            yield (
                f"<note{name}>{'<chord/>' * bool(place)}{tone.element}{timing}{tie}{used}{number}{shape}{accidental}"
                f"{changed}{stem}{head}{staff}{beams if not place and not under_notes else ''}{marks}"
                f"{words}</note>"
            )

    def _tones(self, voice: _Voice, event: Event) -> Iterator["_Tone"]:
        """Yield what is written for an event: its tones, its strings, a slash, or a drum."""
        if voice.is_second:
            yield _Tone(_unpitched(SECOND), drum=SECOND)
        elif voice.staff.is_tab:
            for string, fret, pitch in on_strings(self.reading, event):
                where = f"<technical><string>{string}</string><fret>{fret}</fret></technical>"
                yield _Tone(_pitched(pitch), pitch, technical=where)
        elif not event.tones:
            drum = drum_of(event)
            yield _Tone(_unpitched(drum), drum=drum)
        elif self._slashed and self.for_drawing and event.chord:
            yield _Tone(_pitched(_MIDDLE), slash=True)
        else:
            for tone in event.tones:
                yield _Tone(_pitched(tone), tone)

    def _accidental(self, pitch: Pitch, note: Written, altered: dict[tuple[int, int], int]) -> str:
        """Return the sign that a note needs: none where key or bar has it already, or it is tied from before."""
        where = pitch.letter, pitch.octave
        if not note.begins or altered.get(where, self.key.alter(pitch.letter)) == pitch.alter:
            return ""
        altered[where] = pitch.alter
        return f"<accidental>{_ACCIDENTALS[pitch.alter]}</accidental>"

    def _head(self, event: Event, tone: "_Tone") -> str:
        is_cross = event.how.dead or bool(tone.drum and tone.drum.is_cross)
        kind = "slash" if tone.slash else "x" if is_cross else "normal"
        if event.accent == "ghost":
            return f'<notehead parentheses="yes">{kind}</notehead>'
        return "" if kind == "normal" else f"<notehead>{kind}</notehead>"

    def _brackets(self, voice: _Voice, note: Written, technical: str = "", *, is_first: bool = True) -> str:
        """Return the notations of a tone: all marks at the first of the main staff, ties and strings at the others."""
        under_notes = voice.staff.is_tab and self.form == "both"
        # Our own engraver sets marks beside the frets of a staff of strings, and not over them.
        without_marks = under_notes or voice.is_second or (voice.staff.is_tab and self.for_drawing)
        if is_first and not without_marks:
            found = self.marks.notations(note)
        else:
            found = self.marks.bare(note, is_first=is_first, is_hidden=under_notes)
        if not technical:
            return found
        return found.replace("</notations>", f"{technical}</notations>") or f"<notations>{technical}</notations>"


@dataclass(frozen=True, slots=True)
class _Tone:
    element: str
    pitch: Pitch | None = None
    drum: Drum | None = None
    technical: str = ""
    slash: bool = False


_MIDDLE = Pitch(LETTERS.index("B"), 0, 4)


def _pitched(pitch: Pitch) -> str:
    alter = f"<alter>{pitch.alter}</alter>" if pitch.alter else ""
    return f"<pitch><step>{LETTERS[pitch.letter]}</step>{alter}<octave>{pitch.octave}</octave></pitch>"


def _unpitched(drum: Drum) -> str:
    return (
        f"<unpitched><display-step>{drum.step}</display-step><display-octave>{drum.octave}</display-octave></unpitched>"
    )
