"""A second factor for who wishes, or who has to: six digits from an app on a telephone (TOTP, RFC 6238), by
django-otp."""

from __future__ import annotations

import base64
from collections.abc import Callable
from dataclasses import dataclass

import segno
from django.contrib.auth.models import User
from django.db import transaction
from django_otp import verify_token
from django_otp.plugins.otp_totp.models import TOTPDevice

from server.accounts import people
from server.common.problems import Refused

_verified: Callable[[User, str, str], object] = verify_token
"""The device that took the digits, or None; each set of digits is taken once, and wrong ones are slowed."""


@dataclass(frozen=True, slots=True)
class Offered:
    """A second factor that is yet to be confirmed: its key as it is typed, its address, and that as a square code (rows
    of 0 and 1)."""

    key: str
    address: str
    code: tuple[str, ...]


def device_of(user: User) -> TOTPDevice | None:
    """The second factor of an account, where it has one."""
    return TOTPDevice.objects.filter(user=user, confirmed=True).first()


def holders() -> set[int]:
    """The accounts that have a second factor."""
    return set(TOTPDevice.objects.filter(confirmed=True).values_list("user", flat=True))


def offer(user: User) -> Offered:
    """A new second factor; it counts once its digits have been given back. Raises Refused where there is one."""
    if device_of(user) is not None:
        raise Refused("You have a second factor already. Take it away first.", code="second-factor")
    with transaction.atomic():
        TOTPDevice.objects.filter(user=user, confirmed=False).delete()
        made = TOTPDevice.objects.create(user=user, name="telephone", confirmed=False)
    address = made.config_url
    rows = tuple("".join(map(str, row)) for row in segno.make_qr(address, error="m").matrix)
    return Offered(base64.b32encode(made.bin_key).decode().rstrip("="), address, rows)


def confirm(user: User, digits: str) -> None:
    """The second factor that was offered counts from now on. Raises Refused for digits that are not those of it."""
    with transaction.atomic():
        offered = TOTPDevice.objects.select_for_update().filter(user=user, confirmed=False).first()
        if offered is None:
            raise Refused("Begin once more: no second factor waits to be confirmed.", code="second-factor")
        right = offered.verify_is_allowed()[0] and offered.verify_token(_digits(digits))
        if right:
            offered.confirmed = True
            offered.save()
            people.note(user.username, "second factor set up")
    if not right:
        raise Refused("These are not the digits that are shown now. Try the next ones.", code="digits")


def check(user: User, digits: str) -> None:
    """Raises Refused where an account has a second factor and these are not its digits."""
    device = device_of(user)
    if device is None:
        return
    if not digits.strip():
        raise Refused("Type the six digits that your app shows for Uchuu.", code="second-factor")
    if _verified(user, device.persistent_id, _digits(digits)) is None:
        raise Refused("These are not the digits that are shown now. Wait for the next ones.", code="digits")


def take_away(user: User, *, by: str) -> None:
    """An account has no second factor any more."""
    if TOTPDevice.objects.filter(user=user, confirmed=True).exists():
        people.note(by, "second factor taken away", user.username)
    TOTPDevice.objects.filter(user=user).delete()


def _digits(text: str) -> str:
    return "".join(text.split())
