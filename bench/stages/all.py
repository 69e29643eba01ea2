"""Every stage, in the order of the work."""

from bench.stages.cut.stage import STAGE as CUT
from bench.stages.fix.stage import STAGE as FIX
from bench.stages.hang.stage import STAGE as HANG
from bench.stages.load.stage import STAGE as LOAD
from bench.stages.mark.stage import STAGE as MARK
from bench.stages.record.stage import STAGE as RECORD
from bench.stages.survey.stage import STAGE as SURVEY

STAGES = (SURVEY, LOAD, FIX, MARK, CUT, HANG, RECORD)
