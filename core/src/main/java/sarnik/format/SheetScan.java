package sarnik.format;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.Locale;

/**
 * Goes through the bytes of a sheet's XML, several times as fast as a reader of XML, to see that there is nothing a
 * closer look is
 * needed for: every attribute {@code r} names a cell or row that a sheet has, and no cells are merged. Whatever is not
 * plain, an
 * encoding other than UTF-8 or a reference with an entity in it among others, asks for the closer look.
 */
final class SheetScan {

    private static final int BUFFER = 1 << 16;
    private static final int DECLARATION = 120;
    private static final int LONGEST = 12;
    private static final byte[] MERGE = "mergeCell".getBytes(StandardCharsets.US_ASCII);

    private final InputStream in;
    private final byte[] buffer = new byte[BUFFER];
    private int size;
    private int at;

    private SheetScan(InputStream in) {
        this.in = in;
    }

    static boolean isPlain(InputStream in) throws IOException {
        return new SheetScan(in).run();
    }

    private int next() throws IOException {
        if (at == size) {
            size = in.read(buffer);
            at = 0;
            if (size <= 0) {
                size = 0;
                return -1;
            }
        }
        return buffer[at++] & 0xFF;
    }

    private boolean run() throws IOException {
        size = in.readNBytes(buffer, 0, BUFFER);
        String head = new String(buffer, 0, Math.min(size, DECLARATION), StandardCharsets.ISO_8859_1)
                .toLowerCase(Locale.ROOT);
        if (head.indexOf('\0') >= 0
                || head.startsWith("\u00FE")
                || head.startsWith("\u00FF")
                || head.contains("encoding") && !head.matches("(?s).*encoding\\s*=\\s*[\"']utf-8[\"'].*")) return false;
        int before = ' ';
        for (int c = next(); c >= 0; before = c, c = next()) {
            if (c == 'r' && before <= ' ') {
                c = afterBlanks();
                if (c != '=') continue;
                c = afterBlanks();
                if (c != '"' && c != '\'') return false;
                if (!isReference(c)) return false;
            } else if (c == 'm' && (before == '<' || before == ':')) {
                int same = 1;
                while (same < MERGE.length && (c = next()) == MERGE[same]) same++;
                if (same == MERGE.length) return false;
            }
        }
        return true;
    }

    private int afterBlanks() throws IOException {
        int c = next();
        while (c == ' ' || c == '\t' || c == '\r' || c == '\n') c = next();
        return c;
    }

    /** Whether what stands up to the quote is a cell, or a row, that a sheet has. */
    private boolean isReference(int quote) throws IOException {
        int column = 0;
        int row = 0;
        int length = 0;
        for (int c = next(); c != quote; c = next()) {
            if (++length > LONGEST) return false;
            if (row == 0 && (c >= 'A' && c <= 'Z' || c >= 'a' && c <= 'z')) column = column * 26 + (c & 0x1F);
            else if (c >= '0' && c <= '9') row = row * 10 + c - '0';
            else return false;
            if (column > Sheets.MOST_COLUMNS || row > Sheets.MOST_ROWS) return false;
        }
        return true;
    }
}
