"""`./uchuu install-service`: Uchuu as a service of the system, started at boot, with a nightly backup."""

from __future__ import annotations

import argparse
import os
import shutil
import subprocess
import sys
from pathlib import Path

from tools import front
from tools.installation import ROOT, SERVICE, service_account

UNITS = Path("/etc/systemd/system")
ENVIRONMENT = Path("/etc/uchuu.env")
HOME = Path("/var/lib/uchuu")
WRITTEN = """\
# Settings of the Uchuu service; docs/running.md says what each means.
#UCHUU_HTTPS=1
#UCHUU_HOSTS=desk.example.org
#UCHUU_PORT=8000
#DATABASE_URL=postgresql://uchuu:…@database.example.org:5432/uchuu?sslmode=verify-full&sslrootcert=/etc/uchuu-ca.pem
"""


def units(root: Path, home: Path, account: str) -> dict[str, str]:
    """The unit files by their names: the server, which runs a worker too, and a worker for another machine."""
    return {
        "uchuu.service": _unit(
            "Uchuu, the desk of an algebra teacher", f"{root}/uchuu start --empty --nightly-backup", home, account
        ),
        "uchuu-worker.service": _unit("Uchuu's worker on a machine of its own", f"{root}/uchuu worker", home, account),
    }


def _unit(what: str, command: str, home: Path, account: str) -> str:
    return f"""\
[Unit]
Description={what}
After=network.target postgresql.service

[Service]
Type=simple
User={account}
Group={account}
EnvironmentFile=-{ENVIRONMENT}
Environment=UCHUU_HOME={home}
ExecStart={command}
Restart=on-failure
RestartSec=5
# status 3: it can't start here and says why; trying again would not help
RestartPreventExitStatus=3
TimeoutStopSec=30
NoNewPrivileges=yes
ProtectSystem=strict
ProtectHome=read-only
PrivateTmp=yes
PrivateDevices=yes
ProtectKernelTunables=yes
ProtectControlGroups=yes
RestrictAddressFamilies=AF_INET AF_INET6 AF_UNIX
ReadWritePaths={home}

[Install]
WantedBy=multi-user.target
"""


def main(arguments: list[str]) -> int:
    """Writes the units, or prints them with --print; returns 0, or 3 with a sentence."""
    parser = argparse.ArgumentParser(prog="uchuu install-service", description="Uchuu as a service of the system.")
    parser.add_argument("--print", action="store_true", dest="show", help="only print what would be written")
    options = parser.parse_args(arguments)
    if options.show:
        for name, text in units(ROOT, HOME, SERVICE).items():
            print(f"# {UNITS / name}\n{text}")
        return 0
    if os.geteuid() != 0:
        print("uchuu: as root, please: units of the system are written. Or look at them with --print.", file=sys.stderr)
        return 3
    if not UNITS.is_dir() or not shutil.which("systemctl"):
        print(
            "uchuu: this machine has no systemd. See docs/running.md for a container, or --print for the units.",
            file=sys.stderr,
        )
        return 3
    if not service_account():
        return 3  # said why
    front.ensure_built()  # the service can't write the program's folder
    HOME.mkdir(parents=True, exist_ok=True)
    subprocess.run(["chown", "-R", f"{SERVICE}:{SERVICE}", str(HOME)], check=True)
    if not ENVIRONMENT.exists():
        ENVIRONMENT.write_text(WRITTEN, encoding="utf-8")
        ENVIRONMENT.chmod(0o600)
    for name, text in units(ROOT, HOME, SERVICE).items():
        (UNITS / name).write_text(text, encoding="utf-8")
    subprocess.run(["systemctl", "daemon-reload"], check=True)
    print(
        f"uchuu: the service is installed. Its settings are in "
        f"{ENVIRONMENT}; start it with: systemctl enable --now uchuu\n"
        "(uchuu-worker is for a further machine with the same DATABASE_URL; uchuu runs a worker already)"
    )
    return 0
