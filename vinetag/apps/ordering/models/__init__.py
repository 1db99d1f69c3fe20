"""What is to be bought, whom it is for, what was ordered and paid, and what one owns."""

from vinetag.apps.ordering.models.basket import BasketItem
from vinetag.apps.ordering.models.orders import (
    Entry,
    Errand,
    GatewayNotice,
    Order,
    OrderName,
    Payment,
    Receipt,
)
from vinetag.apps.ordering.models.people import Contact, ContactSet

__all__ = [
    "BasketItem", "Contact", "ContactSet", "Entry", "Errand", "GatewayNotice", "Order", "OrderName",
    "Payment", "Receipt",
]  # fmt: skip
