package org.teavm.classlib.java.text;

import org.teavm.jso.JSBody;

/** {@link java.text.Normalizer} for the compiled core, whose library has none: the browser's own. */
public final class TNormalizer {

    private TNormalizer() {}

    /** The four forms of Unicode. */
    public enum Form {
        NFC,
        NFD,
        NFKC,
        NFKD
    }

    public static String normalize(CharSequence text, Form form) {
        return normalized(text.toString(), form.name());
    }

    @JSBody(
            params = {"text", "form"},
            script = "return text.normalize(form);")
    private static native String normalized(String text, String form);
}
