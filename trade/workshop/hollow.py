"""The boards of a hollow box that floats: top and bottom, back, front, and an end cap at each end.

Top and bottom run over the whole; back and end caps sit between them, the front too, or it meets
them in long mitres.
"""

from trade.workshop.panels import ALONG, OUT, UP, Mitred, Panel, block


def hollow(
    length_mm: float, height_mm: float, depth_mm: float, board: str, skin_mm: float, mitred: bool
) -> tuple[Panel, ...]:
    """Return its boards, by outside sizes and the thickness of its skins."""
    t, long, inside = skin_mm, (0.0, length_mm), (skin_mm, height_mm - skin_mm)
    out = (0.0, depth_mm)
    high = (height_mm - t, height_mm)
    over = (Mitred(OUT, 1, -1),) if mitred else ()
    under = (Mitred(OUT, 1, 1),) if mitred else ()
    front = (Mitred(UP, -1, -1), Mitred(UP, 1, -1)) if mitred else ()
    whole = (0.0, height_mm) if mitred else inside
    between = (t, depth_mm - t)
    return (
        Panel("top and bottom", board, block(long, high, out), UP, ALONG, over),
        Panel("top and bottom", board, block(long, (0.0, t), out), UP, ALONG, under),
        Panel("back", board, block(long, inside, (0.0, t)), OUT, ALONG),
        Panel("front", board, block(long, whole, (depth_mm - t, depth_mm)), OUT, ALONG, front),
        Panel("end cap", board, block((0.0, t), inside, between), ALONG, OUT),
        Panel("end cap", board, block((length_mm - t, length_mm), inside, between), ALONG, OUT),
    )
