package dev.oddbeacon.server.searches;

import dev.oddbeacon.api.Role;
import dev.oddbeacon.api.SavedSearch;
import dev.oddbeacon.api.SavedSearch.Subject;
import dev.oddbeacon.core.query.FileCondition;
import dev.oddbeacon.core.query.Glob;
import dev.oddbeacon.core.query.InvalidQueryException;
import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.server.access.Caller;
import dev.oddbeacon.server.access.CallerContext;
import dev.oddbeacon.server.access.Contexts;
import dev.oddbeacon.server.accounts.Account;
import dev.oddbeacon.server.catalogue.Catalogue;
import dev.oddbeacon.server.catalogue.Repository;
import dev.oddbeacon.server.records.SavedSearchRecord;
import dev.oddbeacon.server.records.SavedSearchRecords;
import dev.oddbeacon.server.web.BadRequestException;
import dev.oddbeacon.server.web.ConflictException;
import dev.oddbeacon.server.web.ForbiddenException;
import dev.oddbeacon.server.web.GivenNames;
import dev.oddbeacon.server.web.NotFoundException;
import dev.oddbeacon.server.web.Parameters;
import dev.oddbeacon.server.web.Versions;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.SortedMap;
import org.springframework.dao.DataIntegrityViolationException;
import org.springframework.orm.ObjectOptimisticLockingFailureException;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/**
 * Searches with a name. Each caller has their own, those of their teams, and everybody's; of the same name, the nearer one
 * is meant.
 */
@Component
public class SavedSearches {
    private static final String ONE = "saved search";
    static final String EVERYBODY = Repository.EVERYBODY;
    /** Begins the owner of a search that a repository keeps. */
    static final String REPOSITORY = Repository.KEEPER;

    private static final String ME = "me";
    private static final String TEAM = Repository.team("");
    private static final int LONGEST = 1_000_000; // characters of all parameters
    private static final String A_SEARCH = "a saved search";
    private static final String FILE = "file";

    private final SavedSearchRecords records;
    private final TransactionTemplate transaction;
    private final Contexts contexts;
    private final KeptWorklists worklists;
    private final Catalogue catalogue;

    SavedSearches(
            SavedSearchRecords records,
            TransactionTemplate transaction,
            Contexts contexts,
            KeptWorklists worklists,
            Catalogue catalogue) {
        this.records = records;
        this.transaction = transaction;
        this.contexts = contexts;
        this.worklists = worklists;
        this.catalogue = catalogue;
    }

    /** All that somebody has, the nearest first among those of one name. */
    public List<SavedSearch> of(Caller caller) {
        return List.copyOf(had(caller).values());
    }

    /** The same by the ids of their records, in the same order. */
    public Map<Long, SavedSearch> had(Caller caller) {
        try (CallerContext context = contexts.open(caller)) {
            List<String> owners = owners(caller);
            List<SavedSearchRecord> had = new ArrayList<>(records.findByOwnerIn(owners));
            for (SavedSearchRecord record : records.findByOwnerStartingWith(REPOSITORY)) {
                if (context.find(record.owner().substring(REPOSITORY.length())).isPresent()) {
                    owners.add(record.owner());
                    had.add(record);
                }
            }
            had.sort(Comparator.comparing(SavedSearchRecord::name)
                    .thenComparingInt(record -> owners.indexOf(record.owner())));
            Map<Long, SavedSearch> searches = new LinkedHashMap<>();
            Set<Long> listed = worklists.searches();
            had.forEach(record -> info(caller, context, record, listed.contains(record.id()))
                    .ifPresent(search -> searches.put(record.id(), search)));
            return searches;
        }
    }

    /**
     * The one that is meant by a name.
     *
     * @param of whose it is, if that is said
     */
    public SavedSearch get(Caller caller, String name, Optional<String> of) {
        return named(of(caller), name, of);
    }

    /** The same, as it is run. */
    public KnownSearch find(Caller caller, String name, Optional<String> of) {
        String owner = ownerOf(caller, get(caller, name, of).of());
        return records.findByOwnerAndName(owner, name).map(KnownSearch::of).orElseThrow(() -> notThere(name));
    }

    /** @throws ForbiddenException if the caller may not change what is of that owner */
    public void demandChange(Caller caller, KnownSearch search) {
        owner(caller, search.owner().startsWith(REPOSITORY) ? EVERYBODY : told(caller, search.owner()));
    }

    private static String ownerOf(Caller caller, String told) {
        return switch (told) {
            case EVERYBODY -> "";
            case ME -> Repository.person(caller.account().orElseThrow().name());
            default -> told;
        };
    }

    private static SavedSearch named(List<SavedSearch> searches, String name, Optional<String> of) {
        return searches.stream()
                .filter(search -> search.name().equals(name)
                        && of.map(search.of()::equals).orElse(true))
                .findFirst()
                .orElseThrow(() -> notThere(name));
    }

    private static NotFoundException notThere(String name) {
        return new NotFoundException("There is no saved search " + name + ". GET /api/v1/saved-searches lists all.");
    }

    /** Empty if it names a repository that the caller may not see. */
    private Optional<SavedSearch> info(
            Caller caller, CallerContext context, SavedSearchRecord record, boolean isWorklist) {
        Map<String, List<String>> parameters =
                JsonMapper.shared().readValue(record.parameters(), new TypeReference<Map<String, List<String>>>() {});
        String problem = null;
        try {
            Query query = Subjects.query(context, Subjects.named(record.subject()), parameters);
            if (namesHidden(context, query)) {
                return Optional.empty();
            }
            context.check(query);
        } catch (InvalidQueryException | BadRequestException e) {
            if (mayNameHidden(context, parameters)) {
                return Optional.empty();
            }
            problem = e.getMessage();
        }
        return Optional.of(new SavedSearch(
                record.name(),
                told(caller, record.owner()),
                record.description(),
                record.subject(),
                parameters,
                record.replacement().map(KeptReplacement::read).orElse(null),
                isWorklist,
                record.source().isEmpty() ? null : record.source(),
                problem,
                record.version(),
                record.changed(),
                record.changedBy().orElse(null)));
    }

    private boolean namesHidden(CallerContext context, Query query) {
        return query.conditions().stream()
                .anyMatch(condition -> condition instanceof FileCondition.Repository(Glob name)
                        && catalogue.find(name.toString()).isPresent()
                        && context.find(name.toString()).isEmpty());
    }

    /** The same of a search that cannot be understood any more: whatever stands in it counts. */
    private boolean mayNameHidden(CallerContext context, Map<String, List<String>> parameters) {
        return catalogue.all().stream()
                .map(Repository::name)
                .filter(name -> context.find(name).isEmpty())
                .anyMatch(name ->
                        parameters.values().stream().flatMap(List::stream).anyMatch(value -> value.contains(name)));
    }

    /** Whose searches somebody has, the nearest first. */
    private static List<String> owners(Caller caller) {
        List<String> owners = new ArrayList<>();
        caller.account().ifPresent(account -> {
            owners.add(Repository.person(account.name()));
            account.teams().forEach(team -> owners.add(Repository.team(team)));
        });
        owners.add("");
        return owners;
    }

    /** Whose a search is, as a caller is told. */
    private static String told(Caller caller, String owner) {
        return owner.isEmpty()
                ? EVERYBODY
                : caller.account()
                        .filter(account -> owner.equals(Repository.person(account.name())))
                        .map(_ -> ME)
                        .orElse(owner);
    }

    /** The owner that is meant, if the caller may change what is of it. */
    private static String owner(Caller caller, String of) {
        String wanted = Objects.requireNonNullElse(of, EVERYBODY);
        if (wanted.equals(EVERYBODY)) {
            if (!caller.may(Role.MAINTAINER)) {
                throw new ForbiddenException(
                        "Maintainers keep the searches of everybody. Save it as your own (me), or for a team (team:NAME).");
            }
            return "";
        }
        if (wanted.startsWith(REPOSITORY)) {
            throw new ForbiddenException("This search is kept in a file of the repository "
                    + wanted.substring(REPOSITORY.length()) + ", below .oddbeacon. Change it there.");
        }
        Account account = caller.account()
                .orElseThrow(() -> new BadRequestException(
                        "Nobody signs in at this service: all saved searches are everybody's."));
        if (wanted.equals(ME)) {
            return Repository.person(account.name());
        }
        if (!wanted.startsWith(TEAM)) {
            throw new BadRequestException(
                    "A saved search is of everybody, of a team (team:NAME), or your own (me), not of \"" + wanted
                            + "\".");
        }
        if (!account.teams().contains(wanted.substring(TEAM.length()))) {
            throw new ForbiddenException("You are not in the team " + wanted.substring(TEAM.length()) + ".");
        }
        return wanted;
    }

    /**
     * Makes one, or changes one.
     *
     * @throws ConflictException if it was changed since the version that is named, or is there already
     */
    SavedSearch save(Caller caller, String name, SavedSearch.Change change) {
        String owner = owner(caller, change.of());
        Kept kept = checked(caller, name, change);
        try {
            transaction.executeWithoutResult(_ -> {
                Optional<SavedSearchRecord> found = records.findByOwnerAndName(owner, name);
                if (change.version() == null && found.isPresent()) {
                    throw new ConflictException(
                            "There is a saved search " + name + " already. Choose another name, or change that one.");
                }
                if (change.version() != null) {
                    Versions.check(ONE, name, found.map(there -> there.version()), change.version());
                }
                write(caller, owner, found, name, kept);
            });
        } catch (ObjectOptimisticLockingFailureException | DataIntegrityViolationException e) {
            throw Versions.changedMeanwhile(ONE, name);
        }
        return get(caller, name, Optional.of(told(caller, owner)));
    }

    /** Makes or replaces several at once, or none if anything is wrong. */
    List<SavedSearch> saveAll(Caller caller, Map<String, SavedSearch.Change> searches, boolean replaces) {
        String owner = owner(caller, searches.values().iterator().next().of());
        Map<String, Kept> kept = new LinkedHashMap<>();
        searches.forEach((name, change) -> {
            try {
                kept.put(name, checked(caller, name, change));
            } catch (InvalidQueryException | BadRequestException e) {
                throw new BadRequestException("The search " + name + ": " + e.getMessage() + " Nothing was changed.");
            }
        });
        transaction.executeWithoutResult(_ -> {
            List<String> taken = searches.keySet().stream()
                    .filter(name -> records.findByOwnerAndName(owner, name).isPresent())
                    .toList();
            if (!replaces && !taken.isEmpty()) {
                throw new ConflictException("There are saved searches of these names already: "
                        + String.join(", ", taken)
                        + ". Nothing was changed. Ask for them to be replaced, or rename them in the file.");
            }
            kept.forEach((name, each) -> write(caller, owner, records.findByOwnerAndName(owner, name), name, each));
        });
        List<SavedSearch> now = of(caller); // once for all of them
        return searches.keySet().stream()
                .map(name -> named(now, name, Optional.of(told(caller, owner))))
                .toList();
    }

    private void write(Caller caller, String owner, Optional<SavedSearchRecord> found, String name, Kept kept) {
        SavedSearchRecord record = found.orElseGet(() -> new SavedSearchRecord(owner, name));
        record.change(
                kept.description,
                Parameters.lower(kept.subject),
                kept.json(),
                caller.account().map(Account::name));
        record.replacement(kept.replacement);
        SavedSearchRecord saved = records.save(record);
        if (kept.worklist) {
            worklists.begin(saved.id(), caller.account().map(Account::name));
        }
    }

    void remove(Caller caller, String name, Optional<String> of, Optional<Long> version) {
        String owner = owner(caller, get(caller, name, of).of());
        transaction.executeWithoutResult(_ -> {
            Optional<SavedSearchRecord> found = records.findByOwnerAndName(owner, name);
            version.ifPresent(seen -> Versions.check(ONE, name, found.map(there -> there.version()), seen));
            records.delete(found.orElseThrow(() -> notThere(name)));
        });
    }

    /** A search that may be kept. */
    record Kept(
            String description,
            Subject subject,
            SortedMap<String, List<String>> parameters,
            Optional<String> replacement,
            boolean worklist) {
        String json() {
            return JsonMapper.shared().writeValueAsString(parameters);
        }

        /** Whether that is what a record says. */
        boolean isIn(SavedSearchRecord record) {
            return record.subject() != null
                    && record.subject().equals(word(subject))
                    && record.description().equals(description)
                    && record.parameters().equals(json())
                    && record.replacement().equals(replacement);
        }
    }

    static String word(Subject subject) {
        return Parameters.lower(subject);
    }

    private Kept checked(Caller caller, String name, SavedSearch.Change change) {
        try (CallerContext context = contexts.open(caller)) {
            Kept kept = understood(context, name, change);
            context.check(Subjects.query(context, kept.subject, kept.parameters));
            return kept;
        }
    }

    /** A search that can be kept, whether what it names is there or not. */
    Kept understood(CallerContext context, String name, SavedSearch.Change change) {
        GivenNames.check(A_SEARCH, name);
        if (name.equals(FILE)) {
            throw new BadRequestException("The address of a search of this name is taken. Choose another one.");
        }
        GivenNames.checkDescription(name, change.description());
        Subject subject = Subjects.named(change.subject());
        if (change.parameters() == null) {
            throw new BadRequestException("The parameters of " + name + " are missing.");
        }
        Kept kept = new Kept(
                Objects.requireNonNullElse(change.description(), "").strip(),
                subject,
                Subjects.kept(subject, change.parameters()),
                Optional.ofNullable(change.replacement())
                        .map(instead -> KeptReplacement.checked(subject, change.parameters(), instead)),
                Boolean.TRUE.equals(change.worklist()));
        if (kept.json().length() > LONGEST) {
            throw new BadRequestException(
                    "The search " + name + " has more than " + LONGEST + " characters. List folders instead of files.");
        }
        Subjects.query(context, subject, kept.parameters);
        return kept;
    }
}
