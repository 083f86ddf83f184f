"""Where a request comes from: its own address, or what a trusted proxy says of it."""

from __future__ import annotations

from functools import lru_cache
from ipaddress import IPv4Address, IPv4Network, IPv6Address, IPv6Network, ip_address, ip_network

from django.conf import settings
from django.http import HttpRequest

Address = IPv4Address | IPv6Address
NOWHERE = "0.0.0.0"
"""Stands for an address that is not known."""


@lru_cache(maxsize=8)
def _trusted(listed: str) -> tuple[IPv4Network | IPv6Network, ...]:
    return tuple(ip_network(each.strip(), strict=False) for each in listed.split(",") if each.strip())


def _read(text: str) -> Address | None:
    try:
        found = ip_address(text.strip().strip("[]"))
    except ValueError:
        return None
    return found.ipv4_mapped or found if isinstance(found, IPv6Address) else found


def address_of(request: HttpRequest) -> str:
    """The address that a request comes from. Proxies that are trusted (UCHUU_PROXIES) say it in `X-Forwarded-For`, read
    from its end: the first that is no trusted proxy. What anybody else says there is not believed."""
    trusted = _trusted(settings.PROXIES)
    found = _read(str(request.META.get("REMOTE_ADDR", "")))
    if found is None:
        return NOWHERE
    for told in reversed(request.headers.get("X-Forwarded-For", "").split(",")):
        if not any(found in each for each in trusted):
            break
        before = _read(told)
        if before is None:
            break
        found = before
    return str(found)


def network_of(request: HttpRequest) -> str:
    """The network of that address, by one of its addresses: of IPv6 a household or school has 2⁶⁴, which count as
    one."""
    found = ip_address(address_of(request))
    if isinstance(found, IPv6Address):
        return str(ip_network((found, 64), strict=False).network_address)
    return str(found)
