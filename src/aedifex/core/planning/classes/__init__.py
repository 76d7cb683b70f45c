"""The classes of one file.

In: ``FileFacts`` (``eligibility`` gathers them). Out: a ``FilePlan``. Begin with ``file_planner``.
"""
