"""Whose a name in our account with a seller is. The account is the installation's, with everybody's
names in it: that one is there says nothing about who may change it.
"""

from __future__ import annotations

import hmac

from vinetag.apps.ordering.models import OrderName
from vinetag.apps.ordering.work import auth_of
from vinetag.apps.owning.models import OwnedName
from vinetag.lookup.epp import Seen

__all__ = ["is_theirs"]


def is_theirs(row: OwnedName, seen: Seen) -> bool:
    """Whether what a seller's gateway says of a name is of the owner's own registration: by the
    word that follows from the order it came, or was moved here, from. What nobody ordered here is
    the installation's, and so its administrators'.
    """
    if seen.whose != "ours":
        return False
    orders = OrderName.objects.filter(
        label=row.label, extension=row.extension, action__in=("register", "move"),
        state="registered",
        order__seller=row.seller,
    ).values_list("trid", "order__owner")  # fmt: skip
    for trid, owner in orders:
        if hmac.compare_digest(seen.auth, auth_of(trid)):
            return bool(owner == row.owner_id)
    return row.owner.is_staff
