"""Making accounts, changing and leaving them, and the demo's."""

from __future__ import annotations

import logging
import uuid

from django.contrib.auth import password_validation
from django.contrib.auth.validators import UnicodeUsernameValidator
from django.core.exceptions import ValidationError
from django.db import IntegrityError, transaction
from django.utils import timezone

from vinetag.apps.accounts.errors import ConflictError, RefusedError
from vinetag.apps.accounts.models import User
from vinetag.core.errors import Problem

__all__ = [
    "DEMO_USERNAME", "change_password", "demo_user", "end_sessions", "leave", "sign_up",
]  # fmt: skip

DEMO_USERNAME = "demo"
LONGEST = 60

log = logging.getLogger("vinetag.security")


def sign_up(*, username: str, password: str) -> User:
    """Make an account. Raises RefusedError with a problem at `username` or `password`."""
    problems: list[Problem] = []
    user = User(username=username)
    try:
        UnicodeUsernameValidator()(username)
    except ValidationError:
        problems.append(Problem("username", "username_characters"))
    if len(username) > LONGEST:
        args = {"limit": LONGEST, "length": len(username)}
        problems.append(Problem("username", "too_long", args))
    if username.casefold() == DEMO_USERNAME:
        problems.append(Problem("username", "username_taken"))
    problems += _weak(password, user)
    if problems:
        raise RefusedError(problems)
    user.set_password(password)
    try:
        with transaction.atomic():
            user.save()
    except IntegrityError as error:
        raise RefusedError([Problem("username", "username_taken")]) from error
    log.info("an account was made: %r", username)
    return user


def _weak(password: str, user: User) -> list[Problem]:
    try:
        password_validation.validate_password(password, user)
    except ValidationError as error:
        return [Problem("password", "password", {"why": m}) for m in error.messages]
    return []


def _own(user: User, password: str) -> None:
    """Raises ConflictError for the demo's account, RefusedError when it is not the password."""
    if user.is_demo:
        raise ConflictError("demo", "The demo workspace is everybody's: it has no password.")
    if not user.check_password(password):
        log.warning("a wrong password was given for a change of account %r", user.username)
        raise RefusedError([Problem("password", "wrong_password")])


def change_password(*, user: User, password: str, new: str) -> None:
    """Another password; all sessions end. Raises RefusedError or ConflictError."""
    _own(user, password)
    if problems := [Problem("new", p.code, p.args) for p in _weak(new, user)]:
        raise RefusedError(problems)
    user.set_password(new)
    user.round += 1
    user.save(update_fields=["password", "round"])
    log.info("the password of %r was changed", user.username)


def end_sessions(user: User) -> None:
    """All sessions of the person end, wherever they are. Raises ConflictError for the demo's."""
    if user.is_demo:
        raise ConflictError("demo", "The demo workspace is everybody's: others are at work in it.")
    user.round += 1
    user.save(update_fields=["round"])
    log.info("all sessions of %r were ended", user.username)


def leave(*, user: User, password: str) -> None:
    """Give the account up: nobody can sign in to it from now on, its name is free, and all that is
    in it is deleted by the schedule. Raises RefusedError or ConflictError.
    """
    _own(user, password)
    log.info("account %r was given up", user.username)
    user.username = f"left-{uuid.uuid4().hex}"
    user.is_active, user.left_at = False, timezone.now()
    user.round += 1
    user.set_unusable_password()
    user.save()


def demo_user() -> User:
    """The account of the demo workspace, made on first use; it has no usable password. It is known
    by its mark, for its name may have been somebody's.
    """
    user = User.objects.filter(is_demo=True).order_by("pk").first()
    if user is None:
        free = DEMO_USERNAME
        if User.objects.filter(username=free).exists():
            free = f"{DEMO_USERNAME}-{uuid.uuid4().hex[:8]}"
        user = User(username=free, is_demo=True)
        user.set_unusable_password()
        user.save()
    return user
