"""Practice files that go home with a student, and the results that come back."""

from base64 import b64encode
from contextlib import suppress
from pathlib import Path
from typing import Any

from flask import Response, current_app
from pydantic import Field

from ripresa.core.changes import Part
from ripresa.core.climbs import Rung
from ripresa.core.drill.click import Click
from ripresa.core.errors import OutOfRange, RipresaError
from ripresa.core.exact import Fraction, decimal, label
from ripresa.core.pitch import Voice
from ripresa.core.playing import Before, Performance
from ripresa.core.reading import read
from ripresa.core.reports import brief_runs
from ripresa.core.studio import Climb, care_for
from ripresa.formats.practice_file import FLAC, MOST_RUNGS, write_practice_file
from ripresa.formats.recipes import RECIPES, Recipes
from ripresa.formats.results_file import read_results
from ripresa.formats.speaker import in_language, own_flac
from ripresa.formats.wire import Shape, WireExact
from ripresa.store import climbs
from ripresa.store.identity import studio_id
from ripresa.store.settings import studio_settings
from ripresa.web.answers import answer, download, file_name
from ripresa.web.blueprint import blueprint
from ripresa.web.numbers import Id
from ripresa.web.query import Query
from ripresa.web.shapes.choices import VoiceChoice
from ripresa.web.shapes.described import described
from ripresa.web.shapes.performance import ScoreShape, score_shape
from ripresa.web.shapes.reading import ReadingShape, reading_shape
from ripresa.web.shapes.sent import Sent, as_json
from ripresa.web.shapes.voice import voice_choice
from ripresa.work.climbs import as_it_stands
from ripresa.work.practise import Practice, practise
from ripresa.work.results import take_back
from ripresa.work.sheets import CLEAN

api = blueprint("practice_file")

MOST_CLIMBS = 6
PASSES = 2


class RunShape(Sent, frozen=True):
    """A stretch of a sentence, and whether it is one of its words."""

    text: str
    is_word: bool


class PracticeRung(Sent, frozen=True):
    """A rung as it is played: its score in seconds, which of the readings it shows, and what its takes are of."""

    number: int
    bpm: WireExact
    bpm_label: str
    nps: str
    words: str
    click: Click
    click_words: str
    part: Part | None
    is_now: bool
    reading: int
    performance: ScoreShape


class PracticeClimb(Sent, frozen=True):
    """A climb: what it is, in words, its rails, and its rungs."""

    climb_id: int
    drill_id: int
    version: int
    title: str
    purpose: str
    brief: list[RunShape]
    sign: str
    voice: Voice
    moving: str
    clean: str
    care: list[str]
    readings: list[ReadingShape]
    rungs: list[PracticeRung]


class PracticeFileShape(Sent, frozen=True):
    """All that a practice file holds: whose it is, its climbs, and what its sounds are made of.

    Args:
        own_words: Words of the teacher's own that are said in it, each as the address of its sound in the file.
    """

    studio: str
    student_id: int
    student: str
    passes: int
    climbs: list[PracticeClimb]
    recipes: Recipes
    voice: VoiceChoice
    own_words: dict[str, str]


class PracticeQuery(Query):
    """Which climbs, of one student."""

    climb: list[Id] = Field(min_length=1, max_length=MOST_CLIMBS)


class ResultsBody(Shape):
    """Results as text: the file, or a message that they were pasted into; on whose log they were dropped."""

    text: str
    student_id: Id | None = None


class LeftOutShape(Shape):
    """A take that could not be kept, and why."""

    what: str
    why: str


class ResultsShape(Shape):
    """What became of results."""

    sentence: str
    kept: int
    again: int
    left_out: list[LeftOutShape]
    question: str


@api.get("/practice-file.json", responses={200: described(PracticeFileShape)})
def show_practice(query: PracticeQuery) -> Response:
    """What a practice file of some climbs holds."""
    return answer(_practice(query.climb))


@api.get("/practice-file.html")
def fetch_practice(query: PracticeQuery) -> Any:
    """A practice file of some climbs."""
    found = _practice(query.climb)
    title = f"{found.student}: {', '.join(climb.title for climb in found.climbs)}"
    body = write_practice_file(_page(), as_json(found).decode(), title)
    name = f"{file_name(found.climbs[0].title)}-{file_name(found.student)}.html"
    return download(body, name, "text/html")


@api.post("/results", responses={200: ResultsShape})
def take_results(body: ResultsBody) -> Response:
    """Results that a practice file saved."""
    found = take_back(read_results(body.text), body.student_id)
    return answer(
        ResultsShape(
            sentence=found.sentence,
            kept=found.kept,
            again=found.again,
            left_out=[LeftOutShape(what=one.what, why=one.why) for one in found.left_out],
            question=found.question,
        )
    )


def _page() -> Path:
    folder: Path = current_app.config["PRACTICE"]
    return folder / "practice.html"


def _practice(ids: list[int]) -> PracticeFileShape:
    found = [climbs.find_climb(one) for one in dict.fromkeys(ids)]
    student = found[0].student
    if any(climb.student.id != student.id for climb in found):
        raise OutOfRange("A practice file is for one student: take the climbs of one.", field="climb")
    made, voice = [_climb(climb) for climb in found], voice_choice()
    return PracticeFileShape(
        studio=studio_id(),
        student_id=student.id,
        student=student.details.name,
        passes=PASSES,
        climbs=made,
        recipes=RECIPES,
        voice=voice,
        own_words=_own_words(made, voice),
    )


def _own_words(made: list[PracticeClimb], voice: VoiceChoice) -> dict[str, str]:
    """Return the words that no other sound says, as far as this computer can speak them."""
    scores = [rung.performance for climb in made for rung in climb.rungs]
    said = {one.word for score in scores for one in (*score.said.rows, *score.lead.said)}
    found: dict[str, str] = {}
    for word in sorted(said - voice.words.keys()):
        # Without a synthesiser, or where it is no word, it is said as “ta”.
        with suppress(RipresaError):
            found[word] = FLAC + b64encode(own_flac(word, in_language(studio_settings().language))).decode()
    return found


def _climb(climb: Climb) -> PracticeClimb:
    stood = as_it_stands(climb.id)
    drill = climb.drill.drill
    reading = read(drill)
    # From the one before the present on: nobody goes back further at home.
    begin = max(0, climb.rung - 2)
    rungs, readings, voice = [], list[ReadingShape](), drill.plays_on.voice
    places: dict[object, int] = {}
    # Words of its own are said before they are played to; nobody at home knows them otherwise.
    before = Before(count_bars=1, say_bars=int(drill.counting.system == "own"), aloud=True)
    for rung in stood.rungs[begin : begin + MOST_RUNGS]:
        click = rung.click or drill.click
        part = rung.part or Part()
        found = practise(Practice(drill=drill, bpm=rung.bpm, click=click, part=part, before=before))
        key = click, part
        if key not in places:
            places[key] = len(readings)
            readings.append(reading_shape(found.reading, found.bpm))
        rungs.append(_rung(rung, climb.rung, click, places[key], found.performance))
    return PracticeClimb(
        climb_id=climb.id,
        drill_id=climb.drill.id,
        version=climb.drill.version,
        title=climb.title,
        purpose=drill.purpose,
        brief=[RunShape(text=run.text, is_word=run.is_word) for run in brief_runs(reading)],
        sign=reading.meter.sign,
        voice=voice,
        moving=climb.plan.moving_words,
        clean=CLEAN,
        care=list(care_for(drill.plays_on, [drill])),
        readings=readings,
        rungs=rungs,
    )


def _rung(rung: Rung, now: int, click: Click, reading: int, performance: Performance) -> PracticeRung:
    return PracticeRung(
        number=rung.number,
        bpm=rung.bpm,
        bpm_label=label(Fraction(rung.bpm)),
        nps=decimal(rung.nps, 1),
        words=rung.words,
        click=click,
        click_words=click.words,
        part=rung.part,
        is_now=rung.number == now,
        reading=reading,
        performance=score_shape(performance),
    )
