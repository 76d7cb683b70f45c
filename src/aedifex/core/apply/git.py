"""One commit a step, with the git that is installed."""

from __future__ import annotations

import subprocess

from ..program.errors import AedifexError, Refused


class Git:
    """The repository that holds a folder. Raises AedifexError if there is none, Refused if it is dirty."""

    def __init__(self, root: str, with_changes: bool = False) -> None:
        self.root = root
        if self.ran("rev-parse", "--is-inside-work-tree").stdout.strip() != "true":
            raise AedifexError(f"{root}: is not in a git repository; run 'git init' there, or build without --commit.")
        changed = self.run("status", "--porcelain", "--untracked-files=no").strip()
        if changed and not with_changes:
            first = changed.splitlines()[0].split(maxsplit=1)[-1]
            raise Refused(f"{first}: has changes that are not committed; commit them first, or add --with-changes.")

    def ran(self, *args: str) -> subprocess.CompletedProcess[str]:
        try:
            return subprocess.run(["git", *args], cwd=self.root, capture_output=True, text=True, timeout=60)
        except (OSError, subprocess.TimeoutExpired) as error:
            raise AedifexError(
                f"{self.root}: git could not be run ({error}); install it, or build without --commit."
            ) from error

    def run(self, *args: str) -> str:
        done = self.ran(*args)
        if done.returncode:
            raise AedifexError(
                f"{self.root}: git {args[0]} failed "
                f"({(done.stderr or done.stdout).strip().splitlines()[-1:] or ['?']}); "
                "mend that, then build again."
            )
        return done.stdout

    def commit(self, title: str, step: str, paths: list[str], ran: list[str]) -> None:
        """``ran``: the scenarios that were run after the step, in each of which the program did the same."""
        self.run("add", "--", *paths)
        self.run("commit", "--quiet", "-m", title, "-m", f"Step {step}. {checked(ran)}", "--", *paths)


def checked(ran: list[str]) -> str:
    """What is known of the program after a step."""
    if not ran:
        return "The files were read again; the program was not run."
    names = ", ".join(f"'{n}'" for n in ran)
    return f"The program did the same as before in {len(ran)} scenario{'s' * (len(ran) != 1)}: {names}."
