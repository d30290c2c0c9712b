package dev.oddbeacon.git;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import org.eclipse.jgit.lib.NullProgressMonitor;
import org.eclipse.jgit.lib.Ref;
import org.eclipse.jgit.lib.Repository;
import org.eclipse.jgit.storage.file.FileRepositoryBuilder;
import org.eclipse.jgit.transport.BundleWriter;

/** A mirror as one file that {@code git clone} takes. */
public final class MirrorBundle {
    private MirrorBundle() {}

    /**
     * Writes all branches and tags of a mirror.
     *
     * @param file that is made
     * @return whether there was any; if not, nothing is written
     */
    public static boolean write(Path mirror, Path file) throws IOException {
        try (Repository repository = new FileRepositoryBuilder()
                .setGitDir(mirror.toFile())
                .setBare()
                .setMustExist(true)
                .build()) {
            BundleWriter writer = new BundleWriter(repository);
            int count = 0;
            for (Ref ref : repository.getRefDatabase().getRefs()) {
                if (ref.getObjectId() != null
                        && !ref.isSymbolic()
                        && ref.getName().startsWith("refs/")) {
                    writer.include(ref);
                    count++;
                }
            }
            if (count == 0) {
                return false;
            }
            try (OutputStream out = Files.newOutputStream(file)) {
                writer.writeBundle(NullProgressMonitor.INSTANCE, out);
            }
            return true;
        }
    }
}
