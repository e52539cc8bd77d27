package sarnik.compiled;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.teavm.diagnostics.DefaultProblemTextConsumer;
import org.teavm.diagnostics.Problem;
import org.teavm.tooling.TeaVMTargetType;
import org.teavm.tooling.TeaVMTool;
import org.teavm.vm.TeaVMOptimizationLevel;

/**
 * The same core in the browser: it is compiled to JavaScript and asked what the Java one is asked. What it answers has
 * to be the same, bit for bit.
 */
@DisplayName("The core, compiled to JavaScript")
class SameCoreTest {

    @TempDir
    private Path directory;

    @Test
    void answersBitForBitWhatJavaAnswers() throws Exception {
        List<String> troubles = compile();
        assertThat(troubles).isEmpty();
        List<String> here = java();
        List<String> there = javaScript();
        assertThat(here).hasSizeGreaterThan(2000);
        for (int i = 0; i < Math.min(here.size(), there.size()); i++)
            assertThat(there.get(i)).as("line %d", i + 1).isEqualTo(here.get(i));
        assertThat(there).hasSameSizeAs(here);
    }

    private List<String> compile() throws Exception {
        TeaVMTool tool = new TeaVMTool();
        tool.setClassLoader(SameCore.class.getClassLoader());
        tool.setMainClass(SameCore.class.getName());
        tool.setTargetType(TeaVMTargetType.JAVASCRIPT);
        tool.setTargetDirectory(directory.toFile());
        tool.setTargetFileName("core.js");
        tool.setOptimizationLevel(TeaVMOptimizationLevel.ADVANCED);
        tool.setObfuscated(false);
        tool.generate();
        return tool.getProblemProvider().getSevereProblems().stream()
                .map(SameCoreTest::words)
                .distinct()
                .toList();
    }

    private static String words(Problem problem) {
        DefaultProblemTextConsumer text = new DefaultProblemTextConsumer();
        problem.render(text);
        return text.getText() + " at "
                + (problem.getLocation() == null ? "?" : problem.getLocation().getMethod());
    }

    private static List<String> java() {
        PrintStream before = System.out;
        ByteArrayOutputStream said = new ByteArrayOutputStream();
        System.setOut(new PrintStream(said, true, StandardCharsets.UTF_8));
        try {
            SameCore.main(new String[0]);
        } finally {
            System.setOut(before);
        }
        return said.toString(StandardCharsets.UTF_8).lines().toList();
    }

    private List<String> javaScript() throws IOException, InterruptedException {
        Path out = directory.resolve("said");
        Process node = new ProcessBuilder("node", "-e", "require('./core.js').main([])")
                .directory(directory.toFile())
                .redirectOutput(out.toFile())
                .redirectErrorStream(true)
                .start();
        assertThat(node.waitFor(120, TimeUnit.SECONDS)).isTrue();
        assertThat(node.exitValue()).as(Files.readString(out)).isZero();
        return Files.readAllLines(out);
    }
}
