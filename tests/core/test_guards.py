"""What is refused whole, what is offered only if it holds, and what an earlier form is read as."""

import pytest

from lyrandis.core.bench import Bench
from lyrandis.core.errors import RefusedError
from lyrandis.core.fields import changed, difference
from lyrandis.core.findings import Action, fine, say, stop
from lyrandis.core.parts import Rig
from lyrandis.core.stations.dangers import dangers
from lyrandis.core.stations.tried import Proof
from lyrandis.core.strict import MOST_DEPTH, MOST_KEYS, MOST_WHOLE, refuse_unfit
from lyrandis.core.upcast import entry_document


def nested(depth):
    made = []
    for _ in range(depth):
        made = [made]
    return made


class TestStrict:
    @pytest.mark.parametrize(
        ("fits", "does_not"),
        [
            (nested(MOST_DEPTH - 1), nested(MOST_DEPTH)),
            ({str(i): i for i in range(MOST_KEYS)}, {str(i): i for i in range(MOST_KEYS + 1)}),
            (MOST_WHOLE, MOST_WHOLE + 1),
            (-MOST_WHOLE, -MOST_WHOLE - 1),
            (1e308, float("inf")),
            ("ſ", "\ud800"),
        ],
    )
    def test_up_to_the_limit_and_not_past_it(self, fits, does_not):
        refuse_unfit({"a": fits} if not isinstance(fits, list | dict) else fits)
        with pytest.raises(RefusedError):
            refuse_unfit({"a": does_not} if not isinstance(does_not, list | dict) else does_not)

    def test_it_says_where(self):
        with pytest.raises(RefusedError) as caught:
            refuse_unfit({"bow": {"measured": [[1.0], [float("nan")]]}})
        assert caught.value.field == "bow.measured.1.0"


class TestTried:
    LIGHT = changed(Rig(), {"arrow.grains_per_inch": 4.0, "arrow.point_gr": 60.0})

    def action(self, **changes):
        return Action(
            label=say("Do it"), changes={k.replace("__", "."): v for k, v in changes.items()}
        )

    def too_light(self, b):
        from lyrandis.core.stations.arrow import floor

        return floor(b)

    def test_what_leaves_the_stop_that_it_is_of_is_not_offered(self):
        b = Bench(self.LIGHT)
        left = self.too_light(b).model_copy(
            update={"action": self.action(notes="x"), "instead": ()}
        )
        assert Proof(b).tried("arrow", left).action is None

    def test_what_ends_it_is(self):
        b = Bench(self.LIGHT)
        assert self.too_light(b).level == "stop"
        assert Proof(b).tried("arrow", self.too_light(b)).action is not None

    def test_of_what_is_no_stop_all_that_makes_none_is(self):
        b = Bench(self.LIGHT)
        harmless = fine(
            said=say("Fine."), why=say("So."), told="model", action=self.action(notes="x")
        )
        assert Proof(b).tried("arrow", harmless).action is not None
        worse = fine(
            said=say("Fine."), why=say("So."), told="model",
            action=self.action(arrow__shaft_length_in=28.1),
        )  # fmt: skip
        assert Proof(b).tried("arrow", worse).action is None

    def test_a_stop_that_is_only_moved_is_one_that_is_made(self):
        b = Bench(self.LIGHT)
        lighter = stop(said=say("Other."), why=say("So."), told="model",
                       action=self.action(arrow__point_gr=40.0))  # fmt: skip
        assert dangers(b)
        assert Proof(b).tried("arrow", lighter).action is None


def test_the_difference_of_two_rigs_is_what_makes_one_the_other():
    after = changed(Rig(), {"bow.length_in": 66.0, "archer.hand": "left", "name": "Other"})
    told = difference(Rig(), after)
    assert told == {"bow.length_in": 66.0, "archer.hand": "left", "name": "Other"}
    assert changed(Rig(), told) == after


@pytest.mark.parametrize(
    ("path", "trial", "implied"),
    [
        ("bow.measured", None, True),
        ("bow.measured", {"kind": "hold"}, False),  # a pull's readings came along with it
        ("arrow.weighed_gr", None, True),
        ("arrow.weighed_gr", {"kind": "hold"}, True),
        ("bow.length_in", None, False),
    ],
)
def test_an_entry_of_an_earlier_form_that_set_a_measure_implies_its_trial(path, trial, implied):
    entry = {"changes": [{"path": path, "before": None, "after": 1}], "trial": trial}
    assert entry_document(entry, 4)["implied"] is implied
