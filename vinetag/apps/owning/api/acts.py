"""What is done with names one owns: asking, renewing, changing, letting go."""

from __future__ import annotations

from typing import Any

from drf_spectacular.utils import extend_schema
from rest_framework import serializers
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from vinetag.apps.accounts.api.person import person_of
from vinetag.apps.accounts.api.problems import ErrorSerializer
from vinetag.apps.accounts.errors import ConflictError, NotFoundError
from vinetag.apps.costs.listing import usual_currency
from vinetag.apps.owning.api.moves import (
    CodeSerializer,
    LeavingSerializer,
    MoveSerializer,
    MoveWishSerializer,
    MovingSerializer,
    move_document,
    trap_documents,
)
from vinetag.apps.owning.api.serializers import (
    IdsSerializer,
    OwnedChangedSerializer,
    RenewalSerializer,
    RenewingSerializer,
    RenewSerializer,
    renewal_document,
)
from vinetag.apps.owning.asking import ask_now, find_at_sellers, take_over
from vinetag.apps.owning.changing import (
    Changed,
    keys_of,
    let_go,
    set_keys,
    set_lock,
    set_servers,
)
from vinetag.apps.owning.keeping import own_names
from vinetag.apps.owning.models import OwnedName
from vinetag.apps.owning.moving import code_to_leave, decide_leaving, move_of, order_move
from vinetag.apps.owning.renewing import order_renewal, renewal_of

__all__ = [
    "AskView", "CodeView", "FindView", "KeysView", "LeavingView", "LetGoView", "LockView",
    "MoveView", "MovingView", "RenewView", "RenewingView", "ServersView", "TakeOverView",
]  # fmt: skip

REFUSALS = {400: ErrorSerializer, 409: ErrorSerializer}
MOST_ASKED = 100
MOST_FOUND = 500


class AskedSerializer(serializers.Serializer[Any]):
    count = serializers.IntegerField()


class FoundSerializer(AskedSerializer):
    unsure = serializers.IntegerField(help_text="Not looked for everywhere")


class OrderedSerializer(serializers.Serializer[Any]):
    orders = serializers.ListField(child=serializers.IntegerField())


class ServersSerializer(IdsSerializer):
    servers = serializers.ListField(child=serializers.CharField(max_length=300, allow_blank=True))


class LockSerializer(IdsSerializer):
    locked = serializers.BooleanField()


class KeysSerializer(serializers.Serializer[Any]):
    keys = serializers.ListField(
        child=serializers.CharField(max_length=400, allow_blank=True), max_length=50,
        help_text="Tag, algorithm, kind of digest and digest of each (DS)",
    )  # fmt: skip


class LetGoSerializer(serializers.Serializer[Any]):
    typed = serializers.CharField(max_length=300, help_text="Its full name, once more")


def _given(request: Request, kind: type[Any]) -> tuple[list[OwnedName], dict[str, Any]]:
    given = kind(data=request.data)
    given.is_valid(raise_exception=True)
    part = dict(given.validated_data)
    return own_names(person_of(request), part.pop("ids")), part


def _changed(changed: Changed) -> Response:
    failed = [{"full_name": name, "why": why} for name, why in changed.failed]
    return Response(OwnedChangedSerializer({"count": changed.count, "failed": failed}).data)


class AskView(APIView):
    @extend_schema(
        operation_id="askOwned", request=IdsSerializer, responses={200: AskedSerializer, **REFUSALS}
    )
    def post(self, request: Request) -> Response:
        rows, _ = _given(request, IdsSerializer)
        if len(rows) > MOST_ASKED:
            message = f"At most {MOST_ASKED} names are asked about at once."
            raise ConflictError("too_many", message)
        return Response(AskedSerializer({"count": ask_now(rows)}).data)


class FindView(APIView):
    @extend_schema(
        operation_id="findOwned",
        request=IdsSerializer,
        responses={200: FoundSerializer, **REFUSALS},
    )
    def post(self, request: Request) -> Response:
        rows, _ = _given(request, IdsSerializer)
        if len(rows) > MOST_FOUND:
            message = f"At most {MOST_FOUND} names are looked for at once."
            raise ConflictError("too_many", message)
        count, unsure = find_at_sellers(rows)
        return Response(FoundSerializer({"count": count, "unsure": unsure}).data)


class TakeOverView(APIView):
    @extend_schema(
        operation_id="takeOwnedOver", request=IdsSerializer, responses={200: AskedSerializer}
    )
    def post(self, request: Request) -> Response:
        rows, _ = _given(request, IdsSerializer)
        return Response(AskedSerializer({"count": take_over(rows)}).data)


class RenewingView(APIView):
    @extend_schema(
        operation_id="readRenewal",
        request=RenewingSerializer,
        responses={200: RenewalSerializer, **REFUSALS},
    )
    def post(self, request: Request) -> Response:
        person = person_of(request)
        rows, part = _given(request, RenewingSerializer)
        document = renewal_document(renewal_of(person, rows, **part), usual_currency(person))
        return Response(RenewalSerializer(document).data)


class RenewView(APIView):
    @extend_schema(
        operation_id="renewOwned",
        request=RenewSerializer,
        responses={201: OrderedSerializer, **REFUSALS},
    )
    def post(self, request: Request) -> Response:
        person = person_of(request)
        rows, part = _given(request, RenewSerializer)
        sign = part.pop("sign")
        renewal = renewal_of(person, rows, **part)
        if renewal.sign != sign:
            message = "It costs otherwise by now. Look at it again."
            raise ConflictError("changed_elsewhere", message)
        orders = [order.pk for order in order_renewal(person, renewal)]
        return Response(OrderedSerializer({"orders": orders}).data, status=201)


class ServersView(APIView):
    @extend_schema(
        operation_id="setOwnedServers",
        request=ServersSerializer,
        responses={200: OwnedChangedSerializer, **REFUSALS},
    )
    def post(self, request: Request) -> Response:
        rows, part = _given(request, ServersSerializer)
        return _changed(set_servers(rows, **part))


class LockView(APIView):
    @extend_schema(
        operation_id="setOwnedLock",
        request=LockSerializer,
        responses={200: OwnedChangedSerializer, **REFUSALS},
    )
    def post(self, request: Request) -> Response:
        rows, part = _given(request, LockSerializer)
        return _changed(set_lock(rows, **part))


class MovingView(APIView):
    @extend_schema(
        operation_id="readMove",
        request=MovingSerializer,
        responses={200: MoveSerializer, **REFUSALS},
    )
    def post(self, request: Request, owned_id: int) -> Response:
        row, part = _one(request, owned_id, MovingSerializer)
        move = move_of(person_of(request), row, **part)
        return Response(MoveSerializer(move_document(move)).data)


class MoveView(APIView):
    @extend_schema(
        operation_id="moveOwned",
        request=MoveWishSerializer,
        responses={201: OrderedSerializer, **REFUSALS},
    )
    def post(self, request: Request, owned_id: int) -> Response:
        row, part = _one(request, owned_id, MoveWishSerializer)
        person, sign = person_of(request), part.pop("sign")
        move = move_of(person, row, **part)
        if move.sign != sign:
            message = "It costs otherwise by now. Look at it again."
            raise ConflictError("changed_elsewhere", message)
        return Response(OrderedSerializer({"orders": [order_move(person, move).pk]}).data, 201)


class CodeView(APIView):
    @extend_schema(
        operation_id="readOwnedCode", request=None, responses={200: CodeSerializer, **REFUSALS}
    )
    def post(self, request: Request, owned_id: int) -> Response:
        row, _ = _one(request, owned_id)
        code, traps = code_to_leave(row)
        document = {"code": code, "traps": trap_documents(traps)}
        return Response(CodeSerializer(document).data)


class KeysView(APIView):
    @extend_schema(operation_id="readOwnedKeys", responses={200: KeysSerializer, **REFUSALS})
    def get(self, request: Request, owned_id: int) -> Response:
        row, _ = _one(request, owned_id)
        return Response(KeysSerializer({"keys": keys_of(row)}).data)

    @extend_schema(
        operation_id="setOwnedKeys",
        request=KeysSerializer,
        responses={200: OwnedChangedSerializer, **REFUSALS},
    )
    def put(self, request: Request, owned_id: int) -> Response:
        row, part = _one(request, owned_id, KeysSerializer)
        return _changed(set_keys(row, part["keys"]))


class LeavingView(APIView):
    @extend_schema(
        operation_id="decideOwnedLeaving",
        request=LeavingSerializer,
        responses={200: OwnedChangedSerializer, **REFUSALS},
    )
    def post(self, request: Request, owned_id: int) -> Response:
        row, part = _one(request, owned_id, LeavingSerializer)
        why = decide_leaving(row, **part)
        failed = [(str(row.name), why)] if why else []
        return _changed(Changed(0 if why else 1, failed))


def _one(
    request: Request, owned_id: int, kind: type[Any] | None = None
) -> tuple[OwnedName, dict[str, Any]]:
    rows = own_names(person_of(request), [owned_id])
    if not rows:
        raise NotFoundError
    if kind is None:
        return rows[0], {}
    given = kind(data=request.data)
    given.is_valid(raise_exception=True)
    return rows[0], dict(given.validated_data)


class LetGoView(APIView):
    @extend_schema(
        operation_id="letOwnedGo",
        request=LetGoSerializer,
        responses={200: OwnedChangedSerializer, **REFUSALS},
    )
    def post(self, request: Request, owned_id: int) -> Response:
        row, part = _one(request, owned_id, LetGoSerializer)
        return _changed(let_go(row, part["typed"]))
