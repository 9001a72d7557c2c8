"""The words of the program: each once, told in a sentence, and the same in the documents as on the screens."""

from pathlib import Path

from jolly_trellis.core.glossary import GLOSSARY, written


def test_the_documents_have_the_same_words() -> None:
    """`python -c "from jolly_trellis.core.glossary import written; print(written(), end='')" > docs/glossary.md`"""
    assert (Path(__file__).parents[2] / "docs" / "glossary.md").read_text(encoding="utf-8") == written()


def test_every_word_is_told_once_and_in_a_sentence() -> None:
    words = [each.word for each in GLOSSARY]
    assert len(set(words)) == len(words)
    assert all(each.meaning.endswith(".") and 20 < len(each.meaning) < 140 for each in GLOSSARY)
    assert {"hold", "stand", "drink", "travel", "hang", "hide", "see", "lift"} <= set(words)
    assert {"holds", "tight", "fails", "not needed", "cannot say"} <= set(words)
