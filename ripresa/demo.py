"""The demo studio: an invented music room in a ferry town, played in by stand-in players.

Every take is really played, matched, measured and judged; nothing here is a
finished figure. The same day makes the same studio.
"""

import uuid
from collections.abc import Iterator
from dataclasses import dataclass, replace
from datetime import date, datetime, timedelta
from math import ceil

from ripresa.core.changes import Overrides, Part
from ripresa.core.climbs import (
    CLICK_LADDERS,
    BandTarget,
    BpmTarget,
    ClimbPlan,
    DivideThenRaise,
    EvenSteps,
    PerCent,
    SpeedTarget,
    ZigZag,
)
from ripresa.core.drill import Drill, Leg, Reduce
from ripresa.core.drill.accents import EachBeat, EveryNth
from ripresa.core.drill.click import NamedClick
from ripresa.core.drill.hands import ByOrder
from ripresa.core.drill.material import OneNote, ScaleRun
from ripresa.core.exact import Fraction, parse_exact
from ripresa.core.plans import PracticePlan
from ripresa.core.reading import read
from ripresa.core.studio import Climb, Ear, GroupDetails, Guardian, KeptDrill, Member, StudentDetails
from ripresa.core.takes import StandIn
from ripresa.store import drills, groups, students, takes
from ripresa.work.assignments import start_set
from ripresa.work.climbs import Stood, as_it_stands, move_on, start_climb
from ripresa.work.takes import Played, judge_take, stand_in_plays, turn_seconds


def _legs(*divisions: int | str) -> tuple[Leg, ...]:
    return tuple(Leg(parse_exact(division)) for division in divisions)


_ALTERNATE = ByOrder(cycle=("D", "U"))
_DRILLS: dict[str, Drill] = {
    "stairs": Drill(
        title="Ferry stairs, fives in G",
        material=ScaleRun(tonic="G", scale="melodic_minor", octaves=2),
        legs=_legs(2, 3, 4),
        bpm=Fraction(84),
        hands=_ALTERNATE,
        accents=EveryNth(size=5),
        click=NamedClick(plan="two_and_four"),
        instrument="guitar",
        purpose="Even picking while the accent wanders off the beat.",
    ),
    "sixes": Drill(
        title="Harbour sixes",
        material=ScaleRun(tonic="F", scale="major", octaves="one_repeated"),
        legs=_legs(5, 6),
        bpm=Fraction(72),
        hands=ByOrder(cycle=("T", "K")),
        instrument="clarinet",
        purpose="The change from fives to sixes without a bump.",
    ),
    "lamps": Drill(
        title="Quay lamps, there and back",
        material=ScaleRun(tonic="Eb", scale="major", octaves="match"),
        legs=_legs(2, 3, 4),
        bpm=Fraction(96),
        accents=EachBeat(),
        instrument="piano",
        purpose="Two, three and four octaves in the same fourteen beats.",
    ),
    "slack": Drill(
        title="Slack tide on one string",
        material=OneNote(beats=8),
        legs=_legs(1, 2, 3, 4, 3, 2),
        bpm=Fraction(66),
        hands=_ALTERNATE,
        instrument="guitar",
        purpose="Up and back through the divisions; the beat stays where it is.",
    ),
    "gulls": Drill(
        title="Gulls over the pier",
        material=ScaleRun(tonic="D", scale="dorian", octaves=1),
        legs=_legs(2, 4, 2, 4),
        bpm=Fraction(80),
        seam="breath",
        hands=ByOrder(cycle=("T", "K")),
        accents=EveryNth(size=3),
        instrument="flute",
        purpose="Double tonguing in threes over fours.",
    ),
    "nets": Drill(
        title="Drying nets, blues in B♭",
        material=ScaleRun(tonic="Bb", scale="blues", octaves=1),
        legs=_legs(2, 3, 4),
        bpm=Fraction(76),
        meter="4/4",
        instrument="alto_saxophone",
        purpose="Swing-free triplets between straight eighths and sixteenths.",
    ),
    "tender": Drill(
        title="The tender at six-eight",
        material=ScaleRun(tonic="A", scale="harmonic_minor", octaves=1),
        legs=_legs(3, 6),
        bpm=Fraction(60),
        meter="6/8",
        instrument="any",
        purpose="Two beats a bar, three and six notes in each.",
    ),
}


@dataclass(frozen=True, slots=True)
class _Pupil:
    name: str
    instrument: str
    time: str
    drill: str
    plan: ClimbPlan
    player: StandIn
    takes: int
    days_off: int = 0
    more: StudentDetails = StudentDetails("as usual")
    plan_of_practice: PracticePlan | None = None


#: The start is set to some weeks before today when the studio is filled.
_PLAN = PracticePlan(start=date(2026, 1, 1), weeks=12, off=("sunday",))
_WEEKS_AGO = 4

_PUPILS = (
    _Pupil(
        "Ottavia Renn",
        "clarinet",
        "14:30",
        "sixes",
        ClimbPlan(start=Fraction(60), target=BpmTarget(Fraction(84)), rule=PerCent(Fraction(4))),
        StandIn(spread_ms=9, bias_ms=-4, stumble_ms=66, miss_percent=0.5),
        13,
        more=StudentDetails("as usual", breath=Fraction(11), level="some_years", lowest="E3", highest="C6"),
        plan_of_practice=_PLAN,
    ),
    _Pupil(
        "Bram Lindqvist",
        "guitar",
        "15:15",
        "stairs",
        ClimbPlan(
            start=Fraction(72),
            target=SpeedTarget(nps=Fraction(46, 5), division=Fraction(4)),
            rule=PerCent(Fraction(5)),
        ),
        StandIn(spread_ms=10, bias_ms=6, miss_percent=0.8),
        16,
        1,
        more=StudentDetails("as usual", guardian=Guardian(most_minutes=30, most_bpm=Fraction(160))),
        plan_of_practice=replace(_PLAN, minutes=15, most_a_day=20, days_a_week=4),
    ),
    _Pupil(
        "Saoirse Vidal",
        "piano",
        "16:00",
        "lamps",
        ClimbPlan(
            start=Fraction(80),
            target=BpmTarget(Fraction(120)),
            rule=EvenSteps(Fraction(5)),
            clicks=CLICK_LADDERS["thin_out"].plans,
        ),
        StandIn(spread_ms=9.5, bias_ms=3, miss_percent=0.5),
        15,
    ),
    _Pupil(
        "Teo Adeyemi",
        "guitar",
        "16:45",
        "slack",
        ClimbPlan(start=Fraction(56), target=BpmTarget(Fraction(88)), rule=EvenSteps(Fraction(4)), evenness="easy"),
        StandIn(spread_ms=21, bias_ms=-9, miss_percent=2, stumble_ms=60),
        12,
        6,
    ),
    _Pupil(
        "Ilse Havn",
        "flute",
        "17:30",
        "gulls",
        ClimbPlan(start=Fraction(72), target=BpmTarget(Fraction(104)), rule=PerCent(Fraction(4)), clean_to_rise=3),
        StandIn(spread_ms=11, drift_percent=0.1, miss_percent=1),
        13,
        2,
    ),
    _Pupil(
        "Jomar Petit-Laurent",
        "alto_saxophone",
        "18:15",
        "nets",
        ClimbPlan(start=Fraction(60), target=BpmTarget(Fraction(92)), rule=PerCent(Fraction(6))),
        StandIn(spread_ms=13, bias_ms=8, miss_percent=0.8, extra_percent=0.8),
        9,
        3,
    ),
)


def fill_demo_studio(now: datetime) -> None:
    """Fill the open, empty database with the demo studio, its lessons on the present weekday."""
    kept = {key: drills.add_drill(drill, now - timedelta(days=40)) for key, drill in _DRILLS.items()}
    for number, pupil in enumerate(_PUPILS):
        details = replace(
            pupil.more,
            name=pupil.name,
            instrument=pupil.instrument,
            lesson_weekday=now.weekday(),
            lesson_time=pupil.time,
        )
        student = students.add_student(details, now - timedelta(days=45))
        if pupil.plan_of_practice:
            begin = now.date() - timedelta(weeks=_WEEKS_AGO)
            students.keep_plan(student.id, replace(pupil.plan_of_practice, start=begin), student.revision)
        drill = kept[pupil.drill]
        climb = start_climb(student.id, drill.id, None, pupil.plan, now - timedelta(days=31))
        _play_history(climb, pupil, number, now)
    _second_climbs(kept, now)
    _ask()
    class_of_four = GroupDetails(
        "The Saturday ferry band",
        (Member(2, Part()), Member(4, Part(reduce=Reduce(part="hits"))), Member(5), Member(6)),
        lesson_time="11:00",
    )
    groups.add_group(class_of_four, now - timedelta(days=20))


def _second_climbs(kept: dict[str, KeptDrill], now: datetime) -> None:
    """Start climbs that nobody has played yet: one through the divisions to a band, and a set of variants."""
    begun = now - timedelta(days=30)
    through = ClimbPlan(
        start=Fraction(60),
        target=BandTarget(Fraction(8), Fraction(9)),
        rule=DivideThenRaise(step=Fraction(6)),
        moving="up_two_back_one",
    )
    start_climb(2, kept["stairs"].id, None, through, begun)
    leads = ClimbPlan(start=Fraction(56), target=BpmTarget(Fraction(76)), rule=ZigZag())
    start_set(4, kept["slack"].id, None, "leads", leads, Overrides(), begun)


def _ask() -> None:
    """Write what a student asked on a last take that she marked herself."""
    last = takes.take_lines(student_id=1, most=1)[0]
    takes.hear(last.id, Ear("clean" if last.mark == "clean" else "shaky", by="student"), last.reasons)
    takes.write_note(last.id, "May I breathe at bar 4?")


def _play_history(climb: Climb, pupil: _Pupil, number: int, now: datetime) -> None:
    """Let the stand-in climb, following the rule each time but after the last take."""
    moments = list(_moments(pupil, now))
    for count, moment in enumerate(moments):
        stood = as_it_stands(climb.id)
        take = judge_take(_played(stood, pupil, seed=100 * number + count, moment=moment)).take
        word = as_it_stands(climb.id).word
        if word.decision == "stay" or count == len(moments) - 1:
            continue
        move_on(climb.id, word.decision, stood.climb.rung, moment + timedelta(minutes=2), take_id=take.id)


def _moments(pupil: _Pupil, now: datetime) -> Iterator[datetime]:
    """Yield when takes were played: two a day on days that end before today, oldest first."""
    days = ceil(pupil.takes / 2)
    for count in range(pupil.takes):
        back = pupil.days_off + 1 + 2 * (days - 1 - count // 2)
        evening = (now - timedelta(days=back)).replace(hour=17, minute=10 + 4 * (count % 2), second=0, microsecond=0)
        yield evening


def _played(stood: Stood, pupil: _Pupil, *, seed: int, moment: datetime) -> Played:
    """Return two passes on the present rung, as the stand-in plays them."""
    climb, here = stood.climb, stood.here
    drill = climb.drill.drill
    end = 2 * turn_seconds(read(drill), here.bpm)
    # The higher the rung, the less steady the hand: an invention that makes a climb look like one.
    height = 0.7 + 0.11 * here.number
    player = replace(
        pupil.player,
        seed=seed,
        spread_ms=pupil.player.spread_ms * height,
        # What a hand does at a change it learns rung by rung, and loses it again near its limit.
        stumble_ms=pupil.player.stumble_ms * (height - 0.6),
    )
    notes, _ = stand_in_plays(drill, here.bpm, 0.0, end, player)
    return Played(
        id=str(uuid.uuid5(uuid.NAMESPACE_OID, f"{pupil.name} {seed}")),
        student_id=climb.student.id,
        climb_id=climb.id,
        rung=here.number,
        drill_id=climb.drill.id,
        version=climb.drill.version,
        bpm=here.bpm,
        click=here.click or drill.click,
        source="stand_in",
        played_at=moment,
        start=0.0,
        end=end,
        notes=tuple(notes),
        is_calibrated=True,
    )
