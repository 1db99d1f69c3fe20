"""Whom names are for."""

from __future__ import annotations

from dataclasses import asdict
from typing import Any

from drf_spectacular.utils import extend_schema
from rest_framework import serializers
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from vinetag.apps.accounts.api.person import person_of
from vinetag.apps.accounts.api.problems import ErrorSerializer
from vinetag.apps.accounts.models import User
from vinetag.apps.ordering.contacts import (
    contacts_of,
    drop_contact,
    drop_set,
    own_contact,
    own_set,
    person_of_contact,
    save_contact,
    save_set,
    sets_of,
)
from vinetag.apps.ordering.models import Contact, ContactSet
from vinetag.apps.ordering.sealing import SealError
from vinetag.core.ordering import COUNTRIES, IDENTIFIERS, ROLES, Person

__all__ = ["ContactFormView", "ContactView", "ContactsView", "SetView", "SetsView"]

REFUSALS = {400: ErrorSerializer, 409: ErrorSerializer}


class HolderSerializer(serializers.Serializer[Any]):
    """A person or an organisation; what is wrong with it is told by the rules, field by field."""

    kind = serializers.ChoiceField(choices=("person", "organisation"), default="person")
    name = serializers.CharField(default="", allow_blank=True, max_length=1000)
    organisation = serializers.CharField(default="", allow_blank=True, max_length=1000)
    street = serializers.CharField(default="", allow_blank=True, max_length=1000)
    street2 = serializers.CharField(default="", allow_blank=True, max_length=1000)
    city = serializers.CharField(default="", allow_blank=True, max_length=1000)
    region = serializers.CharField(default="", allow_blank=True, max_length=1000)
    postcode = serializers.CharField(default="", allow_blank=True, max_length=1000)
    country = serializers.CharField(default="", allow_blank=True, max_length=1000)
    phone = serializers.CharField(default="", allow_blank=True, max_length=1000)
    email = serializers.CharField(default="", allow_blank=True, max_length=1000)
    identifiers = serializers.DictField(
        child=serializers.CharField(allow_blank=True, max_length=100), default=dict
    )


class ContactSerializer(HolderSerializer):
    id = serializers.IntegerField()
    shown = serializers.CharField()
    readable = serializers.BooleanField(
        help_text="Whether it can be opened with the keys there are"
    )


class SetSerializer(serializers.Serializer[Any]):
    id = serializers.IntegerField()
    name = serializers.CharField()
    usual = serializers.BooleanField()
    registrant = serializers.IntegerField()
    admin = serializers.IntegerField(allow_null=True, help_text="None for whoever holds the name")
    tech = serializers.IntegerField(allow_null=True)
    billing = serializers.IntegerField(allow_null=True)


class ContactsSerializer(serializers.Serializer[Any]):
    contacts = ContactSerializer(many=True)
    sets = SetSerializer(many=True)
    everybody = serializers.BooleanField(help_text="Whether anybody can enter this workspace")


class SetChangeSerializer(serializers.Serializer[Any]):
    name = serializers.CharField(required=False, allow_blank=True, max_length=200)
    usual = serializers.BooleanField(required=False)
    registrant = serializers.IntegerField(required=False)
    admin = serializers.IntegerField(required=False, allow_null=True)
    tech = serializers.IntegerField(required=False, allow_null=True)
    billing = serializers.IntegerField(required=False, allow_null=True)


class CountrySerializer(serializers.Serializer[Any]):
    code = serializers.CharField()
    name = serializers.CharField()
    region = serializers.CharField()
    needs_region = serializers.BooleanField()
    postcode = serializers.CharField()
    needs_postcode = serializers.BooleanField()
    example = serializers.CharField(allow_blank=True)


class IdentifierSerializer(serializers.Serializer[Any]):
    code = serializers.CharField()
    name = serializers.CharField()
    example = serializers.CharField()


class ContactFormSerializer(serializers.Serializer[Any]):
    """What the form of a contact is made of."""

    countries = CountrySerializer(many=True)
    identifiers = IdentifierSerializer(many=True)


def _contact(row: Contact) -> dict[str, Any]:
    try:
        person = person_of_contact(row)
    except SealError:
        return {**asdict(Person()), "id": row.pk, "shown": "?", "readable": False}
    return {**asdict(person), "id": row.pk, "shown": person.shown, "readable": True}


def _set(row: ContactSet) -> dict[str, Any]:
    roles = {role: getattr(row, f"{role}_id") for role in ROLES}
    return {"id": row.pk, "name": row.name, "usual": row.usual, **roles}


def _all(person: User, status: int = 200) -> Response:
    document = {
        "contacts": [_contact(row) for row in contacts_of(person)],
        "sets": [_set(row) for row in sets_of(person)],
        "everybody": person.is_demo,
    }
    return Response(ContactsSerializer(document).data, status=status)


class ContactFormView(APIView):
    @extend_schema(operation_id="readContactForm", responses=ContactFormSerializer)
    def get(self, _request: Request) -> Response:
        document = {"countries": COUNTRIES.values(), "identifiers": IDENTIFIERS.values()}
        return Response(ContactFormSerializer(document).data)


class ContactsView(APIView):
    @extend_schema(operation_id="readContacts", responses=ContactsSerializer)
    def get(self, request: Request) -> Response:
        return _all(person_of(request))

    @extend_schema(
        operation_id="addContact",
        request=HolderSerializer,
        responses={201: ContactsSerializer, **REFUSALS},
    )
    def post(self, request: Request) -> Response:
        person = person_of(request)
        given = HolderSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        save_contact(person, given.validated_data)
        return _all(person, 201)


class ContactView(APIView):
    @extend_schema(
        operation_id="changeContact",
        request=HolderSerializer,
        responses={200: ContactsSerializer, **REFUSALS},
    )
    def put(self, request: Request, contact_id: int) -> Response:
        person = person_of(request)
        given = HolderSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        save_contact(person, given.validated_data, own_contact(person, contact_id))
        return _all(person)

    @extend_schema(operation_id="deleteContact", responses={200: ContactsSerializer})
    def delete(self, request: Request, contact_id: int) -> Response:
        person = person_of(request)
        drop_contact(own_contact(person, contact_id))
        return _all(person)


class SetsView(APIView):
    @extend_schema(
        operation_id="addContactSet",
        request=SetChangeSerializer,
        responses={201: ContactsSerializer, **REFUSALS},
    )
    def post(self, request: Request) -> Response:
        person = person_of(request)
        given = SetChangeSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        save_set(person, given.validated_data)
        return _all(person, 201)


class SetView(APIView):
    @extend_schema(
        operation_id="changeContactSet",
        request=SetChangeSerializer,
        responses={200: ContactsSerializer, **REFUSALS},
    )
    def patch(self, request: Request, set_id: int) -> Response:
        person = person_of(request)
        given = SetChangeSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        save_set(person, given.validated_data, own_set(person, set_id))
        return _all(person)

    @extend_schema(operation_id="deleteContactSet", responses={200: ContactsSerializer})
    def delete(self, request: Request, set_id: int) -> Response:
        person = person_of(request)
        drop_set(own_set(person, set_id))
        return _all(person)
