"""A proposal gone through with a person, class by class: every answer is a wish, and the draft is made anew with it.

Answers are a word and names: ``name Tram``, ``move livery Depot``, ``out bell``, ``argument x``, ``fixed x``, ``list``,
``apart``, ``keep``.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass, field, replace

from ..design.origin import Origin
from ..design.tables import ClassDesign, Design, FieldDesign, MethodDesign, WishDesign
from ..program.program import Program
from ..program.refusal import Refusal
from . import messages
from .drafter import draft
from .wishes import Placed, merged_wishes, unfulfilled, wish_mistakes

Member = FieldDesign | MethodDesign
SAID = "your answer"  # where a wish was said, for a refusal


@dataclass(frozen=True)
class Answers:
    """What was said so far. ``classes``: class → all that it is to have."""

    classes: dict[str, tuple[Origin, ...]] = field(default_factory=dict)
    keep: tuple[Origin, ...] = ()
    arguments: tuple[Origin, ...] = ()
    fixed: tuple[Origin, ...] = ()
    collect: tuple[str, ...] = ()
    separate: tuple[str, ...] = ()
    app: str = ""

    def wishes(self) -> list[WishDesign]:
        found = [WishDesign(list(names), class_) for class_, names in self.classes.items() if names]
        rest = WishDesign(
            [],
            "",
            list(self.keep),
            list(self.arguments),
            list(self.fixed),
            list(self.collect),
            list(self.separate),
            self.app,
        )
        return [*found, rest] if rest != WishDesign() else found


class Conversation:
    """``design``: the proposal; ``wishes``: those before it, of options or of a design that is drafted anew."""

    def __init__(self, program: Program, design: Design, wishes: Sequence[Placed] = ()) -> None:
        self.program, self.before = program, list(wishes)
        self.past: list[tuple[Answers, Design]] = []
        self.answers = Answers()
        self.design = design

    def drafted(self, answers: Answers) -> Design:
        return draft(self.program, wishes=merged_wishes([*(w.wish for w in self.before), *answers.wishes()]))

    def take(self, class_: str, said: str) -> str:
        """Carry out an answer about a class; the name that it has then, "" if there is none any more. Raises Refusal,
        and leaves everything as it was, if it cannot be done."""
        word, _, rest = said.strip().partition(" ")
        make = ANSWERS.get(word)
        about = self.design.class_named(class_)
        if make is None or about is None:
            raise messages.NO_ANSWER.in_file(word=word, words=", ".join(ANSWERS))
        if word not in ("keep", "out") and not speaks_of_names(about):
            raise messages.IN_THE_DESIGN.in_file(name=class_)
        self.settle(make(self, about, rest.split()))
        return self.follow(about)

    def keep(self, class_: str) -> None:
        """Have a class as it is proposed, whatever is said of others; nothing is wished where that would change it."""
        about = self.design.class_named(class_)
        if about is None or not speaks_of_names(about):
            return
        try:
            answers = self.answer_keep(about, [])
            design = self.tried(answers)
        except Refusal:
            return
        again = design.class_named(class_)
        if again is not None and replace(again, why=[]) == replace(about, why=[]):
            self.past.append((self.answers, self.design))
            self.answers, self.design = answers, design

    def kept(self, class_: str) -> bool:
        """Whether a class has been said to be as it is."""
        return class_ in self.answers.classes or class_ == self.answers.app

    def back(self) -> bool:
        """Take back the last answer; whether there was one."""
        if not self.past:
            return False
        self.answers, self.design = self.past.pop()
        return True

    def settle(self, answers: Answers) -> None:
        design = self.tried(answers)
        self.past.append((self.answers, self.design))
        self.answers, self.design = answers, design

    def tried(self, answers: Answers) -> Design:
        """The draft with these answers. Raises Refusal if it cannot do what they say."""
        wishes = [*self.before, *(Placed(w, SAID) for w in answers.wishes())]
        if wrong := wish_mistakes(self.program, wishes):
            raise wrong[0]
        design = self.drafted(answers)
        if refused := unfulfilled(design, wishes):
            raise refused[0]
        return design

    def follow(self, about: ClassDesign) -> str:
        """What a class is called by now: that which shares most with it."""
        mine = set(names_taken(about))
        shared = [(len(mine & set(names_taken(c))), c.name) for c in self.design.classes]
        if about.role == "app":
            return next((c.name for c in self.design.classes if c.role == "app"), "")
        most = max(shared, default=(0, ""))
        return most[1] if most[0] else ""

    # -- answers -----------------------------------------------------------------------------------

    def answer_keep(self, about: ClassDesign, words: list[str]) -> Answers:
        expect(words, 0, "keep")
        if about.role == "app":
            return replace(self.answers, app=about.name)
        return self.having(about.name, names_taken(about))

    def answer_name(self, about: ClassDesign, words: list[str]) -> Answers:
        expect(words, 1, "name Tram")
        if about.role == "app":
            return replace(self.answers, app=words[0])
        classes = {c: names for c, names in self.answers.classes.items() if c != about.name}
        renamed = replace(self.answers, classes={**classes, words[0]: tuple(names_taken(about))})
        collect = tuple(words[0] if c == about.name else c for c in renamed.collect)
        separate = tuple(words[0] if c == about.name else c for c in renamed.separate)
        return replace(renamed, collect=collect, separate=separate)

    def answer_move(self, about: ClassDesign, words: list[str]) -> Answers:
        expect(words, 2, "move x Tram")
        if words[1] == about.name:  # it may be another's
            about = next((c for c in self.design.classes if c is not about and called(c, words[0])), about)
        mine = member_origins(about, words[0])
        answers = self.answers
        if about.role != "app":
            answers = self.having(about.name, [o for o in names_taken(about) if o not in mine])
        target = self.design.class_named(words[1])
        if target is not None and target.role == "app":
            return answers
        names = [*(names_taken(target) if target is not None else ()), *mine]
        return replace(answers, classes={**answers.classes, words[1]: tuple(names)})

    def answer_out(self, about: ClassDesign, words: list[str]) -> Answers:
        if not words:
            if about.role == "app":
                raise messages.APP_STAYS.in_file(name=about.name)
            classes = {c: names for c, names in self.answers.classes.items() if c != about.name}
            return replace(self.answers, classes=classes, keep=(*self.answers.keep, *names_taken(about)))
        expect(words, 1, "out x")
        mine = member_origins(about, words[0])
        answers = self.answers
        if about.role != "app":
            answers = self.having(about.name, [o for o in names_taken(about) if o not in mine])
        return replace(answers, keep=(*answers.keep, *mine))

    def answer_argument(self, about: ClassDesign, words: list[str]) -> Answers:
        expect(words, 1, "argument x")
        mine = member_origins(about, words[0])
        fixed = tuple(o for o in self.answers.fixed if o not in mine)
        return replace(self.answers, arguments=(*self.answers.arguments, *mine), fixed=fixed)

    def answer_fixed(self, about: ClassDesign, words: list[str]) -> Answers:
        expect(words, 1, "fixed x")
        mine = member_origins(about, words[0])
        arguments = tuple(o for o in self.answers.arguments if o not in mine)
        return replace(self.answers, arguments=arguments, fixed=(*self.answers.fixed, *mine))

    def answer_list(self, about: ClassDesign, words: list[str]) -> Answers:
        expect(words, 0, "list")
        separate = tuple(c for c in self.answers.separate if c != about.name)
        return replace(self.answers, collect=(*self.answers.collect, about.name), separate=separate)

    def answer_apart(self, about: ClassDesign, words: list[str]) -> Answers:
        expect(words, 0, "apart")
        collect = tuple(c for c in self.answers.collect if c != about.name)
        return replace(self.answers, collect=collect, separate=(*self.answers.separate, about.name))

    def having(self, class_: str, names: Sequence[Origin]) -> Answers:
        return replace(self.answers, classes={**self.answers.classes, class_: tuple(names)})


ANSWERS: dict[str, Callable[[Conversation, ClassDesign, list[str]], Answers]] = {
    "keep": Conversation.answer_keep,
    "name": Conversation.answer_name,
    "move": Conversation.answer_move,
    "out": Conversation.answer_out,
    "argument": Conversation.answer_argument,
    "fixed": Conversation.answer_fixed,
    "list": Conversation.answer_list,
    "apart": Conversation.answer_apart,
}


def expect(words: list[str], count: int, example: str) -> None:
    """Raises Refusal unless an answer has so many names."""
    if len(words) != count:
        raise messages.ANSWER_WITH.in_file(
            example=example, word=example.split()[0], count=count or "no", s="" if count == 1 else "s"
        )


def speaks_of_names(c: ClassDesign) -> bool:
    """Whether a class is made of variables and functions by name, so that a wish can ask for it."""
    return not (any(o.collection for o in c.objects) or c.wraps or c.existing)


def members(c: ClassDesign) -> list[Member]:
    return [*c.fields, *c.methods]


def names_taken(c: ClassDesign) -> list[Origin]:
    """The variables and functions that a class takes over, each once."""
    return list(dict.fromkeys(o for m in members(c) for o in m.origins if o and not o.place))


def called(c: ClassDesign, name: str) -> list[Member]:
    """The members of a class that are called so, or were."""
    return [m for m in members(c) if m.name == name or name in [o.local for o in m.origins]]


def member_origins(c: ClassDesign, name: str) -> list[Origin]:
    """What a member of a class was, told by its name or by the variable's. Raises Refusal if there is none, or if it
    is made of lines."""
    found = called(c, name)
    if not found:
        raise messages.NO_MEMBER_SO.in_file(name=name, class_=c.name, members=", ".join(m.name for m in members(c)))
    if not any(found[0].origins):
        raise messages.MADE_OF_LINES.in_file(name=name)
    return [o for o in found[0].origins if o]
