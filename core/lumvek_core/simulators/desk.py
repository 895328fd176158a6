"""A made-up supplier desk: prices, stock, and orders that are taken, taken in part or refused. It knows nothing of files or
lines.

What a shelf is said to hold and what it holds are two figures: an order may come back short.
"""

import datetime as dt
from dataclasses import dataclass, field
from typing import Any

from ..errors import BadInput


@dataclass(frozen=True)
class OnShelf:
    """price: of one piece, as text, so that no cent is lost. said, there: pieces the book shows, and pieces that are there.

    delay_days: how much later than asked for it comes, though it is there.
    """

    price: str
    said: int
    there: int | None = None
    pack: int = 1
    p_stock: float = 1.0
    restock_days: int | None = None
    delay_days: int = 0
    status: str = "supported"


@dataclass
class Desk:
    """shelves: supplier → number → what lies there. orders: what was answered, by the key of who ordered; given back as it
    was.
    """

    shelves: dict[str, dict[str, OnShelf]]
    orders: dict[str, dict[str, Any]] = field(default_factory=dict)

    def quote(self, supplier: str, numbers: list[str]) -> list[dict[str, Any]]:
        """Price and stock of the numbers this supplier has; others are left out. What was ordered meanwhile is gone from
        stock.
        """
        found = []
        for number in dict.fromkeys(numbers):
            if shelf := self.shelves.get(supplier, {}).get(number):
                left = max(0, shelf.said - self._taken(supplier, number))
                found.append(
                    {
                        "number": number,
                        "unit_price": shelf.price,
                        "pack": shelf.pack,
                        "stock": left,
                        "p_stock": shelf.p_stock,
                        "restock_days": shelf.restock_days,
                        "status": shelf.status,
                    }
                )
        return found

    def place(self, key: str, order: dict[str, Any]) -> dict[str, Any]:
        """Take an order, or give back what was answered to the same key.

        order: supplier, on (the day it is asked), wanted (the day it should be here), lines of number and quantity.
        """
        if key in self.orders:
            return self.orders[key]
        supplier, on = order["supplier"], dt.date.fromisoformat(order["on"])
        if supplier not in self.shelves:
            raise BadInput("supplier", "is not known at this desk")
        wanted_on = dt.date.fromisoformat(order["wanted"])
        lines = [self._line(supplier, on, wanted_on, one["number"], int(one["quantity"])) for one in order["lines"]]
        got, wanted = sum(one["accepted"] for one in lines), sum(one["quantity"] for one in lines)
        state = "accepted" if got == wanted else "short" if got or any(one["follows"] for one in lines) else "refused"
        answer = {"key": key, "supplier": supplier, "state": state, "reference": f"{len(self.orders) + 4101}", "lines": lines}
        self.orders[key] = answer
        return answer

    def drop_rest(self, key: str, number: str) -> dict[str, Any]:
        """Take back what would follow of one number. Asked twice, it is dropped once."""
        if key not in self.orders:
            raise BadInput("key", "is no order at this desk")
        for line in self.orders[key]["lines"]:
            if line["number"] == number:
                line["follows"], line["follows_on"] = 0, None
        return self.orders[key]

    def _line(self, supplier: str, on: dt.date, wanted: dt.date, number: str, quantity: int) -> dict[str, Any]:
        shelf = self.shelves[supplier].get(number)
        if shelf is None:
            nothing = {"accepted": 0, "promised": None, "follows": 0, "follows_on": None, "unit_price": "0"}
            return {"number": number, "quantity": quantity, **nothing}
        there = shelf.said if shelf.there is None else shelf.there
        accepted = min(quantity, max(0, there - self._taken(supplier, number)))
        follows = quantity - accepted if shelf.restock_days is not None else 0
        return {
            "number": number,
            "quantity": quantity,
            "accepted": accepted,
            "promised": (wanted + dt.timedelta(days=shelf.delay_days)).isoformat() if accepted else None,
            "follows": follows,
            "follows_on": (on + dt.timedelta(days=shelf.restock_days or 0)).isoformat() if follows else None,
            "unit_price": shelf.price,
        }

    def _taken(self, supplier: str, number: str) -> int:
        return sum(
            line["accepted"]
            for order in self.orders.values()
            if order["supplier"] == supplier
            for line in order["lines"]
            if line["number"] == number
        )
