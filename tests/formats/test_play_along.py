"""Play-along files: every onset exact to the sample, count-in first, in each format."""

import io
import subprocess
import sys
import zipfile
from pathlib import Path

import mutagen
import numpy as np
import pytest
import soundfile

from ripresa.core.drill import Drill
from ripresa.core.drill.click import Thinned
from ripresa.core.drill.click.made import OfTheSlots
from ripresa.core.drill.material import OneNote, ScaleRun
from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction as F
from ripresa.core.playing import COUNT_A_BAR, Before, Spoken, score
from ripresa.core.reading import read
from ripresa.formats import play_along
from ripresa.formats.play_along import Heard, Rung, rendered, rung_blocks
from ripresa.formats.play_along_file import FORMATS, PlayAlong, SoundFormat, Tags, make_file, save_sound
from ripresa.formats.recipes import Voice
from ripresa.formats.sounds import RATE, Samples, note
from tests.strategies import legs

NESTED = Drill(material=OneNote(beats=4), legs=legs(2, 3, 4, 5), click=OfTheSlots("all"))


def rung(drill: Drill, bpm: F, before: Before = COUNT_A_BAR) -> Rung:
    return Rung(score(read(drill), bpm, before=before), bpm)


ALL = Heard()


def render(made: Rung, voice: Voice, passes: int, heard: Heard = ALL) -> Samples:
    """Return all that is rendered of a rung, as loud as it is."""
    return np.concatenate(list(rendered([made], voice, passes, heard)))


def set_ins(sound: np.ndarray) -> list[int]:
    """Return the samples in which sound sets in after silence."""
    loud = np.flatnonzero(np.abs(sound) > 1e-6)
    return [int(at) for at in loud[np.diff(loud, prepend=loud[0] - RATE) > 40]]


@pytest.mark.parametrize("bpm", [F(60), F(97), F(253, 3)])
def test_every_click_sets_in_at_its_sample(bpm: F) -> None:
    sound = render(rung(NESTED, bpm), "keys", 2, Heard(notes=False))
    beats = [F(n) for n in range(4)]
    turn = [4 + leg * 4 + F(n, d) for leg, d in enumerate((2, 3, 4, 5)) for n in range(4 * d)]
    due = [round(at * 60 / bpm * RATE) for at in [*beats, *turn, *(at + 16 for at in turn)]]
    # A sine is 0 in its first sample, and heard in the next.
    assert [at - 1 for at in set_ins(sound)] == due


def test_every_note_sets_in_at_its_sample_and_ends_before_the_next() -> None:
    drill = Drill(material=ScaleRun(octaves=1), legs=legs(4), articulation=F(1, 2), instrument="piano")
    made = rung(drill, F(60))
    sound = render(made, "keys", 1, Heard(click=False))
    due = [round(made.seconds(made.score.lead.beats + tone.at) * RATE) for tone in made.score.tones]
    assert [at - 1 for at in set_ins(sound)] == due


def test_a_click_longer_than_a_pass_goes_on_over_the_passes() -> None:
    drill = Drill(material=OneNote(beats=4), legs=legs(1), click=Thinned(F(8)))
    sound = render(rung(drill, F(120), Before(count_bars=0)), "keys", 4, Heard(notes=False))
    assert [at - 1 for at in set_ins(sound)] == [0, 4 * RATE]


def test_nothing_is_louder_than_full(tmp_path: Path) -> None:
    save_sound(rendered([rung(NESTED, F(200))], "pluck", 1), tmp_path / "loud", "wav")
    assert 0.1 < np.abs(soundfile.read(tmp_path / "loud")[0]).max() <= 0.97 + 1e-4


@pytest.mark.parametrize("voice", ["pluck", "keys", "wind"])
def test_a_voice_sounds_at_its_pitch(voice: str) -> None:
    sound = note(voice, 69)
    spectrum = np.abs(np.fft.rfft(sound * np.hanning(len(sound))))
    peak = np.argmax(spectrum[:2000]) * RATE / len(sound)
    assert abs(peak / 440 - 1) < 0.01 or abs(peak / 880 - 1) < 0.01


@pytest.mark.parametrize("kind", FORMATS)
def test_a_file_holds_what_was_rendered(kind: SoundFormat, tmp_path: Path) -> None:
    sound = render(rung(Drill(material=OneNote(beats=4), legs=legs(2)), F(90)), "keys", 1)
    save_sound([sound], tmp_path / "made", kind)
    found, rate = soundfile.read(tmp_path / "made")
    assert rate == RATE
    assert abs(len(found) - len(sound)) < 0.1 * RATE
    assert np.abs(found).max() == pytest.approx(min(0.97, np.abs(sound).max()), rel=0.2)


@pytest.mark.parametrize(("passes", "bpm"), [(0, F(60)), (33, F(60)), (32, F(1))])
def test_too_much_is_refused(passes: int, bpm: F) -> None:
    with pytest.raises(OutOfRange) as refused:
        render(rung(NESTED, bpm), "keys", passes)
    assert refused.value.field == "passes"


@pytest.mark.parametrize("kind", FORMATS)
def test_a_minute_and_a_half_is_written_without_ending_the_process(kind: SoundFormat, tmp_path: Path) -> None:
    target = str(tmp_path / "made")
    script = (
        "import sys, numpy as np; from pathlib import Path; from ripresa.formats.play_along_file import save_sound;"
        f"save_sound([np.sin(np.arange({90 * RATE}) / 40) / 4], Path({target!r}), {kind!r})"
    )
    ended = subprocess.run([sys.executable, "-c", script], capture_output=True, check=False)
    assert ended.returncode == 0
    read_back, rate = soundfile.read(target)
    assert abs(len(read_back) / rate - 90) < 0.1
    middle = slice(30 * RATE, 31 * RATE)
    assert np.abs(read_back[middle]).max() == pytest.approx(0.25, abs=0.02)


@pytest.mark.parametrize("kind", FORMATS)
def test_a_file_says_its_title_and_whom_it_is_from(kind: SoundFormat, tmp_path: Path) -> None:
    tags = Tags("Łódź ♭ quay", "Ripresa", 3, "84 bpm")
    save_sound([np.zeros(RATE)], tmp_path / "made", kind, tags)
    body = (tmp_path / "made").read_bytes()
    with soundfile.SoundFile(io.BytesIO(body)) as file:
        assert (file.title, file.artist) == (tags.title, tags.artist)
        assert file.frames >= RATE
    found = mutagen.File(io.BytesIO(body), easy=kind != "wav")
    if kind != "wav":
        assert (found["title"], found["artist"], found["tracknumber"]) == ([tags.title], [tags.artist], ["3"])


def test_a_set_is_a_numbered_file_a_rung_with_a_list(tmp_path: Path) -> None:
    drill = Drill(title="Лодка", material=OneNote(beats=4), legs=legs(2))
    asked = PlayAlong(drill, ((F(84), None), (F(224, 3), Thinned(F(2)))), "mp3", passes=1, is_set=True)
    asked.check()
    done: list[int] = []
    make_file(asked, tmp_path / "set", done.append)
    with zipfile.ZipFile(tmp_path / "set") as archive:
        names = archive.namelist()
        assert names == ["01-84-bpm.mp3", "02-74-bpm.mp3", "contents.txt"]
        listed = archive.read("contents.txt").decode("utf-8-sig").splitlines()
        with soundfile.SoundFile(io.BytesIO(archive.read(names[1]))) as file:
            # A bar of count and a bar of the drill, and what rings.
            assert file.frames / file.samplerate == pytest.approx(8 * 60 / (224 / 3) + 1, abs=0.1)
            assert file.title == "Лодка, 74⅔ bpm, click every 2 beats"
    assert listed == [
        "Лодка",
        "",
        "01-84-bpm.mp3: 84 bpm, click every beat, 1 pass, 0:06",
        "02-74-bpm.mp3: 74⅔ bpm, click every 2 beats, 1 pass, 0:06",
    ]
    assert done == [1, 2]


def test_one_file_says_where_each_rung_begins(tmp_path: Path) -> None:
    drill = Drill(material=OneNote(beats=4), legs=legs(1))
    asked = PlayAlong(drill, ((F(60), None), (F(120), None)), "flac", passes=1)
    make_file(asked, tmp_path / "one", lambda _: None)
    with soundfile.SoundFile(tmp_path / "one") as file:
        # Eight beats at 60, and three seconds between.
        assert file.comment == "0:00 60 bpm, click every beat; 0:11 120 bpm, click every beat"


@pytest.mark.parametrize("voice", ["keys", "pluck"])
def test_a_sound_made_block_by_block_is_the_same_sound(voice: str, monkeypatch: pytest.MonkeyPatch) -> None:
    made = Rung(score(read(NESTED), F(150), spoken=Spoken("beats"), back=("bass", "groove")), F(150))
    blocks = list(rung_blocks(made, voice, 2, Heard(), 1.0))  # type: ignore[arg-type]
    monkeypatch.setattr(play_along, "_BLOCK", 1_000)
    small = list(rung_blocks(made, voice, 2, Heard(), 1.0))  # type: ignore[arg-type]
    assert len(small) > 10 * len(blocks)
    assert np.array_equal(np.concatenate(small), np.concatenate(blocks))
    assert len(np.concatenate(small)) == round((made.lasts(2) + 1.0) * RATE)


def test_a_file_is_as_loud_as_fits_whatever_comes_when(tmp_path: Path) -> None:
    soft, loud = np.full(1000, 0.1), np.full(1000, 1.94)
    for kind in ("wav", "flac"):
        save_sound([soft, loud, soft], tmp_path / kind, kind)
        found, _ = soundfile.read(tmp_path / kind)
        assert np.abs(found).max() == pytest.approx(0.97, abs=1e-4)
        assert found[0] == pytest.approx(0.05, abs=1e-4)
        assert len(found) == 3000
    # What fits is left as it is.
    save_sound([soft], tmp_path / "soft", "wav")
    assert soundfile.read(tmp_path / "soft")[0].max() == pytest.approx(0.1, abs=1e-4)


def test_a_long_file_takes_no_more_memory_than_a_short_one(tmp_path: Path) -> None:
    asked = "from tests.formats.test_play_along import made_in; made_in({passes}, {target!r})"
    peaks = []
    for passes in (1, 16):
        command = [sys.executable, "-c", asked.format(passes=passes, target=str(tmp_path / "made.wav"))]
        peaks.append(int(subprocess.run(command, check=True, capture_output=True, text=True).stdout))
    # Ten minutes of samples would be 200 MB.
    assert (tmp_path / "made.wav").stat().st_size > 50_000_000
    assert peaks[1] - peaks[0] < 40_000


def made_in(passes: int, target: str) -> None:
    """Make a file, and print the most memory that this took, in kB."""
    drill = Drill(material=OneNote(beats=16), legs=legs(2, 3), instrument="piano")
    make_file(PlayAlong(drill, ((F(48), None),), "wav", passes=passes), Path(target), lambda _done: None)
    status = Path("/proc/self/status").read_text().splitlines()
    print(next(line.split()[1] for line in status if line.startswith("VmHWM")))
