package dev.oddbeacon.server.exclusion;

import dev.oddbeacon.api.ExclusionPreview;
import dev.oddbeacon.api.ExclusionSetInfo;
import dev.oddbeacon.core.exclusion.ExclusionEffect;
import dev.oddbeacon.core.exclusion.ExclusionSet;
import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.core.query.matching.CompiledQuery;
import dev.oddbeacon.core.snapshot.Branch;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.server.access.Caller;
import dev.oddbeacon.server.access.CallerContext;
import dev.oddbeacon.server.access.Contexts;
import dev.oddbeacon.server.access.ScopeParameters;
import dev.oddbeacon.server.accounts.Account;
import dev.oddbeacon.server.catalogue.ExclusionFile;
import dev.oddbeacon.server.catalogue.ExclusionSets;
import dev.oddbeacon.server.catalogue.SetsInUse;
import dev.oddbeacon.server.web.BadRequestException;
import dev.oddbeacon.server.web.ForbiddenException;
import dev.oddbeacon.server.web.Parameters;
import dev.oddbeacon.server.web.Problems;
import io.swagger.v3.oas.annotations.Operation;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** {@code /api/v1/exclusion-sets}: named lists of path patterns, and what they do. */
@RestController
@RequestMapping("/api/v1/exclusion-sets")
class ExclusionSetsController {
    private static final String YAML = "application/yaml";

    private final ExclusionSets sets;
    private final Contexts contexts;

    ExclusionSetsController(ExclusionSets sets, Contexts contexts) {
        this.sets = sets;
        this.contexts = contexts;
    }

    @GetMapping
    List<ExclusionSetInfo> all(Caller caller) {
        return own(caller).all();
    }

    @GetMapping("/{name}")
    ExclusionSetInfo one(Caller caller, @PathVariable String name) {
        return own(caller).get(name);
    }

    private SetsInUse own(Caller caller) {
        try (CallerContext context = contexts.open(caller)) {
            return context.sets();
        }
    }

    /** Whose a set is that is changed: empty for all. */
    private static Optional<String> owner(Caller caller, boolean own) {
        if (own && caller.account().isEmpty()) {
            throw new BadRequestException("Nobody signs in at this service: all exclusion sets are everybody's.");
        }
        return caller.account().filter(_ -> own).map(Account::name);
    }

    @Operation(
            summary = "Makes a set, or changes one",
            description =
                    "Who changes a set names the version they have seen; 409 if somebody else has changed it since. With own=true it is the caller's own, in place of a shared one of the same name.")
    @PutMapping("/{name}")
    ExclusionSetInfo save(
            Caller caller,
            @PathVariable String name,
            @RequestParam(defaultValue = "false") boolean own,
            @RequestBody ExclusionSetInfo.Change change) {
        return sets.save(owner(caller, own), name, change);
    }

    @DeleteMapping("/{name}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(
            Caller caller,
            @PathVariable String name,
            @RequestParam(defaultValue = "false") boolean own,
            @RequestParam(required = false) Long version) {
        if (own(caller).all().stream().anyMatch(set -> set.name().equals(name) && set.repository() != null)) {
            throw new ForbiddenException(
                    "The exclusion set " + name + " is kept in a file of a repository. Change it there.");
        }
        sets.remove(owner(caller, own), name, Optional.ofNullable(version));
    }

    @Operation(
            summary = "What patterns would do to the files of a scope",
            description = "Pattern by pattern; each file counts for the last pattern that decides it.")
    @PostMapping("/preview")
    ExclusionPreview preview(Caller caller, @RequestBody ExclusionPreview.Request request, ScopeParameters within) {
        long start = System.nanoTime();
        if (request.patterns() == null) {
            throw new BadRequestException("The patterns are missing. Give one a line.");
        }
        ExclusionSet.Parsed parsed = ExclusionSet.parse(request.patterns());
        try (CallerContext context = contexts.open(caller)) {
            Query scope = context.scope(within).query();
            context.check(scope);
            View view = context.view();
            ExclusionEffect effect = ExclusionEffect.of(
                    view, context.search().limits(CompiledQuery.of(scope, CaseMode.AUTO)), parsed.set());
            return new ExclusionPreview(
                    effect.files(),
                    effect.left(),
                    effect.patterns().stream()
                            .map(pattern -> pattern(view, pattern))
                            .toList(),
                    parsed.mistakes().stream().map(Problems::mistake).toList(),
                    Parameters.millisSince(start));
        }
    }

    private static ExclusionPreview.Pattern pattern(View view, ExclusionEffect.OfPattern pattern) {
        return new ExclusionPreview.Pattern(
                pattern.line(),
                pattern.text(),
                pattern.bringsBack(),
                pattern.files(),
                pattern.folders(),
                pattern.filesInFolders(),
                samples(view, pattern.sampleFolders()),
                samples(view, pattern.sampleFiles()),
                pattern.warning().orElse(null));
    }

    private static List<ExclusionPreview.Sample> samples(View view, List<ExclusionEffect.Sample> samples) {
        return samples.stream()
                .map(sample -> {
                    Branch branch = view.branch(sample.branchNumber());
                    return new ExclusionPreview.Sample(
                            branch.repository(), branch.name(), sample.path(), sample.files());
                })
                .toList();
    }

    @Operation(summary = "Sets as a YAML file", description = "All, or those that are named.")
    @GetMapping(path = "/file", produces = YAML)
    ResponseEntity<byte[]> export(Caller caller, @RequestParam(required = false) List<String> name) {
        SetsInUse all = own(caller);
        List<ExclusionSetInfo> wanted =
                name == null ? all.all() : name.stream().map(all::get).toList();
        return ResponseEntity.ok()
                .header("Content-Disposition", "attachment; filename=\"exclusion-sets.yaml\"")
                .body(ExclusionFile.write(wanted).getBytes(StandardCharsets.UTF_8));
    }

    @Operation(
            summary = "Takes sets from a YAML file",
            description =
                    "All of them, or none if anything is wrong; 409 if one is there already, unless replace is true.")
    @PostMapping(
            path = "/file",
            consumes = {YAML, "text/yaml", "text/plain", "application/octet-stream"})
    List<ExclusionSetInfo> importFile(
            Caller caller,
            @RequestBody byte[] file,
            @RequestParam(defaultValue = "false") boolean own,
            @RequestParam(defaultValue = "false") boolean replace) {
        return sets.saveAll(owner(caller, own), ExclusionFile.read(new String(file, StandardCharsets.UTF_8)), replace);
    }
}
