package aedifex;

import java.io.BufferedReader;
import java.io.InputStreamReader;
import java.io.PrintStream;
import java.io.StringWriter;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import javax.tools.JavaCompiler;
import javax.tools.StandardJavaFileManager;
import javax.tools.ToolProvider;

/** The compiler, kept warm: a request a line (class path, folder for classes, files; tabs between), an answer for each. */
public final class Compiler {
    public static void main(String[] args) throws Exception {
        Locale.setDefault(Locale.ROOT);
        JavaCompiler compiler = ToolProvider.getSystemJavaCompiler();
        PrintStream out = new PrintStream(System.out, true, StandardCharsets.UTF_8);
        BufferedReader in = new BufferedReader(new InputStreamReader(System.in, StandardCharsets.UTF_8));
        for (String line = in.readLine(); line != null; line = in.readLine()) {
            String[] parts = line.split("\t");
            StringWriter said = new StringWriter();
            boolean fine = false;
            try (StandardJavaFileManager files = compiler.getStandardFileManager(null, Locale.ROOT, StandardCharsets.UTF_8)) {
                List<String> options = new ArrayList<>(List.of("-nowarn", "-g", "-proc:none", "-cp", parts[0], "-d", parts[1]));
                var units = files.getJavaFileObjects(Arrays.copyOfRange(parts, 2, parts.length));
                fine = compiler.getTask(said, files, null, options, null, units).call();
            } catch (RuntimeException error) {
                said.write(String.valueOf(error));
            }
            out.print(said);
            out.println();
            out.println("\u0001" + (fine ? "fine" : "refused"));
        }
    }
}
