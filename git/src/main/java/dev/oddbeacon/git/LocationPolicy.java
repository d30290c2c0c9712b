package dev.oddbeacon.git;

import java.io.IOException;
import java.net.Inet6Address;
import java.net.InetAddress;
import java.net.UnknownHostException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;

/**
 * Which locations the service goes to with its own rights. Whoever may register a repository must not read with them
 * what they may not read themselves, nor learn what listens where: folders only below the roots and outside of what the
 * service keeps, hosts only with public addresses unless they are named.
 *
 * @param roots folders below which repositories may lie; any folder if there are none
 * @param closed folders that the service keeps for itself
 * @param open folders within those that are not closed
 * @param hosts names or addresses that are allowed whatever their addresses are
 * @param resolver of the names of hosts
 */
public record LocationPolicy(
        List<Path> roots, List<Path> closed, List<Path> open, List<String> hosts, Resolver resolver) {
    /** Any folder, and hosts with public addresses. */
    public static final LocationPolicy OPEN =
            new LocationPolicy(List.of(), List.of(), List.of(), List.of(), InetAddress::getAllByName);

    /** Finds the addresses of a host. */
    @FunctionalInterface
    public interface Resolver {
        InetAddress[] resolve(String host) throws UnknownHostException;
    }

    /** Why a location is not gone to; for the log, as it tells what the service sees. */
    static final class ForbiddenException extends Exception {
        ForbiddenException(String message) {
            super(message);
        }
    }

    /**
     * The address to go to, so that a name cannot lead elsewhere a moment later.
     *
     * @return empty for a folder, and for a host that is allowed by name
     * @throws ForbiddenException if the location must not be gone to
     */
    Optional<InetAddress> check(Location location) throws ForbiddenException {
        if (location.folder().isPresent()) {
            checkFolder(location.folder().get());
            return Optional.empty();
        }
        return check(location.host().orElseThrow());
    }

    /**
     * The address of a host to go to.
     *
     * @return empty for one that is allowed by name
     * @throws ForbiddenException if it must not be gone to
     */
    Optional<InetAddress> check(Location.Host host) throws ForbiddenException {
        if (hosts.stream().anyMatch(host.name()::equalsIgnoreCase)) {
            return Optional.empty();
        }
        try {
            List<InetAddress> addresses = Arrays.asList(resolver.resolve(unbracketed(host.name())));
            for (InetAddress address : addresses) {
                if (!isPublic(address)) {
                    throw new ForbiddenException(host.name() + " has the address " + address.getHostAddress()
                            + ", which is not a public one; oddbeacon.locations.hosts can allow it");
                }
            }
            return Optional.of(addresses.getFirst());
        } catch (UnknownHostException e) {
            throw new ForbiddenException("the host " + host.name() + " is not known");
        }
    }

    /** Why nothing is sent to a host; empty if something may be. */
    public Optional<String> refusal(String host) {
        try {
            check(new Location.Host("https", host, 443));
            return Optional.empty();
        } catch (ForbiddenException e) {
            return Optional.of(e.getMessage());
        }
    }

    private static String unbracketed(String host) {
        return host.startsWith("[") && host.endsWith("]") ? host.substring(1, host.length() - 1) : host;
    }

    /** Whether an address is one of the open network: not this machine, its neighbours, or a private network. */
    static boolean isPublic(InetAddress address) {
        byte[] bytes = address.getAddress();
        if (address.isAnyLocalAddress()
                || address.isLoopbackAddress()
                || address.isLinkLocalAddress()
                || address.isSiteLocalAddress()
                || address.isMulticastAddress()) {
            return false;
        }
        if (address instanceof Inet6Address) {
            boolean isUniqueLocal = (bytes[0] & 0xFE) == 0xFC;
            boolean isTranslated = bytes[0] == 0 && bytes[1] == 0x64; // 64:ff9b::/96 leads to any IPv4 address
            boolean isTunnel = bytes[0] == 0x20 && bytes[1] == 0x02; // as 2002::/16 does
            boolean isReserved = bytes[0] == 0;
            return !isUniqueLocal && !isTranslated && !isTunnel && !isReserved;
        }
        int first = bytes[0] & 0xFF;
        int second = bytes[1] & 0xFF;
        boolean isShared = first == 100 && second >= 64 && second < 128; // of a provider's customers
        boolean isForTests = first == 198 && (second == 18 || second == 19);
        return first != 0 && first < 224 && !isShared && !isForTests;
    }

    private void checkFolder(Path folder) throws ForbiddenException {
        try {
            Path real = folder.toRealPath();
            if (!roots.isEmpty() && roots.stream().noneMatch(root -> isBelow(real, root))) {
                throw new ForbiddenException(folder + " is below none of oddbeacon.locations.roots");
            }
            for (Path read : readBesides(real)) {
                boolean isClosed = closed.stream().anyMatch(one -> isBelow(read, one))
                        && open.stream().noneMatch(one -> isBelow(read, one));
                if (isClosed) {
                    throw new ForbiddenException(folder + " is, or leads to, what the service keeps for itself");
                }
            }
        } catch (IOException e) {
            throw new ForbiddenException("there is no folder " + folder + " that can be read");
        }
    }

    /** A folder and others that Git reads with it: a work tree names its repository, and that others to borrow from. */
    private static List<Path> readBesides(Path folder) throws IOException {
        List<Path> read = new ArrayList<>(List.of(folder));
        for (int i = 0; i < read.size() && i < 20; i++) {
            Path one = read.get(i);
            Path inside = one.resolve(".git");
            if (Files.isDirectory(inside)) {
                add(inside, read);
            } else if (Files.isRegularFile(inside)) {
                String text = Files.readString(inside).strip();
                add(
                        one.resolve(
                                text.startsWith("gitdir:")
                                        ? text.substring("gitdir:".length()).strip()
                                        : text),
                        read);
            }
            Path shared = one.resolve("commondir");
            if (Files.isRegularFile(shared)) {
                add(one.resolve(Files.readString(shared).strip()), read);
            }
            add(one.resolve("objects"), read);
            add(one.resolve("refs"), read);
            Path borrowed = one.resolve("info").resolve("alternates");
            if (Files.isRegularFile(borrowed)) {
                for (String line : Files.readAllLines(borrowed)) {
                    add(one.resolve(line), read);
                }
            }
        }
        return read;
    }

    private static void add(Path path, List<Path> read) throws IOException {
        if (Files.exists(path) && !read.contains(path.toRealPath())) {
            read.add(path.toRealPath());
        }
    }

    private static boolean isBelow(Path path, Path folder) {
        try {
            return path.startsWith(Files.exists(folder) ? folder.toRealPath() : folder.toAbsolutePath());
        } catch (IOException e) {
            return true; // deny first
        }
    }
}
