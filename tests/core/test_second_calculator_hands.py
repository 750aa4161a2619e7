"""The second calculator, on: strokes and their lead, what of a drill is played, its other hand, where passes land."""

from fractions import Fraction as F
from itertools import islice, takewhile
from random import Random
from typing import Any

import pytest

from ripresa.core.drill import Drill
from ripresa.core.exact import Fraction as Bpm
from ripresa.core.reading import read
from ripresa.formats.drill_file import from_plain, plain
from ripresa.formats.sums_json import sums_values
from tests.core.test_second_calculator import METERS, bars, drawn, placed, said, slots_of, stages, worked_out

CYCLES = ["RL", "RLL", "RLRR", "RLRRL", "RRLL", "RLRRLL", "R", "DU", "DDU"]
RESTARTS = ["never", "beat", "bar", "leg"]


def beats_from(meter: str, bar: int) -> list[tuple[F, int]]:
    """Return where many beats begin from a bar on, and the bar of each."""
    lines = enumerate(islice(bars(meter), bar, bar + 400), start=bar)
    return [(start + sum(line[:at]), number) for number, (start, line) in lines for at in range(len(line))]


def in_order(cycle: str, restart: str, notes: list[F], meter: str, bar: int, before: int) -> list[str]:
    """Return the symbol of each note of a stage: each beat, bar or stage begins the cycle anew, or nothing does."""
    found: list[str] = []
    number = before if restart == "never" else 0
    last: object = None
    beats = beats_from(meter, bar)
    at_beat = 0
    for at in notes:
        while at_beat + 1 < len(beats) and beats[at_beat + 1][0] <= at:
            at_beat += 1
        here = {"beat": beats[at_beat][0], "bar": beats[at_beat][1]}.get(restart)
        if here != last:
            number, last = 0, here
        found.append(cycle[number % len(cycle)])
        number += 1
    return found


def slots_before(end: F, leg: dict[str, Any], meter: str, bar: int, ratio: F, on: int) -> list[F]:
    """Return where the slots of a stage begin before a position."""
    return [at for _, at, _ in takewhile(lambda one: one[1] < end, slots_of(leg, meter, bar, ratio, on))]


def period(starts: list[str | None]) -> int:
    return next(one for one in range(1, len(starts)) if starts[one:] == starts[:-one])


def with_hands(number: int, *, counts: bool = False) -> dict[str, Any]:
    """Return a drill of one note, or of a count, on a cycle of hands, drawn by its number."""
    lot = Random(number)
    drill = drawn(number)
    drill["hits"] = plain(Drill())["hits"]
    drill["hands"] = {"kind": "by_order", "cycle": list(lot.choice(CYCLES)), "restart": lot.choice(RESTARTS)}
    if counts and drill["material"]["kind"] == "count":
        return drill
    drill["material"] = {"kind": "one_note", "beats": lot.randint(1, 12), "say": "count", "first": "C"}
    drill["legs"] = [
        {"division": str(lot.randint(1, 8)), "following": lot.choice([[], [], [str(lot.randint(1, 6))]])}
        for _ in range(lot.randint(1, 3))
    ]
    return drill


def going_on(drill: dict[str, Any], leg: dict[str, Any], bar: int, turns: int) -> tuple[list[tuple[F, int]], list[F]]:
    """Return beats and notes of a stage as it would go on, until a cycle of so many begins anew, twice."""
    meter, material = drill["meter"], drill["material"]
    ratio, on = F(drill["swing"]["ratio"]), int(drill["swing"]["on"])
    per_turn = sum(len(line) for line in METERS[meter])
    if material["kind"] == "count":
        lines = material["text"].count("|") + 1
        rounds = 2 * turns * len(METERS[meter])
        first = [one for one in beats_from(meter, bar) if one[1] < bar + rounds * lines]
        told = [placed(material["text"], meter, ratio, on, bar + number * lines) for number in range(rounds)]
        return first, [at for words in told for at, word in words if "(" not in word]
    beats = beats_from(meter, bar)[: 2 * turns * (1 + len(leg["following"])) * per_turn]
    return beats, slots_before(beats[-1][0] + F(1, 100), leg, meter, bar, ratio, on)


@pytest.mark.parametrize("number", range(100))
def test_strokes_and_their_lead(number: int) -> None:
    drill = with_hands(number, counts=True)
    cycle, restart, meter = "".join(drill["hands"]["cycle"]), drill["hands"]["restart"], drill["meter"]
    legs, _ = stages(drill)
    found = read(from_plain(drill))
    printed = sums_values(found, Bpm(60))
    before, strokes, homes = 0, [], []
    for (bar, notes), leg in zip(legs, drill["legs"], strict=True):
        strokes += in_order(cycle, restart, notes, meter, bar, before)
        beats, on = going_on(drill, leg, bar, len(cycle))
        where = dict(zip(on, in_order(cycle, restart, on, meter, bar, before), strict=True))
        starts = [where.get(at) for at, _ in beats]
        homes.append((period(starts), starts))
        before += len(notes)
    assert [note.stroke for note in found.notes] == strokes, drill
    assert {one["symbol"]: one["strikes"] for one in printed["lead"]["load"]} == {
        symbol: strokes.count(symbol) for symbol in dict.fromkeys(strokes)
    }
    per_turn, turns = sum(len(line) for line in METERS[meter]), len(METERS[meter])
    for told in printed["lead"]["legs"]:
        home, starts = homes[told["leg"] - 1]
        if not any(starts):
            assert told["home_beats"] is None
            continue
        assert told["home_beats"] == home, (drill, told)
        assert told["starts"] == starts[:home]
        in_turns = next(number for number in range(1, 999) if number * per_turn % home == 0)
        assert told["home_bars"] == in_turns * turns


@pytest.mark.parametrize("number", range(80))
def test_what_is_played_of_a_drill(number: int) -> None:
    lot = Random(1000 + number)
    drill = drawn(number)
    drill["hits"] = plain(Drill())["hits"]
    part = lot.choice(["hits", "between", "first_half", "second_half", "burst"])
    if part in {"hits", "between"}:
        # A slot of 5:2 can fall on the later of two unequal beats, and is no note of that beat all the same.
        several = [one for leg in drill["legs"] for one in (leg["division"], *leg["following"])]
        part = "burst" if any("/" in one for one in several) else part
    drill["reduce"] = {"part": part, "hand": "", "beats": lot.choice([1, 2, 3])}
    legs, end = stages(drill)
    on_beats = {at for at, _ in beats_from(drill["meter"], 0)}
    order = sorted(on_beats)
    typed = typed_accents(drill)
    kept = []
    for (bar, notes), leg in zip(legs, drill["legs"], strict=True):
        start = next(islice(bars(drill["meter"]), bar, None))[0]
        over = pass_end(drill, leg, bar)
        for at in notes:
            passed = sum(beat <= at for beat in order) - 1
            into = passed % (2 * drill["reduce"]["beats"])
            accented = at in on_beats or at in typed
            keeps = {
                "hits": accented,
                "between": not accented,
                "first_half": at < (start + over) / 2,
                "second_half": at >= (start + over) / 2,
                "burst": into < drill["reduce"]["beats"] or (into == drill["reduce"]["beats"] and at in on_beats),
            }
            if keeps[part]:
                kept.append(at)
    found = read(from_plain(drill))
    assert [F(str(note.onset)) for note in found.notes] == kept, drill
    # Nothing of its time is cut.
    assert F(str(found.beats)) == end


def typed_accents(drill: dict[str, Any]) -> set[F]:
    if drill["material"]["kind"] != "count":
        return set()
    ratio, on = F(drill["swing"]["ratio"]), int(drill["swing"]["on"])
    legs, _ = stages(drill)
    return {
        at
        for bar, _ in legs
        for at, word in placed(drill["material"]["text"], drill["meter"], ratio, on, bar)
        if word.startswith(">")
    }


def pass_end(drill: dict[str, Any], leg: dict[str, Any], bar: int) -> F:
    """Return where the pass of a stage is over: its last slot, or the last beat that is said of a count."""
    if drill["material"]["kind"] == "count":
        last_bar, last_beat = max((line, beat) for line, beat, *_ in said(drill["material"]["text"]))
        start, line = next(islice(bars(drill["meter"]), bar + last_bar, None))
        return start + sum(line[: last_beat + 1])
    ratio, on = F(drill["swing"]["ratio"]), int(drill["swing"]["on"])
    inside = takewhile(lambda one: one[0] < drill["material"]["beats"], slots_of(leg, drill["meter"], bar, ratio, on))
    return [end for _, _, end in inside][-1]


@pytest.mark.parametrize("number", range(60))
def test_where_passes_land(number: int) -> None:
    drill = with_hands(2000 + number)
    found = sums_values(read(from_plain(drill)), Bpm(60))["landing"]
    legs, _ = stages(drill)
    for told in found:
        bar, leg = legs[told["leg"] - 1][0], drill["legs"][told["leg"] - 1]
        over = pass_end(drill, leg, bar)
        ratio, on = F(drill["swing"]["ratio"]), int(drill["swing"]["on"])
        line = next(start for start, _ in bars(drill["meter"]) if start >= over)
        before = slots_before(line, leg, drill["meter"], bar, ratio, on)
        assert F(told["end"]["at"]) == over
        assert told["missing_slots"] == sum(at >= over for at in before), (drill, told)
        assert told["missing_beats"] == pytest.approx(float(line - over), abs=1e-4)


@pytest.mark.parametrize("number", range(60))
def test_the_other_hand_has_its_own_divisions_over_the_same_beats(number: int) -> None:
    lot = Random(3000 + number)
    drill = with_hands(3000 + number)
    drill["hands"] = {"kind": "none"}
    other = [str(lot.randint(1, 6)) for _ in range(lot.randint(1, 2))]
    kinds = {"kind": "one_key", "note": "C3", "hold": "repeated"}
    drill["second"] = {
        **drill["second"],
        "plays": kinds,
        "legs": [{"division": one, "following": []} for one in other],
    }
    found = read(from_plain(drill))
    assert [F(str(note.onset)) for note in found.notes] == worked_out(drill)[0]
    ratio, on = F(drill["swing"]["ratio"]), int(drill["swing"]["on"])
    left: list[F] = []
    for index, ((bar, _), leg) in enumerate(zip(stages(drill)[0], drill["legs"], strict=True)):
        over = pass_end(drill, leg, bar)
        own = {"division": other[index % len(other)], "following": []}
        left += slots_before(over, own, drill["meter"], bar, ratio, on)
    assert [F(str(event.onset)) for event in found.other if event.kind == "note"] == left, drill


@pytest.mark.parametrize("number", range(80))
def test_groups_of_any_rhythm_come_home(number: int) -> None:
    lot = Random(4000 + number)
    drill = with_hands(4000 + number, counts=True)
    size = lot.randint(2, 7)
    drill["hands"] = {"kind": "none"}
    drill["accents"] = {"kind": "every_nth", "size": size, "restart": lot.choice(["never", "leg"])}
    legs, _ = stages(drill)
    before = 0
    entered = []
    for _, notes in legs:
        entered.append(before if drill["accents"]["restart"] == "never" else 0)
        before += len(notes)
    for told in sums_values(read(from_plain(drill)), Bpm(60))["groups"]:
        bar = legs[told["leg"] - 1][0]
        beats, on = going_on(drill, drill["legs"][told["leg"] - 1], bar, size)
        order = {at: count for count, (at, _) in enumerate(beats)}
        lines = {start: count for count, (start, _) in enumerate(islice(bars(drill["meter"]), 400))}
        first = -entered[told["leg"] - 1] % size
        starts = range(first, len(on), size)
        home = next((note for note in starts[1:] if on[note] in order), None)
        home_bar = next((note for note in starts[1:] if on[note] in lines), None)
        found = told["beat_home"]
        assert (found and found["notes"]) == (home and home - first), (drill, told)
        # From a beat on, what lies between is counted in beats of the meter.
        if home is not None and on[first] in order:
            assert found["beats"] == order[on[home]] - order[on[first]]
        found = told["bar_home"]
        assert (found and found["notes"]) == (home_bar and home_bar - first), (drill, told)
        if home_bar is not None:
            assert found["groups"] == (home_bar - first) // size
            if on[first] in lines:
                assert found["bars"] == lines[on[home_bar]] - lines[on[first]]
            wanted = [on[note] for note in starts if note < home_bar]
            assert [F(one["at"]) for one in told["starts"]] == wanted
        hit = [(on.index(at) + entered[told["leg"] - 1]) % size + 1 for at, _ in beats if at in set(on)]
        assert told["beats_hit"] == hit[: len(told["beats_hit"])]
        assert len(told["beats_hit"]) >= min(2, len(hit))
