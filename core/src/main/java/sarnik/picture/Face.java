package sarnik.picture;

import java.awt.Font;
import java.awt.FontFormatException;
import java.awt.font.FontRenderContext;
import java.awt.font.TextAttribute;
import java.awt.font.TextLayout;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.text.AttributedString;
import java.util.List;

/** The faces of the letters in pictures: those of the pages. What they lack is taken from the machine's own. */
enum Face {
    TEXT("text", Font.PLAIN),
    BOLD("text-bold", Font.BOLD),
    TITLE("title", Font.BOLD);

    private static final FontRenderContext PLAIN = new FontRenderContext(null, true, true);

    private final String file;
    private final List<Font> fonts;

    Face(String file, int otherwise) {
        this.file = file;
        fonts = List.of(read(file), read(file + "-ext"), new Font(Font.SANS_SERIF, otherwise, 1));
    }

    private static Font read(String name) {
        try {
            return Font.createFont(Font.TRUETYPE_FONT, new ByteArrayInputStream(bytes(name)));
        } catch (FontFormatException damaged) {
            throw new IllegalStateException(damaged);
        } catch (IOException unread) {
            throw new UncheckedIOException(unread);
        }
    }

    private static byte[] bytes(String name) {
        try (InputStream in = Face.class.getResourceAsStream("/sarnik/picture/" + name + ".ttf")) {
            return in.readAllBytes();
        } catch (IOException missing) {
            throw new UncheckedIOException(missing);
        }
    }

    /** Its letters but for rare ones, as a TrueType file. */
    byte[] file() {
        return bytes(file);
    }

    /**
     * A line of text, ready to be drawn.
     *
     * @param text not blank
     * @param size pixels
     */
    TextLayout layout(String text, double size, FontRenderContext context) {
        AttributedString line = new AttributedString(text);
        int from = 0;
        while (from < text.length()) {
            Font font = fontOf(text.codePointAt(from));
            int to = from;
            while (to < text.length() && fontOf(text.codePointAt(to)) == font)
                to += Character.charCount(text.codePointAt(to));
            line.addAttribute(TextAttribute.FONT, font.deriveFont((float) size), from, to);
            from = to;
        }
        return new TextLayout(line.getIterator(), context);
    }

    private Font fontOf(int letter) {
        return fonts.stream().filter(f -> f.canDisplay(letter)).findFirst().orElse(fonts.get(fonts.size() - 1));
    }

    /** How wide a line of text is, pixels. */
    double wide(String text, double size) {
        return text.isBlank() ? 0 : layout(text, size, PLAIN).getAdvance();
    }
}
