"""No test here fails for being slow: a busy machine is not a wrong answer."""

from hypothesis import settings

settings.register_profile("steady", deadline=None)
settings.load_profile("steady")
