"""Who asks, and what they may ask: everything but the log-in says here which role it is for."""

from __future__ import annotations

from typing import cast

from django.contrib.auth.models import User
from django.http import HttpRequest
from ninja.security import SessionAuth

from server.common.fair import is_person
from server.common.problems import Forbidden


def person_of(request: HttpRequest) -> User:
    """Who is logged in; only for endpoints that demand it."""
    return cast(User, request.user)


class SignedIn(SessionAuth):
    """Anybody with an account."""

    def authenticate(self, request: HttpRequest, key: str | None) -> User | None:
        """The account; None, which answers 401, where nobody is logged in."""
        user = request.user
        if not isinstance(user, User) or not user.is_authenticated:
            return None
        is_person(request, f"user {user.pk}")
        return user


class _InRole(SignedIn):
    """Whose account has a role, and a password of their own."""

    def authenticate(self, request: HttpRequest, key: str | None) -> User | None:
        """The account. Raises Forbidden where it may not do this."""
        user = super().authenticate(request, key)
        person = getattr(user, "person", None)
        if user is None:
            return None
        if person is not None and person.one_time_until is not None:
            raise Forbidden("Choose a password of your own first: yours is a one-time word.", code="new-password")
        if person is None or not self.may(person):
            raise Forbidden(self.refusal, code="role")
        self.further(person)
        return user

    def further(self, person: object) -> None:
        """What else is asked of who has the role. Raises Forbidden."""

    refusal = ""

    def may(self, person: object) -> bool:
        """Whether the account has the role."""
        raise NotImplementedError


class Teaching(_InRole):
    """Who teaches: sheets, workings, and all that belongs to them."""

    refusal = "This account manages people and does not teach: sheets and workings are not for it."

    def may(self, person: object) -> bool:
        """Whether the account teaches."""
        return bool(getattr(person, "teaches", False))


class Managing(_InRole):
    """Who manages people."""

    refusal = "Only who manages people may do this."

    def may(self, person: object) -> bool:
        """Whether the account manages."""
        return bool(getattr(person, "manages", False))

    def further(self, person: object) -> None:
        """A second factor, where who manages has to have one."""
        if getattr(person, "lacks_second_factor", False):
            raise Forbidden("Set up a second factor on your account first.", code="second-factor")


signed_in, teaching, managing = SignedIn(), Teaching(), Managing()
