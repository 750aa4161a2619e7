"""Time against size, as ratios in one run."""

import subprocess
import sys
import time
import warnings
from collections.abc import Callable
from dataclasses import replace
from importlib import import_module
from typing import Any

from ripresa.core.climbs import BpmTarget, ClimbPlan, EvenSteps, rungs
from ripresa.core.drill import Drill, Leg
from ripresa.core.drill.accents import EveryNth
from ripresa.core.drill.hands import ByOrder
from ripresa.core.drill.material import ScaleRun
from ripresa.core.exact import Fraction as F
from ripresa.core.playing import perform
from ripresa.core.reading import read, sounding_of, worked_out
from ripresa.core.takes import STAND_INS, Limits, due_notes, judge, play
from ripresa.formats.engraver import Engraver
from ripresa.formats.notation import write_musicxml
from ripresa.formats.sheet import press_pages, press_pdf
from ripresa.web.shapes.reading import reading_shape
from ripresa.work.sheets import Options, of_drill, plan_to
from tools import goals, load
from tools.goals import seconds


def table(title: str, unit: str, sizes: list[int], work: Callable[[int], Callable[[], object]]) -> None:
    """Print a row a size: how much larger than the first, and how much longer it took."""
    print(f"\n{title}")
    print(f"{unit:>12} {'seconds':>9} {'size ×':>8} {'time ×':>8} {'time/size':>10}")
    base = 0.0
    for size in sizes:
        took = seconds(work(size))
        base = base or took
        ratio, growth = size / sizes[0], took / base
        print(f"{size:>12} {took:>9.4f} {ratio:>8.1f} {growth:>8.1f} {growth / ratio:>10.2f}")


def steps(count: int) -> Drill:
    legs = tuple(Leg(F(2 + index % 5)) for index in range(count))
    return Drill(material=ScaleRun(octaves=2), legs=legs, hands=ByOrder(), accents=EveryNth(size=5))


def judging(count: int) -> Callable[[], object]:
    reading = read(Drill(material=ScaleRun(octaves=2), legs=(Leg(F(2)), Leg(F(3)), Leg(F(4)))))
    turns = count / len(reading.notes)
    due = due_notes(reading, F(90), 0.0, turns * float(reading.loop_beats * 60 / 90))
    notes = play(STAND_INS["learner"][1], due).notes
    return lambda: judge(due, notes, Limits(), "midi", (0.0, 0.002))


def climb(count: int) -> Callable[[], object]:
    plan = ClimbPlan(start=F(60), target=BpmTarget(F(60 + count)), rule=EvenSteps(F(1)))
    return lambda: rungs(plan, F(4))


def scores() -> None:
    """Print how much longer a general notation library takes to build and write the same score."""
    with warnings.catch_warnings():
        warnings.simplefilter("ignore")
        music21: Any = import_module("music21")
    reading = read(Drill(material=ScaleRun(octaves=2), legs=(Leg(F(4)),) * 104))
    notes = list(reading.notes)

    def by_library() -> object:
        part = music21.stream.Part()
        for event, length in sounding_of(reading.events):
            assert event.pitch
            note = music21.note.Note(event.pitch.midi, quarterLength=length)
            note.addLyric(event.count)
            part.insert(event.onset, note)
        return music21.musicxml.m21ToXml.GeneralObjectExporter(part).parse()

    ours, other = seconds(lambda: write_musicxml(reading, F(90), folded=False)), seconds(by_library, 1)
    print(f"\nMusicXML of {len(notes)} notes: {ours:.3f} s; by music21 {other:.2f} s, × {other / ours:.0f}")


def hearing() -> None:
    """How long it takes to listen, and what memory that needs: each size in a process of its own."""
    print("\nListening to a recording of eight notes a second")
    print(f"{'seconds':>12} {'took':>9} {'× real time':>12} {'more MB':>9}")
    for size in (60, 300, 600):
        told = subprocess.run(
            [sys.executable, "-c", _HEARS, str(size)], check=True, capture_output=True, text=True
        ).stdout.split()
        took, megabytes = float(told[0]), float(told[1])
        print(f"{size:>12} {took:>9.3f} {size / took:>12.0f} {megabytes:>9.0f}")


_HEARS = """
import resource, sys, time
import numpy as np
from ripresa.core.listening import Sound, listen
from ripresa.core.takes import HeardNote
from ripresa.formats.recording import played
from ripresa.formats.sounds import RATE
seconds = int(sys.argv[1])
ten = played([HeardNote(number / 8, pitch=50 + number % 12) for number in range(80)], "pluck", 10.0)
sound = Sound(np.tile((ten * 20000).astype(np.int16), seconds // 10), RATE)
listen(Sound(sound.samples[:RATE], RATE))
before = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss
began = time.perf_counter()
listen(sound, "plucked", 0.125)
print(time.perf_counter() - began, (resource.getrusage(resource.RUSAGE_SELF).ru_maxrss - before) / 1024)
"""


def papers() -> None:
    """Print how long a hand-out of some sixty bars takes to be seen, and to be written, beside its reading."""
    drill = Drill(
        material=ScaleRun(octaves=2), legs=tuple(Leg(F(2 + index % 3)) for index in range(21)), hands=ByOrder()
    )
    engraver = Engraver()
    of_drill(drill, Options(shows="both"), engraver)
    reading = seconds(lambda: worked_out(drill))
    print(f"\nHand-out of {read(drill).bar_count} bars, each as many times as long as its reading ({reading:.3f} s)")
    for shows in ("rail", "both"):
        # Another title: neither the page nor its notation has been made before.
        fresh = replace(drill, title=f"Bench, {shows}", meter="4/4", bpm=F(61) if shows == "rail" else F(62))
        began = time.perf_counter()
        sheet = of_drill(fresh, Options(shows=shows), engraver, plan_to(fresh, None, F(90)))
        pages = press_pages(sheet)
        seen = time.perf_counter() - began
        body = press_pdf(sheet)
        done = time.perf_counter() - began
        told = f"{len(pages)} pages seen in {seen:.2f} s, × {seen / reading:.0f}"
        print(f"  {shows}: {told}; PDF {done:.2f} s, {len(body)} bytes")
    engraver.close()


def main() -> None:
    goals.main()
    scores()
    papers()
    hearing()
    table("Reading a drill", "legs", [3, 30, 300], lambda count: lambda: worked_out(steps(count)))
    readings = {count: read(steps(count)) for count in (3, 30, 300)}
    table("Rail and sums of a reading", "legs", [3, 30, 300], lambda n: lambda: reading_shape(readings[n], F(84)))
    table("A reading in seconds", "legs", [3, 30, 300], lambda n: lambda: perform(readings[n], F(84)))
    table("The rungs of a climb", "rungs", [10, 50, 190], climb)
    table("Judging a take of a learner", "notes", [500, 2000, 10_000], judging)
    load.main([1_000, 10_000, 100_000])


if __name__ == "__main__":
    main()
