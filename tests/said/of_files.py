"""What files hold, going out and coming in: MIDI, scores, sheets, logs, calendars, sound."""

import io
import json
from collections.abc import Callable, Iterator
from dataclasses import replace
from datetime import UTC, date, datetime, time, timedelta, timezone
from hashlib import sha256
from typing import Any

import mido
import numpy as np
from lxml import etree

from ripresa.core.climbs import BpmTarget, ClimbPlan
from ripresa.core.drill import Drill
from ripresa.core.drill.accents import EveryNth
from ripresa.core.drill.material import OneNote, ScaleRun
from ripresa.core.drill.second import Contrary, SecondHand
from ripresa.core.errors import RipresaError
from ripresa.core.exact import Fraction as F
from ripresa.core.pitch import Voice
from ripresa.core.playing import COUNT_A_BAR, Before, score
from ripresa.core.reading import read
from ripresa.core.reports import brief
from ripresa.core.shelf import SHELF
from ripresa.core.studio import TakeLine
from ripresa.formats.calendar_ics import Dated, Session, write_calendar
from ripresa.formats.calendar_in import read_lessons
from ripresa.formats.drill_file import plain, schema
from ripresa.formats.engraver import Engraver
from ripresa.formats.forecast_json import forecast_schema
from ripresa.formats.judged_json import judged_schema
from ripresa.formats.listened_json import listened_schema
from ripresa.formats.log_csv import write_log
from ripresa.formats.log_csv_in import read_log
from ripresa.formats.midi import write_midi
from ripresa.formats.midi_in import read_midi
from ripresa.formats.musicxml_in import read_musicxml
from ripresa.formats.notation import write_musicxml
from ripresa.formats.parts import drill_of
from ripresa.formats.plan_file import plan_schema, planned_schema
from ripresa.formats.play_along import Rung, rendered
from ripresa.formats.reading_json import climb_schema
from ripresa.formats.results_file import Results
from ripresa.formats.shared_file import read_shared
from ripresa.formats.sheet.content import as_text
from ripresa.formats.sheet.rail import rail_rows
from ripresa.formats.sounds import RATE
from ripresa.formats.sums_json import sums_schema
from ripresa.formats.take_file import take_schema
from ripresa.work.sheets import Options, of_drill
from tests.said.of_drills import MOST_EVENTS, of_each_kind
from tests.strategies import MAKERS, kept_drills, legs

MOST_LINES = 300


BOTH = Drill(
    material=ScaleRun(octaves=1),
    legs=legs(3),
    second=SecondHand(Contrary(), legs(2)),
    instrument="piano",
    voice="sung",
)


def files() -> Iterator[str]:
    """Yield the messages of a MIDI file and the lines of a score of drills of some kinds."""
    every = of_each_kind() | {"both": BOTH}
    for name in ("scale_run", "strum", "line", "sixes", "both"):
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
        for part in read_midi(write_midi(reading, F(96))):
            taken = drill_of(part, 1, min(2, part.bars), name)
            yield f"{name}, MIDI read again: {' '.join(brief(read(taken.drill)).split())} {' '.join(taken.said)}"


def sums_of_files() -> Iterator[str]:
    """Yield the sum of each file of the ready drills and of some of the corpus: no byte of them goes astray."""
    drills = [(one.key, one.drill) for one in SHELF]
    drills += [(f"{kind} {number}", one) for kind in MAKERS for number, one in enumerate(kept_drills(kind)[::4])]
    for name, drill in drills:
        reading = read(drill)
        rows, _ = rail_rows(reading)
        made = {"rail": "".join(row.picture for row in rows[:8]).encode()}
        for kind, write in (("MIDI", write_midi), ("score", write_musicxml)):
            try:
                made[kind] = write(reading, drill.bpm)
            except RipresaError as error:
                yield f"{name}, {kind}: {error.message}"
        yield f"{name}: {', '.join(f'{kind} {sha256(body).hexdigest()[:12]}' for kind, body in made.items())}"


def sheets() -> Iterator[str]:
    """Yield what each ready drill looks like on paper: its sentences, and what is told of its pictures."""
    for one in SHELF:
        rows, more = rail_rows(read(one.drill))
        yield from (f"{one.key}: {row.height:.3f} {row.words}" for row in rows[:6])
        yield f"{one.key}, more: {more}"
    for name in ("strum", "line"):
        large, _ = rail_rows(read(of_each_kind()[name]), large=True)
        yield from (f"{name}, large: {line}" for line in large[0].picture.replace("><", ">\n<").split("\n"))
    for one in SHELF[::5]:
        sheet = of_drill(one.drill, Options(note="Slow."), Engraver(), ClimbPlan(F(60), BpmTarget(F(90))))
        yield from (f"{one.key}, sheet: {line}" for line in as_text(sheet).split("\n") if line)


TAKEN = TakeLine(
    id="take-0001",
    student_id=1,
    climb_id=2,
    rung=3,
    drill_id=1,
    version=2,
    bpm=F(169, 2),
    click="every beat",
    source="by_ear",
    played_at=datetime(2026, 5, 6, 15, 0, tzinfo=UTC),
    seconds=12.5,
    mark="clean",
    reasons=("Marked clean by ear, by the teacher.", "So it is."),
    note="=1+1",
)
TAKES = (
    TAKEN,
    replace(TAKEN, rung=None, note="", bpm=F(60), due=32, matched=30, missed=2, extra=0, mark="shaky", source="midi"),
    replace(TAKEN, bias=-0.01234, bias_half=0.004, bias_count=30, spread=0.0189, drift_percent=1.5, drift_bpm=-0.75),
    replace(TAKEN, drill_id=9, student_id=7, reasons=(), note="+2 dB, “louder”", click="the 1 of each bar"),
)
ROWS = (
    "2026-05-06T15:00:00+02:00,Runa,Kelp,84.5,2.82,every beat,clean,12.5,fine",
    "2026-05-06T15:00:00,Runa,Kelp,84½,,every beat,shaky,,",
    "2026-05-07,Runa,Kelp,60,2,every beat,near,8,",
    "2026-05-08T10:00:00,Runa,Kelp,0,2,every beat,clean,8,",
    "2026-05-08T10:00:00,Runa,Kelp,1001,2,every beat,clean,8,",
    "2026-05-08T10:00:00,Runa,Kelp,90,-2,every beat,clean,8,",
    "2026-05-08T10:00:00,Runa,Kelp,90,2,every beat,splendid,8,",
    "yesterday,Runa,Kelp,90,2,every beat,clean,8,",
    "2026-05-08T10:00:00,Runa,Kelp,90",
    "2026-05-08T10:00:00,'=Runa,'+Kelp,90,2,every beat,clean,-1,'@note",
    "2026-05-09T10:00:00,Runa,Kelp,90,2,every beat,clean,8,a,b,c",
)


def logs() -> Iterator[str]:
    """Yield the log of some takes as it goes out, and what of another one is read, and why not."""
    drill = of_each_kind()["strum"]
    written = write_log(
        TAKES,
        lambda number: {1: "Runa Holt", 7: "@Ada"}[number],
        lambda number, _version: drill if number == 1 else None,
    )
    yield from (line.removesuffix("\r\n") for line in written)
    names = "played_at,student,drill,bpm,notes_a_second,click,mark,seconds,note"
    for first, rows in ((names, ROWS), (names.replace(",", ";"), [row.replace(",", ";") for row in ROWS[:2]])):
        found = read_log("\n".join([first, *rows]).encode())
        yield from (f"read: {row}" for row in found.rows)
        yield from (f"line {row.line}: {row.why}" for row in found.unread)


EVENTS = (
    ("DTSTART:20261202T143000",),
    ("DTSTART;VALUE=DATE:20261202",),
    ("DTSTART:20261202T143000Z", "RRULE:FREQ=WEEKLY;COUNT=3"),
    ("DTSTART:20261201T143000", "RRULE:FREQ=DAILY;INTERVAL=9"),
    ("DTSTART:20261202T143000", "RRULE:FREQ=WEEKLY;INTERVAL=2;BYDAY=MO,WE"),
    ("DTSTART:20100106T143000", "RRULE:FREQ=WEEKLY;INTERVAL=3"),
    ("DTSTART:20101231T143000", "RRULE:FREQ=DAILY;INTERVAL=7"),
    ("DTSTART:20261202T143000", "RRULE:FREQ=WEEKLY;UNTIL=20261216T143000"),
    ("DTSTART:20261202T143000", "RRULE:FREQ=WEEKLY;UNTIL=20261215"),
    ("DTSTART:20261202T143000", "RRULE:FREQ=WEEKLY", "EXDATE:20261209T143000,20261216T143000"),
    ("DTSTART:20261202T143000", "RRULE:FREQ=MONTHLY"),
    ("DTSTART:20261202T143000", "RRULE:FREQ=WEEKLY;COUNT=2001"),
    ("DTSTART:20261202T143000", "RRULE:FREQ=WEEKLY;COUNT=2000"),
    ("DTSTART:20261120T003000",),
    ("DTSTART:20261119T233000",),
    ("DTSTART:20270110T233000",),
    ("DTSTART:20270110T233000Z",),
    ("DTSTART:18991231T143000",),
    ("SUMMARY:again",),
)
SESSIONS = (
    Session(date(2026, 11, 27), "Practise 12 minutes", "3 min: warm up;\nthen, the seam"),
    Session(date(2026, 12, 2), "Lesson: Ottavia", at=time(14, 30)),
    Session(date(2026, 12, 31), "Lesson: Ottavia", at=time(23, 30), minutes=60),
)


def calendars() -> Iterator[str]:
    """Yield a calendar as it goes out, and the days that are found in others."""
    entries = [Dated(one, f"{one.day}@here", number, number == 2) for number, one in enumerate(SESSIONS)]
    written = write_calendar("Ottavia", entries, datetime(2026, 11, 26, 9, tzinfo=timezone(timedelta(hours=1))))
    yield from written.decode().split("\r\n")
    for lines in EVENTS:
        event = ["BEGIN:VEVENT", "SUMMARY:Ottavia", *lines, "END:VEVENT"]
        text = "\r\n".join(["BEGIN:VCALENDAR", "VERSION:2.0", "PRODID:x", *event, "END:VCALENDAR", ""])
        found = read_lessons(text.encode(), date(2026, 11, 20), date(2027, 1, 10), timezone(timedelta(hours=1)))
        told = " ".join(f"{day:%m-%d}{f'/{at:%H:%M}' if at else ''}" for day, _, at in found.days)
        yield f"{' '.join(lines)}: {told} {' '.join(found.left_out)}"


SCHEMAS: dict[str, Callable[[], Any]] = {
    "drill": schema,
    "sums": sums_schema,
    "take": take_schema,
    "judged": judged_schema,
    "listened": listened_schema,
    "plan": plan_schema,
    "planned": planned_schema,
    "climb": climb_schema,
    "forecast": forecast_schema,
    "results": Results.model_json_schema,
}


def schemas() -> Iterator[str]:
    """Yield the sum of each description of what is read and printed: every bound of a number, every length."""
    for name, made in SCHEMAS.items():
        for part, value in sorted(made().get("$defs", {}).items()):
            yield f"{name}, {part}: {sha256(json.dumps(value, sort_keys=True).encode()).hexdigest()[:8]}"
        yield f"{name}: {sha256(json.dumps(made(), sort_keys=True).encode()).hexdigest()[:8]}"


DRUM = Drill(material=OneNote(beats=4), legs=legs(4), accents=EveryNth(size=3), instrument="hand_drum")
#: Files of drills that are none, for each thing that can be wrong with one.
SPOILT: tuple[Any, ...] = (
    7,
    {"format": "other"},
    {"drills": []},
    {"drills": {}},
    {"drills": [7]},
    {"drills": [{}] * 501},
    {"drills": [{"drill": 7}]},
    {"drills": [{"drill": plain(Drill()), "variants": {"name": "in G"}}]},
    {"drills": [{"drill": plain(Drill()), "variants": [7]}]},
    {"drills": [{"drill": plain(Drill()), "remedies": [{}] * 2000}]},
    {"drills": [{"drill": plain(Drill()), "remedies": [{"name": "in G"}]}]},
)


def spoilt() -> Iterator[str]:
    """Yield why files of drills are refused."""
    for one in SPOILT:
        text = json.dumps({"format": "ripresa.drills/1", **one} if isinstance(one, dict) else one)
        try:
            yield f"{text[:80]}: {len(read_shared(text))} drills"
        except RipresaError as error:
            yield f"{text[:80]}: {error.message}"


def sounds() -> Iterator[str]:
    """Yield how loud some drills are from a tenth of a second to the next, in thousandths, as they are rendered."""
    every = of_each_kind() | {"drum": DRUM}
    played: tuple[tuple[str, Voice, Before], ...] = (
        ("strum", "pluck", COUNT_A_BAR),
        ("sixes", "keys", Before(count_bars=1, count_beats=2, aloud=True)),
        ("line", "wind", COUNT_A_BAR),
        ("drum", "struck", COUNT_A_BAR),
    )
    for name, voice, before in played:
        rungs = [Rung(score(read(every[name]), bpm, before=before), bpm) for bpm in (F(150), F(200))]
        sound = np.concatenate(list(rendered(rungs, voice, 1)))
        tenths = sound[: len(sound) // (RATE // 10) * (RATE // 10)].reshape(-1, RATE // 10)
        loud = np.sqrt((tenths**2).mean(axis=1)) * 1000
        for number in range(0, len(loud), 20):
            yield f"{name} {number / 10:.0f} s: {' '.join(f'{one:.0f}' for one in loud[number : number + 20])}"
