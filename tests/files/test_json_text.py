"""JSON written without recursion is that of the standard library."""

from __future__ import annotations

import json

from hypothesis import given
from hypothesis import strategies as st

from inlet.files.text.json_text import json_text

values = st.recursive(
    st.none() | st.booleans() | st.integers() | st.floats(allow_nan=False) | st.text(),
    lambda inner: st.lists(inner, max_size=3) | st.dictionaries(st.text(), inner, max_size=3),
)


@given(values, st.booleans())
def test_it_is_what_the_library_writes(value, plain):
    assert json_text(value, plain) == json.dumps(value, ensure_ascii=plain)


def test_it_goes_as_deep_as_it_is_asked_to():
    deep: object = "x"
    for _ in range(5000):
        deep = {"parts": [deep]}
    assert json_text(deep) == '{"parts": [' * 5000 + '"x"' + "]}" * 5000
