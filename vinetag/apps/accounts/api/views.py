"""Signing up, in and out."""

from __future__ import annotations

import logging
from typing import Any

from django.conf import settings
from django.contrib.auth import authenticate, login, logout
from django.middleware.csrf import get_token
from drf_spectacular.utils import extend_schema
from rest_framework import serializers
from rest_framework.permissions import AllowAny, IsAuthenticated
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from vinetag.apps.accounts.api.person import person_of
from vinetag.apps.accounts.api.preferences import PreferencesSerializer
from vinetag.apps.accounts.api.problems import ErrorSerializer
from vinetag.apps.accounts.api.throttling import ByAddress
from vinetag.apps.accounts.errors import NotFoundError, RefusedError
from vinetag.apps.accounts.guarding import note_success, try_to_sign_in
from vinetag.apps.accounts.preferences import preferences_of
from vinetag.apps.accounts.services import (
    change_password,
    demo_user,
    end_sessions,
    leave,
    sign_up,
)
from vinetag.core.errors import Problem

__all__ = [
    "EndSessionsView", "EnterDemoView", "LeaveView", "PasswordView", "SessionView", "SignInView",
    "SignOutView", "SignUpView",
]  # fmt: skip


log = logging.getLogger("vinetag.security")


class PersonSerializer(serializers.Serializer[Any]):
    username = serializers.CharField()
    demo = serializers.BooleanField(help_text="It is the demo's account, which has no password")
    preferences = PreferencesSerializer()


class SessionSerializer(serializers.Serializer[Any]):
    person = PersonSerializer(allow_null=True)
    demo = serializers.BooleanField(help_text="Whether the demo workspace can be entered")


class CredentialsSerializer(serializers.Serializer[Any]):
    username = serializers.CharField(max_length=150)
    password = serializers.CharField(max_length=256, trim_whitespace=False)


class NewPasswordSerializer(serializers.Serializer[Any]):
    password = serializers.CharField(max_length=256, trim_whitespace=False)
    new = serializers.CharField(max_length=256, trim_whitespace=False)


class PasswordSerializer(serializers.Serializer[Any]):
    password = serializers.CharField(max_length=256, trim_whitespace=False)


REFUSALS = {400: ErrorSerializer, 409: ErrorSerializer}


class OpenView(APIView):
    """A view for visitors."""

    permission_classes = [AllowAny]

    def session(self, request: Request) -> Response:
        user = request._request.user
        get_token(request._request)
        person = None
        if user.is_authenticated:
            person = {
                "username": user.get_username(),
                "demo": user.is_demo,
                "preferences": preferences_of(user),
            }
        return Response({"person": person, "demo": settings.DEMO_MODE})


class SessionView(OpenView):
    @extend_schema(operation_id="session", responses=SessionSerializer)
    def get(self, request: Request) -> Response:
        return self.session(request)


class SignUpView(OpenView):
    throttle_classes = [ByAddress]
    throttle_scope = "sign-up"

    @extend_schema(
        operation_id="signUp",
        request=CredentialsSerializer,
        responses={200: SessionSerializer, 400: ErrorSerializer},
    )
    def post(self, request: Request) -> Response:
        given = CredentialsSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        user = sign_up(**given.validated_data)
        login(request._request, user)
        return self.session(request)


class SignInView(OpenView):
    throttle_classes = [ByAddress]
    throttle_scope = "sign-in"

    @extend_schema(
        operation_id="signIn",
        request=CredentialsSerializer,
        responses={200: SessionSerializer, 400: ErrorSerializer},
    )
    def post(self, request: Request) -> Response:
        given = CredentialsSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        name, address = given.validated_data["username"], request.META.get("REMOTE_ADDR", "")
        try_to_sign_in(name, address)
        user = authenticate(request._request, **given.validated_data)
        if user is None:
            log.warning("a wrong password was given for %r from %s", name[:60], address)
            raise RefusedError([Problem("password", "no_match")])
        note_success(name, address)
        log.info("%r signed in from %s", name, address)
        login(request._request, user)
        return self.session(request)


class SignOutView(OpenView):
    @extend_schema(operation_id="signOut", request=None, responses=SessionSerializer)
    def post(self, request: Request) -> Response:
        logout(request._request)
        return self.session(request)


class EnterDemoView(OpenView):
    throttle_classes = [ByAddress]
    throttle_scope = "demo"

    @extend_schema(
        operation_id="enterDemo",
        request=None,
        responses={200: SessionSerializer, 404: ErrorSerializer},
    )
    def post(self, request: Request) -> Response:
        if not settings.DEMO_MODE:
            raise NotFoundError
        login(request._request, demo_user(), backend=settings.AUTHENTICATION_BACKENDS[0])
        return self.session(request)


class PasswordView(OpenView):
    permission_classes = [IsAuthenticated]
    throttle_classes = [ByAddress]
    throttle_scope = "sign-in"

    @extend_schema(
        operation_id="changePassword",
        request=NewPasswordSerializer,
        responses={200: SessionSerializer, **REFUSALS},
    )
    def post(self, request: Request) -> Response:
        given = NewPasswordSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        change_password(user=person_of(request), **given.validated_data)
        login(request._request, person_of(request), backend=settings.AUTHENTICATION_BACKENDS[0])
        return self.session(request)


class EndSessionsView(OpenView):
    permission_classes = [IsAuthenticated]

    @extend_schema(
        operation_id="endSessions",
        request=None,
        responses={200: SessionSerializer, 409: ErrorSerializer},
    )
    def post(self, request: Request) -> Response:
        end_sessions(person_of(request))
        logout(request._request)
        return self.session(request)


class LeaveView(OpenView):
    permission_classes = [IsAuthenticated]
    throttle_classes = [ByAddress]
    throttle_scope = "sign-in"

    @extend_schema(
        operation_id="leave",
        request=PasswordSerializer,
        responses={200: SessionSerializer, **REFUSALS},
    )
    def post(self, request: Request) -> Response:
        given = PasswordSerializer(data=request.data)
        given.is_valid(raise_exception=True)
        leave(user=person_of(request), **given.validated_data)
        logout(request._request)
        return self.session(request)
