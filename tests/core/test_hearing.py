"""From letters to sounds and back, and how closed-up names are read."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.strategies import labels
from vinetag.core.grade.hearing import familiarity
from vinetag.core.grade.judge import hearing_of
from vinetag.core.lexicon import load_lexicon
from vinetag.core.lexicon.graphones import held_out
from vinetag.core.lexicon.segment import reading_cost, segment, splits
from vinetag.core.lexicon.sounds import as_heard, bare

LEXICON = load_lexicon()
HEARING = hearing_of(LEXICON)
letters = st.text("abcdefghijklmnopqrstuvwxyz", min_size=1, max_size=12)


class TestLettersAndSounds:
    @given(letters)
    @settings(max_examples=80, deadline=None)
    def test_ways_to_say_a_word_are_likelier_first_and_share_one_whole(self, word: str) -> None:
        said = LEXICON.graphones.say(word)
        found = [way.share for way in said]
        assert found == sorted(found, reverse=True)
        assert sum(found) <= 1 + 1e-6

    @pytest.mark.parametrize(
        ("word", "phones"),
        [("blick", "B L IH K"), ("spreet", "S P R IY T"), ("vintor", "V IH N T ER")],
    )
    def test_made_up_words_are_said_as_english_would(self, word: str, phones: str) -> None:
        assert " ".join(bare(LEXICON.graphones.say(word)[0].phones)) == phones

    def test_held_out_words_are_mostly_said_right(self) -> None:
        """The model never saw them; scripts/eval_sound.py takes all of them."""
        words = [w for w in LEXICON.sounds.words() if held_out(w) and LEXICON.words[w].zipf > 3.5]
        right = sum(
            bare(LEXICON.graphones.say(w)[0].phones) == LEXICON.sounds.phones(w)
            for w in words[:400]
        )
        assert right / 400 > 0.6

    def test_sounds_are_spelt_as_english_spells_them(self) -> None:
        word, phones = "blaid", ("B", "L", "EY1", "D")
        [unit] = [u for u in LEXICON.graphones.units(word, phones) if u.letters == "ai"]
        others = dict(unit.others)
        assert (unit.sound, unit.start) == ("EY1", 2)
        assert 0 < others["ay"] < others["a"]
        assert sum(others.values()) + unit.share == pytest.approx(1)

    @given(letters)
    @settings(max_examples=60, deadline=None)
    def test_units_spell_the_word(self, word: str) -> None:
        heard = HEARING.word(word)
        if heard.units:
            assert "".join(u.letters for u in heard.units) == word
        assert 0 <= heard.right <= 1
        assert all(w != word and 0 < share <= 1 for w, share in heard.wrong)

    def test_plain_letters_for_sounds(self) -> None:
        assert as_heard(("L", "EH1", "T", "ER0", "P", "R", "EH2", "S")) == "le-ter-pres"

    def test_rarity_knows_how_words_begin(self) -> None:
        assert LEXICON.rarity.rarest("klay")[:2] == ("kl", "begins")
        assert LEXICON.rarity.rarest("klay")[2] < 0.01


class TestHearing:
    def test_known_words_are_written_and_unknown_ones_worked_out(self) -> None:
        assert HEARING.word("paper").right > 0.95 > HEARING.word("klayt").right
        assert HEARING.known("paper") > 0.95
        assert HEARING.known("qzxv") == 0
        assert familiarity(2.7) == pytest.approx(0.5)

    def test_the_commoner_of_two_words_that_sound_alike_is_written(self) -> None:
        knight, night = HEARING.word("knight"), HEARING.word("night")
        assert knight.rivals[0][0] == "night"
        assert knight.right < 0.3 < 0.7 < night.right


class TestSplits:
    @pytest.mark.parametrize(
        ("closed", "words"),
        [
            ("inkpost", ["ink", "post"]),
            ("paperboat", ["paper", "boat"]),
            ("thequietsky", ["the", "quiet", "sky"]),
            ("bookkeeper", ["bookkeeper"]),
            ("club42", ["club", "42"]),
            ("a", ["a"]),
            ("", []),
        ],
    )
    def test_closed_names_fall_into_words(self, closed: str, words: list[str]) -> None:
        assert segment(closed, LEXICON) == words

    def test_given_words_are_seen_first(self) -> None:
        assert segment("harrowmerepiano", LEXICON, {"harrowmere"}) == ["harrowmere", "piano"]

    @given(labels)
    def test_segments_spell_the_name(self, label: str) -> None:
        closed = label.replace("-", "")
        assert "".join(segment(closed, LEXICON)) == closed

    @given(letters)
    @settings(max_examples=100, deadline=None)
    def test_the_likeliest_reading_comes_first_and_all_together_weigh_most(self, text: str) -> None:
        total, best = splits(text, LEXICON)
        costs = [split.cost for split in best]
        assert costs == sorted(costs)
        assert all("".join(split.words) == text for split in best)
        assert not best or total <= costs[0] + 1e-9
        for split in best:
            assert reading_cost(split.words, LEXICON) == pytest.approx(split.cost)
