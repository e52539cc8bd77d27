package sarnik.browser;

import java.time.LocalDate;
import java.util.HashMap;
import java.util.Map;
import org.teavm.jso.JSBody;
import org.teavm.jso.JSFunctor;
import org.teavm.jso.JSObject;
import org.teavm.jso.typedarrays.Int8Array;
import sarnik.carried.CarriedFile;
import sarnik.carried.CarriedPage;
import sarnik.carried.RecordJson;
import sarnik.language.Language;

/** The core in the browser: opens what was carried away and answers its page. Compiled to JavaScript by the build. */
public final class Main {

    private static final RecordJson JSON = Records.json().numbersBy(Main::shortest);

    private static CarriedPage page;
    private static Language language = Language.ENGLISH;

    private Main() {}

    /** Takes the bytes of what was carried away. */
    @JSFunctor
    interface Open extends JSObject {

        /**
         * @param bytes as {@link CarriedFile} has them
         * @param day the day that relative periods are counted from, ISO 8601; empty for today
         * @param tag the language in which it is answered, such as {@code es}
         * @param sentences what it says in that language: each English one before its own
         * @return why it cannot be opened; empty where it is open
         */
        String open(Int8Array bytes, String day, String tag, String[] sentences);
    }

    /** Answers questions. */
    @JSFunctor
    interface Ask extends JSObject {

        /** See {@link CarriedPage#answer}. */
        String ask(String what, String body);
    }

    public static void main(String[] args) {
        offer(Main::open, (what, body) -> Language.in(language, () -> page.answer(what, body)));
    }

    private static String open(Int8Array bytes, String day, String tag, String[] sentences) {
        try {
            if (tag != null && !tag.equals("en")) {
                Map<String, String> own = new HashMap<>();
                for (int s = 0; s < sentences.length; s += 2) own.put(sentences[s], sentences[s + 1]);
                language = new Language(tag, own::get);
            }
            CarriedFile file = CarriedFile.read(bytes.copyToJavaArray(), JSON::read);
            page = new CarriedPage(file, JSON, day.isEmpty() ? LocalDate.now() : LocalDate.parse(day));
            return "";
        } catch (IllegalArgumentException unfit) {
            return String.valueOf(unfit.getMessage());
        }
    }

    /**
     * The browser's own shortest digits; those of the compiled library take ten times as long. A whole number ends in
     * .0, as Java has it.
     */
    @JSBody(
            params = "number",
            script =
                    "if (Math.floor(number) === number && number > -1e15 && number < 1e15) return (Object.is(number, -0) ? '-0' : number) + '.0';"
                            + " return String(number);")
    private static native String shortest(double number);

    @JSBody(
            params = {"open", "ask"},
            script = "globalThis.sarnikCore = { open: open, ask: ask };")
    private static native void offer(Open open, Ask ask);
}
