"""A thin channel of formed steel: how it bends over its web."""


def weakest_section_mm3(width_mm: float, deep_mm: float, thick_mm: float, net: float) -> float:
    """Return the least elastic section modulus about the axis along its web.

    Two flanges and a web of one thickness, sharp corners.

    Args:
        width_mm: over the flanges.
        deep_mm: of a flange, the web's thickness counted in.
        thick_mm: of the metal.
        net: share of the web that slots leave.
    """
    web, flange = net * width_mm * thick_mm, thick_mm * (deep_mm - thick_mm)
    mid_mm = thick_mm + (deep_mm - thick_mm) / 2  # of a flange, from the web's face
    area = web + 2 * flange
    centre_mm = (web * thick_mm / 2 + 2 * flange * mid_mm) / area
    inertia = web * (thick_mm**2 / 12 + (centre_mm - thick_mm / 2) ** 2) + 2 * flange * (
        (deep_mm - thick_mm) ** 2 / 12 + (mid_mm - centre_mm) ** 2
    )
    return inertia / max(centre_mm, deep_mm - centre_mm)
