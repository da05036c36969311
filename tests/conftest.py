"""Shared by all tests: no timing limits (the bench measures), no reading of the user's settings.

Examples are new in each run here, and the same in each run of continuous integration.
"""

from __future__ import annotations

import gc
import os

import pytest
from hypothesis import settings

# Plans are many small values without circles: looking for circles as often as usual takes a tenth
# of the time of all tests.
gc.set_threshold(50_000, 20, 20)
os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
settings.register_profile("inlet", deadline=None, print_blob=True)
settings.register_profile("same-each-time", deadline=None, print_blob=True, derandomize=True)
settings.load_profile("same-each-time" if os.environ.get("CI") else "inlet")


@pytest.fixture(autouse=True)
def own_home(tmp_path_factory, monkeypatch):
    """Configuration and state folders of the test's own."""
    monkeypatch.setenv("XDG_CONFIG_HOME", str(tmp_path_factory.mktemp("config")))
    monkeypatch.setenv("XDG_STATE_HOME", str(tmp_path_factory.mktemp("state")))
