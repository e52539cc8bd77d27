package sarnik.table;

import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;

/**
 * How a CSV file is written, found by looking at it.
 *
 * @param charset UTF-16 by its mark or its noughts, UTF-8 if every byte of the file fits it, else Windows-1252
 * @param delimiter comma, semicolon, tab or bar
 * @param quote stands around cells that hold the delimiter
 */
record CsvForm(Charset charset, char delimiter, char quote) {

    private static final char[] DELIMITERS = {',', ';', '\t', '|'};
    private static final int LOOK = 1 << 16;
    private static final int FEW = 3;

    /** Lines that are looked at for the mark between cells. */
    private static final int LINES = 20;

    /**
     * @throws UnreadableTableException when the file is empty or is not text
     */
    static CsvForm look(Path file, FileChoices choices) throws IOException {
        byte[] head;
        try (InputStream in = Files.newInputStream(file)) {
            head = in.readNBytes(LOOK);
        }
        if (head.length == 0) {
            throw new UnreadableTableException(
                    "The file is empty. Choose the file that holds the rows, with the column names in its first line.");
        }
        Charset wide = wide(head);
        if (wide == null) refuseOtherFormats(head);
        Charset charset = choices.charset() != null
                ? charset(choices.charset())
                : wide != null ? wide : isUtf8(file) ? StandardCharsets.UTF_8 : Charset.forName("windows-1252");
        char quote = choices.quote() == null ? '"' : choices.quote().charAt(0);
        char delimiter = choices.delimiter() == null
                ? delimiter(new String(head, charset))
                : choices.delimiter().charAt(0);
        if (delimiter == quote || delimiter == '\n' || delimiter == '\r' || quote == '\n' || quote == '\r') {
            throw new UnreadableTableException(
                    "The mark between cells and the mark around them have to be two different marks, and no "
                            + "line ends.");
        }
        return new CsvForm(charset, delimiter, quote);
    }

    /**
     * UTF-16 by its mark at the start, or by its noughts: of text in Latin letters every other byte is one. Null where
     * it is neither.
     */
    private static Charset wide(byte[] head) {
        if (startsWith(head, 0xFE, 0xFF)) return StandardCharsets.UTF_16BE;
        if (startsWith(head, 0xFF, 0xFE)) return StandardCharsets.UTF_16LE;
        int[] noughts = new int[2];
        for (int i = 0; i < head.length; i++) if (head[i] == 0) noughts[i & 1]++;
        int half = head.length / 2;
        if (half < 4 || Math.min(noughts[0], noughts[1]) * 20 > half) return null;
        return noughts[0] * 2 > half
                ? StandardCharsets.UTF_16BE
                : noughts[1] * 2 > half ? StandardCharsets.UTF_16LE : null;
    }

    private static Charset charset(String name) {
        try {
            return Charset.forName(name);
        } catch (IllegalArgumentException unknown) {
            throw new UnreadableTableException("There is no encoding called “" + name
                    + "”. Choose UTF-8, Windows-1252 or another that is listed.");
        }
    }

    /** How the file is written, for people. */
    String words() {
        return "CSV, " + charset.displayName() + ", "
                + switch (delimiter) {
                    case ',' -> "commas";
                    case ';' -> "semicolons";
                    case '\t' -> "tabs";
                    case '|' -> "bars";
                    default -> "“" + delimiter + "”";
                }
                + " between cells";
    }

    private static void refuseOtherFormats(byte[] head) {
        String kind = startsWith(head, 'P', 'K', 3, 4)
                ? "a ZIP archive (a workbook, perhaps)"
                : startsWith(head, '%', 'P', 'D', 'F')
                        ? "a PDF document"
                        : startsWith(head, 0x89, 'P', 'N', 'G') || startsWith(head, 0xFF, 0xD8, 0xFF)
                                ? "a picture"
                                : startsWith(head, 0x1F, 0x8B)
                                        ? "a gzip archive"
                                        : startsWith(head, 'S', 'Q', 'L', 'i') ? "an SQLite database" : null;
        if (kind == null) {
            int odd = 0;
            for (byte b : head) if (b >= 0 && b < 32 && b != '\n' && b != '\r' && b != '\t' && b != '\f') odd++;
            // Stray control characters are troubles of their cells; one in fifty bytes, or one in five of a few, is no
            // text.
            if (odd * 50 > head.length && (odd > FEW || odd * 5 > head.length)) kind = "something other than text";
        }
        if (kind != null) {
            throw new UnreadableTableException("This is not a CSV file: it looks like " + kind
                    + ". Save the table as CSV (text with commas or semicolons) and choose that file.");
        }
    }

    private static boolean startsWith(byte[] head, int... magic) {
        if (head.length < magic.length) return false;
        for (int i = 0; i < magic.length; i++) if ((head[i] & 0xFF) != magic[i]) return false;
        return true;
    }

    private static boolean isUtf8(Path file) throws IOException {
        var decoder = StandardCharsets.UTF_8
                .newDecoder()
                .onMalformedInput(CodingErrorAction.REPORT)
                .onUnmappableCharacter(CodingErrorAction.REPORT);
        var chars = java.nio.CharBuffer.allocate(LOOK);
        ByteBuffer bytes = ByteBuffer.allocate(LOOK);
        try (var channel = Files.newByteChannel(file)) {
            boolean end = false;
            while (!end) {
                end = channel.read(bytes) < 0;
                bytes.flip();
                while (true) {
                    chars.clear();
                    var result = decoder.decode(bytes, chars, end);
                    if (result.isError()) result.throwException();
                    if (result.isUnderflow()) break;
                }
                bytes.compact();
            }
            return true;
        } catch (CharacterCodingException malformed) {
            return false;
        }
    }

    /**
     * The delimiter that occurs outside quotes most evenly and most often over the first lines: in all of them, else,
     * where titles or notes stand around the table, equally often in most of them.
     */
    private static char delimiter(String head) {
        List<String> lines = Arrays.stream(head.split("\r?\n", LINES + 1))
                .limit(LINES)
                .filter(line -> !line.isBlank())
                .toList();
        char best = ',';
        int bestCount = 0;
        for (char candidate : DELIMITERS) {
            int count = lines.stream()
                    .mapToInt(line -> occurrences(line, candidate))
                    .min()
                    .orElse(0);
            if (count > bestCount) {
                bestCount = count;
                best = candidate;
            }
        }
        return bestCount > 0 ? best : inMostLines(lines);
    }

    private static char inMostLines(List<String> lines) {
        char best = ',';
        int bestLines = 0;
        int bestCount = 0;
        for (char candidate : DELIMITERS) {
            Map<Integer, Integer> linesOf = new TreeMap<>();
            for (String line : lines) linesOf.merge(occurrences(line, candidate), 1, Integer::sum);
            linesOf.remove(0);
            for (var of : linesOf.entrySet()) {
                if (of.getValue() < bestLines || of.getValue() == bestLines && of.getKey() <= bestCount) continue;
                best = candidate;
                bestLines = of.getValue();
                bestCount = of.getKey();
            }
        }
        return best;
    }

    private static int occurrences(String line, char mark) {
        int count = 0;
        boolean quoted = false;
        for (int i = 0; i < line.length(); i++) {
            char c = line.charAt(i);
            if (c == '"') quoted = !quoted;
            else if (c == mark && !quoted) count++;
        }
        return count;
    }
}
