"""Getting in: what a hash costs and how many are made at once, where a name is locked, second factors, proxies."""

from concurrent.futures import ThreadPoolExecutor
from threading import Event
from types import SimpleNamespace

import pytest
from axes.models import AccessAttempt
from django.contrib.auth.hashers import Argon2PasswordHasher, identify_hasher
from django.contrib.auth.models import User
from django.core.management import call_command
from django.db import connection
from django.test import RequestFactory
from django_otp.oath import totp
from django_otp.plugins.otp_totp.models import TOTPDevice

from server.accounts import people, services
from server.accounts.models import Happening
from server.common import hashing
from server.common.addresses import address_of, network_of
from server.common.problems import TooMany
from server.config import settings as served
from tests.server.conftest import Api, make_teacher


class TestHashes:
    @pytest.fixture(autouse=True)
    def real(self, settings):
        """As it runs for users: other tests hash quickly."""
        settings.PASSWORD_HASHERS = served.PASSWORD_HASHERS

    @pytest.mark.django_db
    def test_a_hash_is_small_and_an_older_one_is_made_anew_at_the_next_log_in(self):
        old = Argon2PasswordHasher()
        old.memory_cost, old.time_cost = 102_400, 2
        teacher = make_teacher("maren")
        User.objects.filter(pk=teacher.pk).update(password=old.encode("lantern-quay", "saltsaltsalt"))
        assert Api().log_in("maren", "wrong").status_code == 400
        assert "m=102400" in User.objects.get().password
        assert Api().log_in("maren").status_code == 200
        kept = User.objects.get().password
        assert kept.startswith("argon2$argon2id$") and "m=19456,t=2,p=1" in kept
        assert not identify_hasher(kept).must_update(kept)

    def test_so_many_at_once_and_no_more_wait_than_there_is_room(self, monkeypatch):
        monkeypatch.setattr(hashing, "MOST_WAITING", 1)
        monkeypatch.setattr(hashing, "LONGEST_WAIT", 20)
        inside, go_on = [], Event()

        def hashed(number):
            with hashing.turn():
                inside.append(number)
                go_on.wait(20)

        with ThreadPoolExecutor(4) as pool:
            busy = [pool.submit(hashed, k) for k in range(hashing.AT_ONCE)]
            while len(inside) < hashing.AT_ONCE:
                pass
            waiting = pool.submit(hashed, 9)
            while hashing._waiting < 1:
                pass
            with pytest.raises(TooMany), hashing.turn():
                pass
            assert len(inside) == hashing.AT_ONCE
            go_on.set()
            for each in (*busy, waiting):
                each.result()
        assert (len(inside), hashing._waiting) == (hashing.AT_ONCE + 1, 0)

    def test_who_waits_too_long_is_told(self, monkeypatch):
        monkeypatch.setattr(hashing, "LONGEST_WAIT", 0.01)
        monkeypatch.setattr(hashing, "_turns", SimpleNamespace(acquire=lambda timeout: False))
        with pytest.raises(TooMany, match="Very many"), hashing.turn():
            pass
        assert hashing._waiting == 0

    @pytest.mark.django_db(transaction=True)
    def test_who_waits_holds_no_connection(self):
        User.objects.exists()
        assert connection.connection is not None
        with hashing.turn():
            assert connection.connection is None

    @pytest.mark.django_db(transaction=True)
    def test_sixty_who_log_in_at_once_are_all_in(self):
        make_teacher("maren")
        clients = [Api() for _ in range(60)]

        def log_in(api):
            try:
                return api.log_in("maren").status_code
            finally:
                connection.close()

        with ThreadPoolExecutor(60) as pool:
            assert set(pool.map(log_in, clients)) == {200}


def guess(api, count=11, name="odo"):
    return [api.log_in(name, f"guess-{n}").status_code for n in range(count)]


def at(address):
    """A browser that comes from this address."""
    api = Api()
    api.client.defaults["REMOTE_ADDR"] = address
    return api


@pytest.mark.django_db
class TestLocks:
    @pytest.fixture
    def odo(self):
        return make_teacher("odo")

    def test_a_name_is_locked_where_it_was_guessed_and_nowhere_else(self, odo):
        own = at("10.0.0.7")
        own.log_in("odo")
        assert guess(at("10.0.0.7")) == [400] * 9 + [429] * 2
        assert at("10.0.0.7").log_in("odo").status_code == 429  # a new browser in that network
        assert at("10.9.9.9").log_in("odo").status_code == 200  # from home
        assert own.log_in("odo").status_code == 200  # a browser that she has been in on

    def test_a_known_browser_has_a_count_of_its_own(self, odo):
        own, other = at("10.0.0.7"), at("10.0.0.7")
        own.log_in("odo")
        other.log_in("odo")
        assert guess(own)[-1] == 429
        assert other.log_in("odo").status_code == 200

    def test_who_was_in_as_somebody_else_is_no_known_browser(self, odo):
        make_teacher("ilse")
        shared = at("10.0.0.7")
        shared.log_in("ilse")
        guess(at("10.0.0.7"))
        assert shared.log_in("odo").status_code == 429
        assert shared.log_in("ilse").status_code == 200

    def test_the_manager_sees_it_and_unlocks(self, api, odo):
        guess(at("10.0.0.7"))
        rows = {row["username"]: row["locked"] for row in api.get("/api/people").json()["people"]}
        assert rows == {"maren": False, "odo": True}
        assert api.send("POST", f"/api/people/{odo.pk}/unlock").json()["locked"] is False
        assert at("10.0.0.7").log_in("odo").status_code == 200
        assert Happening.objects.first().what == "unlocked"

    def test_a_reset_lifts_it_and_a_one_time_word_always_works(self, odo):
        guess(at("10.0.0.7"))
        word = services.reset(odo, by="maren")
        assert not AccessAttempt.objects.exists()
        guess(at("10.0.0.7"))
        assert at("10.0.0.7").log_in("odo", word).status_code == 200

    def test_a_word_that_has_run_out_and_a_password_are_not_let_through(self, odo):
        guess(at("10.0.0.7"))
        assert at("10.0.0.7").log_in("odo").status_code == 429

    def test_the_command_line_unlocks(self, odo, capsys):
        guess(at("10.0.0.7"))
        call_command("people", "unlock", "odo")
        assert "locked nowhere" in capsys.readouterr().out
        assert at("10.0.0.7").log_in("odo").status_code == 200

    def test_after_a_reset_the_teacher_is_told_who_did_it(self, api, odo):
        word = api.send("POST", f"/api/people/{odo.pk}/reset").json()["word"]
        told = Api().log_in("odo", word).json()["teacher"]
        assert (told["new_password"], told["reset"]["who"]) == (True, "maren")
        assert api.get("/api/account/session").json()["teacher"]["reset"] is None


@pytest.mark.django_db
class TestSecondFactor:
    def digits(self, offset=0):
        device = TOTPDevice.objects.get()
        device.throttle_reset()
        return f"{totp(device.bin_key, drift=offset):06d}"

    def set_up(self, api):
        offered = api.send("POST", "/api/account/second-factor").json()
        assert offered["address"].startswith("otpauth://totp/") and offered["key"] in offered["address"]
        assert len(offered["code"]) == len(offered["code"][0]) > 20 and set("".join(offered["code"])) == {"0", "1"}
        return api.send("PUT", "/api/account/second-factor", {"digits": self.digits()})

    def test_it_counts_once_its_digits_are_given_back(self, api):
        assert api.send("PUT", "/api/account/second-factor", {"digits": "1"}).json()["code"] == "second-factor"
        api.send("POST", "/api/account/second-factor")
        assert api.send("PUT", "/api/account/second-factor", {"digits": "000000"}).json()["code"] == "digits"
        assert Api().log_in("maren").status_code == 200
        assert self.set_up(api).json()["teacher"]["second_factor"] is True
        assert api.send("POST", "/api/account/second-factor").json()["code"] == "second-factor"

    def test_it_is_asked_for_at_every_log_in_and_each_digits_work_once(self, api):
        self.set_up(api)

        def log_in(**more):
            sent = {"username": "maren", "password": "lantern-quay", **more}
            return Api().send("POST", "/api/account/log-in", sent)

        assert log_in().json()["code"] == "second-factor"
        assert log_in(digits="000000").json()["code"] == "digits"
        later = self.digits(1)
        assert log_in(digits=f"{later[:3]} {later[3:]}").status_code == 200
        assert log_in(digits=later).json()["code"] == "digits"
        wrong = Api().send(
            "POST", "/api/account/log-in", {"username": "maren", "password": "wrong", "digits": self.digits(1)}
        )
        assert wrong.json()["code"] == "credentials"

    def test_it_goes_by_the_password_and_with_a_reset(self, api, teacher):
        self.set_up(api)
        assert api.send("POST", "/api/account/second-factor/away", {"password": "no"}).json()["code"] == "credentials"
        gone = api.send("POST", "/api/account/second-factor/away", {"password": "lantern-quay"})
        assert gone.json()["teacher"]["second_factor"] is False
        self.set_up(api)
        word = services.reset(teacher, by="the command line")
        assert Api().log_in("maren", word).status_code == 200

    @pytest.mark.parametrize(("setting", "status"), [("managers", 403), ("", 200)])
    def test_who_manages_may_have_to_have_one(self, api, settings, setting, status):
        settings.SECOND_FACTOR = setting
        assert api.get("/api/people").status_code == status
        assert api.get("/api/account/session").json()["teacher"]["needs_second_factor"] is (status == 403)
        assert api.get("/api/sheets").status_code == 200  # what is taught is not touched
        self.set_up(api)
        assert api.get("/api/people").status_code == 200
        assert api.get("/api/people").json()["people"][0]["second_factor"] is True


class TestAddresses:
    @pytest.mark.parametrize(
        ("proxies", "peer", "told", "address"),
        [
            ("", "10.0.0.1", "", "10.0.0.1"),
            ("", "10.0.0.1", "1.2.3.4", "10.0.0.1"),  # nobody is trusted
            ("10.0.0.1", "10.0.0.1", "1.2.3.4", "1.2.3.4"),
            ("10.0.0.0/24", "10.0.0.9", "9.9.9.9, 1.2.3.4, 10.0.0.2", "1.2.3.4"),  # what a guesser put before it
            ("10.0.0.1", "10.0.0.2", "1.2.3.4", "10.0.0.2"),
            ("10.0.0.1", "10.0.0.1", "nonsense", "10.0.0.1"),
            ("10.0.0.1", "10.0.0.1", "", "10.0.0.1"),
            ("127.0.0.1, ::1", "::1", "2001:db8::7", "2001:db8::7"),
            ("", "::ffff:10.0.0.1", "", "10.0.0.1"),
            ("", "", "", "0.0.0.0"),
        ],
    )
    def test_only_a_trusted_proxy_is_believed(self, settings, proxies, peer, told, address):
        settings.PROXIES = proxies
        headers = {"X-Forwarded-For": told} if told else {}
        assert address_of(RequestFactory().get("/", REMOTE_ADDR=peer, headers=headers)) == address

    @pytest.mark.parametrize(
        ("peer", "network"),
        [("10.0.0.1", "10.0.0.1"), ("2001:db8:1:2:3::7", "2001:db8:1:2::"), ("2001:db8:1:2:9::1", "2001:db8:1:2::")],
    )
    def test_a_network_of_ipv6_counts_as_one(self, peer, network):
        assert network_of(RequestFactory().get("/", REMOTE_ADDR=peer)) == network


def test_the_word_of_the_first_account_follows_from_the_key(settings):
    first = people.word_of_first_account()
    assert (len(first), first == people.word_of_first_account()) == (12, True)
    settings.SECRET_KEY = "another"
    assert people.word_of_first_account() != first
