"""How core values travel as JSON: teaches pydantic the two marks that the core puts on its types.

Importing this module is what attaches them; nothing else in the house knows
that the validator is pydantic.
"""

from dataclasses import is_dataclass
from typing import Annotated, Any, get_args, get_type_hints

from pydantic import (
    ConfigDict,
    Discriminator,
    GetCoreSchemaHandler,
    GetJsonSchemaHandler,
    PlainSerializer,
    PlainValidator,
    TypeAdapter,
    WithJsonSchema,
)
from pydantic.json_schema import GenerateJsonSchema
from pydantic_core import CoreSchema

from ripresa.core.changes import Overrides
from ripresa.core.climbs import ClimbPlan
from ripresa.core.drill import Drill
from ripresa.core.errors import Unreadable
from ripresa.core.exact import EXACT_PATTERN, AsText, ByKind, Fraction, parse_exact
from ripresa.core.kind import Between
from ripresa.core.plans import PracticePlan
from ripresa.core.studio import GroupDetails, StudentDetails


def _parse(value: object) -> Fraction:
    if isinstance(value, Fraction):
        return value
    try:
        return parse_exact(value)  # type: ignore[arg-type]
    except Unreadable as error:
        raise ValueError(error.message) from error


#: A fraction in the shapes of the web layer.
WireExact = Annotated[
    Fraction,
    PlainValidator(_parse),
    PlainSerializer(str, return_type=str),
    WithJsonSchema({"type": "string", "pattern": EXACT_PATTERN}),
]


def _exact_schema(_mark: AsText, _source: Any, handler: GetCoreSchemaHandler) -> CoreSchema:
    return handler.generate_schema(WireExact)


def _kind_schema(_mark: ByKind, source: Any, handler: GetCoreSchemaHandler) -> CoreSchema:
    return Discriminator("kind").__get_pydantic_core_schema__(source, handler)


def _between_schema(mark: Between, schema: CoreSchema, handler: GetJsonSchemaHandler) -> dict[str, Any]:
    """Return the schema of a number with its bounds; the core refuses what lies outside, with its own sentence."""
    found: dict[str, Any] = handler(schema)
    if found.get("type") == "integer":
        found |= {"minimum": int(mark.least), "maximum": int(mark.most)}
    return found


setattr(Between, "__get_pydantic_json_schema__", _between_schema)  # noqa: B010
setattr(AsText, "__get_pydantic_core_schema__", _exact_schema)  # noqa: B010 - a hook, not an attribute of ours
setattr(ByKind, "__get_pydantic_core_schema__", _kind_schema)  # noqa: B010


_encode_default = GenerateJsonSchema.encode_default


def _default_as_sent(generator: GenerateJsonSchema, default: Any) -> Any:
    """Return a default as a schema shows it: as it travels, fractions as text."""
    if isinstance(default, Fraction):
        return str(default)
    if isinstance(default, tuple):
        return [_default_as_sent(generator, one) for one in default]
    if is_dataclass(default):
        return TypeAdapter(type(default)).dump_python(default, mode="json")
    return _encode_default(generator, default)


setattr(GenerateJsonSchema, "encode_default", _default_as_sent)  # noqa: B010 - it knows none but the standard ones


def _refuse_unknown_parts(part: Any) -> None:
    """Make a dataclass, and those inside it, refuse fields that they do not have: a misspelt one is not lost."""
    if is_dataclass(part):
        setattr(part, "__pydantic_config__", ConfigDict(extra="forbid"))  # noqa: B010
        for hint in get_type_hints(part).values():
            _refuse_unknown_parts(hint)
    for inner in get_args(part):
        _refuse_unknown_parts(inner)


_refuse_unknown_parts(Drill)
_refuse_unknown_parts(ClimbPlan)
_refuse_unknown_parts(StudentDetails)
_refuse_unknown_parts(GroupDetails)
_refuse_unknown_parts(Overrides)
_refuse_unknown_parts(PracticePlan)


def _work_out_once(*parts: type[Any]) -> None:
    """Work out once how a part is checked: many shapes hold it, and each would work it out again."""
    for part in parts:
        setattr(part, "__pydantic_core_schema__", TypeAdapter(part).core_schema)  # noqa: B010


_work_out_once(Drill, ClimbPlan, StudentDetails, Overrides)
