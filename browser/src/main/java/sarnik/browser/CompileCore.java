package sarnik.browser;

import java.io.File;
import java.util.Set;
import java.util.TreeSet;
import org.teavm.diagnostics.DefaultProblemTextConsumer;
import org.teavm.diagnostics.Problem;
import org.teavm.tooling.TeaVMTargetType;
import org.teavm.tooling.TeaVMTool;
import org.teavm.tooling.TeaVMToolException;
import org.teavm.vm.TeaVMOptimizationLevel;

/** Compiles the core to JavaScript. Part of the build; never runs in the application. */
final class CompileCore {

    private CompileCore() {}

    /** @param args the folder to write core.js to */
    public static void main(String[] args) throws TeaVMToolException {
        TeaVMTool tool = new TeaVMTool();
        tool.setClassLoader(CompileCore.class.getClassLoader());
        tool.setMainClass(Main.class.getName());
        tool.setTargetType(TeaVMTargetType.JAVASCRIPT);
        tool.setTargetDirectory(new File(args[0]));
        tool.setTargetFileName("core.js");
        tool.setOptimizationLevel(TeaVMOptimizationLevel.ADVANCED);
        tool.setObfuscated(true);
        tool.generate();
        Set<String> troubles = new TreeSet<>();
        for (Problem problem : tool.getProblemProvider().getSevereProblems()) {
            DefaultProblemTextConsumer text = new DefaultProblemTextConsumer();
            problem.render(text);
            troubles.add(text.getText()
                    + (problem.getLocation() == null
                            ? ""
                            : " at " + problem.getLocation().getMethod()));
        }
        if (!troubles.isEmpty())
            throw new IllegalStateException("The core cannot be compiled: " + String.join("; ", troubles));
    }
}
