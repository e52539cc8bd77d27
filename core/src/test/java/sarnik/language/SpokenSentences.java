package sarnik.language;

import com.sun.source.tree.AnnotationTree;
import com.sun.source.tree.BinaryTree;
import com.sun.source.tree.ClassTree;
import com.sun.source.tree.CompilationUnitTree;
import com.sun.source.tree.ExpressionTree;
import com.sun.source.tree.LiteralTree;
import com.sun.source.tree.MethodInvocationTree;
import com.sun.source.tree.MethodTree;
import com.sun.source.tree.NewClassTree;
import com.sun.source.tree.Tree;
import com.sun.source.tree.VariableTree;
import com.sun.source.util.JavacTask;
import com.sun.source.util.SourcePositions;
import com.sun.source.util.TreePath;
import com.sun.source.util.TreePathScanner;
import com.sun.source.util.Trees;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Predicate;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import javax.tools.JavaCompiler;
import javax.tools.StandardJavaFileManager;
import javax.tools.ToolProvider;

/** Reads from Java sources which sentences are spoken, and which texts look like sentences and are not. */
public final class SpokenSentences {

    /** Two words, or a word with a space at an end: what reads like a piece of a sentence. */
    private static final Pattern WORDS =
            Pattern.compile(".*(\\p{L}{2,},? \\p{L}{2,}|\\p{L}{2,}[:,.]? $|^ [\\p{L},]).*", Pattern.DOTALL);

    /** With what tells it from a sentence that reads alike. */
    private static final Pattern TOLD_APART = Pattern.compile("[a-z]+(,? [a-z]+)*\\|[^|(_]+");

    private final Set<String> spoken = new TreeSet<>();
    private final List<String> silent = new ArrayList<>();
    private final Set<String> composing;

    /**
     * @param composing names of methods and fields whose sentences only authors read
     */
    public SpokenSentences(Set<String> composing) {
        this.composing = composing;
    }

    /** All first arguments of {@code phrase}. */
    public Set<String> spoken() {
        return spoken;
    }

    /** Texts that look like sentences and are not spoken, with where they stand. */
    public List<String> silent() {
        return silent;
    }

    /** @param left whether a source is left out of what should be spoken */
    public SpokenSentences read(Path sources, Predicate<Path> left) {
        JavaCompiler compiler = ToolProvider.getSystemJavaCompiler();
        try (Stream<Path> files = Files.walk(sources);
                StandardJavaFileManager manager = compiler.getStandardFileManager(null, null, null)) {
            Path root = sources.toAbsolutePath();
            List<Path> all = files.filter(f -> f.toString().endsWith(".java")).toList();
            JavacTask task = (JavacTask)
                    compiler.getTask(null, manager, null, null, null, manager.getJavaFileObjectsFromPaths(all));
            for (CompilationUnitTree unit : task.parse()) {
                Path file = Path.of(unit.getSourceFile().toUri());
                new Reader(unit, Trees.instance(task).getSourcePositions(), left.test(root.relativize(file)))
                        .scan(unit, null);
            }
            return this;
        } catch (IOException unreadable) {
            throw new UncheckedIOException(unreadable);
        }
    }

    private final class Reader extends TreePathScanner<Void, Void> {

        private final CompilationUnitTree unit;
        private final SourcePositions positions;
        private final boolean isLeft;

        private Reader(CompilationUnitTree unit, SourcePositions positions, boolean isLeft) {
            this.unit = unit;
            this.positions = positions;
            this.isLeft = isLeft;
        }

        @Override
        public Void visitMethodInvocation(MethodInvocationTree call, Void nothing) {
            if (nameOf(call).equals("phrase") && !call.getArguments().isEmpty()) {
                String sentence = constant(call.getArguments().get(0));
                if (sentence != null) spoken.add(sentence);
            }
            return super.visitMethodInvocation(call, nothing);
        }

        private String nameOf(MethodInvocationTree call) {
            String name = call.getMethodSelect().toString();
            return name.substring(name.lastIndexOf('.') + 1);
        }

        private String constant(ExpressionTree expression) {
            if (expression instanceof LiteralTree literal) return String.valueOf(literal.getValue());
            if (expression instanceof BinaryTree sum && sum.getKind() == Tree.Kind.PLUS) {
                String left = constant(sum.getLeftOperand());
                String right = constant(sum.getRightOperand());
                return left == null || right == null ? null : left + right;
            }
            return null;
        }

        @Override
        public Void visitLiteral(LiteralTree literal, Void nothing) {
            if (literal.getValue() instanceof String text
                    && TOLD_APART.matcher(text).matches()) spoken.add(text);
            if (!isLeft
                    && literal.getValue() instanceof String text
                    && WORDS.matcher(text).matches()
                    && !isSpoken())
                silent.add(unit.getSourceFile().getName().replaceFirst(".*/", "") + ":"
                        + unit.getLineMap().getLineNumber(positions.getStartPosition(unit, literal)) + " " + text);
            return null;
        }

        /** Whether it stands where it is spoken, or where only authors or programmers read it. */
        private boolean isSpoken() {
            for (TreePath at = getCurrentPath(); at != null; at = at.getParentPath()) {
                Tree tree = at.getLeaf();
                if (tree instanceof MethodInvocationTree call && nameOf(call).equals("phrase")) return true;
                if (tree instanceof NewClassTree made
                        && made.getIdentifier().toString().matches("Illegal\\w+|Option|Proposal|UncheckedIOException"))
                    return true;
                if (tree instanceof MethodTree method
                        && composing.contains(method.getName().toString())) return true;
                if (tree instanceof VariableTree field && at.getParentPath().getLeaf() instanceof ClassTree)
                    return true;
                if (tree instanceof AnnotationTree) return true;
            }
            return false;
        }
    }
}
