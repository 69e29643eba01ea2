"""What would cure a piece that is close or won't hold: small changes, each tried out, each keeping its promise."""

from collections.abc import Iterator
from contextlib import suppress

import msgspec
from msgspec.structs import replace

from trade import data
from trade.assess import judge_piece
from trade.check import Phrase, Quantity, Word, severity
from trade.choose import placement
from trade.errors import PlanError
from trade.fixings import driving
from trade.fixings.held import anchor_of
from trade.mounts import mount_of
from trade.plan import AnyPiece, Plan, Shelf
from trade.wall.zones import zones

_STEPS_IN_LIGHTENING = 12
_MOST = 4


class Cure(msgspec.Struct, frozen=True, kw_only=True):
    """A change that helps: what to do in words, the piece after it, and what the verdict will then be."""

    code: str
    label: Phrase
    piece: AnyPiece
    word: Word
    utilisation: float


def cures(plan: Plan, key: str) -> tuple[Cure, ...]:
    """The changes that mend a piece, least trouble first; none when it holds or when something must be found out first.

    Each kind of change appears once, at its smallest step that makes the piece hold; if none of its steps does, at the step
    that at least stops it from failing.

    Raises:
        PlanError: no such piece.
    """
    piece = plan.piece(key)
    now = judge_piece(piece, plan)
    if now.word not in ("close", "wont_hold"):
        return ()
    kept: dict[str, Cure] = {}
    for code, label, changed in _tries(piece, plan):
        if code in kept and kept[code].word == "holds":
            continue
        try:
            after = plan.with_piece(changed)
        except PlanError:
            continue
        then = judge_piece(changed, after)
        if then.word not in ("holds", "close") or severity(then.governing) >= severity(now.governing):
            continue
        if code not in kept or then.word == "holds":
            used = max((check.utilisation for check in then.checks if not (check.fit or check.advice)), default=0.0)
            kept[code] = Cure(code=code, label=label, piece=changed, word=then.word, utilisation=used)
    ranked = sorted(kept.values(), key=lambda cure: cure.word != "holds")
    return tuple(ranked[:_MOST])


def _tries(piece: AnyPiece, plan: Plan) -> Iterator[tuple[str, Phrase, AnyPiece]]:
    wall = plan.wall
    missing = any(not seat.anchored and not seat.in_stud for seat in mount_of(piece).seats(piece, wall))
    if missing and wall.uprights:
        yield "seat", Phrase("Set its supports on the studs under it"), placement.on_studs(piece, wall)
        for shift in sorted((s.centre_mm - piece.left_mm - x for s in wall.uprights for x in piece.supports_mm), key=abs)[:3]:
            side = "right" if shift > 0 else "left"
            label = Phrase("Move it {by} to the " + side, {"by": Quantity(abs(shift), "length")})
            if piece.left_mm + shift >= 0:
                yield "seat", label, replace(piece, left_mm=piece.left_mm + shift)
    yield from _clear(piece, plan)
    yield from _anchors(piece, plan)
    yield from mount_of(piece).cures(piece)
    yield from _screws(piece, plan)
    with suppress(PlanError):
        yield "support", Phrase("One more support, on a free stud"), placement.add_support(piece, wall)
    if isinstance(piece, Shelf):
        for thickness in (25.0, 32.0, 38.0, 45.0):
            if thickness > piece.thickness_mm and piece.top_mm >= thickness:
                label = Phrase("A board {t} thick", {"t": Quantity(thickness, "length")})
                yield "board", label, replace(piece, thickness_mm=thickness)
    yield from _lighter(piece, plan)


def _anchors(piece: AnyPiece, plan: Plan) -> Iterator[tuple[str, Phrase, AnyPiece]]:
    """Every anchor that suits what is behind a support without timber."""
    wall = plan.wall
    for key in (*data.anchors(), *(packet.key for packet in wall.packets)):
        if key == piece.anchor:
            continue
        changed = replace(piece, anchor=key)
        grips = [seat.held for seat in mount_of(changed).seats(changed, wall) if seat.anchored]
        if grips and all(held.pull_n > 0 for held in grips):
            yield "anchor", Phrase("Hold it with: {name}", {"name": anchor_of(wall, key).name}), changed


def _clear(piece: AnyPiece, plan: Plan) -> Iterator[tuple[str, Phrase, AnyPiece]]:
    """Out of the way of what is on the wall, by the shortest way: up, down or to a side, where it is set on the studs anew."""
    box, wall = mount_of(piece).box(piece), plan.wall
    moves: list[tuple[float, float]] = []
    for zone in zones(wall):
        if zone.level == "keep_out" and min(box.right_mm, zone.right_mm) > max(box.left_mm, zone.left_mm):
            moves += [(0.0, zone.top_mm - box.bottom_mm), (0.0, zone.bottom_mm - box.top_mm)]
            moves += [(zone.right_mm - box.left_mm, 0.0), (zone.left_mm - box.right_mm, 0.0)]
    for dx, dy in sorted(moves, key=lambda move: abs(move[0] + move[1])):
        left, top = piece.left_mm + dx, piece.top_mm + dy
        if left < 0 or left + piece.length_mm > wall.width_mm or not piece.high_mm <= top <= wall.height_mm:
            continue
        side = ("right" if dx > 0 else "left") if dx else ("up" if dy > 0 else "down")
        label = Phrase(
            f"Move it {{by}} {'to the ' if dx else ''}{side}, clear of what is there", {"by": Quantity(abs(dx + dy), "length")}
        )
        moved = replace(piece, left_mm=left, top_mm=top)
        yield "clear", label, placement.on_studs(moved, wall) if dx else moved


def _screws(piece: AnyPiece, plan: Plan) -> Iterator[tuple[str, Phrase, AnyPiece]]:
    for length in driving.lengths_mm(data.screws()[piece.screw]):
        if length > piece.screw_length_mm + 0.5:
            label = Phrase("Longer screws, {l}", {"l": Quantity(length, "length")})
            yield "longer", label, replace(piece, screw_length_mm=length)
    kind, now = data.screws()[piece.screw].kind, data.screws()[piece.screw].diameter_mm
    for key, row in data.screws().items():
        if row.kind == kind and row.diameter_mm > now and piece.screw_length_mm <= max(driving.lengths_mm(row)) + 0.5:
            name = row.name_imperial if plan.units == "imperial" else row.name_metric
            yield "thicker", Phrase("A thicker screw: {name}", {"name": name}), replace(piece, screw=key)
    if kind == "wood":
        for key, row in data.screws().items():
            length = min((each for each in driving.lengths_mm(row) if each >= piece.screw_length_mm - 0.5), default=0.0)
            if row.kind == "lag" and length:
                name = row.name_imperial if plan.units == "imperial" else row.name_metric
                label = Phrase("Lags instead: {name}, {l}", {"name": name, "l": Quantity(length, "length")})
                yield "lag", label, replace(piece, screw=key, screw_length_mm=length)


def _lighter(piece: AnyPiece, plan: Plan) -> Iterator[tuple[str, Phrase, AnyPiece]]:
    total = sum(thing.mass_kg or 0.0 for thing in piece.things)
    low, high = 0.0, 1.0
    for _ in range(_STEPS_IN_LIGHTENING):
        share = (low + high) / 2
        low, high = (share, high) if judge_piece(_scaled(piece, share), plan).word == "holds" else (low, share)
    kept = int(total * low * 10) / 10
    if total and kept > 0:
        label = Phrase("Less on it: {kg} is what it may carry", {"kg": Quantity(kept, "mass")})
        yield "lighten", label, _scaled(piece, kept / total)


def _scaled(piece: AnyPiece, share: float) -> AnyPiece:
    things = tuple(replace(thing, mass_kg=thing.mass_kg * share if thing.mass_kg else thing.mass_kg) for thing in piece.things)
    return replace(piece, things=things)
