package dev.oddbeacon.server.catalogue;

import dev.oddbeacon.git.Location;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.stereotype.Component;

/** Registered repositories by where they lie, however that is written. */
@Component
public class Locations {
    private final Catalogue catalogue;
    private final Map<String, Optional<String>> keys = new ConcurrentHashMap<>(); // by location: links are followed
    private volatile Addresses known = new Addresses(List.of(), Map.of());

    Locations(Catalogue catalogue) {
        this.catalogue = catalogue;
    }

    /** @param of the repositories that it was made of */
    private record Addresses(List<Repository> of, Map<String, List<Repository>> byKey) {}

    /** Those that lie there, whoever may see them. @param location as it may be written for other protocols or users */
    public List<Repository> at(String location) {
        return Location.key(location)
                .map(key -> addresses().byKey.getOrDefault(key, List.of()))
                .orElse(List.of());
    }

    private Addresses addresses() {
        List<Repository> all = catalogue.all();
        Addresses addresses = known;
        if (addresses.of != all) {
            Map<String, List<Repository>> byKey = new HashMap<>();
            for (Repository repository : all) {
                keys.computeIfAbsent(repository.location(), Location::key)
                        .ifPresent(key -> byKey.computeIfAbsent(key, _ -> new ArrayList<>())
                                .add(repository));
            }
            addresses = new Addresses(all, byKey);
            known = addresses;
        }
        return addresses;
    }
}
