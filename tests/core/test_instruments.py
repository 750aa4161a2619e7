"""Instruments as data, capos, and one of one's own: against what fingering charts and DOMAIN §16 say."""

from dataclasses import replace

import pytest

from ripresa.core.drill import Drill
from ripresa.core.drill.material import Line, ScaleRun, Strum
from ripresa.core.errors import OutOfRange, Unreadable
from ripresa.core.exact import Fraction as F
from ripresa.core.pitch import INSTRUMENTS, instrument_named, own_instrument, usually_spelt
from ripresa.core.reading import read
from ripresa.core.studio import StudioSettings
from tests.strategies import legs

#: Key → semitones that are heard against what is written, clef.
SOUNDS = {
    "piccolo": (12, "treble"),
    "flute": (0, "treble"),
    "oboe": (0, "treble"),
    "cor_anglais": (-7, "treble"),
    "bassoon": (0, "bass"),
    "clarinet_e_flat": (3, "treble"),
    "clarinet": (-2, "treble"),
    "clarinet_a": (-3, "treble"),
    "clarinet_bass": (-14, "treble"),
    "soprano_saxophone": (-2, "treble"),
    "alto_saxophone": (-9, "treble"),
    "tenor_saxophone": (-14, "treble"),
    "baritone_saxophone": (-21, "treble"),
    "trumpet": (-2, "treble"),
    "trumpet_c": (0, "treble"),
    "cornet": (-2, "treble"),
    "flugelhorn": (-2, "treble"),
    "horn": (-7, "treble"),
    "trombone": (0, "bass"),
    "euphonium": (0, "bass"),
    "euphonium_treble": (-14, "treble"),
    "tuba": (0, "bass"),
    "recorder": (12, "treble"),
    "recorder_treble": (0, "treble"),
    "recorder_tenor": (0, "treble"),
}


def test_every_wind_has_its_transposition_and_its_clef() -> None:
    winds = {key: (one.sounds, one.clef) for key, one in INSTRUMENTS.items() if one.breathes}
    assert winds == SOUNDS


@pytest.mark.parametrize("key", SOUNDS)
def test_a_wind_has_a_range_with_a_first_year_and_its_breaks_inside(key: str) -> None:
    one = INSTRUMENTS[key]
    assert one.first_year
    assert one.lowest <= one.first_year[0] < one.first_year[1] <= one.highest
    assert all(one.lowest < below < above < one.highest and above - below == 1 for below, above in one.breaks)
    assert 5 <= one.breath <= 15
    brass = ["trumpet", "cornet", "flugelhorn", "horn", "trombone", "euphonium", "tuba"]
    assert bool(one.breaks) != any(one.name.startswith(name) for name in brass)


@pytest.mark.parametrize(
    ("key", "open_strings"),
    [
        ("guitar", "E2 A2 D3 G3 B3 E4"),
        ("guitar_seven", "B1 E2 A2 D3 G3 B3 E4"),
        ("guitar_open_d", "D2 A2 D3 F#3 A3 D4"),
        ("guitar_bass", "E1 A1 D2 G2"),
        ("guitar_bass_five", "B0 E1 A1 D2 G2"),
        ("ukulele", "G4 C4 E4 A4"),
        ("mandolin", "G3 D4 A4 E5"),
        ("banjo", "G4 D3 G3 B3 D4"),
    ],
)
def test_open_strings_sound_as_they_are_tuned(key: str, open_strings: str) -> None:
    one = INSTRUMENTS[key]
    assert " ".join(usually_spelt(midi + one.sounds).name for midi in one.strings) == open_strings


def test_a_capo_leaves_grips_and_sounds_higher() -> None:
    plain = Drill(material=Strum("G | C"), instrument="guitar")
    raised = replace(plain, capo=2)
    before, after = read(plain), read(raised)
    assert [shape.text for shape in after.shapes] == [shape.text for shape in before.shapes] == ["320003", "x32010"]
    assert after.heard(after.notes[0]) == tuple(midi + 2 for midi in before.heard(before.notes[0]))
    assert after.instrument.name == "guitar, capo 2"
    with pytest.raises(OutOfRange, match="A capo lies on strings, and flute has none") as refused:
        Drill(instrument="flute", capo=2)
    assert refused.value.field == "capo"
    with pytest.raises(OutOfRange, match="fret 0 to 12, not 13") as refused:
        Drill(instrument="guitar", capo=13)
    assert refused.value.field == "capo"


WHISTLE = "whistle in D: wind, D4 to B5, first year D4 to D5, sounds +12, break B4 C5, breath 8"


def test_an_instrument_of_ones_own_is_used_like_any_other() -> None:
    drill = Drill(material=ScaleRun("D", octaves="range"), legs=legs(2), instrument=WHISTLE, breath=F(8))
    reading = read(drill)
    names = [event.pitch.name for event in reading.notes if event.pitch]
    assert (names[0], max(reading.notes, key=lambda event: event.tones[0].midi).tones[0].name) == ("D4", "B5")
    assert reading.instrument.sounds == 12
    assert (drill.plays_on.name, drill.plays_on.breaks, drill.plays_on.breathes) == ("whistle in D", ((71, 72),), True)
    assert read(replace(drill, level="first_year")).instrument.highest == 74


def test_strings_of_ones_own_are_told_as_they_sound_and_written_as_they_are_read() -> None:
    tenor = own_instrument("tenor guitar: strings C3 G3 D4 A4, frets 19, sounds 0")
    assert (tenor.strings, tenor.frets, tenor.lowest, tenor.highest) == ((48, 55, 62, 69), 19, 48, 88)
    low = own_instrument("guitar in C: strings C2 G2 C3 G3 C4 E4")
    assert (low.strings[0], low.sounds, low.frets) == (48, -12, 22)
    found = read(
        Drill(
            material=Line("C3 G3"),
            legs=legs(1),
            instrument="guitar in C: strings C2 G2 C3 G3 C4 E4",
            fingering="usual",
        )
    )
    assert [event.touch.shown for event in found.notes if event.touch] == ["6·0", "5·0"]


@pytest.mark.parametrize(
    ("line", "says"),
    [
        ("whistle: D4 to B5", "Write its name, a colon, and wind, strings or keys"),
        (": wind, D4 to B5", "Write its name, a colon"),
        ("whistle: wind", "whistle: write its range as it is written: D4 to B5"),
        ("whistle: wind, D4 to E4", "has to rise by an octave"),
        ("whistle: wind, D4 to B5, loudly", "“loudly” cannot be read"),
        ("whistle: wind, D4 to B5, first year C4 to D5", "first year lies inside its own"),
        ("lyre: strings", "write 3 to 10 strings as they sound"),
        ("lyre: strings C3 G3", "write 3 to 10 strings as they sound"),
        ("lyre: strings C3 G3 C4, frets 40", "1 to 36 frets"),
        ("x" * 401 + ": wind", "up to 400 signs"),
    ],
)
def test_a_line_that_describes_no_instrument_is_refused_with_what_is_missing(line: str, says: str) -> None:
    with pytest.raises(Unreadable) as refused:
        instrument_named(line)
    assert says in refused.value.message
    assert refused.value.field == "instrument"


def test_the_studio_keeps_instruments_of_its_own_each_once() -> None:
    kept = StudioSettings(instruments=f"{WHISTLE}\n\n {WHISTLE}\nlyre: strings C3 G3 C4")
    assert kept.own_instruments == (WHISTLE, "lyre: strings C3 G3 C4")
    with pytest.raises(Unreadable) as refused:
        StudioSettings(instruments="lyre: strings")
    assert refused.value.field == "instruments"
