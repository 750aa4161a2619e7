"""Examples of scores and all that sounds of them in two passes: the browser’s player is held to the files’ list."""

from collections.abc import Iterator
from typing import Any

import msgspec

from ripresa.core.changes import arriving
from ripresa.core.drill import Drill, FootLayer, Hits, Leg
from ripresa.core.drill.accents import EveryNth, TypedAccents
from ripresa.core.drill.click import NamedClick
from ripresa.core.drill.hands import Letters
from ripresa.core.drill.material import Count, Line, OneNote, Picked, Strum
from ripresa.core.drill.second import OneKey, SecondHand
from ripresa.core.exact import Fraction
from ripresa.core.playing import (
    Before,
    Pulse,
    Score,
    Sounding,
    Spoken,
    in_turn,
    score,
    seams,
    soundings,
    timed,
)
from ripresa.core.reading import read
from ripresa.core.rhythm import span_seconds

BPM = Fraction(96)
PASSES = 2
ALOUD = Before(listen_bars=1, count_words="ready go", aloud=True)


def examples() -> Iterator[dict[str, Any]]:
    """Yield each example: its name, its performance, and what sounds, in order of time."""
    for name, made in _scores():
        yield {
            "name": name,
            "passes": PASSES,
            "performance": msgspec.to_builtins(timed(made, BPM), enc_hook=str),
            "sounds": sorted(_sound(one) for one in soundings(made, PASSES)),
        }


def _scores() -> Iterator[tuple[str, Score]]:
    nested = read(Drill(material=OneNote(beats=2), legs=(Leg(Fraction(3)), Leg(Fraction(4))), accents=EveryNth(5)))
    yield (
        "two divisions, a click in four bars",
        score(read(Drill(material=OneNote(beats=3), legs=(Leg(Fraction(1)),), click=NamedClick("every_4_bars"))), BPM),
    )
    yield "a seam, in turn", in_turn(score(nested, BPM, window=seams(nested)[0]), 1)
    pickup = Drill(material=Line(" ".join("1" * 35)), legs=(Leg(Fraction(4)),), accents=TypedAccents())
    yield (
        "counted aloud to a pickup, every slot said",
        score(read(arriving(pickup, bar=4, beat=1)), BPM, before=ALOUD, spoken=Spoken("slots")),
    )
    strum = Drill(
        material=Strum("C | Am7", "1 & 2 (3) &"), legs=(Leg(Fraction(2)),), meter="7/8 (2+2+3)", instrument="clarinet"
    )
    yield (
        "strummed with backing and a pulse",
        score(read(strum), BPM, back=["chords", "bass", "groove"], pulse=Pulse(heard=1, soft=1)),
    )
    two = Drill(
        material=OneNote(beats=2),
        legs=(Leg(Fraction(3)),),
        instrument="piano",
        second=SecondHand(OneKey("C3", "repeated"), (Leg(Fraction(2)),), balance="softer", articulation=Fraction(1, 2)),
    )
    yield "two hands, the left one softer", score(read(two), BPM)
    rolled = Drill(material=Picked("Am", "p roll x strum"), legs=(Leg(Fraction(1)),), instrument="guitar")
    yield "picked, rolled and damped", score(read(rolled), BPM)
    drum = Drill(
        material=Count("1 (e) & a 2 & (3) 4"),
        legs=(Leg(Fraction(1)),),
        instrument="hand_drum",
        hands=Letters(),
        hits=Hits("1 ~2"),
        foot=FootLayer("left", pattern="1 3"),
        voice="divisions",
    )
    yield (
        "a hand drum with hits, foot, the hands in the air and its voice row, the pulse switched",
        score(read(drum), BPM, back=["hits", "foot", "arm"], spoken=Spoken("row"), pulse=Pulse(switched=1)),
    )


def _sound(one: Sounding) -> tuple[float, str, str]:
    """Return when, of what kind, and what it is."""
    at = round(float(span_seconds(one.at, BPM)), 6)
    if one.click:
        return at, "click", one.click
    if one.said:
        return at, "word", one.said.word
    if one.tone:
        tone = [one.tone.drum] if one.tone.drum else map(str, one.tone.midis)
        told = [one.tone.level, f"{float(one.tone.loud):g}", f"{float(one.tone.apart):g}", *tone]
        return at, "note", " ".join(told)
    assert one.back
    return at, "back", one.back.drum or " ".join(map(str, one.back.midis))
