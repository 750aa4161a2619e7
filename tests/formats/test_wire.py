"""Core values as they travel: what their marks mean, what is refused, and how they are described."""

from typing import Any

import pytest
from pydantic import ValidationError

from ripresa.core.climbs import ClimbPlan, PerCent
from ripresa.core.drill import Drill, Leg
from ripresa.core.drill.click import Click, NamedClick
from ripresa.core.drill.material import OneNote
from ripresa.core.exact import Exact
from ripresa.core.exact import Fraction as F
from ripresa.core.studio import StudioSettings
from ripresa.formats.wire import Shape, WireSchema, adapter


class _Sent(Shape):
    bpm: Exact
    drill: Drill
    clicks: list[Click]
    other: Drill | None = None


GIVEN: dict[str, Any] = {
    "bpm": "169/2",
    "drill": {"title": "Slip"},
    "clicks": [{"kind": "named", "plan": "two_and_four"}],
}


def test_a_shape_holds_core_values_and_sends_them_back() -> None:
    sent = _Sent.model_validate(GIVEN)
    assert (sent.bpm, sent.drill, sent.clicks) == (F(169, 2), Drill(title="Slip"), [NamedClick("two_and_four")])
    assert isinstance(sent.bpm, F)
    told = sent.model_dump(mode="json")
    assert (told["bpm"], told["drill"]["bpm"], told["other"]) == ("169/2", str(Drill().bpm), None)
    assert _Sent.model_validate(told) == sent


@pytest.mark.parametrize(
    ("changed", "place", "says"),
    [
        ({"bpm": "0.1"}, ("bpm",), "“0.1” is not an exact number"),
        ({"bpm": True}, ("bpm",), "True is not an exact number"),
        ({"drill": {"titel": "Slip"}}, ("drill", "titel"), "Unexpected keyword argument"),
        ({"drill": {"legs": [{"division": "4", "swing": 1}]}}, ("drill", "legs", 0, "swing"), "Unexpected keyword"),
        ({"other": {"material": {"kind": "tune"}}}, ("other", "material"), "does not match any of the expected tags"),
        ({"clicks": [{"kind": "none"}]}, ("clicks", 0), "does not match any of the expected tags"),
    ],
)
def test_what_does_not_fit_is_refused_at_its_place(changed: dict[str, Any], place: tuple[Any, ...], says: str) -> None:
    with pytest.raises(ValidationError) as refused:
        _Sent.model_validate(GIVEN | changed)
    (error,) = refused.value.errors()
    assert error["loc"] == place
    assert says in error["msg"]


def test_what_the_studio_has_kept_is_read_even_where_it_holds_more() -> None:
    """Settings of a newer version are no drill: a field that is not known is left out."""
    settings = adapter(StudioSettings)
    kept = settings.dump_python(StudioSettings(), mode="json")
    assert settings.validate_python(kept | {"of_a_later_version": 1}) == StudioSettings()


def test_bounds_and_defaults_are_described_as_they_travel() -> None:
    described = adapter(OneNote).json_schema(schema_generator=WireSchema)["properties"]["beats"]
    assert (described["type"], described["minimum"], described["maximum"]) == ("integer", 1, 256)
    leg = adapter(Leg).json_schema(schema_generator=WireSchema)["properties"]
    assert leg["division"]["type"] == "string"
    plan = adapter(ClimbPlan).json_schema(schema_generator=WireSchema)
    assert plan["properties"]["rule"]["default"]["step"] == str(PerCent().step)
    assert plan["additionalProperties"] is False
    assert _Sent.model_json_schema()["$defs"]["Drill"]["properties"]["bpm"]["default"] == str(Drill().bpm)
