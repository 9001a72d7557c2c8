"""The HTTP door: parse, call a service, return."""

from jolly_trellis.api import schemas
from jolly_trellis.core.event.parts import KINDS
from jolly_trellis.core.judging.report import Report
from jolly_trellis.core.rigging.assess import RigReport

schemas.work_out(*KINDS.values(), Report, RigReport)
