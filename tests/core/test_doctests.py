"""The worked examples in the core's docstrings are run."""

import doctest
import importlib
import pkgutil

import pytest

import lyrandis.core

MODULES = [m.name for m in pkgutil.walk_packages(lyrandis.core.__path__, "lyrandis.core.")]


@pytest.mark.parametrize("name", MODULES)
def test_examples(name):
    assert doctest.testmod(importlib.import_module(name)).failed == 0


def test_there_are_some():
    finder = doctest.DocTestFinder(exclude_empty=True)
    found = [
        t for name in MODULES for t in finder.find(importlib.import_module(name)) if t.examples
    ]
    assert len(found) >= 20
