"""A file as a take: where it begins, how far it goes, another tempo; and what a microphone cannot hear is left out."""

from dataclasses import replace

import pytest

from ripresa.core.drill import Drill, Leg
from ripresa.core.drill.accents import NoAccents
from ripresa.core.drill.hands import Articulated, ByOrder
from ripresa.core.drill.material import OneNote, ScaleRun
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction as F
from ripresa.core.listening import listen
from ripresa.core.reading import Reading, read
from ripresa.core.takes import (
    STAND_INS,
    HeardNote,
    Limits,
    StandIn,
    due_notes,
    found_take,
    heard_in,
    judge,
    judge_file,
    play,
    unheard_words,
    usual_sound,
)
from ripresa.core.takes.unheard import _under
from ripresa.formats.sound_in import read_sound
from ripresa.formats.words import SOUND
from tests.strategies import legs
from tools.follower import Follower, follow

SCALE = read(Drill(material=ScaleRun(octaves=2), legs=legs(2, 3, 4)))
UNEVEN = read(Drill(material=ScaleRun(octaves=1, tonic="D"), legs=legs(3, 4, 3), meter="7/8"))
CLAPPED = read(Drill(material=OneNote(beats=8), legs=legs(2, 3, 4)))
SLURRED = read(
    Drill(
        material=ScaleRun(octaves=2, tonic="C"),
        legs=legs(4),
        hands=Articulated(pattern="slur_two_tongue_two"),
        instrument="clarinet",
    )
)


def due_of(reading: Reading, bpm: int = 84, turns: int = 2):  # type: ignore[no-untyped-def]
    return due_notes(reading, F(bpm), 0.0, turns * float(reading.loop_beats * 60 / bpm))


def later(notes: tuple[HeardNote, ...], by: float) -> list[HeardNote]:
    return [replace(one, at=one.at + by, until=None if one.until is None else one.until + by) for one in notes]


@pytest.mark.parametrize("reading", [SCALE, UNEVEN], ids=["scale", "uneven bars"])
@pytest.mark.parametrize("seed", range(6))
def test_the_beginning_is_found_whoever_plays(reading: Reading, seed: int) -> None:
    due = due_of(reading)
    if seed % 2:
        notes = follow(Follower(clock=8, hand=6, misses=0.03), due, seed).notes
    else:
        notes = play(StandIn(spread_ms=12, miss_percent=3, seed=seed), due).notes
    # Somebody tries a key before it begins.
    moved = [HeardNote(0.4, pitch=36), *later(notes, 2.7 + seed)]
    begun = found_take(reading, F(84), moved)
    assert begun.at == pytest.approx(2.7 + seed, abs=0.06)
    assert begun.end >= due.end - due.turn_seconds / 4


def test_a_take_that_stops_in_the_middle_goes_to_its_last_whole_bar() -> None:
    due = due_of(SCALE, turns=1)
    notes = [note for note in play(StandIn(spread_ms=5), due).notes if note.at < 11.2]
    begun = found_take(SCALE, F(84), notes)
    bar = 4 * 60 / 84
    assert begun.end == pytest.approx(round(begun.end / bar) * bar)
    assert 8.5 < begun.end <= 11.5


@pytest.mark.parametrize("share", [0.5, 0.75, 1.3, 1.5])
def test_another_tempo_is_told_by_its_number(share: float) -> None:
    notes = play(StandIn(spread_ms=8), due_of(SCALE)).notes
    with pytest.raises(OutOfRange, match=r"This was played at about 8[34567], not at"):
        found_take(SCALE, F(round(84 / share)), notes)


def test_too_few_notes_are_no_take() -> None:
    with pytest.raises(OutOfRange, match="2 notes were heard in it, too few to find the drill"):
        found_take(SCALE, F(84), [HeardNote(0.0), HeardNote(0.5)])


def test_a_take_of_a_file_is_judged_as_any_other() -> None:
    notes = later(play(StandIn(spread_ms=6, stumble_ms=90), due_of(SCALE, turns=3)).notes, 5.0)
    found = judge_file(SCALE, F(84), notes, Limits(), "midi")
    assert found.judged.verdict.mark == "shaky"
    assert found.judged.verdict.faults[0].kind == "seam"
    # Where a file begins is nobody's lateness: nothing is said against the click.
    assert found.judged.figures.with_click is None


def test_another_drill_is_no_take_of_this_one() -> None:
    notes = play(
        StandIn(spread_ms=8), due_of(read(Drill(material=ScaleRun(octaves=2, tonic="F#"), legs=legs(5))))
    ).notes
    try:
        found = judge_file(SCALE, F(84), notes, Limits(), "midi")
    except OutOfRange:
        return
    assert found.judged.verdict.mark == "none"


@pytest.mark.parametrize("reading", [SCALE, UNEVEN, CLAPPED], ids=["scale", "uneven bars", "clapped"])
def test_speech_is_no_take(reading: Reading) -> None:
    # What ships to count aloud: a voice that says word after word.
    notes = heard_in(listen(read_sound(SOUND), "clapped"))
    assert len(notes) > 40
    try:
        verdict = judge_file(reading, F(84), notes, Limits(), "file").judged.verdict
    except OutOfRange:
        return
    assert verdict.mark == "none", verdict


def test_slurred_notes_are_left_out_for_a_microphone_and_told() -> None:
    due = due_of(SLURRED, 72)
    notes = play(StandIn(spread_ms=6), due).notes
    slurred = {index for index, event in enumerate(due.events) if event.slurred}
    heard = tuple(
        HeardNote(note.at, level=-20.0) for index, note in enumerate(notes) if index not in slurred or index % 3 == 0
    )
    found = judge(due, heard, Limits(), "microphone", (0.0, 0.002))
    assert found.figures.due == len(due) - len(slurred)
    assert (found.figures.missed, found.figures.extra) == (0, 0)
    assert found.verdict.reasons[-1].startswith(f"{len(slurred)} slurred or softly tongued notes left out")
    # A keyboard hears them all.
    assert judge(due, notes, Limits(), "midi", (0.0, 0.002)).figures.due == len(due)


def test_what_cannot_be_heard_is_said_before_the_take() -> None:
    count = sum(event.slurred for event in SLURRED.events)
    assert unheard_words(SLURRED).startswith(f"{count} of the {len(SLURRED.notes)} notes of a pass are slurred")
    assert unheard_words(SCALE) == ""
    soft = Drill(material=ScaleRun(), legs=legs(4), hands=ByOrder(cycle=("D", "G")), instrument="flute")
    assert "hears none of its notes begin" in unheard_words(read(soft))
    # On a guitar D is a stroke down, and heard well.
    assert unheard_words(read(replace(soft, instrument="guitar"))) == ""


@pytest.mark.parametrize(
    ("division", "away", "under"),
    [
        # Within 40 ms of a click; of fast notes within half of the time to the next.
        (1, 0.039, 1),
        (1, 0.041, 0),
        (1, -0.039, 1),
        (16, 0.015, 1),
    ],
)
def test_how_near_a_click_hides_a_note(division: int, away: float, under: int) -> None:
    reading = read(Drill(material=OneNote(beats=4), legs=(Leg(F(division)),), accents=NoAccents()))
    # 120 bpm: sixteen a beat are 31 ms apart, and a click hides the nearest alone.
    due = due_notes(reading, F(120), 0.0, 2.0)
    assert int(_under(due, [float(due.at[2]) + away]).sum()) == under


def test_notes_under_a_click_are_left_out_and_counted() -> None:
    due = due_of(CLAPPED, 84)
    clicks = [number * 60 / 84 for number in range(int(due.end * 84 / 60) + 1)]
    heard = [
        HeardNote(note.at, level=-20.0)
        for note in play(StandIn(spread_ms=5), due).notes
        if min(abs(note.at - click) for click in clicks) > 0.05
    ]
    plain = judge(due, heard, Limits(), "microphone", (0.0, 0.002))
    assert plain.figures.missed > 30
    masked = judge(due, heard, Limits(), "microphone", (0.0, 0.002), hidden=clicks)
    hidden = len(due) - masked.figures.due
    assert masked.figures.missed <= 1
    assert masked.verdict.reasons[-1].startswith(f"{hidden} notes lay under the click")


def test_pads_are_learnt_as_hands_where_a_drill_has_no_pitch() -> None:
    reading = read(Drill(material=OneNote(beats=8), legs=legs(4), hands=ByOrder(cycle=("R", "L"))))
    due = due_of(reading)
    played = play(STAND_INS["one_handed"][1], due).notes
    pads = [HeardNote(one.at, None, 36 if one.key == "R" else 38, one.level, one.until) for one in played]
    found = judge(due, pads, Limits(), "midi", (0.0, 0.002))
    assert found.match.is_symbolic
    assert found.figures.wrong == 0
    spread = {hand.symbol: hand.spread.value for hand in found.figures.hands if hand.spread}
    assert spread["L"] > 2 * spread["R"]


def test_slips_that_a_source_makes_itself_make_no_take_shaky() -> None:
    wind = read(replace(SCALE.drill, instrument="clarinet"))
    due = due_of(wind, turns=6)
    notes = play(StandIn(spread_ms=5, miss_percent=5, seed=3), due).notes
    heard = [HeardNote(one.at, level=one.level) for one in notes]
    by_sound = judge(due, heard, Limits(), "microphone", (0.0, 0.002)).verdict
    assert (by_sound.mark, [fault.kind for fault in by_sound.faults]) == ("near", ["slips"])
    assert judge(due, heard, Limits(), "taps", (0.0, 0.002)).verdict.faults[0].kind == "slips"
    assert judge(due, heard, Limits(), "taps", (0.0, 0.002)).verdict.mark == "shaky"


def test_a_transposing_instrument_is_held_to_what_sounds() -> None:
    reading = read(Drill(material=ScaleRun(octaves=1), legs=legs(4), instrument="clarinet"))
    due = due_of(reading, turns=3)
    sounding = play(StandIn(spread_ms=6), due).notes
    found = judge(due, sounding, Limits(), "midi", (0.0, 0.002))
    assert (found.verdict.refused, found.figures.wrong) == ("", 0)
    written = [replace(note, pitch=note.pitch + 2) for note in sounding if note.pitch is not None]
    assert judge(due, written, Limits(), "midi", (0.0, 0.002)).verdict.refused == "pitches"


def test_a_limit_that_listening_to_wind_does_not_resolve_is_not_judged_by_it() -> None:
    due = due_of(read(replace(SCALE.drill, instrument="clarinet")), 100)
    heard = [HeardNote(one.at, level=one.level) for one in play(StandIn(spread_ms=5), due).notes]
    # 7 % of 150 ms are 10.5: taps resolve 10, tongued notes 12.5.
    strict = Limits("strict")
    assert judge(due, heard, strict, "microphone", (0.0, 0.002)).verdict.refused == "resolution"
    assert judge(due, heard, strict, "taps", (0.0, 0.002)).verdict.refused == ""


@pytest.mark.parametrize(
    ("instrument", "sounds"),
    [("guitar", "plucked"), ("piano", "struck"), ("flute", "tongued"), ("clarinet", "tongued")],
)
def test_how_notes_begin_is_told_by_the_instrument(instrument: str, sounds: str) -> None:
    assert usual_sound(read(Drill(material=ScaleRun(), legs=legs(2), instrument=instrument))) == sounds
    assert usual_sound(read(Drill(material=OneNote(beats=4), legs=legs(2), instrument=instrument))) == "clapped"
