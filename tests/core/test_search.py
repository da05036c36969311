"""Finding by words, against a plain count of edits."""

from __future__ import annotations

from hypothesis import given
from hypothesis import strategies as st

from inlet.core.search import Findable, Index, plain_words

THINGS = (
    Findable("Print the guide…", "pdf booklet paper"),
    Findable("Shopping list", "buy yardage fabric how much"),
    Findable("Half-square triangles", "hst two-at-a-time"),
    Findable("Turn it a quarter", "rotate"),
    Findable("Quarter circle", "curve arc"),
)
INDEX = Index(THINGS)


def test_titles_come_before_other_words_and_beginnings_before_insides():
    titles = [THINGS[i].title for i in INDEX.find("qu")]
    assert titles[0] == "Quarter circle"
    assert set(titles) == {"Quarter circle", "Turn it a quarter"}
    assert INDEX.find("yard") == [1]
    assert INDEX.find("fabric much") == [1]
    assert INDEX.find("fabric guide") == []
    assert INDEX.find("rotaet") == [3]
    assert INDEX.find("") == list(range(5))
    assert plain_words("½-square Éclair") == ("1", "2", "square", "eclair")


def edits(typed: str, word: str) -> int:
    """The fewest letters changed, left out, put in or changed over that make ``typed`` begin
    ``word``."""
    rows = [list(range(len(word) + 1))]
    for i, a in enumerate(typed, 1):
        row = [i]
        for j, b in enumerate(word, 1):
            best = min(row[-1] + 1, rows[-1][j] + 1, rows[-1][j - 1] + (a != b))
            if i > 1 and j > 1 and (a, b) == (word[j - 2], typed[i - 2]):
                best = min(best, rows[-2][j - 2] + 1)
            row.append(best)
        rows.append(row)
    return min(rows[-1])


@given(st.text("abcd", min_size=4, max_size=7), st.text("abcd", min_size=1, max_size=8))
def test_one_wrong_letter_is_forgiven_and_not_two(typed, word):
    inside = typed in word
    assert bool(Index([Findable(word)]).find(typed)) == (inside or edits(typed, word) <= 1)
