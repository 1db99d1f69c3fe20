"""Making accounts, and the demo's."""

from __future__ import annotations

from django.contrib.auth import password_validation
from django.contrib.auth.validators import UnicodeUsernameValidator
from django.core.exceptions import ValidationError
from django.db import IntegrityError, transaction

from vinetag.apps.accounts.errors import RefusedError
from vinetag.apps.accounts.models import User
from vinetag.core.errors import Problem

__all__ = ["DEMO_USERNAME", "demo_user", "sign_up"]

DEMO_USERNAME = "demo"


def sign_up(*, username: str, password: str) -> User:
    """Make an account. Raises RefusedError with a problem at `username` or `password`."""
    problems: list[Problem] = []
    user = User(username=username)
    try:
        UnicodeUsernameValidator()(username)
    except ValidationError:
        problems.append(Problem("username", "username_characters"))
    if len(username) > 60:
        problems.append(Problem("username", "too_long", {"limit": 60, "length": len(username)}))
    try:
        password_validation.validate_password(password, user)
    except ValidationError as error:
        problems += [Problem("password", "password", {"why": m}) for m in error.messages]
    if problems:
        raise RefusedError(problems)
    user.set_password(password)
    try:
        with transaction.atomic():
            user.save()
    except IntegrityError as error:
        raise RefusedError([Problem("username", "username_taken")]) from error
    return user


def demo_user() -> User:
    """The account of the demo workspace, made on first use; it has no usable password."""
    user, made = User.objects.get_or_create(username=DEMO_USERNAME)
    if made:
        user.set_unusable_password()
        user.save(update_fields=["password"])
    return user
