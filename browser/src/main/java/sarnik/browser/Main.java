package sarnik.browser;

import java.time.LocalDate;
import org.teavm.jso.JSBody;
import org.teavm.jso.JSFunctor;
import org.teavm.jso.JSObject;
import org.teavm.jso.typedarrays.Int8Array;
import sarnik.carried.CarriedFile;
import sarnik.carried.CarriedPage;
import sarnik.carried.RecordJson;

/** The core in the browser: opens what was carried away and answers its page. Compiled to JavaScript by the build. */
public final class Main {

    private static final RecordJson JSON = Records.json();

    private static CarriedPage page;

    private Main() {}

    /** Takes the bytes of what was carried away. */
    @JSFunctor
    interface Open extends JSObject {

        /**
         * @param bytes as {@link CarriedFile} has them
         * @param day the day that relative periods are counted from, ISO 8601; empty for today
         * @return why it cannot be opened; empty where it is open
         */
        String open(Int8Array bytes, String day);
    }

    /** Answers questions. */
    @JSFunctor
    interface Ask extends JSObject {

        /** See {@link CarriedPage#answer}. */
        String ask(String what, String body);
    }

    public static void main(String[] args) {
        offer(Main::open, (what, body) -> page.answer(what, body));
    }

    private static String open(Int8Array bytes, String day) {
        try {
            CarriedFile file = CarriedFile.read(bytes.copyToJavaArray(), JSON::read);
            page = new CarriedPage(file, JSON, day.isEmpty() ? LocalDate.now() : LocalDate.parse(day));
            return "";
        } catch (IllegalArgumentException unfit) {
            return String.valueOf(unfit.getMessage());
        }
    }

    @JSBody(
            params = {"open", "ask"},
            script = "globalThis.sarnikCore = { open: open, ask: ask };")
    private static native void offer(Open open, Ask ask);
}
