"""A second calculator, from the definitions alone: what it finds for a drill is what the sums and the reading print.

It takes a drill as it is written to a file, and knows nothing of how the core reads one: meters are lists of beats, a
count is words at shares of a beat, a swing bends a beat, a stage ends on a bar line. Whatever both can work out is
compared, over drills that are drawn here in combinations that nobody would write, and over the kept corpus.
"""

from collections.abc import Iterator
from fractions import Fraction as F
from itertools import cycle, islice
from math import lcm
from random import Random
from typing import Any

import pytest

from ripresa.core.drill import Drill
from ripresa.core.drill.accents import EveryNth
from ripresa.core.drill.hands import ByPlace
from ripresa.core.exact import Fraction as Bpm
from ripresa.core.reading import read
from ripresa.formats.drill_file import from_plain, plain
from ripresa.formats.sums_json import sums_values
from tests.strategies import kept_drills

#: Beats of a bar, in the note that bpm counts.
METERS: dict[str, list[list[F]]] = {
    "4/4": [[F(1)] * 4],
    "3/4": [[F(1)] * 3],
    "6/8": [[F(1)] * 2],
    "5/4": [[F(1)] * 5],
    "7/8 (2+2+3)": [[F(1), F(1), F(3, 2)]],
    "5/8 (3+2)": [[F(3, 2), F(1)]],
    "4/4 | 7/8 (2+2+3)": [[F(1)] * 4, [F(1), F(1), F(3, 2)]],
    "3/4 | 2/4": [[F(1)] * 3, [F(1)] * 2],
    "2/4": [[F(1)] * 2],
    "2/2": [[F(1)] * 2],
    "9/8": [[F(1)] * 3],
    "11/8 (3+3+3+2)": [[F(3, 2), F(3, 2), F(3, 2), F(1)]],
    "5/8 (2+3)": [[F(1), F(3, 2)]],
    "7/8 (3+2+2)": [[F(3, 2), F(1), F(1)]],
    "8/8 (3+3+2)": [[F(3, 2), F(3, 2), F(1)]],
    "7/8 in eighths": [[F(1)] * 7],
    "3/4 -2/16": [[F(1), F(1), F(1, 2)]],
    "3/4 +1/16": [[F(1), F(1), F(5, 4)]],
}
#: Words of a count: into how many parts they cut a beat, and which of them they are.
WORDS = {"e": (4, 1), "&": (2, 1), "a": (4, 3), "trip": (3, 1), "let": (3, 2)}


def bent(at: F, division: int, ratio: F, on: int) -> F:
    """Return where a share of a beat falls under a swing: the first of each pair takes ratio parts of ratio + 1.

    Halves and quarters of a beat swing, and nothing else.
    """
    if ratio == 1 or division not in {2, 4} or on > division:
        return at
    pair = F(2, on)
    into, first = at % pair, pair * ratio / (ratio + 1)
    half = pair / 2
    return at - into + (into / half * first if into < half else first + (into - half) / half * (pair - first))


def bars(meter: str) -> Iterator[tuple[F, list[F]]]:
    start = F(0)
    for beats in cycle(METERS[meter]):
        yield start, beats
        start += sum(beats)


def said(text: str) -> Iterator[tuple[int, int, F, int, str]]:
    """Yield bar and beat from 0, the share of the beat, its division and the sign of each word of a count."""
    for bar, words in enumerate(text.split("|")):
        beats: list[list[str]] = []
        for word in words.split():
            if word.strip("()>~x")[0].isdigit():
                beats.append([word])
            else:
                beats[-1].append(word)
        for first, *more in beats:
            division = max([1, *(WORDS[word.strip("()>~")][0] for word in more)])
            number = int(first.strip("()>~x"))
            yield bar, number - 1, F(0), division, first
            for word in more:
                of, slot = WORDS[word.strip("()>~")]
                yield bar, number - 1, F(slot, of), division, word


def placed(text: str, meter: str, ratio: F, on: int, from_bar: int) -> list[tuple[F, str]]:
    """Return where the words of a count fall that begins in a bar of the drill, in beats from its start."""
    lines = list(islice(bars(meter), from_bar, from_bar + text.count("|") + 1))
    found = []
    for bar, beat, share, division, word in said(text):
        start, beats = lines[bar]
        at = bent(share, division, ratio, on)
        if beat < len(beats):
            found.append((start + sum(beats[:beat]) + beats[beat] * at, word))
    return found


def slots_of(leg: dict[str, Any], meter: str, bar: int, ratio: F, on: int) -> Iterator[tuple[F, F, F]]:
    """Yield the slots of a stage that begins in a bar, without end: beats of the meter before its beat, onset, end."""
    lines = (
        (start + sum(line[:at]), one) for start, line in islice(bars(meter), bar, None) for at, one in enumerate(line)
    )
    used = F(0)
    for division in cycle([F(one) for one in (leg["division"], *leg["following"])]):
        span = list(islice(lines, division.denominator))
        length = sum(one for _, one in span)
        parts = division.numerator if division.denominator == 1 else 1
        for slot in range(division.numerator):
            begin, end = (bent(F(slot + at, division.numerator), parts, ratio, on) for at in (0, 1))
            # How far it has come in beats of the meter, as they are written.
            yield used + slot / division, span[0][0] + length * begin, span[0][0] + length * end
        used += division.denominator


def stages(drill: dict[str, Any]) -> tuple[list[tuple[int, list[F]]], F]:
    """Return the bar of each stage, from 0, with where its notes begin, and where the drill ends, in beats."""
    material, meter = drill["material"], drill["meter"]
    ratio, on = F(drill["swing"]["ratio"]), int(drill["swing"]["on"])
    found: list[tuple[int, list[F]]] = []
    bar = 0
    for leg in drill["legs"]:
        if material["kind"] == "count":
            words = placed(material["text"], meter, ratio, on, bar)
            found.append((bar, [at for at, word in words if "(" not in word]))
            bar += material["text"].count("|") + 1
            continue
        notes, over = [], F(0)
        for before, begin, end in slots_of(leg, meter, bar, ratio, on):
            if before >= material["beats"]:
                break
            notes.append(begin)
            over = end
        found.append((bar, notes))
        bar += sum(start < over for start, _ in islice(bars(meter), bar, bar + 300))
    return found, next(islice(bars(meter), bar, None))[0]


def worked_out(drill: dict[str, Any]) -> tuple[list[F], F]:
    """Return where every note of a drill begins, and where the drill ends, in beats."""
    found, end = stages(drill)
    return [at for _, notes in found for at in notes], end


def drawn(number: int) -> dict[str, Any]:
    """Return a drill of one note or of a count, drawn by its number."""
    lot = Random(number)
    meter = lot.choice(list(METERS))
    drill = plain(Drill())
    fewest = min(len(beats) for beats in METERS[meter])

    def beat(at: int) -> str:
        words = lot.choice([[], ["&"], ["e", "&", "a"], ["trip", "let"], ["&", "a"], ["(&)", "a"], ["a"], ["let"]])
        return " ".join([lot.choice(["{}", "{}", "({})", ">{}"]).format(at), *words])

    def count(most: int) -> str:
        text = " | ".join(" ".join(beat(at) for at in range(1, fewest + 1)) for _ in range(lot.randint(1, most)))
        return text if any("(" not in word for _, _, _, _, word in said(text)) else f"{text} | 1"

    if lot.random() < 0.6:
        drill["material"] = {"kind": "count", "text": count(3), "shift": 0, "around": True, "under": ""}
        drill["legs"] = [{"division": "1", "following": []}] * lot.randint(1, 3)
    else:
        drill["material"] = {"kind": "one_note", "beats": lot.randint(1, 12), "say": "count", "first": "C"}
        several = [*"12345678", "1/2", "3/2", "5/2", "4/3"]
        drill["legs"] = [
            {"division": lot.choice(several), "following": lot.choice([[], [], [str(lot.randint(1, 6))]])}
            for _ in range(lot.randint(1, 4))
        ]
    drill["meter"] = meter
    drill["swing"] = {"ratio": lot.choice(["1", "2", "3/2", "3"]), "on": lot.choice([2, 4])}
    drill["closing"] = "shared"
    if lot.random() < 0.5:
        drill["hits"] = {**drill["hits"], "text": count(2), "again": lot.choice([0, 0, 3])}
    return drill


def compare(drill: dict[str, Any]) -> None:
    found = read(from_plain(drill))
    notes, end = worked_out(drill)
    assert [F(str(note.onset)) for note in found.notes] == notes, drill
    printed = sums_values(found, Bpm(60))
    assert printed["notes"] == len(notes)
    assert printed["beats"] == pytest.approx(float(end), abs=1e-4)
    gaps = [after - before for before, after in zip(notes, [*notes[1:], notes[0] + end], strict=True)]
    assert printed["peak_nps"] == pytest.approx(float(1 / min(gaps)), abs=1e-4)
    assert printed["average_nps"] == pytest.approx(float(len(notes) / end), abs=1e-4)
    if drill["hits"]["text"]:
        every = max(drill["hits"]["text"].count("|") + 1, drill["hits"]["again"])
        ratio, on = F(drill["swing"]["ratio"]), int(drill["swing"]["on"])
        hits: list[F] = []
        bar = 0
        while next(islice(bars(drill["meter"]), bar, None))[0] < end:
            hits += [
                at for at, word in placed(drill["hits"]["text"], drill["meter"], ratio, on, bar) if "(" not in word
            ]
            bar += every
        assert [F(str(at)) for at, _ in found.hits] == sorted(at for at in hits if at < end), drill
        assert [F(str(note.onset)) for note in found.notes if note.hit] == [at for at in notes if at in set(hits)]


@pytest.mark.parametrize("chunk", range(5))
def test_drills_in_combinations_that_nobody_would_write(chunk: int) -> None:
    for number in range(chunk * 50, chunk * 50 + 50):
        compare(drawn(number))


def test_the_kept_drills_that_it_can_work_out() -> None:
    bare, count = plain(Drill()), 0
    for one in kept_drills("one note"):
        # Whatever leaves notes out is taken away: all that are written are compared.
        less = {name: bare[name] for name in ("reduce", "hits", "enters", "second", "seam", "ornaments")}
        drill = {**plain(one), **less}
        if drill["meter"] in METERS:
            compare(drill)
            count += 1
    assert count >= 30


@pytest.mark.parametrize("meter", ["4/4", "3/4", "5/4", "6/8"])
@pytest.mark.parametrize(("size", "division"), [(5, 4), (7, 4), (5, 3), (4, 3), (3, 4), (6, 4), (11, 5), (2, 7)])
def test_groups_come_home_when_both_counts_do(size: int, division: int, meter: str) -> None:
    drill = plain(Drill(accents=EveryNth(size=size)))
    drill["material"] = {"kind": "one_note", "beats": 60, "say": "count", "first": "C"}
    drill["legs"] = [{"division": str(division), "following": []}]
    drill["meter"] = meter
    (found,) = sums_values(read(from_plain(drill)), Bpm(60))["groups"]
    in_bar = division * len(METERS[meter][0])
    beat, bar = lcm(size, division), lcm(size, in_bar)
    assert (found["beat_home"]["notes"], found["beat_home"]["beats"]) == (beat, beat // division)
    assert (found["bar_home"]["notes"], found["bar_home"]["bars"]) == (bar, bar // in_bar)
    assert found["bar_home"]["groups"] == bar // size
    hit = [number * division % size + 1 for number in range(size + 1)]
    told = found["beats_hit"]
    assert told == hit[: len(told)]
    starts = [number * size for number in range(bar // size)]
    where = [(at // in_bar + 1, at % in_bar // division + 1) for at in starts]
    assert [(one["bar"], one["beat"]) for one in found["starts"]][: len(where)] == where[: len(found["starts"])]


@pytest.mark.parametrize("number", range(40))
def test_an_arm_by_place_moves_through_every_place_of_the_finest_grid(number: int) -> None:
    lot = Random(number)
    fine = lot.choice([2, 4])
    words = {2: ["{}", "({}) &", "{} &", "{} (&)"], 4: ["{} e & a", "({}) a", "{} e", "{} & (a)"]}[fine]
    lines = [[lot.choice(words).format(beat) for beat in range(1, lot.randint(2, 4) + 1)] for _ in range(2)]
    text = " | ".join([f"1 {'&' if fine == 2 else 'a'}", *(" ".join(line) for line in lines)])
    drill = plain(Drill(hands=ByPlace(lead=lot.choice(["down", "up"]))))
    drill["material"] = {"kind": "count", "text": text, "shift": 0, "around": True, "under": ""}
    drill["legs"] = [{"division": "1", "following": []}] * lot.randint(1, 3)
    notes, end = worked_out(drill)
    found = sums_values(read(from_plain(drill)), Bpm(60))
    assert found["motions_nps"] == fine
    assert found["strikes_nps"] == pytest.approx(len(notes) / float(end), abs=1e-4)
    down, up = ("D", "U") if drill["hands"]["lead"] == "down" else ("U", "D")
    strokes = [down if at * fine % 2 == 0 else up for at in notes]
    assert {one["symbol"]: one["strikes"] for one in found["lead"]["load"]} == {
        symbol: strokes.count(symbol) for symbol in (down, up)
    }
