package dev.oddbeacon.server.objects;

import dev.oddbeacon.server.CannotStartException;
import dev.oddbeacon.server.Settings;
import java.io.IOException;
import java.nio.file.Path;
import org.springframework.boot.autoconfigure.condition.ConditionalOnExpression;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** The store that settings name; none with one machine. */
@Configuration
class ObjectsConfiguration {
    @Bean
    @ConditionalOnExpression("'${oddbeacon.cluster.objects:}' != ''")
    static ObjectStore objectStore(Settings settings) {
        Settings.Cluster cluster = settings.cluster();
        try {
            ObjectStore store = S3Store.isNamedBy(cluster.objects())
                    ? new S3Store(cluster)
                    : new FolderStore(Path.of(cluster.objects()));
            store.list();
            return store;
        } catch (IOException e) {
            throw new CannotStartException("The objects of the cluster in " + cluster.objects() + " cannot be reached: "
                    + e.getMessage() + ". Look at --objects, and whether it is there.");
        }
    }
}
