"""Made-up requests against the published description: never a server error."""

from pathlib import Path
from typing import Any

import schemathesis
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from schemathesis.core.result import Ok

from jolly_trellis.api.app import make_app
from tests.generated import examples


def test_no_described_request_ends_in_a_server_error(demo_folder: Path) -> None:
    application = make_app(demo_folder, web_build=demo_folder / "none", hosts=("localhost", "testserver"))
    schema = schemathesis.openapi.from_asgi("/openapi.json", application)
    cases = st.one_of([found.ok().as_strategy() for found in schema.get_all_operations() if isinstance(found, Ok)])

    @settings(examples(120), suppress_health_check=list(HealthCheck), database=None)
    @given(case=cases)
    def ask(case: schemathesis.Case[Any]) -> None:
        assert case.call().status_code < 500

    ask()
