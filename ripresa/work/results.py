"""What comes back from a practice file: its takes judged by the core as any take, each once; what is not ours told."""

from collections.abc import Iterator
from dataclasses import dataclass

from ripresa.core.errors import OutOfRange, RipresaError
from ripresa.core.exact import label, plural
from ripresa.core.studio import Ear
from ripresa.core.takes import HeardNote
from ripresa.formats.results_file import Results, ResultTake
from ripresa.store import climbs, students
from ripresa.store.identity import studio_id
from ripresa.work.takes import Played, judge_take


@dataclass(frozen=True, slots=True)
class LeftOut:
    """A take that could not be kept: which, and why."""

    what: str
    why: str


@dataclass(frozen=True, slots=True)
class CameBack:
    """What became of results.

    Args:
        kept: Takes that are new. again: Takes that had come before.
        left_out: What could not be kept. question: What the student wrote.
    """

    student: str
    kept: int
    again: int
    left_out: tuple[LeftOut, ...]
    question: str

    @property
    def sentence(self) -> str:
        """All of it in a sentence or two."""
        return " ".join(self._sentences())

    def _sentences(self) -> Iterator[str]:
        yield f"{plural(self.kept, 'take')} of {self.student} came back and {'is' if self.kept == 1 else 'are'} judged."
        if self.again:
            yield f"{plural(self.again, 'take')} had come before, and {'counts' if self.again == 1 else 'count'} once."
        if self.left_out:
            yield f"{plural(len(self.left_out), 'take')} could not be kept."


def take_back(results: Results, student_id: int | None = None) -> CameBack:
    """Judge and keep what was done with a practice file; what came before is kept once.

    Args:
        student_id: On whose log it was dropped; None for whoever it says.

    Raises:
        OutOfRange: It is another studio's, or another student's. NotFound: There is no such student.
    """
    if results.studio != studio_id():
        raise OutOfRange("These results belong to another studio: its teacher can read them.", field="file")
    student = students.find_student(results.student_id)
    if student_id is not None and student_id != results.student_id:
        here = students.find_student(student_id).details.name
        raise OutOfRange(
            f"These results are {student.details.name}’s, and this is the log of {here}. Drop them there.", field="file"
        )
    kept = again = 0
    left_out: list[LeftOut] = []
    last = max(results.takes, key=lambda take: take.played_at, default=None)
    for take in results.takes:
        note = results.question.strip() if take is last else ""
        try:
            is_new = judge_take(_played(take, results.student_id, note)).is_new
        except RipresaError as error:
            left_out.append(LeftOut(f"{take.played_at:%d %b, %H:%M}, at {label(take.bpm)}", error.message))
            continue
        kept += is_new
        again += not is_new
    return CameBack(student.details.name, kept, again, tuple(left_out), results.question.strip())


def _played(take: ResultTake, student_id: int, note: str) -> Played:
    if climbs.find_climb(take.climb_id).drill.id != take.drill_id:
        raise OutOfRange("It is of another drill than its climb.", field="drill_id")
    ear = Ear(take.mark, "student") if take.mark else None
    return Played(
        id=take.id,
        student_id=student_id,
        climb_id=take.climb_id,
        rung=take.rung,
        drill_id=take.drill_id,
        version=take.version,
        bpm=take.bpm,
        click=take.click,
        source="taps" if take.notes else "by_ear",
        played_at=take.played_at,
        start=take.start,
        end=take.end,
        notes=tuple(HeardNote(one.at, key=one.key) for one in take.notes),
        part=take.part,
        ear=ear,
        note=note,
    )
