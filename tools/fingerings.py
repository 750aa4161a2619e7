"""Writes ``docs/fingerings.md`` from the tables: what is printed for keys, strings and winds."""

from collections.abc import Iterator, Sequence

from ripresa.core.drill import Drill, Fingering, Leg, NeckPlace
from ripresa.core.drill.material import Arpeggio, Material, ScaleRun
from ripresa.core.drill.material import Sequence as Figure
from ripresa.core.exact import Fraction
from ripresa.core.pitch import CHORDS, INSTRUMENTS, SCALES, parse_chord, parse_tonic, shape_of, usually_spelt
from ripresa.core.reading import Reading, places, read

_MAJORS = ["C", "G", "D", "A", "E", "B", "F#", "Db", "Ab", "Eb", "Bb", "F"]
_MINORS = ["A", "E", "B", "F#", "C#", "G#", "Eb", "Bb", "F", "C", "G", "D"]
_GRIPS = (
    "C D E F G A Dm Em Am Bm C7 D7 E7 G7 A7 B7 Amaj7 Cmaj7 Emaj7 Fmaj7 Gmaj7 Am7 Dm7 Em7 E5 A5 F5 C5 Am7b5 "
    "Bdim Caug Ddim7 Asus2 Dsus4 A7sus4 Cadd9 F9 Cm9 Cmaj9 G13 E7#9 D/F# G/B C/G "
)


def _read(
    material: Material, instrument: str, fingering: Fingering = "usual", place: NeckPlace | None = None
) -> Reading:
    return read(
        Drill(
            material=material,
            legs=(Leg(Fraction(4)),),
            instrument=instrument,
            fingering=fingering,
            closing="own",
            place=place or NeckPlace(),
        )
    )


def _drawn(material: Material) -> Iterator[str]:
    """Yield names and fingers of both hands under each other."""
    rows = [_read(material, f"piano_{hand}").notes for hand in ("right", "left")]
    names = [event.pitch.shown[:-1] if event.pitch else "" for event in rows[0]]
    fingers = [[str(event.touch.finger) if event.touch else "" for event in row] for row in rows]
    yield "      " + "".join(f"{name:<3}" for name in names)
    for called, row in zip(("right", "left"), fingers, strict=True):
        yield f"{called:<6}" + "".join(f"{finger:<3}" for finger in row)


def _block(title: str, materials: Sequence[tuple[str, Material]]) -> Iterator[str]:
    yield from ("", f"### {title}", "", "```")
    for name, material in materials:
        yield name
        yield from _drawn(material)
        yield ""
    yield "```"


def _tab(reading: Reading) -> Iterator[str]:
    """Yield six lines of tablature with the frets of a run, the thinnest string on top."""
    strings = len(reading.instrument.strings)
    lines = dict.fromkeys(range(1, strings + 1), "")
    for event in reading.notes:
        touch = event.touch
        width = len(str(touch.fret)) if touch else 1
        for number in lines:
            sign = str(touch.fret) if touch and touch.string == number else "-" * width
            lines[number] += f"-{sign}"
    for number, line in lines.items():
        yield f"{number} |{line}-|"
    yield "    " + "".join(f" {e.touch.finger:<{len(str(e.touch.fret))}}" for e in reading.notes if e.touch)


def _note(midi: int) -> str:
    return usually_spelt(midi).shown


def keys() -> Iterator[str]:
    """Yield the part for keys."""
    up = {"shape": "up"}
    yield from ("", "## Keys", "", "The thumb is 1. Two octaves up; the way down is the way up backwards unless said.")
    yield from _block("Majors", [(f"{one} major", ScaleRun(tonic=one, octaves=2, **up)) for one in _MAJORS])  # type: ignore[arg-type]
    for form in ("natural_minor", "harmonic_minor", "melodic_minor"):
        named = SCALES[form].name
        rows = [(f"{one} {named}", ScaleRun(tonic=one, scale=form, octaves=2, **up)) for one in _MINORS]  # type: ignore[arg-type]
        yield from _block(named.capitalize(), rows)
    yield from _block("Chromatic", [("from C", ScaleRun(scale="chromatic", octaves=1))])
    modes = ("dorian", "phrygian", "lydian", "mixolydian", "locrian")
    rows = [(f"{one} {mode}", ScaleRun(tonic=one, scale=mode, octaves=1, **up)) for mode in modes for one in _MAJORS]  # type: ignore[arg-type]
    yield from _block("Modes", rows)
    for chord in ("major_triad", "minor_triad", "dominant_seventh", "diminished_seventh"):
        named = CHORDS[chord].name
        turns = range(1, CHORDS[chord].degrees + 1)
        runs = [
            (f"{one} {named}, from tone {turn}", Arpeggio(tonic=one, chord=chord, octaves=2, start=turn, **up))  # type: ignore[arg-type]
            for one in ("C", "D", "Eb", "F", "F#", "Bb")
            for turn in turns
        ]
        yield from _block(f"{named.capitalize()}, with inversions", runs)
    broken = Figure(scale="major_triad", figure=(0, 1, 2), octaves=2, way="up")
    yield from _block("Broken triads", [("C major", broken)])


def strings() -> Iterator[str]:
    """Yield the part for strings."""
    yield from ("", "## Strings", "", "Frets on their strings, the thinnest on top; the fingers stand below.")
    printed = [("G", "major"), ("C", "major"), ("A", "natural_minor"), ("A", "minor_pentatonic")]
    yield from ("", "### In position", "", "```")
    for tonic, scale in printed:
        yield f"{tonic} {SCALES[scale].name}"
        yield from _tab(_read(ScaleRun(tonic=tonic, scale=scale, shape="up", octaves=2), "guitar", "position"))
        yield ""
    yield "```"
    yield from ("", "### The five places", "", "```")
    for tonic, scale in (("A", "minor_pentatonic"), ("G", "major")):
        for fret in places(INSTRUMENTS["guitar"], parse_tonic(tonic), SCALES[scale]):
            run = ScaleRun(tonic=tonic, scale=scale, shape="up", octaves="range")
            yield f"{tonic} {SCALES[scale].name}, first finger at fret {fret}"
            yield from _tab(_read(run, "guitar", "position", NeckPlace(fret)))
            yield ""
    yield "```"
    yield from ("", "### So many a string", "", "```")
    for scale, fingering in (("major", "three_a_string"), ("minor_pentatonic", "two_a_string")):
        yield f"A {SCALES[scale].name}, {fingering.replace('_', ' ')}"
        yield from _tab(_read(ScaleRun(tonic="A", scale=scale, shape="up", octaves=2), "guitar", fingering))  # type: ignore[arg-type]
        yield ""
    yield "```"
    yield from ("", "### Grips", "", "| chord | guitar | fingers | ukulele |", "| --- | --- | --- | --- |")
    for symbol in _GRIPS.split():
        chord = parse_chord(symbol)
        guitar, ukulele = (shape_of(chord, INSTRUMENTS[key]) for key in ("guitar", "ukulele"))
        fingers = "".join(str(one) if one else "·" for one in guitar.fingers)
        yield f"| {chord.shown} | `{guitar.text}` | `{fingers}` | `{ukulele.text}` |"


def winds() -> Iterator[str]:
    """Yield the part for winds."""
    yield from ("", "## Winds", "", "Notes as they are written; semitones of what is heard against them.", "")
    yield "| instrument | range | first year | sounds | clef | breaks | breath |"
    yield "| --- | --- | --- | --- | --- | --- | --- |"
    for one in INSTRUMENTS.values():
        if one.breathes and one.first_year:
            low, high = one.first_year
            crossed = ", ".join(f"{_note(below)}–{_note(above)}" for below, above in one.breaks) or "none"
            yield (
                f"| {one.name} | {_note(one.lowest)}–{_note(one.highest)} | {_note(low)}–{_note(high)} | "
                f"{one.sounds:+d} | {one.clef} | {crossed} | {one.breath} s |"
            )


def fingerings() -> str:
    """Return the page."""
    sources = (
        "What Ripresa prints, made from its tables. Scales and arpeggios on keys are those of C.-L. Hanon,",
        "*Le pianiste virtuose*, 1873, nos. 39 to 42; grips those of beginners’ books; ranges and breaks of winds",
        "those of fingering charts. Where schools differ, a teacher writes his own fingers over them.",
    )
    head = ("# Fingerings", "", *sources)
    return "\n".join([*head, *keys(), *strings(), *winds(), ""])
