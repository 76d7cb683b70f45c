"""What a draft proposes: which classes, made of what, with reasons.

In: a ``Program`` and wishes. Out: a ``Design``. ``drafter`` prepares the program as a build would, ``file_planner``
says what may move and what stays, ``candidates`` which groups are worth a class, ``dependencies`` what their methods
need of each other, ``class_builder`` and ``app_class`` their members. ``clustering`` groups variables and functions.
Begin with ``drafter``.
"""
