import pytest
from hypothesis import given

from ripresa.core.errors import OutOfRange
from ripresa.core.exact import Fraction as F
from ripresa.core.exact import decimal
from ripresa.core.rhythm import (
    Settings,
    bpm_for_speed,
    check_bpm,
    gap_seconds,
    gear_change,
    inner_pulse,
    neighbours,
    setting,
    span_seconds,
    speed_nps,
    speed_twins,
    tapped_bpm,
)
from ripresa.core.rhythm.tempo import NUMBERED, band_place
from tests.strategies import bpms, divisions, lengths


def test_the_last_eight_gaps_of_a_tapped_tempo_count() -> None:
    gaps = [0.5] * 4 + [0.5] * 4 + [1.0] * 4
    assert tapped_bpm([sum(gaps[:number]) for number in range(len(gaps) + 1)]) == 80


@pytest.mark.parametrize(
    ("beats", "bpm", "seconds"),
    [
        pytest.param(F(1, 3), F(90), F(2, 9), id="triplet eighth at 90"),
        pytest.param(F(16), F(112), F(60, 7), id="four bars of 4/4 at 112"),
        pytest.param(F(48), F(96), F(30), id="2 → 3 → 4 octaves with hold at 96"),
        pytest.param(F(0), F(60), F(0), id="nothing lasts nothing"),
    ],
)
def test_span_seconds(beats: F, bpm: F, seconds: F) -> None:
    assert span_seconds(beats, bpm) == seconds


@given(lengths, lengths, bpms)
def test_two_legs_last_as_long_as_one_joined(a: F, b: F, bpm: F) -> None:
    assert span_seconds(a + b, bpm) == span_seconds(a, bpm) + span_seconds(b, bpm)


@given(lengths, bpms)
def test_twice_the_tempo_is_half_the_time(beats: F, bpm: F) -> None:
    assert span_seconds(beats, 2 * bpm) * 2 == span_seconds(beats, bpm)


@given(bpms, divisions)
def test_speed_and_gap_are_each_others_inverse(bpm: F, division: F) -> None:
    assert speed_nps(bpm, division) * gap_seconds(bpm, division) == 1
    assert bpm_for_speed(speed_nps(bpm, division), division) == bpm


def test_speed_of_108_at_4() -> None:
    assert speed_nps(F(108), F(4)) == F(72, 10)


@pytest.mark.parametrize(("division", "bpm"), [(2, 300), (3, 200), (4, 150), (5, 120), (6, 100)])
def test_ten_notes_a_second_at_each_division(division: int, bpm: int) -> None:
    assert bpm_for_speed(F(10), F(division)) == bpm


@pytest.mark.parametrize("nps", [F(0), F(-1)])
def test_no_speed_at_all_is_refused(nps: F) -> None:
    with pytest.raises(OutOfRange, match="above 0 notes a second") as refused:
        bpm_for_speed(nps, F(4))
    assert refused.value.field == "nps"


def test_speed_twins_of_5_6() -> None:
    twins = speed_twins(F(28, 5), [F(n) for n in range(2, 7)])
    assert [bpm for _, bpm in twins] == [168, 112, 84, F(672, 10), 56]


def test_gear_change_from_five_to_six_at_84() -> None:
    change = gear_change(F(5), F(6), F(84))
    assert decimal(change.gap_before * 1000, 2) == "142.86"
    assert decimal(change.gap_after * 1000, 2) == "119.05"
    assert decimal(change.gap_ratio, 3) == "0.833"
    assert change.speed_change == F(1, 5)
    assert change.is_narrow


@pytest.mark.parametrize(
    ("before", "after", "narrow"),
    [
        pytest.param(F(4), F(5), True, id="5/4 is under 1.3"),
        pytest.param(F(5), F(4), True, id="and so is the way back"),
        pytest.param(F(3), F(4), False, id="4/3 is over"),
        pytest.param(F(10), F(13), False, id="exactly 1.3 is not under it"),
        pytest.param(F(4), F(4), False, id="no change at all"),
    ],
)
def test_narrow_gears(before: F, after: F, narrow: bool) -> None:
    assert gear_change(before, after, F(60)).is_narrow is narrow


@pytest.mark.parametrize(
    ("bpm", "multiple"), [(240, F(1, 2)), (150, F(1)), (88, F(2)), (54, F(3)), (40, F(4))], ids=str
)
def test_inner_pulse_stays_near_a_middle_rate(bpm: int, multiple: F) -> None:
    assert inner_pulse(F(bpm)) == multiple


@pytest.mark.parametrize(
    ("nps", "place"),
    [(F(799, 100), "below"), (F(8), "inside"), (F(9), "inside"), (F(901, 100), "above")],
    ids=["just under", "lower edge", "upper edge", "just over"],
)
def test_a_band_switches_at_its_exact_edge(nps: F, place: str) -> None:
    assert band_place(nps, F(8), F(9)) == place


@pytest.mark.parametrize(
    ("bpm", "settings", "set_to"),
    [
        pytest.param(F(672, 10), "whole", F(67), id="whole"),
        pytest.param(F(675, 10), "whole", F(68), id="halfway goes up"),
        pytest.param(F(672, 10), "halves", F(67), id="halves, down"),
        pytest.param(F(673, 10), "halves", F(675, 10), id="halves, up"),
        pytest.param(F(65), "numbered", F(66), id="numbered"),
        pytest.param(F(70), "numbered", F(69), id="numbered, nearest"),
        pytest.param(F(300), "numbered", F(208), id="numbered, the top"),
        pytest.param(F(2, 10), "whole", F(1), id="never 0"),
    ],
)
def test_settings_of_a_metronome(bpm: F, settings: Settings, set_to: F) -> None:
    assert setting(bpm, settings) == set_to


def test_the_numbered_series_is_the_traditional_one() -> None:
    assert NUMBERED[:12] == (40, 42, 44, 46, 48, 50, 52, 54, 56, 58, 60, 63)
    assert NUMBERED[-4:] == (184, 192, 200, 208)
    assert len(NUMBERED) == 39


@pytest.mark.parametrize("bpm", [F(999, 1000), F(1001)])
def test_a_tempo_that_cannot_be_played_is_refused(bpm: F) -> None:
    with pytest.raises(OutOfRange, match="Use 1 to 1000 bpm") as refused:
        check_bpm(bpm)
    assert refused.value.field == "bpm"


@pytest.mark.parametrize(
    ("bpm", "slower", "faster"), [(1, 1, 2), (10, 9, 11), (100, 96, 104), (1000, 962, 1000)], ids=str
)
def test_one_press_slower_and_faster(bpm: int, slower: int, faster: int) -> None:
    assert neighbours(F(bpm)) == (slower, faster)


@pytest.mark.parametrize(
    ("taps", "bpm"),
    [
        pytest.param([0.0, 0.5, 1.0], 120, id="three beats"),
        pytest.param([0.0, 0.6, 1.2, 1.9, 2.5, 3.1], 100, id="one late tap does not drag it"),
        pytest.param([0.0, 1.0, 9.0, 9.5, 10.0], 120, id="after a pause it begins anew"),
    ],
)
def test_a_tempo_is_tapped_in(taps: list[float], bpm: int) -> None:
    assert tapped_bpm(taps) == bpm


@pytest.mark.parametrize(
    ("taps", "sentence"),
    [
        ([0.0, 0.5], "Tap at least 3 beats"),
        ([0.0, 0.5, 5.0], "Tap at least 3 beats"),
        ([0.0, 0.0, 1.0], "one after the other"),
        ([0.0, 0.01, 0.02], "cannot be played"),
    ],
)
def test_taps_that_make_no_tempo_are_refused(taps: list[float], sentence: str) -> None:
    with pytest.raises(OutOfRange, match=sentence):
        tapped_bpm(taps)
