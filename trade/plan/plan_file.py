"""The open plan format.

JSON, described by docs/plan.schema.json, which is made from the classes of `plan`.
"""

import re
import zlib
from inspect import cleandoc
from typing import Any, Literal

import msgspec

from trade.errors import PlanError
from trade.language import compose
from trade.measure import Units
from trade.plan.as_built import AsBuilt
from trade.plan.datum import Datum
from trade.plan.item import Name, PlanItem
from trade.plan.model import AnyPiece, Plan, Wall
from trade.plan.place import Place
from trade.plan.policy import Policy
from trade.plan.shop import Shop

MAX_BYTES = 5_000_000
FORMAT, VERSION = "gancho-plan", 2
_NOUNS = {
    "float": "a number",
    "int": "a whole number",
    "str": "text",
    "bool": "true or false",
    "array": "a list",
    "object": "an object",
    "null": "nothing (null)",
}


class _Envelope(msgspec.Struct):
    """What every plan file must say of itself, read first."""

    format: Literal["gancho-plan"]
    version: Literal[1, 2]


class _First(PlanItem, frozen=True, kw_only=True):
    """A plan as version 1 of the format had it: one wall."""

    format: Literal["gancho-plan"]
    version: Literal[1]
    name: Name
    units: Units
    wall: Wall
    pieces: tuple[AnyPiece, ...] = ()
    policy: Policy = Policy()
    datum: Datum = Datum()
    shop: Shop = Shop()
    as_built: AsBuilt = msgspec.field(default=AsBuilt(), name="built")

    def plan(self) -> Plan:
        """Return the same as it is today.

        Raises:
            PlanError: it refuses itself.
        """
        return Plan(
            name=self.name,
            units=self.units,
            wall=self.wall,
            pieces=self.pieces,
            policy=self.policy,
            datum=self.datum,
            shop=self.shop,
            as_built=self.as_built,
        )


# made with the module and not by the first who reads: several threads must not build the same type
# at once
_ENVELOPE = msgspec.json.Decoder(_Envelope)
_FIRST, _PLACE = msgspec.json.Decoder(_First), msgspec.json.Decoder(Place)


def dump(plan: Plan) -> bytes:
    """Write all walls of a plan, indented, with a newline at the end."""
    return msgspec.json.format(_encoded(plan), indent=2) + b"\n"


def pack(plan: Plan) -> bytes:
    """Write a plan as compact JSON, compressed with zlib, for storage."""
    return zlib.compress(_encoded(plan))


def _encoded(plan: Plan) -> bytes:
    return msgspec.json.encode(Place.of(plan), enc_hook=str)


def unpack(packed: bytes, at: str = "") -> Plan:
    """Read a plan written by `pack`, in front of the wall of a key; of the widest if there is none.

    Raises:
        PlanError: as of `load`, or it is not packed.
    """
    try:
        raw = zlib.decompress(packed)
    except zlib.error as error:
        raise PlanError(compose("This is not a packed plan ({error}).", error=str(error))) from None
    return load(raw, at)


def load(raw: bytes, at: str = "") -> Plan:
    """Read a plan of any version, in front of the wall of a key; of the widest if there is none.

    Raises:
        PlanError: not JSON, cut short, another format or version, or a plan that refuses itself;
          `where` says which part.
    """
    if len(raw) > MAX_BYTES:
        raise PlanError(
            compose(
                "This file is larger than a plan can be ({max_bytes} MB).",
                max_bytes=MAX_BYTES // 1000000,
            )
        )
    try:
        if _ENVELOPE.decode(raw).version == 1:
            return _FIRST.decode(raw).plan()
        return _PLACE.decode(raw).plan(at)
    except msgspec.ValidationError as error:
        message, _, path = str(error).partition(" - at `")
        where = path.rstrip("`").removeprefix("$").removeprefix(".")
        if isinstance(error.__cause__, PlanError) and error.__cause__.where:
            where = f"{where}.{error.__cause__.where}".lstrip(".")
        raise PlanError(_plain(message, where), where) from None
    except RecursionError:
        raise PlanError("This is not a plan file: it is nested deeper than any plan.") from None
    except (msgspec.DecodeError, UnicodeDecodeError) as error:
        raise PlanError(
            compose(
                "This is not a plan file, or it was cut short ({error}).",
                error=str(error).rstrip("."),
            )
        ) from None


def schema() -> dict[str, Any]:
    """Return the JSON Schema of the plan format."""
    made: dict[str, Any] = msgspec.json.decode(msgspec.json.encode(msgspec.json.schema(Place)))
    made["$defs"]["Place"]["required"] = ["format", "version", *made["$defs"]["Place"]["required"]]
    for definition in made["$defs"].values():
        if "description" in definition:
            definition["description"] = cleandoc(definition["description"])
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "title": "Gancho plan",
        **made,
    }


def _plain(message: str, where: str) -> str:
    if where == "version" or message.endswith("field `version`"):
        return (
            "This plan was written for another version of the format; Gancho reads versions 1 "
            "and 2."
        )
    if where == "format" or message.endswith("field `format`"):
        return "This JSON is not a Gancho plan: its `format` is something else."
    if found := re.fullmatch(r"Expected `(.+)`, got `(.+)`", message):
        wanted = " or ".join(_NOUNS.get(kind.strip(), kind.strip()) for kind in found[1].split("|"))
        return compose(
            "Expected {wanted}, found {found}.", wanted=wanted, found=_NOUNS.get(found[2], found[2])
        )
    if found := re.fullmatch(r"Object (missing required|contains unknown) field `(.+)`", message):
        return (
            compose("“{found}” is missing.", found=found[2])
            if found[1].startswith("missing")
            else compose("“{found}” is not a part of a plan.", found=found[2])
        )
    return message if message.endswith(".") else f"{message}."
