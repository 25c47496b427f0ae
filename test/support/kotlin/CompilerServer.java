import java.io.BufferedReader;
import java.io.ByteArrayOutputStream;
import java.io.File;
import java.io.InputStreamReader;
import java.io.PrintStream;
import java.lang.reflect.InvocationTargetException;
import java.net.URL;
import java.net.URLClassLoader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Base64;
import java.util.List;
import java.util.stream.Stream;
import org.jetbrains.kotlin.cli.common.ExitCode;
import org.jetbrains.kotlin.cli.jvm.K2JVMCompiler;

/**
 * A JVM that stays warm. Each line of its input is one command, its words separated by tabs: `compile` with the
 * compiler's arguments, `load` with a class path and a folder whose classes are all loaded, `run` with a class path, the
 * class of a program and its arguments. Each is answered by one line: `ok` or `failed`, a tab, and what it printed in
 * Base64.
 */
public final class CompilerServer {
    public static void main(String[] args) throws Exception {
        PrintStream out = System.out;
        BufferedReader in = new BufferedReader(new InputStreamReader(System.in, StandardCharsets.UTF_8));
        for (String line = in.readLine(); line != null; line = in.readLine()) {
            String[] words = line.split("\t", -1);
            ByteArrayOutputStream printed = new ByteArrayOutputStream();
            boolean isFine;
            try (PrintStream into = new PrintStream(printed, true, StandardCharsets.UTF_8)) {
                isFine = perform(words, into);
            }
            out.println((isFine ? "ok" : "failed") + "\t" + Base64.getEncoder().encodeToString(printed.toByteArray()));
            out.flush();
        }
        System.exit(0);
    }

    private static boolean perform(String[] words, PrintStream into) {
        String[] rest = Arrays.copyOfRange(words, 1, words.length);
        try {
            switch (words[0]) {
                case "compile":
                    return new K2JVMCompiler().exec(into, rest) == ExitCode.OK;
                case "load":
                    return load(rest, into);
                default:
                    return run(rest, into);
            }
        } catch (Throwable error) {
            error.printStackTrace(into);
            return false;
        }
    }

    /** Initialises every class below a folder: the JVM refuses what the compiler let through. */
    private static boolean load(String[] rest, PrintStream into) throws Exception {
        Path folder = Path.of(rest[1]);
        boolean isFine = true;
        int count = 0;
        try (URLClassLoader loader = loaderOf(rest[0] + File.pathSeparator + rest[1]); Stream<Path> files = Files.walk(folder)) {
            for (Path file : (Iterable<Path>) files.filter(each -> each.toString().endsWith(".class"))::iterator) {
                String name = folder.relativize(file).toString();
                name = name.substring(0, name.length() - ".class".length()).replace(File.separatorChar, '.');
                try {
                    Class.forName(name, true, loader);
                    count++;
                } catch (Throwable error) {
                    into.println(name + ": " + error);
                    isFine = false;
                }
            }
        }
        into.println(count + " classes");
        return isFine;
    }

    private static boolean run(String[] rest, PrintStream into) throws Throwable {
        PrintStream out = System.out;
        System.setOut(into);
        try (URLClassLoader loader = loaderOf(rest[0])) {
            Thread.currentThread().setContextClassLoader(loader);
            Class<?> program = Class.forName(rest[1], true, loader);
            program.getMethod("main", String[].class).invoke(null, (Object) Arrays.copyOfRange(rest, 2, rest.length));
            return true;
        } catch (InvocationTargetException error) {
            throw error.getCause();
        } finally {
            System.setOut(out);
        }
    }

    private static URLClassLoader loaderOf(String classPath) throws Exception {
        List<URL> urls = new ArrayList<>();
        for (String path : classPath.split(File.pathSeparator)) urls.add(new File(path).toURI().toURL());
        return new URLClassLoader(urls.toArray(new URL[0]), ClassLoader.getPlatformClassLoader());
    }
}
