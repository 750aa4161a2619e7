"""What scores of others hold beside their notes: transposition, ties, tempi, swing, containers, hands, texts."""

import io
import zipfile

import mido
import pytest
from lxml import etree

from ripresa.core.drill import Drill
from ripresa.core.drill.accents import NoAccents
from ripresa.core.drill.hands import ByOrder, NoHands
from ripresa.core.drill.material import Line
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction as F
from ripresa.core.reading import read
from ripresa.core.rhythm import Swing
from ripresa.core.shelf import SHELF
from ripresa.formats.engraver import Engraver
from ripresa.formats.midi import write_midi
from ripresa.formats.midi_in import read_midi
from ripresa.formats.musicxml_in import read_musicxml
from ripresa.formats.notation import write_musicxml
from ripresa.formats.notation.score import write_score
from ripresa.formats.parts import drill_of
from tests.formats.test_scores import note, score, text_of
from tests.strategies import legs


def transposed(name: str, steps: int, semitones: int, octaves: int = 0) -> bytes:
    moved = f"<diatonic>{steps}</diatonic><chromatic>{semitones}</chromatic><octave-change>{octaves}</octave-change>"
    first = f"<attributes><transpose>{moved}</transpose></attributes>"
    text = score(first + note("D", 12) + note("F", 12) + note("A", 24))
    return text.replace(b"Tenor", name.encode())


@pytest.mark.parametrize(
    ("name", "moved", "instrument", "text", "says"),
    [
        (
            "Clarinet in B♭",
            (-1, -2),
            "clarinet",
            "D4 F4 A4*2",
            "2 semitones lower than it is written: taken for cl",
        ),
        ("Alto saxophone", (-5, -9), "alto_saxophone", "D4 F4 A4*2", "9 semitones lower"),
        ("Horn in F", (-4, -7), "horn", "D4 F4 A4*2", "7 semitones lower than it is written: taken for horn in F"),
        ("Horn 2", (-4, -7), "horn", "D4 F4 A4*2", "taken for horn in F"),
        ("Voice", (-4, -7), "any", "G3 Bb3 D4*2", "7 semitones lower than it is written: its notes stand as"),
        ("Horn in E♭", (-5, -9, 1), "any", "F4 Ab4 C5*2", "3 semitones higher"),
        ("Voice", (0, 0), "any", "D4 F4 A4*2", ""),
    ],
)
def test_a_part_that_transposes_sounds_as_it_was_meant(
    name: str, moved: tuple[int, ...], instrument: str, text: str, says: str
) -> None:
    (part,) = read_musicxml(transposed(name, *moved))
    taken = drill_of(part, 1, 1, "x")
    assert isinstance(taken.drill.material, Line)
    assert (taken.drill.instrument, taken.drill.material.text) == (instrument, text)
    assert says in " ".join(taken.said)
    assert bool(taken.said) == bool(says)


def test_our_own_part_of_a_transposing_instrument_comes_back_as_it_was() -> None:
    drill = Drill(material=Line(text="D4 F4 A4*2"), legs=legs(1), instrument="clarinet", accents=NoAccents())
    (part,) = read_musicxml(write_musicxml(read(drill), F(84)))
    back = drill_of(part, 1, 1, "x").drill
    assert (back.instrument, back.material.text) == ("clarinet", "D4 F4 A4*2")  # type: ignore[union-attr]


TIED_ON, TIED_FROM = '<tie type="start"/>', '<tie type="stop"/>'


@pytest.mark.parametrize(
    ("bars", "text"),
    [
        # The neighbour of a tie is missing, or another note stands between.
        (note("C", 12, TIED_ON) + note("D", 12) + note("C", 12, TIED_FROM) + note("E", 12), "C4 D4 C4 E4"),
        (note("C", 12, TIED_FROM) + note("D", 12) + note("E", 24), "C4 D4 E4*2"),
        (note("C", 12, TIED_ON) + note("C", 12, TIED_FROM) + note("E", 24), "C4*2 E4"),
        # Some programs write the beginning of a tie alone; in another voice it is another note.
        (note("C", 12, TIED_ON) + note("C", 12) + note("E", 24), "C4*2 E4"),
        (note("C", 12, TIED_ON + "<voice>1</voice>") + note("C", 12, "<voice>2</voice>") + note("E", 24), "C4 C4 E4*2"),
        (note("C", 12, TIED_ON) + note("D", 12) + note("C", 24), "C4 D4 C4*2"),
        (note("C", 12, TIED_ON) + note("C", 12, TIED_FROM + TIED_ON) + note("C", 24, TIED_FROM), "C4*4"),
    ],
)
def test_a_tie_without_its_neighbour_swallows_no_note(bars: str, text: str) -> None:
    (part,) = read_musicxml(score(bars))
    assert text_of(part) == text


def tempo(figure: int) -> str:
    return f'<direction><sound tempo="{figure}"/></direction>'


@pytest.mark.parametrize(
    ("bars", "first", "says"),
    [
        ((tempo(84) + note("C", 48), note("D", 48)), 84, ()),
        ((tempo(84) + note("C", 48), tempo(84) + note("D", 48)), 84, ()),
        (
            (tempo(84) + note("C", 48), tempo(96) + note("D", 24) + tempo(84) + note("E", 24)),
            84,
            ("2 later tempi left",),
        ),
        ((note("C", 48), tempo(96) + note("D", 48)), 96, ("Its first tempo stands in bar 2",)),
        ((note("C", 24) + tempo(60) + note("D", 24),), 60, ("Its first tempo stands in bar 1",)),
        ((note("C", 48), note("D", 48)), 120, ()),
    ],
)
def test_a_later_tempo_is_told_and_a_late_first_one(bars: tuple[str, ...], first: int, says: tuple[str, ...]) -> None:
    (part,) = read_musicxml(score(*bars))
    assert part.quarters_a_minute == first
    assert len(part.told) == len(says)
    assert all(one.startswith(said) for one, said in zip(part.told, says, strict=True))


@pytest.mark.parametrize("swing", [Swing(F(2)), Swing(F(3, 2)), Swing(F(3), 4)])
def test_our_own_swing_comes_back(swing: Swing) -> None:
    drill = Drill(material=Line(text="C4 D4 E4 F4 G4 A4 B4 C5 " * 2), legs=legs(swing.on), swing=swing)
    reading = read(drill)
    (part,) = read_musicxml(write_musicxml(reading, F(84)))
    back = drill_of(part, 1, part.bars, "x").drill
    assert back.swing == swing
    assert [event.onset for event in read(back).notes] == [event.onset for event in reading.notes]


@pytest.mark.parametrize(
    ("inner", "swing", "is_told"),
    [
        ("<straight/>", Swing(), False),
        ("<first>2</first><second>1</second>", Swing(F(2)), False),
        ("<first>9</first><second>1</second>", Swing(), True),
        ("<first>2</first><second>0</second>", Swing(), True),
    ],
)
def test_a_swing_that_cannot_be_played_is_told(inner: str, swing: Swing, is_told: bool) -> None:
    mark = f"<direction><sound><swing>{inner}</swing></sound></direction>"
    (part,) = read_musicxml(score(mark + note("C", 48)))
    assert part.swing == swing
    assert part.told == (("Swing that cannot be read, or that changes later, is left out.",) if is_told else ())


@pytest.mark.parametrize(
    ("container", "step"),
    [
        (
            '<container xmlns="x"><rootfile full-path="b.xml"/><rootfile full-path="a.xml"/></container>',
            1,
        ),
        ('<container><rootfile full-path="gone.xml"/></container>', 0),
        ("<container>", 0),
        ('<!DOCTYPE x [<!ENTITY y "b.xml">]><container><rootfile full-path="&y;"/></container>', 0),
    ],
)
def test_a_packed_score_is_the_one_that_its_container_names(container: str, step: int) -> None:
    target = io.BytesIO()
    with zipfile.ZipFile(target, "w") as packed:
        packed.writestr("META-INF/container.xml", container)
        packed.writestr("a.xml", score(note("C", 48)))
        packed.writestr("b.xml", score(note("D", 48)))
    (part,) = read_musicxml(target.getvalue())
    assert part.notes[0].pitch is not None
    assert part.notes[0].pitch.letter == step


def test_midi_text_is_utf_8_both_ways_and_latin_1_is_still_read() -> None:
    drill = Drill(title="Größe, 雨 und ♭", material=Line(text="C4 D4 E4 F4"), legs=legs(1))
    file = mido.MidiFile(file=io.BytesIO(write_midi(read(drill), F(84))), charset="utf-8")
    assert file.tracks[0][0].name == drill.title
    track = mido.MidiTrack([mido.MetaMessage("track_name", name="Größe", time=0)])
    track += [mido.Message("note_on", note=60, velocity=80, time=0), mido.Message("note_off", note=60, time=480)]
    for charset in ("utf-8", "latin-1"):
        target = io.BytesIO()
        mido.MidiFile(tracks=[track], charset=charset).save(file=target)
        assert read_midi(target.getvalue())[0].name == "Größe"


def test_later_tempi_of_midi_are_told() -> None:
    def tempi(*at: tuple[int, int]) -> tuple[str, ...]:
        track = mido.MidiTrack()
        for delta, figure in at:
            track.append(mido.MetaMessage("set_tempo", tempo=figure, time=delta))
        track += [mido.Message("note_on", note=60, velocity=80, time=0), mido.Message("note_off", note=60, time=480)]
        target = io.BytesIO()
        mido.MidiFile(tracks=[track]).save(file=target)
        return read_midi(target.getvalue())[0].told

    assert tempi((0, 500_000)) == ()
    assert tempi((0, 500_000), (480, 500_000)) == ()
    assert tempi((0, 500_000), (480, 400_000)) == ("1 later tempo left out: a drill has one.",)
    assert tempi((480, 500_000)) == ("Its first tempo does not stand at its beginning; it is taken from there.",)


CYCLES = [
    *("D U", "R L", "R L R R", "T K", "T T K", "T", "hej ho"),
    *("p i m a", "L L R"),
]


@pytest.mark.parametrize("cycle", CYCLES)
def test_hand_letters_go_out_and_come_back(cycle: str) -> None:
    instrument = "clarinet" if "T" in cycle else "guitar"
    line = Line(text="C4 D4 E4 F4 G4 A4 B4 C5 C4 D4 E4 F4 G4 A4 B4 C5 C4 D4 E4 F4 G4 A4 B4 C5")
    drill = Drill(material=line, legs=legs(3), instrument=instrument, hands=ByOrder(cycle=tuple(cycle.split())))
    (part,) = read_musicxml(write_musicxml(read(drill), F(84), "notes"))
    taken = drill_of(part, 1, part.bars, "x")
    assert taken.drill.hands == drill.hands
    assert not any("letters" in one for one in taken.said)


@pytest.mark.parametrize(
    ("cycle", "double", "triple", "words"), [("T K", 24, 0, 24), ("T T K", 0, 24, 24), ("T", 0, 0, 24)]
)
def test_tongueing_has_its_own_signs(cycle: str, double: int, triple: int, words: int) -> None:
    line = Line(text="C4 D4 E4 " * 8)
    drill = Drill(material=line, legs=legs(3), instrument="clarinet", hands=ByOrder(cycle=tuple(cycle.split())))
    text = write_musicxml(read(drill), F(84), folded=False).decode()
    assert (text.count("<double-tongue/>"), text.count("<triple-tongue/>")) == (double, triple)
    assert text.count('<direction placement="above"><direction-type><words>') == words


def bowed(*letters: str) -> bytes:
    sign = {"D": "<down-bow/>", "U": "<up-bow/>", "": ""}
    made = [f"<notations><technical>{sign[one]}</technical></notations>" for one in letters]
    return score("".join(note(step, 12, more) for step, more in zip("CDEF", made, strict=True)))


@pytest.mark.parametrize(
    ("letters", "cycle", "is_told"),
    [
        ("DUDU", ("D", "U"), False),
        ("DDUU", ("D", "D", "U", "U"), False),
        (("D", "", "", ""), None, False),
        (("D", "U", "D", ""), None, True),
    ],
)
def test_a_few_bow_marks_are_no_order_of_hands(letters: str, cycle: tuple[str, ...] | None, is_told: bool) -> None:
    (part,) = read_musicxml(bowed(*letters))
    taken = drill_of(part, 1, 1, "x")
    assert taken.drill.hands == (ByOrder(cycle=cycle) if cycle else NoHands())
    assert taken.said == (("Its hand letters follow no order that can be read, and are left out.",) if is_told else ())


def test_words_of_a_page_are_no_hand_letters() -> None:
    words = "<direction><direction-type><words>{}</words></direction-type></direction>"
    (part,) = read_musicxml(score(words.format("dolce e solo") + note("C", 24) + words.format("div.") + note("D", 24)))
    assert drill_of(part, 1, 1, "x").drill.hands == NoHands()


def test_a_damped_stroke_has_a_cross_on_every_string(engraver: Engraver) -> None:
    reading = read(next(one.drill for one in SHELF if one.key == "hand-on-the-rail"))
    strings = sum(len(event.how.plucks) for event in reading.events if event.how.dead)
    root = etree.fromstring(write_musicxml(reading, F(80), "tab", folded=False))
    heads = root.findall(".//notehead")
    assert [one.text for one in heads] == ["x"] * strings
    assert len(root.xpath("//note[notehead='x'][.//fret]")) == strings  # type: ignore[arg-type]
    picture = engraver.draw(write_score(reading, F(80), "tab", folded=False, for_drawing=True).body, 1200)
    assert picture.count("×") == strings


@pytest.mark.parametrize("form", ["notes", "tab"])
def test_a_note_above_all_octaves_is_refused_by_name(form: str) -> None:
    drill = Drill(material=Line(text="C8 D8"), legs=legs(1), register=2, instrument="any")
    with pytest.raises(OutOfRange, match="MusicXML has no note C10: its octaves go from 0 to 9"):
        write_musicxml(read(drill), F(84), form if form == "notes" else None)  # type: ignore[arg-type]
