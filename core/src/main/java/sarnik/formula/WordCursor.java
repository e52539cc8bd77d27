package sarnik.formula;

import java.util.List;
import sarnik.formula.Lexer.Sort;
import sarnik.formula.Lexer.Word;

/** The words of a formula and how far they have been read. */
final class WordCursor {

    private final List<Word> words;
    private int at;

    WordCursor(List<Word> words) {
        this.words = words;
    }

    /** The next word. */
    Word peek() {
        return words.get(at);
    }

    /** The next word, which is passed. */
    Word take() {
        return words.get(at++);
    }

    /** Passes a keyword or sign, if it is the next word. */
    boolean accept(String keyword) {
        if (!peek().is(keyword)) return false;
        at++;
        return true;
    }

    /**
     * Passes a keyword or sign that has to be there.
     *
     * @param why where it stands, for the sentence that says it is missing
     */
    Word expect(String keyword, String why) {
        if (peek().is(keyword)) return take();
        Word found = peek();
        throw new FormulaException(
                found.from(),
                Math.max(found.to(), found.from()),
                "%s is expected %s, not %s.".formatted(keyword, why, named(found)));
    }

    /** A word as a sentence names it. */
    static String named(Word word) {
        return word.sort() == Sort.END ? "the end of the formula" : "“" + word.text() + "”";
    }

    /** Where the word that was passed last ends, characters from the beginning. */
    int end() {
        return at == 0 ? 0 : words.get(at - 1).to();
    }

    /** How far it has been read. */
    int place() {
        return at;
    }

    /** Goes back to a place. */
    void back(int place) {
        at = place;
    }
}
