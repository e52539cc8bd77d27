package sarnik.visual.words;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;
import java.util.regex.Pattern;
import org.commonmark.node.BlockQuote;
import org.commonmark.node.BulletList;
import org.commonmark.node.Code;
import org.commonmark.node.Emphasis;
import org.commonmark.node.FencedCodeBlock;
import org.commonmark.node.HardLineBreak;
import org.commonmark.node.Heading;
import org.commonmark.node.HtmlBlock;
import org.commonmark.node.HtmlInline;
import org.commonmark.node.Image;
import org.commonmark.node.IndentedCodeBlock;
import org.commonmark.node.Link;
import org.commonmark.node.ListItem;
import org.commonmark.node.Node;
import org.commonmark.node.OrderedList;
import org.commonmark.node.Paragraph;
import org.commonmark.node.SoftLineBreak;
import org.commonmark.node.StrongEmphasis;
import org.commonmark.node.Text;
import org.commonmark.node.ThematicBreak;
import org.commonmark.parser.Parser;
import sarnik.data.Template;

/**
 * A text in CommonMark as parts that are drawn one by one. There is no markup on the way, so none can be smuggled in:
 * HTML in the text is read as text, and a link leads only where a link of a page may.
 */
final class CommonMark {

    private static final Parser PARSER = Parser.builder().build();
    private static final Pattern SAFE = Pattern.compile("(?i)(?:https?://|mailto:|/|#).*");

    private final Function<Template.Field, String> figure;

    private CommonMark(Function<Template.Field, String> figure) {
        this.figure = figure;
    }

    /**
     * @param figure what stands for a field; null where it is not known and stays as it is
     */
    static List<WordsDrawing.Node> of(String text, Function<Template.Field, String> figure) {
        return new CommonMark(figure).children(PARSER.parse(text));
    }

    private List<WordsDrawing.Node> children(Node parent) {
        List<WordsDrawing.Node> parts = new ArrayList<>();
        for (Node node = parent.getFirstChild(); node != null; node = node.getNext()) add(node, parts);
        return parts;
    }

    private void add(Node node, List<WordsDrawing.Node> parts) {
        if (node instanceof Text text) words(text.getLiteral(), parts);
        else if (node instanceof Code code) parts.add(leaf("code", code.getLiteral()));
        else if (node instanceof HtmlInline html) parts.add(leaf("text", html.getLiteral()));
        else if (node instanceof HtmlBlock html)
            parts.add(new WordsDrawing.Node("paragraph", null, 0, null, List.of(leaf("text", html.getLiteral()))));
        else if (node instanceof FencedCodeBlock code) parts.add(leaf("code", code.getLiteral()));
        else if (node instanceof IndentedCodeBlock code) parts.add(leaf("code", code.getLiteral()));
        else if (node instanceof SoftLineBreak) parts.add(leaf("text", " "));
        else if (node instanceof HardLineBreak) parts.add(leaf("line", ""));
        else if (node instanceof ThematicBreak) parts.add(leaf("rule", ""));
        else if (node instanceof Image image) parts.addAll(children(image));
        else if (node instanceof Link link) {
            boolean safe = SAFE.matcher(link.getDestination()).matches();
            parts.add(new WordsDrawing.Node(
                    safe ? "link" : "emphasis", null, 0, safe ? link.getDestination() : null, children(link)));
        } else if (node instanceof Heading heading)
            parts.add(new WordsDrawing.Node("heading", null, Math.min(3, heading.getLevel()), null, children(node)));
        else parts.add(new WordsDrawing.Node(kind(node), null, 0, null, children(node)));
    }

    private static String kind(Node node) {
        if (node instanceof Paragraph) return "paragraph";
        if (node instanceof BulletList) return "list";
        if (node instanceof OrderedList) return "numbers";
        if (node instanceof ListItem) return "item";
        if (node instanceof BlockQuote) return "quote";
        if (node instanceof StrongEmphasis) return "strong";
        if (node instanceof Emphasis) return "emphasis";
        return "paragraph";
    }

    private static WordsDrawing.Node leaf(String kind, String text) {
        return new WordsDrawing.Node(kind, text, 0, null, List.of());
    }

    /** Text with the names in braces replaced by figures. */
    private void words(String text, List<WordsDrawing.Node> parts) {
        for (Template.Part part : Template.of(text).parts()) {
            if (part instanceof Template.Literal literal) parts.add(leaf("text", literal.text()));
            else if (part instanceof Template.Field field) {
                String found = figure.apply(field);
                parts.add(found == null ? leaf("text", field.written()) : leaf("figure", found));
            }
        }
    }
}
