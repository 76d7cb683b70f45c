from .process import observe  # noqa: F401
