"""How an account is read at every request."""

from __future__ import annotations

from django.contrib.auth.backends import ModelBackend
from django.contrib.auth.models import User


class AccountBackend(ModelBackend):
    """Names and passwords as Django keeps them; the account comes with what it may do, in one query."""

    def get_user(self, user_id: int) -> User | None:
        """The account of a session; None where there is none or it is switched off."""
        user = User.objects.select_related("person").filter(pk=user_id).first()
        return user if user is not None and self.user_can_authenticate(user) else None
