"""Notation: what is written is what the reading says, as three readers that others made find it, and reads well."""

import re
from collections.abc import Sequence
from dataclasses import replace
from functools import lru_cache
from importlib.util import find_spec
from pathlib import Path
from tempfile import TemporaryDirectory

import pytest
from hypothesis import given
from lxml import etree

from ripresa.core.drill import Drill, Leg
from ripresa.core.drill.accents import NoAccents
from ripresa.core.drill.hands import ByOrder
from ripresa.core.drill.material import Count, Line, LongNotes, OneNote, ScaleRun, Strum
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction as F
from ripresa.core.pitch.chord_symbol import QUALITIES
from ripresa.core.reading import Reading, read
from ripresa.core.rhythm import Swing
from ripresa.core.shelf import SHELF
from ripresa.formats.notation import has_strings, write_musicxml, write_score
from tests.formats.readers import Found, by_music21, by_partitura, by_verovio, due
from tests.strategies import drills, legs, so_many

SHELF_DRILLS = [pytest.param(entry.drill, id=entry.drill.title) for entry in SHELF]


#: What the schema imports from elsewhere, as much as it uses: namespace and attributes.
_BESIDE = {
    "xml.xsd": ("http://www.w3.org/XML/1998/namespace", ("lang", "space")),
    "xlink.xsd": ("http://www.w3.org/1999/xlink", ("type", "href", "role", "title", "show", "actuate")),
}
_SCHEMA = '<xs:schema xmlns:xs="http://www.w3.org/2001/XMLSchema" targetNamespace="{}">{}</xs:schema>'


@lru_cache(maxsize=1)
def schema() -> etree.XMLSchema:
    """Return the schema of MusicXML 4.0; what it imports from elsewhere lies beside it."""
    found = find_spec("musicxml")
    assert found is not None
    assert found.origin is not None
    source = Path(found.origin).parent / "generate_classes"
    with TemporaryDirectory() as folder:
        text = (source / "musicxml_4_0.xsd").read_text("utf-8")
        for name, (namespace, attributes) in _BESIDE.items():
            inside = "".join(f'<xs:attribute name="{one}" type="xs:string"/>' for one in attributes)
            (Path(folder) / name).write_text(_SCHEMA.format(namespace, inside), "utf-8")
            text = text.replace(f"http://www.musicxml.org/xsd/{name}", name)
        (Path(folder) / "musicxml.xsd").write_text(text, "utf-8")
        return etree.XMLSchema(etree.parse(Path(folder) / "musicxml.xsd"))


def straight(drill: Drill) -> Reading:
    """Return the reading of a drill without its swing, which print does not show."""
    return read(replace(drill, swing=Swing()))


def bars_of(body: bytes) -> list[list[etree._Element]]:
    """Return the notes of the first voice, bar by bar."""
    root = etree.fromstring(body)
    return [[note for note in bar.iterfind("note") if note.findtext("voice") == "1"] for bar in root.iter("measure")]


def check(drill: Drill) -> None:
    """Hold a drill's file to its reading: by the schema, by the length of its bars, by three readers."""
    reading = straight(drill)
    body = write_musicxml(reading, drill.bpm, folded=False)
    root = etree.fromstring(body)
    assert schema().validate(root), schema().error_log
    lengths_fit(root, reading)
    wanted = due(reading)
    staves = len(reading.hands)
    assert by_music21(body, staves) == wanted
    assert by_verovio(body, staves) == wanted
    plain = write_musicxml(reading, drill.bpm, "notes", folded=False)
    if not _ties_alike(wanted, reading):
        assert by_partitura(plain, staves) == wanted


def _ties_alike(wanted: Sequence[Found], reading: Reading) -> bool:
    """Return whether two hands hold the same key over the same moment: partitura tells ties apart by pitch alone."""
    if len(reading.hands) == 1:
        return False
    keys = [(start, start + length, key) for start, length, pitches in wanted for key in pitches or (0,)]
    return any(
        one[2] == other[2] and one[0] < other[1] and other[0] < one[1]
        for place, one in enumerate(keys)
        for other in keys[place + 1 :]
    )


def lengths_fit(root: etree._Element, reading: Reading) -> None:
    """Every voice of every bar is as long as the bar, as MusicXML counts it."""
    divisions = int(root.findtext(".//divisions") or 0)
    for number, bar in enumerate(root.iter("measure"), start=1):
        whole = reading.meter.bar(number).length * reading.meter.counted * 4 * divisions
        at = 0
        for one in bar:
            if one.tag == "note" and one.find("chord") is None:
                at += int(one.findtext("duration") or 0)
            elif one.tag == "backup":
                assert at == whole
                at -= int(one.findtext("duration") or 0)
        assert at == whole


# Every second: any drill is read below, and three readers take their time.
@pytest.mark.parametrize("drill", SHELF_DRILLS[::2])
def test_three_readers_find_what_a_shelf_drill_says(drill: Drill) -> None:
    check(drill)


@given(drills)
@so_many(40, 300)
def test_three_readers_find_what_any_drill_says(drill: Drill) -> None:
    check(drill)


def test_what_is_said_once_between_repeat_signs_is_played_as_often() -> None:
    drill = Drill(material=Count("1 & 2 & 3 & 4 &"), legs=legs(1, 1, 1), accents=NoAccents())
    reading = read(drill)
    body = write_musicxml(reading, drill.bpm)
    assert len(bars_of(body)) == 1
    assert [one.get("times") for one in etree.fromstring(body).iter("repeat") if one.get("times")] == ["3"]
    drawn_as = write_score(reading, drill.bpm).drawn_as
    assert drawn_as[8] == drawn_as[16] == 0
    assert drawn_as[23] == 7


def values(drill: Drill) -> list[str]:
    """Return the note values of a drill, bar by bar: ``q`` a quarter, ``q.`` dotted, ``(q)`` a rest, ``_`` a tie."""
    found = []
    for bar in bars_of(write_musicxml(straight(drill), drill.bpm, folded=False)):
        words = []
        for note in bar:
            word = _SHORT.get(note.findtext("type") or "", "bar") + "." * len(note.findall("dot"))
            tuplet = note.find("time-modification")
            if tuplet is not None:
                word += f"/{tuplet.findtext('actual-notes')}:{tuplet.findtext('normal-notes')}"
            word += "_" * bool(note.xpath("tie[@type='start']"))
            words.append(f"({word})" if note.find("rest") is not None else word)
        found.append(" ".join(words))
    return found


_SHORT = {"whole": "w", "half": "h", "quarter": "q", "eighth": "e", "16th": "s", "32nd": "t"}


@pytest.mark.parametrize(
    ("drill", "written"),
    [
        pytest.param(Drill(material=LongNotes(beats=2, rest=0), legs=legs(1)), "h h", id="a half is a half"),
        pytest.param(Drill(material=LongNotes(beats=3, rest=1), legs=legs(1)), "h. (q)", id="three beats are dotted"),
        pytest.param(Drill(material=OneNote(beats=2), legs=legs(2), meter="6/8"), "e. e. e. e.", id="two in a dotted"),
        pytest.param(
            Drill(material=OneNote(beats=4), legs=legs("3/2")),
            "q/3:2 q/3:2 q/3:2 q/3:2 q/3:2 q/3:2",
            id="three in the time of two",
        ),
        pytest.param(
            Drill(material=OneNote(beats=3), legs=legs("3/2"), meter="3/4"),
            "q/3:2 q/3:2 q/3:2 q/3:2 e/3:2_",
            id="a tuplet over the bar line is split and tied",
        ),
        pytest.param(
            Drill(material=Line("C4*3/2 D4*1/2 E4*2", rhythm="own"), legs=legs(1)), "q. e h", id="dotted over a beat"
        ),
        pytest.param(
            Drill(material=Line("r*1/2 C4*1 D4*1/2 E4*2", rhythm="own"), legs=legs(1)), "(e) q e h", id="syncopation"
        ),
        pytest.param(
            Drill(material=Line("C4*1 D4*2 E4*1", rhythm="own"), legs=legs(1)), "q h q", id="a half on beat 2"
        ),
        pytest.param(
            Drill(material=Line("C4*3/2 D4*1 E4*3/2", rhythm="own"), legs=legs(1)),
            "q. e_ e e_ q",
            id="the middle of the bar is seen",
        ),
        pytest.param(
            Drill(material=OneNote(beats=4), legs=legs(1), meter="7/8 (2+2+3)"), "q q q. ", id="unequal beats"
        ),
        pytest.param(
            Drill(material=Line("r*3 C4*1", rhythm="own"), legs=legs(1)), "(h) (q) q", id="rests show the half"
        ),
    ],
)
def test_values_are_few_and_right(drill: Drill, written: str) -> None:
    assert values(drill)[0] == written.strip()


def test_a_note_held_over_the_bar_line_is_tied() -> None:
    drill = Drill(material=Line("C4*6 D4*2", rhythm="own"), legs=legs(1))
    assert values(drill) == ["w_", "h h"]


def test_accidentals_stand_where_they_are_needed() -> None:
    drill = Drill(material=Line("F#4 F4 F4 F#5 | F#4 G4 G4 G4", tonic="G"), legs=legs(1))
    bars = bars_of(write_musicxml(read(drill), drill.bpm))
    root = etree.fromstring(write_musicxml(read(drill), drill.bpm))
    fifths = int(root.findtext(".//fifths") or 0)
    signs = [[note.findtext("accidental") or "" for note in bar] for bar in bars]
    # One sharp is in the key: the natural is written once a bar and line, the sharp of another octave not at all.
    assert fifths == 1
    assert signs == [["", "natural", "", ""], ["", "", "", ""]]


@pytest.mark.parametrize(
    ("material", "fifths", "mode"),
    [
        (ScaleRun(tonic="Eb", scale="major"), -3, "major"),
        (ScaleRun(tonic="E", scale="harmonic_minor"), 1, "minor"),
        (ScaleRun(tonic="D", scale="dorian"), 0, "dorian"),
        (ScaleRun(tonic="C#", scale="major"), 7, "major"),
        (ScaleRun(tonic="A", scale="minor_pentatonic"), 0, "minor"),
        (ScaleRun(tonic="G", scale="chromatic"), 1, "major"),
        (Strum(chords="D | A7"), 2, "major"),
    ],
)
def test_the_key_is_that_of_the_material(material: ScaleRun | Strum, fifths: int, mode: str) -> None:
    root = etree.fromstring(write_musicxml(read(Drill(material=material)), F(60)))
    assert (root.findtext(".//fifths"), root.findtext(".//mode")) == (str(fifths), mode)


def test_beams_join_each_beat_and_hooks_point_inwards() -> None:
    drill = Drill(material=Line("C4*3/4 D4*1/4 E4*1/2 F4*1/4 G4*1/4 A4*1 B4*1", rhythm="own"), legs=legs(1))
    (bar,) = bars_of(write_musicxml(read(drill), drill.bpm))
    assert [[beam.text for beam in note.iterfind("beam")] for note in bar] == [
        ["begin"],
        ["end", "backward hook"],
        ["begin"],
        ["continue", "begin"],
        ["end", "end"],
        [],
        [],
    ]


def test_strings_bows_slashes_chords_and_swing_are_written() -> None:
    strum = Drill(
        material=Strum(chords="G/B | Cadd9", pattern="1 & 2 & 3 & 4 &"),
        hands=ByOrder(("D", "U")),
        instrument="guitar",
        swing=Swing(F(2)),
    )
    assert has_strings(read(strum))
    root = etree.fromstring(write_musicxml(read(strum), F(80)))
    assert schema().validate(root)
    assert [(one.findtext("root/root-step"), one.find("kind").get("text")) for one in root.iter("harmony")] == [  # type: ignore[union-attr]
        ("G", ""),
        ("C", "add9"),
    ]
    assert root.findtext(".//bass-step") == "B"
    assert len(root.findall(".//down-bow")) == len(root.findall(".//up-bow")) == 8
    assert root.find(".//measure-style/slash") is not None
    assert [root.findtext(f".//swing/{name}") for name in ("first", "second", "swing-type")] == ["2", "1", "eighth"]
    assert [clef.text for clef in root.iterfind(".//clef/sign")] == ["G", "TAB"]
    tuned = [
        (one.findtext("tuning-step") or "") + (one.findtext("tuning-octave") or "") for one in root.iter("staff-tuning")
    ]
    assert tuned == ["E2", "A2", "D3", "G3", "B3", "E4"]
    # G/B as beginners' books grip it: x20003.
    first = [note for note in root.iter("note") if note.findtext("staff") == "2"][:5]
    assert [(note.findtext(".//string"), note.findtext(".//fret")) for note in first] == [
        ("5", "2"),
        ("4", "0"),
        ("3", "0"),
        ("2", "0"),
        ("1", "3"),
    ]


def test_a_staff_of_strings_needs_strings() -> None:
    with pytest.raises(OutOfRange, match="TAB needs the string of every note"):
        write_musicxml(read(Drill(material=ScaleRun(), instrument="flute")), F(60), "tab")


def test_the_meter_says_how_its_beats_lie() -> None:
    for meter, beats in (("7/8 (2+2+3)", "2+2+3"), ("7/4 (3+4)", "3+4"), ("6/8", "6"), ("3/4 +1/16", "4+4+5")):
        root = etree.fromstring(write_musicxml(read(Drill(material=OneNote(beats=3), meter=meter)), F(60)))
        assert root.findtext(".//beats") == beats


def test_a_title_in_any_script_is_text() -> None:
    title = 'Лодка <b> & "波" \u0007\u202e'
    root = etree.fromstring(write_musicxml(read(Drill(title=title)), F(60)))
    assert root.findtext(".//work-title") == 'Лодка <b> & "波" '


def test_the_same_drill_is_the_same_file() -> None:
    drill = SHELF[0].drill
    assert write_musicxml(read(drill), drill.bpm) == write_musicxml(read(drill), drill.bpm)
    assert not re.search(rb"\d{4}-\d\d-\d\d", write_musicxml(read(drill), drill.bpm))


@pytest.mark.parametrize(
    ("instrument", "text", "clefs"),
    [
        ("guitar_bass", "E3 G3 B3", "F"),
        ("bassoon", "G2 D3 G4", "F"),
        ("trombone", "Bb2 F4 Bb4", "F"),
        ("euphonium_treble", "F#3 C4", "G"),
        ("clarinet_bass", "E3 G3", "G"),
        ("piano_left", "C4 D4", "F"),
        ("piano_right", "C3 D3", "G"),
        ("viola: strings C3 G3 D4 A4, sounds 0, clef alto", "C4 D4", "C"),
    ],
)
def test_the_clef_belongs_to_the_instrument_or_to_the_hand(instrument: str, text: str, clefs: str) -> None:
    drill = Drill(material=Line(text), legs=(Leg(F(1)),), instrument=instrument)
    root = etree.fromstring(write_musicxml(read(drill), F(60)))
    assert schema().validate(root)
    assert root.findtext(".//clef/sign") == clefs


def test_chords_of_all_kinds_and_no_chord_are_valid_harmony() -> None:
    line = Line("1 3", through=" | ".join(["N.C.", *(f"C{quality}" for quality in QUALITIES)]))
    root = etree.fromstring(write_musicxml(read(Drill(material=line, legs=(Leg(F(1)),))), F(60)))
    assert schema().validate(root), schema().error_log
    kinds = [kind.get("text") for kind in root.iter("kind")]
    assert kinds == ["N.C.", *QUALITIES]
