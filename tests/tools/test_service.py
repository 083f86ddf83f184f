"""What runs Uchuu for good: units of the system, the container's files. What they name is there."""

import configparser
import re
import shlex

import pytest
import yaml

from tools import main, service
from tools.installation import ROOT

CONTAINER = (ROOT / "Containerfile").read_text(encoding="utf-8")
COMPOSE = yaml.safe_load((ROOT / "compose.yaml").read_text(encoding="utf-8"))


class TestUnits:
    @pytest.fixture(params=["uchuu.service", "uchuu-worker.service"])
    def unit(self, request):
        parser = configparser.ConfigParser(strict=False, interpolation=None)
        parser.optionxform = str
        parser.read_string(service.units(ROOT, service.HOME, service.SERVICE)[request.param])
        return parser

    def test_the_service_starts_this_checkout_under_its_own_account(self, unit):
        assert unit["Service"]["User"] == unit["Service"]["Group"] == "uchuu"
        program, *arguments = shlex.split(unit["Service"]["ExecStart"])
        assert program == str(ROOT / "uchuu")
        assert arguments[0] in main.COMMANDS
        assert unit["Service"]["NoNewPrivileges"] == "yes"

    def test_a_refused_start_is_not_tried_again(self, unit):
        assert unit["Service"]["RestartPreventExitStatus"] == "3"

    def test_the_home_can_be_written_though_the_system_cannot(self, unit):
        assert unit["Service"]["ProtectSystem"] == "strict"
        assert unit["Service"]["ReadWritePaths"].split() == [str(service.HOME)]  # and not the program either

    def test_it_is_printed_without_being_installed(self, capsys):
        assert service.main(["--print"]) == 0
        assert "[Service]" in capsys.readouterr().out

    def test_who_is_not_root_is_told(self, monkeypatch, capsys):
        monkeypatch.setattr("os.geteuid", lambda: 1000)
        assert service.main([]) == 3
        assert "as root" in capsys.readouterr().err

    def test_a_machine_without_systemd_is_told(self, monkeypatch, tmp_path, capsys):
        monkeypatch.setattr("os.geteuid", lambda: 0)
        monkeypatch.setattr(service, "UNITS", tmp_path / "none")
        assert service.main([]) == 3
        assert "no systemd" in capsys.readouterr().err


class TestContainer:
    def test_the_services_have_no_more_rights_than_they_need(self):
        compose = (ROOT / "compose.yaml").read_text(encoding="utf-8")
        for service_of_ours in ("desk", "worker"):
            own = re.search(rf"^  {service_of_ours}:\n((?:    .*\n|      .*\n)+)", compose, re.M).group(1)
            for words in ("read_only: true", "cap_drop: [ALL]", "no-new-privileges:true", "tmpfs: [/tmp]"):
                assert words in own, (service_of_ours, words)

    def test_all_that_it_copies_is_there(self):
        for words in re.findall(r"^COPY (?!--from)(.+)$", CONTAINER, re.M):
            *sources, _ = words.split()
            for source in sources:
                assert (ROOT / source).exists(), source

    def test_every_package_of_the_product_goes_in(self):
        copied = set(re.findall(r"^COPY (\w+) \w+$", CONTAINER, re.M))
        assert copied >= {path.parent.name for path in ROOT.glob("*/__init__.py")} - {"tests"}

    def test_its_command_is_one_and_no_root_runs_it(self):
        command = yaml.safe_load(re.findall(r"^CMD (.+)$", CONTAINER, re.M)[-1])
        assert command[3] in main.COMMANDS
        assert CONTAINER.index("USER uchuu") < CONTAINER.rindex("CMD [")

    def test_the_two_services_know_each_other(self):
        desk, database = COMPOSE["services"]["desk"], COMPOSE["services"]["database"]
        assert desk["depends_on"]["database"]["condition"] == "service_healthy"
        assert "@database:5432/" + database["environment"]["POSTGRES_DB"] in desk["environment"]["DATABASE_URL"]
        assert desk["ports"] == ["127.0.0.1:8000:8000"]
        named = {volume.split(":")[0] for each in (desk, database) for volume in each["volumes"]}
        assert named == set(COMPOSE["volumes"])
