"""What the app says, line by line, as it is kept in ``tests/told``, so that no change of it goes unnoticed.

``make told`` writes it anew after a change that was meant to change it; the difference is read like any other.
What is known to be said wrong stands there too, until it is mended.
"""

import io
import json
from collections.abc import Callable, Iterator
from contextlib import redirect_stdout
from dataclasses import replace
from itertools import product
from pathlib import Path
from tempfile import TemporaryDirectory

import mido
import numpy as np
from lxml import etree

from ripresa.cli import main
from ripresa.core.changes import TOOLS, TURNED, Where, differences, others, overridden, variant_set
from ripresa.core.climbs import (
    MOVINGS,
    PRESETS,
    BandTarget,
    BpmTarget,
    ClimbPlan,
    DivideThenRaise,
    EvenSteps,
    PerCent,
    RungRule,
    ZigZag,
    decide,
    laid_rungs,
    rule_sentence,
    speed_map,
)
from ripresa.core.drill import Drill
from ripresa.core.drill.accents import EveryNth, NoAccents
from ripresa.core.drill.click import DropOut
from ripresa.core.drill.hands import ByOrder, ByPlace
from ripresa.core.drill.material import Count, Line, OneNote, ScaleRun
from ripresa.core.drill.second import Contrary, SecondHand
from ripresa.core.errors import RipresaError
from ripresa.core.exact import Fraction as F
from ripresa.core.exact import label
from ripresa.core.grid import Event
from ripresa.core.listening import As, listen
from ripresa.core.pitch import Voice
from ripresa.core.reading import Reading, read
from ripresa.core.reports import brief, paragraphs, sums
from ripresa.core.shelf import SHELF
from ripresa.core.takes import STAND_INS, Limits, Mark, StandIn, due_notes, judge, play
from ripresa.formats.midi import write_midi
from ripresa.formats.musicxml_in import read_musicxml
from ripresa.formats.notation import write_musicxml
from ripresa.formats.parts import drill_of
from ripresa.formats.sheet.rail import rail_rows
from ripresa.formats.sound_in import sound_of
from ripresa.formats.sounds import RATE, note
from ripresa.formats.sums_json import sums_values
from tests.strategies import MAKERS, kept_drills, legs

KEPT = Path(__file__).parent / "told"
MOST_EVENTS, MOST_LINES = 40, 300
_SIGNS = {"accent": ">", "ghost": "~", "plain": ""}
_KINDS = {"note": "", "rest": "r", "air": "^", "hold": "-"}


def _event(event: Event) -> str:
    pitch = event.pitch.shown if event.pitch and event.kind == "note" else _KINDS[event.kind]
    touch = f"/{event.touch.string}.{event.touch.fret}.{event.touch.finger}" if event.touch else ""
    return (
        f"{event.count}{_SIGNS[event.accent]}{pitch}{event.stroke or ''}{touch}"
        f"{'(' if event.slurred else ''}{'!' if event.hit else ''}"
    )


def _rows(reading: Reading) -> Iterator[str]:
    for row in reading.hands:
        told = [_event(event) for event in row[:MOST_EVENTS]]
        yield f"  {row[0].layer}: {' '.join(told)}{' …' if len(row) > MOST_EVENTS else ''}"


def _told(name: str, drill: Drill) -> Iterator[str]:
    reading = read(drill)
    yield f"{name}: {' '.join(brief(reading).split())}"
    yield from _rows(reading)
    for paragraph in paragraphs(reading, sums(reading, drill.bpm), drill.bpm):
        yield from (f"  {paragraph.title}: {sentence}" for sentence in paragraph.sentences)


def drills() -> Iterator[str]:
    """Yield each ready drill: its brief, its first places, and every sentence of its sums."""
    for one in SHELF:
        yield from _told(one.key, one.drill)


def corpus() -> Iterator[str]:
    """Yield the same of every third drill of the corpus."""
    for kind in MAKERS:
        for number, drill in enumerate(kept_drills(kind)[::3]):
            yield from _told(f"{kind} {number}", replace(drill, title=kind, purpose="", prompt="", tags=()))


CHANGED = {
    "run": Drill(material=ScaleRun(octaves=1), legs=legs(2, 3), hands=ByOrder(cycle=("R", "L"))),
    "line": Drill(material=Line("1 2 >3 (4) 5 4 3 2 1"), legs=legs(4), hands=ByPlace()),
    "count": Drill(material=Count("1 & 2 & a (3) & 4"), legs=legs(1)),
    "sixes": Drill(material=OneNote(beats=4), legs=legs(6), accents=EveryNth(size=4), instrument="guitar"),
}


def of_each_kind() -> dict[str, Drill]:
    """Return the first ready drill of each kind of material, and those that are changed."""
    first: dict[str, Drill] = {one.drill.material.kind: one.drill for one in reversed(SHELF)}
    return {**first, **CHANGED}


def changes() -> Iterator[str]:
    """Yield what each tool makes of some drills, and how they differ from what each is compared with."""
    for name, drill in of_each_kind().items():
        for tool, change in TOOLS.items():
            try:
                changed = read(change(drill, Where()))
            except RipresaError as error:
                yield f"{name}, {tool}: {error.message}"
                continue
            yield f"{name}, {tool}: {' '.join(brief(changed).split())}"
            yield from _rows(changed)
        for turned in TURNED:
            try:
                variants = variant_set(drill, turned, drill.bpm).variants
            except RipresaError as error:
                yield f"{name}, {turned}: {error.message}"
                continue
            yield f"{name}, {turned}: {'; '.join(one.name for one in variants)}"
            yield from _rows(read(overridden(drill, variants[-1].overrides)))
        before = read(drill)
        for other in others(drill):
            yield f"{name}, {other.name}: {' '.join(differences(before, other.reading, F(60)))}"
            yield from _rows(other.reading)


PLAYED = {
    "fours": Drill(
        material=ScaleRun(octaves=2), legs=legs(4), hands=ByOrder(cycle=("R", "L")), accents=EveryNth(size=4)
    ),
    "two three four": Drill(material=ScaleRun(octaves=1), legs=legs(2, 3, 4)),
    "five six": Drill(material=OneNote(beats=8), legs=legs(5, 6), accents=NoAccents()),
    "silent bars": Drill(material=OneNote(beats=16), legs=legs(2), click=DropOut(1, 1)),
    "both hands": Drill(
        material=ScaleRun(octaves=1), legs=legs(3), second=SecondHand(Contrary(), legs(2)), instrument="piano"
    ),
}
FAULTY = {
    "early": StandIn(spread_ms=5, bias_ms=-60),
    "drags": StandIn(spread_ms=5, drift_percent=-3),
    "short of notes": StandIn(spread_ms=5, miss_percent=10),
    "too many notes": StandIn(spread_ms=5, extra_percent=10),
    "late after silence": StandIn(spread_ms=5, silence_ms=70),
    "hands apart": StandIn(spread_ms=5, apart_ms=-45),
    "left hand late": StandIn(spread_ms=5, apart_ms=45),
    "a habit": StandIn(spread_ms=5, habit_ms=45),
    "early at changes": StandIn(spread_ms=5, stumble_ms=-80),
}


def takes() -> Iterator[str]:
    """Yield what is said of each player on some drills."""
    players = {**{name: player for name, (_, player) in STAND_INS.items()}, **FAULTY}
    for (drill_name, drill), (name, player) in product(PLAYED.items(), players.items()):
        reading = read(drill)
        due = due_notes(reading, F(84), 0.0, 4 * float(reading.loop_beats * 60 / 84))
        found = judge(due, play(replace(player, seed=7), due).notes, Limits(), "stand_in", (0.0, 0.002)).verdict
        yield f"{drill_name}, {name}: {found.mark}. {' '.join(found.reasons)}"
        yield from (f"  offers: {offer.label}" for offer in found.offers)


def climbs() -> Iterator[str]:
    """Yield the rungs of each rule, and what each moving rule says after every row of up to four marks."""
    rules: list[RungRule] = [PerCent(), EvenSteps(F(5)), ZigZag(), DivideThenRaise(step=F(6))]
    rules += [preset.rule for preset in PRESETS.values()]
    for rule, target, settings in product(rules, (BpmTarget(F(97)), BandTarget(F(6), F(7))), ("whole", "numbered")):
        try:
            plan = ClimbPlan(start=F(60), target=target, rule=rule, settings=settings)  # type: ignore[arg-type]
            steps = laid_rungs(plan)
        except RipresaError as error:
            yield f"{rule_sentence(rule)} {settings}: {error.message}"
            continue
        told = " ".join(f"{label(step.bpm)}{f'({step.words})' if step.words else ''}" for step in steps)
        yield f"{rule_sentence(rule)} {settings}: {told}"
    plan = ClimbPlan(start=F(60), target=BpmTarget(F(72)), rule=EvenSteps(F(4)), clean_to_rise=2, shaky_to_fall=2)
    marks: dict[str, Mark] = {"c": "clean", "s": "shaky", "n": "near"}
    for moving, rung, size in product(MOVINGS, (1, 2, 4), range(1, 5)):
        moved = replace(plan, moving=moving)
        for row in product(marks, repeat=size):
            word = decide(moved, laid_rungs(moved), rung, [marks[one] for one in row])
            yield f"{moving}, rung {rung}, {''.join(row)}: {word.decision} {word.rung}. {word.heading}: {word.sentence}"


def numbers() -> Iterator[str]:
    """Yield every number that is told of a drill of each kind, as the command line prints it."""
    for name, drill in of_each_kind().items():
        for key, value in sums_values(read(drill), F(96)).items():
            yield f"{name}, {key}: {json.dumps(value, ensure_ascii=False)}"


def files() -> Iterator[str]:
    """Yield the messages of a MIDI file and the lines of a score of drills of some kinds."""
    every = of_each_kind()
    for name in ("scale_run", "strum", "line", "sixes"):
        reading = read(every[name])
        for track in mido.MidiFile(file=io.BytesIO(write_midi(reading, F(96)))).tracks:
            yield from (f"{name}, MIDI: {message}" for message in track[:MOST_EVENTS])
        score = etree.fromstring(write_musicxml(reading, F(96)))
        etree.indent(score)
        yield from (f"{name}: {line}" for line in etree.tostring(score).decode().split("\n")[:MOST_LINES])
        for row in rail_rows(reading)[0][:2]:
            yield from (f"{name}, rail: {line}" for line in row.picture.replace("><", ">\n<").split("\n"))
        for part in read_musicxml(write_musicxml(reading, F(96))):
            taken = drill_of(part, 1, min(2, part.bars), name)
            yield f"{name}, read again: {' '.join(brief(read(taken.drill)).split())}"


PLAN = {
    "format": "ripresa.plan/1",
    "start": "2026-10-07",
    "weeks": 4,
    "days_a_week": 5,
    "minutes": 12,
    "most_a_day": 18,
    "off": ["sunday", "2026-10-20/2026-10-22"],
    "lessons": ["wednesday"],
    "done": [{"date": "2026-10-08", "minutes": 12}, {"date": "2026-10-09", "minutes": 10.5}],
    "today": "2026-10-19",
}


def plans() -> Iterator[str]:
    """Yield the days of some plans, as the command line prints them, and the maps of some climbs."""
    for more in ({}, {"most_a_day": 40}, {"days_a_week": 3, "done": []}, {"today": "2026-10-30"}):
        with TemporaryDirectory() as folder, redirect_stdout(io.StringIO()) as printed:
            file = Path(folder) / "plan.json"
            file.write_text(json.dumps({**PLAN, **more}))
            main(["plan", str(file)])
        found = json.loads(printed.getvalue())
        yield from (f"plan, day: {json.dumps(day)}" for day in found.pop("days"))
        yield f"plan: {json.dumps(found)}"
    for target in (BpmTarget(F(97)), BandTarget(F(6), F(7))):
        plan = ClimbPlan(start=F(60), target=target, rule=DivideThenRaise(step=F(6)))
        laid = speed_map(plan, F(4), 3, {(F(60), F(2)): "clean", (F(60), F(3)): "shaky"}, [F(4), F(6)])
        for row in laid.rows:
            yield f"map: {'; '.join(repr(place) for place in row)}"


def heard() -> Iterator[str]:
    """Yield where the notes of recordings whose truth is known begin, and what is wrong with some."""
    random = np.random.default_rng(5)
    voices: tuple[tuple[Voice, As], ...] = (("pluck", "plucked"), ("keys", "struck"))
    for voice, kind in voices:
        samples = np.zeros(4 * RATE)
        for number in range(10):
            fade = np.linspace(0.3 if number % 3 else 0.6, 0, round(0.28 * RATE))
            tone = note(voice, 57 + number)[: len(fade)] * fade
            first = round((0.5 + 0.3 * number) * RATE)
            samples[first : first + len(tone)] += tone
        for room, sound in (("clean", samples), ("noisy", samples + 0.004 * random.normal(0, 1, len(samples)))):
            found = listen(sound_of(0.5 * sound, RATE), kind, 0.3)
            told = " ".join(f"{one.at:.2f}/{one.level:.0f}" for one in found.onsets)
            yield f"{voice}, {room}: {told}; {' '.join(found.quality.sentences)}"
    time = np.arange(3 * RATE) / RATE
    for name, wrong in (
        ("silent", np.zeros(len(time))),
        ("soft", 0.001 * np.sin(2 * np.pi * 220 * time)),
        ("humming", 0.2 * np.sin(2 * np.pi * 50 * time)),
        ("clipped", np.clip(3 * np.sin(2 * np.pi * 220 * time), -1, 1)),
    ):
        yield f"{name}: {' '.join(listen(sound_of(wrong, RATE), 'plucked').quality.sentences)}"


SAID: dict[str, Callable[[], Iterator[str]]] = {
    "drills": drills,
    "corpus": corpus,
    "changes": changes,
    "takes": takes,
    "climbs": climbs,
    "numbers": numbers,
    "files": files,
    "plans": plans,
    "heard": heard,
}
