"""Moisture in wood, and how much wood moves across its grain with it."""

from trade.calculation import Calculation


def equilibrium(humidity: float, celsius: float) -> float:
    """Return the moisture that wood takes on in air at rest, as a share of its dry weight.

    Wood Handbook FPL-GTR-282 (2021), Eq. (4-5): a model of sorption fitted to Table 4-2, where it
    holds from −1 to 55 °C.

    Args:
        humidity: relative, as a share, 0 to under 1.
        celsius: temperature of the air, °C.
    """
    t, h = celsius, humidity
    w = 349 + 1.29 * t + 0.0135 * t**2
    k = 0.805 + 0.000736 * t - 0.00000273 * t**2
    k1 = 6.27 - 0.00938 * t - 0.000303 * t**2
    k2 = 1.91 + 0.0407 * t - 0.000293 * t**2
    kh = k * h
    dissolved = kh / (1 - kh)
    bound = (k1 * kh + 2 * k1 * k2 * kh**2) / (1 + k1 * kh + k1 * k2 * kh**2)
    return 18 / w * (dissolved + bound)


def across_grain(wide_mm: float, coefficient: float, dry: float, damp: float) -> Calculation:
    """Return the sum of how much wider wood gets across its grain.

    Wood Handbook FPL-GTR-282 (2021), Eq. (13-2), fitted to moisture of 6 to 14 % and used a little
    beyond; `ΔD` is the result.

    Args:
        wide_mm: across the grain, at its driest.
        coefficient: change of that per percent of moisture, as a share (Table 13-5).
        dry: moisture at its driest, as a share of its dry weight.
        damp: at its dampest.
    """
    sums = Calculation()
    sums.given("D", wide_mm, "length", "across the grain")
    sums.given("C", coefficient * 100, "ratio", "change for each part of moisture")
    sums.given("M_d", dry, "percent", "moisture of the wood when the air is driest")
    sums.given("M_w", damp, "percent", "moisture when it is dampest")
    sums.then("ΔD", "D C (M_w − M_d)", "fine", "it gets wider by")
    return sums
