"""The stand-ins that `./uchuu start` runs beside the demo data, each a process of its own on loopback; an address that
is given takes their place."""

from __future__ import annotations

import os
import subprocess
import sys
from functools import partial
from typing import Any

from standins.records import KEY, SECRET
from tools.installation import ROOT, service_account
from tools.postgres import free_port
from tools.worker import Kept

STAND_INS = {
    "UCHUU_PAGE_READER": ("standins.reader", "UCHUU_READER_FAULTS"),
    "UCHUU_RECORDS": ("standins.records", "UCHUU_RECORDS_FAULTS"),
}
"""The variable with the address of a service; the module that stands in for it, and the variable with the faults it is
to show."""


def stand_ins() -> list[Kept]:
    """Begins those whose place nobody has taken, and sets their addresses for what is started after."""
    found = []
    for variable, (module, faults) in STAND_INS.items():
        if variable in os.environ:
            continue
        if variable == "UCHUU_RECORDS":
            os.environ |= {"UCHUU_RECORDS_KEY": KEY, "UCHUU_RECORDS_SECRET": SECRET}
        port = free_port()
        os.environ[variable] = f"http://127.0.0.1:{port}"
        told = os.environ.get(faults, "")
        found.append(Kept(partial(_begun, module, port, told)))
    return found


def _begun(module: str, port: int, faults: str) -> subprocess.Popen[bytes]:
    """A stand-in: under the account of the server when root starts it, without a word of the database or the secret
    key."""
    account = service_account()
    under: dict[str, Any] = {"user": account, "group": account, "extra_groups": []} if account else {}
    env = {name: value for name, value in os.environ.items() if name not in ("DATABASE_URL", "UCHUU_SECRET", "HOME")}
    command = [sys.executable, "-m", module, "--port", str(port), "--faults", faults]
    begun: subprocess.Popen[bytes] = subprocess.Popen(
        command, cwd=ROOT, start_new_session=True, env=env, stdout=subprocess.DEVNULL, **under
    )
    return begun
