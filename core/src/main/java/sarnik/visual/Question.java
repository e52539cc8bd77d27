package sarnik.visual;

/** What the author wants to know. */
public enum Question {
    WHERE("Where?"),
    HOW_MUCH("How much?"),
    CHANGED("How has it changed?"),
    WHICH_MOST("Which are the most?"),
    TOGETHER("How do two things go together?"),
    EXACTLY("What exactly?"),
    SAY("Say something."),
    LET_CHOOSE("Let the reader choose.");

    private final String words;

    Question(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }
}
