"""What the three made-up suppliers have: prices, stock as their books say and as it is, and how sure that is."""

from typing import Any

from lumvek_core.simulators.desk import OnShelf

BRIDGE, NORTHMERE, HARROW = "bridge-street", "northmere", "harrow"

# number: (Bridge Street price, stock, chance) or None, (Northmere price, stock, restock days) or None, Harrow price or None
_GOODS: dict[str, tuple[tuple[str, int, float] | None, tuple[str, int, int] | None, str | None]] = {
    "D12-4001": (("54.20", 2, 0.6), ("48.90", 24, 9), "51.00"),
    "D12-4001H": (None, ("66.40", 12, 14), None),
    "D12-4009": (("21.80", 4, 0.7), ("19.40", 40, 5), "20.10"),
    "D12-4018": (None, ("14.30", 60, 9), "15.20"),
    "D12-4022": (("71.50", 1, 0.5), ("66.00", 18, 9), None),
    "D12-4031L": (None, ("17.60", 20, 9), "18.40"),
    "D12-4031R": (None, ("17.60", 20, 9), "18.40"),
    "D12-4105": (None, ("29.80", 30, 9), "31.50"),
    "D12-4410": (None, ("88.00", 6, 14), "92.50"),
    "D12-4411": (None, ("12.40", 24, 9), "11.90"),
    "C9-2000": (None, ("23.70", 16, 9), "24.90"),
    "C9-2028L": (None, ("9.80", 10, 9), "9.20"),
    "C9-2028R": (None, ("9.80", 10, 9), "9.20"),
    "TH-2000": (None, ("812.00", 2, 21), None),
    "TH-2007": (None, ("264.00", 3, 21), None),
    "TH-2021": (None, ("236.00", 2, 14), None),
    "TH-2049": (None, ("118.00", 8, 14), None),
    "TH-2056": (None, ("384.00", 2, 14), None),
    "TH-2196": (("171.00", 1, 0.6), ("158.00", 4, 9), None),
    "TH-2084": (("6.40", 30, 0.9), ("5.80", 200, 5), "5.90"),
    "TH-2147": (("96.00", 2, 1), ("89.50", 5, 9), "91.00"),
    "TH-2168": (("3.20", 10, 0.9), ("2.90", 60, 5), "2.80"),
    "TH-2259": (None, ("142.00", 4, 14), "149.00"),
    "TH-2322": (("58.00", 1, 0.8), ("52.60", 9, 9), "54.00"),
    "TH-2329": (None, ("94.00", 4, 14), None),
    "TH-2392": (("18.90", 2, 0.8), ("17.20", 14, 9), "17.90"),
    "TH-2413": (None, ("38.60", 60, 9), "40.00"),
    "TH-2483": (("134.00", 1, 0.5), ("128.00", 3, 14), None),
    "LW-2154": (None, ("4.60", 200, 5), "3.90"),
    "LW-2035": (None, ("2.10", 300, 5), "1.80"),
    "LS-2042": (None, ("24.10", 40, 5), "22.60"),
    "LS-2049": (None, ("3.40", 80, 5), "2.90"),
    "RING-OIL-90": (("7.90", 60, 1), ("6.80", 400, 5), None),
    "RING-GR-2": (("5.60", 40, 1), ("4.90", 200, 5), "5.20"),
    "RING-AS-1": (("11.40", 6, 0.9), ("10.20", 30, 5), "9.90"),
    "RING-TIE-3": (("6.10", 12, 1), ("5.40", 50, 5), "5.10"),
}
_THERE = {(NORTHMERE, "D12-4001"): 2}
"""Where the shelf holds otherwise than the book says: there orders come back short."""
_UNSURE = {"TH-2147": 0.85, "TH-2322": 0.95, "TH-2259": 0.97}
"""Where the far store's book is not to be relied on either."""
_LATE = {"TH-2000": 2}
"""Days that the far store sends it later than asked for."""
_PACKS = {"D12-4001": 2, "D12-4001H": 2, "TH-2049": 2}
_SCARCE = {"TH-2259"}


def _shelves() -> dict[str, dict[str, OnShelf]]:
    found: dict[str, dict[str, OnShelf]] = {BRIDGE: {}, NORTHMERE: {}, HARROW: {}}
    for number, (near, far, post) in _GOODS.items():
        common: dict[str, Any] = {"pack": _PACKS.get(number, 1), "status": "scarce" if number in _SCARCE else "supported"}
        if near:
            price, said, sure = near
            found[BRIDGE][number] = OnShelf(price, said, _THERE.get((BRIDGE, number)), p_stock=sure, **common)
        if far:
            price, said, restock = far
            found[NORTHMERE][number] = OnShelf(
                price,
                said,
                _THERE.get((NORTHMERE, number)),
                p_stock=_UNSURE.get(number, 1.0),
                restock_days=restock,
                delay_days=_LATE.get(number, 0),
                **common,
            )
        if post:
            found[HARROW][number] = OnShelf(post, 20, restock_days=10, **common)
    return found


SHELVES = _shelves()
