"""How core values travel as JSON: what the core's marks mean to pydantic, and a core type in a shape.

``ADAPTERS`` says what each mark of the core stands for; a dataclass is checked field by field, by the same. A ``Shape``
has core types as its fields; ``adapter`` reads and writes one by itself. Nothing of the core or of pydantic is changed.
"""

from collections.abc import Callable, Hashable, Iterator
from dataclasses import MISSING, Field, fields, is_dataclass
from functools import cache, reduce
from operator import or_
from types import GenericAlias, UnionType
from typing import Annotated, Any, Union, get_args, get_origin, get_type_hints

from pydantic import (
    BaseModel,
    Discriminator,
    GetCoreSchemaHandler,
    GetJsonSchemaHandler,
    PlainSerializer,
    PlainValidator,
    TypeAdapter,
    WithJsonSchema,
)
from pydantic.json_schema import GenerateJsonSchema
from pydantic_core import CoreSchema, core_schema

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


class _Bounds:
    """Shows the bounds of a whole number; the core refuses what lies outside, with its own sentence."""

    def __init__(self, mark: Between) -> None:
        self._shown = {"minimum": int(mark.least), "maximum": int(mark.most)}

    def __get_pydantic_json_schema__(self, schema: CoreSchema, handler: GetJsonSchemaHandler) -> dict[str, Any]:
        found: dict[str, Any] = handler(schema)
        return found | self._shown if found.get("type") == "integer" else found


_EXACT = (
    PlainValidator(_parse),
    PlainSerializer(str, return_type=str),
    WithJsonSchema({"type": "string", "pattern": EXACT_PATTERN}),
)
#: Mark of the core → what it stands for to pydantic.
ADAPTERS: dict[type, Callable[[Any], tuple[object, ...]]] = {
    AsText: lambda _: _EXACT,
    ByKind: lambda _: (Discriminator("kind"),),
    Between: lambda mark: (_Bounds(mark),),
}
#: A fraction in a shape.
WireExact = Annotated[Fraction, *_EXACT]


def _as_it_is(mark: object) -> tuple[object, ...]:
    return (mark,)


def travelling(hint: Any) -> Any:
    """Return a type of the core as pydantic reads it: its marks by ``ADAPTERS``, its dataclasses by their fields."""
    of, inside = get_origin(hint), get_args(hint)
    if of is Annotated:
        marks = [one for mark in hint.__metadata__ for one in ADAPTERS.get(type(mark), _as_it_is)(mark)]
        return Annotated[travelling(hint.__origin__), *marks]
    if of in {Union, UnionType}:
        return reduce(or_, map(travelling, inside))
    if of in {tuple, list, dict, frozenset}:
        return GenericAlias(of, tuple(one if one is Ellipsis else travelling(one) for one in inside))
    return _carrier(hint) if isinstance(hint, type) and is_dataclass(hint) else hint


def _standing_for(part: type[Any], schema: Callable[[GetCoreSchemaHandler], CoreSchema]) -> type:
    """Return what stands for a dataclass of the core where pydantic is asked for it."""

    def described(_cls: type, _source: Any, handler: GetCoreSchemaHandler) -> CoreSchema:
        return schema(handler)

    return type(part.__name__, (), {"__get_pydantic_core_schema__": classmethod(described)})


@cache
def _carrier(part: Hashable) -> type:
    # Worked out once: many shapes hold the same ones.
    kept = TypeAdapter(_standing_for(part, lambda handler: _checked(part, handler))).core_schema  # type: ignore[arg-type]
    return _standing_for(part, lambda _: kept)  # type: ignore[arg-type]


def _checked(part: type[Any], handler: GetCoreSchemaHandler) -> CoreSchema:
    """Return how a dataclass is checked and written: each of its fields, then by itself."""
    hints = get_type_hints(part, include_extras=True)
    # What may be given by its place comes first, as in a dataclass.
    own = sorted((field for field in fields(part) if field.init), key=lambda field: bool(field.kw_only))
    asked = [
        core_schema.dataclass_field(
            field.name,
            _with_default(handler.generate_schema(travelling(hints[field.name])), field),
            kw_only=None if field.kw_only else False,
        )
        for field in own
    ]
    is_checked = hasattr(part, "__post_init__")
    return core_schema.dataclass_schema(
        part,
        core_schema.dataclass_args_schema(part.__name__, asked, collect_init_only=is_checked),
        [field.name for field in fields(part)],
        post_init=is_checked,
        slots=hasattr(part, "__slots__"),
        ref=f"{part.__module__}.{part.__qualname__}:{id(part)}",
        config=core_schema.CoreConfig(
            title=part.__name__, **({"extra_fields_behavior": "forbid"} if part in _whole() else {})
        ),
    )


def _with_default(schema: CoreSchema, field: Field[Any]) -> CoreSchema:
    if field.default is not MISSING:
        return core_schema.with_default_schema(schema, default=field.default)
    if field.default_factory is not MISSING:
        return core_schema.with_default_schema(schema, default_factory=field.default_factory)
    return schema


@cache
def _whole() -> frozenset[type]:
    """Return the dataclasses that refuse fields which they do not have: a misspelt one is not lost."""
    return frozenset(
        one
        for part in (Drill, ClimbPlan, StudentDetails, GroupDetails, Overrides, PracticePlan)
        for one in _parts(part)
    )


def _parts(hint: Any) -> Iterator[type]:
    """Yield a dataclass and all those inside it."""
    if is_dataclass(hint):
        yield hint  # type: ignore[misc]
        for inner in get_type_hints(hint).values():
            yield from _parts(inner)
    for inner in get_args(hint):
        yield from _parts(inner)


def adapter(part: Any) -> TypeAdapter[Any]:
    """Return what reads and writes a core type."""
    return TypeAdapter(travelling(part))


class WireSchema(GenerateJsonSchema):
    """Describes what travels; the defaults of core values as they are sent."""

    def encode_default(self, default: Any) -> Any:
        """Return a default as a schema shows it: fractions as text."""
        if isinstance(default, Fraction):
            return str(default)
        if isinstance(default, tuple):
            return [self.encode_default(one) for one in default]
        if is_dataclass(default):
            return adapter(type(default)).dump_python(default, mode="json")
        return super().encode_default(default)


class Shape(BaseModel):
    """A model of ours: its fields of core types travel as their marks say, and are described so."""

    def __init_subclass__(cls, **kwargs: Any) -> None:
        """Read the hints of a shape as they travel, before pydantic makes its fields of them."""
        cls.__annotations__ = {name: travelling(hint) for name, hint in cls.__annotations__.items()}
        super().__init_subclass__(**kwargs)

    @classmethod
    def model_json_schema(cls, *args: Any, **kwargs: Any) -> dict[str, Any]:
        """Return the JSON Schema of the model."""
        return super().model_json_schema(*args, **{"schema_generator": WireSchema, **kwargs})
