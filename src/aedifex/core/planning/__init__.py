"""What a draft proposes: which classes, made of what, with reasons.

In: a ``Program`` and wishes. Out: a ``Design``. ``preparation`` carries out what is proposed before all classes, in the
pipeline's order. On what results, ``eligibility`` says what may move (``FileFacts``, frozen), ``candidates`` which
groups there are, ``selection`` which are worth a class, ``dependencies`` what their methods need of each other,
``class_designs``, ``class_builder`` and ``app_class`` what the classes are made of, ``class_files`` where they go. Each
takes facts or a ``FilePlan`` and gives a new one, so that several plans of one file can be made and compared.
``clustering`` groups variables and functions. Begin with ``file_planner``, then ``drafter``.
"""
