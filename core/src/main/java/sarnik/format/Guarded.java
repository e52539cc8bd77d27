package sarnik.format;

import java.io.IOException;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import java.util.function.Consumer;
import sarnik.table.RowSource;
import sarnik.table.RowsOver;
import sarnik.table.UnreadableTableException;

/**
 * The edge of all readers. Whatever a reader of a format, or a library beneath it, throws because a file breaks its
 * rules comes
 * out as one kind of refusal, without a parser's inner words; what a visitor throws is its own matter and passes
 * through.
 */
final class Guarded {

    private static final String BROKEN =
            "The file is broken inside: it does not keep the rules of its format. Open it where it was made, "
                    + "save it again, and bring that in.";

    private Guarded() {}

    /** Reading that may fail. */
    interface Reading<T> {
        T read() throws IOException;
    }

    static <T> T reading(Reading<T> reading) throws IOException {
        return reading(reading, new RuntimeException[1]);
    }

    private static <T> T reading(Reading<T> reading, RuntimeException[] theirs) throws IOException {
        try {
            return reading.read();
        } catch (UnreadableTableException | CancellationException said) {
            throw said;
        } catch (RuntimeException broken) {
            if (broken == theirs[0]) throw broken;
            throw new UnreadableTableException(BROKEN);
        } catch (StackOverflowError nested) {
            throw new UnreadableTableException("The file is nested too deeply to be read. " + BROKEN);
        }
    }

    /** A reader's rows, guarded. */
    static final class Rows extends RowsOver {

        Rows(RowSource source) {
            super(source);
        }

        @Override
        public void each(Visitor visitor) throws IOException {
            RuntimeException[] theirs = new RuntimeException[1];
            reading(
                    () -> {
                        file.each((line, cells) -> {
                            try {
                                visitor.row(line, cells);
                            } catch (RuntimeException own) {
                                theirs[0] = own;
                                throw own;
                            }
                        });
                        return null;
                    },
                    theirs);
        }
    }

    /** A reader's features, guarded. */
    record Features(FeatureSource source) implements FeatureSource {

        @Override
        public void each(Consumer<Feature> visitor) throws IOException {
            RuntimeException[] theirs = new RuntimeException[1];
            reading(
                    () -> {
                        source.each(feature -> {
                            try {
                                visitor.accept(feature);
                            } catch (RuntimeException own) {
                                theirs[0] = own;
                                throw own;
                            }
                        });
                        return null;
                    },
                    theirs);
        }

        @Override
        public Optional<String> asks() {
            return source.asks();
        }

        @Override
        public String words() {
            return source.words();
        }
    }
}
